import { addressOf, type Asked } from './address';

/**
 * What pages read first. They take it from here, and so does the server, which tells the browser with the page itself what to send
 * for: the answers are there when the page's script is.
 */

/** What stands in a page's address after the question mark. */
export type PageQuery = Readonly<Record<string, string | undefined>>;

/** How many rows a list shows at once. */
export const ROWS = { records: 25, documents: 50 };

/** What the list of records shows, by its address. */
export const recordsAsked = (query: PageQuery): Asked<'GET /records/{type}'> => ({
  view: (query.view ?? 'all') as Asked<'GET /records/{type}'>['view'],
  search: query.search,
  stage: query.stage,
  owner: query.owner,
  ...ordered(query, { sort: 'day', descending: false }),
  top: ROWS.records,
});

/** How many records each view holds, by the filters in the address of their list. */
export const summaryAsked = ({ search, stage, owner }: PageQuery): Asked<'GET /record-types/{type}'> => ({
  search,
  stage,
  owner,
});

/** What the register shows, by its address. */
export const documentsAsked = (query: PageQuery): Asked<'GET /documents'> => ({
  search: query.search,
  kind: query.kind,
  state: query.state as Asked<'GET /documents'>['state'],
  by: query.by,
  from: query.from,
  until: query.until,
  ...ordered(query, { sort: 'created', descending: true }),
  top: ROWS.documents,
});

/** The documents of one record, the latest first. */
export const documentsOn = (recordType: string, recordId: string): Asked<'GET /documents'> => ({
  recordType,
  recordId,
  sort: 'created',
  descending: true,
  top: 50,
});

/** What is chosen for a document; absent what is left to its template. */
export interface Chosen {
  edition?: string;
  plan?: string;
  /** Whether it takes a number of its own, though it could be the next revision of an earlier one. */
  asNew?: boolean;
  /** The day of issue, where it is not today. ISO 8601. */
  issueDate?: string;
}

/** What is chosen in the address of a document's page, and the `production` of a document in hand. */
export const documentIn = ({ edition, plan, asNew, issueDate, production }: PageQuery) => ({
  edition,
  plan,
  asNew: asNew === 'true' || undefined,
  issueDate,
  production,
});

/** The first proof of a record with a template. */
export const proofAsked = (
  template: string,
  record: string,
  { edition, plan, asNew, issueDate, production }: Chosen & { production?: string } = {},
): Asked<'GET /productions'> => ({ template, record, edition, plan, asNew, issueDate, production });

/** How a list is sorted and from which row on it is shown, as its address says. */
export function ordered(query: PageQuery, usual: { sort: string; descending: boolean }) {
  return {
    sort: query.sort ?? usual.sort,
    descending: (query.descending ?? String(usual.descending)) === 'true',
    skip: Number(query.skip ?? 0) || 0,
  };
}

/** What every page reads of the frame around it. */
const FRAME = ['GET /me', 'GET /record-types'] as const;

/** What a page reads besides, by the name of its route. */
const PAGES: Readonly<Record<string, (named: Readonly<Record<string, string>>, query: PageQuery) => string[]>> = {
  'records-type': ({ type = '' }, query) => [
    addressOf('GET /records/{type}', { parameters: { type }, query: recordsAsked(query) }),
    addressOf('GET /record-types/{type}', { parameters: { type }, query: summaryAsked(query) }),
  ],
  'records-type-id': ({ type = '', id = '' }) => [
    addressOf('GET /records/{type}/{id}', { parameters: { type, id } }),
    addressOf('GET /documents', { query: documentsOn(type, id) }),
    addressOf('GET /records/{type}/{id}/templates', { parameters: { type, id } }),
    addressOf('GET /records/{type}/{id}/in-hand', { parameters: { type, id } }),
  ],
  'records-type-id-produce-template': ({ id = '', template = '' }, query) => [
    addressOf('GET /productions', { query: proofAsked(template, id, documentIn(query)) }),
  ],
  register: (_, query) => [addressOf('GET /documents', { query: documentsAsked(query) }), addressOf('GET /register')],
  templates: () => [addressOf('GET /templates')],
};

/** The addresses that a page reads first, by the name of its route, what its path names, and its query. */
export const readsOf = (page: string, named: Readonly<Record<string, string>>, query: PageQuery): string[] => [
  ...FRAME.map((key) => addressOf(key)),
  ...(PAGES[page]?.(named, query) ?? []),
];
