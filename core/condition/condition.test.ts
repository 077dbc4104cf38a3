import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoSchema } from '../../tests/demo-snapshot';
import { propertyRuns } from '../../tests/property-runs';
import { shipped } from '../../demo/shipped';
import { parseFormula } from '../formula/parse';
import { printFormula } from '../formula/print';
import { Checker } from '../sheet/check';
import { checkContext } from '../template/check';
import { placedFormulas } from '../template/formulas';
import {
  writeCondition,
  type ComparisonId,
  type Condition,
  type ConditionValue,
  type Rule,
  type RuleGroup,
} from './condition';
import { readCondition } from './read';
import { conditionSentence, itemSentence } from './sentence';
import { Subjects } from './subjects';

const quote = shipped.templates.find(({ id }) => id === 'glasshouse-quote')!;
const subjects = new Subjects(new Checker(checkContext(quote, demoSchema, shipped.houseStyles)));
const rulesOf = (formula: string) => readCondition(formula).condition;

describe('reading a formula as rows', () => {
  it.each<[string, Partial<Condition>]>([
    ['true', { rules: [] }],
    [
      'deal.heating = "pipe"',
      { joins: 'all', rules: [{ subject: 'deal.heating', comparison: 'is', values: [{ is: 'text', text: 'pipe' }] }] },
    ],
    [
      'deal.heating = "pipe" or deal.heating = "floor"',
      {
        joins: 'all',
        rules: [
          {
            subject: 'deal.heating',
            comparison: 'isOneOf',
            values: [
              { is: 'text', text: 'pipe' },
              { is: 'text', text: 'floor' },
            ],
          },
        ],
      },
    ],
    [
      'deal.amount >= AMOUNT(10000, "GBP")',
      {
        rules: [
          {
            subject: 'deal.amount',
            comparison: 'atLeast',
            values: [{ is: 'money', number: '10000', currency: 'GBP' }],
          },
        ],
      },
    ],
    [
      'deal.closes >= TODAY() and deal.closes <= TODAY() + 30',
      { rules: [{ subject: 'deal.closes', comparison: 'nextDays', values: [{ is: 'number', number: '30' }] }] },
    ],
    [
      'not "crane" in deal.site_works',
      { rules: [{ subject: 'deal.site_works', comparison: 'excludes', values: [{ is: 'text', text: 'crane' }] }] },
    ],
    [
      'COUNT(lines[not optional]) <= 60',
      {
        rules: [
          {
            subject: 'lines',
            comparison: 'countAtMost',
            values: [{ is: 'number', number: '60' }],
            where: { joins: 'all', rules: [{ subject: 'optional', comparison: 'holdsNot', values: [] }] },
          },
        ],
      },
    ],
  ])('%s', (formula, wanted) => expect(rulesOf(formula)).toMatchObject(wanted));

  it('shows groups where rules are joined otherwise', () => {
    const found = rulesOf('"electrics" in deal.site_works and (deal.amount >= 10000 or deal.account.country <> "GB")')!;
    expect(found.joins).toBe('all');
    expect(found.rules[1]).toMatchObject({ joins: 'any', rules: [{ comparison: 'atLeast' }, { comparison: 'isNot' }] });
  });

  it.each([
    ['IF(deal.rush, total > 3, total > 4)', 'IF'],
    ['not (total > 3)', 'not'],
    ['total > 1 and (total > 2 or total > 3 and deal.rush)', 'groups within groups'],
    ['(total > 1) = (total > 2)', 'compared'],
    ['10 < total', 'names its field first'],
    ['total >', 'cannot be read yet'],
  ])('says why it cannot show %s', (formula, words) => expect(readCondition(formula).why).toContain(words));

  it('gives every condition of the shipped templates back as it is, or leaves it', () => {
    const conditions = shipped.templates.flatMap((template) => placedFormulas(template)).map(({ formula }) => formula);
    let shown = 0;
    for (const formula of conditions) {
      const { condition } = readCondition(formula);
      if (!condition) continue;
      shown++;
      expect(writeCondition(condition)).toBe(printFormula(parseFormula(formula)));
    }
    expect(shown).toBeGreaterThan(60);
  });
});

const text = fc
  .constantFrom('pipe', 'floor', 'a "quoted" one', '', 'é')
  .map((each): ConditionValue => ({ is: 'text', text: each }));
const integer = fc.integer({ min: -5_000, max: 5_000 });
const ordered = fc.oneof(
  integer.map((each): ConditionValue => ({ is: 'number', number: String(each) })),
  fc.constantFrom('0.5', '12.5', '-3', '100').map((each): ConditionValue => ({ is: 'percent', number: each })),
  integer.map((each): ConditionValue => ({ is: 'money', number: String(each), currency: 'EUR' })),
  fc.constantFrom('2026-02-28', '2024-02-29', '1999-12-31').map((each): ConditionValue => ({ is: 'date', date: each })),
  fc.integer({ min: -400, max: 400 }).map((each): ConditionValue => ({ is: 'day', days: each })),
  fc
    .constantFrom('deal.amount', 'company.country', 'discount ?? 0%')
    .map((each): ConditionValue => ({ is: 'formula', formula: each })),
);
const subject = fc.constantFrom(
  'deal.heating',
  'deal.account.country',
  'total',
  'item.name',
  'discount ?? 0%',
  'SUM(lines.net)',
  'deal.`odd name`',
);
const field = fc.constantFrom('deal.heating', 'optional', 'deal.`and`');

const comparing = (
  comparisons: readonly ComparisonId[],
  of: fc.Arbitrary<string>,
  value: fc.Arbitrary<ConditionValue>,
  least: number,
  most = least,
) =>
  fc.record({
    subject: of,
    comparison: fc.constantFrom(...comparisons),
    values: fc.array(value, { minLength: least, maxLength: most }),
  });
