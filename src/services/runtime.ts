import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { openStore, type Store } from '@/store/store';
import type { Actor, Context } from './access/gate';

/** Kept across reloads of modules while developing. */
const shared = globalThis as typeof globalThis & { logistraStore?: Store };

/** The database named by DATABASE_URL, opened once in a process. */
export function runningStore(): Store {
  if (!shared.logistraStore) {
    const url = process.env.DATABASE_URL;
    if (!url) throw new Error('DATABASE_URL is not set: start the program with "npm start".');
    shared.logistraStore = openStore(url);
  }
  return shared.logistraStore;
}

/** The real clock, real ids and the running database, for one who asks. */
export const contextFor = (actor: Actor): Context => ({
  actor,
  clock: () => Temporal.Now.instant(),
  ids: () => v7(),
  store: runningStore(),
});
