import { anything, boolean, label, listOf, number, oneOf, shape, text, uuid } from '../shape/shape';
import { templateShape, type Pins } from '../template/template';
import { DOCUMENT_KINDS } from '../template/document-kinds';
import { all, count, day, decimalText, moment, recordSchema, recordSnapshot, uuidText, words } from './answers';
import { endpoint } from './endpoint';
import { draftProof, drawingsWanted } from './productions';
import { ofTemplate } from './templates';

/** How often a draft was saved: a change is made to what was saved last. Zero where there is no draft yet. */
const revision = () => number().integer().min(0).max(2_000_000_000).required();
const note = text(500);

export const draftEndpoints = {
  'GET /drafts': endpoint({
    about: 'The drafts of templates, those of templates that were never published too.',
    may: 'publish',
    answer: all(
      shape({
        id: words(),
        name: words(),
        kind: words(),
        recordType: words(),
        /** Whether documents can be produced from its template already. */
        isPublished: boolean().required(),
        editedBy: words(),
        editedAt: moment(),
      }).required(),
    ),
    twice: 'safe',
  }),
  'POST /drafts': endpoint({
    about: 'Begins a new template as a draft, under an id and a name that no other has.',
    may: 'publish',
    body: shape({ template: templateShape }).required(),
    answer: shape({ id: words(), name: words(), revision: count() }).required(),
    status: 201,
    twice: 'again',
    perMinute: 60,
  }),
  'POST /drafts/new': endpoint({
    about: 'Begins a new template for a record type: with what a document of its kind needs, or empty.',
    may: 'publish',
    body: shape({
      name: label(),
      kind: oneOf(DOCUMENT_KINDS).required(),
      recordType: text(100).required(),
      from: oneOf(['starter', 'empty']).required(),
    }).required(),
    answer: shape({ id: words(), name: words(), revision: count() }).required(),
    problems: [422],
    status: 201,
    twice: 'again',
    perMinute: 60,
  }),
  'GET /templates/{id}/draft': endpoint({
    about: 'A template as it is worked on: its draft, or what is published where nothing was changed since.',
    may: 'publish',
    parameters: ofTemplate,
    answer: shape({
      template: templateShape,
      revision: count(),
      /** The version that the draft began with, and the one that documents are produced from; absent for a new template. */
      base: uuidText().nullable(),
      versionId: uuidText().nullable(),
      version: count().nullable(),
      editedBy: words().nullable(),
      editedAt: moment().nullable(),
      schema: recordSchema,
      schemaDigest: words(),
      pins: anything<Pins>('The house styles and clauses that it would be published with.'),
      issueDate: day(),
    }).required(),
    problems: [404],
    twice: 'safe',
  }),
  'PUT /templates/{id}/draft': endpoint({
    about:
      'Saves a draft over the one it was changed from; where somebody else saved meanwhile, the answer brings theirs.',
    may: 'publish',
    parameters: ofTemplate,
    body: shape({
      /** What it was changed from. */
      revision: revision(),
      template: templateShape,
    }).required(),
    answer: shape({ revision: count(), savedAt: moment() }).required(),
    problems: [404, 409],
    twice: 'same',
    perMinute: 240,
  }),
  'DELETE /templates/{id}/draft': endpoint({
    about: 'Throws a draft away: what is published stays as it is, and a template that was never published is gone.',
    may: 'publish',
    parameters: ofTemplate,
    query: shape({ revision: revision() }).required(),
    answer: shape({ revision: count() }).required(),
    problems: [404, 409],
    twice: 'same',
  }),
  'GET /templates/{id}/draft/trial': endpoint({
    about:
      'A PDF of a draft to look at, marked as a trial on every page: for a record, or for the made-up one that is kept with it.',
    may: 'publish',
    parameters: ofTemplate,
    query: shape({
      /** The id of the record; absent for the made-up one. */
      record: text(100),
    }).required(),
    answer: { file: 'application/pdf' },
    problems: [404, 422],
    twice: 'safe',
    perMinute: 120,
  }),
  'POST /templates/{id}/draft/proof': endpoint({
    about:
      'The proof of a draft as it is given, saved or not, for a record or for the made-up one that is kept with it, with values that are tried in place of the record’s own. Nothing is kept of it, and nothing can be filed from it.',
    may: 'publish',
    parameters: ofTemplate,
    body: shape({
      template: templateShape,
      /** The id of the record; absent for the made-up one. */
      record: text(100),
      /** A filed document, whose kept data is taken in place of the record's. */
      document: uuid(),
      /** Instead of what the template chooses. */
      edition: text(100),
      houseStyle: text(120),
      /** Values in place of the record's own: by their value paths, as people type them. */
      tried: listOf(shape({ path: text(500).required(), value: text(10_000).defined() }).required(), 100),
      /** Reads the record anew, though it was read a moment before. */
      fresh: boolean(),
      ...drawingsWanted,
    }).required(),
    answer: draftProof,
    problems: [404, 422],
    twice: 'same',
    perMinute: 1_200,
  }),
  'GET /templates/{id}/draft/replay': endpoint({
    about: 'The last fifty documents that were filed from a template: those that a draft is replayed over.',
    may: 'publish',
    parameters: ofTemplate,
    answer: all(
      shape({
        id: uuidText(),
        number: words(),
        recordName: words(),
        versionId: uuidText(),
        version: count(),
      }).required(),
    ),
    problems: [404],
    twice: 'safe',
  }),
  'POST /templates/{id}/draft/replay': endpoint({
    about:
      'What would have come out otherwise of a filed document, had the draft as it is given been in use: over the data that was kept with it.',
    may: 'publish',
    parameters: ofTemplate,
    body: shape({ template: templateShape, document: uuid().required() }).required(),
    answer: shape({
      changes: all(
        shape({
          of: oneOf(['figure', 'section', 'finding', 'pages']).required(),
          what: words(),
          before: words().optional(),
          after: words().optional(),
          /** How far an amount moved, as decimal text without its sign. */
          by: decimalText().optional(),
        }).required(),
      ),
      /** Fields that the draft reads and that were not kept: what hangs on them cannot be told. */
      unread: all(words()),
    }).required(),
    problems: [404, 422],
    twice: 'same',
    perMinute: 1_200,
  }),
  'GET /templates/{id}/draft/proof-records': endpoint({
    about: 'The records that a draft is proved on: those that it names, or ten that differ most in what it reads.',
    may: 'publish',
    parameters: ofTemplate,
    query: shape({
      /** Whether every field that a condition can look at comes with them. */
      values: boolean(),
    }).required(),
    answer: all(shape({ id: words(), name: words(), record: recordSnapshot().optional() }).required()),
    problems: [404],
    twice: 'safe',
  }),
  'POST /templates/{id}/draft/editors': endpoint({
    about:
      'Says that somebody works on a draft, every few seconds; tells who else does, and whether it was saved meanwhile or what the CRM holds is another by now.',
    may: 'publish',
    parameters: ofTemplate,
    body: shape({
      /** Of the window that it is worked on in. */
      window: uuid().required(),
      /** It is closed now. */
      leaves: boolean(),
    }).required(),
    answer: shape({
      revision: count(),
      schemaDigest: words(),
      others: all(shape({ name: words(), isYou: boolean().required(), since: moment() }).required()),
    }).required(),
    problems: [404],
    twice: 'same',
    perMinute: 120,
  }),
  'POST /templates/{id}/versions': endpoint({
    about: 'Publishes a draft as the next version of its template, through the same gate as a file.',
    may: 'publish',
    parameters: ofTemplate,
    body: shape({
      revision: revision(),
      /** What is different, for whoever looks at the versions. */
      note,
      /** Why it is published although it stops on some records. */
      reason: text(500),
      /** The version that is replaced, where another one was published since the draft began. */
      over: uuid(),
    }).required(),
    answer: shape({ versionId: uuidText(), version: count() }).required(),
    problems: [404, 409],
    twice: 'again',
    perMinute: 120,
  }),
};
