import { setTimeout as sleep } from 'node:timers/promises';
import { codeOf, troubleOf } from './trouble';

/**
 * Deadlock, lock wait timeout: safe to run again from the start. In a cluster a deadlock is also what a transaction is told, at its
 * end even, whose rows another node wrote first; one that was under way there at that moment is told that it was interrupted.
 */
const RETRY = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD', 'ER_QUERY_INTERRUPTED']);

/** The longest that a first repetition waits, in milliseconds; each later one may wait twice as long, up to a limit. */
const PAUSE = 20;
const LONGEST_PAUSE = 500;
/** Where many write one row through several nodes, all but one of them must try again each time. */
const MOST_TRIES = 12;

/**
 * Does a whole unit of work, and again where it stood in another's way: each time after a moment of its own length, so
 * that two that met do not meet again.
 */
export async function again<Result>(work: () => Promise<Result>): Promise<Result> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work();
    } catch (error) {
      if (attempt >= MOST_TRIES || !(mustBeginAgain(error) || isUnbegun(error))) throw error;
      await sleep(Math.random() * Math.min(LONGEST_PAUSE, PAUSE * 2 ** (attempt - 1)));
    }
  }
}

/** True when the unit of work that met the error is over, with nothing saved, and is to be done again. */
export const mustBeginAgain = (error: unknown): boolean => RETRY.has(codeOf(error));

/** Errors after which nothing can have been saved, though the database is away: what was to be done can be done again. */
const unbegun = new WeakSet<object>();

const isUnbegun = (error: unknown) => typeof error === 'object' && error !== null && unbegun.has(error);

/** Says of an error that it came before anything was saved. @returns the error */
export function beforeSaving(error: unknown): unknown {
  if (typeof error === 'object' && error !== null && troubleOf(error) === 'away') unbegun.add(error);
  return error;
}
