import { isCurrencyCode, minorUnit } from '../../money/currency';
import type { Decimal } from '../../money/decimal';
import { inDigitsOf } from '../../money/number-symbols';
import { own } from '../../record/own';
import { countedNoun, genderOfArabic, hasOneForm } from './arabic-nouns';
import { NUMBER_WORDS } from './languages';
import { spellOut, type Rules } from './spell-out';

type Gender = 'masculine' | 'feminine' | 'neuter';

/** What amounts in a language need besides its numbers. */
interface Grammar {
  minus: string;
  /** Between the whole units and the smaller ones. */
  and: string;
  /** The gender of a currency, by its name in the singular. Absent where numbers have none. */
  gender?: (name: string) => Gender;
  /** A number's words and the name of what it counts; one after the other where absent. */
  joined?: (words: string, name: string, count: number) => string;
}

/** In Romance languages a noun follows whole millions with a preposition: un millón de euros. */
const afterMillions = (preposition: (name: string) => string) => (words: string, name: string, count: number) =>
  count >= 1_000_000 && count % 1_000_000 === 0 ? `${words} ${preposition(name)}${name}` : `${words} ${name}`;

const feminineIf =
  (ending: RegExp) =>
  (name: string): Gender =>
    ending.test(name) ? 'feminine' : 'masculine';

const GRAMMARS: Readonly<Record<string, Grammar>> = {
  en: { minus: 'minus', and: 'and' },
  nl: { minus: 'min', and: 'en' },
  // The adjective tells: Schwedische Krone, but Polnischer Złoty and Britisches Pfund.
  de: { minus: 'minus', and: 'und', gender: feminineIf(/^\S+e \S/) },
  fr: {
    minus: 'moins',
    and: 'et',
    gender: feminineIf(/^(livre|couronne|roupie|hryvnia|pataca)\b/),
    joined: afterMillions((name) => (/^[aàâeéèêiîoôuû]/i.test(name) ? 'd’' : 'de ')),
  },
  es: { minus: 'menos', and: 'con', gender: feminineIf(/^\S*a\b/), joined: afterMillions(() => 'de ') },
  it: {
    minus: 'meno',
    and: 'e',
    gender: feminineIf(/^\S*a\b/),
    joined: (words, name, count) => {
      if (count === 1 && words === 'un' && /^(z|y|gn|ps|s[^aeiou])/i.test(name)) return `uno ${name}`;
      return afterMillions(() => 'di ')(words, name, count);
    },
  },
  pt: { minus: 'menos', and: 'e', gender: feminineIf(/^\S*a\b/i), joined: afterMillions(() => 'de ') },
  pl: {
    minus: 'minus',
    and: 'i',
    gender: (name) => (/^\S*a\b/.test(name) ? 'feminine' : /^\S*o\b/.test(name) ? 'neuter' : 'masculine'),
  },
  ar: {
    minus: 'ناقص',
    and: 'و',
    gender: genderOfArabic,
    joined: (words, name, count) => {
      const counted = countedNoun(name, count);
      // One follows its noun, and the dual says two by itself.
      if (count === 1) return `${name} ${words}`;
      if (count === 2 && !hasOneForm(name)) return counted;
      // Before its noun a dual loses its n (ألفا درهم), and a thousand its ending (أحد عشر ألف درهم).
      return `${words.replace(/(مائت|ألف|مليون|مليار|تريليون)ان$/, '$1ا').replace(/(ألف|مليون|مليار|تريليون)ًا$/, '$1')} ${counted}`;
    },
  },
};

/** Languages that numbers can be written out in (ISO 639-1). */
export const WORD_LANGUAGES: readonly string[] = Object.keys(GRAMMARS);

/**
 * A whole number below 10^15 in the words of a language, given by its BCP 47 tag; undefined for a language without words
 * here.
 */
export function numberInWords(value: Decimal, tag: string): string | undefined {
  const language = languageOf(tag);
  if (!language) return undefined;
  const { grammar, rules } = language;
  return signed(value, grammar, spellOut(value.abs().toNumber(), rules, 'counting'));
}

/**
 * A sum in words, as on a cheque: the whole units in words with the currency's name, and the smaller units as a
 * fraction, which is read the same in every language: "five hundred and twenty-three euros and 80/100".
 * Undefined for a language without words here.
 */
export function amountInWords(value: Decimal, currency: string, tag: string): string | undefined {
  const language = languageOf(tag);
  if (!language) return undefined;
  const { grammar, rules, locale } = language;
  const digits = minorUnit(currency);
  const rounded = value.round(digits);
  const whole = rounded.abs().round(0, 'down');
  const count = whole.toNumber();
  const words = spellOut(count, rules, grammar.gender?.(currencyName(1, currency, locale)) ?? 'counting');
  const name = currencyName(count, currency, locale);
  const text = signed(rounded, grammar, (grammar.joined ?? ((one, other) => `${one} ${other}`))(words, name, count));
  if (digits === 0) return text;
  const minor = rounded.abs().minus(whole).shifted(digits).toFixed(0).padStart(digits, '0');
  return `${text} ${grammar.and} ${inDigitsOf(tag, `${minor}/${'1'.padEnd(digits + 1, '0')}`)}`;
}

function languageOf(tag: string): { rules: Rules; grammar: Grammar; locale: string } | undefined {
  const [language = '', region = ''] = tag.split('-');
  const grammar = own(GRAMMARS, language.toLowerCase());
  if (!grammar) return undefined;
  const locale = `${language.toLowerCase()}-${region.toUpperCase()}`;
  const rules = own(NUMBER_WORDS, locale) ?? own(NUMBER_WORDS, language.toLowerCase())!;
  return { rules, grammar, locale: rules.language };
}

const signed = (value: Decimal, { minus }: Grammar, words: string) =>
  value.isNegative() ? `${minus} ${words}` : words;

/** The currency's name in the number it takes beside an amount, in running text: "euro", "euros". */
function currencyName(count: number, currency: string, locale: string): string {
  if (!isCurrencyCode(currency)) return currency;
  const format = new Intl.NumberFormat(locale, {
    style: 'currency',
    currency,
    currencyDisplay: 'name',
    maximumFractionDigits: 0,
  });
  const name = format.formatToParts(count).find(({ type }) => type === 'currency')?.value ?? currency;
  // CLDR 48 has Portuguese names with a capital, and one with its plural's s in front.
  if (!locale.startsWith('pt')) return name;
  return `${name.charAt(0).toLowerCase()}${name.slice(1)}`.replace(/^sdirham\b/, 'dirhams');
}
