import { addressOf } from '#core/contract/address';
import type { DocumentRow } from './api';

/** Whether nothing more happens to a document's filing. */
export const isEnded = ({ state }: Pick<DocumentRow, 'state'>): boolean => state === 'filed' || state === 'failed';

/** Whether nothing more happens by itself: it has failed, or it is filed and its steps are done, or held for a person. */
export const isSettled = (document: Pick<DocumentRow, 'state' | 'stepsLeft' | 'isHeld'>): boolean =>
  isEnded(document) && (document.stepsLeft === 0 || document.isHeld);

/** Tells each state of a document from now on, until nothing more happens by itself. Gives what ends it before. */
export function followDocument(id: string, told: (document: DocumentRow) => void): () => void {
  const states = new EventSource(addressOf('GET /documents/{id}/states', { parameters: { id } }));
  states.onmessage = ({ data }) => {
    const document = JSON.parse(data as string) as DocumentRow;
    if (isSettled(document)) states.close();
    told(document);
  };
  return () => states.close();
}
