import { boolean, number, oneOf, requiredMapOf, shape, text, texts, uuid } from '../shape/shape';
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
import { madeChange } from './productions';
import { endpoint } from './endpoint';
import { days, listQuery } from './list-query';

/** How far the filing of a document is. */
export const DOCUMENT_STATES = ['preparing', 'rendered', 'filed', 'failed'] as const;
export type DocumentState = (typeof DOCUMENT_STATES)[number];
export const documentState = () => oneOf(DOCUMENT_STATES).required();

/** Whether what is filed still counts: a later revision supersedes it, and finance may say that it is void. */
const VALIDITIES = ['current', 'superseded', 'void'] as const;
export type Validity = (typeof VALIDITIES)[number];

/** How far a step of a document is: held where it was refused after filing, until a person has it tried again or lets it go. */
const STEP_STATES = ['open', 'done', 'ended', 'skipped', 'held', 'let go'] as const;
export type StepState = (typeof STEP_STATES)[number];

/** Something that is done after a document is filed. */
const step = shape({
  position: count(),
  /** What it does, as a sentence. */
  words: words(),
  state: oneOf(STEP_STATES).required(),
  attempts: count(),
  triedAt: moment().nullable(),
  doneAt: moment().nullable(),
  /** Why it waits or is held. */
  reason: words().nullable(),
  /** When it is tried next, where it waits. */
  dueAt: moment().nullable(),
  /** Who let it go undone, and why. */
  letGo: shape({ reason: words(), by: words(), at: moment() }).nullable().defined(),
}).required();

const otherRevision = shape({ id: uuidText(), number: words() }).nullable().defined();

const ofDocument = shape({ id: uuid().required() }).required();

/** A document as a row of the register. */
const row = {
  id: uuidText(),
  kind: words(),
  state: documentState(),
  number: words(),
  title: words(),
  fileName: words(),
  recordType: words(),
  recordId: words(),
  recordName: words(),
  accountName: words(),
  templateId: words(),
  amount: decimalText().nullable(),
  currency: words().nullable(),
  issueDate: day(),
  /** Why it waits, why it failed, or why it is void. */
  reason: words().nullable(),
  /** When it is tried next, where it waits. */
  dueAt: moment().nullable(),
  /** Who filed it. */
  by: words().nullable(),
  createdAt: moment(),
  filedAt: moment().nullable(),
  validity: oneOf(VALIDITIES).required(),
  /** How many steps are left after it was filed, and whether the next of them is held for a person. */
  stepsLeft: count(),
  isHeld: boolean().required(),
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
      validity: oneOf(VALIDITIES),
      recordType: text(100),
      recordId: text(100),
      /** Who filed it, by name. */
      by: text(200),
      ...days,
    }).required(),
    answer: shape({
      documents: all(documentRow),
      total: count(),
      /** Sums of what is filed, by kind and currency: a quote and the invoice after it are about the same money. */
      totals: all(shape({ kind: words(), currency: words().nullable(), amount: decimalText().nullable() }).required()),
    }).required(),
    twice: 'safe',
  }),
  'GET /register': endpoint({
    about: 'What the register can be filtered by: the kinds of documents in it, and who filed them.',
    may: 'look',
    answer: shape({ kinds: all(words()), people: all(words()) }).required(),
    twice: 'safe',
  }),
  'POST /documents': endpoint({
    about: 'Begins to file what a proof shows; answers once its number is taken and its job is kept.',
    may: 'file',
    body: shape({
      /** The production that was looked at, by its id. */
      production: uuid().required(),
      /** The revision of it that was looked at. */
      revision: number().integer().min(0),
      /** Reasons for skipping findings that warn, by finding. */
      skips: texts(),
    }).required(),
    answer: shape({ id: uuidText(), number: words() }).required(),
    status: 202,
    problems: [404, 409],
    twice: 'keyed',
    perMinute: 120,
  }),
  'POST /documents/{id}/try': endpoint({
    about: 'Has a document that waits, or a step of it that is held, tried again at once.',
    may: 'file',
    parameters: ofDocument,
    answer: shape({ tried: boolean().required() }).required(),
    problems: [404, 409],
    twice: 'same',
  }),
  'POST /documents/{id}/let-go': endpoint({
    about: 'Lets a step after filing that waits or is held go undone, with the reason; those after it go on.',
    may: 'file',
    parameters: ofDocument,
    body: shape({ position: number().integer().min(0).required(), reason: text(500).min(1).required() }).required(),
    answer: shape({ letGo: boolean().required() }).required(),
    problems: [404, 409],
    twice: 'same',
  }),
  'POST /documents/{id}/void': endpoint({
    about:
      'Has a filed document be void: it does not count any more, and stays readable. One that waits becomes void once nothing that was sent can still arrive, unless its file is on the record.',
    may: 'void',
    parameters: ofDocument,
    body: shape({ reason: text(500).min(1).required() }).required(),
    answer: shape({ asked: boolean().required() }).required(),
    problems: [404, 409],
    twice: 'same',
  }),
  'GET /documents/{id}': endpoint({
    about: 'One document of the register with its history, figures and workings.',
    may: 'look',
    parameters: ofDocument,
    answer: shape({
      document: shape({
        ...row,
        skips: requiredMapOf(words()),
        /** What was changed for this document alone. */
        changes: all(madeChange),
        attachmentId: words().nullable(),
        /** The documents before and after it under its number. */
        revises: otherRevision,
        supersededBy: otherRevision,
        /** Why it is void although it was filed. */
        voided: shape({ reason: words(), by: words(), at: moment() }).nullable().defined(),
        /** What is done after it is filed, in order. */
        steps: all(step),
        /** Whether somebody asked for it to be void. */
        toBeVoid: boolean().required(),
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
