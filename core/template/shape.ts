import { MEANINGS } from '../formula/meanings';
import { array, boolean, lazy, mixed, number, object, string, type AnyObjectSchema, type Lazy, type Schema } from 'yup';
import { FIGURE_TYPES } from '../sheet/figure';
import { PAGE_SIZES, SYMBOLOGIES, TABLE_STYLES } from './layout';
import { COMPOSITIONS, DOCUMENT_KINDS, FILE_MEDIA_TYPES, PDF_STANDARDS, TEMPLATE_FORMAT } from './template';

/** Shapes that are told apart by their `type`, by the name that the JSON Schema gives them. */
export const UNIONS = new Map<string, Readonly<Record<string, AnyObjectSchema>>>();

const text = (longest = 10_000) => string().max(longest);
const id = () =>
  string()
    .matches(/^[\w.-]{1,80}$/, 'letters, digits, “.”, “-” and “_” only')
    .required();
const name = () => text(200).required();
const formula = () => text(20_000);
const placeholders = () => text(20_000).defined();
const points = () => number().min(0).max(2_000);
/** An object of these fields and no others; absent where it is not required. */
const shape = (fields: Record<string, Schema | Lazy<unknown>>): AnyObjectSchema =>
  object(fields as never).noUnknown().default(undefined); // prettier-ignore
const one = <Value extends string>(values: readonly Value[]) => string().oneOf([...values]);
const list = (of: Schema | Lazy<unknown>) => array().of(of as never);
const map = (of: Schema | Lazy<unknown>) =>
  lazy((value: unknown) =>
    value === undefined ? mixed() : object(Object.fromEntries(Object.keys(Object(value)).map((key) => [key, of])) as never),
  ).meta({ map: of }); // prettier-ignore

/** One of several shapes, chosen by `type`. */
function union(called: string, shapes: Readonly<Record<string, AnyObjectSchema>>) {
  const named = Object.fromEntries(Object.entries(shapes).map(([type, each]) => [type, each.shape({ type: string().oneOf([type]).required() } as never)])); // prettier-ignore
  UNIONS.set(called, named);
  return lazy((value: unknown) => {
    const known = named[String((value as { type?: unknown } | null)?.type)];
    return known ?? shape({ type: one(Object.keys(named)).required() });
  }).meta({ ref: called });
}

