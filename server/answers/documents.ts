import type { documentEndpoints } from '../../core/contract/documents';
import type { Answers } from '../edge/answer';
import { pdfHeaders } from '../edge/file-headers';
import { beginFiling } from '../filing/begin';
import { documentState, listDocuments, noDocument, readDocument, readFile } from '../register';

export const documentAnswers: Answers<typeof documentEndpoints> = {
  'GET /documents': ({ query, services, caller }) => listDocuments(services.database, query, caller),
  'POST /documents': ({ body, services, caller }) => beginFiling(services, body, caller),
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
