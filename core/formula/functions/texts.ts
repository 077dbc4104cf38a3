import { Decimal } from '../../money/decimal';
import { formatDayPattern, formatMomentPattern, isDateStyle } from '../date';
import { formatNumberPattern } from '../number-pattern';
import { addressLines, countryName } from '../../words/address';
import { quoted, phrase } from '../../words/phrases';
import { boundedText } from '../operators';
import { BOOLEAN, NUMBER, TEXT as TEXT_TYPE } from '../type';
import { boolean, error, formatValue, number, percent, text, textIn, typeWords, type Value } from '../value';
import { wholeNumber } from './arithmetic';
import { eager, flatten, type FormulaFunction, type Parameter } from './function';

const WORDS: Parameter = { name: 'text', takes: 'text' };
const LONGEST = 100_000;

/** Characters as people count them: an emoji is one. */
const characters = (value: string): string[] => Array.from(value);

function declared(
  name: string,
  parameters: Parameter[],
  help: string,
  example: string,
  compute: Parameters<typeof eager>[1],
  result = TEXT_TYPE,
): FormulaFunction {
  return eager({ name, family: 'Texts', parameters, help, example, result }, compute);
}

const COUNT: Parameter = { name: 'count', takes: 'number', optional: true };

/** A count of characters, from an argument that may be left out. */
function counted(value: Value | undefined, otherwise: number, words = 'The number of characters'): number | Value {
  const count = wholeNumber(value, otherwise, words, LONGEST);
  return typeof count === 'number' && count < 0 ? error(`${words} is not less than zero.`) : count;
}

const LEFT = declared(
  'LEFT',
  [WORDS, COUNT],
  'The first characters of a text; one if no count is given.',
  'LEFT("glasshouse", 5)',
  ([value, count]) => {
    const length = counted(count, 1);
    return typeof length === 'number' ? text(characters(textIn(value)).slice(0, length).join('')) : length;
  },
);

const RIGHT = declared(
  'RIGHT',
  [WORDS, COUNT],
  'The last characters of a text; one if no count is given.',
  'RIGHT("glasshouse", 5)',
  ([value, count]) => {
    const length = counted(count, 1);
    if (typeof length !== 'number') return length;
    const all = characters(textIn(value));
    return text(all.slice(Math.max(0, all.length - length)).join(''));
  },
);

const MID = declared(
  'MID',
  [WORDS, { name: 'start', takes: 'number' }, { name: 'count', takes: 'number' }],
  'Characters from the middle of a text, from a position counted from 1.',
  'MID("glasshouse", 6, 3)',
  ([value, start, count]) => {
    const from = position(start);
    const length = counted(count, 0);
    if (typeof from !== 'number') return from;
    if (typeof length !== 'number') return length;
    return text(
      characters(textIn(value))
        .slice(from - 1, from - 1 + length)
        .join(''),
    );
  },
);

const LEN = declared(
  'LEN',
  [WORDS],
  'How many characters a text has.',
  'LEN("glasshouse")',
  ([value]) => number(characters(textIn(value)).length),
  NUMBER,
);
const TRIM = declared(
  'TRIM',
  [WORDS],
  'Without spaces at the ends, and with one space between words.',
  'TRIM("  fern   house ")',
  ([value]) => text(textIn(value).replace(/ +/g, ' ').replace(/^ | $/g, '')),
);
const UPPER = declared('UPPER', [WORDS], 'In capitals.', 'UPPER("vent")', ([value], { locale }) =>
  boundedText(textIn(value).toLocaleUpperCase(locale)),
);
const LOWER = declared('LOWER', [WORDS], 'In small letters.', 'LOWER("VENT")', ([value], { locale }) =>
  boundedText(textIn(value).toLocaleLowerCase(locale)),
);

const PROPER = declared(
  'PROPER',
  [WORDS],
  'With a capital at the start of each word, the other letters small.',
  'PROPER("fern HOUSE")',
  ([value], { locale }) =>
    boundedText(
      textIn(value)
        .toLocaleLowerCase(locale)
        .replace(
          /(^|[^\p{L}\p{M}])(\p{L})/gu,
          (_, before: string, letter: string) => before + letter.toLocaleUpperCase(locale),
        ),
    ),
);

const CONCATENATE = declared(
  'CONCATENATE',
  [{ name: 'values', takes: 'value', repeats: true }],
  'One text after another, as `&`.',
  'CONCATENATE("house ", 3)',
  (args, { locale }) => {
    const wrong = args.find(({ type }) => type === 'record');
    if (wrong) return error(`CONCATENATE joins texts, numbers and dates, not ${typeWords(wrong)}.`);
    return boundedText(args.map((value) => formatValue(value, locale)).join(''));
  },
);

