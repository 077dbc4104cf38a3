import { and, eq } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import type { RecordLayout } from '../../core/record/layout';
import type { Connection } from '../db/database';
import { recordLayouts } from '../db/schema';
import { readAnew } from './record-index';
import { forgetLayouts } from './record-schema';
import { CRM } from './sources';

const isOf = (type: string) => and(eq(recordLayouts.source, CRM), eq(recordLayouts.type, type));

/** Keeps how records of a type are shown, and has the index of them read anew by it; undefined brings the usual layout back. */
export async function keepLayout(
  connection: Connection,
  type: string,
  layout: RecordLayout | undefined,
  origin: 'start' | 'person',
): Promise<void> {
  const target = [recordLayouts.source, recordLayouts.type];
  if (layout) {
    const values = { source: CRM, type, layout, origin, changedAt: new Date() };
    await connection.insert(recordLayouts).values(values).onConflictDoUpdate({ target, set: values });
  } else await connection.delete(recordLayouts).where(isOf(type));
  await readAnew(connection, type);
  forgetLayouts();
}

/** Keeps the layouts that the start command brings, unless a person has said otherwise. */
export async function keepStartLayouts(
  connection: Connection,
  layouts: Readonly<Record<string, RecordLayout>>,
): Promise<void> {
  for (const [type, layout] of Object.entries(layouts)) {
    const [row] = await connection.select().from(recordLayouts).where(isOf(type));
    if (row?.origin === 'person' || isDeepStrictEqual(row?.layout, layout)) continue;
    await keepLayout(connection, type, layout, 'start');
  }
}
