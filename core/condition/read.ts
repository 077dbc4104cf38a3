import { FormulaError, type BinaryOperator, type Expression } from '../formula/ast';
import { parseFormula } from '../formula/parse';
import { printFormula } from '../formula/print';
import type { ComparisonId, Condition, ConditionValue, Joins, Rule, RuleGroup } from './condition';

/** A condition as rows, or why it can only be shown as its formula. */
export type ReadCondition = { condition: Condition; why?: undefined } | { condition?: undefined; why: string };

/** Reads a formula of the shape that rows can show. */
export function readCondition(source: string): ReadCondition {
  try {
    return { condition: conditionOf(parseFormula(source)) };
  } catch (problem) {
    if (problem instanceof NotShown) return { why: problem.message };
    if (problem instanceof FormulaError) return { why: `It cannot be read yet. ${problem.message}` };
    throw problem;
  }
}

/** A list, and which of its items, as a rule has it; undefined for a formula that is none of the kind. */
export function readItems(list: string): Rule | undefined {
  const [found] = readCondition(`COUNT(${list}) > 0`).condition?.rules ?? [];
  return found && 'subject' in found && found.comparison === 'some' ? found : undefined;
}

/** A formula that rows cannot show, with the reason. */
class NotShown extends Error {}

const TOO_DEEP = 'It holds groups within groups; rows have one level of them.';

type Binary = Extract<Expression, { kind: 'binary' }>;
const isChain = (node: Expression, operator: 'and' | 'or'): node is Binary =>
  node.kind === 'binary' && node.operator === operator;
const joinsOf = (node: Expression): Joins | undefined =>
  isChain(node, 'and') ? 'all' : isChain(node, 'or') ? 'any' : undefined;

function conditionOf(node: Expression): Condition {
  if (node.kind === 'boolean' && node.value) return { joins: 'all', rules: [] };
  const joins = joinsOf(node);
  if (!joins) return { joins: 'all', rules: [ruleOf(node)] };
  const rules = membersOf(node, joins, (inner) => {
    const group = groupOf(inner);
    return group.rules.length === 1 ? group.rules[0]! : group;
  });
  return { joins: rules.length === 1 ? 'all' : joins, rules };
}

/** Rules without groups among them; those of the other kind must come to one rule. */
function groupOf(node: Expression): RuleGroup {
  const joins = joinsOf(node);
  if (!joins) return { joins: 'all', rules: [ruleOf(node)] };
  const rules = membersOf(node, joins, (inner) => {
    const { rules: within } = groupOf(inner);
    if (within.length !== 1) throw new NotShown(TOO_DEEP);
    return within[0]!;
  });
  return { joins: rules.length === 1 ? 'all' : joins, rules };
}

/** What a chain of one operator joins: those beside each other that are one rule as one. */
function membersOf<Member extends Rule | RuleGroup>(
  node: Expression,
  joins: Joins,
  nested: (node: Expression) => Member,
): (Rule | Member)[] {
  const found: (Rule | Member)[] = [];
  for (const each of chained(node, joins === 'all' ? 'and' : 'or')) {
    const member = joinsOf(each) ? nested(each) : ruleOf(each);
    const last = found.at(-1);
    const merged = last && 'subject' in last && 'subject' in member ? mergedOf(last, member, joins) : undefined;
    if (merged) found[found.length - 1] = merged;
    else found.push(member);
  }
  return found;
}

function chained(node: Expression, operator: 'and' | 'or'): Expression[] {
  return isChain(node, operator) ? [...chained(node.left, operator), ...chained(node.right, operator)] : [node];
}

/** What two rules about the same come to, joined by all or any. */
const MERGES: Readonly<Record<Joins, Partial<Record<ComparisonId, ComparisonId>>>> = {
  any: { is: 'isOneOf', includes: 'includesAny' },
  all: { isNot: 'isNoneOf', includes: 'includesAll', excludes: 'includesNone' },
};