const TEXTJOIN = declared(
  'TEXTJOIN',
  [
    { name: 'separator', takes: 'text' },
    { name: 'pass over blanks', takes: 'condition' },
    { name: 'values', takes: 'several', repeats: true },
  ],
  'Joins values and the items of lists with a separator between them; blanks are passed over where asked, and are nothing otherwise.',
  'TEXTJOIN(", ", true, lines.name)',
  ([separator, passOver, ...values], { locale }) => {
    const parts: string[] = [];
    for (const item of flatten(values)) {
      if (item.type === 'error') return item;
      if (item.type === 'blank' && passOver!.type === 'boolean' && passOver!.value) continue;
      parts.push(formatValue(item, locale));
    }
    return boundedText(parts.join(textIn(separator)));
  },
);

const SUBSTITUTE = declared(
  'SUBSTITUTE',
  [
    WORDS,
    { name: 'old', takes: 'text' },
    { name: 'new', takes: 'text' },
    { name: 'which', takes: 'number', optional: true },
  ],
  'Puts new words in place of old ones: everywhere, or only at the occurrence that is named.',
  'SUBSTITUTE("a-b-c", "-", "/", 2)',
  ([value, old, replacement, which]) => {
    const parts = textIn(old) === '' ? [textIn(value)] : textIn(value).split(textIn(old));
    if (!which) return boundedText(parts.join(textIn(replacement)));
    const at = position(which);
    if (typeof at !== 'number') return at;
    if (at >= parts.length) return text(textIn(value));
    const before = parts.slice(0, at).join(textIn(old));
    return boundedText(before + textIn(replacement) + parts.slice(at).join(textIn(old)));
  },
);

const REPLACE = declared(
  'REPLACE',
  [WORDS, { name: 'start', takes: 'number' }, { name: 'count', takes: 'number' }, { name: 'new', takes: 'text' }],
  'Puts new words in place of the characters from a position on.',
  'REPLACE("vent 12", 6, 2, "14")',
  ([value, start, count, replacement]) => {
    const from = position(start);
    const length = counted(count, 0);
    if (typeof from !== 'number') return from;
    if (typeof length !== 'number') return length;
    const all = characters(textIn(value));
    return boundedText([...all.slice(0, from - 1), textIn(replacement), ...all.slice(from - 1 + length)].join(''));
  },
);

const REPT = declared(
  'REPT',
  [WORDS, { name: 'count', takes: 'number' }],
  'A text a number of times.',
  'REPT("=", 8)',
  ([value, count]) => {
    const times = counted(count, 0, 'The number of times');
    if (typeof times !== 'number') return times;
    return times * textIn(value).length > LONGEST
      ? error(`A text may have ${LONGEST} characters at most.`)
      : text(textIn(value).repeat(times));
  },
);

const EXACT = declared(
  'EXACT',
  [
    { name: 'one', takes: 'text' },
    { name: 'other', takes: 'text' },
  ],
  'Whether two texts are the same, letter for letter.',
  'EXACT("Vent", "vent")',
  ([one, other]) => boolean(textIn(one) === textIn(other)),
  BOOLEAN,
);

const FIND = searching(
  'FIND',
  'Where one text first stands in another, counted from 1; capitals count.',
  'FIND("house", "glasshouse")',
  (each) => each,
);
const SEARCH = searching(
  'SEARCH',
  'Where one text first stands in another, counted from 1, capitals or not.',
  'SEARCH("HOUSE", "glasshouse")',
  (each, locale) => each.toLocaleLowerCase(locale),
);

function searching(
  name: string,
  help: string,
  example: string,
  plain: (text: string, locale: string) => string,
): FormulaFunction {
  const parameters: Parameter[] = [
    { name: 'sought', takes: 'text' },
    WORDS,
    { name: 'start', takes: 'number', optional: true },
  ];
  return declared(
    name,
    parameters,
    help,
    example,
    ([sought, value, start], { locale }) => {
      const from = start ? position(start) : 1;
      if (typeof from !== 'number') return from;
      const all = characters(textIn(value)).map((each) => plain(each, locale));
      const wanted = characters(textIn(sought)).map((each) => plain(each, locale));
      for (let at = from - 1; at + wanted.length <= all.length; at++) {
        if (wanted.every((each, offset) => each === all[at + offset])) return number(at + 1);
      }
      return error(`“${textIn(sought)}” is not in “${textIn(value)}”.`);
    },
    NUMBER,
  );
}

/** A position counted from 1. */
function position(value: Value | undefined): number | Value {
  const at = wholeNumber(value, 1, 'The position', LONGEST);
  return typeof at === 'number' && at < 1 ? error('Positions are counted from 1.') : at;
}

