/** Shapes of what endpoints answer, where the core says by its types alone what they are. */
import type { ISchema } from 'yup';
import { recordLayout } from '../record/layout';
import type { FieldSchema, RecordSchema } from '../record/schema';
import type { RecordSnapshot } from '../record/snapshot';
import type { BridgeStep } from '../production/bridge';
import type { PrintedFigure } from '../production/composition';
import type { Finding } from '../production/findings/finding';
import type { RegisteredDocument } from '../formula/functions/register';
import { anything, boolean, listOf, number, oneOf, requiredMapOf, shape, text, type ShapeOf } from '../shape/shape';
import type { Workings } from '../sheet/workings';

/** A text of any length that a list or a page of Lumbix can hold. */
export const words = () => text(1_000_000).defined();
const many = 100_000;

/** An instant, ISO 8601 with its time zone. */
export const moment = () => words().meta({ format: 'date-time' });
/** A day, ISO 8601. */
export const day = () => words().meta({ format: 'date' });
/** A UUID (RFC 9562). */
export const uuidText = () => words().meta({ format: 'uuid' });
/** A decimal number as text: `1250.50`. */
export const decimalText = () => words().meta({ about: 'A decimal number as text, such as 1250.50.' });

export const fieldValue = () =>
  anything<RecordSnapshot['fields'][string]>(
    'The value of a field: a text, true or false, null; {"number"}, {"percent"}, {"amount", "currency"}, {"date"}, {"datetime"}, {"choices"}, {"rich"} or {"image"}; a related record, or a list of them.',
  );

/** A record as it was read. */
export const recordSnapshot = () =>
  shape({ type: words(), id: words(), version: words().optional(), fields: requiredMapOf(fieldValue()) }).required();

export const fieldSchema: ShapeOf<FieldSchema> = shape({
  name: words(),
  label: words(),
  type: oneOf([
    'text',
    'number',
    'percent',
    'money',
    'boolean',
    'date',
    'datetime',
    'choice',
    'choices',
    'record',
    'records',
    'rich',
    'image',
  ]).required(),
  nullable: boolean().required(),
  readonly: boolean().required(),
  target: words().optional(),
  identifies: boolean(),
  allowed: listOf(shape({ value: words(), label: words() }).required(), many),
}).required();

/** What the CRM says about its record types. */
export const recordSchema: ShapeOf<RecordSchema> = shape({
  types: requiredMapOf(
    shape({
      name: words(),
      label: words(),
      plural: words().optional(),
      fields: requiredMapOf(fieldSchema),
      files: words().optional(),
      layout: recordLayout.optional(),
    }).required(),
  ),
}).required();

export const finding: ShapeOf<Finding> = shape({
  id: words(),
  severity: oneOf(['stops', 'warns', 'notes']).required(),
  of: oneOf(['template']),
  title: words(),
  sentence: words(),
  block: words().optional(),
  values: listOf(words(), many).required(),
  path: words().optional(),
  workings: words().optional(),
  ready: shape({ label: words(), reason: words() }),
}).required();

export const printedFigure: ShapeOf<PrintedFigure> = shape({
  name: words(),
  label: words(),
  result: words(),
  failed: boolean().required(),
  workings: words(),
  internal: boolean().required(),
  isSum: boolean(),
}).required();

export const bridgeStep: ShapeOf<BridgeStep> = shape({
  kind: oneOf(['level', 'change']).required(),
  label: words(),
  value: decimalText(),
  after: decimalText(),
  text: words(),
  workings: words(),
}).required();

export const workings: ShapeOf<Workings> = shape({
  id: words(),
  label: words(),
  place: words().optional(),
  formula: words(),
  inputs: listOf(
    shape({
      formula: words(),
      label: words(),
      value: words(),
      path: words().optional(),
      figure: words().optional(),
    }).required(),
    many,
  ).required(),
  steps: listOf(shape({ text: words(), result: words() }).required(), many).required(),
  rounding: shape({ before: words(), after: words() }),
  result: words(),
  sentence: words(),
  failed: boolean().required(),
}).required();

export const registeredDocument: ShapeOf<RegisteredDocument> = shape({
  id: uuidText(),
  number: words(),
  kind: words(),
  issued: day(),
  meanings: anything<RegisteredDocument['meanings']>('Its figures by their meaning.'),
}).required();

/** A list of as many as there are. */
export const all = <T>(of: ISchema<T>) => listOf(of, many).required();
export const count = () => number().integer().required();
