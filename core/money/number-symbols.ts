/** How numbers are written in a locale, as CLDR has it: by this, every part of a document writes them alike. */
export interface NumberSymbols {
  decimal: string;
  group: string;
  /** With a mark of direction before it, in some languages that are written from right to left. */
  minus: string;
  /** The ten digits of its numbering system. */
  digits: string;
  /** Sizes of the groups before the point, the last first: `[3]`, or `[3, 2]` in India. */
  groups: readonly number[];
  /** How many digits must stand before the first group sign: two in Spanish and Polish (1234, but 12.345). */
  leastGrouped: number;
}

/** The digits that names, codes and accounts are written in everywhere. */
export const LATIN_DIGITS = '0123456789';

const known = new Map<string, NumberSymbols>();

/** How a locale writes numbers, by CLDR; looked up once for each locale. */
export function numberSymbols(locale: string): NumberSymbols {
  let symbols = known.get(locale);
  if (!symbols) known.set(locale, (symbols = readSymbols(locale)));
  return symbols;
}

/** A text with its ASCII digits in those of a locale. */
export function inDigitsOf(locale: string, text: string): string {
  const { digits } = numberSymbols(locale);
  return digits === LATIN_DIGITS ? text : text.replace(/[0-9]/g, (digit) => digits[Number(digit)]!);
}

function readSymbols(locale: string): NumberSymbols {
  const parts = new Intl.NumberFormat(locale, { minimumFractionDigits: 1 }).formatToParts(123456789.5);
  // The sign with the marks of direction that some locales set around it.
  const negative = new Intl.NumberFormat(locale).formatToParts(-1);
  const plain = new Intl.NumberFormat(locale, { useGrouping: false });
  const part = (type: string, otherwise: string) => parts.find((each) => each.type === type)?.value ?? otherwise;
  const sizes = parts
    .filter(({ type }) => type === 'integer')
    .map(({ value }) => value.length)
    .reverse();
  const groupsThousands = new Intl.NumberFormat(locale).formatToParts(1234).some(({ type }) => type === 'group');
  return {
    decimal: part('decimal', '.'),
    group: part('group', ','),
    minus: negative
      .slice(
        0,
        negative.findIndex(({ type }) => type === 'integer'),
      )
      .map(({ value }) => value)
      .join('')
      .replace('-', '−'),
    digits: Array.from({ length: 10 }, (_, digit) => plain.format(digit)).join(''),
    groups: sizes.length < 3 || sizes[0] === sizes[1] ? sizes.slice(0, 1) : sizes.slice(0, 2),
    leastGrouped: groupsThousands ? 1 : 2,
  };
}
