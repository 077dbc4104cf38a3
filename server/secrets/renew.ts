import { eq, isNotNull } from 'drizzle-orm';
import type { Connection } from '../db/database';
import { connections, people, places } from '../db/schema';
import { isSealedAnew, seal, unseal, type Purpose } from './seal';

/** Seals everything that is kept sealed with the newest key. Gives how many secrets were sealed anew. @throws Error where a key is missing */
export async function sealAnew(connection: Connection): Promise<number> {
  let count = 0;
  const anew = (sealed: string, purpose: Purpose): string | undefined => {
    if (isSealedAnew(sealed)) return undefined;
    const secret = unseal(sealed, purpose);
    if (secret === undefined)
      throw new Error(`The key of a secret (${purpose}) is not in the key file. Put it back, then start again.`);
    count++;
    return seal(secret, purpose);
  };
  for (const { id, codeSecret } of await connection.select().from(people).where(isNotNull(people.codeSecret))) {
    const sealed = anew(codeSecret!, 'one-time codes');
    if (sealed) await connection.update(people).set({ codeSecret: sealed }).where(eq(people.id, id));
  }
  for (const { id, sealedSecret } of await connection.select().from(connections)) {
    const sealed = anew(sealedSecret, 'connection');
    if (sealed) await connection.update(connections).set({ sealedSecret: sealed }).where(eq(connections.id, id));
  }
  for (const { id, sealedSecret } of await connection.select().from(places).where(isNotNull(places.sealedSecret))) {
    const sealed = anew(sealedSecret!, 'place');
    if (sealed) await connection.update(places).set({ sealedSecret: sealed }).where(eq(places.id, id));
  }
  return count;
}
