import { LATIN_DIGITS, numberSymbols } from './number-symbols';

/**
 * What a typed number may mean: the one number it says, as a decimal with a point; the numbers it could say, where its notation is
 * not the locale's; or that it is none.
 */
export type ReadNumber = { is: 'number'; number: string } | { is: 'either'; numbers: string[] } | { is: 'none' };

const SPACES = /[\s\u00a0\u202f\u2009]/g;
const MARKS_OF_DIRECTION = /[\u061c\u200e\u200f]/g;

/**
 * Reads a number as a person types it in the notation of a locale (CLDR): its digits, its decimal sign, its groups, in each of which
 * stand as many digits as the locale has there. What is written otherwise is never guessed: `5.80` in German may be 5.80 or 580.
 */
export function readNumber(typed: string, locale: string): ReadNumber {
  const symbols = numberSymbols(locale);
  const [decimal, group] = [plain(symbols.decimal), plain(symbols.group)];
  const text = plain(asciiDigits(typed.replace(MARKS_OF_DIRECTION, '').trim(), symbols.digits));
  const sign = text.startsWith('-') ? '-' : '';
  const body = text.slice(sign.length).trim();
  if (!/^[\d.,' ]*\d[\d.,' ]*$/.test(body)) return { is: 'none' };
  const own = inNotation(body, decimal, group, symbols.groups);
  if (own !== undefined) return { is: 'number', number: sign + own };
  const others = ['.', ','].flatMap((sign_) =>
    ['.', ',', ' ', "'"]
      .filter((each) => each !== sign_)
      .flatMap((between) => inNotation(body, sign_, between, [3]) ?? inNotation(body, sign_, between, [3, 2]) ?? []),
  );
  // A separator that stands once may be a decimal sign, or one of groups that is out of its place.
  const separators = body.match(/[.,]/g) ?? [];
  if (separators.length === 1) others.push(body.replace(/[.,' ]/g, '').replace(/^0+(?=\d)/, ''));
  const numbers = [...new Set(others)].map((each) => sign + each);
  if (numbers.length === 0) return { is: 'none' };
  return numbers.length === 1 ? { is: 'number', number: numbers[0]! } : { is: 'either', numbers };
}

/** A decimal with a point as it is typed in a locale: with its digits and its decimal sign, without groups. */
export function numberTyped(number: string, locale: string): string {
  const { decimal, digits } = numberSymbols(locale);
  return number.replace('.', decimal).replace(/\d/g, (digit) => [...digits][Number(digit)]!);
}

/** The number, where a text is written in a notation through and through. */
function inNotation(body: string, decimal: string, group: string, sizes: readonly number[]): string | undefined {
  const [whole = '', fraction, ...rest] = body.split(decimal);
  if (rest.length > 0 || (fraction !== undefined && !/^\d*$/.test(fraction))) return undefined;
  const parts = whole.split(group);
  if (parts.some((part) => !/^\d*$/.test(part))) return undefined;
  if (parts.length > 1 && !isGrouped(parts, sizes)) return undefined;
  const digits = parts.join('').replace(/^0+(?=\d)/, '');
  if (digits === '' && !fraction) return undefined;
  return fraction ? `${digits || '0'}.${fraction}` : digits || '0';
}

/** Whether groups have the sizes of a locale, of which the last one repeats; a number in groups does not begin with a zero. */
function isGrouped(parts: readonly string[], sizes: readonly number[]): boolean {
  const sizeOf = (fromEnd: number) => sizes[Math.min(fromEnd, sizes.length - 1)]!;
  return parts.toReversed().every((part, at) => {
    if (at < parts.length - 1) return part.length === sizeOf(at);
    return part.length > 0 && part.length <= sizeOf(at) && !part.startsWith('0');
  });
}

/** With signs that look alike written alike. */
const plain = (text: string): string =>
  text.replace(SPACES, ' ').replace(/[’ʼ]/g, "'").replace(/[−–]/g, '-').replace(/٫/g, ',').replace(/٬/g, '.');

const asciiDigits = (text: string, digits: string): string =>
  digits === LATIN_DIGITS
    ? text
    : [...text].map((each) => (digits.includes(each) ? String([...digits].indexOf(each)) : each)).join('');
