import { CALCULATIONS } from '../calculations';
import type { Meaning } from '../formula/meanings';
import { partField } from '../record/layout';
import { relationsOf } from '../record/paths';
import { fieldOf, LINES, recordTypeOf, type RecordSchema } from '../record/schema';
import { checkSheet } from '../sheet/check-sheet';
import type { Figure, FigureSheet } from '../sheet/figure';
import type { Block } from './blocks';
import type { ColumnDefinition } from './blocks/line-table';
import { checkContext } from './check';
import type { DocumentKind } from './document-kinds';
import { lineColumns } from './line-columns';
import type { Inline } from './inlines';
import { FORMAT_VERSION, type Template } from './template';

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
  const called = start.account() ?? start.own('name');
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

/** What a calculation is known by in a document. */
interface Priced {
  sheet: FigureSheet;
  /** The lines that are summed. */
  list: string;
  net: Figure;
  totals: Figure[];
}

/** Looks for what a record type has, by its schema and layout alone, and builds on that. */
class Start {
  readonly root: string;
  readonly #type: string;
  readonly #lines: string | undefined;
  readonly #priced: Priced | undefined;

  constructor(
    readonly beginning: Beginning,
    readonly around: Around,
  ) {
    this.#type = beginning.recordType;
    this.root = rootOf(this.#type);
    this.#lines = fieldOf(around.schema, this.#type, LINES)?.target;
    this.#priced = this.#pricedBy(CALCULATIONS.map(({ sheet }) => sheet).find((sheet) => this.#fits(sheet)));
  }

  /** The path of one of the record's own parts, where it is a plain field. */
  own(part: 'name' | 'amount' | 'owner'): string | undefined {
    const field = partField(this.around.schema, this.#type, part);
    const known = field === undefined ? undefined : fieldOf(this.around.schema, this.#type, field);
    return known && !known.target ? `${this.root}.${known.name}` : undefined;
  }

  /** The path of a field of the record's account: of its name, or of one that is called so. */
  account(field?: string): string | undefined {
    const { schema } = this.around;
    const relation = partField(schema, this.#type, 'account');
    const target = relation === undefined ? undefined : fieldOf(schema, this.#type, relation)?.target;
    const name = field ?? partField(schema, target, 'name');
    return name !== undefined && fieldOf(schema, target, name) ? `${this.root}.${relation}.${name}` : undefined;
  }

  /** The person who is written to: the first record next to this one that is not its account. */
  get #person(): string | undefined {
    const { schema } = this.around;
    const account = partField(schema, this.#type, 'account');
    const found = relationsOf(schema, this.#type).find(
      ({ name, type, target }) =>
        type === 'record' && name !== account && partField(schema, target, 'name') !== undefined,
    );
    return found && `${this.root}.${found.name}`;
  }

  /** Whether a ready-made calculation can be computed for such records. */
  #fits(sheet: FigureSheet): boolean {
    const { schema } = this.around;
    const context = checkContext({ sheet, record: { type: this.#type, root: this.root } }, schema);
    const { figures, problems } = checkSheet(context);
    return (
      problems.length === 0 &&
      Object.values(figures).every((each) => each.diagnostics.length + each.problems.length === 0)
    );
  }

  #pricedBy(sheet: FigureSheet | undefined): Priced | undefined {
    const { kind } = this.beginning;
    if (!sheet || WITHOUT_LINES.includes(kind) || WITHOUT_PRICES.includes(kind)) return undefined;
    const net = sheet.perLine.find(({ meaning }) => meaning === 'line-net');
    const totals = TOTALS.flatMap((wanted) => sheet.document.find(({ meaning }) => meaning === wanted) ?? []);
    const column = sheet.sums.find(({ figure }) => figure === totals[0]?.name)?.column;
    if (!net || column === undefined || !column.endsWith(`.${net.name}`)) return undefined;
    return { sheet, net, totals, list: column.slice(0, -net.name.length - 1) };
  }

  sheet(isEmpty: boolean): FigureSheet {
    if (this.#priced && !isEmpty) return this.#priced.sheet;
    const { schema } = this.around;
    const named = Object.values(recordTypeOf(schema, this.#type)?.fields ?? {}).find(
      ({ name, type }) => name === 'currency' && (type === 'text' || type === 'choice'),
    );
    const currency = named ? `${this.root}.${named.name}` : '"EUR"';
    return { currency, rounding: 'half-away', perLine: [], lists: [], document: [], sums: [] };
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
    const name = this.account() ?? this.own('name');
    const [street, postcode, city, country] = ['street', 'postcode', 'city', 'country'].map((part) =>
      this.account(part),
    );
    const address =
      street && postcode && city && country
        ? value('address-lines', `ADDRESS(${street}, ${postcode}, ${city}, ${country}, company.country)`)
        : undefined;
    const person = this.#person;
    return {
      type: 'columns',
      attrs: { id: 'head' },
      content: [
        {
          type: 'column',
          attrs: { id: 'head.1', width: 1 },
          content: [
            ...(name === undefined ? [] : [paragraph('customer', [value('customer-name', name, [{ type: 'bold' }])])]),
            ...(person ? [paragraph('person', [value('person-name', person, undefined, true)])] : []),
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
    const person = this.#person;
    const toAll = (id: string) => paragraph(id, [text('Dear Sir or Madam,')]);
    if (!person) return [toAll('greeting')];
    const toOne = paragraph('greeting', [text('Dear '), value('greeting-name', person), text(',')]);
    return [
      {
        type: 'whenSection',
        attrs: { id: 'greeting-choice', when: `not ISBLANK(${person})`, note: 'there is somebody to write to' },
        content: [
          { type: 'then', attrs: { id: 'greeting-choice.then' }, content: [toOne] },
          { type: 'otherwise', attrs: { id: 'greeting-choice.otherwise' }, content: [toAll('greeting-all')] },
        ],
      },
    ];
  }

  #table(): Block[] {
    const { kind } = this.beginning;
    if (this.#lines === undefined || WITHOUT_LINES.includes(kind)) return [];
    const priced = this.#priced;
    const columns = lineColumns(this.around.schema, this.#lines, priced !== undefined);
    const net: ColumnDefinition[] = priced
      ? [
          {
            id: 'line-net',
            heading: priced.net.label,
            formula: priced.net.name,
            format: 'plain',
            total: priced.totals[0]!.name,
            align: 'end',
            width: 'content',
          },
        ]
      : [];
    const attrs = { id: 'lines', label: 'Lines', list: priced?.list ?? LINES, columns: [...columns, ...net] };
    return [{ type: 'lineTable', attrs: { ...attrs, ...(priced && { carry: 'line-net' }) } }];
  }

  #totals(): Block[] {
    const totals = this.#priced?.totals ?? [];
    if (totals.length === 0) return [];
    const rows = totals.map(({ name, label }, at) => ({
      id: name,
      label,
      formula: name,
      ...(at === totals.length - 1 && { emphasis: 'total' as const }),
    }));
    return [{ type: 'totals', attrs: { id: 'totals', rows } }];
  }

  /** What a receipt is for, in one line. */
  #received(): Block[] {
    const amount = this.own('amount');
    if (this.beginning.kind !== 'receipt' || amount === undefined) return [];
    const row = { id: 'received', label: 'Received', formula: amount, emphasis: 'total' as const };
    return [{ type: 'totals', attrs: { id: 'received', rows: [row] } }];
  }

  #closing(): Block[] {
    const owner = this.own('owner');
    return [
      { type: 'space', attrs: { id: 'before-closing', height: 14 } },
      paragraph('closing', [text('Yours sincerely,')]),
      { type: 'space', attrs: { id: 'before-name', height: 22 } },
      paragraph('signed', [
        ...(owner ? [value('owner', owner, [{ type: 'bold' }], true), { type: 'hardBreak' as const }] : []),
        value('signed-company', 'company.name'),
      ]),
    ];
  }
}

/** What is printed below the lines, from the sum of the lines on (EN 16931 BT-106, BT-110, BT-112). */
const TOTALS: readonly Meaning[] = ['sum-of-lines', 'tax-total', 'gross-total'];

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
