import {
  anything,
  boolean,
  formula,
  formulaName,
  id,
  label,
  listOf,
  mapOf,
  number,
  oneOf,
  placeholders,
  shape,
  text,
  type InferType,
} from '../shape/shape';
import { figureSheet } from '../sheet/figure';
import { ask } from './asks';
import { blockList } from './blocks';
import type { Clause } from './clause';
import { DOCUMENT_KINDS } from './document-kinds';
import { ownStyle, type HouseStyle } from './house-style';
import { layout } from './layout';
import { plan } from './plan';
import { templateFile } from './template-file';
import { words } from './wording';

const TEMPLATE_FORMAT = 'lumbix-template';
export const FORMAT_VERSION = 2;

/** A language or brand variant. It brings words, never logic. */
const edition = shape({
  id: id(),
  label: label(),
  /** BCP 47. */
  locale: text(20)
    .matches(/^[a-z]{2,3}(-[A-Za-z]{4})?(-[A-Z]{2})?$/, 'a language tag such as en-GB')
    .required(),
  /** Instead of the template's. */
  houseStyle: text(120),
  words: words(),
  /** Ids of blocks that this edition leaves out. */
  without: listOf(id(), 500),
  /** Blocks in place of others, by their ids. */
  instead: mapOf(blockList().required()),
}).required();
export type Edition = InferType<typeof edition>;

/** PDF files that are joined to the end, chosen by a formula that gives their names among the template's files. */
const annex = shape({
  id: id(),
  label: label(),
  /** Gives a name, a list of names, or a blank for none. */
  file: formula().required(),
  /** Whether its pages count in “page 1 of 3”. */
  counted: boolean(),
}).required();
export type Annex = InferType<typeof annex>;

/** A rule of the template's own: a formula that must hold, and the sentence if it does not. */
const check = shape({
  id: id(),
  title: label(),
  formula: formula().required(),
  sentence: placeholders(),
  severity: oneOf(['stops', 'warns']).required(),
  /** The figure whose workings explain it. */
  figure: text(200),
}).required();

/** Which records a template is for. */
const fits = shape({
  /** Holds for them. */
  formula: formula().required(),
  /** Said of all others: “Only for won deals.” */
  sentence: placeholders().required(),
  /** What that is where one is produced all the same; it warns where nothing is said. */
  severity: oneOf(['stops', 'warns']),
});
export type Fits = NonNullable<InferType<typeof fits>>;

/** A template in Lumbix's open file format: a JSON file that can be taken out, changed, reviewed and put back. */
export const templateShape = shape({
  $schema: text(500),
  format: oneOf([TEMPLATE_FORMAT]).required(),
  formatVersion: number<typeof FORMAT_VERSION>().oneOf([FORMAT_VERSION]).required(),
  id: id(),
  name: label(),
  kind: oneOf(DOCUMENT_KINDS).required(),
  /** The CRM's record type it is filled from, and the name that record has in formulas. */
  record: shape({ type: formulaName(), root: formulaName() }).required(),
  /** All records of the type, where it is absent. */
  fits,
  /** The stages of a record at which it is usually produced. */
  stages: listOf(text(100).min(1).required(), 100),
  /** What is asked for with each document. */
  asks: listOf(ask, 50),
  houseStyle: id(),
  style: ownStyle,
  /** Formula that gives the edition's id; the first edition where it gives none that there is. */
  edition: formula(),
  sheet: figureSheet,
  layout,
  editions: listOf(edition, 50).min(1).required(),
  plans: listOf(plan, 20).min(1).required(),
  checks: listOf(check, 200).required(),
  /** Records that the template is proved on before it is published, by their ids. */
  proofRecords: listOf(text(100).required(), 20),
  /** A made-up record to look at it with, as people write it (`Sample`). Nothing is filed from it. */
  sample: mapOf(
    anything<unknown>('A value, a list or a related record, as the JSON Schema of what the template reads has them.'),
  ),
  annexes: listOf(annex, 50),
  /** By their names in the template. */
  files: mapOf(templateFile),
}).required();
export type Template = InferType<typeof templateShape>;

/** What a template version was published with: it prints the same whatever becomes of them. */
export interface Pins {
  houseStyles: readonly HouseStyle[];
  clauses: readonly Clause[];
}
