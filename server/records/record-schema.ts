import { eq } from 'drizzle-orm';
import { withLayouts, type RecordLayout } from '../../core/record/layout';
import type { RecordSchema } from '../../core/record/schema';
import { openDatabase, type Connection } from '../db/database';
import { recordLayouts, recordSchemas } from '../db/schema';
import { digestOf } from '../digest';
import { SourceError } from './source';
import { CRM, crm } from './sources';

/** For so long what a source says is used, and what another process may have said of the layouts. */
const SCHEMA_FRESH = 20_000;
const LAYOUTS_FRESH = 1_000;

let known: { schema: RecordSchema; until: number } | undefined;
let laidOut: { of: RecordSchema; layouts: string; schema: RecordSchema; until: number } | undefined;

/**
 * What the CRM holds, and how it is shown. Asked anew after some seconds; while the CRM is away, what it said last stands, even from
 * before a restart.
 * @throws SourceError where it was never reached
 */
export async function recordSchema(): Promise<RecordSchema> {
  const plain = await plainSchema();
  if (laidOut?.of === plain && laidOut.until > Date.now()) return laidOut.schema;
  return layOut(plain);
}

/** The same, asked anew. @throws SourceError */
export async function freshSchema(): Promise<RecordSchema> {
  return layOut(await askSource());
}

/**
 * Does something that asks the CRM for fields; once more where it refuses them (OData 4.01 protocol, 9.2: status 400), since what it holds
 * has changed in the meantime.
 * @throws SourceError
 */
export async function withSchemaAsItIs<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask();
  } catch (refused) {
    const isRefused = refused instanceof SourceError && refused.failure === 'refused' && refused.status === 400;
    const before = known?.schema;
    if (!isRefused || (await hasNotChanged(before))) throw refused;
    return ask();
  }
}

async function hasNotChanged(before: RecordSchema | undefined): Promise<boolean> {
  try {
    await freshSchema();
  } catch {
    return true;
  }
  return known?.schema === before;
}

const digests = new WeakMap<RecordSchema, string>();
/** Names what a schema says: it is another one as soon as anything in it is. */
export function schemaDigest(schema: RecordSchema): string {
  const known = digests.get(schema);
  if (known !== undefined) return known;
  const digest = digestOf(JSON.stringify(schema));
  digests.set(schema, digest);
  return digest;
}

async function plainSchema(): Promise<RecordSchema> {
  if (known && known.until > Date.now()) return known.schema;
  try {
    return await askSource();
  } catch (problem) {
    const schema = known?.schema ?? (await keptSchema());
    if (!schema) throw problem;
    known = { schema, until: Date.now() + SCHEMA_FRESH / 10 };
    return schema;
  }
}

async function askSource(): Promise<RecordSchema> {
  const said = await crm.schema();
  // The same object for the same schema, so that what was found for it is found again.
  const schema = known && JSON.stringify(known.schema) === JSON.stringify(said) ? known.schema : said;
  if (schema !== known?.schema) {
    const values = { source: CRM, schema, readAt: new Date() };
    const target = recordSchemas.source;
    await openDatabase().database.insert(recordSchemas).values(values).onConflictDoUpdate({ target, set: values });
  }
  known = { schema, until: Date.now() + SCHEMA_FRESH };
  return schema;
}

async function keptSchema(): Promise<RecordSchema | undefined> {
  const [row] = await openDatabase().database.select().from(recordSchemas).where(eq(recordSchemas.source, CRM));
  return row?.schema;
}

async function layOut(plain: RecordSchema): Promise<RecordSchema> {
  const kept = await keptLayouts(openDatabase().database);
  const layouts = JSON.stringify(kept);
  const isSame = laidOut?.of === plain && laidOut.layouts === layouts;
  const schema = isSame ? laidOut!.schema : withLayouts(plain, kept);
  laidOut = { of: plain, layouts, schema, until: Date.now() + LAYOUTS_FRESH };
  return schema;
}

/** The layouts that people or the start command chose, by type. */
async function keptLayouts(connection: Connection): Promise<Record<string, RecordLayout>> {
  const rows = await connection
    .select()
    .from(recordLayouts)
    .where(eq(recordLayouts.source, CRM))
    .orderBy(recordLayouts.type);
  return Object.fromEntries(rows.map(({ type, layout }) => [type, layout]));
}

/** Has layouts read anew the next time. */
export const forgetLayouts = (): void => void (laidOut = undefined);
