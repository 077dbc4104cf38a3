import type { Connection } from '../db/database';
import { places } from '../db/schema';
import { seal } from '../secrets/seal';

/** The demo's places for copies, at the storage that stands in for an outside one; a person's changes to them stay. */
export async function keepDemoPlaces(connection: Connection, storageUrl: string): Promise<void> {
  const [user, secret] = ['lumbix', 'local-only'];
  const sealedSecret = seal(secret, 'place');
  await connection
    .insert(places)
    .values([
      {
        id: 'team-files',
        label: 'Team files',
        settings: { type: 'webDav', url: `${storageUrl}/dav`, user },
        sealedSecret,
      },
      {
        id: 'long-term',
        label: 'Long-term store',
        settings: { type: 's3', url: `${storageUrl}/s3`, bucket: 'copies', region: 'local', user },
        sealedSecret,
      },
    ])
    .onConflictDoNothing();
}
