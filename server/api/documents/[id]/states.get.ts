import { createEventStream, getRouterParams } from 'h3';
import { route } from '../../../problem';
import { documentState } from '../../../register';
import { documentId } from '../../../requests';
import { services } from '../../../services';

/** The states of a document as server-sent events, from the one it has to the one it ends in. */
export default route(async (event) => {
  const { id } = await documentId.validate(getRouterParams(event));
  const { database, changes } = await services();
  const stream = createEventStream(event);
  let lastSent = '';
  const tell = async () => {
    const document = await documentState(database, id);
    const text = JSON.stringify(document ?? null);
    if (text === lastSent) return;
    lastSent = text;
    await stream.push(text);
  };
  const listener = (changed: string) => {
    if (changed === id || changed === '') void tell();
  };
  changes.on('document', listener);
  stream.onClosed(async () => {
    changes.off('document', listener);
    await stream.close();
  });
  void tell();
  return stream.send();
});
