import { dayOf } from '../formula/date';
import { number, percent, formatValue } from '../formula/value';
import type { Shape } from '../formula/type';
import { Decimal } from '../money/decimal';
import { INTERFACE_LOCALE } from '../words/interface';
import type { ComparisonId, ConditionValue, Joins, Rule, RuleGroup } from './condition';
import { readCondition, readItems } from './read';
import type { Named, Subjects } from './subjects';

/**
 * A condition in words, to go on after "when": "the heating is pipe or floor". Its formula where rows cannot show it; nothing at all
 * where it always holds.
 */
export function conditionSentence(source: string, subjects: Subjects, item?: Shape): string {
  const { condition } = readCondition(source);
  if (!condition) return source.trim();
  if (condition.rules.length === 0) return '';
  return new Sentences(subjects, item).joined(condition.joins, condition.rules, true);
}

/** The items of a list in words, to go on after "for each": "line item that is not optional". */
export function itemSentence(list: string, subjects: Subjects, outer?: Shape): string {
  const rule = readItems(list);
  if (!rule) return `item of ${list.trim()}`;
  return new Sentences(subjects, outer).items(rule, 'one');
}

const LISTS = {
  all: new Intl.ListFormat(INTERFACE_LOCALE, { type: 'conjunction' }),
  any: new Intl.ListFormat(INTERFACE_LOCALE, { type: 'disjunction' }),
} as const;

/** What stands between a subject and its value. */
const VERBS: Partial<Record<ComparisonId, string>> = {
  is: 'is', isNot: 'is not', isOneOf: 'is', isNoneOf: 'is none of', atLeast: 'is at least', atMost: 'is at most',
  moreThan: 'is more than', lessThan: 'is less than', isBlank: 'is blank', isGiven: 'is filled in', contains: 'contains',
  containsNot: 'does not contain', isEmpty: 'is blank', isNotEmpty: 'is filled in', includes: 'includes',
  excludes: 'does not include', includesAny: 'includes', includesAll: 'includes', includesNone: 'includes none of',
}; // prettier-ignore

const DATE_VERBS: Partial<Record<ComparisonId, string>> = {
  is: 'is', atLeast: 'is on or after', atMost: 'is on or before', moreThan: 'is after', lessThan: 'is before',
}; // prettier-ignore

class Sentences {
  constructor(
    readonly subjects: Subjects,
    readonly item: Shape | undefined,
  ) {}

  joined(joins: Joins, rules: readonly (Rule | RuleGroup)[], isOutermost = false): string {
    const parts = rules.map((each) => ('subject' in each ? this.rule(each) : this.joined(each.joins, each.rules)));
    const words = LISTS[joins].format(parts);
    if (isOutermost || parts.length === 1) return words;
    return `${joins === 'any' ? 'either' : 'both'} ${words}`;
  }

  rule(rule: Rule): string {
    const named = this.subjects.named(rule.subject, this.item);
    const { comparison, values } = rule;
    const isNo = comparison === 'holdsNot';
    if (isNo || comparison === 'holds')
      return named.owner
        ? `${named.owner} is ${isNo ? 'not ' : ''}${named.bare}`
        : `the ${named.bare} is ${isNo ? 'no' : 'yes'}`;
    if (comparison === 'some') return `there is ${article(this.items(rule, 'one'))}`;
    if (comparison === 'none') return `there is no ${this.items(rule, 'one')}`;
    if (COUNTS[comparison]) {
      const [value] = values;
      const isOne = value?.is === 'number' && value.number === '1';
      return `there ${isOne ? 'is' : 'are'} ${COUNTS[comparison]} ${this.#values(rule, named)} ${this.items(rule, isOne ? 'one' : 'many')}`;
    }
    return `the ${named.bare} ${this.#predicate(rule, named)}`;
  }

  /** Items of a list, with what they have to be. */
  items({ subject, where }: Rule, count: 'one' | 'many'): string {
    const { item, bare } = this.subjects.named(subject, this.item);
    const words = item?.[count] ?? `item of the ${bare}`;
    if (!where || where.rules.length === 0) return words;
    const within = new Sentences(this.subjects, this.subjects.checker.itemOf(subject, this.item));
    return `${words} ${LISTS[where.joins].format(where.rules.map((rule) => within.#relative(rule, count === 'one' ? 'is' : 'are')))}`;
  }

  /** A rule about an item, said after it: "that is optional", "whose quantity is at least 3". */
  #relative(rule: Rule, is: 'is' | 'are'): string {
    const named = this.subjects.named(rule.subject, this.item);
    if (rule.comparison === 'holds') return `that ${is} ${named.bare}`;
    if (rule.comparison === 'holdsNot') return `that ${is} not ${named.bare}`;
    return `whose ${named.bare} ${this.#predicate(rule, named)}`;
  }

  #predicate(rule: Rule, named: Named): string {
    const { comparison, values } = rule;
    if (comparison === 'between')
      return `is between ${LISTS.all.format(values.map((value) => this.#value(value, named)))}`;
    if (comparison === 'nextDays') return `is within the next ${this.#values(rule, named)} days`;
    if (comparison === 'lastDays') return `is within the last ${this.#values(rule, named)} days`;
    const isDate = values[0]?.is === 'date' || values[0]?.is === 'day';
    if (comparison === 'isNoneOf' && values.length === 2)
      return `is neither ${values.map((value) => this.#value(value, named)).join(' nor ')}`;
    const verb = (isDate && DATE_VERBS[comparison]) || VERBS[comparison]!;
    const fitting = isPlural(named) ? verb.replace('includes', 'include').replace('does', 'do') : verb;
    return values.length === 0 ? fitting : `${fitting} ${this.#values(rule, named)}`;
  }

  #values({ comparison, values }: Rule, named: Named): string {
    const joins = comparison === 'includesAll' ? 'all' : 'any';
    return LISTS[joins].format(values.map((value) => this.#value(value, named)));
  }

  #value(value: ConditionValue, { field }: Named): string {
    switch (value.is) {
      case 'text': {
        const choice = this.subjects.choicesOf(field)?.find((each) => each.value === value.text);
        return choice?.label ?? `“${value.text}”`;
      }
      case 'number':
        return formatValue(number(Decimal.of(value.number)), INTERFACE_LOCALE);
      case 'percent':
        return formatValue(percent(Decimal.of(value.number).shifted(-2)), INTERFACE_LOCALE);
      case 'money':
        return `${formatValue(number(Decimal.of(value.number)), INTERFACE_LOCALE)} ${value.currency}`;
      case 'date':
        return formatValue({ type: 'date', day: dayOf(value.date)! }, INTERFACE_LOCALE);
      case 'day':
        if (value.days === 0) return 'today';
        return value.days > 0 ? `in ${value.days} days` : `${-value.days} days ago`;
      case 'formula':
        return `the ${this.subjects.named(value.formula, this.item).bare}`;
    }
  }
}

const COUNTS: Partial<Record<ComparisonId, string>> = {
  countIs: 'exactly', countAtLeast: 'at least', countAtMost: 'at most',
}; // prettier-ignore

/** Whether what has several values is named by a plural: "site works". */
const isPlural = ({ bare }: Named) => /[^s]s$/.test(bare);

const article = (words: string) => `${/^[aeiou]/i.test(words) ? 'an' : 'a'} ${words}`;
