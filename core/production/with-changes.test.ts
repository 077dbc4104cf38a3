import { describe, expect, it } from 'vitest';
import glasshouseQuote from '../../demo/templates/glasshouse-quote.json';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import type { ComposedBlock } from '../template/blocks';
import type { Template } from '../template/template';
import { composing, type ComposeContext } from './compose';
import { sectionNotes } from './composed-blocks';
import type { DocumentChange, MadeChange } from './document-change';

const template = glasshouseQuote as unknown as Template;
const made = (change: DocumentChange, id = '5d2f5f64-8c5e-4b43-9f0e-6a8b1f0d7a01'): MadeChange => ({
  id,
  change,
  label: 'what it is',
  by: 'Tamar Whitlow',
  at: '2026-11-27T10:00:00.000Z',
});
const composed = (deal: string, changes: readonly MadeChange[] = [], files?: ComposeContext['files']) =>
  composing(template, demoSnapshot(deal), {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-27',
    edition: 'en',
    available: demoPictures,
    changes,
    files,
  });
const textOf = (block: ComposedBlock) =>
  JSON.stringify(block, (key, value: unknown) =>
    key === 'runs' ? (value as { text?: string }[]).map(({ text }) => text).join('') : value,
  );
const textsOf = (made: ReturnType<typeof composed>) => made.composition.document.body.map(textOf).join('\n');
const notesOf = (all: readonly ComposedBlock[]) => Object.values(sectionNotes(all));

describe('a value for one document alone', () => {
  it('is printed and computed with, takes its finding away, and leads to where it is printed', () => {
    const [finding] = composed('D-1202').composition.findings;
    expect(finding).toMatchObject({ severity: 'stops', path: 'deal.lines{D-1202-4}.unit_price' });
    const given = made({ type: 'value', path: finding!.path!, value: '485.00' });
    const { composition } = composed('D-1202', [given]);
    expect(composition.findings.map(({ id }) => id)).not.toContain(finding!.id);
    expect(composition.changed[given.id]).toContainEqual(expect.stringContaining('D-1202-4'));
    expect(composition.used[finding!.path!]).toContain('485');
    // Beside the price itself, and not beside the totals that it goes into.
    expect(Object.values(composition.givenNotes ?? {})).toEqual(['value given by Tamar Whitlow, 27 November']);
  });

  it('that does not fit its field, or has none, stops filing with the reason', () => {
    const wrong = made({ type: 'value', path: 'deal.validity_days', value: 'soon' });
    const gone = made({ type: 'value', path: 'deal.lines{none}.unit_price', value: '1' }, 'other');
    const { findings } = composed('D-1187', [wrong, gone]).composition;
    expect(findings.filter(({ id }) => id.startsWith('change'))).toMatchObject([
      { id: `change ${wrong.id}`, severity: 'stops' },
      { id: 'change other', severity: 'stops', sentence: 'There is no “deal.lines{none}.unit_price” to be tried.' },
    ]);
  });
});

describe('a section that is switched for one document', () => {
  const sections = (deal: string) => composed(deal).parts().sections;

  it('prints although its condition does not hold, and says by whom', () => {
    const off = sections('D-1187').find(({ prints }) => !prints)!;
    const on = made({ type: 'section', block: off.id, prints: true });
    const changed = composed('D-1187', [on]);
    expect(changed.composition.leftOut.map(({ block }) => block)).not.toContain(off.id);
    expect(notesOf(changed.composition.document.body)).toContain('switched on by Tamar Whitlow, 27 November');
    expect(changed.parts().sections.find(({ id }) => id === off.id)).toMatchObject({ prints: true, note: off.note });
  });

  it('can be switched on where what is printed otherwise stands in its place', () => {
    const otherwise = template.layout.body.flatMap((block) =>
      block.type === 'whenSection' && block.content.length === 2 ? [block.attrs.id] : [],
    );
    const off = sections('D-1196').filter(({ id, prints }) => otherwise.includes(id) && !prints);
    expect(off.length).toBeGreaterThan(0);
    const on = composed('D-1196', [made({ type: 'section', block: off[0]!.id, prints: true })]);
    expect(on.parts().sections.find(({ id }) => id === off[0]!.id)).toMatchObject({ prints: true });
  });

  it('does not print although it holds', () => {
    const on = sections('D-1188').find(({ prints }) => prints)!;
    const changed = composed('D-1188', [made({ type: 'section', block: on.id, prints: false })]);
    expect(changed.composition.leftOut.map(({ block }) => block)).toContain(on.id);
    expect(changed.composition.usedDigest).not.toBe(composed('D-1188').composition.usedDigest);
    expect(notesOf(changed.composition.document.body)).toContain(
      'switched off by Tamar Whitlow, 27 November: what it is',
    );
  });
});

