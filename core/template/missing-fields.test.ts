import { expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { demoSchema } from '../../tests/demo-snapshot';
import type { RecordSchema } from '../record/schema';
import { checkContext } from './check';
import { placedFormulas } from './formulas';
import { missingFields, withFieldReplaced } from './missing-fields';

const quote = shipped.templates.find(({ id }) => id === 'glasshouse-quote')!;
/** The schema with a field of a type under another name. */
function renamed(type: string, name: string, as: string): RecordSchema {
  const { [name]: field, ...fields } = demoSchema.types[type]!.fields;
  const owner = { ...demoSchema.types[type]!, fields: { ...fields, [as]: { ...field!, name: as } } };
  return { ...demoSchema, types: { ...demoSchema.types, [type]: owner } };
}
const contextOf = (schema: RecordSchema) => checkContext(quote, schema, shipped.houseStyles);

it('are none where the records have all that is read', () =>
  expect(missingFields(quote, contextOf(demoSchema))).toEqual([]));

it('are told with their places and what was probably meant, of the record and of its lines', () => {
  const [heating] = missingFields(quote, contextOf(renamed('Deal', 'heating', 'heating_kind')));
  expect(heating).toMatchObject({ owner: 'deal', name: 'heating', likely: 'heating_kind' });
  expect(heating!.places.length).toBeGreaterThan(1);
  const [price] = missingFields(quote, contextOf(renamed('LineItem', 'unit_price', 'unit_price_net')));
  expect(price).toMatchObject({ name: 'unit_price', likely: 'unit_price_net' });
});

it.each([
  ['Deal', 'heating', 'heating_kind'],
  ['LineItem', 'unit_price', 'unit_price_net'],
  ['Account', 'country', 'land'],
])('are replaced everywhere at once, and back: %s %s', (type, name, as) => {
  const context = contextOf(renamed(type, name, as));
  const [missing] = missingFields(quote, context);
  const mended = withFieldReplaced(quote, context, missing!, as);
  expect(missingFields(mended, context)).toEqual([]);
  const back = withFieldReplaced(mended, contextOf(demoSchema), { owner: missing!.owner, name: as }, name);
  expect(placedFormulas(back)).toEqual(placedFormulas(quote));
});
