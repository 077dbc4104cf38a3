import { mostDifferent, mostDifferentBy } from '../core/record/differ';
import type { PathTree } from '../core/record/paths';
import type { RecordSchema } from '../core/record/schema';
import type { RecordSnapshot } from '../core/record/snapshot';
import { proofTraits } from '../core/production/proof-traits';
import type { Pins, Template } from '../core/template/template';
import { compositionInput } from './productions/template';
import { crm } from './records/sources';
import type { Services } from './services';

/** Records that a template is proved on, where it names none. */
const PROOFS = 10;
/** Among how many they are looked for by what is on them, and then by what prints for them. */
const CANDIDATES = 100;
const COMPOSED = 24;

/**
 * The records that a template names to be proved on. Where it names none, ten whose documents differ most: in which sections print, in
 * how many lines, in currency and edition. @throws SourceError
 */
export async function proofRecords(
  services: Services,
  template: Template,
  pins: Pins,
  paths: PathTree,
  schema: RecordSchema,
): Promise<readonly string[]> {
  if (template.proofRecords) return template.proofRecords;
  const records = await crm.list(template.record.type, paths, { top: CANDIDATES, last: true });
  const candidates = mostDifferent(records, COMPOSED, schema);
  const seen = await Promise.all(candidates.map((record) => traitsOf(services, template, pins, record)));
  return mostDifferentBy(seen, PROOFS, ({ traits }) => traits).map(({ id }) => id);
}

/** What tells a record's document from others; nothing where it cannot be composed, which is told when it is proved. */
async function traitsOf(
  { database, press }: Services,
  template: Template,
  pins: Pins,
  record: RecordSnapshot,
): Promise<{ id: string; traits: string[] }> {
  try {
    const composition = await press.compose(await compositionInput(database, { template, pins }, record));
    return { id: record.id, traits: [...proofTraits(composition)] };
  } catch {
    return { id: record.id, traits: ['fails'] };
  }
}
