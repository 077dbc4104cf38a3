import { string } from 'yup';
import { RECORD_ICONS, recordLayout } from '../record/layout';
import { boolean, oneOf, requiredMapOf, shape, text } from '../shape/shape';
import {
  all,
  count,
  day,
  decimalText,
  fieldSchema,
  fieldValue,
  moment,
  recordSchema,
  recordSnapshot,
  registeredDocument,
  uuidText,
  words,
} from './answers';
import { documentState } from './documents';
import { endpoint } from './endpoint';
import { listQuery } from './list-query';

const RECORD_VIEWS = ['all', 'needs-quote', 'quoted'] as const;
/** What the list of records can be sorted by; `awkward`: how likely it is to show what a template did not think of. */
export const RECORD_SORTS = ['name', 'account', 'stage', 'amount', 'day', 'awkward'] as const;

/** What narrows every view of a list. */
const recordFilters = { search: listQuery.search, stage: text(100), owner: text(100) };

const dottedPaths = () =>
  string()
    .matches(/^[\w.,]+$/, 'names with points between them')
    .max(20_000);
const typeName = () => text(100).min(1).required();
const recordId = () => text(100).min(1).required();
const ofType = shape({ type: typeName() }).required();
const ofRecord = shape({ type: typeName(), id: recordId() }).required();

const recordRow = shape({
  id: words(),
  name: words(),
  account: words(),
  stage: words(),
  amount: decimalText().nullable(),
  currency: words().nullable(),
  day: day().nullable(),
  /** The values of the further columns, by their fields. */
  columns: requiredMapOf(fieldValue()),
  /** The latest document of each kind on it. */
  paperTrail: all(shape({ id: words(), kind: words(), state: documentState(), number: words() }).required()),
}).required();

/** What a part is called by the source; absent where no field of the type is this part. */
const partLabel = () => words().optional();

const recordType = shape({
  name: words(),
  /** What one is called, and many of them: "Deal", "Deals". */
  label: words(),
  plural: words(),
  parts: shape({
    name: partLabel(),
    number: partLabel(),
    account: partLabel(),
    stage: partLabel(),
    owner: partLabel(),
    amount: partLabel(),
    day: partLabel(),
  }).required(),
  icon: oneOf(RECORD_ICONS).nullable().defined(),
  /** Further columns of its list. */
  columns: all(fieldSchema),
  /** Whether some of its stages need a quote. */
  needsQuote: boolean().required(),
}).required();

