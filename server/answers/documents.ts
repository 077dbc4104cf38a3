import type { documentEndpoints } from '../../core/contract/documents';
import type { Answers } from '../edge/answer';
import { pdfHeaders } from '../edge/file-headers';
import { beginFiling } from '../productions/begin';
import { letGo, tryAgain, voidDocument } from '../productions/ways-on';
import { documentState, listDocuments, noDocument, readDocument, readFile, registerFilters } from '../register';

export const documentAnswers: Answers<typeof documentEndpoints> = {
  'GET /documents': ({ query, services, caller }) => listDocuments(services.database, query, caller),
  'GET /register': ({ services, caller }) => registerFilters(services.database, caller),
  'POST /documents': ({ body, key, services, caller }) => beginFiling(services, body, key, caller),
  'POST /documents/{id}/try': async ({ parameters, services, caller }) => {
    await tryAgain(services, parameters.id, caller);
    return { tried: true };
  },
  'POST /documents/{id}/let-go': async ({ parameters, body, services, caller }) => {
    await letGo(services, parameters.id, body, caller);
    return { letGo: true };
  },
  'POST /documents/{id}/void': async ({ parameters, body, services, caller }) => {
    await voidDocument(services, parameters.id, body.reason, caller);
    return { asked: true };
  },
  'GET /documents/{id}': ({ parameters, services, caller }) => readDocument(services.database, parameters.id, caller),
  'GET /documents/{id}/file': async ({ parameters, services, caller }) => {
    const { bytes, fileName, sha256 } = await readFile(services.database, parameters.id, caller);
    const kept = { 'Cache-Control': 'private, max-age=31536000, immutable', ETag: `"${sha256}"` };
    return { bytes, headers: { ...pdfHeaders(fileName), ...kept } };
  },
  'GET /documents/{id}/states': async ({ parameters: { id }, services: { database, changes }, caller }) => {
    const state = async () => {
      const document = await documentState(database, id, caller);
      if (!document) throw noDocument();
      return document;
    };
    await state();
    return (send) => {
      // Whoever may not see it any more hears nothing more of it.
      const tell = () => state().then(send, () => undefined);
      const listener = (changed: string) => {
        if (changed === id || changed === '') void tell();
      };
      changes.on('document', listener);
      // Looked at once it is listened to, so that no change falls between.
      void tell();
      return () => changes.off('document', listener);
    };
  },
};
