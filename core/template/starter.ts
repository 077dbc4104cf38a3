import { partField } from '../record/layout';
import { fieldOf, LINES, recordTypeOf, type FieldType, type RecordSchema } from '../record/schema';
import type { Figure, FigureSheet } from '../sheet/figure';
import type { Block } from './blocks';
import type { ColumnDefinition } from './blocks/line-table';
import type { Inline } from './inlines';
import { FORMAT_VERSION, type Template } from './template';
import type { DocumentKind } from './document-kinds';

/** What a new template is begun with. */
export interface Beginning {
  name: string;
  kind: DocumentKind;
  recordType: string;
  /** A whole first draft that is right for the record's fields, or an empty sheet. */
  from: 'starter' | 'empty';
}

/** What is here for it: the record types, and ids of a house style and of a number series. */
export interface Around {
  schema: RecordSchema;
  houseStyle: string;
  series: string;
}

const titleOf: Readonly<Record<DocumentKind, string>> = {
  quote: 'Quote',
  proposal: 'Proposal',
  'order confirmation': 'Order confirmation',
  agreement: 'Agreement',
  letter: 'Letter',
  'delivery note': 'Delivery note',
  invoice: 'Invoice',
  'credit note': 'Credit note',
  receipt: 'Receipt',
};
/** Kinds that are signed by hand, and by whom. */
const SIGNED: Partial<Record<DocumentKind, string>> = {
  quote: 'Ordered, for the customer',
  proposal: 'Ordered, for the customer',
  agreement: 'For the customer',
  'delivery note': 'Received in good order',
};
const OPENINGS: Readonly<Record<DocumentKind, string>> = {
  quote: 'Thank you for your enquiry. We are pleased to quote as follows.',
  proposal: 'Thank you for your enquiry. This is what we propose.',
  'order confirmation': 'Thank you for your order, which we confirm as follows.',
  agreement: 'This is what we have agreed.',
  letter: 'Thank you for your letter.',
  'delivery note': 'We have delivered the following.',
  invoice: 'We invoice the following.',
  'credit note': 'We credit the following.',
  receipt: 'We have received the following amount, with thanks.',
};
/** Kinds that list the record's lines, and of them those that say no prices. */
const WITHOUT_LINES: readonly DocumentKind[] = ['letter', 'receipt'];
const WITHOUT_PRICES: readonly DocumentKind[] = ['delivery note'];

/** A new template: empty, or with what a document of its kind needs, as far as the record type has fields for it. */
export function newTemplate(beginning: Beginning, around: Around): Template {
  const { name, kind, recordType } = beginning;
  const start = new Start(beginning, around);
  const isEmpty = beginning.from === 'empty';
  const called = start.path('account', 'name') ?? start.own('name');
  const title = `${titleOf[kind]} =[document.number]`;
  return {
    format: 'lumbix-template',
    formatVersion: FORMAT_VERSION,
    id: idOf(name),
    name,
    kind,
    record: { type: recordType, root: start.root },
    houseStyle: around.houseStyle,
    sheet: start.sheet(isEmpty),
    layout: { page: { size: 'a4' }, body: isEmpty ? [{ type: 'paragraph', attrs: { id: 'first' } }] : start.body() },
    editions: [{ id: 'en', label: 'English', locale: 'en-GB' }],
    plans: [
      {
        id: 'file',
        label: 'File only',
        fileName: called === undefined ? title : `${title} =[${called}]`,
        series: around.series,
        title,
      },
    ],
    checks: [],
  };
}

/** An id that tells the name. */
const idOf = (name: string): string =>
  name
    .normalize('NFD')
    .replaceAll(/\p{M}/gu, '')
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-+|-+$/g, '')
    .slice(0, 80) || 'template';

/** What records of a type are called in formulas: `LineItem` is `line_item`. */
const rootOf = (type: string): string =>
  type
    .replaceAll(/([a-z0-9])([A-Z])/g, '$1_$2')
    .replaceAll(/\W+/g, '_')
    .toLowerCase();

/** Looks for what a record type has, by what fields are called and by its layout, and builds on that. */
class Start {
  readonly root: string;
  readonly #type: string;
  readonly #lines: string | undefined;