const days = fc.integer({ min: 1, max: 400 }).map((each): ConditionValue => ({ is: 'number', number: String(each) }));
const count = fc.integer({ min: 1, max: 400 }).map((each): ConditionValue => ({ is: 'number', number: String(each) }));
const plain: fc.Arbitrary<Rule> = fc.oneof(
  comparing(['is', 'isNot', 'atLeast', 'atMost', 'moreThan', 'lessThan'], subject, fc.oneof(text, ordered), 1),
  comparing(['isOneOf', 'isNoneOf', 'includesAny', 'includesAll', 'includesNone'], subject, text, 2, 4),
  comparing(['between'], subject, ordered, 2),
  comparing(['nextDays', 'lastDays'], subject, days, 1),
  comparing(['holds', 'holdsNot'], field, text, 0),
  comparing(['isBlank', 'isGiven', 'isEmpty', 'isNotEmpty'], subject, text, 0),
  comparing(['contains', 'containsNot', 'includes', 'excludes'], subject, text, 1),
);
const groupOf = (rule: fc.Arbitrary<Rule>, least: number): fc.Arbitrary<RuleGroup> =>
  fc.record({ joins: fc.constantFrom('all', 'any'), rules: fc.array(rule, { minLength: least, maxLength: 4 }) });
const lists = fc.constantFrom('lines', 'tax_rows', 'deal.contacts');
const rule: fc.Arbitrary<Rule> = fc.oneof(
  { weight: 4, arbitrary: plain },
  fc.record({
    subject: lists,
    comparison: fc.constantFrom('some', 'none'),
    values: fc.constant([]),
    where: fc.option(groupOf(plain, 1), { nil: undefined }),
  }),
  fc
    .record({
      subject: lists,
      comparison: fc.constantFrom('countIs', 'countAtLeast', 'countAtMost'),
      value: count,
      where: fc.option(groupOf(plain, 1), { nil: undefined }),
    })
    .map(({ value, ...rest }): Rule => ({ ...rest, values: [value] })),
) as fc.Arbitrary<Rule>;
const condition: fc.Arbitrary<Condition> = fc.record({
  joins: fc.constantFrom('all', 'any'),
  rules: fc.array(fc.oneof({ weight: 3, arbitrary: rule }, groupOf(rule, 2)), { maxLength: 5 }),
});

describe('what the rows write', () => {
  it('is read back to the same formula', () => {
    fc.assert(
      fc.property(condition, (given) => {
        const formula = writeCondition(given);
        const { condition: read, why } = readCondition(formula);
        expect(why).toBeUndefined();
        expect(writeCondition(read!)).toBe(formula);
      }),
      { numRuns: Math.max(1_000, propertyRuns(1_000)) },
    );
  });

  it('is what it says in words, whatever is compared', () => {
    fc.assert(
      fc.property(condition, (given) => {
        expect(conditionSentence(writeCondition(given), subjects)).not.toContain('undefined');
      }),
      { numRuns: propertyRuns(200) },
    );
  });
});

describe('a condition in words', () => {
  it.each([
    ['deal.heating = "pipe" or deal.heating = "floor"', 'the heating is pipe or floor'],
    ['deal.heating <> "none" and deal.heating <> "air"', 'the heating is neither none nor air'],
    ['"crane" in deal.site_works', 'the site works include crane'],
    ['not ISBLANK(deal.order_number)', 'the purchase-order number is filled in'],
    ['deal.account.country = company.country', 'the account’s country is the company’s country'],
    ['COUNT(lines[optional]) > 0', 'there is a line item that is optional'],
    ['COUNT(lines[not optional]) <= 60', 'there are at most 60 line items that are not optional'],
    [
      'COUNT(lines[quantity >= 3 and not optional]) = 0',
      'there is no line item whose quantity is at least 3 and that is not optional',
    ],
    ['total > 0', 'the total is more than 0'],
    ['deal.amount >= AMOUNT(10000, "GBP")', 'the amount is at least 10,000 GBP'],
    ['true', ''],
    ['IF(total > 1, true, false)', 'IF(total > 1, true, false)'],
  ])('%s', (formula, words) => expect(conditionSentence(formula, subjects)).toBe(words));

  it('names the items that a block is repeated for', () => {
    expect(itemSentence('lines', subjects)).toBe('line item');
    expect(itemSentence('lines[not optional]', subjects)).toBe('line item that is not optional');
  });

  it('looks at the item where there is one', () => {
    const item = subjects.checker.itemOf('lines');
    expect(conditionSentence('optional', subjects, item)).toBe('the line item is optional');
  });
});

describe('what a condition can look at', () => {
  const offered = subjects.offered();
  const find = (formula: string) => offered.flatMap((group) => group.subjects).find((each) => each.formula === formula);
  it('has its kind and its choices', () => {
    expect(find('deal.heating')).toMatchObject({ kind: 'text', label: 'Heating', path: 'heating' });
    expect(find('deal.heating')!.choices!.map(({ value }) => value)).toContain('pipe');
    expect(find('deal.account.country')).toMatchObject({ kind: 'text', path: 'account.country' });
    expect(find('deal.site_works')).toMatchObject({ kind: 'texts' });
    expect(find('lines')).toMatchObject({ kind: 'records' });
    expect(find('total')).toMatchObject({ kind: 'money' });
  });
  it('can all be checked', () => {
    for (const { formula } of offered.flatMap((group) => group.subjects))
      expect(subjects.checker.formula(formula).diagnostics).toEqual([]);
  });
});
