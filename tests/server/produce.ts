import { randomUUID } from 'node:crypto';
import type { Choices } from '../../core/production/production';
import type { Caller } from '../../server/people/caller';
import { beginFiling, type Accepted, type FilingRequest } from '../../server/productions/begin';
import type { Contract } from '../../core/contract/contract';
import type { AnswerOf } from '../../core/contract/endpoint';
import { proofDocument } from '../../server/productions/proof';
import type { Services } from '../../server/services';

/** The proof that a page would show of a record with a template. */
export async function proofOf(
  services: Services,
  recordId: string,
  templateId: string,
  caller: Caller,
  choices: Choices = {},
  has: readonly string[] = [],
): Promise<AnswerOf<Contract['POST /productions']>> {
  const wanted = { recordId, templateId, choices };
  const { bytes } = await proofDocument(services, wanted, caller, { has, near: [1, 2], encoding: 'identity' });
  return JSON.parse(Buffer.from(bytes).toString()) as AnswerOf<Contract['POST /productions']>;
}

/** What a page would send to file a proof, every warning skipped. */
export function filingOf({ id, findings }: Awaited<ReturnType<typeof proofOf>>): FilingRequest {
  const warnings = findings.filter(({ severity }) => severity === 'warns');
  return {
    production: id,
    skips: Object.fromEntries(warnings.map(({ id: finding }) => [finding, 'agreed by telephone'])),
  };
}

/** Proofs a document and gives what a page would send to file it. */
export const requestFor = async (...asked: Parameters<typeof proofOf>): Promise<FilingRequest> =>
  filingOf(await proofOf(...asked));

/** Begins to file, under a new key unless one is given. */
export const fileAs = (
  services: Services,
  request: FilingRequest,
  caller: Caller,
  key: string = randomUUID(),
): Promise<Accepted> => beginFiling(services, request, key, caller);
