import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { searchableTexts, searchFor, searchWords } from './search';

const finds = (typed: string, text: string) => searchFor(typed)([text]);

describe('a search', () => {
  it.each([
    ['ventilacion SUR', 'Invernadero sur, ventilación'],
    ['o’neil', "O'Neil & Daughters"],
    ['ﬁeld', 'Field house'],
    ['النور', 'مشاتل النُّور'],
    ['24,460', '24460.00'],
    ['1,250,000.50', '1250000.50'],
    ['house 40', 'Propagation house 40 × 12 m'],
    ['', 'anything'],
  ])('for “%s” finds “%s”', (typed, text) => {
    expect(finds(typed, text)).toBe(true);
  });

  it.each([
    ['house boat', 'Propagation house'],
    ['24,46', '24460.00'],
  ])('for “%s” does not find “%s”', (typed, text) => {
    expect(finds(typed, text)).toBe(false);
  });

  it('finds every text by its own words, in any order and however they are accented', () => {
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[a-zéüñA-Z]{1,8}$/), { minLength: 1, maxLength: 8 }), (words) => {
        const text = words.join(' ');
        expect(finds([...words].reverse().join('  ').toUpperCase(), text)).toBe(true);
        expect(finds(text.normalize('NFD'), text)).toBe(true);
      }),
    );
  });

  it('takes ten words at most, and joins only what is there', () => {
    expect(searchWords('a '.repeat(30))).toHaveLength(10);
    expect(searchableTexts(['Ä', null, undefined, '', 'b'])).toBe('a b');
  });
});
