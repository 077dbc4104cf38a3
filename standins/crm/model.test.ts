import { describe, expect, it } from 'vitest';
import { ENTITY_TYPES, refusal, refuseRenaming, renameField, typeNamed, typeOfSet, type Property } from './model';

const property = (type: Property['type'], more: Partial<Property> = {}): Property => ({
  name: 'field',
  type,
  label: 'Field',
  nullable: true,
  ...more,
});

describe('a value for a property', () => {
  it.each<[string, Property, unknown, string | undefined]>([
    ['a text', property('Edm.String'), 'any', undefined],
    ['a number for a text', property('Edm.String'), 5, 'field is a text.'],
    ['one of a few', property('Edm.String', { allowed: ['a', 'b'] }), 'b', undefined],
    ['none of a few', property('Edm.String', { allowed: ['a', 'b'] }), 'c', 'field is one of a, b.'],
    ['null where it may be', property('Edm.Date'), null, undefined],
    ['null where it must not', property('Edm.Date', { nullable: false }), null, 'field cannot be empty.'],
    ['what is computed', property('Edm.String', { computed: true }), 'x', 'field cannot be changed.'],
    ['a decimal', property('Edm.Decimal'), '-12.50', undefined],
    ['a decimal as a number', property('Edm.Decimal'), 12.5, undefined],
    ['no decimal', property('Edm.Decimal'), '12,50', 'field is a decimal number.'],
    ['a whole number', property('Edm.Int32'), 30, undefined],
    ['no whole number', property('Edm.Int32'), 30.5, 'field is a whole number.'],
    ['a yes or no', property('Edm.Boolean'), false, undefined],
    ['no yes or no', property('Edm.Boolean'), 'false', 'field is true or false.'],
    ['a date', property('Edm.Date'), '2028-02-29', undefined],
    ['a day that there is not', property('Edm.Date'), '2027-02-29', 'field is a date such as 2026-11-23.'],
    ['a date in another order', property('Edm.Date'), '23-11-2026', 'field is a date such as 2026-11-23.'],
    ['some of a few', property('Collection(Edm.String)', { allowed: ['a', 'b'] }), ['b'], undefined],
    ['others too', property('Collection(Edm.String)', { allowed: ['a'] }), ['a', 'z'], 'field holds only a.'],
    ['no list', property('Collection(Edm.String)'), 'a', 'field is a list of texts.'],
    ['a picture', property('Edm.Stream'), 'x', 'field is a picture: send it to its own address.'],
  ])('%s', (_, of, value, expected) => {
    expect(refusal(of, value)).toBe(expected);
  });
});

describe('the model', () => {
  it('names its types and sets apart, and finds them by either', () => {
    for (const type of ENTITY_TYPES) {
      expect(typeOfSet(type.set)).toBe(type);
      expect(typeNamed(type.name)).toBe(type);
    }
    expect(typeOfSet('Nothing')).toBeUndefined();
  });

  it('has a type and a key at the end of every relation, and a currency for every sum', () => {
    for (const { properties, navigations } of ENTITY_TYPES) {
      const names = properties.map(({ name }) => name);
      expect(new Set(names).size).toBe(names.length);
      for (const { target } of navigations) expect(typeNamed(target)).toBeDefined();
      for (const { currency } of properties) if (currency) expect(names).toContain(currency);
    }
  });
});

describe('a field that is renamed', () => {
  it('has its new name wherever the types mention it', () => {
    renameField({ type: 'LineItem', from: 'position', to: 'place' });
    renameField({ type: 'LineItem', from: 'currency', to: 'coin' });
    const lines = typeNamed('LineItem').properties;
    expect(lines.map(({ name }) => name)).toEqual(expect.arrayContaining(['place', 'coin']));
    expect(lines.find(({ name }) => name === 'unit_price')!.currency).toBe('coin');
    expect(typeNamed('Deal').navigations.find(({ name }) => name === 'lines')!.orderedBy).toBe('place');
    expect(typeNamed('Deal').properties.find(({ name }) => name === 'amount')!.currency).toBe('currency');
    renameField({ type: 'LineItem', from: 'place', to: 'position' });
    renameField({ type: 'LineItem', from: 'coin', to: 'currency' });
    expect(typeNamed('Deal').navigations.find(({ name }) => name === 'lines')!.orderedBy).toBe('position');
  });

  it.each([
    [{ type: 'Ship', from: 'name', to: 'title' }, 'There is no type Ship.'],
    [{ type: 'Deal', from: 'mast', to: 'sail' }, 'Deal has no field mast.'],
    [{ type: 'Deal', from: 'id', to: 'key' }, 'Deal has no field id.'],
    [{ type: 'Deal', from: 'name', to: 'Two words' }, 'A name has small letters, digits and “_”, a letter first.'],
    [{ type: 'Deal', from: 'name', to: 'stage' }, 'Deal has stage already.'],
    [{ type: 'Deal', from: 'name', to: 'account_id' }, 'Deal has account_id already.'],
    [{ type: 'Deal', from: 'name', to: 'title' }, undefined],
  ])('%o', (renaming, reason) => {
    expect(refuseRenaming(renaming)).toBe(reason);
  });
});
