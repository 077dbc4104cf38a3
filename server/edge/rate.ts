/** Limits on how often one may ask, for each web process: what is too much is refused before it costs anything. */
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { config } from '../config';
import { Problem } from '../problem';

/** Requests in a minute from one address, and of one account. */
const FROM_ADDRESS = 2_400;
const OF_ACCOUNT = 1_200;

const limiters = new Map<string, RateLimiterMemory>();

function limiter(name: string, perMinute: number): RateLimiterMemory {
  const known = limiters.get(name);
  if (known) return known;
  const made = new RateLimiterMemory({ keyPrefix: name, points: perMinute * config.rateFactor, duration: 60 });
  limiters.set(name, made);
  return made;
}

/** Refuses an address that asks too often. @throws Problem */
export const countAddress = (address: string): Promise<void> => take(limiter('address', FROM_ADDRESS), address);

/** Refuses an account that asks too often. @throws Problem */
export const countAccount = (id: string): Promise<void> => take(limiter('account', OF_ACCOUNT), id);

/** Refuses whoever asks one endpoint too often. @throws Problem */
export const countEndpoint = (key: string, perMinute: number, who: string): Promise<void> =>
  take(limiter(key, perMinute), who);

async function take(counted: RateLimiterMemory, who: string): Promise<void> {
  try {
    await counted.consume(who);
  } catch {
    throw new Problem(429, 'Too many requests', 'Wait a minute, then go on. Nothing was changed.', { reason: 'rate' });
  }
}
