import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawnWithPaths, glyphsOf } from './page-drawing';

const symbol = (id: string, inner: string) => `<symbol id="${id}" overflow="visible"> ${inner} </symbol>`;
const outline = (id: string, path: string) => symbol(id, `<path d="M 0 0${path}"/>`);
const use = (id: string, x: number, look = ' fill="#000000" fill-rule="nonzero"') =>
  `<use xlink:href="#${id}" x="${x}" y="0"${look}/>`;

const [A, B] = ['m 1 0 v 5 h 2 Z ', 'm 0.5 0 l 1 3 Z '];
const { outlines, others } = glyphsOf(
  `<defs id="glyph"> ${outline('a', A)} ${outline('b', B)} ${symbol('picture', '<image href="x"/>')} ${outline('fixed', 'm 1 0 L 2 2 Z ')}</defs>`,
);

describe('the pages of a proof, drawn with paths', () => {
  it('knows the outlines of glyphs, and leaves pictures and what is not relative as they are defined', () => {
    expect([...outlines]).toEqual([
      ['a', A],
      ['b', B],
    ]);
    expect(others).toContain('<image href="x"/>');
    expect(others).toContain('id="fixed"');
    expect(others).not.toContain('id="a"');
  });

  it('makes one path of a run of glyphs, each from where it stands', () => {
    expect(drawnWithPaths(`<g>${use('a', 0)} ${use('b', 4.25)} ${use('a', 9)}</g>`, outlines)).toBe(
      `<g><path d="M0 0${A}M4.25 0${B}M9 0${A}" fill="#000000" fill-rule="nonzero"/></g>`,
    );
  });

  it('begins another path where the look changes, and keeps glyphs without an outline in their order', () => {
    const grey = ' fill="#888888"';
    expect(drawnWithPaths(`${use('a', 0, grey)}${use('a', 1)}${use('picture', 2)}${use('b', 3)}`, outlines)).toBe(
      `<path d="M0 0${A}"${grey}/><path d="M1 0${A}" fill="#000000" fill-rule="nonzero"/>${use('picture', 2)}<path d="M3 0${B}" fill="#000000" fill-rule="nonzero"/>`,
    );
  });

  it('draws every glyph of a run once, whatever their order, and changes nothing else', () => {
    const glyph = fc.record({ id: fc.constantFrom('a', 'b', 'picture'), x: fc.integer({ min: 0, max: 500 }) });
    fc.assert(
      fc.property(fc.array(glyph), fc.constantFrom('', '<rect width="3"/>', '<a href="lumbix:x">'), (run, around) => {
        const drawn = drawnWithPaths(`${around}${run.map(({ id, x }) => use(id, x)).join('')}${around}`, outlines);
        const starts = [...drawn.matchAll(/M(\d+) 0|<use xlink:href="#picture" x="(\d+)"/g)];
        expect(starts.map(([, path, own]) => Number(path ?? own))).toEqual(run.map(({ x }) => x));
        expect(drawn.startsWith(around) && drawn.endsWith(around)).toBe(true);
      }),
    );
  });
});
