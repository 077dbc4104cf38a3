import type { productionEndpoints } from '../../core/contract/productions';
import type { Answers } from '../edge/answer';
import { encodingFor } from '../edge/encoding';
import { pdfHeaders } from '../edge/file-headers';
import {
  changedSinceProof,
  explainProof,
  proofDocument,
  proofPages,
  proofParts,
  trialPdf,
  workProofBack,
} from '../productions/proof';

/** What a screen shows of a proof at first. */
const FIRST = [1, 2];

export const productionAnswers: Answers<typeof productionEndpoints> = {
  'GET /productions': ({
    query: { template, record, edition, plan, asNew, issueDate, production },
    services,
    caller,
    event,
  }) => {
    const of = production === undefined ? undefined : { id: production };
    const wanted = {
      templateId: template,
      recordId: record,
      choices: {
        ...(edition && { edition }),
        ...(plan && { plan }),
        ...(asNew && { asNew }),
        ...(issueDate && { issueDate }),
      },
      of,
    };
    return proofDocument(services, wanted, caller, { has: [], near: FIRST, encoding: encodingFor(event) });
  },
  'POST /productions': ({ body, services, caller, event }) => {
    const { template, record, choices = {}, production, revision, changes, since, written = [] } = body;
    const { has = [], near = FIRST } = body;
    const of = production === undefined ? undefined : { id: production, revision };
    const wanted = { templateId: template, recordId: record, choices, changes, of, since, written };
    return proofDocument(services, wanted, caller, { has, near, encoding: encodingFor(event) });
  },
  'GET /productions/{id}/pages': ({ parameters, query, services, caller, event }) =>
    proofPages(services, parameters.id, query, caller, encodingFor(event)),
  'GET /productions/{id}/changed': async ({ parameters, services, caller }) => ({
    changed: await changedSinceProof(services, parameters.id, caller),
  }),
  'GET /productions/{id}/parts': ({ parameters, services, caller }) => proofParts(services, parameters.id, caller),
  'GET /productions/{id}/work-back': ({ parameters, query, services, caller }) =>
    workProofBack(services, parameters.id, query, caller),
  'GET /productions/{id}/trial': async ({ parameters, services, caller }) => {
    const { bytes, fileName } = await trialPdf(services, parameters.id, caller);
    return { bytes, headers: pdfHeaders(fileName) };
  },
  'GET /productions/{id}/workings': ({ parameters, query, services, caller }) =>
    explainProof(services, parameters.id, query.value, caller),
};
