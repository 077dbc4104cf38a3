import type { draftEndpoints } from '../../core/contract/drafts';
import {
  beginDraft,
  beginNew,
  listDrafts,
  openDraft,
  publishDraft,
  saveDraft,
  seeEditor,
  throwDraftAway,
} from '../drafts';
import { draftTrial } from '../draft-trial';
import { proofDraft, recordsToProveOn } from '../draft-proof';
import { documentsToReplay, replayDocument } from '../replay';
import type { Answers } from '../edge/answer';
import { encodingFor } from '../edge/encoding';
import { pdfHeaders } from '../edge/file-headers';

/** What a screen shows of a proof at first. */
const FIRST = [1];

export const draftAnswers: Answers<typeof draftEndpoints> = {
  'GET /drafts': ({ services, caller }) => listDrafts(services.database, caller),
  'POST /drafts': ({ body, services, caller }) => beginDraft(services, body.template, caller),
  'POST /drafts/new': ({ body, services, caller }) => beginNew(services, body, caller),
  'GET /templates/{id}/draft': ({ parameters, services, caller }) => openDraft(services, parameters.id, caller),
  'PUT /templates/{id}/draft': ({ parameters, body, services, caller }) =>
    saveDraft(services, parameters.id, body, caller),
  'DELETE /templates/{id}/draft': ({ parameters, query, services, caller }) =>
    throwDraftAway(services, parameters.id, query.revision, caller),
  'GET /templates/{id}/draft/trial': async ({ parameters, query, services, caller }) => {
    const { bytes, fileName } = await draftTrial(services, parameters.id, query.record, caller);
    return { bytes, headers: pdfHeaders(fileName) };
  },
  'POST /templates/{id}/draft/proof': ({ parameters, body, services, caller, event }) => {
    const { has = [], near = FIRST } = body;
    return proofDraft(services, parameters.id, body, caller, { has, near, encoding: encodingFor(event) });
  },
  'GET /templates/{id}/draft/replay': ({ parameters, services, caller }) =>
    documentsToReplay(services, parameters.id, caller),
  'POST /templates/{id}/draft/replay': ({ parameters, body, services, caller }) =>
    replayDocument(services, parameters.id, body, caller),
  'GET /templates/{id}/draft/proof-records': ({ parameters, query, services, caller }) =>
    recordsToProveOn(services, parameters.id, query.values === true, caller),
  'POST /templates/{id}/draft/editors': ({ parameters, body, services, caller }) =>
    seeEditor(services, parameters.id, body, caller),
  'POST /templates/{id}/versions': ({ parameters, body, services, caller }) =>
    publishDraft(services, parameters.id, body, caller),
};
