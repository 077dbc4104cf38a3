import type { Meaning } from '../formula/meanings';
import type { Cell } from '../sheet/cell';
import { formatMoney } from '../money/format';
import { Decimal } from '../money/decimal';

/** One step of a price bridge: a level that is reached, or a change from one level to the next. */
export interface BridgeStep {
  kind: 'level' | 'change';
  label: string;
  /** Decimal text; a change has its sign. */
  value: string;
  /** Where a level ends, or a change leads to: decimal text. */
  after: string;
  /** As printed, with its currency. */
  text: string;
  /** Id of the workings behind it. */
  workings: string;
}

/** Figures of the bridge, in order: a level, then the changes that lead to the next; a sign where a change is deducted. */
const COURSE: readonly { meaning: Meaning; kind: BridgeStep['kind']; sign?: -1 }[] = [
  { meaning: 'list-total', kind: 'level' },
  { meaning: 'line-discounts', kind: 'change' },
  { meaning: 'sum-of-lines', kind: 'level' },
  { meaning: 'allowances', kind: 'change', sign: -1 },
  { meaning: 'charges', kind: 'change' },
  { meaning: 'net-total', kind: 'level' },
  { meaning: 'tax-total', kind: 'change' },
  { meaning: 'gross-total', kind: 'level' },
  { meaning: 'prepaid', kind: 'change', sign: -1 },
  { meaning: 'rounding', kind: 'change' },
  { meaning: 'payable', kind: 'level' },
];

/**
 * From list price to total by the figures' meanings. Changes of zero are left out. Null where a figure has failed, there
 * is no step to tell of, or the steps do not add up to the levels: a chart must not tell another story than the page.
 */
export function priceBridge(figureOf: (meaning: Meaning) => Cell | undefined, locale: string): BridgeStep[] | null {
  const steps: BridgeStep[] = [];
  let reached: Decimal | undefined;
  for (const { meaning, kind, sign } of COURSE) {
    const cell = figureOf(meaning);
    if (!cell) continue;
    const { value: amount } = cell;
    if (amount.type !== 'money') return null;
    const value = sign ? amount.value.neg() : amount.value;
    if (kind === 'change' && (reached === undefined || value.isZero())) continue;
    if (kind === 'level' && reached !== undefined && !reached.equals(value)) return null;
    reached = kind === 'level' ? value : reached!.plus(value);
    steps.push({
      kind,
      label: cell.figure!.label,
      value: value.toFixed(),
      after: reached.toFixed(),
      text: formatMoney(value, amount.currency, locale),
      workings: cell.id,
    });
  }
  const stepsShown = withoutEqualLevels(steps);
  return stepsShown.length < 2 ? null : stepsShown;
}

/** A level straight after another says the same again; the later one, which is nearer to what is paid, stays. */
function withoutEqualLevels(steps: readonly BridgeStep[]): BridgeStep[] {
  return steps.filter((step, at) => step.kind === 'change' || steps[at + 1]?.kind !== 'level');
}
