import { addressOf } from '#core/contract/address';
import type { DocumentRow } from './api';

/** Whether nothing more happens to a document's filing. */
export const isEnded = ({ state }: Pick<DocumentRow, 'state'>): boolean => state === 'filed' || state === 'failed';

/** Tells each state of a document from now on, until it is filed or has failed. Gives what ends it before. */
export function followDocument(id: string, told: (document: DocumentRow) => void): () => void {
  const states = new EventSource(addressOf('GET /documents/{id}/states', { parameters: { id } }));
  states.onmessage = ({ data }) => {
    const document = JSON.parse(data as string) as DocumentRow;
    if (isEnded(document)) states.close();
    told(document);
  };
  return () => states.close();
}
