import { string } from 'yup';
import { oneOf, requiredMapOf, shape, text, texts, uuid } from '../shape/shape';
import {
  all,
  bridgeStep,
  count,
  day,
  decimalText,
  finding,
  moment,
  printedFigure,
  uuidText,
  words,
  workings,
} from './answers';
import { endpoint } from './endpoint';
import { listQuery } from './list-query';

/** How far the filing of a document is. */
export const DOCUMENT_STATES = ['preparing', 'rendered', 'attached', 'filed', 'failed'] as const;
export type DocumentState = (typeof DOCUMENT_STATES)[number];
export const documentState = () => oneOf(DOCUMENT_STATES).required();

const ofDocument = shape({ id: uuid().required() }).required();

/** A document as a row of the register. */
const row = {
  id: uuidText(),
  kind: words(),
  state: documentState(),
  number: words(),
  title: words(),
  fileName: words(),
  recordId: words(),
  recordName: words(),
  accountName: words(),
  templateId: words(),
  amount: decimalText().nullable(),
  currency: words().nullable(),
  issueDate: day(),
  reason: words().nullable(),
  createdAt: moment(),
  filedAt: moment().nullable(),
};
const documentRow = shape(row).required();

export const documentEndpoints = {
  'GET /documents': endpoint({
    about: 'A page of the register, filtered and sorted.',
    may: 'look',
    query: shape({
      ...listQuery,
      kind: text(40),
      state: oneOf(DOCUMENT_STATES),
      recordId: text(100),
    }).required(),
    answer: shape({
      documents: all(documentRow),
      total: count(),
      /** Sums of what is filed, by currency. */
      totals: all(shape({ currency: words().nullable(), amount: decimalText().nullable() }).required()),
    }).required(),
    twice: 'safe',
  }),
  'POST /documents': endpoint({
    about: 'Begins to file a document; answers once its number is taken and its job is kept.',
    may: 'file',
    body: shape({
      recordId: text(100).min(1).required(),
      templateId: text(100).min(1).required(),
      /** The template version that the proof was made from. */
      templateVersionId: uuid().required(),
      issueDate: string()
        .matches(/^\d{4}-\d{2}-\d{2}$/, 'a day such as 2026-11-23')
        .required(),
      /** The edition that was looked at. */
      edition: text(100),
      /** What the proof used, so that a change since can be told. */
      used: texts(),
      /** Reasons for skipping findings that warn, by finding. */
      skipped: texts(),
    }).required(),
    answer: shape({ id: uuidText(), number: words() }).required(),
    status: 202,
    problems: [404, 409],
    twice: 'again',
    perMinute: 120,
  }),
  'GET /documents/{id}': endpoint({
    about: 'One document of the register with its history, figures and workings.',
    may: 'look',
    parameters: ofDocument,
    answer: shape({
      document: shape({
        ...row,
        skipped: requiredMapOf(words()),
        attachmentId: words().nullable(),
      }).required(),
      explained: shape({
        figures: all(printedFigure),
        bridge: all(bridgeStep).nullable(),
        workings: requiredMapOf(workings),
        findings: all(finding),
      })
        .nullable()
        .defined(),
      history: all(
        shape({ id: uuidText(), kind: words(), sentence: words(), at: moment(), by: words().nullable() }).required(),
      ),
    }).required(),
    problems: [404],
    twice: 'safe',
  }),
  'GET /documents/{id}/file': endpoint({
    about: 'The filed PDF itself. It never changes, so browsers may keep it for good.',
    may: 'look',
    parameters: ofDocument,
    answer: { file: 'application/pdf' },
    problems: [404],
    twice: 'safe',
  }),
  'GET /documents/{id}/states': endpoint({
    about: 'The states of a document as server-sent events, from the one it has to the one it ends in.',
    may: 'look',
    parameters: ofDocument,
    answer: { events: documentRow },
    problems: [404],
    twice: 'safe',
  }),
};