describe('words that are changed for one document', () => {
  it('stand in place of the template’s, and keep its values as values', () => {
    const parts = composed('D-1187').parts();
    const [block] = parts.blocks.filter(({ texts }) =>
      texts.some(
        ({ content }) => content.some(({ type }) => type === 'value') && content.some(({ type }) => type === 'text'),
      ),
    );
    const [text] = block!.texts;
    const value = text!.content.find((each) => each.type === 'value')!;
    const change = made({
      type: 'words',
      block: text!.id,
      content: [
        { type: 'text', text: 'As we agreed: ' },
        { type: 'value', attrs: { id: value.attrs.id } },
      ],
    });
    const changed = composed('D-1187', [change]);
    expect(textsOf(changed)).toContain('As we agreed: ');
    expect(Object.keys(changed.composition.values)).toContain(value.attrs.id);
    expect(notesOf(changed.composition.document.body)).toContain('words changed by Tamar Whitlow, 27 November');
  });
});

describe('blocks of one document', () => {
  it('are left out, but for those that prove that it adds up', () => {
    const { blocks } = composed('D-1187').parts();
    const [words] = blocks.filter(({ mayBeLeftOut, texts }) => mayBeLeftOut && texts.length > 0);
    const without = composed('D-1187', [made({ type: 'leaveOut', block: words!.id })]);
    expect(without.parts().blocks.map(({ id }) => id)).not.toContain(words!.id);
    const table = blocks.find(({ id }) => id === 'lines')!;
    expect(table.mayBeLeftOut).toBe(false);
    const same = composed('D-1187', [made({ type: 'leaveOut', block: 'lines' })]);
    expect(same.parts().blocks.map(({ id }) => id)).toContain('lines');
  });

  it('are put in after others, clauses with their words', () => {
    const { blocks } = composed('D-1187').parts();
    const content = [
      {
        type: 'paragraph' as const,
        attrs: { id: 'own' },
        content: [{ type: 'text' as const, text: 'We bring our own crane.' }],
      },
      { type: 'clause' as const, attrs: { id: 'terms', clause: 'complaints' } },
    ];
    const added = composed('D-1187', [made({ type: 'add', after: blocks[0]!.id, content })]);
    expect(textsOf(added)).toContain('We bring our own crane.');
    expect(notesOf(added.composition.document.body)).toContain('added by Tamar Whitlow, 27 November');
    expect(added.parts().blocks.length).toBeGreaterThan(blocks.length + 1);
  });

  it('hold a picture that was put in, no wider than was asked for', () => {
    const [[sha256]] = Object.entries(demoPictures).filter(([, { mediaType }]) => mediaType === 'image/png') as [
      [string, unknown],
    ];
    const picture = {
      type: 'picture' as const,
      attrs: { id: 'picture', file: sha256, width: 240, height: 60, alt: 'The site' },
    };
    const [first] = composed('D-1187').parts().blocks;
    const put = made({ type: 'add', after: first!.id, content: [picture] });
    const files = { [sha256]: { sha256, mediaType: 'image/png' as const, width: 400, height: 200 } };
    const { composition } = composed('D-1187', [put], files);
    // 60 points high at 400 × 200 pixels: 120 wide.
    const printed = [...JSON.stringify(composition.document.body).matchAll(/\{[^{}]*"kind":"picture"[^{}]*\}/g)];
    expect(printed.map(([each]) => JSON.parse(each) as unknown)).toContainEqual(
      expect.objectContaining({ picture: sha256, width: 120, alt: 'The site' }),
    );
    expect(composition.assets[sha256]).toBeDefined();
    expect(composition.findings.filter(({ severity }) => severity === 'stops')).toEqual([]);
  });

  it('say beside what stays what was left out, and by whom', () => {
    const [first, second, third] = composed('D-1187')
      .parts()
      .blocks.filter(({ mayBeLeftOut }) => mayBeLeftOut);
    const left = [first!, second!].map(({ id }, at) => made({ type: 'leaveOut', block: id }, `change-${at}`));
    const notes = sectionNotes(composed('D-1187', left).composition.document.body);
    const told = Object.entries(notes).filter(([id]) => id.endsWith('.gone'));
    const words = 'left out by Tamar Whitlow, 27 November: what it is';
    expect(told.map(([, note]) => note).join('; ')).toBe(`${words}; ${words}`);
    expect(
      composed('D-1187', left)
        .parts()
        .blocks.map(({ id }) => id),
    ).toContain(third!.id);
  });

  it('that are gone are told, so that no change is lost silently', () => {
    const change = made({ type: 'leaveOut', block: 'not-there' });
    expect(composed('D-1187', [change]).composition.findings).toContainEqual(
      expect.objectContaining({
        id: `change ${change.id}`,
        severity: 'stops',
        title: 'A change does not apply any more',
      }),
    );
  });
});
