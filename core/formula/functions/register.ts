import { itemPath } from '../../record/value-path';
import { type Meaning, keptMeanings, type MeaningAmount, type Meanings, type MeaningValues } from '../meanings';
import { minorUnit } from '../../money/currency';
import { Decimal } from '../../money/decimal';
import { dayOf } from '../date';
import { ValuesRow } from '../row';
import { DATE, listOf, MONEY, PERCENT, shapeOf, TEXT } from '../type';
import { error, money, percent, text, type Value } from '../value';
import { eager } from './function';

/** An earlier filed document of the same record, with the values of its figures that have a meaning. */
export interface RegisteredDocument {
  id: string;
  number: string;
  /** `invoice`, `credit note`, `quote` and so on, as its template says. */
  kind: string;
  /** ISO 8601 day of issue. */
  issued: string;
  /** As its composition kept them. */
  meanings: Meanings | MeaningValues;
}

/** What an invoice asks for a tax category at a rate, less what credit notes have taken off it. */
interface BilledSum {
  document: RegisteredDocument;
  category: string;
  /** A fraction, as decimal text. */
  rate: string;
  currency: string;
  base: Decimal;
  tax: Decimal;
}

/** The meanings that earlier documents can be asked for, by the name they have in formulas. */
const REGISTERED_MEANINGS = [
  'sum-of-lines',
  'allowances',
  'charges',
  'net-total',
  'tax-total',
  'gross-total',
  'prepaid',
  'rounding',
  'payable',
] as const satisfies readonly Meaning[];
const meaningName = (meaning: Meaning) => meaning.replaceAll('-', '_');
const isKind = ({ kind }: RegisteredDocument, wanted: string) => kind.toLowerCase() === wanted;

export const REGISTERED = eager(
  {
    name: 'REGISTERED',
    family: 'The trade',
    parameters: [{ name: 'kind', takes: 'text', optional: true }],
    help: `The documents filed for this record before, oldest first, of one kind or all: each with its \`kind\`, \`number\`, \`date\`, its figures by meaning (${REGISTERED_MEANINGS.map(meaningName).join(', ')}), the invoices that it \`refers_to\`, and of an invoice what credit notes have \`credited\` and what is still \`open\` of what it asked.`,
    example: 'SUM(REGISTERED("invoice").gross_total)',
    result: listOf({
      is: 'record',
      shape: shapeOf('document', {
        kind: TEXT,
        number: TEXT,
        date: DATE,
        refers_to: listOf(TEXT),
        credited: MONEY,
        open: MONEY,
        ...Object.fromEntries(REGISTERED_MEANINGS.map((meaning) => [meaningName(meaning), MONEY])),
      }),
    }),
  },
  ([kind], { registered }) => {
    if (!registered) return error('The register is not known here.');
    const wanted = kind?.type === 'text' ? kind.value.toLowerCase() : undefined;
    const sums = billedSums(registered);
    const documents = registered.filter((each) => wanted === undefined || isKind(each, wanted));
    const items = documents.map((document): Value => ({ type: 'record', row: registeredRow(document, sums) }));
    return { type: 'list', items, holdsMoney: [...REGISTERED_MEANINGS.map(meaningName), 'credited', 'open'] };
  },
);

export const BILLED = eager(
  {
    name: 'BILLED',
    family: 'The trade',
    parameters: [],
    help: 'What the record’s invoices ask, less what they deduct and what credit notes have taken off them: a row for each invoice, tax category and rate of which something is left, with its `number`, `date`, `tax_category`, `tax_rate`, `base`, `tax` and `gross`. What a final invoice deducts, and what a credit note can credit.',
    example: 'SUM(BILLED().gross)',
    result: listOf({
      is: 'record',
      shape: shapeOf('invoiced sum', {
        number: TEXT,
        date: DATE,
        tax_category: TEXT,
        tax_rate: PERCENT,
        base: MONEY,
        tax: MONEY,
        gross: MONEY,
      }),
    }),
  },
  (_, { registered }) => {
    if (!registered) return error('The register is not known here.');
    const left = billedSums(registered).filter(({ base, tax }) => !base.isZero() || !tax.isZero());
    const items = left.map((sum): Value => ({ type: 'record', row: billedRow(sum) }));
    return { type: 'list', items, holdsMoney: ['base', 'tax', 'gross'] };
  },
);

/** What is open of each invoice of a record, by its number: what it asks, less what credit notes have taken off it. */
export function openByInvoice(registered: readonly RegisteredDocument[]): Map<string, Decimal> {
  const open = new Map<string, Decimal>();
  for (const { document, base, tax } of billedSums(registered))
    open.set(document.number, (open.get(document.number) ?? Decimal.ZERO).plus(base).plus(tax));
  return open;
}

/** What an earlier document says counts as used: one more of them, and the proof is out of date. */
class RegisteredRow extends ValuesRow {
  override readonly counts = true;

  override inList(list: string): RegisteredRow {
    return new RegisteredRow(itemPath(list, this.id), this.id, this.title, this.values, list, this.place);
  }
}

function registeredRow(document: RegisteredDocument, sums: readonly BilledSum[]): RegisteredRow {
  const place = `The ${document.kind} ${document.number}`;
  const refersTo = new Set(
    keptMeanings(document.meanings).rows.flatMap(({ values }) => values['preceding-invoice'] ?? []),
  );
  const values: Record<string, Value> = {
    kind: text(document.kind),
    number: text(document.number),
    date: dateOf(document),
    refers_to: { type: 'list', items: [...refersTo].map(text) },
    ...openOf(document, sums, place),
  };
  for (const meaning of REGISTERED_MEANINGS) {
    const known = keptMeanings(document.meanings).document[meaning];
    values[meaningName(meaning)] = known
      ? money(Decimal.of(known.value), known.currency, 'amount')
      : { type: 'blank', cause: `no ${meaning.replaceAll('-', ' ')}`, place };
  }
  return new RegisteredRow(itemPath('registered', document.id), document.id, document.number, values, undefined, place);
}

