import { describe, expect, it } from 'vitest';
import { countAccount, countAddress, countEndpoint } from '../../server/edge/rate';

const refusals = async (calls: number, call: () => Promise<void>): Promise<number> => {
  let refused = 0;
  for (let done = 0; done < calls; done++)
    await call().catch(({ status }: { status: number }) => void (refused += status === 429 ? 1 : 0));
  return refused;
};

describe('asking too often', () => {
  it('is refused for an account, an address and an endpoint, each by itself', async () => {
    expect(await refusals(1_250, () => countAccount('one'))).toBe(50);
    expect(await refusals(1, () => countAccount('another'))).toBe(0);
    expect(await refusals(2_401, () => countAddress('192.0.2.1'))).toBe(1);
    expect(await refusals(35, () => countEndpoint('PUT /me/password', 30, 'one'))).toBe(5);
    expect(await refusals(30, () => countEndpoint('POST /me/codes', 30, 'one'))).toBe(0);
  });
});
