import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { Decimal } from '../../money/decimal';
import { formatDecimal } from '../../money/format';
import { formatNumberPattern } from '../number-pattern';
import { exampleDiagnostics, exampleValue, formulaReference, referenceMarkdown } from '../../sheet/reference';
import { SAMPLE } from '../../sheet/sample';
import { Sheet } from '../../sheet/sheet';
import { formatValue } from '../value';
import { DECLARED, FUNCTIONS } from './index';

/** What each function's example comes to, by hand. */
const EXAMPLES: Record<string, string> = {
  SUM: '1,453.80 EUR', PRODUCT: '0.855', COUNT: '1', COUNTA: '0', AVERAGE: '4.833333333333', MIN: '48.50 EUR', MAX: '620.00 EUR',
  MEDIAN: '3', ROUND: '12.35', ROUNDUP: '12.35', ROUNDDOWN: '12.34', TRUNC: '−7', INT: '−8', ABS: '12.5', SIGN: '−1', MOD: '2',
  QUOTIENT: '3', CEILING: '48', FLOOR: '36', MROUND: '17.15', POWER: '1.061208', SQRT: '2.5', IF: 'btw', IFS: 'small',
  SWITCH: 'rail pipe', CHOOSE: 'middle', AND: 'yes', OR: 'yes', XOR: 'yes', ISBLANK: 'yes', TEXT: 'Monday 23 November 2026', LABEL: 'Subtotal', QUOTE: '“Marlow Fen”', COUNTRY: 'Netherlands',
  ADDRESS: 'Ganzenpad 18\n2680 ZZ Zuidergouw\nNETHERLANDS',
  VALUE: '12.5', CONCATENATE: 'house 3', TEXTJOIN: 'Vent motor, Fitting, Rain sensor', LEFT: 'glass', RIGHT: 'house', MID: 'hou',
  LEN: '10', TRIM: 'fern house', UPPER: 'VENT', LOWER: 'vent', PROPER: 'Fern House', SUBSTITUTE: 'a-b/c', REPLACE: 'vent 14',
  REPT: '========', EXACT: 'no', FIND: '6', SEARCH: '6', CONTAINS: 'yes', DATE: '30 November 2026', TODAY: '23 November 2026', YEAR: '2,026',
  MONTH: '11', DAY: '30', WEEKDAY: '1', ISOWEEKNUM: '53', EDATE: '28 February 2027', EOMONTH: '30 November 2026', DAYS: '25',
  WORKDAY: '30 December 2026', NETWORKDAYS: '7', GROUP: 'standard, 21 %', SORT: 'Fitting, Rain sensor and Vent motor',
  UNIQUE: 'pc and day', FIRST: 'Vent motor', LAST: 'Rain sensor', INDEX: 'Fitting', MATCH: '1', LOOKUP: '65.00 EUR',
  AMOUNT: '500.00 EUR', ALLOCATE: '33.34, 33.33 and 33.33', PART: '26.19 EUR', ROUNDTOGETHER: '480.99 EUR', BILLED: '375.00 EUR', BUNDLEHEAD: '',
  SCHEDULE: '31 January 2027, 28 February 2027 and 31 March 2027', TIER: '1.80 EUR', EXCHANGE: '1,171.875 CHF',
  WORDS: 'one thousand two hundred and fifty', REGISTERED: '375.00 EUR', SERIAL: 'Q-2026-0042',
}; // prettier-ignore

const plain = (text: string) => text.replaceAll(/[\u00a0\u202f]/g, ' ');

describe.each(DECLARED.map((each) => [each.name, each] as const))('%s', (name, declared) => {
  it('gives what its example says, and checks without a complaint', () => {
    expect(plain(formatValue(exampleValue(declared), 'en-GB'))).toBe(EXAMPLES[name]);
    expect(exampleDiagnostics(declared)).toEqual([]);
  });
});

describe('the reference', () => {
  it('tells every function once, in the documents as in the application', () => {
    expect(formulaReference().map(({ name }) => name)).toEqual([...FUNCTIONS.keys()]);
    expect(readFileSync('docs/formulas.md', 'utf8')).toBe(referenceMarkdown());
  });
});

const sheet = new Sheet(SAMPLE);
const result = (formula: string, locale = 'en-GB') => {
  const { value } = (locale === 'en-GB' ? sheet : new Sheet({ ...SAMPLE, locale })).evaluate('test', formula);
  return plain(value.type === 'error' ? `! ${value.message}` : formatValue(value, locale));
};

