import { RateLimiterMySQL, type RateLimiterRes } from 'rate-limiter-flexible';
import { again } from './again';
import type { Store } from './store';

/** How often something may be tried: `points` within `seconds`, counted for all servers together. */
export interface Limit {
  readonly name: string;
  readonly points: number;
  readonly seconds: number;
}

const limiters = new WeakMap<Store, Map<string, RateLimiterMySQL>>();

function limiterOf(store: Store, limit: Limit): RateLimiterMySQL {
  const known = limiters.get(store) ?? new Map<string, RateLimiterMySQL>();
  limiters.set(store, known);
  let limiter = known.get(limit.name);
  if (!limiter) {
    limiter = new RateLimiterMySQL({
      storeClient: store.sequelize,
      storeType: 'sequelize',
      dbName: store.sequelize.getDatabaseName(),
      tableName: 'attempt',
      tableCreated: true,
      clearExpiredByTimeout: true,
      keyPrefix: limit.name,
      points: limit.points,
      duration: limit.seconds,
    });
    known.set(limit.name, limiter);
  }
  return limiter;
}

/**
 * Counts one attempt.
 *
 * @param key who or what tries: an address, an e-mail
 * @returns 0 when it may go on, else the seconds to wait
 */
export async function countAttempt(store: Store, limit: Limit, key: string): Promise<number> {
  try {
    await again(() => limiterOf(store, limit).consume(key.slice(0, 190)));
    return 0;
  } catch (refusal) {
    if (refusal instanceof Error) throw refusal;
    return Math.max(1, Math.ceil((refusal as RateLimiterRes).msBeforeNext / 1000));
  }
}

/** Takes a counted attempt back: it was a good one. */
export async function forgiveAttempt(store: Store, limit: Limit, key: string): Promise<void> {
  await again(() => limiterOf(store, limit).reward(key.slice(0, 190)));
}
