import type { RoundingMode } from '../../money/decimal';
import type { Expression } from '../ast';
import type { Row } from '../row';
import { UNKNOWN, type Type } from '../type';
import { blankError, error, typeWords, type Value } from '../value';
import type { RegisteredDocument } from './register';

/** A day's rate: one unit of `from` is worth `rate` units of `to`. */
export interface ExchangeRate {
  /** ISO 8601 day from which it holds. */
  date: string;
  from: string;
  to: string;
  /** Decimal text. */
  rate: string;
}

/** An argument, evaluated when the function asks for it. */
export interface Argument {
  readonly expression: Expression;
  value(): Value;
  /** Its value with an item of a list in scope. */
  valueFor(row: Row): Value;
}

/** What a function sees of the evaluation it runs in. */
export interface CallContext {
  locale: string;
  currency: string | undefined;
  /** The next number of the document's series; undefined before filing has taken one. */
  serial: number | undefined;
  /** The document's day, from 1970-01-01. */
  today: number | undefined;
  registered: readonly RegisteredDocument[] | undefined;
  /** How the sheet rounds a half. */
  rounding: RoundingMode;
  rates: readonly ExchangeRate[];
  /** The item in scope. */
  item: Row | undefined;
  argument(expression: Expression): Argument;
  /** Something computed once for a list, however many cells ask for it. */
  shared(list: object, key: string, compute: (context: CallContext) => Value): Value;
}

/** What a parameter takes. `amount` is a number, a percentage or money; the last but one are values and lists of them. */
export type Takes =
  | 'number' | 'amount' | 'text' | 'condition' | 'date' | 'list' | 'records' | 'value' | 'several' | 'amounts' | 'ordered'
  | 'formula for each item'; // prettier-ignore

/** What a function takes in one place, as its help and the checker tell it. */
export interface Parameter {
  name: string;
  takes: Takes;
  optional?: boolean;
  /** It, and the required ones beside it that repeat, may be given again and again. */
  repeats?: boolean;
  /** A blank is an answer here, not an error. */
  mayBeBlank?: boolean;
}

export type Family =
  'Sums and counts' | 'Rounding and arithmetic' | 'Choices' | 'Texts' | 'Dates' | 'Lists' | 'The trade';

/** A function, declared once: checking, completion, the reference and evaluation all read this. */
export interface FormulaFunction {
  name: string;
  family: Family;
  parameters: readonly Parameter[];
  /** One sentence or two, for people. */
  help: string;
  example: string;
  /** What it gives depends on the item it is computed for, even where none of its arguments does. */
  ofItem?: true;
  /** Parameters that repeat in pairs may end with a single one. */
  endsSingle?: boolean;
  /** The type it gives for arguments of these types. */
  result: Type | ((args: readonly Type[], expressions: readonly Expression[]) => Type);
  evaluate(args: readonly Argument[], context: CallContext): Value;
}

type Declaration = Omit<FormulaFunction, 'evaluate'>;

/**
 * Declares a function whose arguments are evaluated first, and are what its parameters say: a blank where none is
 * allowed, an error, or a value of another type is its result at once.
 */
export function eager(
  declaration: Declaration,
  compute: (args: Value[], context: CallContext) => Value,
): FormulaFunction {
  return {
    ...declaration,
    evaluate(args, context) {
      const values: Value[] = [];
      for (const [position, argument] of args.entries()) {
        const value = argument.value();
        const parameter = parameterAt(declaration.parameters, position);
        const refused = refusal(value, parameter, declaration.name);
        if (refused) return refused;
        values.push(value);
      }
      return compute(values, context);
    },
  };
}

/** Declares a function that decides itself which of its arguments it evaluates. */
export function lazy(
  declaration: Declaration,
  evaluate: (args: readonly Argument[], context: CallContext) => Value,
): FormulaFunction {
  return { ...declaration, evaluate };
}

/** The parameter an argument stands for; the repeating ones at the end go round. */
export function parameterAt(parameters: readonly Parameter[], position: number): Parameter {
  if (position < parameters.length) return parameters[position]!;
  const first = parameters.findIndex(({ repeats }) => repeats);
  const round = parameters.length - first;
  return parameters[first + ((position - first) % round)] ?? parameters.at(-1)!;
}

/** How many arguments there may be: at least, at most, and in which steps. */
export function arity({ parameters, endsSingle }: FormulaFunction): { least: number; most: number; step: number } {
  const least = parameters.filter(({ optional }) => !optional).length;
  const repeating = parameters.filter(({ repeats }) => repeats).length;
  return { least, most: repeating > 0 ? Infinity : parameters.length, step: endsSingle ? 1 : Math.max(1, repeating) };
}

const TAKEN: Readonly<Record<Takes, readonly Value['type'][] | undefined>> = {
  number: ['number', 'percent'], amount: ['number', 'percent', 'money'], text: ['text'], condition: ['boolean'],
  date: ['date'], list: ['list'], records: ['list'], value: undefined, several: undefined, amounts: undefined, ordered: undefined, 'formula for each item': undefined,
}; // prettier-ignore

/** Parameters that open the lists they are given, and pass judgement on blanks themselves. */
export const TAKES_LISTS: ReadonlySet<Takes> = new Set<Takes>(['several', 'amounts', 'ordered']);

/** What a parameter takes, in words. */
export const TAKES_WORDS: Readonly<Record<Takes, string>> = {
  number: 'a number', amount: 'a number or money', text: 'a text', condition: 'yes or no', date: 'a date',
  list: 'a list', records: 'a list of records', value: 'one value', several: 'values and lists',
  amounts: 'numbers, money, and lists of them', ordered: 'numbers, money, dates, and lists of them',
  'formula for each item': 'a formula for each item',
}; // prettier-ignore

function refusal(value: Value, parameter: Parameter, name: string): Value | undefined {
  if (value.type === 'error') return value;
  const taken = TAKEN[parameter.takes];
  if (value.type === 'blank')
    return parameter.mayBeBlank || parameter.takes === 'several' ? undefined : blankError(value);
  if (parameter.takes === 'value' && value.type === 'list' && !parameter.mayBeBlank)
    return oneValueNeeded(name, parameter, value.items.length);
  if (!taken || taken.includes(value.type)) return undefined;
  return error(`${name} takes ${TAKES_WORDS[parameter.takes]} as its “${parameter.name}”, not ${typeWords(value)}.`);
}

function oneValueNeeded(name: string, parameter: Parameter, count: number): Value {
  return error(`${name} takes one value as its “${parameter.name}”, not a list of ${count}.`);
}

/** All single values of the arguments, lists opened. */
export function* flatten(values: readonly Value[]): Generator<Value> {
  for (const value of values) {
    if (value.type === 'list') yield* flatten(value.items);
    else yield value;
  }
}

/** The type of the first argument. */
export const firstType = (args: readonly Type[]): Type => args[0] ?? UNKNOWN;

/** The type of the items of the first list, or of the first value. */
export const itemType = (args: readonly Type[]): Type => {
  const first = args[0];
  return first?.is === 'list' ? first.of : (first ?? UNKNOWN);
};
