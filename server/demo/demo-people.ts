import { and, eq, isNull, notInArray } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { demoPeople } from '../../demo/people';
import type { Connection } from '../db/database';
import { people } from '../db/schema';

/** Has these accounts of the demo and no others: where the demo is not loaded, nobody signs in with a click. */
export async function keepDemoPeople(connection: Connection, wanted: typeof demoPeople): Promise<void> {
  const addresses = wanted.map(({ email }) => email);
  await connection
    .update(people)
    .set({ withdrawnAt: new Date() })
    .where(
      and(
        eq(people.isDemo, true),
        isNull(people.withdrawnAt),
        addresses.length > 0 ? notInArray(people.email, addresses) : undefined,
      ),
    );
  for (const { name, email, roles } of wanted) {
    const values = { id: uuidv7(), name, email, roles: [...roles], isDemo: true };
    await connection.insert(people).values(values).onConflictDoNothing();
    await connection
      .update(people)
      .set({ withdrawnAt: null })
      .where(and(eq(people.email, email), eq(people.isDemo, true)));
  }
}
