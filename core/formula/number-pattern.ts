import { Decimal, roundTo } from '../money/decimal';
import { inDigitsOf, numberSymbols } from '../money/number-symbols';

/** A number pattern of Unicode LDML (UTS 35 part 3), taken apart. */
interface NumberPattern {
  prefix: string;
  suffix: string;
  /** Prefix and suffix for values below zero, where the pattern says them after a semicolon. */
  negative?: { prefix: string; suffix: string };
  /** Size of the groups before the point, last first: `[3]`, or `[3, 2]` for lakhs. None where empty. */
  groups: number[];
  leastWhole: number;
  leastDecimals: number;
  mostDecimals: number;
  /** 2 for %, 3 for ‰. */
  shift: number;
}

const patterns = new Map<string, NumberPattern>();

/**
 * A number by a Unicode LDML number pattern, in the digits, signs and grouping of a locale: `#,##0.00`, `0.0%`,
 * `#,##0.00;(#,##0.00)`, `'No.' 0000`. Exact, rounded half away from zero.
 * @throws Error with a sentence for a pattern that says something else.
 */
export function formatNumberPattern(value: Decimal, source: string, locale: string): string {
  let pattern = patterns.get(source);
  if (!pattern) {
    pattern = readPattern(source);
    if (patterns.size > 1_000) patterns.clear();
    patterns.set(source, pattern);
  }
  const { minus } = numberSymbols(locale);
  const rounded = roundTo(value.shifted(pattern.shift), pattern.mostDecimals);
  const isNegative = rounded.isNegative();
  const digits = digitsOf(rounded.abs(), pattern, locale);
  const { prefix, suffix } = isNegative
    ? (pattern.negative ?? { prefix: minus + pattern.prefix, suffix: pattern.suffix })
    : pattern;
  return prefix + digits + suffix;
}

function digitsOf(value: Decimal, { groups, leastWhole, leastDecimals }: NumberPattern, locale: string): string {
  const symbols = numberSymbols(locale);
  const [whole = '', decimals = ''] = value.toFixed().split('.');
  const padded = (whole === '0' && leastWhole === 0 ? '' : whole).padStart(leastWhole, '0');
  // A pattern with one group sign asks for grouping as the locale does it, as everywhere in the document.
  const sizes = groups.length === 1 ? symbols.groups : groups;
  const grouped = sizes.length > 0 && groups.length > 0 && padded.length >= sizes[0]! + symbols.leastGrouped;
  const written = grouped ? inGroups(padded, sizes).join(symbols.group) : padded;
  const fraction = decimals.padEnd(leastDecimals, '0');
  return inDigitsOf(locale, written + (fraction ? symbols.decimal + fraction : ''));
}

/** Digits in groups of some sizes, the last one's first; the last size given goes on. */
function inGroups(digits: string, sizes: readonly number[]): string[] {
  const groups: string[] = [];
  let end = digits.length;
  for (let at = 0; end > 0; at++) {
    const start = Math.max(0, end - sizes[Math.min(at, sizes.length - 1)]!);
    groups.unshift(digits.slice(start, end));
    end = start;
  }
  return groups;
}

function readPattern(source: string): NumberPattern {
  const [positive, negative, ...rest] = splitAtSemicolon(source);
  const body = /^((?:'[^']*'|[^#0,.'])*)([#0,.]+)((?:'[^']*'|[^#0,.'])*)$/s.exec(positive!);
  const refused = new Error(`“${source}” is not a number pattern; try "#,##0.00".`);
  if (!body || rest.length > 0) throw refused;
  const [, prefix = '', digits = '', suffix = ''] = body;
  const shape = /^([#,]*[0,]*)(?:\.(0*)(#*))?$/.exec(digits);
  if (!shape || digits === '.' || /^,|,$|,,|,\./.test(digits.replace(/\..*$/, ''))) throw refused;
  const [, whole = '', fixed = '', open = ''] = shape;
  const [percent, permille] = [/%/, /‰/].map((sign) => sign.test(unquoted(prefix + suffix, '')));
  if (/[A-Za-z]/.test(unquoted(prefix + suffix, '')))
    throw new Error(`In the pattern “${source}”, plain words go between apostrophes.`);
  const groups = whole
    .split(',')
    .slice(1)
    .map((group) => group.length)
    .reverse()
    .slice(0, 2);
  const below =
    negative === undefined ? undefined : /^((?:'[^']*'|[^#0,.'])*)[#0,.]+((?:'[^']*'|[^#0,.'])*)$/s.exec(negative);
  if (below === null) throw refused;
  return {
    prefix: unquoted(prefix),
    suffix: unquoted(suffix),
    negative: below && { prefix: unquoted(below[1]!), suffix: unquoted(below[2]!) },
    groups,
    leastWhole: whole.replaceAll(/[#,]/g, '').length,
    leastDecimals: fixed.length,
    mostDecimals: fixed.length + open.length,
    shift: percent ? 2 : permille ? 3 : 0,
  };
}

function splitAtSemicolon(source: string): string[] {
  return source.match(/(?:'[^']*'|[^;'])+|'/g) ?? [''];
}

/** Words between apostrophes as they are, or with something else in their place; two apostrophes are one. */
function unquoted(affix: string, inPlace?: string): string {
  return affix.replace(/'([^']*)'/g, (_, words: string) => inPlace ?? (words === '' ? "'" : words));
}
