import { requestCrm } from './client';
import { readCsdl, type CrmSchema } from './csdl';

const FRESH_FOR = 60_000;
let known: { schema: CrmSchema; until: number } | undefined;

/**
 * What the CRM holds, from its CSDL. Asked anew after a minute; while the CRM is away, the last answer stands.
 * @throws CrmError when it was never reached.
 */
export async function crmSchema(): Promise<CrmSchema> {
  if (known && known.until > Date.now()) return known.schema;
  try {
    return await freshSchema();
  } catch (problem) {
    if (!known) throw problem;
    known.until = Date.now() + FRESH_FOR / 10;
    return known.schema;
  }
}

/** The same, asked anew. @throws CrmError */
export async function freshSchema(): Promise<CrmSchema> {
  const request = { path: '$metadata', headers: { Accept: 'application/xml' }, repeatable: true };
  const schema = await requestCrm(request, async (response) => readCsdl(await response.text()));
  known = { schema, until: Date.now() + FRESH_FOR };
  return schema;
}
