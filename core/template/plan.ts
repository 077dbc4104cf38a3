/** The ways out of a template: what a document is called and numbered by, how its PDF is made, and what is done once it is filed. */
import {
  boolean,
  byType,
  formula,
  id,
  label,
  listOf,
  oneOf,
  placeholders,
  shape,
  text,
  type InferType,
} from '../shape/shape';
import { PDF_STANDARDS } from './template-file';

/** What a person who has the PDF may do; with a password to open it, if there is one. ISO 32000-2, 7.6. */
const protection = shape({
  /** Formula of the password that opens it. */
  password: formula(),
  printing: boolean().required(),
  copying: boolean().required(),
  changing: boolean().required(),
});
export type Protection = NonNullable<InferType<typeof protection>>;

/** What every step has: an id within its plan, and the condition under which it is done; always, where there is none. */
interface StepBase {
  id: string;
  when?: string;
}

/** Sets fields of the record, each to what a formula gives: the stage too. */
export interface SetFieldsStep extends StepBase {
  type: 'setFields';
  fields: { field: string; value: string }[];
}

/** Writes an activity on the record, of a kind that its source knows. */
export interface ActivityStep extends StepBase {
  type: 'activity';
  kind: string;
  /** With placeholders, as is `text`. */
  subject: string;
  text?: string;
}

/** Keeps a copy of the PDF at one of the places that are set up, under a path that values may be part of. */
export interface CopyStep extends StepBase {
  type: 'copy';
  place: string;
  path: string;
}

/** Puts the address of the document in Lumbix into a field of the record. */
export interface AddressStep extends StepBase {
  type: 'address';
  field: string;
}

/** Something that is done after a document is filed. */
export type PlanStep = SetFieldsStep | ActivityStep | CopyStep | AddressStep;

const MOST_FIELDS = 50;
const MOST_STEPS = 20;

const base = { id: id(), when: formula() };
const fieldName = () => text(100).min(1).required();
const planStep = byType<PlanStep>('planStep', () => ({
  setFields: shape({
    type: oneOf(['setFields']).required(),
    ...base,
    fields: listOf(shape({ field: fieldName(), value: formula().required() }).required(), MOST_FIELDS)
      .min(1)
      .required(),
  }).required(),
  activity: shape({
    type: oneOf(['activity']).required(),
    ...base,
    kind: text(100).min(1).required(),
    subject: placeholders().min(1),
    text: text(20_000),
  }).required(),
  copy: shape({
    type: oneOf(['copy']).required(),
    ...base,
    place: id(),
    path: placeholders().min(1),
  }).required(),
  address: shape({ type: oneOf(['address']).required(), ...base, field: fieldName() }).required(),
}));

/** A named way out of a template. */
export const plan = shape({
  id: id(),
  label: label(),
  /** Made safe for file systems. */
  fileName: placeholders(),
  /** The number series the document takes its number from. */
  series: id(),
  /** The document's title, for the register and the PDF. */
  title: placeholders(),
  pdf: shape({
    standard: oneOf(PDF_STANDARDS),
    /** Text across every page. */
    watermark: text(60),
    protection,
  }),
  /** What is done after the document is filed, in this order. */
  steps: listOf(planStep, MOST_STEPS),
}).required();
export type Plan = InferType<typeof plan>;
