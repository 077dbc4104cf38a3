import { own } from '../record/own';

/** What a formula gives, known without any data. */
export type Type =
  | { is: 'number'; /** A literal zero, which stands for a zero of any currency. */ zero?: boolean }
  | { is: 'percent' | 'money' | 'boolean' | 'date' | 'datetime' | 'rich' | 'image' }
  /** `allowed`: the only values a field with choices can hold. */
  | { is: 'text'; allowed?: readonly string[] }
  | { is: 'record'; shape: Shape }
  | { is: 'list'; of: Type }
  /** Not known because something is wrong already: nothing more is said about it. */
  | { is: 'unknown' };

/** The names that a record or an item has, with their types. */
export interface Shape {
  /** What people call it: "deal", "line item", "tax row". */
  label: string;
  /** The record type it is, where it is a record of the CRM. */
  recordType?: string;
  /** The list whose figures it has. */
  list?: string;
  /** Where its records are found: paths of field names from the document's record on, none where it is no record of the CRM. */
  places?: readonly (readonly string[])[];
  names(): Iterable<string>;
  type(name: string): Type | undefined;
  /** What people call the value of that name. */
  labelOf(name: string): string;
}

export const NUMBER: Type = { is: 'number' };
export const PERCENT: Type = { is: 'percent' };
export const MONEY: Type = { is: 'money' };
export const TEXT: Type = { is: 'text' };
export const BOOLEAN: Type = { is: 'boolean' };
export const DATE: Type = { is: 'date' };
export const DATETIME: Type = { is: 'datetime' };
export const RICH: Type = { is: 'rich' };
export const IMAGE: Type = { is: 'image' };
export const UNKNOWN: Type = { is: 'unknown' };
export const listOf = (of: Type): Type => ({ is: 'list', of });

const WORDS: Readonly<Record<Type['is'], string>> = {
  number: 'a number', percent: 'a percentage', money: 'money', text: 'a text', boolean: 'yes or no', date: 'a date',
  datetime: 'a date and time', record: 'a record', list: 'a list', unknown: 'unknown',
  rich: 'a formatted text', image: 'a picture',
}; // prettier-ignore

const PLURALS: Readonly<Record<Type['is'], string>> = {
  number: 'numbers', percent: 'percentages', money: 'amounts', text: 'texts', boolean: 'yes or no', date: 'dates',
  datetime: 'dates and times', record: 'records', list: 'lists', unknown: 'values',
  rich: 'formatted texts', image: 'pictures',
}; // prettier-ignore

/** A type in words, with its article: "a list of amounts". */
export function typeInWords(type: Type): string {
  if (type.is === 'list')
    return type.of.is === 'record' ? `a list of ${type.of.shape.label}s` : `a list of ${PLURALS[type.of.is]}`;
  return WORDS[type.is];
}

/** The type that covers both, as the two branches of a condition give it; unknown where they have nothing in common. */
export function commonType(one: Type, other: Type): Type | undefined {
  if (one.is === 'unknown' || other.is === 'unknown') return UNKNOWN;
  if (one.is === 'number' && one.zero && (other.is === 'money' || other.is === 'percent')) return other;
  if (other.is === 'number' && other.zero && (one.is === 'money' || one.is === 'percent')) return one;
  if (isNumeric(one) && isNumeric(other)) return one.is === 'percent' && other.is === 'percent' ? PERCENT : NUMBER;
  if (one.is === 'list' && other.is === 'list') {
    const of = commonType(one.of, other.of);
    return of && listOf(of);
  }
  if (one.is === 'text' && other.is === 'text') return TEXT;
  if (one.is === 'record' && other.is === 'record') return { is: 'record', shape: eitherShape(one.shape, other.shape) };
  return one.is === other.is ? (one as Type) : undefined;
}

/** The shape of a record that is of the one shape or of the other: the names that both have. */
function eitherShape(one: Shape, other: Shape): Shape {
  if (one === other) return one;
  return {
    label: one.label,
    ...(one.recordType === other.recordType && { recordType: one.recordType }),
    ...(one.list === other.list && { list: one.list }),
    places: [...(one.places ?? []), ...(other.places ?? [])],
    names: () => [...one.names()].filter((name) => other.type(name) !== undefined),
    type(name) {
      const [first, second] = [one.type(name), other.type(name)];
      return first && second && commonType(first, second);
    },
    labelOf: (name) => one.labelOf(name),
  };
}

/** Whether values of a type are plain numbers or percentages. Money is not: it has a currency. */
export function isNumeric(type: Type): boolean {
  return type.is === 'number' || type.is === 'percent';
}

/** A shape from plain names and types. */
export function shapeOf(label: string, types: Readonly<Record<string, Type>>, list?: string): Shape {
  return {
    label,
    list,
    names: () => Object.keys(types),
    type: (name) => own(types, name),
    labelOf: (name) => name.replaceAll('_', ' '),
  };
}
