import { mostDifferent } from '../core/record/differ';
import type { PathTree } from '../core/record/paths';
import type { RecordSchema } from '../core/record/schema';
import type { Template } from '../core/template/template';
import { crm } from './records/sources';

/** Records that a template is proved on, where it names none; and among how many they are looked for. */
const PROOFS = 10;
const CANDIDATES = 200;

/** The records that a template names to be proved on; ten that differ most in what it reads where it names none. @throws SourceError */
export async function proofRecords(
  template: Template,
  paths: PathTree,
  schema: RecordSchema,
): Promise<readonly string[]> {
  if (template.proofRecords) return template.proofRecords;
  const candidates = await crm.list(template.record.type, paths, { top: CANDIDATES, last: true });
  return mostDifferent(candidates, PROOFS, schema).map(({ id }) => id);
}
