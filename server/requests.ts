import { boolean, number, object, string, type InferType, type ISchema } from 'yup';
import { formulaName, listOf, shape, text } from '../core/shape/shape';
import { figureSheet } from '../core/sheet/figure';
import { DOCUMENT_STATES } from './db/schema';

/** A UUID of any version (RFC 9562); Yup's own knows none later than 5. */
const uuid = () => string().matches(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i, 'an id as Lumbix gives them');

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
  deal: string().required().max(100),
  template: string().required().max(100),
  edition: string().max(100),
  houseStyle: string().max(100),
});

export const valuesQuery = object({
  paths: string()
    .required()
    .matches(/^[\w.,]+$/, 'names with points between them')
    .max(20_000),
});

export const workingsQuery = object({ key: uuid().required(), id: string().required().max(1_000) });

/** Texts by a key, however many: a filing says every value that its proof used. */
const texts = () =>
  object()
    .required()
    .test('texts', (all) => Object.values(all).every((each) => typeof each === 'string')) as ISchema<
    Readonly<Record<string, string>>
  >;

export const filingBody = shape({
  recordId: text(100).required(),
  templateId: text(100).required(),
  templateVersionId: uuid().required(),
  issueDate: string()
    .matches(/^\d{4}-\d{2}-\d{2}$/, 'a day such as 2026-11-23')
    .required(),
  edition: text(100),
  used: texts(),
  skipped: texts(),
}).required();

export const changeBody = shape({
  type: text(100).required(),
  id: text(100).required(),
  /** The entity tag it was read with (RFC 9110, 8.8.3): never `*`, which would write over anything. */
  version: string()
    .required()
    .matches(/^(W\/)?"[\x21\x23-\x7e]{1,200}"$/, 'the entity tag that the record was read with'),
  field: text(100).required(),
  /** The value as text, the way a person typed it; empty clears the field. */
  value: text(10_000).defined(),
}).required();
export type FieldChange = InferType<typeof changeBody>;

export const findQuery = object({ q: string().max(200).default('') });
export const documentId = object({ id: uuid().required() });

/** A figure sheet with the renames that led to it, so that the page's formulas can follow. */
export const sheetBody = shape({
  /** The version that was changed. */
  base: uuid().required(),
  renames: listOf(shape({ key: string().required().max(200), name: formulaName() }).required(), 500).required(),
  sheet: figureSheet,
  /** Why it is published although it stops on some records. */
  reason: text(500),
}).required();
export type SheetChange = InferType<typeof sheetBody>;

/** Why a template is published although it stops on some records. */
export const reasonQuery = shape({ reason: text(500) }).required();
