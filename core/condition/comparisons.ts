import type { ComparisonId, ConditionValue, Rule } from './condition';
import type { Subject, SubjectKind } from './subjects';

/** What a comparison is compared with: `days` and `count` are whole numbers. */
export type Takes = 'nothing' | 'one' | 'two' | 'several' | 'days' | 'count';

/** A way to compare, as a form offers it. */
export interface Comparison {
  id: ComparisonId;
  label: string;
  takes: Takes;
}

const as = (id: ComparisonId, label: string, takes: Takes = 'one'): Comparison => ({ id, label, takes });

const THERE = [as('isGiven', 'is filled in', 'nothing'), as('isBlank', 'is blank', 'nothing')];
const EQUAL = [as('is', 'is'), as('isNot', 'is not')];
const AMOUNTS = [
  as('atLeast', 'is at least'),
  as('atMost', 'is at most'),
  as('moreThan', 'is more than'),
  as('lessThan', 'is less than'),
  as('between', 'is between', 'two'),
  ...EQUAL,
  ...THERE,
];

/** The comparisons that fit each kind, the usual one first. */
const BY_KIND: Readonly<Record<SubjectKind, readonly Comparison[]>> = {
  text: [
    as('is', 'is'),
    as('isNot', 'is not'),
    as('isOneOf', 'is one of', 'several'),
    as('isNoneOf', 'is none of', 'several'),
    as('contains', 'contains'),
    as('containsNot', 'does not contain'),
    ...THERE,
  ],
  number: AMOUNTS,
  percent: AMOUNTS,
  money: AMOUNTS,
  date: [
    as('nextDays', 'is within the next', 'days'),
    as('lastDays', 'is within the last', 'days'),
    as('atLeast', 'is on or after'),
    as('atMost', 'is on or before'),
    as('moreThan', 'is after'),
    as('lessThan', 'is before'),
    as('between', 'is between', 'two'),
    as('is', 'is on'),
    ...THERE,
  ],
  moment: THERE,
  yesNo: [as('holds', 'is yes', 'nothing'), as('holdsNot', 'is no', 'nothing')],
  texts: [
    as('includes', 'includes'),
    as('excludes', 'does not include'),
    as('includesAny', 'includes any of', 'several'),
    as('includesAll', 'includes all of', 'several'),
    as('includesNone', 'includes none of', 'several'),
    as('isNotEmpty', 'is filled in', 'nothing'),
    as('isEmpty', 'is blank', 'nothing'),
  ],
  records: [
    as('some', 'has any', 'nothing'),
    as('none', 'has none', 'nothing'),
    as('countAtLeast', 'has at least', 'count'),
    as('countAtMost', 'has at most', 'count'),
    as('countIs', 'has exactly', 'count'),
  ],
  other: THERE,
};

/** The comparisons that fit a subject; one that a formula brought along is among them. */
export function comparisonsFor({ kind }: Pick<Subject, 'kind'>, current?: ComparisonId): readonly Comparison[] {
  const fitting = BY_KIND[kind];
  if (current === undefined || fitting.some(({ id }) => id === current)) return fitting;
  const known = Object.values(BY_KIND)
    .flat()
    .find(({ id }) => id === current);
  return known ? [...fitting, known] : fitting;
}

const INITIAL: Readonly<Record<SubjectKind, ConditionValue>> = {
  text: { is: 'text', text: '' },
  texts: { is: 'text', text: '' },
  number: { is: 'number', number: '0' },
  money: { is: 'number', number: '0' },
  percent: { is: 'percent', number: '0' },
  date: { is: 'day', days: 0 },
  moment: { is: 'day', days: 0 },
  yesNo: { is: 'formula', formula: 'true' },
  records: { is: 'number', number: '1' },
  other: { is: 'text', text: '' },
};

/** The value that a row begins with: the first choice where there are some. */
export function firstValue({ kind, choices }: Subject): ConditionValue {
  const [first] = choices ?? [];
  return first ? { is: 'text', text: first.value } : INITIAL[kind];
}

/** A new row about a subject. */
export function ruleAbout(subject: Subject): Rule {
  return comparedBy({ subject: subject.formula, comparison: 'is', values: [] }, subject, BY_KIND[subject.kind][0]!);
}

/** The same row with another comparison: its values stay as far as they fit. */
export function comparedBy(rule: Rule, subject: Subject, { id, takes }: Comparison): Rule {
  const before = comparisonsFor(subject, rule.comparison).find((each) => each.id === rule.comparison)?.takes;
  const isWhole = (each: Takes | undefined) => each === 'days' || each === 'count';
  const kept = isWhole(before) === isWhole(takes) ? rule.values : [];
  const { where, ...rest } = rule;
  return {
    ...rest,
    comparison: id,
    values: fitting(kept, subject, takes),
    ...(where && subject.kind === 'records' && { where }),
  };
}

/** As many values as a comparison takes. */
function fitting(values: readonly ConditionValue[], subject: Subject, takes: Takes): readonly ConditionValue[] {
  const first = values[0] ?? firstValue(subject);
  switch (takes) {
    case 'nothing':
      return [];
    case 'one':
      return [first];
    case 'two':
      return [first, values[1] ?? first];
    case 'several':
      return values.length > 0 ? values : [first];
    case 'days':
      return [values[0] ?? { is: 'number', number: '30' }];
    case 'count':
      return [values[0] ?? { is: 'number', number: '1' }];
  }
}
