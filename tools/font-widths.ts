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

/** How wide each character is at most in any cut of a font, in ems: family → character → width. A figure is as wide as a tabular one. */
export function fontWidths(folder: string): Record<string, Record<string, number>> {
  const widths: Record<string, Record<string, number>> = {};
  for (const file of readdirSync(folder).filter((name) => name.endsWith('.ttf'))) {
    const font = openSync(join(folder, file));
    const family = (widths[font.familyName.replace(/ SemiBold$/, '')] ??= {});
    for (const [first, last] of RANGES) {
      for (let code = first; code <= last; code++) {
        if (!font.hasGlyphForCodePoint(code)) continue;
        const character = String.fromCodePoint(code);
        const [position] = font.layout(character, /\d/.test(character) ? ['tnum'] : []).positions;
        family[character] = Math.max(family[character] ?? 0, position!.xAdvance / font.unitsPerEm);
      }
    }
  }
  return widths;
}
