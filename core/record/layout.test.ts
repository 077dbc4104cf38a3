import { describe, expect, it } from 'vitest';
import { demoSchema } from '../../tests/demo-snapshot';
import {
  calledRecord,
  documentTypes,
  fittingLayout,
  layoutOf,
  nameOf,
  partField,
  partText,
  usualLayout,
  withLayouts,
  type RecordLayout,
} from './layout';
import { treeOf } from './paths';
import { pluralOf, type FieldSchema, type RecordSchema, type RecordType } from './schema';

const field = (name: string, type: FieldSchema['type'], more: Partial<FieldSchema> = {}): FieldSchema => ({
  name,
  label: name.toUpperCase(),
  type,
  nullable: true,
  readonly: false,
  ...more,
});
const typeOf = (name: string, fields: FieldSchema[], more: Partial<RecordType> = {}): RecordType => ({
  name,
  label: name,
  fields: Object.fromEntries(fields.map((each) => [each.name, each])),
  ...more,
});

/** A workshop's records, which call nothing as the demo does. */
const order = typeOf(
  'Order',
  [
    field('key', 'text', { identifies: true, nullable: false, readonly: true }),
    field('remark', 'text'),
    field('title', 'text', { nullable: false }),
    field('code', 'text', { readonly: true }),
    field('mood', 'choice'),
    field('phase', 'choice', { nullable: false }),
    field('worth', 'money'),
    field('due', 'date'),
    field('pieces', 'number'),
    field('rebate', 'percent'),
    field('client', 'record', { target: 'Client' }),
    field('client_of_client', 'record', { target: 'Client' }),
  ],
  { files: 'papers' },
);
const client = typeOf('Client', [
  field('key', 'text', { identifies: true, nullable: false }),
  field('firm', 'text', { nullable: false }),
]);
const schema: RecordSchema = { types: { Order: order, Client: client } };

describe('the layout that nobody chose', () => {
  it('takes each part from what fields are', () => {
    expect(usualLayout(order).parts).toEqual({
      name: 'title',
      number: 'code',
      account: 'client',
      stage: 'phase',
      amount: 'worth',
      day: 'due',
    });
  });

  it('shows every plain field but the key, and numbers as columns', () => {
    const { groups, columns, needsQuote } = usualLayout(order);
    expect(groups).toEqual([
      { label: 'Order', fields: ['remark', 'title', 'code', 'mood', 'phase', 'worth', 'due', 'pieces', 'rebate'] },
    ]);
    expect(columns).toEqual(['worth', 'pieces', 'rebate']);
    expect(needsQuote).toEqual([]);
  });

  it('takes a field called “name” before any other, and an optional stage where none must be given', () => {
    const { fields, ...rest } = order;
    const { phase: _phase, ...others } = fields;
    const named = usualLayout({ ...rest, fields: { ...others, name: field('name', 'text') } });
    expect(named.parts).toMatchObject({ name: 'name', stage: 'mood' });
  });

  it('has no part for a type without such fields', () => {
    expect(usualLayout(typeOf('Bare', [field('key', 'text', { identifies: true })]))).toEqual({
      parts: {},
      groups: [],
      columns: [],
      needsQuote: [],
      search: [],
    });
  });
});

describe('a layout that somebody chose', () => {
  const chosen: RecordLayout = {
    parts: { name: 'remark', stage: 'gone', amount: 'title', owner: 'gone' },
    groups: [
      { label: 'First', fields: ['worth', 'gone', 'title'] },
      { label: 'Gone', fields: ['gone'] },
    ],
    columns: ['gone', 'pieces'],
    needsQuote: ['Asked'],
    search: ['client', 'gone'],
  };

  it('holds as far as the fields are there; a part that is gone is the usual one, or none', () => {
    expect(fittingLayout(order, chosen)).toEqual({
      parts: { name: 'remark', stage: 'phase', amount: 'worth' },
      groups: [{ label: 'First', fields: ['worth', 'title'] }],
      columns: ['pieces'],
      needsQuote: ['Asked'],
      search: ['client'],
    });
  });

  it('goes with its type in the schema, beside the usual ones', () => {
    const laidOut = withLayouts(schema, { Order: chosen });
    expect(partField(laidOut, 'Order', 'name')).toBe('remark');
    expect(partField(laidOut, 'Client', 'name')).toBe('firm');
    expect(layoutOf(laidOut, 'Unknown').parts).toEqual({});
    expect(layoutOf(laidOut, 'constructor').groups).toEqual([]);
  });
});

describe('a record', () => {
  const record = {
    type: 'Order',
    id: 'O-1',
    fields: { title: 'Two gates', phase: '', client: { type: 'Client', id: 'C-1', fields: { firm: 'Fen Nurseries' } } },
  };

  it('is called by its name, or else by its id', () => {
    expect(calledRecord(record, schema)).toBe('Two gates');
    expect(calledRecord({ ...record, fields: { title: '' } }, schema)).toBe('O-1');
    expect(nameOf({ ...record, fields: {} }, schema)).toBeUndefined();
  });

  it('has parts as texts: of a related record its name', () => {
    expect(partText(record, 'account', schema)).toBe('Fen Nurseries');
    expect(partText(record, 'stage', schema)).toBe('');
    expect(partText({ ...record, fields: { client: null } }, 'account', schema)).toBe('');
    expect(partText(record, 'owner', schema)).toBe('');
  });

  it('that another leads to is read with its name', () => {
    expect([...treeOf([['client', 'key']], schema, 'Order').related.get('client')!.fields]).toEqual(['firm', 'key']);
  });
});

describe('types', () => {
  it('that take files are those that documents are made from', () => {
    expect(documentTypes(schema).map(({ name }) => name)).toEqual(['Order']);
    expect(documentTypes(demoSchema).map(({ name }) => name)).toEqual(['Deal', 'Account', 'Contact']);
  });

  it('are called in the plural as the source says, or with an s', () => {
    expect(pluralOf(order)).toBe('Orders');
    expect(pluralOf({ label: 'Category', plural: 'Categories' })).toBe('Categories');
    expect(Object.values(demoSchema.types).map(pluralOf)).toContain('Line items');
  });
});
