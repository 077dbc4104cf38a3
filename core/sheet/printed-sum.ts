import { formatValue, isAmount, money, number, type Value } from '../formula/value';
import { Decimal, NumberTooGreat } from '../money/decimal';

/** Decimals that are printed at most; what is added up is what is printed. */
const PRINTED = 12;

/** A column as a reader adds it up: every value that a row of the composed table prints, in the digits it is printed with. */
export class PrintedSum {
  #sum = Decimal.ZERO;
  /** Values that were printed: whether there are any, and of which currencies. */
  #isEmpty = true;
  readonly #currencies = new Set<string>();

  /** Takes a value that was printed. What is no amount (a blank, a word) adds nothing. */
  add(value: Value): void {
    if (!isAmount(value)) return;
    this.#isEmpty = false;
    if (value.type === 'money') this.#currencies.add(value.currency);
    try {
      this.#sum = this.#sum.plus(value.value.round(PRINTED));
    } catch (problem) {
      // No document prints such a sum; what it is compared with has the same error as its value.
      if (!(problem instanceof NumberTooGreat)) throw problem;
    }
  }

  /** The sum so far, as money where money was printed; undefined where nothing was, or more than one currency. */
  get value(): Value | undefined {
    if (this.#isEmpty || this.#currencies.size > 1) return undefined;
    const [currency] = this.#currencies;
    return currency === undefined ? number(this.#sum) : money(this.#sum, currency, 'amount');
  }

  /** Why it is not what is printed as its total, in a sentence; undefined if it is, or if either is no amount. */
  contradicts(total: Value, column: string, label: string, locale: string): string | undefined {
    if (!isAmount(total)) return undefined;
    const isMixed = total.type === 'money' && new Set([...this.#currencies, total.currency]).size > 1;
    if (isMixed || this.#currencies.size > 1)
      return `The column “${column}” and its total “${label}” are not in one currency.`;
    if (this.#sum.equals(total.value.round(PRINTED))) return undefined;
    const sum = total.type === 'money' ? money(this.#sum, total.currency, 'amount') : number(this.#sum);
    return `The printed rows of “${column}” add up to ${formatValue(sum, locale)}, but “${label}” prints ${formatValue(total, locale)}.`;
  }
}
