import type { proofEndpoints } from '../../core/contract/proofs';
import type { Answers } from '../edge/answer';
import { pdfHeaders } from '../edge/file-headers';
import { explainProof, proofDocument, trialPdf } from '../proof';

export const proofAnswers: Answers<typeof proofEndpoints> = {
  'GET /proof': ({ query: { deal, template, ...forced }, services, caller }) =>
    proofDocument(services, deal, template, caller, forced),
  'GET /proof/trial': async ({ query: { deal, template, ...forced }, services, caller }) => {
    const { bytes, fileName } = await trialPdf(services, deal, template, caller, forced);
    return { bytes, headers: pdfHeaders(fileName) };
  },
  'GET /proof/workings': ({ query: { key, id }, services, caller }) => explainProof(services, key, id, caller),
};
