import { MEANINGS } from '../core/formula/meanings';
import { array, boolean, number, object, string, type InferType } from 'yup';
import { FIGURE_TYPES } from '../core/sheet/figure';
import { DOCUMENT_STATES } from './db/schema';

/** A UUID of any version (RFC 9562); Yup's own knows none later than 5. */
const uuid = () =>
  string().matches(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i, 'This is not the address of anything here.');

/** What routes accept, each checked before anything is done with it. */
const page = {
  sort: string().max(40).default(''),
  descending: boolean().default(false),
  skip: number().integer().min(0).default(0),
  top: number().integer().min(1).max(100).default(50),
  search: string().max(200),
};

export const dealsQuery = object({
  ...page,
  view: string().oneOf(['all', 'needs-quote', 'quoted'] as const).default('all'),
  stage: string().max(100),
  owner: string().max(100),
}); // prettier-ignore

export const registerQuery = object({
  ...page,
  kind: string().max(40),
  state: string().oneOf(DOCUMENT_STATES),
  recordId: string().max(100),
});

export const proofQuery = object({
  deal: string().required('Say which deal.').max(100),
  template: string().required('Say which template.').max(100),
  edition: string().max(100),
  houseStyle: string().max(100),
});

export const valuesQuery = object({
  paths: string().required('Say which values.').matches(/^[\w.,]+$/, 'Paths are names with points between them.').max(20_000),
}); // prettier-ignore

export const workingsQuery = object({ key: uuid().required(), id: string().required().max(1_000) });

export const filingBody = object({
  recordId: string().required().max(100),
  templateId: string().required().max(100),
  templateVersionId: uuid().required(),
  issueDate: string().matches(/^\d{4}-\d{2}-\d{2}$/).required(),
  edition: string().max(100),
  used: object().required(),
  skipped: object().default({}),
}); // prettier-ignore

export const changeBody = object({
  type: string().required().max(100),
  id: string().required().max(100),
  version: string().required().max(100),
  field: string().required().max(100),
  /** The value as text, the way a person typed it; empty clears the field. */
  value: string().max(10_000).default(''),
});
export type FieldChange = InferType<typeof changeBody>;

export const findQuery = object({ q: string().max(200).default('') });
export const documentId = object({ id: uuid().required() });

/** A name in formulas: what can be written without backquotes. */
const name = () => string().matches(/^[A-Za-z_][A-Za-z_0-9]{0,79}$/, 'A name has letters, digits and _, and a letter first.'); // prettier-ignore
const formula = () => string().max(20_000).defined();
const figure = object({
  name: name().required(),
  label: string().trim().required('Every figure needs a label.').max(120),
  formula: formula(),
  type: string().oneOf(FIGURE_TYPES).required(),
  meaning: string().oneOf(MEANINGS).optional(),
  internal: boolean().optional(),
  digits: number().integer().min(-6).max(12).optional(),
}).noUnknown();
const table = object({
  name: name().required(),
  label: string().required().max(120),
  columns: array(
    object({
      name: name().required(),
      label: string().required().max(120),
      type: string().oneOf(['number', 'percent', 'money', 'text', 'date'] as const).required(),
      currency: string().matches(/^[A-Z]{3}$/).optional(),
    }).noUnknown(),
  ).required().max(40),
  rows: array(array(string().defined().max(2_000)).required().max(40)).required().max(10_000),
}).noUnknown(); // prettier-ignore

/** A figure sheet with the renames that led to it, so that the page's formulas can follow. */
export const sheetBody = object({
  base: uuid().required(),
  renames: array(object({ key: string().required().max(200), name: name().required() }).noUnknown()).required().max(500),
  sheet: object({
    currency: formula(),
    rounding: string().oneOf(['half-away', 'half-even'] as const).required(),
    perLine: array(figure).required().max(200),
    lists: array(
      object({ name: name().required(), label: string().required().max(120), formula: formula(), columns: array(figure).required().max(200) }).noUnknown(),
    ).required().max(50),
    document: array(figure).required().max(500),
    sums: array(object({ column: formula(), figure: string().required() }).noUnknown()).required().max(100),
    tables: array(table).optional().max(50),
  }).noUnknown().required(),
}); // prettier-ignore
