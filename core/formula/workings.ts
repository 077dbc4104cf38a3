import type { Expression } from './ast';
import type { Cell, InputSource } from './cell';
import { printForReading } from './print';
import { formatValue, type Value } from './value';

/** How a figure came to its value, as data and as a sentence. Plain data: it crosses threads and is stored. */
export interface Workings {
  id: string;
  label: string;
  /** "line 3, Vent motor" for a figure of a line. */
  place?: string;
  formula: string;
  inputs: WorkingsInput[];
  rounding?: { before: string; after: string };
  result: string;
  /** "Net of line 3, Vent motor = 12 × 48.50 EUR × (1 − 10 %) = 523.80 EUR" */
  sentence: string;
  failed: boolean;
}

/** One thing a figure was computed from. `figure` is the id of that figure's own workings. */
export interface WorkingsInput {
  formula: string;
  label: string;
  value: string;
  path?: string;
  figure?: string;
}

/** Sums of more items than this are shortened in the sentence. */
const LISTED = 8;

/** Explains an evaluated cell. */
export function workingsOf(cell: Cell, locale: string): Workings {
  const label = cell.figure?.label ?? cell.id;
  const place = cell.row?.place;
  const result = cell.value.type === 'blank' ? 'blank' : formatValue(cell.value, locale);
  const before = cell.beforeRounding && formatValue(cell.beforeRounding, locale);
  const steps = cell.expression ? printForReading(cell.expression, (node) => inputText(node, cell, locale)) : '';
  const name = place ? `${label} of ${lowerFirst(place)}` : label;
  const middle = steps === result ? '' : ` = ${steps}`;
  const rounded = before && before !== result ? ` = ${before}, rounded` : '';
  return {
    id: cell.id,
    label,
    place,
    formula: cell.formula,
    inputs: inputsOf(cell, locale),
    rounding: before && before !== result ? { before, after: result } : undefined,
    result,
    sentence: cell.value.type === 'error' ? `${name}: ${result}` : `${name}${middle}${rounded} = ${result}`,
    failed: cell.value.type === 'error',
  };
}

function inputText(node: Expression, cell: Cell, locale: string): string | undefined {
  if (node.kind === 'call' && node.name === 'SUM' && node.arguments.length === 1) {
    const summed = cell.inputs.get(node.arguments[0]!)?.value;
    return summed?.type === 'list' ? sumText(summed.items, locale) : undefined;
  }
  const input = cell.inputs.get(node);
  if (!input) return undefined;
  return valueText(input.value, locale);
}

function valueText(value: Value, locale: string): string {
  if (value.type === 'list') return `${value.items.length} ${value.items.length === 1 ? 'item' : 'items'}`;
  if (value.type === 'blank' || value.type === 'error') return value.type;
  if (value.type === 'text') return `“${value.value}”`;
  return formatValue(value, locale);
}

function sumText(items: readonly Value[], locale: string): string {
  if (items.length === 0) return 'the sum of nothing';
  const shown = items.length <= LISTED ? items : [...items.slice(0, 3), items.at(-1)!];
  const texts = shown.map((item) => formatValue(item, locale, 'plain'));
  if (items.length > LISTED) texts.splice(3, 0, `… (${items.length - 4} more)`);
  return texts.join(' + ');
}

function inputsOf(cell: Cell, locale: string): WorkingsInput[] {
  const inputs: WorkingsInput[] = [];
  for (const [node, { value, source }] of cell.inputs) {
    if (value.type === 'record' || (value.type === 'list' && value.items[0]?.type === 'record')) continue;
    if (node.kind === 'binary') continue;
    const formula = printForReading(node, () => undefined);
    inputs.push({
      formula,
      label: inputLabel(source) ?? formula,
      value: value.type === 'list' ? sumText(value.items, locale) : valueText(value, locale),
      path: source.kind === 'field' ? source.path : undefined,
      figure: source.kind === 'figure' ? source.cell.id : undefined,
    });
  }
  return inputs;
}

function inputLabel(source: InputSource): string | undefined {
  if (source.kind === 'figure') return source.cell.figure?.label;
  return source.kind === 'field' ? source.label : undefined;
}

function lowerFirst(words: string): string {
  return words.charAt(0).toLowerCase() + words.slice(1);
}
