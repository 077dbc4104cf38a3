/** Reads what requests bring, never more than a route takes: limits hold before anything is kept or parsed. */
import { setResponseHeader, type H3Event } from 'h3';
import { boundedJson, type Bounds } from '../../core/shape/bounds';
import { Problem } from '../problem';

/** Bytes of a JSON body. */
const LARGEST_JSON = 20_000_000;
/** A filing says every value that its proof used: some thousands of lines, by paths that may hold a whole formula. */
const JSON_BOUNDS: Bounds = { values: 500_000, objects: 20_000, depth: 60, items: 20_000, text: 200_000, name: 25_000 };

/** The body of a request, with or without a length told before. @throws Problem where it has more than `most` bytes */
export function readBytes(event: H3Event, most: number): Promise<Uint8Array> {
  const request = event.node.req;
  const refuse = () => {
    // What is still to come is not read.
    setResponseHeader(event, 'Connection', 'close');
    return new Problem(
      413,
      'This is too large',
      `At most ${Math.floor(most / 1_000_000)} MB are read here. Nothing was changed.`,
    );
  };
  if (Number(request.headers['content-length'] ?? 0) > most) return Promise.reject(refuse());
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    let size = 0;
    const take = (chunk: Buffer) => {
      size += chunk.length;
      if (size <= most) return void chunks.push(chunk);
      request.off('data', take);
      request.pause();
      chunks.length = 0;
      reject(refuse());
    };
    request.on('data', take);
    request.once('end', () => resolve(Buffer.concat(chunks)));
    request.once('close', () =>
      reject(new Problem(400, 'The request broke off', 'Nothing was changed; send it again.')),
    );
  });
}

/** The JSON of a request, bounded before it is parsed. @throws Problem */
export async function readJson(event: H3Event): Promise<unknown> {
  const bytes = await readBytes(event, LARGEST_JSON);
  const read = boundedJson(decoded(bytes), 'The request', JSON_BOUNDS);
  if ('refused' in read) throw new Problem(400, 'The request is not valid', read.refused);
  return read.data;
}

function decoded(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new Problem(400, 'The request is not valid', 'The request is not written in UTF-8.');
  }
}