/** Two neighbours as one rule: two values of one field, or the two ends of a span. */
function mergedOf(one: Rule, other: Rule, joins: Joins): Rule | undefined {
  if (one.subject !== other.subject || one.where || other.where) return undefined;
  const several = MERGES[joins][other.comparison];
  if (several && (one.comparison === other.comparison || one.comparison === several))
    return { ...one, comparison: several, values: [...one.values, ...other.values] };
  if (joins === 'all' && one.comparison === 'atLeast' && other.comparison === 'atMost')
    return spanOf(one.subject, one.values[0]!, other.values[0]!);
  return undefined;
}

function spanOf(subject: string, least: ConditionValue, most: ConditionValue): Rule {
  const number = (days: number): readonly ConditionValue[] => [{ is: 'number', number: String(days) }];
  if (least.is === 'day' && most.is === 'day') {
    if (least.days === 0 && most.days > 0) return { subject, comparison: 'nextDays', values: number(most.days) };
    if (most.days === 0 && least.days < 0) return { subject, comparison: 'lastDays', values: number(-least.days) };
  }
  return { subject, comparison: 'between', values: [least, most] };
}

const COMPARED: Partial<Record<BinaryOperator, ComparisonId>> = {
  '=': 'is', '<>': 'isNot', '>=': 'atLeast', '<=': 'atMost', '>': 'moreThan', '<': 'lessThan',
}; // prettier-ignore

function ruleOf(node: Expression): Rule {
  if (node.kind === 'not') return negated(node.operand);
  if (node.kind === 'binary') return node.operator === 'in' ? includes(node, 'includes') : comparison(node);
  if (isCall(node, 'ISBLANK')) return rule(node.arguments[0]!, 'isBlank');
  if (isCall(node, 'CONTAINS')) return contains(node, 'contains');
  if (node.kind === 'name' || node.kind === 'member') return rule(node, 'holds');
  throw new NotShown(`“${shortened(printFormula(node))}” is no comparison that a row can show.`);
}

function negated(node: Expression): Rule {
  if (isCall(node, 'ISBLANK')) return rule(node.arguments[0]!, 'isGiven');
  if (isCall(node, 'CONTAINS')) return contains(node, 'containsNot');
  if (node.kind === 'binary' && node.operator === 'in') return includes(node, 'excludes');
  if (node.kind === 'name' || node.kind === 'member') return rule(node, 'holdsNot');
  throw new NotShown(`“not” stands before more than a field in “not ${shortened(printFormula(node))}”.`);
}

function includes({ left, right }: Binary, comparison: 'includes' | 'excludes'): Rule {
  return rule(right, comparison, [valueOf(left)]);
}

function contains(node: Call, comparison: 'contains' | 'containsNot'): Rule {
  const [subject, sought] = node.arguments;
  if (!subject || !sought) throw new NotShown('CONTAINS takes a text, and what is sought in it.');
  return rule(subject, comparison, [valueOf(sought)]);
}

function comparison(node: Binary): Rule {
  const compared = COMPARED[node.operator];
  if (!compared) throw new NotShown(`“${shortened(printFormula(node))}” is computed, not compared.`);
  const { left, right } = node;
  return (
    emptiness(left, right, node.operator) ??
    ofList(left, right, node.operator) ??
    rule(left, compared, [valueOf(right)])
  );
}

function emptiness(left: Expression, right: Expression, operator: BinaryOperator): Rule | undefined {
  if (!isCall(left, 'COUNTA') || left.arguments.length !== 1 || !isZero(right)) return undefined;
  if (operator === '=') return rule(left.arguments[0]!, 'isEmpty');
  return operator === '>' ? rule(left.arguments[0]!, 'isNotEmpty') : undefined;
}

/** How many items of a list there are, all or some of them. */
function ofList(left: Expression, right: Expression, operator: BinaryOperator): Rule | undefined {
  if (!isCall(left, 'COUNT') || left.arguments.length !== 1 || right.kind !== 'number') return undefined;
  const [counted] = left.arguments;
  const known = isZero(right)
    ? { '>': 'some', '=': 'none' }
    : { '=': 'countIs', '>=': 'countAtLeast', '<=': 'countAtMost' };
  const comparison = (known as Partial<Record<BinaryOperator, ComparisonId>>)[operator];
  if (!comparison) return undefined;
  const values = isZero(right) ? [] : [valueOf(right)];
  if (counted!.kind !== 'filter') return rule(counted!, comparison, values);
  return { ...rule(counted!.list, comparison, values), where: groupOf(counted!.condition) };
}

