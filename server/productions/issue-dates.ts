import { eq, max, sql } from 'drizzle-orm';
import { dayOf, isoOf } from '../../core/formula/date';
import { today } from '../config';
import type { Connection } from '../db/database';
import { series, seriesCounters } from '../db/schema';
import { Problem } from '../problem';

/** The days that a document of a series may be issued on, from the first to the last. ISO 8601. */
export interface IssueDates {
  from: string;
  until: string;
}

/**
 * Today, and as many days before it as the series allows; never before what was issued last in it, so that numbers follow the days.
 * `seriesId`: of a plan.
 */
export async function issueDatesOf(connection: Connection, seriesId: string): Promise<IssueDates> {
  const until = today();
  const [row] = await connection
    .select({ days: series.backdatedDays, last: max(seriesCounters.lastIssued) })
    .from(series)
    .leftJoin(seriesCounters, eq(seriesCounters.seriesId, series.id))
    .where(eq(series.id, seriesId))
    .groupBy(series.id);
  const first = isoOf(dayOf(until)! - (row?.days ?? 0));
  const last = row?.last ?? first;
  const from = last > first ? last : first;
  return { from: from > until ? until : from, until };
}

/** Whether a day is one of them. */
export const mayBeIssued = (day: string, { from, until }: IssueDates): boolean => day >= from && day <= until;

/** Why a day cannot be chosen. */
export const notIssued = ({ from, until }: IssueDates): Problem =>
  new Problem(
    422,
    'The document cannot be issued on this day',
    from === until
      ? `Its numbers follow the days, so it is issued today, ${until}.`
      : `Choose a day from ${from} to ${until}: its numbers follow the days.`,
    { reason: 'day' },
  );

/** Notes that something was issued in a series, in the transaction that files it. @throws Problem where something later was meanwhile */
export async function noteIssued(transaction: Connection, seriesId: string, day: string): Promise<void> {
  const dates = await issueDatesOf(transaction, seriesId);
  if (!mayBeIssued(day, dates)) throw notIssued(dates);
  await transaction
    .insert(seriesCounters)
    .values({ seriesId, period: day.slice(0, 4), next: 1, lastIssued: day })
    .onConflictDoUpdate({
      target: [seriesCounters.seriesId, seriesCounters.period],
      set: { lastIssued: sql`greatest(${seriesCounters.lastIssued}, excluded.last_issued)` },
    });
}
