import { and, desc, eq, ilike, or, sql, type SQL } from 'drizzle-orm';
import Papa from 'papaparse';
import { v7 as uuidv7 } from 'uuid';
import type { Contract } from '../core/contract/contract';
import type { QueryOf } from '../core/contract/endpoint';
import { patternOf, within } from './db/containing';
import type { Connection } from './db/database';
import { trail } from './db/schema';
import type { Caller } from './people/caller';

/** What something was done to. */
interface Subject {
  kind:
    | 'document'
    | 'template'
    | 'record'
    | 'record type'
    | 'person'
    | 'token'
    | 'rules'
    | 'connection'
    | 'place'
    | 'series'
    | 'trail';
  id: string;
  name: string;
}

/** Who did it; a name alone for people who are not signed in, nothing for Lumbix itself. */
type Doer = Pick<Caller, 'id' | 'name' | 'via'> | { name: string } | undefined;

/** Adds to the audit trail, in the transaction of what it tells of. `act`: a word or two to filter by; `sentence`: for people. */
export async function addToTrail(
  connection: Connection,
  doer: Doer,
  act: string,
  subject: Subject,
  sentence: string,
  details?: Readonly<Record<string, unknown>>,
): Promise<void> {
  await connection.insert(trail).values({
    id: uuidv7(),
    personId: doer && 'id' in doer ? doer.id : null,
    personName: doer?.name ?? 'Lumbix',
    via: doer === undefined ? 'system' : 'via' in doer ? doer.via : 'page',
    act,
    subjectKind: subject.kind,
    subjectId: subject.id,
    subjectName: subject.name,
    sentence,
    details,
  });
}

/** Who did something to a subject last, and when. */
export async function lastDoer(
  connection: Connection,
  act: string,
  { kind, id }: Pick<Subject, 'kind' | 'id'>,
): Promise<{ name: string; at: Date } | undefined> {
  const [entry] = await connection
    .select({ name: trail.personName, at: trail.at })
    .from(trail)
    .where(and(eq(trail.act, act), eq(trail.subjectKind, kind), eq(trail.subjectId, id)))
    .orderBy(desc(trail.at))
    .limit(1);
  return entry;
}

type TrailFilter = Omit<QueryOf<Contract['GET /trail']>, 'skip' | 'top'>;

/** A page of the trail, the newest first. */
export async function readTrail(connection: Connection, { skip, top, ...filter }: QueryOf<Contract['GET /trail']>) {
  const where = conditionsOf(filter);
  const [entries, [counted]] = await Promise.all([
    connection.select().from(trail).where(where).orderBy(desc(trail.at), desc(trail.id)).limit(top).offset(skip),
    connection
      .select({ count: sql<number>`count(*)::int` })
      .from(trail)
      .where(where),
  ]);
  return { entries: entries.map(({ personId: _person, details: _details, ...shown }) => shown), total: counted!.count };
}

/** At most so many lines are handed out at once; the days narrow it down. */
const MOST_LINES = 100_000;

/** The trail as CSV, for a table program: no cell of it is taken for a formula. */
export async function trailCsv(connection: Connection, filter: TrailFilter): Promise<string> {
  const entries = await connection
    .select()
    .from(trail)
    .where(conditionsOf(filter))
    .orderBy(desc(trail.at), desc(trail.id))
    .limit(MOST_LINES);
  const lines = entries.map((each) => ({
    at: each.at.toISOString(),
    person: each.personName,
    via: each.via,
    act: each.act,
    kind: each.subjectKind,
    id: each.subjectId,
    name: each.subjectName,
    sentence: each.sentence,
    details: each.details ? JSON.stringify(each.details) : '',
  }));
  const fields = ['at', 'person', 'via', 'act', 'kind', 'id', 'name', 'sentence', 'details'];
  return `${Papa.unparse({ fields, data: lines as unknown as unknown[][] }, { escapeFormulae: true })}\r\n`;
}

function conditionsOf({ search, person, subjectKind, subjectId, from, until }: TrailFilter): SQL | undefined {
  const words = search?.trim();
  return and(
    words ? mentions(words) : undefined,
    person
      ? or(eq(trail.personId, person), and(eq(trail.subjectKind, 'person'), eq(trail.subjectId, person)))
      : undefined,
    subjectKind ? eq(trail.subjectKind, subjectKind) : undefined,
    subjectId ? eq(trail.subjectId, subjectId) : undefined,
    ...within(trail.at, { from, until }),
  );
}

/** Holds where an entry has all words that were typed. It is only added to, so that it has no column to be searched in. */
const mentions = (typed: string): SQL | undefined =>
  and(
    ...typed
      .split(/\s+/)
      .slice(0, 10)
      .map((word) =>
        ilike(sql`${trail.personName} || ' ' || ${trail.subjectName} || ' ' || ${trail.sentence}`, patternOf(word)),
      ),
  );
