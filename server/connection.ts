import { eq } from 'drizzle-orm';
import type { Contract } from '../core/contract/contract';
import type { BodyOf } from '../core/contract/endpoint';
import type { Connection, Database } from './db/database';
import { connections } from './db/schema';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import { letIn } from './records/odata/client';
import { CRM, keptConnection, writeConnection } from './records/odata/connection';
import { readAnew } from './records/record-index';
import { freshSchema } from './records/record-schema';
import { addToTrail } from './trail';

/** The connection as people see it. */
export async function readConnection(connection: Connection) {
  const [row] = await connection.select().from(connections).where(eq(connections.id, CRM));
  const { url, clientId, changedAt, origin } = row!;
  return { url, clientId, changedAt, byPerson: origin === 'person' };
}

/**
 * Changes how the CRM is called, once it let Lumbix in with it. Without a secret the one that is kept stays, as long as it goes to
 * the same place. @throws Problem, SourceError
 */
export async function changeConnection(
  database: Database,
  caller: Caller,
  { url, clientId, secret }: BodyOf<Contract['PUT /connection']>,
): Promise<void> {
  const before = await keptConnection(database);
  const address = url.replace(/\/+$/, '');
  if (!secret && new URL(address).origin !== new URL(before.url).origin)
    throw new Problem(
      422,
      'The secret is needed',
      'The kept secret goes to no other address. Type the one for this address. Nothing was changed.',
    );
  const after = { url: address, clientId, clientSecret: secret || before.clientSecret };
  await letIn(after);
  await database.transaction(async (transaction) => {
    await writeConnection(transaction, after, 'person');
    // What one CRM told of its changes leads nowhere at another.
    if (before.url !== after.url) await readAnew(transaction);
    const subject = { kind: 'connection' as const, id: CRM, name: 'CRM' };
    const what = [
      before.url !== after.url && `address ${after.url}`,
      before.clientId !== after.clientId && `client ${after.clientId}`,
      secret && 'a new secret',
    ].filter(Boolean);
    await addToTrail(
      transaction,
      caller,
      'connection changed',
      subject,
      `Changed the connection to the CRM: ${what.join(', ') || 'nothing new'}.`,
    );
  });
}

/** Tries whether the CRM answers now. Gives its types of records. @throws SourceError */
export async function testConnection() {
  const schema = await freshSchema();
  const types = Object.values(schema.types).map(({ name, label, fields }) => ({
    name,
    label,
    fields: Object.keys(fields).length,
  }));
  return { types };
}
