import { roundTo, type Decimal, type RoundingMode } from './decimal';

/** Currencies whose minor unit is not two decimals, from ISO 4217 list one. */
const EXCEPTIONAL_MINOR_UNITS: ReadonlyMap<string, number> = new Map(Object.entries({
  BIF: 0, CLP: 0, DJF: 0, GNF: 0, ISK: 0, JPY: 0, KMF: 0, KRW: 0, PYG: 0,
  RWF: 0, UGX: 0, UYI: 0, VND: 0, VUV: 0, XAF: 0, XOF: 0, XPF: 0,
  BHD: 3, IQD: 3, JOD: 3, KWD: 3, LYD: 3, OMR: 3, TND: 3,
  CLF: 4, UYW: 4,
})); // prettier-ignore

/** Number of decimals of a currency's smallest unit (ISO 4217): 2 for EUR, 0 for JPY, 3 for KWD. */
export function minorUnit(currency: string): number {
  return EXCEPTIONAL_MINOR_UNITS.get(currency) ?? 2;
}

/** Whether the text has the form of an ISO 4217 alphabetic code. */
export function isCurrencyCode(text: string): boolean {
  return /^[A-Z]{3}$/.test(text);
}

/** Rounds a sum of money to its currency's minor unit. */
export function roundMoney(value: Decimal, currency: string, mode: RoundingMode): Decimal {
  return roundTo(value, minorUnit(currency), mode);
}
