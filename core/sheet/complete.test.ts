import { describe, expect, it } from 'vitest';
import { demoSchema } from '../../tests/demo-snapshot';
import { NET_PRICES } from '../calculations/prices';
import { Checker, DOCUMENT_ROOT } from './check';
import { completionsAt } from './complete';

const checker = new Checker({
  sheet: NET_PRICES.sheet,
  schema: demoSchema,
  record: { type: 'Deal', root: 'deal' },
  roots: { document: DOCUMENT_ROOT },
});
/** Labels offered at the bar, and what was typed before it. */
const offered = (typed: string, ofLine = false) => {
  const position = typed.indexOf('|');
  const source = typed.replace('|', '');
  const { from, options } = completionsAt(source, position, checker, ofLine ? checker.lines : undefined);
  return { prefix: source.slice(from, position), labels: options.map(({ label }) => label) };
};

describe('what is offered', () => {
  it.each([
    ['deal.acc|', 'acc', 'account', 'subtotal'],
    ['deal.account.|', '', 'country', 'heating'],
    ['SUM(lines.n|', 'n', 'net', 'subtotal'],
    ['SUM(lines[not optional].|', '', 'net', 'country'],
    ['SUM(lines[quan|', 'quan', 'quantity', 'country'],
    ['SUM(lines[|].net)', '', 'optional', 'country'],
    ['tax_rows.|', '', 'base', 'subtotal'],
    ['FIRST(tax_rows).|', '', 'tax_amount', 'subtotal'],
    ['GROUP(lines, tax_c|', 'tax_c', 'tax_category', 'country'],
    ['figures.|', '', 'subtotal', 'deal'],
    ['sub|', 'sub', 'subtotal', 'quantity'],
    ['1 + RO|', 'RO', 'ROUNDUP', 'quantity'],
    ['deal.heating = "|', '', 'pipe', 'SUM'],
    ['IF(deal.heating = "p|", 1, 2)', 'p', 'pipe', 'SUM'],
    ['lines[tax_category = "re|', 're', 'reverse charge', 'pipe'],
  ])('at %s: what fits and not what does not', (typed, prefix, fits, not) => {
    const { prefix: found, labels } = offered(typed);
    expect(found).toBe(prefix);
    expect(labels).toContain(fits);
    expect(labels).not.toContain(not);
  });

  it.each(['"typed just now"|', '12|', 'SUM(lines.net)|', 'lines[optional]|', '`a name`|', '15%|'])(
    'nothing at the end of a whole value: %s',
    (typed) => {
      expect(offered(typed).labels).toEqual([]);
    },
  );

  it.each(['deal.heating = "pipe" |', 'lines[optional] |', '12 a|', 'subtotal o|'])(
    'after a whole value and a space, what joins it to another: %s',
    (typed) => {
      expect(offered(typed).labels).toEqual(['and', 'or', 'in']);
    },
  );

  it.each(['not |', 'deal.heating = "pipe" and |', '1 + |', 'IF(|'])('where a value may begin, all: %s', (typed) => {
    expect(offered(typed).labels).toContain('subtotal');
  });

  it('a line’s own names in a figure of a line', () => {
    expect(offered('quan|', true).labels).toContain('quantity');
    expect(offered('quan|').labels).not.toContain('quantity');
  });

  it('says what each is', () => {
    const { options } = completionsAt('deal.am', 7, checker);
    expect(options.find(({ label }) => label === 'amount')).toMatchObject({
      kind: 'field',
      detail: 'money',
      help: 'Amount',
    });
    const functions = completionsAt('TEXTJ', 5, checker).options.find(({ label }) => label === 'TEXTJOIN')!;
    expect(functions).toMatchObject({ insert: 'TEXTJOIN(', detail: '(separator, pass over blanks, values, …)' });
  });
});
