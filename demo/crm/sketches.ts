import type { Deal, LineItem } from './records';

/** A line of a demo deal: product, quantity, and what differs from the product's list. */
export interface LineSketch {
  sku: string;
  quantity: string;
  /** `null` leaves the price blank. */
  price?: string | null;
  discount?: string;
  tax?: [category: string, rate: string];
  optional?: boolean;
  /** A return or trade-in, whose sum is below zero. */
  tradeIn?: boolean;
  name?: string;
  description?: string;
  /** Off the line, in money, after the percentage. */
  rebate?: string;
  cost?: string;
  billing?: LineItem['billing'];
  months?: number;
  /** SKU of the line it is a part of. */
  partOf?: string;
  partsShown?: LineItem['parts_shown'];
}

/** A demo deal: what differs from an ordinary one. */
export interface DealSketch extends Partial<Omit<Deal, 'id' | 'amount'>> {
  id: string;
  name: string;
  account_id: string;
  amount: string | null;
  lines: LineSketch[];
  /** Tax of every line that does not say otherwise. */
  tax?: [category: string, rate: string];
}
