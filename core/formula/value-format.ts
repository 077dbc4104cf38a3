import type { Type } from './type';

/** How values of a kind may look besides their usual look, which is not said. The skeletons of dates are those of CLDR. */
const LOOKS = {
  money: ['plain', 'code-first', 'symbol'],
  number: ['decimals-0', 'decimals-1', 'decimals-2', 'decimals-3'],
  date: ['short-date', 'yMd', 'MMMMd', 'yMMMM', 'yMMMMEEEEd', 'y'],
  boolean: ['mark'],
  list: ['or', 'lines'],
} as const;

/** `full` and `long-date` are the usual looks by name. */
export const VALUE_FORMATS = [
  'full',
  'long-date',
  ...LOOKS.money,
  ...LOOKS.number,
  ...LOOKS.date,
  ...LOOKS.boolean,
  ...LOOKS.list,
] as const;
export type ValueFormat = (typeof VALUE_FORMATS)[number];

/** Formats of what stands in a column of numbers: none that rounds, since the printed numbers add up. */
export const COLUMN_FORMATS = [
  'full',
  'long-date',
  ...LOOKS.money,
  ...LOOKS.date,
  ...LOOKS.boolean,
  ...LOOKS.list,
] as const;

/** The formats that a value of a type may have, the usual one as undefined first. */
export function formatsOf(type: Type): readonly (ValueFormat | undefined)[] {
  switch (type.is) {
    case 'money':
    case 'date':
    case 'boolean':
      return [undefined, ...LOOKS[type.is]];
    case 'number':
    case 'percent':
      return [undefined, ...LOOKS.number];
    case 'list':
      return [undefined, ...LOOKS.list];
    default:
      return [undefined];
  }
}

/** The decimals that a format prints; undefined where it prints as many as a value has. */
export function decimalsOf(format: ValueFormat | undefined): number | undefined {
  const [, digits] = /^decimals-(\d)$/.exec(format ?? '') ?? [];
  return digits === undefined ? undefined : Number(digits);
}

/** Dates by their skeletons (CLDR, UTS 35: letters for fields, their number for how they are written). */
export const DATE_SKELETONS: Readonly<Partial<Record<ValueFormat, Intl.DateTimeFormatOptions>>> = {
  yMd: { year: 'numeric', month: 'numeric', day: 'numeric' },
  MMMMd: { month: 'long', day: 'numeric' },
  yMMMM: { year: 'numeric', month: 'long' },
  yMMMMEEEEd: { year: 'numeric', month: 'long', day: 'numeric', weekday: 'long' },
  y: { year: 'numeric' },
};