const CONTAINS = declared(
  'CONTAINS',
  [WORDS, { name: 'sought', takes: 'text' }],
  'Whether one text stands in another, capitals or not.',
  'CONTAINS("glasshouse", "House")',
  ([value, sought], { locale }) => {
    const [all, wanted] = [value, sought].map((each) => textIn(each).toLocaleLowerCase(locale));
    return boolean(all!.includes(wanted!));
  },
  BOOLEAN,
);

const VALUE = declared(
  'VALUE',
  [WORDS],
  'The number that a text holds, with a point before the decimals; with a percent sign, a percentage.',
  'VALUE("12.50")',
  ([value]) => {
    const match = /^\s*([+-]?(?:\d+|\d{1,3}(?:,\d{3})+)(?:\.\d+)?)\s*(%?)\s*$/.exec(textIn(value));
    if (!match) return error(`“${textIn(value)}” is not a number such as 1234.50.`);
    const decimal = Decimal.of(match[1]!.replaceAll(',', ''));
    return match[2] ? percent(decimal.shifted(-2)) : number(decimal);
  },
  NUMBER,
);

const TEXT = declared(
  'TEXT',
  [
    { name: 'value', takes: 'value' },
    { name: 'pattern', takes: 'text' },
  ],
  'A number, amount or date in a Unicode (LDML) pattern, in the words, digits and grouping of the document’s language: "d MMMM yyyy", "#,##0.00", "0.0%". A date also as "short", "medium", "long" or "full".',
  'TEXT(document.issue_date, "EEEE d MMMM yyyy")',
  ([value, pattern], { locale }) => {
    const wanted = textIn(pattern);
    try {
      switch (value!.type) {
        case 'date':
          return text(formatDayPattern(value!.day, wanted, locale));
        case 'datetime':
          return text(formatMomentPattern(value!, wanted, locale));
        case 'number':
        case 'percent':
        case 'money':
          if (isDateStyle(wanted)) break;
          return boundedText(formatNumberPattern(value!.value, wanted, locale));
        default:
          return error(`TEXT writes numbers and dates, not ${typeWords(value!)}.`);
      }
    } catch (problem) {
      return error((problem as Error).message);
    }
    return error(`“${wanted}” is a pattern for dates; for numbers try "#,##0.00".`);
  },
);

const LABEL = declared(
  'LABEL',
  [WORDS],
  'A word of the trade in the document’s language: “Qty”, “Net”, “Valid until”, “reverse charge”. Itself where Lumbix has no translation.',
  'LABEL("Subtotal")',
  ([value], { locale }) => text(phrase(textIn(value), locale)),
);
const QUOTE = declared(
  'QUOTE',
  [WORDS],
  'A text in the quotation marks of the document’s language.',
  'QUOTE("Marlow Fen")',
  ([value], { locale }) => boundedText(quoted(textIn(value), locale)),
);

const COUNTRY = declared(
  'COUNTRY',
  [{ name: 'code', takes: 'text' }],
  'A country’s name in the document’s language, by its two letters; a name is itself.',
  'COUNTRY("NL")',
  ([code], { locale }) => boundedText(countryName(textIn(code), locale)),
);

const MAY_BE_BLANK = { takes: 'text', mayBeBlank: true } as const;

const ADDRESS = declared(
  'ADDRESS',
  [
    { name: 'street', takes: 'text' },
    { name: 'postcode', ...MAY_BE_BLANK },
    { name: 'city', takes: 'text' },
    { name: 'country', ...MAY_BE_BLANK },
    { name: 'our country', ...MAY_BE_BLANK },
  ],
  'The lines of a postal address in the order that its country’s post asks for. A country other than ours is named in the last line, in the document’s language.',
  'ADDRESS("Ganzenpad 18", "2680 ZZ", "Zuidergouw", "NL", "GB")',
  (parts, { locale }) => {
    const [street, postcode, city, country, ours] = parts.map((part) => textIn(part));
    const address = { street: street!, postcode: postcode!, city: city!, country: country! };
    return boundedText(addressLines(address, ours!, locale).join('\n'));
  },
);

export const TEXTS = [
  TEXT,
  VALUE,
  LABEL,
  QUOTE,
  COUNTRY,
  ADDRESS,
  CONCATENATE,
  TEXTJOIN,
  LEFT,
  RIGHT,
  MID,
  LEN,
  TRIM,
  UPPER,
  LOWER,
  PROPER,
  SUBSTITUTE,
  REPLACE,
  REPT,
  EXACT,
  FIND,
  SEARCH,
  CONTAINS,
];
