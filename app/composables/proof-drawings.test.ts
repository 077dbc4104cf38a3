import { describe, expect, it } from 'vitest';
import { Drawings, undrawn, type ProofPage } from './proof-drawings';

const page = (digest: string, drawing?: string): ProofPage => ({ digest, drawing, values: [], sections: [] });
const answered = (...pages: ProofPage[]) => ({
  glyphs: { digest: 'glyphs', drawing: '<defs/>' },
  pages,
  pageSize: { width: 595, height: 842 },
});
const drawn = ({ pages }: { pages: readonly ProofPage[] }) => pages.map(({ drawing }) => drawing);

describe('drawings of a proof', () => {
  it('come with the proof or later, and need not come again as long as they are the same', () => {
    const drawings = new Drawings();
    const first = drawings.of(answered(page('one', 'I'), page('two')));
    expect(drawn(first)).toEqual(['I', undefined]);
    const whole = drawings.with(first, [{ digest: 'two', drawing: 'II' }]);
    expect(drawn(whole)).toEqual(['I', 'II']);
    expect(whole.pages[0]).toBe(first.pages[0]);
    expect(drawings.digests).toEqual(['glyphs', 'one', 'two']);

    const next = drawings.of({ ...answered(page('two'), page('three')), glyphs: { digest: 'glyphs' } });
    expect([next.glyphs, ...drawn(next)]).toEqual(['<defs/>', 'II', undefined]);
    expect(drawings.digests).toEqual(['glyphs', 'two']);
  });

  it('are sent for near the view first, a few at once, and not where they are at hand', () => {
    const pages = ['1', '', '', '', '5', '', '', '', '', '', '', ''].map((drawing) =>
      page(drawing, drawing || undefined),
    );
    expect(undrawn(pages, [])).toEqual({ skip: 1, top: 3, isNear: false });
    expect(undrawn(pages, [5, 6])).toEqual({ skip: 5, top: 5, isNear: true });
    expect(undrawn(pages, [1])).toEqual({ skip: 1, top: 3, isNear: false });
    expect(undrawn([page('one', 'I')], [1, 2])).toBeUndefined();
  });
});
