/**
 * Random deals that ask everything of a calculation: currencies with none, two and three decimals and with coins of 0.05,
 * discounts of every kind, returns, trade-ins and free lines, bundles over sections and within one another, every tax
 * category with rates that fit it and rates that do not, optional and recurring lines. The same seed gives the same deals.
 */
import { demoRecords } from '../../demo/crm/index';
import type { CrmRecords, Deal, LineItem } from '../../demo/crm/records';

/** Numbers from 0 up to 1, the same for the same seed (mulberry32). */
function randomNumbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

const RATES: Record<string, readonly string[]> = {
  standard: ['20', '21', '5', '19', '8.1'],
  reduced: ['5', '9', '7', '2.6'],
  zero: ['0', '20'],
  exempt: ['0', '9'],
  'reverse charge': ['0', '21'],
  export: ['0', '20'],
  'outside scope': ['0', '5'],
};

/** Deals with their lines, in the shape of the demo's records. */
export function randomDeals(count: number, seed: number): CrmRecords {
  const deals: Deal[] = [];
  const lineItems: LineItem[] = [];
  for (let at = 0; at < count; at++) {
    const made = new DealMaker(randomNumbers(seed * 100_003 + at), `R-${seed}-${at}`);
    deals.push(made.deal);
    lineItems.push(...made.lines);
  }
  return { ...demoRecords, deals, lineItems };
}

class DealMaker {
  readonly deal: Deal;
  readonly lines: LineItem[];
  readonly #decimals: number;

  constructor(
    readonly random: () => number,
    id: string,
  ) {
    const currency = this.#pick(['GBP', 'EUR', 'EUR', 'JPY', 'KWD', 'CHF']);
    this.#decimals = { JPY: 0, KWD: 3 }[currency] ?? 2;
    const [model] = demoRecords.deals;
    this.deal = {
      ...model!,
      id,
      name: `Random deal ${id}`,
      number: id,
      stage: 'Won',
      currency,
      amount: null,
      quote_language: this.#pick(['en', 'nl', 'es', 'de', 'ar']),
      wanted_by: this.#chance(0.5) ? `2027-0${this.#whole(1, 9)}-${this.#whole(10, 28)}` : null,
      deposit_percent: this.#pick([null, '30', '25', '33.333', '12.5', '0']),
      discount_percent: this.#pick([null, null, '3', '7.5', '100']),
      discount_amount: this.#chance(0.3) ? this.#amount(400) : null,
    };
    this.lines = Array.from({ length: this.#whole(1, 12) }, (_, at) => this.#line(at));
    if (this.#chance(0.5)) this.#bundle();
  }

  #line(at: number): LineItem {
    const product = this.#pick(demoRecords.products);
    const category = this.#pick(['standard', 'standard', 'standard', 'reduced', ...Object.keys(RATES)]);
    const isReturn = this.#chance(0.12);
    const isTradeIn = !isReturn && this.#chance(0.06);
    const price = this.#chance(0.06) ? '0' : this.#price();
    return {
      id: `${this.deal.id}-${at + 1}`,
      deal_id: this.deal.id,
      position: at + 1,
      product_id: product.id,
      section: this.#pick(['Structure', 'Climate', 'Services']),
      sku: `${product.sku}-${at}`,
      name: product.name,
      description: null,
      quantity: `${isReturn ? '-' : ''}${this.#quantity()}`,
      unit: 'pc',
      unit_price: isTradeIn ? `-${price}` : price,
      currency: this.deal.currency,
      discount: this.#pick([null, null, '0', '10', '12.5', '33.333', '100']),
      tax_category: category,
      tax_rate: this.#pick(RATES[category]!),
      optional: this.#chance(0.15),
      trade_in: isTradeIn,
      discount_amount: this.#chance(0.25) ? this.#amount(300) : null,
      unit_cost: this.#chance(0.9) ? this.#amount(500) : null,
      billing: this.#pick(['once', 'once', 'once', 'monthly', 'yearly']),
      term_months: this.#pick([null, 12, 36, 7]),
      part_of: null,
      parts_shown: null,
      weight: this.#pick([null, '0', '1.5', '12.25', '300']),
    };
  }

  /** Makes some lines parts of others: of one head, of a part, of an optional head, of a SKU that two lines have or none has. */
  #bundle(): void {
    const { lines } = this;
    const heads = lines.filter(() => this.#chance(0.4));
    for (const head of heads) head.parts_shown = this.#pick(['rolled up', 'hidden', 'indented', null]);
    if (heads.length > 1 && this.#chance(0.15)) heads[1]!.sku = heads[0]!.sku;
    lines.forEach((line, at) => {
      if (!this.#chance(0.5)) return;
      // Only of a line before it, so that no line is a part of itself.
      const owner = this.#chance(0.08)
        ? undefined
        : lines
            .slice(0, at)
            .filter((each) => heads.includes(each))
            .at(-1);
      const sku = owner ? owner.sku : 'NOWHERE';
      if (lines.slice(at).some((each) => each.sku === sku)) return;
      line.part_of = sku;
    });
  }

  #whole(least: number, most: number): number {
    return least + Math.floor(this.random() * (most - least + 1));
  }

  #chance(probability: number): boolean {
    return this.random() < probability;
  }

  #pick<Item>(all: readonly Item[]): Item {
    return all[this.#whole(0, all.length - 1)]!;
  }

  #quantity(): string {
    return this.#chance(0.7) ? String(this.#whole(1, 40)) : (this.#whole(1, 4_000) / 100).toFixed(2);
  }

  /** A unit price, sometimes with more decimals than its currency has. */
  #price(): string {
    const extra = this.#chance(0.25) ? 2 : 0;
    const units = this.#whole(1, this.#chance(0.2) ? 5_000_000 : 99_999);
    return withPoint(units, this.#decimals + extra);
  }

  #amount(most: number): string {
    return withPoint(this.#whole(1, most * 10 ** this.#decimals), this.#decimals);
  }
}

function withPoint(units: number, decimals: number): string {
  if (decimals === 0) return String(units);
  const digits = String(units).padStart(decimals + 1, '0');
  return `${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`;
}