const mark = union('mark', {
  bold: shape({}), italic: shape({}), underline: shape({}), quiet: shape({}),
  colour: shape({ attrs: shape({ colour: string().matches(/^(accent|#[0-9a-f]{6})$/i, '“accent”, or “#” and six hexadecimal digits').required() }).required() }),
  link: shape({ attrs: shape({ href: string().matches(/^(https?:|mailto:|tel:)/i, 'an address that begins with https:, mailto: or tel:').required() }).required() }),
}); // prettier-ignore
const marks = () => list(mark);
const format = () => one(['full', 'plain', 'long-date', 'short-date']);

const plainInlines = {
  text: shape({ text: text().defined(), marks: marks() }),
  hardBreak: shape({}),
  pageNumber: shape({}),
  pageCount: shape({}),
  documentTitle: shape({}),
};
const inline = union('inline', {
  ...plainInlines,
  value: shape({ attrs: shape({ id: id(), formula: formula().required(), format: format(), mayBeBlank: boolean() }).required(), marks: marks() }),
}); // prettier-ignore
const inlines = () => list(inline).required();
const withId = (fields: Record<string, Schema> = {}) => shape({ id: id(), ...fields }).required();
const wordingInline = union('wordingInline', { ...plainInlines, value: shape({ attrs: withId() }) });

const column = shape({
  id: id(), heading: placeholders(), formula: formula().defined(), counter: boolean(),
  picture: shape({ width: points().required(), height: points().required() }),
  detail: formula(), format: format(), align: one(['start', 'end']).required(), width: one(['content', 'rest']).required(),
  mayBeBlank: boolean(), when: formula(), total: formula(),
}); // prettier-ignore
const lineTable = shape({
  id: id(), label: name(), list: formula().required(), filter: formula(),
  sort: shape({ by: formula().required(), descending: boolean() }),
  columns: list(column).min(1).required(), empty: placeholders().optional(),
  groups: shape({
    list: formula().required(), items: formula().required(), heading: placeholders(),
    subtotal: shape({ label: placeholders(), formula: formula().required() }),
  }),
  bundles: shape({ key: formula().required(), partOf: formula().required(), show: formula().required(), name: formula().required() }),
  carry: text(80), style: one(TABLE_STYLES),
}); // prettier-ignore
const totalsRow = shape({ id: id(), label: placeholders(), formula: formula().required(), each: formula(), when: formula(), emphasis: one(['total']) }); // prettier-ignore

const blocks = (): Schema => list(lazy(() => block as never).meta({ ref: 'block' }));
const align = () => one(['start', 'end']);
const block: Lazy<unknown> = union('block', {
  paragraph: shape({ attrs: withId({ look: one(['quiet', 'small', 'lead']), align: align() }), content: inlines() }),
  heading: shape({ attrs: withId({ level: number().oneOf([1, 2, 3]).required() }), content: inlines() }),
  bulletList: shape({ attrs: withId(), content: list(inlines()).required() }),
  numberedList: shape({ attrs: withId({ start: number().integer().min(0) }), content: list(inlines()).required() }),
  gridTable: shape({ attrs: withId({ widths: list(number().min(0.01).required()).min(1).required(), header: boolean() }), rows: list(list(inlines())).required() }),
  lineTable: shape({ attrs: lineTable.required() }),
  totals: shape({ attrs: withId({ rows: list(totalsRow).required() }) }),
  whenSection: shape({ attrs: withId({ when: formula().required(), note: text(200).required() }), content: blocks().required(), otherwise: blocks() }),
  forEach: shape({ attrs: withId({ list: formula().required(), note: text(200).required(), startsPage: boolean() }), content: blocks().required() }),
  clause: shape({ attrs: withId({ clause: id() }) }),
  richText: shape({ attrs: withId({ formula: formula().required(), mayBeBlank: boolean() }) }),
  pageBreak: shape({ attrs: withId() }),
  signature: shape({ attrs: withId({ label: placeholders(), date: placeholders() }) }),
  picture: shape({ attrs: withId({ file: text(80), formula: formula(), width: points().required(), height: points(), alt: text(500).defined(), align: align() }) }),
  code: shape({ attrs: withId({ symbology: one(SYMBOLOGIES).required(), formula: formula().required(), width: points().required(), alt: text(500).defined() }) }),
  paymentCode: shape({ attrs: withId({ payee: formula().required(), iban: formula().required(), amount: formula().required(), reference: formula().required(), width: points().required() }) }),
  keepTogether: shape({ attrs: withId(), content: blocks().required() }),
  columns: shape({ attrs: withId({ widths: list(number().min(0.01).required()).min(1).required() }), columns: list(blocks()).required() }),
  logo: shape({ attrs: withId({ width: points().required(), align: align() }) }),
  divider: shape({ attrs: withId() }),
  space: shape({ attrs: withId({ height: points().required() }) }),
}); // prettier-ignore

const figure = shape({
  name: id(), label: name(), formula: formula().required(), type: one(FIGURE_TYPES).required(), meaning: one(MEANINGS), internal: boolean(),
  digits: number().integer().min(0).max(12),
}); // prettier-ignore
const sheet = shape({
  currency: formula().required(), rounding: text(40).required(), perLine: list(figure).required(),
  lists: list(shape({ name: id(), label: name(), formula: formula().required(), columns: list(figure).required() })).required(),
  document: list(figure).required(),
  sums: list(shape({ column: formula().required(), figure: id() })).required(),
  tables: list(shape({
    name: id(), label: name(),
    columns: list(shape({ name: id(), label: name(), type: one(['number', 'percent', 'money', 'text', 'date']).required(), currency: text(3) })).min(1).required(),
    rows: list(list(text(1_000).defined()).required()).required(),
  })),
}); // prettier-ignore

const wordingOfText = shape({ of: text(64).required(), text: placeholders() });
const wordingOfContent = shape({ of: text(64).required(), content: list(wordingInline).required() });
const wording = lazy((value: unknown) => ('text' in Object(value) ? wordingOfText : wordingOfContent)).meta({ ref: 'wording' }); // prettier-ignore
const edition = shape({
  id: id(), label: name(), locale: string().matches(/^[a-z]{2,3}(-[A-Za-z]{4})?(-[A-Z]{2})?$/, 'a language tag such as en-GB').required(),
  houseStyle: text(80), words: map(wording), without: list(id()), instead: map(list(block)),
}); // prettier-ignore
const colour = () => string().matches(/^#[0-9a-f]{6}$/i, '“#” and six hexadecimal digits');
const type = shape({ text: number().min(6).max(16).required(), step: number().min(1).max(2).required() });
const plan = shape({
  id: id(), label: name(), fileName: placeholders(), series: id(), title: placeholders(),
  pdf: shape({
    standard: one(PDF_STANDARDS), watermark: text(60),
    protection: shape({ password: formula(), printing: boolean().required(), copying: boolean().required(), changing: boolean().required() }),
  }),
}); // prettier-ignore
const file = shape({
  mediaType: one(FILE_MEDIA_TYPES).required(), sha256: string().matches(/^[0-9a-f]{64}$/, 'a SHA-256 in hexadecimal').required(),
  pages: number().integer().min(1), width: number().min(1), height: number().min(1), content: string(),
}); // prettier-ignore
const margin = () => number().min(0).max(100).required();

/** The shape of a template file: what `Template` says in types, to be checked where one comes from outside. */
export const templateShape = shape({
  $schema: text(500), format: string().oneOf([TEMPLATE_FORMAT]).required(), formatVersion: number().oneOf([1]).required(),
  id: id(), name: name(), kind: one(DOCUMENT_KINDS).required(),
  record: shape({ type: id(), root: id() }).required(),
  houseStyle: id(),
  style: shape({
    table: one(TABLE_STYLES), composition: one(COMPOSITIONS), type: type,
    colours: shape({ ink: colour(), quiet: colour(), accent: colour(), rule: colour(), tint: colour() }),
  }),
  edition: formula(),
  sheet: sheet.required(),
  layout: shape({
    page: shape({
      size: one(PAGE_SIZES).required(), landscape: boolean(),
      margins: shape({ top: margin(), right: margin(), bottom: margin(), left: margin() }),
    }).required(),
    header: blocks(), followingHeader: blocks(), footer: blocks(), body: blocks().required(),
  }).required(),
  editions: list(edition).min(1).required(),
  plans: list(plan).min(1).required(),
  checks: list(shape({ id: id(), title: name(), formula: formula().required(), sentence: placeholders(), severity: one(['stops', 'warns']).required(), figure: text(80) })).required(),
  annexes: list(shape({ id: id(), label: name(), file: formula().required(), counted: boolean() })),
  files: map(file),
}); // prettier-ignore

/** Shapes that the JSON Schema names, besides the unions. */
export const NAMED_SHAPES: Readonly<Record<string, readonly AnyObjectSchema[]>> = {
  wording: [wordingOfText, wordingOfContent],
};
