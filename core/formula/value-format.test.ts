import { describe, expect, it } from 'vitest';
import { Decimal } from '../money/decimal';
import { dayOf } from './date';
import { DATE, listOf, MONEY, NUMBER, PERCENT, TEXT } from './type';
import { boolean, formatValue, money, number, percent, text, type Value } from './value';
import { formatsOf, VALUE_FORMATS } from './value-format';

const day: Value = { type: 'date', day: dayOf('2026-11-23')! };
const sum = (amount: string) => money(Decimal.of(amount), 'GBP', 'amount');
const list = (...words: string[]): Value => ({ type: 'list', items: words.map(text) });
const plain = (words: string) => words.replaceAll(/[\u00a0\u202f]/g, ' ');

describe('a value is printed', () => {
  it.each<[string, Value, (typeof VALUE_FORMATS)[number], string, string]>([
    ['money', sum('1234.5'), 'full', 'en-GB', '1,234.50 GBP'],
    ['money', sum('1234.5'), 'plain', 'en-GB', '1,234.50'],
    ['money', sum('1234.5'), 'code-first', 'en-GB', 'GBP 1,234.50'],
    ['money', sum('-1234.5'), 'symbol', 'en-GB', '−£1,234.50'],
    ['money', sum('1234.5'), 'symbol', 'de-DE', '1.234,50 £'],
    ['a number', number(Decimal.of('1234.567')), 'decimals-0', 'en-GB', '1,235'],
    ['a number', number(Decimal.of('1234.5')), 'decimals-3', 'de-DE', '1.234,500'],
    ['a number that has no such decimals', number(2), 'full', 'en-GB', '2'],
    ['a percentage', percent(Decimal.of('0.125')), 'decimals-0', 'en-GB', '13 %'],
    ['a percentage', percent(Decimal.of('0.125')), 'decimals-2', 'en-GB', '12.50 %'],
    ['a date', day, 'long-date', 'en-GB', '23 November 2026'],
    ['a date', day, 'short-date', 'en-GB', '23 Nov 2026'],
    ['a date', day, 'yMd', 'en-GB', '23/11/2026'],
    ['a date', day, 'yMMMM', 'nl-NL', 'november 2026'],
    ['a date', day, 'MMMMd', 'en-GB', '23 November'],
    ['a date', day, 'yMMMMEEEEd', 'de-DE', 'Montag, 23. November 2026'],
    ['a date', day, 'y', 'en-GB', '2026'],
    ['yes', boolean(true), 'mark', 'en-GB', '✓'],
    ['no', boolean(false), 'mark', 'en-GB', '–'],
    ['a list', list('a', 'b', 'c'), 'full', 'en-GB', 'a, b and c'],
    ['a list', list('a', 'b', 'c'), 'or', 'en-GB', 'a, b or c'],
    ['a list', list('a', 'b'), 'lines', 'en-GB', 'a\nb'],
  ])('%s: %#', (_, value, format, locale, printed) => {
    expect(plain(formatValue(value, locale, format))).toBe(printed);
  });
});

it('only looks that suit a value are offered', () => {
  expect(formatsOf(MONEY)).toEqual([undefined, 'plain', 'code-first', 'symbol']);
  expect(formatsOf(PERCENT)).toEqual(formatsOf(NUMBER));
  expect(formatsOf(listOf(TEXT))).toEqual([undefined, 'or', 'lines']);
  expect(formatsOf(DATE)).toContain('yMMMM');
  expect(formatsOf(TEXT)).toEqual([undefined]);
});
