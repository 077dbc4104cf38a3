import { boolean, oneOf, shape, text } from '../shape/shape';
import { string } from 'yup';
import {
  all,
  count,
  day,
  decimalText,
  moment,
  recordSchema,
  recordSnapshot,
  registeredDocument,
  words,
} from './answers';
import { documentState } from './documents';
import { endpoint } from './endpoint';
import { listQuery } from './list-query';

const DEAL_VIEWS = ['all', 'needs-quote', 'quoted'] as const;

const recordId = () => text(100).min(1).required();
const ofDeal = shape({ id: recordId() }).required();

const dealRow = shape({
  id: words(),
  name: words(),
  account: words(),
  stage: words(),
  amount: decimalText().nullable(),
  currency: words().nullable(),
  /** When it closes. */
  day: day().nullable(),
  /** The latest document of each kind on it. */
  paperTrail: all(shape({ id: words(), kind: words(), state: documentState(), number: words() }).required()),
}).required();

export const dealEndpoints = {
  'GET /deals': endpoint({
    about: 'A page of the list of deals, filtered and sorted.',
    may: 'look',
    query: shape({
      ...listQuery,
      view: oneOf(DEAL_VIEWS).default('all'),
      stage: text(100),
      owner: text(100),
    }).required(),
    /** Up to when the list knows the CRM’s records; null before they were read for the first time. */
    answer: shape({ deals: all(dealRow), total: count(), knownAt: moment().nullable() }).required(),
    twice: 'safe',
  }),
  'GET /deals/summary': endpoint({
    about: 'How many deals each view holds, and what the list can be filtered by.',
    may: 'look',
    answer: shape({
      counts: shape({ all: count(), 'needs-quote': count(), quoted: count() }).required(),
      stages: all(words()),
      owners: all(words()),
    }).required(),
    twice: 'safe',
  }),
  'GET /deals/{id}': endpoint({
    about: 'A deal with its account, contact and line items, and the schema to show them by.',
    may: 'look',
    parameters: ofDeal,
    answer: shape({ deal: recordSnapshot(), schema: recordSchema }).required(),
    problems: [404],
    twice: 'safe',
  }),
  'GET /deals/{id}/values': endpoint({
    about: 'The values of a deal under some dotted paths, with commas between them.',
    may: 'look',
    parameters: ofDeal,
    query: shape({
      paths: string()
        .required()
        .matches(/^[\w.,]+$/, 'names with points between them')
        .max(20_000),
    }).required(),
    answer: recordSnapshot(),
    problems: [404],
    twice: 'safe',
  }),
  'GET /deals/{id}/registered': endpoint({
    about: 'What has been filed for a deal, as the register answers formulas.',
    may: 'look',
    parameters: ofDeal,
    answer: all(registeredDocument),
    twice: 'safe',
  }),
  'PATCH /fields': endpoint({
    about: 'Writes one field of a record of the CRM, if nobody changed the record since it was read.',
    may: 'change',
    body: shape({
      type: text(100).required(),
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
};
