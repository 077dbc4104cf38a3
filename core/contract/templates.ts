import { anything, boolean, oneOf, shape, text, uuid } from '../shape/shape';
import { LARGEST_TEMPLATE } from '../files/unpack';
import { templateShape, type Pins } from '../template/template';
import { all, count, day, moment, recordSchema, uuidText, words } from './answers';
import { endpoint } from './endpoint';

export const ofTemplate = shape({ id: text(120).min(1).required() }).required();
const reason = text(500);
const published = { versionId: uuidText(), version: count() };

export const templateEndpoints = {
  'GET /templates': endpoint({
    about: 'The shelf of templates.',
    may: 'look',
    answer: all(
      shape({
        id: words(),
        name: words(),
        kind: words(),
        recordType: words(),
        ...published,
        editions: count(),
        documents: count(),
        lastUsed: moment().nullable(),
        /** Names of fields that it reads and the CRM has no longer. */
        fieldsGone: all(words()),
        /** Nothing is produced from it since. */
        archivedAt: moment().nullable(),
      }).required(),
    ),
    twice: 'safe',
  }),
  'GET /clauses': endpoint({
    about: 'The clauses that can be put into templates, and into documents.',
    may: 'look',
    answer: all(shape({ id: words(), name: words() }).required()),
    twice: 'safe',
  }),
  'GET /clauses/{id}/uses': endpoint({
    about: 'The templates that put a clause in, as they are published, and in how many places.',
    may: 'look',
    parameters: ofTemplate,
    answer: all(shape({ id: words(), name: words(), places: count() }).required()),
    twice: 'safe',
  }),
  'POST /templates': endpoint({
    about: 'Puts a template in from its file, or says everything that is wrong with it.',
    may: 'publish',
    /**
     * Why it is published although it stops on some records; and, where a template of its id is here already and is another one, what
     * is to be done: without this the answer says what would be replaced.
     */
    query: shape({ reason, as: oneOf(['replacement', 'new']) }).required(),
    body: { file: 'application/octet-stream', most: LARGEST_TEMPLATE },
    answer: shape({
      id: words(),
      name: words(),
      outcome: oneOf(['added', 'replaced', 'unchanged']).required(),
      ...published,
    }).required(),
    problems: [409],
    twice: 'again',
    perMinute: 120,
  }),
  'GET /templates/{id}': endpoint({
    about: 'A template with the schema of its records, for the figure sheet.',
    may: 'look',
    parameters: ofTemplate,
    answer: shape({
      template: templateShape,
      ...published,
      schema: recordSchema,
      pins: anything<Pins>('The house styles and clauses that it was published with.'),
      issueDate: day(),
    }).required(),
    problems: [404],
    twice: 'safe',
  }),
  'PUT /templates/{id}/archived': endpoint({
    about: 'Puts a template away, so that nothing is produced from it, or brings it back.',
    may: 'publish',
    parameters: ofTemplate,
    body: shape({ archived: boolean().required() }).required(),
    answer: shape({ archivedAt: moment().nullable() }).required(),
    problems: [404],
    twice: 'same',
  }),
  'GET /templates/{id}/versions/{version}': endpoint({
    about: 'A template as it was in one of its versions.',
    may: 'look',
    parameters: shape({ id: text(120).min(1).required(), version: uuid().required() }).required(),
    answer: shape({ template: templateShape, version: count() }).required(),
    problems: [404],
    twice: 'safe',
  }),
  'GET /templates/{id}/versions': endpoint({
    about: 'The versions of a template, the newest first: who published each, and why where some records stop on it.',
    may: 'look',
    parameters: ofTemplate,
    answer: all(
      shape({
        ...published,
        publishedAt: moment(),
        publishedBy: words().nullable(),
        /** What is different in it. */
        note: words().nullable(),
        reason: words().nullable(),
        isCurrent: boolean().required(),
      }).required(),
    ),
    problems: [404],
    twice: 'safe',
  }),
  'GET /templates/{id}/file': endpoint({
    about: 'A template as a file to keep, change and put in again.',
    may: 'look',
    parameters: ofTemplate,
    answer: { file: 'application/json' },
    problems: [404],
    twice: 'safe',
  }),
  'GET /templates/{id}/thumbnail': endpoint({
    about: 'The first page of a template, small, for the shelf.',
    may: 'look',
    parameters: ofTemplate,
    /** Of another version it is another picture, so that browsers may keep one. */
    query: shape({ version: text(100) }).required(),
    answer: { file: 'image/png' },
    problems: [404],
    twice: 'safe',
  }),
};