type Call = Extract<Expression, { kind: 'call' }>;
const isCall = (node: Expression, name: string): node is Call =>
  node.kind === 'call' && node.name.toUpperCase() === name && node.arguments.length > 0;
const isZero = (node: Expression) => node.kind === 'number' && node.value.isZero();

function rule(subject: Expression, comparison: ComparisonId, values: readonly ConditionValue[] = []): Rule {
  if (isLiteral(subject))
    throw new NotShown(
      `“${shortened(printFormula(subject))}” stands where a field should: a row names its field first.`,
    );
  refuseConditions(subject);
  return { subject: printFormula(subject), comparison, values };
}

const isLiteral = (node: Expression) => ['number', 'percent', 'text', 'boolean'].includes(node.kind);

/** What is compared is a value: nothing is decided in it. */
function refuseConditions(node: Expression): void {
  if (
    joinsOf(node) ||
    node.kind === 'not' ||
    (node.kind === 'binary' && (COMPARED[node.operator] ?? node.operator === 'in'))
  )
    throw new NotShown(`A comparison is compared in “${shortened(printFormula(node))}”.`);
}

function valueOf(node: Expression): ConditionValue {
  if (node.kind === 'text') return { is: 'text', text: node.value };
  const [sign, plain] = node.kind === 'negative' ? ['-', node.operand] : ['', node];
  if (plain.kind === 'percent') return { is: 'percent', number: sign + plain.value.shifted(2).toFixed() };
  const number = numberOf(node);
  if (number !== undefined) return { is: 'number', number };
  return moneyOf(node) ?? dateOf(node) ?? dayOf(node) ?? { is: 'formula', formula: asOperand(node) };
}

function asOperand(node: Expression): string {
  refuseConditions(node);
  return printFormula(node);
}

function numberOf(node: Expression | undefined): string | undefined {
  if (node?.kind === 'number') return node.value.toFixed();
  return node?.kind === 'negative' && node.operand.kind === 'number' ? `-${node.operand.value.toFixed()}` : undefined;
}

function moneyOf(node: Expression): ConditionValue | undefined {
  if (!isCall(node, 'AMOUNT')) return undefined;
  const [amount, currency] = node.arguments;
  const number = numberOf(amount);
  return number !== undefined && currency?.kind === 'text'
    ? { is: 'money', number, currency: currency.value }
    : undefined;
}

function dateOf(node: Expression): ConditionValue | undefined {
  if (!isCall(node, 'DATE') || node.arguments.length !== 3) return undefined;
  const parts = node.arguments.map((each) => (each.kind === 'number' ? each.value.toFixed() : ''));
  const [year, month, day] = parts;
  const date = `${year!.padStart(4, '0')}-${month!.padStart(2, '0')}-${day!.padStart(2, '0')}`;
  const isDay = /^\d{4}-\d\d-\d\d$/.test(date) && new Date(`${date}T00:00:00Z`).toJSON()?.startsWith(date);
  return isDay ? { is: 'date', date } : undefined;
}

function dayOf(node: Expression): ConditionValue | undefined {
  if (isToday(node)) return { is: 'day', days: 0 };
  if (node.kind !== 'binary' || !isToday(node.left) || !['+', '-'].includes(node.operator)) return undefined;
  const number = node.right.kind === 'number' && node.right.value.isInteger() ? node.right.value.toNumber() : 0;
  return number > 0 ? { is: 'day', days: node.operator === '-' ? -number : number } : undefined;
}

const isToday = (node: Expression) =>
  node.kind === 'call' && node.name.toUpperCase() === 'TODAY' && node.arguments.length === 0;

const shortened = (text: string) => (text.length > 60 ? `${text.slice(0, 59)}…` : text);
