import { eq, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { documentNumber } from '../../core/production/number';
import type { Connection } from '../db/database';
import { numbers, series, seriesCounters } from '../db/schema';

/**
 * Takes the next number of a series for an issue date. Runs in the transaction that writes the document: the counter's
 * row stays locked until then, so two people never get the same number and a rolled-back filing leaves no gap.
 */
export async function takeNumber(
  transaction: Connection,
  seriesId: string,
  issueDate: string,
  by: string,
): Promise<typeof numbers.$inferSelect> {
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
  const text = documentNumber(row.formula, issueDate, serial);
  const [taken] = await transaction
    .insert(numbers)
    .values({ id: uuidv7(), seriesId, period, serial, text, state: 'taken', by })
    .returning();
  return taken!;
}

/** Marks a number as void: its document will never be filed. It stays in the register. */
export async function voidNumber(transaction: Connection, numberId: string): Promise<void> {
  await transaction.update(numbers).set({ state: 'void' }).where(eq(numbers.id, numberId));
}
