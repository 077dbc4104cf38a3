import type { documentEndpoints } from '../../core/contract/documents';
import type { Answers } from '../edge/answer';
import { pdfHeaders } from '../edge/file-headers';
import { beginFiling } from '../filing/begin';
import { documentState, listDocuments, readDocument, readFile } from '../register';

export const documentAnswers: Answers<typeof documentEndpoints> = {
  'GET /documents': ({ query, services }) => listDocuments(services.database, query),
  'POST /documents': ({ body, services }) => beginFiling(services, body),
  'GET /documents/{id}': ({ parameters, services }) => readDocument(services.database, parameters.id),
  'GET /documents/{id}/file': async ({ parameters, services }) => {
    const { bytes, fileName, sha256 } = await readFile(services.database, parameters.id);
    const kept = { 'Cache-Control': 'private, max-age=31536000, immutable', ETag: `"${sha256}"` };
    return { bytes, headers: { ...pdfHeaders(fileName), ...kept } };
  },
  'GET /documents/{id}/states':
    ({ parameters: { id }, services: { database, changes } }) =>
    (send) => {
      const tell = async () => send((await documentState(database, id)) ?? null);
      const listener = (changed: string) => {
        if (changed === id || changed === '') void tell();
      };
      changes.on('document', listener);
      void tell();
      return () => changes.off('document', listener);
    },
};
