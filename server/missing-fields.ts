import { setImmediate } from 'node:timers/promises';
import { LRUCache } from 'lru-cache';
import type { RecordSchema } from '../core/record/schema';
import { checkContext } from '../core/template/check';
import { missingFields } from '../core/template/missing-fields';
import type { Database } from './db/database';
import { templateVersion } from './productions/template';
import { recordSchema } from './records/record-schema';

/** What versions lack, by the schema it was found with: versions never change, the schema seldom. */
const known = new LRUCache<string, { of: RecordSchema; fields: string[] }>({ max: 500 });

/** Names of the fields that published versions read and the CRM has no longer, by version; none while nothing is known of the CRM. */
export async function fieldsGone(database: Database, versionIds: readonly string[]): Promise<Map<string, string[]>> {
  const schema = await recordSchema().catch(() => undefined);
  const found = new Map<string, string[]>();
  if (!schema) return found;
  for (const id of versionIds) {
    let gone = known.get(id);
    if (gone?.of !== schema) {
      // Others are answered between two versions.
      await setImmediate();
      const { template, pins } = await templateVersion(database, id);
      const missing = missingFields(template, checkContext(template, schema, pins.houseStyles));
      known.set(id, (gone = { of: schema, fields: missing.map(({ name }) => name) }));
    }
    found.set(id, gone.fields);
  }
  return found;
}
