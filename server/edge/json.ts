import { setResponseHeader, setResponseHeaders, type H3Event } from 'h3';
import { compressed } from '../compress';
import type { EncodedJson } from './answer';
import { encodingFor } from './encoding';

/** What is smaller goes as it is: it fits into a packet or two (RFC 9293, 3.7.1). */
const WORTHWHILE = 1_400;
/** An answer as JSON, compressed off this thread where that is worth while and its caller takes it. */
export async function sentJson(event: H3Event, given: unknown): Promise<string | Uint8Array | undefined> {
  if (given === undefined) return undefined;
  const text = JSON.stringify(given);
  setResponseHeader(event, 'Content-Type', 'application/json');
  const encoding = text.length > WORTHWHILE ? encodingFor(event) : 'identity';
  if (encoding === 'identity') return text;
  return sentEncoded(event, { bytes: await compressed(text, encoding), encoding });
}

/** An answer that is made and compressed already. */
export function sentEncoded(
  event: H3Event,
  { bytes, encoding }: Pick<EncodedJson<unknown>, 'bytes' | 'encoding'>,
): Uint8Array {
  setResponseHeaders(event, { 'Content-Type': 'application/json', Vary: 'Accept-Encoding' });
  if (encoding !== 'identity') setResponseHeader(event, 'Content-Encoding', encoding);
  return bytes;
}
