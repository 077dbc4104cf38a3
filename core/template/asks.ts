/** What a template asks for with each document: values that no record has, such as the days that fitting takes. */
import { dayOf, isoOf } from '../formula/date';
import { BOOLEAN, DATE, NUMBER, PERCENT, TEXT, typeInWords, type Type } from '../formula/type';
import { boolean as yesOrNo, percent, text as textValue, type BlankValue, type Value } from '../formula/value';
import { Decimal } from '../money/decimal';
import type { FieldSchema } from '../record/schema';
import type { FieldValue } from '../record/snapshot';
import { memberPath, parsePath } from '../record/value-path';
import type { Fault } from '../shape/faults';
import type { Checker } from '../sheet/check';
import { boolean, formula, formulaName, label, listOf, oneOf, shape, text, type InferType } from '../shape/shape';

/** The root by which formulas name what is asked for: `ask.fitting_days`. */
export const ASK = 'ask';

export const ASK_TYPES = ['text', 'number', 'percent', 'date', 'boolean', 'choice'] as const;

export const ask = shape({
  name: formulaName(),
  label: label(),
  type: oneOf(ASK_TYPES).required(),
  /** The values of a choice. */
  allowed: listOf(text(100).min(1).required(), 100),
  /** What it is where nobody says otherwise, from the record and its figures. */
  default: formula(),
  /** Whether a document may be filed without it. */
  optional: boolean(),
}).required();
export type Ask = InferType<typeof ask>;

/** What is asked for, as the field that it is typed into. */
export const askField = ({ name, label: called, type, allowed }: Ask): FieldSchema => ({
  name,
  label: called,
  type,
  nullable: true,
  readonly: false,
  ...(type === 'choice' && { allowed: (allowed ?? []).map((value) => ({ value, label: value })) }),
});

/** The name of what a value path is about, where that is asked for. */
export function askNamed(path: string): string | undefined {
  const parsed = parsePath(path);
  if (!parsed || !('root' in parsed) || parsed.root !== ASK || parsed.steps.length !== 1) return undefined;
  return parsed.steps[0]!.name;
}

/** The types of what is asked for, by name. */
export const askTypes = (asks: readonly Ask[] = []): Record<string, Type> =>
  Object.fromEntries(asks.map((each) => [each.name, typeOf(each)]));

function typeOf({ type, allowed }: Ask): Type {
  switch (type) {
    case 'number':
      return NUMBER;
    case 'percent':
      return PERCENT;
    case 'date':
      return DATE;
    case 'boolean':
      return BOOLEAN;
    case 'choice':
      return { is: 'text', allowed: [...(allowed ?? [])] };
    default:
      return TEXT;
  }
}

/** Something that is asked for, with what is said: a blank where nothing is. */
export interface Answer {
  ask: Ask;
  value: FieldValue;
  /** Whether somebody said so for this document; else it is what the template says. */
  given: boolean;
}

/** The values by which formulas read what is asked for; blanks, where there are no answers. */
export const askRoot = (asks: readonly Ask[] = [], answers: readonly Answer[] = []): Record<string, Value> =>
  Object.fromEntries(
    asks.map((each) => [
      each.name,
      valueOf(each, answers.find(({ ask: its }) => its.name === each.name)?.value ?? null),
    ]),
  );

function valueOf({ name, label: called }: Ask, value: FieldValue): Value {
  const blank: BlankValue = {
    type: 'blank',
    cause: `no ${called.toLowerCase()}`,
    lacks: called.toLowerCase(),
    path: memberPath(ASK, name),
  };
  if (value === null || value === '') return blank;
  if (typeof value === 'string') return textValue(value);
  if (typeof value === 'boolean') return yesOrNo(value);
  if ('number' in value) return { type: 'number', value: Decimal.of(value.number) };
  if ('percent' in value) return percent(Decimal.of(value.percent));
  const day = 'date' in value ? dayOf(value.date) : undefined;
  return day === undefined ? blank : { type: 'date', day };
}

/** What a template's default comes to, as it would be typed; a blank for what is no such value. */
export function defaultAnswer({ type, allowed = [] }: Ask, value: Value): FieldValue {
  switch (value.type) {
    case 'text':
      return type === 'text' || (type === 'choice' && allowed.includes(value.value)) ? value.value : null;
    case 'number':
      return type === 'number' ? { number: value.value.toFixed() } : null;
    case 'percent':
      return type === 'percent' ? { percent: value.value.toFixed() } : null;
    case 'boolean':
      return type === 'boolean' ? value.value : null;
    case 'date':
      return type === 'date' ? { date: isoOf(value.day) } : null;
    default:
      return null;
  }
}

/** What of a template's asks can never be said: a choice among nothing, or what is usual and is of another kind. */
export function* askFaults(asks: readonly Ask[] = [], checker: Checker): Generator<Fault> {
  for (const each of asks) {
    const { name, label: called, type, allowed = [], default: usual } = each;
    if (type === 'choice' && allowed.length === 0)
      yield { path: name, sentence: `“${called}” is chosen among nothing. Say what it may be.` };
    const given = usual === undefined ? undefined : checker.formula(usual).type;
    const wanted = typeOf(each);
    if (given && given.is !== 'unknown' && given.is !== wanted.is)
      yield {
        path: name,
        sentence: `“${called}” is ${typeInWords(wanted)}, but what it usually is gives ${typeInWords(given)}. Change the formula or the kind.`,
      };
  }
}
