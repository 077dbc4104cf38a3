import { eq, sql } from 'drizzle-orm';
import { documentNumber } from '../../core/production/number';
import type { Connection } from '../db/database';
import { series, seriesCounters } from '../db/schema';

/** A number taken from a series. */
export interface TakenNumber {
  seriesId: string;
  period: string;
  serial: number;
  text: string;
}

/**
 * Takes the next number of a series for an issue date. Runs in the transaction that writes the document: the counter's
 * row stays locked until then, so two people never get the same number and a rolled-back filing leaves no gap.
 */
export async function takeNumber(transaction: Connection, seriesId: string, issueDate: string): Promise<TakenNumber> {
  const [row] = await transaction.select().from(series).where(eq(series.id, seriesId));
  if (!row) throw new Error(`There is no series ${seriesId}.`);
  const period = issueDate.slice(0, 4);
  const [counter] = await transaction
    .insert(seriesCounters)
    .values({ seriesId, period, next: 2 })
    .onConflictDoUpdate({
      target: [seriesCounters.seriesId, seriesCounters.period],
      set: { next: sql`${seriesCounters.next} + 1` },
    })
    .returning({ next: seriesCounters.next });
  const serial = counter!.next - 1;
  return { seriesId, period, serial, text: documentNumber(row.formula, issueDate, serial) };
}
