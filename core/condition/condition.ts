import { parseFormula } from '../formula/parse';
import { printFormula } from '../formula/print';

/** A condition as rows of a form show it: rules that must hold all, or any of them; one level of groups among them. None: it always holds. */
export interface Condition {
  joins: Joins;
  rules: readonly (Rule | RuleGroup)[];
}

export type Joins = 'all' | 'any';

/** Rules that count as one. */
export interface RuleGroup {
  joins: Joins;
  rules: readonly Rule[];
}

/** One row: what is looked at, how it is compared, and with what. */
export interface Rule {
  /** The formula of what is looked at: a field, a figure, a list. */
  subject: string;
  comparison: ComparisonId;
  values: readonly ConditionValue[];
  /** Of a list: which of its items count; all of them where it is absent. */
  where?: RuleGroup;
}

export type ConditionValue =
  | { is: 'text'; text: string }
  /** A decimal number; beside money it counts in the money's own currency. */
  | { is: 'number'; number: string }
  /** 12.5 for 12.5 %. */
  | { is: 'percent'; number: string }
  | { is: 'money'; number: string; currency: string }
  /** ISO 8601. */
  | { is: 'date'; date: string }
  /** Days from today on; negative before it. */
  | { is: 'day'; days: number }
  /** Another field or figure. */
  | { is: 'formula'; formula: string };

/** How a rule writes its formula; `loose`: the operator that joins its parts, which needs brackets beside the other one. */
interface Form {
  write: (subject: string, values: readonly string[]) => string;
  loose?: 'and' | 'or';
}

const chain = (word: 'and' | 'or', each: (subject: string, value: string) => string): Form => ({
  write: (subject, values) => values.map((value) => each(subject, value)).join(` ${word} `),
  loose: word,
});
const between = (write: Form['write']): Form => ({ write, loose: 'and' });
const form = (write: Form['write']): Form => ({ write });
const compared = (operator: string): Form => form((subject, [value]) => `${subject} ${operator} ${value}`);
const counted = (operator: string): Form => form((list, [value]) => `COUNT(${list}) ${operator} ${value}`);

/** Every way to compare, with the formula that a person would write for it. */
const FORMS = {
  is: compared('='),
  isNot: compared('<>'),
  isOneOf: chain('or', (subject, value) => `${subject} = ${value}`),
  isNoneOf: chain('and', (subject, value) => `${subject} <> ${value}`),
  atLeast: compared('>='),
  atMost: compared('<='),
  moreThan: compared('>'),
  lessThan: compared('<'),
  between: between((subject, [least, most]) => `${subject} >= ${least} and ${subject} <= ${most}`),
  nextDays: between((subject, [days]) => `${subject} >= TODAY() and ${subject} <= TODAY() + ${days}`),
  lastDays: between((subject, [days]) => `${subject} >= TODAY() - ${days} and ${subject} <= TODAY()`),
  holds: form((subject) => subject),
  holdsNot: form((subject) => `not ${subject}`),
  isBlank: form((subject) => `ISBLANK(${subject})`),
  isGiven: form((subject) => `not ISBLANK(${subject})`),
  contains: form((subject, [value]) => `CONTAINS(${subject}, ${value})`),
  containsNot: form((subject, [value]) => `not CONTAINS(${subject}, ${value})`),
  includes: form((subject, [value]) => `${value} in ${subject}`),
  excludes: form((subject, [value]) => `not ${value} in ${subject}`),
  includesAny: chain('or', (subject, value) => `${value} in ${subject}`),
  includesAll: chain('and', (subject, value) => `${value} in ${subject}`),
  includesNone: chain('and', (subject, value) => `not ${value} in ${subject}`),
  isEmpty: form((subject) => `COUNTA(${subject}) = 0`),
  isNotEmpty: form((subject) => `COUNTA(${subject}) > 0`),
  some: form((list) => `COUNT(${list}) > 0`),
  none: form((list) => `COUNT(${list}) = 0`),
  countIs: counted('='),
  countAtLeast: counted('>='),
  countAtMost: counted('<='),
} as const satisfies Record<string, Form>;

export type ComparisonId = keyof typeof FORMS;

const WORD: Readonly<Record<Joins, 'and' | 'or'>> = { all: 'and', any: 'or' };

/** The formula of a condition, as a person would write it. */
export function writeCondition({ joins, rules }: Condition): string {
  if (rules.length === 0) return 'true';
  return printFormula(parseFormula(written(joins, rules)));
}

function written(joins: Joins, rules: readonly (Rule | RuleGroup)[]): string {
  const word = WORD[joins];
  const parts = rules.map((each) => {
    const isRule = 'subject' in each;
    const text = isRule ? writtenRule(each) : written(each.joins, each.rules);
    // What is joined by the same word needs no brackets.
    const operator = isRule ? (FORMS as Readonly<Record<ComparisonId, Form>>)[each.comparison].loose : WORD[each.joins];
    return operator === undefined || operator === word ? text : `(${text})`;
  });
  return parts.join(` ${word} `);
}

function writtenRule({ subject, comparison, values, where }: Rule): string {
  const list = where && where.rules.length > 0 ? `${subject}[${written(where.joins, where.rules)}]` : subject;
  return FORMS[comparison].write(list, values.map(writtenValue));
}

function writtenValue(value: ConditionValue): string {
  switch (value.is) {
    case 'text':
      return `"${value.text.replaceAll('"', '""')}"`;
    case 'number':
      return value.number;
    case 'percent':
      return `${value.number}%`;
    case 'money':
      return `AMOUNT(${value.number}, "${value.currency}")`;
    case 'date':
      return `DATE(${value.date.split('-').map(Number).join(', ')})`;
    case 'day':
      return value.days === 0 ? 'TODAY()' : `TODAY() ${value.days < 0 ? '-' : '+'} ${Math.abs(value.days)}`;
    case 'formula':
      return value.formula;
  }
}
