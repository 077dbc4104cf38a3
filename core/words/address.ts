import { formatAddress } from 'localized-address-format';

/** The parts of a postal address, as records hold them; any of them may be empty. */
export interface PostalAddress {
  /** With the house's number; several lines where it has line ends. */
  street: string;
  postcode: string;
  city: string;
  /** Two letters of ISO 3166-1, or a name. */
  country: string;
}

const CODE = /^[A-Z]{2}$/;
const names = new Map<string, Intl.DisplayNames>();

/** A country's name in a locale's language, by its two letters of ISO 3166-1; what is no such code is itself. The names are CLDR's. */
export function countryName(code: string, locale: string): string {
  const known = code.trim().toUpperCase();
  if (!CODE.test(known)) return code;
  let inLocale = names.get(locale);
  if (!inLocale) names.set(locale, (inLocale = new Intl.DisplayNames(locale, { type: 'region', fallback: 'none' })));
  return inLocale.of(known) ?? code;
}

/**
 * The lines of a postal address in the order that its country's post asks for. A letter within one country does not name it; another's
 * name is the last line, in capitals (UPU S42).
 *
 * @param from The sender's country.
 * @param locale BCP 47; the country is named in its language.
 */
export function addressLines(address: PostalAddress, from: string, locale: string): string[] {
  const country = address.country.trim();
  const code = country.toUpperCase();
  const isAbroad = country !== '' && code !== from.trim().toUpperCase();
  const lines = CODE.test(code) ? linesBy(code, address) : linesBy(undefined, address);
  return isAbroad ? [...lines, countryName(country, locale).toLocaleUpperCase(locale)] : lines;
}

/** Lines by a country's format; nothing is lost that it has no place for: a city goes where a province would, a code after the last line. */
function linesBy(postalCountry: string | undefined, { street, postcode, city }: PostalAddress): string[] {
  const streets = street.split(/\r?\n/).map((line) => line.trim());
  const [postalCode, locality] = [postcode.trim(), city.trim()];
  const isLatin = !/[^\p{Script=Latin}\p{Script=Common}\p{Script=Inherited}]/u.test(street + city);
  const inFormat = (place: { locality: string } | { administrativeArea: string }) =>
    formatAddress(
      { postalCountry, addressLines: streets.filter(Boolean), postalCode, ...place },
      isLatin ? 'latin' : 'local',
    ).map(withoutPrefix);
  // Letters of the country before the code are of the time before its name had a line of its own; others may have been typed already.
  const withoutPrefix = (line: string) => line.replace(`${postalCountry}-`, '').replace(/^(\p{L}+-)\1/u, '$1');
  const has = (lines: readonly string[], part: string) =>
    part === '' || lines.some((line) => line.toLowerCase().includes(part.toLowerCase()));
  const named = inFormat({ locality });
  const lines = has(named, locality) ? named : inFormat({ administrativeArea: locality });
  const rest = [locality, postalCode].filter((part) => !has(lines, part));
  return [...lines.slice(0, -1), [...lines.slice(-1), ...rest].join(' ')].filter(Boolean);
}
