import { layoutOf } from '../record/layout';
import { fieldOf, recordTypeOf, type FieldSchema, type FieldType, type RecordSchema } from '../record/schema';
import type { ColumnDefinition } from './blocks/line-table';

/** The columns of a table of items: those that items are shown by, between their number and whatever comes after. */
export function lineColumns(schema: RecordSchema, type: string | undefined, isPriced = true): ColumnDefinition[] {
  const layout = layoutOf(schema, type);
  const named = layout.parts.name ?? Object.keys(recordTypeOf(schema, type)?.fields ?? {})[0];
  const fields = layout.columns.flatMap((name) => fieldOf(schema, type, name) ?? []);
  return [
    { id: 'position', heading: '', formula: '', counter: true, align: 'start', width: 'content' },
    ...(named === undefined
      ? []
      : [{ id: 'item', heading: 'Item', formula: named, align: 'start' as const, width: 'rest' as const }]),
    ...fields
      .filter(({ name, target }) => !target && name !== named)
      .filter((field) => isPriced || !OF_PRICES.includes(field.type))
      .map(columnOf),
  ];
}

const OF_PRICES: readonly FieldType[] = ['money', 'percent'];
const NUMBERS: readonly FieldType[] = ['number', 'percent', 'money'];

const columnOf = ({ name, label, type, nullable }: FieldSchema): ColumnDefinition => ({
  id: name,
  heading: label,
  formula: name,
  align: NUMBERS.includes(type) ? 'end' : 'start',
  width: 'content',
  ...(type === 'money' && { format: 'plain' as const }),
  ...(nullable && { mayBeBlank: true }),
});