export const recordEndpoints = {
  'GET /record-types': endpoint({
    about: 'The types of records that documents are made from, and what their parts are called.',
    may: 'look',
    answer: all(recordType),
    twice: 'safe',
  }),
  'GET /record-types/{type}': endpoint({
    about: 'How many records of a type each view holds under some filters, and what their list can be filtered by.',
    may: 'look',
    parameters: ofType,
    query: shape(recordFilters).required(),
    answer: shape({
      counts: shape({ all: count(), 'needs-quote': count(), quoted: count() }).required(),
      stages: all(words()),
      owners: all(words()),
    }).required(),
    problems: [404],
    twice: 'safe',
  }),
  'GET /records/{type}': endpoint({
    about: 'A page of the list of records of a type, filtered and sorted.',
    may: 'look',
    parameters: ofType,
    query: shape({
      ...listQuery,
      view: oneOf(RECORD_VIEWS).default('all'),
      ...recordFilters,
    }).required(),
    /** Up to when the list knows the CRM’s records; null before they were read for the first time. */
    answer: shape({ records: all(recordRow), total: count(), knownAt: moment().nullable() }).required(),
    problems: [404],
    twice: 'safe',
  }),
  'GET /records/{type}/{id}': endpoint({
    about: 'A record with its related records and line items, and the schema to show them by.',
    may: 'look',
    parameters: ofRecord,
    answer: shape({ record: recordSnapshot(), schema: recordSchema }).required(),
    problems: [404],
    twice: 'safe',
  }),
  'GET /records/{type}/held': endpoint({
    about: 'The texts and choices that the newest records of a type hold under a dotted path, with their counts.',
    may: 'look',
    parameters: ofType,
    query: shape({
      path: string()
        .matches(/^\w+(\.\w+)*$/, 'names with points between them')
        .max(500)
        .required(),
    }).required(),
    answer: shape({
      /** How many records were looked at. */
      among: count(),
      values: all(shape({ value: words(), count: count() }).required()),
    }).required(),
    problems: [404],
    twice: 'safe',
  }),
  'GET /records/{type}/{id}/values': endpoint({
    about:
      'The values of a record under some dotted paths, with commas between them. Pictures are fetched and looked over under those that are named.',
    may: 'look',
    parameters: ofRecord,
    query: shape({ paths: dottedPaths().required(), pictures: dottedPaths() }).required(),
    answer: recordSnapshot(),
    problems: [404],
    twice: 'safe',
  }),
  'GET /records/{type}/{id}/registered': endpoint({
    about: 'What has been filed for a record, as the register answers formulas.',
    may: 'look',
    parameters: ofRecord,
    answer: all(registeredDocument),
    problems: [404],
    twice: 'safe',
  }),
  'GET /records/{type}/{id}/templates': endpoint({
    about:
      'The templates that documents of a record can be made from: those that fit it come first, the likeliest for its stage on top.',
    may: 'look',
    parameters: ofRecord,
    answer: all(
      shape({
        id: words(),
        name: words(),
        kind: words(),
        /** Why it is not for this record, in the template’s words; null where it is. */
        unfit: words().nullable(),
        /** Whether it is usually produced at the record’s stage. */
        isUsual: boolean().required(),
      }).required(),
    ),
    problems: [404],
    twice: 'safe',
  }),
  'GET /records/{type}/{id}/in-hand': endpoint({
    about: 'The documents of a record that are in hand: something was changed in them, and they are not filed yet.',
    may: 'look',
    parameters: ofRecord,
    answer: all(
      shape({
        id: uuidText(),
        template: shape({ id: words(), name: words(), kind: words() }).required(),
        changes: count(),
        by: words(),
        at: moment(),
      }).required(),
    ),
    problems: [404],
    twice: 'safe',
  }),
  'PATCH /fields': endpoint({
    about: 'Writes one field of a record of the CRM, if nobody changed the record since it was read.',
    may: 'change',
    body: shape({
      type: typeName(),
      id: recordId(),
      /** The entity tag it was read with (RFC 9110, 8.8.3): never `*`, which would write over anything. */
      version: string()
        .required()
        .matches(/^(W\/)?"[\x21\x23-\x7e]{1,200}"$/, 'the entity tag that the record was read with'),
      field: text(100).required(),
      /** The value as text, the way a person typed it; empty clears the field. */
      value: text(10_000).defined(),
    }).required(),
    answer: shape({ changed: boolean().required() }).required(),
    problems: [404, 409],
    twice: 'same',
  }),
  'GET /layouts': endpoint({
    about: 'How the records of each type are shown, and how far the list of them was read.',
    may: 'administer',
    answer: shape({
      schema: recordSchema,
      /** The types whose layout somebody chose. */
      chosen: all(words()),
      /** By type: how many records their list knows, and up to when. */
      lists: all(shape({ type: words(), count: count(), knownAt: moment().nullable() }).required()),
    }).required(),
    twice: 'safe',
  }),
  'PUT /layouts/{type}': endpoint({
    about: 'Changes how the records of a type are shown. Their list is read anew by it.',
    may: 'administer',
    parameters: ofType,
    body: recordLayout,
    answer: shape({ changed: boolean().required() }).required(),
    problems: [404, 422],
    twice: 'same',
  }),
  'DELETE /layouts/{type}': endpoint({
    about: 'Brings back how the records of a type are shown where nobody chose it.',
    may: 'administer',
    parameters: ofType,
    answer: shape({ changed: boolean().required() }).required(),
    problems: [404],
    twice: 'same',
  }),
  'POST /layouts/{type}/list': endpoint({
    about: 'Has the list of records of a type read anew from the CRM.',
    may: 'administer',
    parameters: ofType,
    answer: shape({ begun: boolean().required() }).required(),
    status: 202,
    problems: [404],
    twice: 'same',
  }),
};
