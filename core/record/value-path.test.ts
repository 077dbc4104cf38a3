import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { chosenPath, describePath, itemPath, memberPath, namesOf, outcomePath, parsePath, placeOf } from './value-path';

const name = fc.stringMatching(/^[a-z][a-z_0-9]{0,8}$/);
const step = fc.record({ name, item: fc.option(fc.string(), { nil: undefined }) });

describe('a value path', () => {
  it('is taken apart into what it was made of, whatever the ids of items hold', () => {
    fc.assert(
      fc.property(name, fc.array(step, { maxLength: 5 }), fc.boolean(), (root, steps, isChosen) => {
        const path = steps.reduce((owner, { name, item }) => {
          const member = memberPath(owner, name);
          return item === undefined ? member : itemPath(member, item);
        }, root);
        const whole = isChosen ? chosenPath(path, 'price > 3 and name <> "[x]"') : path;
        expect(parsePath(whole)).toEqual({
          root,
          steps: steps.map(({ name, item }) => (item === undefined ? { name } : { name, item })),
          isChosen,
        });
      }),
    );
  });

  it('of a decision of the template says which kind it is', () => {
    expect(parsePath(outcomePath('when', 'heated deal.lines{L-1}'))).toEqual({ outcome: 'when' });
    expect(parsePath(outcomePath('choice', 'annex terms'))).toEqual({ outcome: 'choice' });
  });

  it.each(['', '.deal', 'deal..name', 'deal.lines{L-1', 'deal name', 'deal.'])('is not “%s”', (text) => {
    expect(parsePath(text)).toBeUndefined();
  });

  it('names what is looked for, without the ids of items', () => {
    expect(namesOf('deal.lines{L.{1}}.product')).toBe('deal.lines{L.{1}}.product');
    expect(namesOf(memberPath(itemPath('deal.lines', 'L.{1}'), 'product'))).toBe('deal.lines.product');
  });

  it.each([
    ['deal.name', 'Name'],
    ['deal.account.city', 'Account: city'],
    ['deal.lines{D-1187-1}.unit_price', 'Line 1, Vent motor VM-48, 24 V: unit price'],
    ['deal.lines{D-1187-1}.product.name', 'Line 1, Vent motor VM-48, 24 V: product: name'],
    ['deal.lines{gone}.unit_price', 'a line that is gone (gone): unit price'],
    ['deal.lines[not optional]', 'which line items are included'],
    ['deal.account.contacts[name > "M"]', 'which contacts are included'],
    ['net of deal.lines{L-1}[quantity > 1]', 'which items are included'],
    ['when heated', 'which sections are printed'],
    ['choice annex terms', 'what the template chooses'],
    ['registered{17}.number', 'documents filed before'],
    ['tax_rows{["standard","0.2"]}', 'tax rows'],
    ['deal', 'deal'],
    ['_', '_'],
    ['something that is no path', 'a value of the template'],
  ])('tells people what %s is', (path, words) => {
    expect(describePath(path, demoSnapshot('D-1187'), demoSchema)).toBe(words);
  });

  it('has a name in words whatever it is', () => {
    fc.assert(
      fc.property(fc.string(), (path) => {
        expect(describePath(path, demoSnapshot('D-1187'), demoSchema).trim()).not.toBe('');
      }),
    );
  });
});

it('an item is called by what its list holds, its place and its name', () => {
  const account = { type: 'Account', id: 'A-2', fields: { name: 'Fen Nurseries' } };
  expect(placeOf(account, 1, 'accounts', demoSchema)).toBe('Account 2, Fen Nurseries');
  expect(placeOf({ ...account, fields: {} }, 0, 'lines', demoSchema)).toBe('Line 1');
  expect(placeOf({ ...account, type: 'Unknown' }, 0, 'others', demoSchema)).toBe('Item 1');
});
