import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoRecords } from '../../demo/crm/index';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot, withFields } from '../../tests/demo-snapshot';
import { propertyRuns } from '../../tests/property-runs';
import { compose } from '../production/compose';
import type { PathTree } from '../record/paths';
import type { RecordSchema } from '../record/schema';
import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from '../record/snapshot';
import type { Block } from './blocks';
import { readsOf } from './reads';
import type { Template } from './template';

/** The demo's schema with relations that go on: an account has contacts, a contact its account. */
const schema: RecordSchema = {
  types: {
    ...demoSchema.types,
    Account: { ...demoSchema.types.Account!, fields: { ...demoSchema.types.Account!.fields, contacts: { name: 'contacts', label: 'Contacts', type: 'records', nullable: true, readonly: false, target: 'Contact' } } },
    Contact: { ...demoSchema.types.Contact!, fields: { ...demoSchema.types.Contact!.fields, account: { name: 'account', label: 'Account', type: 'record', nullable: true, readonly: false, target: 'Account' } } },
  },
}; // prettier-ignore

/** A deal whose account has its contact, and that one its account again. */
function connected(id: string): RecordSnapshot {
  const deal = demoSnapshot(id);
  const { account, contact } = deal.fields as { account: RecordSnapshot; contact: RecordSnapshot | null };
  const contacts = contact ? [withFields(contact, { account })] : [];
  const lines = (deal.fields.lines as RecordSnapshot[]).map((line) => withFields(line, { deal }));
  return withFields(deal, { account: withFields(account, { contacts }), contact: contacts[0] ?? null, lines });
}

/** A record with what was asked for and nothing else. */
function only(record: RecordSnapshot, { fields, related }: PathTree): RecordSnapshot {
  const plain = [...fields]
    .filter((name) => name in record.fields)
    .map((name): [string, FieldValue] => [name, record.fields[name]!]);
  const inner = [...related]
    .filter(([name]) => name in record.fields)
    .map(([name, tree]): [string, FieldValue] => {
      const value = record.fields[name]!;
      if (isRecordList(value)) return [name, value.map((each) => only(each, tree))];
      return [name, value !== null && isRecord(value) ? only(value, tree) : value];
    });
  return { ...record, fields: Object.fromEntries([...plain, ...inner]) };
}

/** Composes over the whole record and over what the template asks for; the record's own name is always asked for besides. */
function expectSame(template: Template, deal: RecordSnapshot, edition?: string): void {
  const tree = readsOf(template, shipped, schema);
  tree.fields.add('name');
  const context = {
    schema,
    pins: shipped,
    issueDate: '2026-11-23',
    edition,
    available: demoPictures,
  };
  const [whole, asked] = [deal, only(deal, tree)].map((record) => {
    const { assets, ...composition } = compose(template, record, context);
    return { ...composition, assets: Object.keys(assets) };
  });
  expect(asked).toEqual(whole);
}

