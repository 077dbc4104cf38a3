import { eq } from 'drizzle-orm';
import { config } from '../../config';
import { openDatabase, type Connection } from '../../db/database';
import { connections } from '../../db/schema';
import { Problem } from '../../problem';
import { seal, unseal } from '../../secrets/seal';

export const CRM = 'crm';
/** For how long what was read is used: another process may have changed it. */
const FRESH = 3_000;

/** How the CRM is called. */
export interface CrmConnection {
  url: string;
  clientId: string;
  clientSecret: string;
}

let kept: { connection: CrmConnection; until: number } | undefined;

/** How the CRM is called now. @throws Error where its secret cannot be read */
export async function crmConnection(): Promise<CrmConnection> {
  if (kept && kept.until > Date.now()) return kept.connection;
  const connection = await keptConnection(openDatabase().database);
  kept = { connection, until: Date.now() + FRESH };
  return connection;
}

/** The same, read anew. @throws Problem where its secret cannot be read */
export async function keptConnection(database: Connection): Promise<CrmConnection> {
  const [row] = await database.select().from(connections).where(eq(connections.id, CRM));
  if (!row) return config.crm;
  const clientSecret = unseal(row.sealedSecret, 'connection');
  if (clientSecret === undefined)
    throw new Problem(
      503,
      'The CRM’s secret cannot be read',
      'The key that it was sealed with is not in the key file. Put it back, or set the secret anew in Setup, Connection.',
    );
  return { url: row.url, clientId: row.clientId, clientSecret };
}

/** Keeps what the start command says of the CRM, unless a person has said otherwise. */
export async function keepStartConnection(connection: Connection): Promise<void> {
  const [row] = await connection.select().from(connections).where(eq(connections.id, CRM));
  if (row?.origin === 'person') return;
  await writeConnection(connection, config.crm, 'start');
}

/** Writes down how the CRM is called. */
export async function writeConnection(
  connection: Connection,
  { url, clientId, clientSecret }: CrmConnection,
  origin: 'start' | 'person',
): Promise<void> {
  const values = {
    id: CRM,
    url,
    clientId,
    sealedSecret: seal(clientSecret, 'connection'),
    origin,
    changedAt: new Date(),
  };
  await connection.insert(connections).values(values).onConflictDoUpdate({ target: connections.id, set: values });
  kept = undefined;
}
