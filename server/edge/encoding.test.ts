import type { H3Event } from 'h3';
import { describe, expect, it } from 'vitest';
import { encodingFor } from './encoding';

const event = (accepted?: string) =>
  ({ node: { req: { headers: accepted === undefined ? {} : { 'accept-encoding': accepted } } } }) as unknown as H3Event;

describe('what an answer is pressed with', () => {
  it.each([
    ['gzip, deflate, br, zstd', 'br'],
    ['gzip', 'gzip'],
    ['GZIP;q=0.5', 'gzip'],
    ['br;q=0, gzip;q=1.0', 'gzip'],
    ['br ; q=0.1', 'br'],
    ['deflate', 'identity'],
    ['', 'identity'],
    [undefined, 'identity'],
  ])('is for “%s”: %s', (accepted, encoding) => {
    expect(encodingFor(event(accepted))).toBe(encoding);
  });
});
