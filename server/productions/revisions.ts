import { and, desc, eq, isNull, ne, sql } from 'drizzle-orm';
import { revisionNumber } from '../../core/production/number';
import type { Revising } from '../../core/production/production';
import { isRevised } from '../../core/template/document-kinds';
import type { Template } from '../../core/template/template';
import type { Connection } from '../db/database';
import { documents, numbers } from '../db/schema';
import { Problem } from '../problem';
import type { RecordId } from '../records/source';
import { addEvent, tellChanged } from './events';
import type { Filing } from './steps/step';

/** The document that is current of a kind and a series on a record, with the number of its next revision. */
interface Current {
  id: string;
  number: typeof numbers.$inferSelect;
  /** As it is printed. */
  text: string;
  state: (typeof documents.$inferSelect)['state'];
  /** Of the next one. */
  revision: number;
}

/** The document that another one from a template would be the next revision of; undefined where it is the first of its number. */
export async function revisedBy(
  connection: Connection,
  { kind }: Pick<Template, 'kind'>,
  series: string,
  record: RecordId,
): Promise<Revising | undefined> {
  const current = isRevised(kind) ? await currentDocument(connection, kind, series, record) : undefined;
  if (!current) return undefined;
  const { id, number, text, revision } = current;
  return { id, number: text, next: { serial: number.serial, text: revisionNumber(number.text, revision) } };
}

async function currentDocument(
  connection: Connection,
  kind: string,
  series: string,
  { type, id }: RecordId,
): Promise<Current | undefined> {
  const [row] = await connection
    .select({
      id: documents.id,
      number: numbers,
      text: documents.number,
      state: documents.state,
      // Those that were never filed have had their letters too.
      revision: sql<number>`(select max(revision) + 1 from documents of_number where of_number.number_id = ${numbers.id})`,
    })
    .from(documents)
    .innerJoin(numbers, eq(numbers.id, documents.numberId))
    .where(
      and(
        eq(documents.recordType, type),
        eq(documents.recordId, id),
        eq(documents.kind, kind),
        eq(numbers.seriesId, series),
        ne(documents.state, 'failed'),
        eq(documents.validity, 'current'),
      ),
    )
    .orderBy(desc(documents.createdAt), desc(documents.id))
    .limit(1);
  return row;
}

/**
 * What a document that is about to be filed revises, as it was when its proof was looked at. Of two who file at once on a record, the
 * second one waits here for the first one's transaction, and is told.
 * @throws Problem where another one was filed meanwhile, or the earlier one is still on its way
 */
export async function holdRevision(
  transaction: Connection,
  { kind }: Pick<Template, 'kind'>,
  series: string,
  record: RecordId,
  seen: { revises: Revising | null; asNew: boolean },
): Promise<{ revises: string; number: typeof numbers.$inferSelect; revision: number; text: string } | undefined> {
  if (!isRevised(kind)) return undefined;
  const place = JSON.stringify([record.type, record.id, kind, series]);
  await transaction.execute(sql`select pg_advisory_xact_lock(hashtextextended(${place}, 0))`);
  if (seen.asNew) return undefined;
  const current = await currentDocument(transaction, kind, series, record);
  if (current?.id !== seen.revises?.id)
    throw new Problem(
      409,
      'Somebody else filed meanwhile',
      `${current ? `${current.text} is on its way or filed by now` : `${seen.revises!.number} is void by now`}. Nothing of yours was filed. Look at the proof as it is now.`,
      { reason: 'superseded' },
    );
  if (!current) return undefined;
  if (current.state !== 'filed')
    throw new Problem(
      409,
      'The document before it is still being filed',
      `${current.text} is on its way. Nothing was filed. Wait until it is filed, or have it voided, then file the next revision.`,
      { reason: 'superseded' },
    );
  const { id, number, revision } = current;
  return { revises: id, number, revision, text: revisionNumber(number.text, revision) };
}

/** The document before is superseded, once its next revision is filed. */
export async function supersede(transaction: Connection, { id, revises, number }: Filing['document']): Promise<void> {
  if (!revises) return;
  const its = and(eq(documents.id, revises), isNull(documents.supersededBy));
  const changed = await transaction
    .update(documents)
    .set({
      supersededBy: id,
      validity: sql`case when ${documents.validity} = 'current' then 'superseded' else ${documents.validity} end`,
    })
    .where(its)
    .returning({ id: documents.id });
  if (changed.length === 0) return;
  await addEvent(transaction, revises, 'superseded', `Superseded by ${number}.`);
  await tellChanged(transaction, revises);
}
