import { setTimeout as sleep } from 'node:timers/promises';

/** Lock wait timeout, deadlock: safe to run again from the start. */
const RETRY = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);

/** The database's own code of an error, or ''. */
export function codeOf(error: unknown): string {
  const parent = (error as { parent?: { code?: unknown } } | null)?.parent;
  return typeof parent?.code === 'string' ? parent.code : '';
}

/** The longest that a first repetition waits, in milliseconds; each later one may wait so much longer. */
const PAUSE = 20;

/**
 * Does a whole unit of work, and again where it stood in another's way: at most five times, each after a moment of its own
 * length, so that two that met do not meet again.
 */
export async function again<Result>(work: () => Promise<Result>): Promise<Result> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work();
    } catch (error) {
      if (attempt >= 5 || !RETRY.has(codeOf(error))) throw error;
      await sleep(Math.random() * PAUSE * attempt);
    }
  }
}
