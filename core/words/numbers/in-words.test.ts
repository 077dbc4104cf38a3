import fc from 'fast-check';
import { toCardinal as dutch } from 'n2words/nl-NL';
import { toCardinal as english } from 'n2words/en-GB';
import { toCardinal as french } from 'n2words/fr-FR';
import { toCardinal as german } from 'n2words/de-DE';
import { toCardinal as polish } from 'n2words/pl-PL';
import { describe, expect, it } from 'vitest';
import { Decimal } from '../../money/decimal';
import { amountInWords, numberInWords, WORD_LANGUAGES } from './in-words';

const words = (value: number | string, language: string) => numberInWords(Decimal.of(value), language);
/** An amount in words, without its smaller units where there are none. */
const sum = (value: number | string, currency: string, language: string) =>
  amountInWords(Decimal.of(value), currency, language)!.replace(/ \S+ ?0+\/10+$/, '');

describe('a number in words', () => {
  it.each([
    ['en', 1_001_001, 'one million one thousand and one'],
    ['nl', 22, 'tweeëntwintig'],
    ['nl', 101_001, 'honderdeenduizend één'],
    ['de', 101_001, 'einhunderteintausendeins'],
    ['de', 2_000_016, 'zwei Millionen sechzehn'],
    ['fr', 71, 'soixante et onze'],
    ['fr', 80_080, 'quatre-vingt mille quatre-vingts'],
    ['fr', 300_000_300, 'trois cents millions trois cents'],
    ['es', 21_021, 'veintiún mil veintiuno'],
    ['es', 1_016, 'mil dieciséis'],
    ['es', 2_000_000_000, 'dos mil millones'],
    ['it', 23, 'ventitré'],
    ['it', 108_188, 'centottomilacentottantotto'],
    ['it', 23_028, 'ventitremilaventotto'],
    ['pt', 1_016, 'mil e dezesseis'],
    ['pt', 2_300_000, 'dois milhões e trezentos mil'],
    ['pt-PT', 1_016, 'mil e dezasseis'],
    ['pt-PT', 1_000_000_000, 'mil milhões'],
    ['pt-BR', 1_000_000_000, 'um bilhão'],
    ['pl', 22_012, 'dwadzieścia dwa tysiące dwanaście'],
    ['pl', 5_000_000, 'pięć milionów'],
    ['ar', 316, 'ثلاثمائة وستة عشر'],
    ['ar', 11_000, 'أحد عشر ألفًا'],
    ['ar', 200_000, 'مائتا ألف'],
    ['ar', -3, 'ناقص ثلاثة'],
  ])('%s: %i is “%s”', (language, value, expected) => {
    expect(words(value, language)).toBe(expected);
  });

  it('is known in nine languages and no other', () => {
    expect(WORD_LANGUAGES).toHaveLength(9);
    for (const other of ['ja', 'fi', 'xx', '', 'constructor', 'en_GB']) expect(words(1, other)).toBeUndefined();
  });

  it('is what another program says, in the languages that it knows well', () => {
    const others: [string, (value: bigint) => string][] = [
      ['en', (value) => english(value)],
      ['nl', (value) => dutch(value, { noHundredPairing: true })],
      ['fr', (value) => french(value)],
      ['pl', (value) => polish(value)],
      // It leaves the s of “eins” before a thousand.
      ['de', (value) => german(value).replaceAll('einstausend', 'eintausend')],
    ];
    const number = fc
      .integer({ min: 1, max: 12 })
      .chain((digits) => fc.bigInt({ min: 0n, max: 10n ** BigInt(digits) }));
    fc.assert(
      fc.property(number, fc.constantFrom(...others), (value, [language, other]) => {
        // It says “six million and eleven thousand”, where English has its “and” within three digits and before the last two.
        fc.pre(language !== 'en' || !/[1-9]\d*0\d[1-9](000)+$|[1-9]\d*0[1-9]0(000)+$/.test(`${value}`));
        expect(numberInWords(Decimal.of(value.toString()), language)).toBe(other(value));
      }),
      { numRuns: 5_000 },
    );
  });

  it('has no number below a thousand million million without words', () => {
    fc.assert(
      fc.property(
        fc.bigInt({ min: 0n, max: 10n ** 15n - 1n }),
        fc.constantFrom(...WORD_LANGUAGES, 'pt-PT'),
        (value, language) => {
          expect(numberInWords(Decimal.of(value.toString()), language)).not.toMatch(
            /[\d<>%=[\]{}$|'\/]|undefined| {2}|^ | $/,
          );
        },
      ),
      { numRuns: 2_000 },
    );
  });
});

describe('an amount in words', () => {
  it.each([
    ['es', 1, 'EUR', 'un euro'],
    ['es', 21_000, 'EUR', 'veintiún mil euros'],
    ['es', 1_000_000, 'EUR', 'un millón de euros'],
    ['es', 1_000_200, 'EUR', 'un millón doscientos euros'],
    ['es', 200_021, 'GBP', 'doscientas mil veintiuna libras esterlinas'],
    ['de', 1, 'EUR', 'ein Euro'],
    ['de', 101, 'EUR', 'einhundertein Euro'],
    ['de', 1, 'SEK', 'eine Schwedische Krone'],
    ['de', 1, 'GBP', 'ein Britisches Pfund'],
    ['fr', 1_000_000, 'EUR', 'un million d’euros'],
    ['fr', 2_000_000, 'JPY', 'deux millions de yens japonais'],
    ['fr', 21, 'GBP', 'vingt et une livres sterling'],
    ['it', 1, 'EUR', 'un euro'],
    ['it', 1, 'GBP', 'una sterlina britannica'],
    ['it', 1, 'PLN', 'uno zloty polacco'],
    ['it', 3_000_000, 'EUR', 'tre milioni di euro'],
    ['pt', 2_000, 'GBP', 'duas mil libras esterlinas'],
    ['pt', 1_000_000, 'EUR', 'um milhão de euros'],
    ['pt-PT', 2, 'AED', 'dois dirhams dos Emirados Árabes Unidos'],
    ['pl', 1, 'EUR', 'jedno euro'],
    ['pl', 22, 'SEK', 'dwadzieścia dwie korony szwedzkie'],
    ['pl', 21, 'SEK', 'dwadzieścia jeden koron szwedzkich'],
    ['pl', 5, 'PLN', 'pięć złotych polskich'],
    ['nl', 1_250, 'EUR', 'duizend tweehonderdvijftig euro'],
    ['en', -5, 'EUR', 'minus five euros'],
    ['ar', 1, 'AED', 'درهم إماراتي واحد'],
    ['ar', 2, 'AED', 'درهمان إماراتيان'],
    ['ar', 5, 'AED', 'خمسة دراهم إماراتية'],
    ['ar', 15, 'AED', 'خمسة عشر درهمًا إماراتيًا'],
    ['ar', 200, 'AED', 'مائتا درهم إماراتي'],
    ['ar', 3, 'SEK', 'ثلاث كرونات سويدية'],
    ['ar', 21, 'SEK', 'إحدى وعشرون كرونة سويدية'],
    ['ar', 12_000, 'EUR', 'اثنا عشر ألف يورو'],
  ])('%s: %i %s is “%s”', (language, value, currency, expected) => {
    expect(sum(value, currency, language)).toBe(expected);
  });

  it('writes the smaller units as a fraction of the currency’s own', () => {
    expect(amountInWords(Decimal.of('523.80'), 'EUR', 'en-GB')).toBe('five hundred and twenty-three euros and 80/100');
    expect(amountInWords(Decimal.of('-0.05'), 'EUR', 'es')).toBe('menos cero euros con 05/100');
    expect(amountInWords(Decimal.of('1.5'), 'KWD', 'en')).toBe('one Kuwaiti dinar and 500/1000');
    expect(amountInWords(Decimal.of('12.4'), 'JPY', 'nl')).toBe('twaalf Japanse yen');
  });
});
