import { openSync } from 'fontkit';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';

/** Letters, figures and signs of Latin scripts; what else a text may hold is not foreseen. */
const RANGES = [
  [0x20, 0x7e],
  [0xa0, 0xac],
  [0xae, 0x24f],
  [0x2010, 0x2044],
  [0x20a0, 0x20bf],
  [0x2212, 0x2212],
] as const;

/** What a number is made of. */
const FIGURE = /[\d.,]/;

/**
 * How wide characters are in ems, family → character → width: `letters` at most in any cut of a font, `figures` in its
 * regular one. A figure is as wide as a tabular one.
 */
export function fontWidths(folder: string): Record<'letters' | 'figures', Record<string, Record<string, number>>> {
  const letters: Record<string, Record<string, number>> = {};
  const figures: typeof letters = {};
  for (const file of readdirSync(folder).filter((name) => name.endsWith('.ttf'))) {
    const font = openSync(join(folder, file));
    const name = font.familyName.replace(/ SemiBold$/, '');
    const family = (letters[name] ??= {});
    const isRegular = font.subfamilyName === 'Regular' && name === font.familyName;
    for (const [first, last] of RANGES) {
      for (let code = first; code <= last; code++) {
        if (!font.hasGlyphForCodePoint(code)) continue;
        const character = String.fromCodePoint(code);
        const [position] = font.layout(character, /\d/.test(character) ? ['tnum'] : []).positions;
        const width = position!.xAdvance / font.unitsPerEm;
        family[character] = Math.max(family[character] ?? 0, width);
        if (isRegular && FIGURE.test(character)) (figures[name] ??= {})[character] = width;
      }
    }
  }
  return { letters, figures };
}