/** What was credited of an invoice, and what is open of what it asked. Other documents have neither. */
function openOf(document: RegisteredDocument, sums: readonly BilledSum[], place: string): Record<string, Value> {
  const own = sums.filter((sum) => sum.document === document);
  const currency = own[0]?.currency;
  if (!isKind(document, 'invoice') || currency === undefined) {
    const blank: Value = { type: 'blank', cause: 'nothing to be paid', place };
    return { credited: blank, open: blank };
  }
  const open = own.reduce((sum, { base, tax }) => sum.plus(base).plus(tax), Decimal.ZERO);
  const asked = askedSums(document).reduce((sum, { base, tax }) => sum.plus(base).plus(tax), Decimal.ZERO);
  return { credited: money(asked.minus(open), currency, 'amount'), open: money(open, currency, 'amount') };
}

function billedRow({ document, category, rate, currency, base, tax }: BilledSum): RegisteredRow {
  const place = `The ${document.kind} ${document.number}`;
  const values: Record<string, Value> = {
    number: text(document.number),
    date: dateOf(document),
    tax_category: text(category),
    tax_rate: percent(Decimal.of(rate)),
    base: money(base, currency, 'amount'),
    tax: money(tax, currency, 'amount'),
    gross: money(base.plus(tax), currency, 'amount'),
  };
  const id = `${document.id} ${category} ${rate}`;
  return new RegisteredRow(itemPath('billed', id), id, document.number, values, undefined, place);
}

function dateOf({ issued }: RegisteredDocument): Value {
  const day = dayOf(issued);
  return day === undefined ? error(`${issued} is not a date.`) : { type: 'date', day };
}

/** What every invoice asks by tax category and rate, with what later credit notes took off it. */
function billedSums(registered: readonly RegisteredDocument[]): BilledSum[] {
  const sums: BilledSum[] = [];
  for (const document of registered) {
    if (isKind(document, 'invoice')) sums.push(...askedSums(document));
    if (isKind(document, 'credit note')) credit(document, sums);
  }
  return sums;
}

/** What an invoice asks: its tax rows, less what it deducts of earlier invoices. */
function askedSums(document: RegisteredDocument): BilledSum[] {
  const sums = new Map<string, BilledSum>();
  const add = (category: string, rate: string, base: MeaningAmount, tax: MeaningAmount, sign: 1 | -1) => {
    const key = JSON.stringify([category, rate]);
    const known = sums.get(key) ?? {
      document,
      category,
      rate,
      currency: base.currency,
      base: Decimal.ZERO,
      tax: Decimal.ZERO,
    };
    const signed = ({ value }: MeaningAmount) => (sign === 1 ? Decimal.of(value) : Decimal.of(value).neg());
    sums.set(key, { ...known, base: known.base.plus(signed(base)), tax: known.tax.plus(signed(tax)) });
  };
  const { document: own, rows } = keptMeanings(document.meanings);
  for (const { values } of rows) {
    const { 'tax-category': category = '', 'tax-rate': rate = '0', 'tax-base': base, 'tax-amount': tax } = values;
    const { 'prepaid-base': lessBase, 'prepaid-tax': lessTax } = values;
    if (base && tax) add(category, rate, base, tax, 1);
    if (lessBase && lessTax) add(category, rate, lessBase, lessTax, -1);
  }
  const deducts = rows.some(({ values }) => values['prepaid-base']);
  const { prepaid } = own;
  const deductsInOne = !deducts && prepaid !== undefined && !Decimal.of(prepaid.value).isZero();
  return sums.size > 0 && !deductsInOne ? [...sums.values()] : askedInOne(document);
}

/** An invoice whose tax rows do not tell what it asks: all of it in one, its tax in proportion to what was deducted. */
function askedInOne(document: RegisteredDocument): BilledSum[] {
  const { 'gross-total': gross, 'tax-total': tax, payable: asked = gross } = keptMeanings(document.meanings).document;
  if (!asked) return [];
  const total = Decimal.of(asked.value);
  const share = !gross || Decimal.of(gross.value).isZero() ? Decimal.ONE : total.div(Decimal.of(gross.value));
  const taxAsked = Decimal.of(tax?.value ?? '0')
    .times(share)
    .round(minorUnit(asked.currency));
  return [{ document, category: '', rate: '0', currency: asked.currency, base: total.minus(taxAsked), tax: taxAsked }];
}

/** Takes a credit note off the invoices that it refers to (BT-25); one that refers to none credits all that came before. */
function credit(note: RegisteredDocument, sums: BilledSum[]): void {
  const credited = keptMeanings(note.meanings).rows.filter(({ values }) => values['preceding-invoice']);
  if (credited.length === 0) {
    for (const sum of sums) [sum.base, sum.tax] = [Decimal.ZERO, Decimal.ZERO];
  }
  for (const { values } of credited) {
    const { 'preceding-invoice': number, 'tax-category': category = '', 'tax-rate': rate = '0' } = values;
    const sum = sums.find(
      (each) => each.document.number === number && each.category === category && each.rate === rate,
    );
    if (!sum) continue;
    sum.base = sum.base.minus(Decimal.of(values['line-net']?.value ?? '0'));
    sum.tax = sum.tax.minus(Decimal.of(values['credited-tax']?.value ?? '0'));
  }
}
