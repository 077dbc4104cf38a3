/**
 * From a sum that was agreed back to a single value of the record that reaches it: tried over the very figures that the document is
 * computed with.
 */
import { formatValue } from '../formula/value';
import { minorUnit } from '../money/currency';
import { Decimal } from '../money/decimal';
import { fieldAt } from '../record/field-at';
import { LINES, type FieldSchema } from '../record/schema';
import type { FieldValue, RecordSnapshot } from '../record/snapshot';
import { describePath } from '../record/value-path';
import { collectReads } from '../sheet/cell';
import type { Sheet } from '../sheet/sheet';
import { withTried } from '../template/what-if';
import { INTERFACE_LOCALE } from '../words/interface';

/** A value of the record that has a figure come to a sum, or near to it. */
export interface Reaching {
  path: string;
  /** What people call it: “Line 4: discount”. */
  label: string;
  /** Whether it is a percentage. */
  isPercent: boolean;
  /** As a person types it, now and then; empty where there is none now. */
  before: string;
  after: string;
  /** What the figure comes to then, and how far that is from what is wanted: decimals as text. */
  total: string;
  difference: string;
  /** What becomes of figures that are for the company alone, in words. */
  internal: { label: string; before: string; after: string }[];
}

export interface WorkedBack {
  currency: string;
  /** What the figure comes to now. */
  now: string;
  /** By how near they come, those that change least first. */
  ways: Reaching[];
}

/** How many values are tried, how many of them are told, and how often one is tried. */
const MOST_TRIED = 90;
const MOST_TOLD = 8;
const MOST_STEPS = 40;

/**
 * The single values that have a figure of the document come to a wanted sum: discounts, prices, quantities, each in its own precision.
 * `sheet`: the figures over the record, for this alone. Undefined where the figure is no sum, or cannot be computed.
 */
export function workBack(sheet: Sheet, figure: string, wanted: Decimal): WorkedBack | undefined {
  const worker = new BackWorker(sheet, figure, wanted);
  const { now } = worker;
  if (!now) return undefined;
  const ways = worker.candidates().flatMap((each) => worker.reaching(each) ?? []);
  const distance = ({ difference }: Reaching) => Decimal.of(difference).abs();
  ways.sort((one, other) => distance(one).comparedTo(distance(other)) || change(one) - change(other));
  return { currency: now.currency, now: now.value.toFixed(), ways: ways.slice(0, MOST_TOLD) };
}

/** How much a value changes by its own measure: a small change is what people agree on. */
function change({ isPercent, before, after }: Reaching): number {
  const [from, to] = [Number(before), Number(after)];
  return isPercent ? Math.abs(to - from) / 100 : Math.abs(to - from) / Math.max(Math.abs(from), Math.abs(to), 1);
}

/** A number of the record, as whole steps of its own precision. */
interface Candidate {
  path: string;
  field: FieldSchema;
  before: string;
  /** Decimals of a step. */
  digits: number;
  /** Now, and between which it may lie, in steps. */
  at: number;
  least: number;
  most: number;
}

class BackWorker {
  readonly #snapshot: RecordSnapshot;
  readonly #internal: string[];
  readonly #internalBefore: { label: string; text: string }[];
  readonly now: { value: Decimal; currency: string } | undefined;

  constructor(
    readonly sheet: Sheet,
    readonly figure: string,
    readonly wanted: Decimal,
  ) {
    this.#snapshot = sheet.input.snapshot;
    this.#internal = sheet.input.sheet.document.flatMap(({ name, internal }) => (internal ? [name] : []));
    this.#internalBefore = this.#internalNow();
    const { value } = sheet.figure(figure);
    this.now = value.type === 'money' ? { value: value.value, currency: value.currency } : undefined;
  }

  /** The numbers that the figure was computed from; rates of tax are the law’s, not the seller’s. */
  candidates(): Candidate[] {
    const { schema } = this.sheet.input;
    const reads = new Map<string, string>();
    collectReads(this.sheet.figure(this.figure), reads);
    const rates = this.#rates();
    return [...reads.keys()]
      .flatMap((path): Candidate[] => {
        const found = rates.has(path) ? undefined : fieldAt(path, this.#snapshot, schema);
        if (!found || found.field.readonly) return [];
        const candidate = this.#candidate(path, found.field, found.value);
        return candidate ? [candidate] : [];
      })
      .slice(0, MOST_TRIED);
  }

  #candidate(path: string, field: FieldSchema, value: FieldValue): Candidate | undefined {
    const { type } = field;
    if (type !== 'number' && type !== 'money' && type !== 'percent') return undefined;
    const number = numberIn(value);
    // What is blank stands for nothing here: else the figure could not be computed.
    const own = number?.decimalPlaces() ?? 0;
    const digits = Math.max(own, type === 'money' ? minorUnit(this.now!.currency) : type === 'percent' ? 2 : 0);
    const at = (number ?? Decimal.ZERO).shifted(digits).toNumber();
    if (!Number.isSafeInteger(at)) return undefined;
    const whole = type === 'money' ? this.now!.value.abs().times(Decimal.of('2')).toNumber() : 100;
    const far = Math.max(Math.abs(at) * 2, Math.ceil(whole) * 10 ** digits);
    const [least, most] =
      type === 'percent' ? [0, 100 * 10 ** digits] : at < 0 ? [-far, -1] : [type === 'number' ? 1 : 0, far];
    return { path, field, before: number?.toFixed() ?? '', digits, at, least, most };
  }

