import { describe, expect, it } from 'vitest';
import { SAMPLE } from '../../sheet/sample';
import { Sheet } from '../../sheet/sheet';
import cases from './spreadsheet.json';

const sheet = new Sheet(SAMPLE);

/** A value as tools/spreadsheet.ts writes a spreadsheet's: numbers to ten decimals. */
function answer(formula: string): string {
  const { value } = sheet.evaluate('test', formula);
  switch (value.type) {
    case 'number':
    case 'percent':
      return `n ${value.value.toFixed(10)}`;
    case 'text':
      return `t ${value.value}`;
    case 'boolean':
      return `b ${value.value ? 'yes' : 'no'}`;
    default:
      return value.type === 'error' ? 'e' : value.type;
  }
}

/** The digits that a binary spreadsheet has right. */
const shortened = (result: string) =>
  result.startsWith('n ') ? `n ${Number(result.slice(2)).toPrecision(12)}` : result;

describe('agreement with a spreadsheet on the shared functions', () => {
  it('over generated formulas', () => {
    const differing = (cases as [string, string][])
      .map(([formula, result]) => ({ formula, there: shortened(result), here: shortened(answer(formula)) }))
      .filter(({ there, here }) => there !== here);
    expect(differing).toEqual([]);
    expect(cases.length).toBeGreaterThan(800);
  });
});