describe('rules of the functions', () => {
  it.each([
    // Rounding to tens, and of negative halves (ODF 1.3 part 4, 6.17).
    ['ROUND(1250, -2)', '1,300'], ['ROUND(-0.5)', '−1'], ['ROUNDUP(-1.01)', '−2'], ['ROUNDDOWN(-1.99)', '−1'], ['TRUNC(1.987, 2)', '1.98'],
    ['CEILING(-2.5, 1)', '−2'], ['FLOOR(-2.5, 1)', '−3'], ['MROUND(-7, 5)', '−5'], ['MOD(7, -3)', '−2'], ['QUOTIENT(-7, 2)', '−3'],
    ['MOD(deal.amount, AMOUNT(1000))', '250.00 EUR'], ['INT(deal.amount / 3)', '416.00 EUR'],
    // Two keys of one name are two keys.
    ['GROUP(lines, unit, item.unit).unit_2', 'pc and day'],
    // Exact until a declared rounding, also beyond what a binary number holds.
    ['INT(10/3*3)', '10'], ['ROUND(7.000000000000001 + 5.004999999999998, 2)', '12'], ['9007199254740991 + 2', '9,007,199,254,740,993'],
    ['ROUND(AMOUNT(116.90) / 28, 2)', '4.18 EUR'], ['TIER(100/3*3, tables.volume.from, tables.volume.price)', '1.80 EUR'], ['MOD(10/3, 1/3)', '0'],
    ['1/3 + 1/3 + 1/3 = 1', 'yes'], ['SQRT(2)^2', '2'], ['SQRT(1/9) * 3', '1'], ['27^(1/3)', '3'], ['2/3', '0.666666666667'], ['10/3 in ALLOCATE(10, 1)', 'no'],
    // A split below zero is the mirror of the one above it.
    ['ALLOCATE(AMOUNT(-100), 1, 1, 1)', '−33.34 EUR, −33.33 EUR and −33.33 EUR'], ['ALLOCATE(0.125, 1, 1)', '0.063 and 0.062'],
    // Texts count characters, not code units.
    ['LEN("a🌱b")', '3'], ['LEFT("🌱b", 1)', '🌱'], ['MID("abc", 3, 5)', 'c'], ['RIGHT("abc", 0)', ''], ['FIND("b", "abab", 3)', '4'],
    ['SUBSTITUTE("aaa", "a", "b")', 'bbb'], ['SUBSTITUTE("a-b", "-", "+", 5)', 'a-b'], ['REPLACE("abc", 2, 0, "x")', 'axbc'],
    ['PROPER("o’hara-smith 2nd")', 'O’Hara-Smith 2Nd'], ['VALUE("-1,234.50")', '−1,234.5'], ['VALUE("7.5%")', '7.5 %'],
    ['TEXTJOIN("; ", false, deal.order_number, "x")', '; x'],
    // Dates.
    ['DATE(2026, 14, 1)', '1 February 2027'], ['DATE(2028, 2, 29)', '29 February 2028'], ['EDATE(DATE(2028, 2, 29), 12)', '28 February 2029'],
    ['EOMONTH(DATE(2028, 1, 31), 1)', '29 February 2028'], ['WEEKDAY(DATE(2026, 11, 29))', '1'], ['WEEKDAY(DATE(2026, 11, 29), 3)', '6'],
    ['ISOWEEKNUM(DATE(2026, 12, 31))', '53'], ['WORKDAY(DATE(2026, 11, 27), 1)', '30 November 2026'], ['WORKDAY(DATE(2026, 11, 30), -1)', '27 November 2026'],
    ['NETWORKDAYS(DATE(2026, 11, 28), DATE(2026, 11, 29))', '0'], ['NETWORKDAYS(DATE(2026, 11, 30), DATE(2026, 11, 27))', '−2'],
    ['DATE(2026, 3, 1) - DATE(2026, 2, 1)', '28'],
    // Choices evaluate only what they choose.
    ['IF(true, 1, 1 / 0)', '1'], ['IFS(false, 1 / 0, true, 2)', '2'], ['SWITCH("b", "a", 1 / 0, "b", 2)', '2'], ['OR(true, 1 / 0 = 1)', 'yes'],
    ['AND(false, 1 / 0 = 1)', 'no'], ['IF(1 > 2, "x")', 'no'], ['SWITCH(3, 1, "a", "other")', 'other'],
    // Lists.
    ['SORT(lines.quantity)', '1, 1.5 and 12'], ['SORT(lines.name, true)', 'Fitting, Rain sensor and Vent motor'], ['COUNT(UNIQUE(lines.unit))', '0'],
    ['COUNTA(UNIQUE(lines.unit))', '2'], ['FIRST(lines.description) ?? "none"', 'none'], ['MATCH(2, SORT(lines.quantity))', '2'],
    ['INDEX(SORT(lines, unit_price, true).name, 1)', 'Fitting'], ['FIRST(lines[unit = "pc"]).name', 'Vent motor'],
    // Volume tables: the whole quantity at its tier, or each unit at its own.
    ['TIER(99, tables.volume.from, tables.volume.price)', '2.00 EUR'], ['TIER(500, tables.volume.from, tables.volume.price)', '1.50 EUR'],
    ['TIER(120, tables.volume.from, tables.volume.price, true)', '236.00 EUR'], ['TIER(600, tables.volume.from, tables.volume.price, true)', '1,070.00 EUR'],
    // Money in words.
    ['WORDS(AMOUNT(523.8))', 'five hundred and twenty-three euros and 80/100'], ['WORDS(AMOUNT(1, "GBP"))', 'one British pound and 00/100'],
    ['WORDS(AMOUNT(1250, "JPY"), "nl")', 'duizend tweehonderdvijftig Japanse yen'], ['WORDS(21, "es")', 'veintiuno'],
    ['WORDS(AMOUNT(1.5, "KWD"))', 'one Kuwaiti dinar and 500/1000'], ['WORDS(3, "ar")', 'ثلاثة'], ['WORDS(AMOUNT(1000000), "fr")', 'un million d’euros et 00/100'], ['WORDS(-21, "pt-PT")', 'menos vinte e um'],
    // Instalments add up; the end of a month does not drift.
    ['SCHEDULE(AMOUNT(100), 3).amount', '33.34 EUR, 33.33 EUR and 33.33 EUR'], ['SUM(SCHEDULE(AMOUNT(99.99), 7).amount)', '99.99 EUR'],
    ['SCHEDULE(1, 3, DATE(2027, 12, 31), 2).date', '31 December 2027, 29 February 2028 and 30 April 2028'],
    ['EXCHANGE(deal.amount, "EUR")', '1,250.00 EUR'], ['EXCHANGE(deal.amount, "CHF", DATE(2026, 12, 24))', '1,175.00 CHF'],
    ['COUNT(REGISTERED("quote"))', '0'], ['SUM(REGISTERED("quote").gross_total)', '0.00 EUR'], ['FIRST(REGISTERED()).number', 'I-2026-0007'],
    ['SERIAL()', '42'], ['ALLOCATE(AMOUNT(0.1, "KWD"), 1, 2)', '0.033 KWD and 0.067 KWD'],
  ])('%s is %s', (formula, expected) => {
    expect(result(formula)).toBe(expected);
  }); // prettier-ignore

  it.each([
    ['ROUND("x")', 'ROUND takes a number or money as its “value”, not a text.'],
    ['ROUND(1, 0.5)', 'The number of digits is a whole number of 30 at most.'],
    ['ROUND()', 'ROUND takes (value, digits?); it was given 0.'],
    ['IFS(true, 1, false)', 'IFS takes (condition, value, …); it was given 3.'],
    ['MOD(1, 0)', 'Division by zero.'],
    ['MROUND(1, 0)', 'MROUND rounds to a multiple of more than zero.'],
    ['SQRT(-1)', 'A number below zero has no square root.'],
    ['(-8)^(1/3)', 'This power has no value.'],
    ['10^9999 * 10^9999', 'A number has more than 300 digits before its point, or more than 10,000 digits in all. Round it in an earlier step.'],
    ['MIN(AMOUNT(1, "EUR"), AMOUNT(5, "USD"))', 'EUR and USD cannot be mixed in one sum; convert one of them first, with EXCHANGE.'],
    ['MAX(AMOUNT(1, "EUR"), 3, AMOUNT(5, "USD"))', 'EUR and USD cannot be mixed in one sum; convert one of them first, with EXCHANGE.'],
    ['MEDIAN(AMOUNT(1, "EUR"), 2, AMOUNT(5, "USD"), 9, 10)', 'EUR and USD cannot be mixed in one sum; convert one of them first, with EXCHANGE.'],
    ['ALLOCATE(10, AMOUNT(1, "EUR"), AMOUNT(5, "USD"))', 'EUR and USD cannot be mixed in one sum; convert one of them first, with EXCHANGE.'],
    ['MROUND(17, AMOUNT(5))', 'MROUND rounds a number to a multiple of a number, not of money.'],
    ['10^400', 'A number has more than 300 digits before its point, or more than 10,000 digits in all. Round it in an earlier step.'],
    [`${'9'.repeat(12_000)} + 1`, `The formula “${'9'.repeat(79)}…” cannot be read: A number has more than 300 digits before its point, or more than 10,000 digits in all. Round it in an earlier step.`],
    ['ALLOCATE(AMOUNT(10.005), 1, 1)', '10.005 EUR cannot be split into parts that add up to it: round it to the smallest unit of EUR first.'],
    ['ALLOCATE(10/3, 1, 1)', '3.333333333333 cannot be split into parts that add up to it: round it to a number of decimals first.'],
    ['AVERAGE(lines[false].quantity)', 'There is nothing to take the average of.'],
    ['MAX(lines.name)', 'MAX compares numbers, money and dates, not a text.'],
    ['IFS(false, 1)', 'None of the conditions of IFS holds; end it with true and a value.'],
    ['SWITCH("c", "a", 1)', 'None of the cases of SWITCH is “c”; add a last value for all others.'],
    ['FIND("z", "abc")', '“z” is not in “abc”.'],
    ['VALUE("12,5")', '“12,5” is not a number such as 1234.50.'],
    ['DATE(26, 1, 1)', 'The year of a date has four digits.'],
    ['DATE(9999, 12, 31) + 1', 'That date lies too far away.'],
    ['LOOKUP(-1, tables.freight.from, tables.freight.price)', '“−1” is not in the list.'],
    ['LOOKUP(1, lines.quantity, lines.name)', 'The list is not in rising order: “1.5” comes after “12”.'],
    ['MATCH("x", lines.unit, 0)', '“x” is not in the list.'],
    ['INDEX(lines.name, 4)', 'The list has 3 items and no position 4.'],
    ['ALLOCATE(10, 1, -1)', 'The weights add up to zero, so nothing can be split by them.'],
    ['SCHEDULE(10, ALLOCATE(90%, 1, 2))', 'The shares of the instalments add up to 90 %, not to 100 %.'],
    ['PART(10, lines, net)', 'PART is for a figure of a line: it gives the line its own.'],
    ['ROUNDTOGETHER(lines, unit_price)', 'ROUNDTOGETHER is for a figure of a line: it gives the line its own.'],
    ['BUNDLEHEAD(deal.name, name, unit)', 'BUNDLEHEAD takes a list of records, not a text.'],
    ['EXCHANGE(deal.amount, "USD")', 'The exchange table has no rate from EUR to USD on or before 23 November 2026.'],
    ['EXCHANGE(deal.amount, "CHF", DATE(2026, 1, 1))', 'The exchange table has no rate from EUR to CHF on or before 1 January 2026.'],
    ['EXCHANGE(deal.amount, "euro")', '“euro” is not a currency code of three capitals, such as EUR.'],
    ['WORDS(1, "xx")', 'WORDS does not know “xx”; it knows en, nl, de, fr, es, it, pt, pl, ar.'],
    ['WORDS(1.5)', 'WORDS writes out whole numbers and amounts of money; round the number first.'],
    ['TEXT(1, "long")', '“long” is a pattern for dates; for numbers try "#,##0.00".'],
    ['TEXT(1, "n.n")', '“n.n” is not a number pattern; try "#,##0.00".'],
    ['TEXT(TODAY(), "HH:mm")', 'The pattern “HH:mm” asks for a time of day, but this is a date.'],
    ['REPT("x", 100001)', 'The number of times is a whole number of 100000 at most.'],
    ['UPPER(deal.order_number)', 'The deal has no order number'],
  ])('%s is an error in words', (formula, message) => {
    expect(result(formula)).toBe(`! ${message}`);
  }); // prettier-ignore
});