describe('what a template asks for is all it reads', () => {
  it.each(shipped.templates.map((each) => [each.id, each] as const))('the shipped %s', (_, template) => {
    for (const { id } of demoRecords.deals.filter((__, at) => at % 8 === 0)) {
      for (const edition of template.editions) expectSame(template, connected(id), edition.id);
    }
  });

  const quote = shipped.templates[0]!;
  const value = (formula: string): Block => ({
    type: 'paragraph',
    attrs: { id: 'own' },
    content: [{ type: 'value', attrs: { id: 'own-value', formula, mayBeBlank: true } }],
  });
  const page = (...body: Block[]): Template => ({
    ...quote,
    sheet: { ...quote.sheet, sums: [] },
    checks: [],
    layout: { ...quote.layout, body },
  });
  const each = (list: string, ...content: Block[]): Block => ({
    type: 'forEach',
    attrs: { id: `each ${list}`, list, note: 'item' },
    content,
  });

  const text = fc.constantFrom(
    'name',
    'sku',
    'description',
    'section',
    'unit',
    'tax_category',
    'part_of',
    'parts_shown',
  );
  const amount = fc.constantFrom('quantity', 'weight', 'position', 'term_months');
  const lists = fc.oneof(
    fc.constantFrom('lines', 'deal.lines', 'lines[not optional]', 'deal.account.contacts.account.contacts'),
    fc.tuple(amount, fc.boolean()).map(([key, down]) => `SORT(lines, ${key} ?? 0, ${down})`),
    fc
      .tuple(amount, amount)
      .map(([one, other]) => `IF(deal.validity_days > 20, lines[${one} > 1], lines[${other} < 3])`),
    text.map((key) => `FIRST(GROUP(lines, ${key})).lines`),
    text.map((key) => `lines[IF(ISBLANK(${key}), true, LEN(${key}) > 3)]`),
  );
  const ofLine = fc.oneof(
    fc.tuple(text, fc.constantFrom('FIRST', 'LAST')).map(
      ([field, end]) =>
        (list: string) =>
          `${end}(${list}).${field}`,
    ),
    fc.tuple(text, fc.nat(2)).map(
      ([field, at]) =>
        (list: string) =>
          `INDEX(${list}, ${at + 1}).${field}`,
    ),
    text.map((field) => (list: string) => `TEXTJOIN(", ", true, UNIQUE(${list}.${field}))`),
    amount.map((field) => (list: string) => `SUM(${list}.${field})`),
    fc.tuple(text, text).map(
      ([one, other]) =>
        (list: string) =>
          `LOOKUP(FIRST(${list}).${one}, ${list}.${one}, ${list}.${other})`,
    ),
    fc.tuple(amount, text).map(
      ([key, field]) =>
        (list: string) =>
          `FIRST(SORT(${list}, item.${key} ?? 0)).product.${field === 'sku' ? 'sku' : 'name'}`,
    ),
    fc.constant((list: string) => `FIRST(${list}).deal.account.city`),
  );
  const formula = fc
    .tuple(
      lists.filter((list) => !list.includes('contacts')),
      ofLine,
    )
    .map(([list, of]) => of(list));
  const relation = fc.constantFrom(
    'deal.account.contacts',
    'deal.account.contacts[not ISBLANK(email)]',
    'SORT(deal.account.contacts, family_name)',
  );
  const ofContact = fc.constantFrom(
    'email',
    'item.family_name',
    'item.account.name',
    'given_name & " " & account.postcode',
    'TEXTJOIN(", ", true, account.contacts.job_title)',
  );
  const deals = fc.constantFrom(...demoRecords.deals.filter((_, at) => at % 9 === 0).map(({ id }) => id));

  it('formulas over lists, chosen, sorted, grouped and looked up', () => {
    fc.assert(
      fc.property(formula, deals, (source, deal) => expectSame(page(value(source)), connected(deal), 'en')),
      { numRuns: propertyRuns(60) },
    );
  });

  it('sections for each item of any relation, and sections inside of them', () => {
    fc.assert(
      fc.property(relation, ofContact, deals, (list, source, deal) =>
        expectSame(
          page(each(list, value(source), each('item.account.contacts', value('item.salutation')))),
          connected(deal),
          'en',
        ),
      ),
      { numRuns: propertyRuns(30) },
    );
  });

  it('columns of derived lists, and figures of a line that look at others', () => {
    const own = (source: string): Template => {
      const { sheet } = quote;
      const perLine = [...sheet.perLine, { name: 'own', label: 'Own', formula: source, type: 'text' as const }];
      const groups = {
        name: 'own_groups',
        label: 'Groups',
        formula: 'GROUP(lines, unit)',
        columns: [
          {
            name: 'first',
            label: 'First',
            formula: 'FIRST(item.lines).description ?? FIRST(lines).sku',
            type: 'text' as const,
          },
        ],
      };
      return {
        ...page(value('TEXTJOIN(", ", true, lines.own)'), each('own_groups', value('first'))),
        sheet: { ...sheet, sums: [], perLine, lists: [...sheet.lists, groups] },
      };
    };
    const source = fc.tuple(text, text).map(([one, other]) => `FIRST(lines[item.${one} = this.${one}]).${other} ?? ""`);
    fc.assert(
      fc.property(source, deals, (each, deal) => expectSame(own(each), connected(deal), 'en')),
      { numRuns: propertyRuns(60) },
    );
  });

  it('values inside clauses', () => {
    const pins = { ...shipped, clauses: [{ id: 'own', name: 'Own', content: [value('deal.account.phone')] }] };
    const { related } = readsOf(page({ type: 'clause', attrs: { id: 'put', clause: 'own' } }), pins, schema);
    expect(related.get('account')!.fields).toContain('phone');
  });
});
