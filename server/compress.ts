import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

/** How an answer may be compressed, the best way first: the content codings of RFC 9110, 8.4.1. */
export const ENCODINGS = ['br', 'gzip', 'identity'] as const;
export type Encoding = (typeof ENCODINGS)[number];

const [inBrotli, inGzip] = [promisify(brotliCompress), promisify(gzip)];
/** A little pressing takes most of the way, and people wait for the rest. */
const QUICKLY = { params: { [constants.BROTLI_PARAM_QUALITY]: 2 } };

/** A text as bytes in a coding, compressed off the thread that asks. */
export async function compressed(text: string, encoding: Encoding): Promise<Uint8Array> {
  if (encoding === 'br') return inBrotli(text, QUICKLY);
  return encoding === 'gzip' ? inGzip(text, { level: 1 }) : Buffer.from(text);
}