describe('patterns of Unicode', () => {
  it('write a number as a table of the document does, in every locale', () => {
    const locales = [
      'en-GB',
      'nl-NL',
      'de-DE',
      'de-CH',
      'fr-FR',
      'es-ES',
      'it-IT',
      'pt-PT',
      'pt-BR',
      'pl-PL',
      'ar-AE',
      'ar-EG',
      'en-IN',
      'ja-JP',
    ];
    const amount = fc.tuple(
      fc.integer({ min: -10, max: 10 }),
      fc.integer({ min: 0, max: 8 }),
      fc.integer({ min: 0, max: 99 }),
    );
    fc.assert(
      fc.property(fc.constantFrom(...locales), amount, (locale, [factor, power, cents]) => {
        const value = Decimal.of(`${factor}${'0'.repeat(power)}.${String(cents).padStart(2, '0')}`);
        expect(formatNumberPattern(value, '#,##0.00', locale)).toBe(formatDecimal(value, locale, 2));
      }),
      { numRuns: 2_000 },
    );
  });

  it.each([
    ['ddd', '“ddd” in the pattern “ddd” is not understood; a day is d or dd; weekdays are EEE or EEEE.'],
    ['d MMMMMM', '“MMMMMM” in the pattern “d MMMMMM” is not understood; a month is M or MM in digits, MMM or MMMM in words.'],
    ['EEEEEE', '“EEEEEE” in the pattern “EEEEEE” is not understood; a weekday is EEE or EEEE.'],
    ['YYYY', '“YYYY” in the pattern “YYYY” is not understood; years are yyyy.'],
    ['d of MMMM', '“o” in the pattern “d of MMMM” is not understood; plain words go between apostrophes.'],
  ])('“%s” is refused in words', (pattern, message) => {
    expect(result(`TEXT(TODAY(), "${pattern}")`)).toBe(`! ${message}`);
  }); // prettier-ignore

  it.each([
    ['TEXT(1234567.891, "#,##0.00")', 'en-GB', '1,234,567.89'],
    ['TEXT(1234567.891, "#,##0.00")', 'nl-NL', '1.234.567,89'],
    ['TEXT(1234.5, "#,##0.00")', 'fr-FR', '1 234,50'],
    ['TEXT(1234567, "#,##,##0")', 'en-IN', '12,34,567'],
    ['TEXT(-1234.5, "#,##0.00;(#,##0.00)")', 'en-GB', '(1,234.50)'],
    ['TEXT(-5, "0")', 'en-GB', '−5'],
    ['TEXT(7, "000")', 'en-GB', '007'],
    ['TEXT(0.125, "0.0%")', 'en-GB', '12.5%'],
    ['TEXT(1.5, "0.0##")', 'en-GB', '1.5'],
    ['TEXT(7, "\'No.\' 0")', 'en-GB', 'No. 7'],
    ['TEXT(0.5, "#.00")', 'en-GB', '.50'],
    ['TEXT(TODAY(), "d MMMM yyyy")', 'es-ES', '23 noviembre 2026'],
    ['TEXT(TODAY(), "EEE dd-MM-yy")', 'nl-NL', 'ma 23-11-26'],
    ['TEXT(TODAY(), "\'le\' d MMM")', 'fr-FR', 'le 23 nov.'],
    ['TEXT(TODAY(), "long")', 'de-DE', '23. November 2026'],
    ['TEXT(TODAY(), "short")', 'en-US', '11/23/26'],
    ['TEXT(1234.5, "#,##0.00")', 'ar-EG', '١٬٢٣٤٫٥٠'],
    // Months as they are in dates (CLDR's format form), and as they stand alone.
    ['TEXT(TODAY(), "d MMMM yyyy")', 'pl-PL', '23 listopada 2026'],
    ['TEXT(TODAY(), "LLLL yyyy")', 'pl-PL', 'listopad 2026'],
    ['TEXT(TODAY(), "d. MMMM yyyy")', 'cs-CZ', '23. listopadu 2026'],
    ['TEXT(TODAY(), "d MMMM yyyy")', 'ru-RU', '23 ноября 2026'],
    ['TEXT(TODAY(), "d. MMMM yyyy")', 'fi-FI', '23. marraskuuta 2026'],
    ['TEXT(TODAY(), "MMMM")', 'ja-JP', '11月'],
    ['TEXT(TODAY(), "MMMMM|yyy|yy|EEEEE|LL")', 'en-GB', 'N|2026|26|M|11'],
    // One way to write digits and groups in a document, whichever way a number comes onto the page.
    ['TEXT(TODAY(), "d MMMM yyyy")', 'ar-EG', '٢٣ نوفمبر ٢٠٢٦'],
    ['WORDS(AMOUNT(1.5), "ar-EG")', 'ar-EG', 'يورو واحد و ٥٠/١٠٠'],
    ['TEXT(1234.5, "#,##0.00")', 'es-ES', '1234,50'],
    ['TEXT(12345.5, "#,##0.00")', 'es-ES', '12.345,50'],
    ['TEXT(1234567.5, "#,##0.00")', 'en-IN', '12,34,567.50'],
  ])('%s in %s is %s', (formula, locale, expected) => {
    expect(result(formula, locale)).toBe(expected);
  });
});
