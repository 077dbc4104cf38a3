/** Limits on guessing passwords and codes, kept in the database: they hold over all web processes, and over a restart. */
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { openDatabase } from '../db/database';
import { Problem } from '../problem';

const MINUTE = 60;

/** Wrong tries that are let through: for one name from one address, for one address, and for one name from anywhere. */
const LIMITS = {
  pair: { points: 5, duration: 15 * MINUTE },
  address: { points: 40, duration: 15 * MINUTE },
  name: { points: 60, duration: 24 * 60 * MINUTE },
} as const;
type Limit = keyof typeof LIMITS;

let opened: Record<Limit, RateLimiterPostgres> | undefined;

function limiters(): Record<Limit, RateLimiterPostgres> {
  const open = (keyPrefix: Limit) =>
    new RateLimiterPostgres({
      storeClient: openDatabase().pool,
      tableName: 'guesses',
      tableCreated: true,
      clearExpiredByTimeout: false,
      keyPrefix,
      ...LIMITS[keyPrefix],
    });
  opened ??= { pair: open('pair'), address: open('address'), name: open('name') };
  return opened;
}

/**
 * Counts a try before it is looked at, so that many at once are not all let through. Gives what takes the count back after the
 * right answer. @throws Problem where there were too many
 */
export async function countGuess(name: string, address: string): Promise<() => Promise<void>> {
  const { pair, address: byAddress, name: byName } = limiters();
  // A key is a text of 255 characters at most.
  const who = name.slice(0, 200);
  // One after the other: what is refused here counts no further, so that nobody can lock others out from one address.
  await take(pair, `${who}|${address}`);
  await take(byAddress, address);
  await take(byName, who);
  return async () => {
    await pair.delete(`${who}|${address}`);
    await Promise.all([byAddress.reward(address), byName.reward(who)]);
  };
}

async function take(limiter: RateLimiterPostgres, key: string): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (refused) {
    if (!(refused instanceof RateLimiterRes)) throw refused;
    const minutes = Math.max(1, Math.ceil(refused.msBeforeNext / 60_000));
    throw new Problem(
      429,
      'Too many attempts',
      `Wait ${minutes === 1 ? 'a minute' : `${minutes} minutes`}, then try again. Nothing was changed.`,
      { reason: 'guesses' },
    );
  }
}
