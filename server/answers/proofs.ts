import type { proofEndpoints } from '../../core/contract/proofs';
import type { Answers } from '../edge/answer';
import { pdfHeaders } from '../edge/file-headers';
import { explainProof, proofDocument, trialPdf } from '../proof';

export const proofAnswers: Answers<typeof proofEndpoints> = {
  'GET /proof': ({ query: { deal, template, ...forced }, services }) => proofDocument(services, deal, template, forced),
  'GET /proof/trial': async ({ query: { deal, template, ...forced }, services }) => {
    const { bytes, fileName } = await trialPdf(services, deal, template, forced);
    return { bytes, headers: pdfHeaders(fileName) };
  },
  'GET /proof/workings': ({ query: { key, id }, services }) => explainProof(services, key, id),
};