  /** Paths of the rates of tax of lines (EN 16931, BT-152), by the figures that say that they are such. */
  #rates(): Set<string> {
    const reads = new Map<string, string>();
    for (const { name, meaning } of this.sheet.input.sheet.perLine)
      if (meaning === 'tax-rate') collectReads(this.sheet.evaluate(`rates ${name}`, `${LINES}.${name}`), reads);
    return new Set(reads.keys());
  }

  /** The value that comes nearest to what is wanted; undefined where it is what it is now, or nothing is near. */
  reaching(candidate: Candidate): Reaching | undefined {
    const best = this.#nearest(candidate);
    if (best === undefined || best === candidate.at) return undefined;
    const after = typed(this.#roundest(candidate, best), candidate.digits);
    const total = this.#totalWith(candidate.path, after);
    const then = this.#internalNow();
    this.sheet.update(this.#snapshot);
    if (!total) return undefined;
    return {
      path: candidate.path,
      label: describePath(candidate.path, this.#snapshot, this.sheet.input.schema),
      isPercent: candidate.field.type === 'percent',
      before: candidate.before,
      after,
      total: total.toFixed(),
      difference: total.minus(this.wanted).toFixed(),
      internal: this.#internalBefore.flatMap(({ label, text }, at) =>
        text === then[at]!.text ? [] : [{ label, before: text, after: then[at]!.text }],
      ),
    };
  }

  /** What the figure comes to at so many steps. */
  #total({ path, digits }: Candidate, steps: number): Decimal | undefined {
    return this.#totalWith(path, typed(steps, digits));
  }

  #totalWith(path: string, value: string): Decimal | undefined {
    const { record, faults } = withTried(this.#snapshot, [{ path, value }], this.sheet.input.schema);
    if (faults.length > 0) return undefined;
    this.sheet.update(record);
    const { value: total } = this.sheet.figure(this.figure);
    return total.type === 'money' && total.currency === this.now!.currency ? total.value : undefined;
  }

  /** By false position between two bounds, halved where that does not help: the figure rises or falls with the value. */
  #nearest(candidate: Candidate): number | undefined {
    let [low, high] = [candidate.least, candidate.most];
    const first = this.#total(candidate, low);
    const last = this.#total(candidate, high);
    if (!first || !last || first.equals(last)) return undefined;
    const rises = last.comparedTo(first) > 0;
    const off = (total: Decimal) => total.minus(this.wanted).toNumber() * (rises ? 1 : -1);
    let [under, over] = [off(first), off(last)];
    if (under > 0 || over < 0) return undefined;
    for (let step = 0; step < MOST_STEPS && high - low > 1 && under !== 0 && over !== 0; step++) {
      const guess = step % 3 === 2 ? (low + high) / 2 : low + ((high - low) * -under) / (over - under);
      const middle = Math.min(high - 1, Math.max(low + 1, Math.round(guess)));
      const total = this.#total(candidate, middle);
      if (!total) return undefined;
      const by = off(total);
      if (by <= 0) [low, under] = [middle, by];
      else [high, over] = [middle, by];
    }
    return -under <= over ? low : high;
  }

  /** The value with the fewest decimals that comes to the same. */
  #roundest(candidate: Candidate, steps: number): number {
    const total = this.#total(candidate, steps);
    for (let fewer = candidate.digits; total && fewer > 0; fewer--) {
      const unit = 10 ** fewer;
      const rounder = Math.round(steps / unit) * unit;
      if (rounder < candidate.least || rounder > candidate.most || rounder === candidate.at) continue;
      if (this.#total(candidate, rounder)?.equals(total)) return rounder;
    }
    return steps;
  }

  #internalNow(): { label: string; text: string }[] {
    return this.#internal.map((name) => {
      const cell = this.sheet.figure(name);
      return { label: cell.figure!.label, text: formatValue(cell.value, INTERFACE_LOCALE) };
    });
  }
}

/** A number of a field as a person types it: 12.5 for 12.5 %. */
function numberIn(value: FieldValue): Decimal | undefined {
  if (typeof value !== 'object' || value === null) return undefined;
  if ('number' in value) return Decimal.read(value.number);
  if ('amount' in value) return Decimal.read(value.amount);
  return 'percent' in value ? Decimal.read(value.percent)?.shifted(2) : undefined;
}

const typed = (steps: number, digits: number): string => Decimal.of(String(steps)).shifted(-digits).toFixed();
