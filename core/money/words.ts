import { toCardinal as arabic } from 'n2words/ar-SA';
import { toCardinal as german } from 'n2words/de-DE';
import { toCardinal as english } from 'n2words/en-GB';
import { toCardinal as spanish } from 'n2words/es-ES';
import { toCardinal as french } from 'n2words/fr-FR';
import { toCardinal as italian } from 'n2words/it-IT';
import { toCardinal as dutch } from 'n2words/nl-NL';
import { toCardinal as polish } from 'n2words/pl-PL';
import { toCardinal as portuguese } from 'n2words/pt-PT';
import { own } from '../record/own';
import { minorUnit } from './currency';
import type { Decimal } from './decimal';

interface Language {
  whole: (value: bigint) => string;
  /** Between the whole units and the hundredths. */
  and: string;
}

const LANGUAGES: Readonly<Record<string, Language>> = {
  en: { whole: (value) => english(value), and: 'and' },
  nl: { whole: (value) => dutch(value, { noHundredPairing: true }), and: 'en' },
  es: { whole: (value) => spanish(value), and: 'con' },
  ar: { whole: (value) => arabic(value), and: 'و' },
  de: { whole: (value) => german(value), and: 'und' },
  fr: { whole: (value) => french(value), and: 'et' },
  it: { whole: (value) => italian(value), and: 'e' },
  pl: { whole: (value) => polish(value), and: 'i' },
  pt: { whole: (value) => portuguese(value), and: 'e' },
};

/** Languages that amounts can be written out in (ISO 639-1). */
export const WORD_LANGUAGES: readonly string[] = Object.keys(LANGUAGES);

/** A whole number in the words of a language; undefined for a language without words here. */
export function numberInWords(value: Decimal, language: string): string | undefined {
  return own(LANGUAGES, language)?.whole(BigInt(value.toFixed(0)));
}

/**
 * A sum in words, as on a cheque: the whole units in words with the currency's name, and the smaller units as a
 * fraction, which is read the same in every language: "five hundred and twenty-three euros and 80/100".
 * Undefined for a language without words here.
 */
export function amountInWords(value: Decimal, currency: string, language: string): string | undefined {
  const words = own(LANGUAGES, language);
  if (!words) return undefined;
  const digits = minorUnit(currency);
  const rounded = value.round(digits);
  const whole = rounded.round(0, 'down');
  const name = currencyName(whole, currency, language);
  const text = `${words.whole(BigInt(whole.toFixed(0)))} ${name}`;
  const signed = whole.isZero() && rounded.isNegative() ? `− ${text}` : text;
  if (digits === 0) return signed;
  const minor = rounded.minus(whole).abs().shifted(digits).toFixed(0).padStart(digits, '0');
  return `${signed} ${words.and} ${minor}/${'1'.padEnd(digits + 1, '0')}`;
}

/** The currency's name in the number it takes beside an amount: "euro", "euros". */
function currencyName(whole: Decimal, currency: string, language: string): string {
  const format = new Intl.NumberFormat(language, { style: 'currency', currency, currencyDisplay: 'name', maximumFractionDigits: 0 }); // prettier-ignore
  const parts = format.formatToParts(whole.abs().toFixed() as Intl.StringNumericLiteral);
  return parts.find(({ type }) => type === 'currency')?.value ?? currency;
}
