import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { openStore, type Store } from '@/store/store';
import { meter } from '@/watch/meter';
import { requestId } from '@/watch/request';
import type { Visit } from './access/sign-in';
import type { Actor, Context } from './gate/gate';

/** Kept across reloads of modules while developing. */
const shared = globalThis as typeof globalThis & { logistraStore?: Store };

/** The database named by DATABASE_URL, opened once in a process. */
export function runningStore(): Store {
  if (!shared.logistraStore) {
    const url = process.env.DATABASE_URL;
    if (!url) throw new Error('DATABASE_URL is not set: start the program with "npm start".');
    shared.logistraStore = openStore(url, { request: requestId, sent: (seconds) => meter().query(seconds) });
  }
  return shared.logistraStore;
}

function deploymentKey(): string {
  const key = process.env.SESSION_SECRET;
  if (!key) throw new Error('SESSION_SECRET is not set: start the program with "npm start".');
  return key;
}

/** The real clock, real ids and the running database. */
export const surroundings = () => ({
  clock: () => Temporal.Now.instant(),
  ids: () => v7(),
  store: runningStore(),
  address: process.env.PUBLIC_ADDRESS ?? '',
  deploymentKey: deploymentKey(),
});

/** What services work with, for one who asks. */
export const contextFor = (actor: Actor): Context => ({ actor, ...surroundings() });

/** What signing in works with, for a browser nobody is signed in with yet. */
export const visitFrom = (ip: string, device: string, deviceToken: string): Visit => ({
  ip,
  device,
  deviceToken,
  ...surroundings(),
});