  constructor(
    readonly beginning: Beginning,
    readonly around: Around,
  ) {
    this.#type = beginning.recordType;
    this.root = rootOf(this.#type);
    this.#lines = fieldOf(around.schema, this.#type, LINES)?.target;
  }

  /** The path of one of the record's own fields, where it has it. */
  own(field: string): string | undefined {
    return fieldOf(this.around.schema, this.#type, field) ? `${this.root}.${field}` : undefined;
  }

  /** The path of a field of the record that is one of its parts, such as its account. */
  path(part: 'account', field: string): string | undefined {
    const relation = partField(this.around.schema, this.#type, part);
    const known = relation === undefined ? undefined : fieldOf(this.around.schema, this.#type, relation);
    return this.#under(known?.target ? known.name : undefined, field);
  }

  /** The same of the person who is written to. */
  #contact = (field: string) => this.#under('contact', field);

  #under(relation: string | undefined, field: string): string | undefined {
    if (relation === undefined) return undefined;
    const { schema } = this.around;
    const target = fieldOf(schema, this.#type, relation)?.target;
    return fieldOf(schema, target, field) ? `${this.root}.${relation}.${field}` : undefined;
  }

  #ofLine(field: string, ...types: FieldType[]): string | undefined {
    const known = fieldOf(this.around.schema, this.#lines, field);
    return known && (types.length === 0 || types.includes(known.type)) ? field : undefined;
  }

  get #isPriced(): boolean {
    const { kind } = this.beginning;
    const hasPrices = this.#ofLine('quantity', 'number') && this.#ofLine('unit_price', 'money');
    return !!hasPrices && !WITHOUT_LINES.includes(kind) && !WITHOUT_PRICES.includes(kind);
  }

  /** The field that holds the amount as a whole: what a receipt is for. */
  get #amount(): string | undefined {
    const field = partField(this.around.schema, this.#type, 'amount');
    return field === undefined ? undefined : `${this.root}.${field}`;
  }

  sheet(isEmpty: boolean): FigureSheet {
    const currency = this.own('currency') ?? '"EUR"';
    const plain: FigureSheet = { currency, rounding: 'half-away', perLine: [], lists: [], document: [], sums: [] };
    if (isEmpty || !this.#isPriced) return plain;
    const figure = (name: string, label: string, formula: string): Figure => ({ name, label, formula, type: 'amount' });
    const discount = this.#ofLine('discount', 'percent') ? ' * (1 - discount ?? 0%)' : '';
    const rate = this.#ofLine('tax_rate', 'percent');
    return {
      ...plain,
      perLine: [
        figure('net', 'Net', `quantity * unit_price${discount}`),
        ...(rate ? [figure('tax', 'Tax', 'net * (tax_rate ?? 0%)')] : []),
      ],
      document: [
        figure('subtotal', 'Subtotal', 'SUM(lines.net)'),
        ...(rate ? [figure('tax_total', 'Tax', 'SUM(lines.tax)')] : []),
        figure('total', 'Total', rate ? 'subtotal + tax_total' : 'subtotal'),
      ],
      sums: [{ column: 'lines.net', figure: 'subtotal' }],
    };
  }

  body(): Block[] {
    const { kind } = this.beginning;
    const isSigned = SIGNED[kind];
    return [
      this.#head(),
      { type: 'space', attrs: { id: 'before-title', height: 24 } },
      { type: 'heading', attrs: { id: 'title', level: 1 }, content: this.#title() },
      ...(kind === 'invoice' || kind === 'credit note' || kind === 'receipt' ? [] : this.#greeting()),
      paragraph('opening', [text(OPENINGS[kind])]),
      ...this.#table(),
      ...this.#totals(),
      ...this.#received(),
      ...(kind === 'letter' ? [paragraph('letter-text', [text('Write your letter here.')])] : []),
      ...this.#closing(),
      ...(isSigned === undefined
        ? []
        : [{ type: 'signature' as const, attrs: { id: 'signature', label: isSigned, date: 'Date' } }]),
    ];
  }

  /** The address at the left; the number and the day at the right. */
  #head(): Block {
    const { kind } = this.beginning;
    const name = this.path('account', 'name') ?? this.own('name');
    const parts = ['street', 'postcode', 'city', 'country'].map((field) => this.path('account', field));
    const [street, postcode, city, country] = parts;
    const address =
      street && postcode && city && country
        ? value('address-lines', `ADDRESS(${street}, ${postcode}, ${city}, ${country}, company.country)`)
        : undefined;
    const given = this.#contact('given_name');
    const family = this.#contact('family_name');
    return {
      type: 'columns',
      attrs: { id: 'head' },
      content: [
        {
          type: 'column',
          attrs: { id: 'head.1', width: 1 },
          content: [
            ...(name === undefined ? [] : [paragraph('customer', [value('customer-name', name, [{ type: 'bold' }])])]),
            ...(given && family
              ? [paragraph('person', [value('person-name', `${given} & " " & ${family}`, undefined, true)])]
              : []),
            ...(address ? [paragraph('address', [address])] : []),
          ],
        },
        {
          type: 'column',
          attrs: { id: 'head.2', width: 1 },
          content: [
            paragraph('number', [text(`${titleOf[kind]} `), value('document-number', 'document.number')], 'end'),
            paragraph('day', [value('document-day', 'document.issue_date')], 'end'),
          ],
        },
      ],
    };
  }

  #title(): Inline[] {
    const name = this.own('name');
    return name === undefined ? [text(titleOf[this.beginning.kind])] : [value('record-name', name)];
  }

  #greeting(): Block[] {
    const family = this.#contact('family_name');
    const salutation = this.#contact('salutation');
    const given = this.#contact('given_name');
    if (!family) return [paragraph('greeting', [text('Dear Sir or Madam,')])];
    const first = salutation ?? given;
    const called = first === undefined ? family : `${first} & " " & ${family}`;
    return [paragraph('greeting', [text('Dear '), value('greeting-name', called), text(',')])];
  }

  #table(): Block[] {
    const { schema } = this.around;
    if (this.#lines === undefined || WITHOUT_LINES.includes(this.beginning.kind)) return [];
    const named =
      partField(schema, this.#lines, 'name') ?? Object.keys(recordTypeOf(schema, this.#lines)?.fields ?? {})[0];
    if (named === undefined) return [];
    const end = { align: 'end' as const, width: 'content' as const };
    const columns: ColumnDefinition[] = [
      { id: 'position', heading: '', formula: '', counter: true, align: 'start', width: 'content' },
      { id: 'item', heading: 'Item', formula: named, align: 'start', width: 'rest' },
    ];
    const detail = this.#ofLine('description', 'text');
    if (detail && detail !== named) columns[1] = { ...columns[1]!, detail };
    if (this.#ofLine('quantity', 'number'))
      columns.push({ id: 'quantity', heading: 'Qty', formula: 'quantity', ...end });
    if (this.#ofLine('unit', 'text', 'choice'))
      columns.push({
        id: 'unit',
        heading: 'Unit',
        formula: 'unit',
        align: 'start',
        width: 'content',
        mayBeBlank: true,
      });
    if (this.#isPriced)
      columns.push(
        { id: 'price', heading: 'Price', formula: 'unit_price', format: 'plain', ...end },
        { id: 'net', heading: 'Net', formula: 'net', format: 'plain', total: 'subtotal', ...end },
      );
    return [
      {
        type: 'lineTable',
        attrs: { id: 'lines', label: 'Lines', list: LINES, columns, ...(this.#isPriced && { carry: 'net' }) },
      },
    ];
  }

  #totals(): Block[] {
    if (!this.#isPriced) return [];
    const isTaxed = this.#ofLine('tax_rate', 'percent') !== undefined;
    const rows = [
      ...(isTaxed
        ? [
            { id: 'subtotal', label: 'Subtotal', formula: 'subtotal' },
            { id: 'tax', label: 'Tax', formula: 'tax_total' },
          ]
        : []),
      { id: 'total', label: 'Total', formula: 'total', emphasis: 'total' as const },
    ];
    return [{ type: 'totals', attrs: { id: 'totals', rows } }];
  }

  /** What a receipt is for, in one line. */
  #received(): Block[] {
    if (this.beginning.kind !== 'receipt' || this.#amount === undefined) return [];
    return [
      {
        type: 'totals',
        attrs: {
          id: 'received',
          rows: [{ id: 'received', label: 'Received', formula: this.#amount, emphasis: 'total' }],
        },
      },
    ];
  }

  #closing(): Block[] {
    const { schema } = this.around;
    const field = partField(schema, this.#type, 'owner');
    const known = field === undefined ? undefined : fieldOf(schema, this.#type, field);
    const isName = known !== undefined && !known.target;
    return [
      { type: 'space', attrs: { id: 'before-closing', height: 14 } },
      paragraph('closing', [text('Yours sincerely,')]),
      { type: 'space', attrs: { id: 'before-name', height: 22 } },
      paragraph('signed', [
        ...(isName
          ? [value('owner', `${this.root}.${field!}`, [{ type: 'bold' }], true), { type: 'hardBreak' as const }]
          : []),
        value('signed-company', 'company.name'),
      ]),
    ];
  }
}

const text = (words: string): Inline => ({ type: 'text', text: words });
const value = (id: string, formula: string, marks?: [{ type: 'bold' }], mayBeBlank?: true): Inline => ({
  type: 'value',
  attrs: { id, formula, ...(mayBeBlank && { mayBeBlank }) },
  ...(marks && { marks }),
});
const paragraph = (id: string, content: Inline[], align?: 'end'): Block => ({
  type: 'paragraph',
  attrs: { id, ...(align && { align }) },
  content,
});
