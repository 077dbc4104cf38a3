import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addressLines, countryName } from './address';

const lines = (street: string, postcode: string, city: string, country: string, locale = 'en-GB') =>
  addressLines({ street, postcode, city, country }, 'GB', locale);

describe('an address', () => {
  it.each([
    // The orders are those of the countries' posts, as the Universal Postal Union publishes them.
    [lines('2 Observatory Lane', 'EL1 2KH', 'Elmsea', 'GB'), ['2 Observatory Lane', 'Elmsea', 'EL1 2KH']],
    [lines('Ganzenpad 18', '2680 ZZ', 'Zuidergouw', 'NL', 'nl-NL'), ['Ganzenpad 18', '2680 ZZ Zuidergouw', 'NEDERLAND']],
    [lines('Sonnhalde 5', '9990', 'Oberwies', 'CH', 'de-CH'), ['Sonnhalde 5', '9990 Oberwies', 'SCHWEIZ']],
    [lines('400 Lantern Road', '00115', 'Harrow Flats', 'US'), ['400 Lantern Road', 'Harrow Flats 00115', 'UNITED STATES']],
    [lines('Fern Road', 'X00 B113', 'Ballyfern', 'IE'), ['Fern Road', 'Ballyfern', 'X00 B113', 'IRELAND']],
    [lines('Fő utca 3', '1234', 'Budaház', 'HU'), ['Budaház', 'Fő utca 3', '1234', 'HUNGARY']],
    // Formats that ask for a province have the city there.
    [lines('3-14 Wakamidori', '000-0109', 'Minatohara', 'JP'), ['3-14 Wakamidori, Minatohara', '000-0109', 'JAPAN']],
    [lines('طريق الواحة 12', '00000', 'واحة النور', 'AE', 'ar-AE'), ['طريق الواحة 12', 'واحة النور 00000', 'الإمارات العربية المتحدة']],
    // Letters that were typed already do not come twice.
    [lines('1 Rue Haute', 'L-1234', 'Luxembourg', 'LU'), ['1 Rue Haute', 'L-1234 Luxembourg', 'LUXEMBOURG']],
    [lines('1 Orchard Lane', '12345', 'Singapore', 'SG'), ['1 Orchard Lane', 'SINGAPORE 12345', 'SINGAPORE']],
    // A name in place of the code; nothing at all.
    [lines('Drove End\nBarn 2', '', 'Withy', 'Ruritania'), ['Drove End', 'Barn 2', 'Withy', 'RURITANIA']],
    [lines('', '', '', ''), []],
  ])('%j', (found, expected) => expect(found).toEqual(expected)); // prettier-ignore

  it('never loses what was typed, whatever the country', () => {
    const word = fc.stringMatching(/^[A-Za-z]{4,9}$/);
    const code = fc.stringMatching(/^[A-Z]{2}$/);
    fc.assert(
      fc.property(word, fc.stringMatching(/^[0-9]{5}$/), word, code, (street, postcode, city, country) => {
        const whole = lines(street, postcode, city, country).join('\n').toLowerCase();
        for (const part of [street, postcode, city]) expect(whole).toContain(part.toLowerCase());
      }),
    );
  });
});

describe('a country', () => {
  it.each([
    ['NL', 'nl-NL', 'Nederland'], ['nl', 'de', 'Niederlande'], ['GB', 'en-GB', 'United Kingdom'], ['Ruritania', 'nl', 'Ruritania'],
    ['ZQ', 'en', 'ZQ'], ['', 'en', ''],
  ])('%s in %s is %s', (code, locale, expected) => expect(countryName(code, locale)).toBe(expected)); // prettier-ignore
});
