import type { Expression } from '../formula/ast';
import type { Cell, Found, InputSource } from './cell';
import { printForReading } from '../formula/print';
import type { Sheet } from './sheet';
import { formatValue, isAmount, type Value } from '../formula/value';

/** How a figure came to its value, as data and as a sentence. Plain data: it crosses threads and is stored. */
export interface Workings {
  id: string;
  label: string;
  /** "Line 3, Vent motor" for a figure of a line. */
  place?: string;
  formula: string;
  inputs: WorkingsInput[];
  /** The formula with its values put in, then the parts that were computed on the way, then the whole. */
  steps: WorkingsStep[];
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

/** A part of a formula and what it came to: "ROUND(12.345, 2)" is "12.35". */
export interface WorkingsStep {
  text: string;
  result: string;
}

/** Sums of more items than this are shortened in the sentence. */
const LISTED = 8;

/** Explains an evaluated cell. `called`: what people call it, where it is no figure with a label of its own. */
export function workingsOf(cell: Cell, sheet: Sheet, locale: string, called?: string): Workings {
  const { found, exact } = sheet.trace(cell);
  const label = cell.figure?.label ?? called ?? nameFrom(cell, found);
  const place = cell.row?.place;
  const result = cell.value.type === 'blank' ? 'blank' : formatValue(cell.value, locale);
  const before = cell.figure && wasRounded(exact, cell.value) ? formatValue(exact, locale) : undefined;
  const whole = cell.expression ? printForReading(cell.expression, (node) => inputText(node, found, locale)) : '';
  const name = place ? `${label} of ${lowerFirst(place)}` : label;
  const middle = whole === result ? '' : ` = ${whole}`;
  const rounded = before && before !== result ? ` = ${before}, rounded` : '';
  const failed = cell.value.type === 'error';
  return {
    id: cell.id,
    label,
    place,
    formula: cell.formula,
    inputs: inputsOf(found, locale),
    steps: cell.expression && !failed ? stepsOf(cell.expression, found, locale, before ?? result) : [],
    rounding: before && before !== result ? { before, after: result } : undefined,
    result,
    sentence: failed ? `${name}: ${result}` : `${name}${middle}${rounded} = ${result}`,
    failed,
  };
}

function wasRounded(exact: Value, value: Value): boolean {
  return isAmount(exact) && isAmount(value) && !exact.value.equals(value.value);
}

type Trace = ReadonlyMap<Expression, Found>;

/** What stands for a node where values are put in: its value, a sum written out, or the branch that was taken. */
function inputText(node: Expression, found: Trace, locale: string): string | undefined {
  if (node.kind === 'call' && node.name === 'SUM' && node.arguments.length === 1) {
    const summed = found.get(node.arguments[0]!)?.value;
    return summed?.type === 'list' ? sumText(summed.items, locale) : undefined;
  }
  if (node.kind === 'call' && node.name !== 'SUM')
    return found.has(node) ? valueText(found.get(node)!.value, locale) : undefined;
  const input = found.get(node);
  return input && valueText(input.value, locale);
}

/** The calls within a formula, innermost first, each with its arguments' values; at the end the formula itself. */
function stepsOf(expression: Expression, found: Trace, locale: string, result: string): WorkingsStep[] {
  const steps: WorkingsStep[] = [];
  const visit = (node: Expression, isWhole: boolean) => {
    for (const child of childrenOf(node)) visit(child, false);
    const value = found.get(node)?.value;
    if (isWhole || node.kind !== 'call' || !value || value.type === 'list' || value.type === 'record') return;
    steps.push({ text: withValues(node, found, locale), result: valueText(value, locale) });
  };
  visit(expression, true);
  const whole = withValues(expression, found, locale);
  return whole === result ? steps : [...steps, { text: whole, result }];
}

function withValues(whole: Expression, found: Trace, locale: string): string {
  return printForReading(whole, (node) => {
    if (node === whole && node.kind === 'call' && node.name !== 'SUM') return undefined;
    return inputText(node, found, locale);
  });
}

function childrenOf(node: Expression): readonly Expression[] {
  switch (node.kind) {
    case 'call':
      return node.arguments;
    case 'binary':
      return [node.left, node.right];
    case 'negative':
    case 'percentage':
    case 'not':
      return [node.operand];
    default:
      return [];
  }
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

function inputsOf(found: Trace, locale: string): WorkingsInput[] {
  const inputs: WorkingsInput[] = [];
  for (const [node, { value, source }] of found) {
    if (value.type === 'record' || (value.type === 'list' && value.items[0]?.type === 'record')) continue;
    if (source.kind === 'computed' && (node.kind === 'binary' || node.kind === 'call')) continue;
    const formula = printForReading(node, () => undefined);
    inputs.push({
      formula,
      label: inputName(node, source) ?? formula,
      value: value.type === 'list' ? sumText(value.items, locale) : valueText(value, locale),
      path: source.kind === 'field' ? source.field.path : undefined,
      figure: source.kind === 'cell' ? source.cell.id : undefined,
    });
  }
  return inputs;
}

/** A value is called by what it was made from, where that is no more than this. */
const NAMED = 3;
function nameFrom({ expression }: Cell, found: Trace): string {
  if (expression?.kind === 'call' && expression.name === 'LABEL') return 'Word in the document’s language';
  const names = [...found].flatMap(([node, { value, source }]) =>
    node.kind === 'call' || value.type === 'record' ? [] : (inputName(node, source) ?? []),
  );
  const known = [...new Set(names)];
  return known.length > 0 && known.length <= NAMED ? known.join(', ') : 'This value';
}

/** What people call an input: its label, or its name in words. */
function inputName(node: Expression, source: InputSource): string | undefined {
  const label = inputLabel(source);
  if (label !== undefined) return upperFirst(label);
  return node.kind === 'name' || node.kind === 'member'
    ? upperFirst(printForReading(node, () => undefined))
    : undefined;
}

function inputLabel(source: InputSource): string | undefined {
  if (source.kind === 'cell') return source.cell.figure?.label;
  return source.kind === 'field' ? source.field.label : undefined;
}

function upperFirst(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}

function lowerFirst(words: string): string {
  return words.charAt(0).toLowerCase() + words.slice(1);
}
