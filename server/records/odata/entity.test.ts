import { describe, expect, it } from 'vitest';
import { metadataXml } from '../../../standins/crm/metadata';
import { readCsdl } from './csdl';
import { idOf, snapshot, stored, type Entity } from './entity';
import { selection } from './selection';

const schema = readCsdl(metadataXml())!;
const paths = (fields: string[], related: [string, string[]][] = []) => ({
  fields: new Set(fields),
  related: new Map(related.map(([name, inner]) => [name, { fields: new Set(inner), related: new Map() }])),
});
const valueOf = (type: string, name: string, raw: unknown, more: Entity = {}) =>
  snapshot(schema, type, { id: 'x', [name]: raw, ...more }, paths([name])).fields[name];

describe('a value of an entity', () => {
  it.each<[string, string, unknown, unknown]>([
    ['name', 'a text', 'Two gates', 'Two gates'],
    ['stage', 'a choice', 'Won', 'Won'],
    ['site_works', 'choices', ['crane', 'water'], { choices: ['crane', 'water'] }],
    ['closes_on', 'a date', '2026-12-01', { date: '2026-12-01' }],
    ['validity_days', 'a number', 30, { number: '30' }],
    ['validity_days', 'a number with an exponent', '1.5e3', { number: '1500' }],
    ['deposit_percent', 'a percentage in points', '30', { percent: '0.3' }],
    ['scope_note', 'a formatted text', '<p>Here</p>', { rich: '<p>Here</p>' }],
    ['name', 'null', null, null],
    ['name', 'nothing', undefined, null],
  ])('%s is read from %s', (name, _, raw, expected) => {
    expect(valueOf('Deal', name, raw)).toEqual(expected);
  });

  it('is a yes or no only where it is one', () => {
    expect([valueOf('LineItem', 'optional', true), valueOf('LineItem', 'optional', 'yes')]).toEqual([true, false]);
  });

  it('is a sum with the currency beside it, where there is one', () => {
    expect(valueOf('Deal', 'amount', '12.50', { currency: 'EUR' })).toEqual({ amount: '12.5', currency: 'EUR' });
    expect(valueOf('Deal', 'amount', '12.50', { currency: null })).toEqual({ amount: '12.5', currency: null });
  });

  it('is a picture by its link and its version', () => {
    const links = { 'picture@odata.mediaReadLink': 'Products(1)/picture', 'picture@odata.mediaEtag': '"v1"' };
    expect(valueOf('Product', 'picture', undefined, links)).toEqual({
      image: { link: 'Products(1)/picture', version: '"v1"' },
    });
    expect(valueOf('Product', 'picture', undefined, { 'picture@mediaReadLink': 'here' })).toEqual({
      image: { link: 'here' },
    });
    expect(valueOf('Product', 'picture', undefined)).toBeNull();
  });

  it.each([
    ['twelve', 'where a number was expected'],
    ['12,5', 'where a number was expected'],
    [`1${'0'.repeat(4_000)}`, 'more digits than Lumbix computes with'],
  ])('%.10s is refused as a number', (raw, sentence) => {
    expect(() => valueOf('Deal', 'validity_days', raw)).toThrow(sentence);
  });
});

describe('a record', () => {
  it('holds its related records, one or many, as far as they are asked for and there', () => {
    const entity = {
      id: 'D-1',
      '@odata.etag': 'W/"3"',
      account: { id: 'A-1', name: 'Fen Nurseries' },
      contact: null,
      lines: [{ id: 'L-1', name: 'Vent' }],
    };
    const read = snapshot(
      schema,
      'Deal',
      entity,
      paths(
        ['name'],
        [
          ['account', ['name']],
          ['contact', ['email']],
          ['lines', ['name']],
          ['gone', ['x']],
        ],
      ),
    );
    expect(read).toEqual({
      type: 'Deal',
      id: 'D-1',
      version: 'W/"3"',
      fields: {
        account: { type: 'Account', id: 'A-1', version: undefined, fields: { name: 'Fen Nurseries' } },
        contact: null,
        lines: [{ type: 'LineItem', id: 'L-1', version: undefined, fields: { name: 'Vent' } }],
      },
    });
  });

  it.each([
    [{ id: 'D-1' }, 'D-1'],
    [{ '@id': "Deals('D''1%20x')" }, "D'1 x"],
    [{ '@id': 'Clients(7)' }, '7'],
    [{}, ''],
  ])('%j has the id “%s”', (entity, id) => {
    expect(idOf(schema, 'Deal', entity)).toBe(id);
  });

  it('is asked for with the currency of each sum, and its lines in their order', () => {
    const asked = selection(
      schema,
      'Deal',
      paths(
        ['amount', 'gone'],
        [
          ['account', ['name']],
          ['lines', ['name']],
        ],
      ),
    );
    expect(asked).toBe('$select=id,amount,currency&$expand=account($select=id,name),lines($select=id,name)');
    const unordered = { ...schema, ordered: {} };
    expect(selection(unordered, 'Deal', paths([], [['lines', ['name']]]))).toContain(
      'lines($select=id,name;$orderby=id)',
    );
  });
});

describe('a value is stored', () => {
  it.each<[string, unknown, unknown]>([
    ['name', null, null],
    ['name', 'Two gates', 'Two gates'],
    ['amount', { amount: '12.50', currency: 'EUR' }, '12.50'],
    ['deposit_percent', { percent: '0.3' }, '30'],
    ['validity_days', { number: '30' }, 30],
    ['validity_days', { number: '90071992547409931' }, '90071992547409931'],
    ['closes_on', { date: '2026-12-01' }, '2026-12-01'],
    ['closes_on', { datetime: '2026-12-01T10:00:00Z' }, '2026-12-01T10:00:00Z'],
    ['site_works', { choices: ['crane'] }, ['crane']],
    ['scope_note', { rich: '<p/>' }, '<p/>'],
  ])('%s of %j as %j', (name, value, expected) => {
    expect(stored(schema, 'Deal', name, value as never)).toEqual(expected);
  });

  it('but no relation', () => {
    expect(() => stored(schema, 'Deal', 'account', { type: 'Account', id: 'A', fields: {} })).toThrow('is a relation');
  });
});

describe('metadata', () => {
  it('says what people call the values that a field may have', () => {
    const allowed = (type: string, field: string) => schema.records.types[type]!.fields[field]!.allowed;
    expect(allowed('Account', 'country')).toContainEqual({ value: 'NL', label: 'Netherlands' });
    expect(allowed('Deal', 'heating')).toContainEqual({ value: 'floor', label: 'floor' });
  });

  it('of something else is none', () => {
    expect(readCsdl('<html><body>Maintenance</body></html>')).toBeUndefined();
    expect(readCsdl('')).toBeUndefined();
  });
});
