import { getHeader, type H3Event } from 'h3';
import { ENCODINGS, type Encoding } from '../compress';

/** The best coding that a caller takes (RFC 9110, 12.5.3). */
export function encodingFor(event: H3Event): Encoding {
  const taken = new Set(
    (getHeader(event, 'accept-encoding') ?? '')
      .split(',')
      .map((each) =>
        each
          .trim()
          .toLowerCase()
          .split(/\s*;\s*/),
      )
      .flatMap(([name, weight]) => (weight === undefined || Number(weight.replace('q=', '')) > 0 ? name! : [])),
  );
  return ENCODINGS.find((each) => taken.has(each)) ?? 'identity';
}
