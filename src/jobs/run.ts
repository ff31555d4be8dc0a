// The background process: takes jobs from their table, one at a time. Any number may run, here and on other machines.
import { randomUUID } from 'node:crypto';
import os from 'node:os';
import { runningStore } from '@/services/runtime';
import { leaveBackground, sayBackground } from '@/store/background';
import { log } from '@/watch/log';
import { handlersFor } from './handlers';
import { regularJobs } from './regular';
import { workOnce } from './work';

// What packages warn of stands in the log like everything else.
console.warn = (...said) => log().warn(said.map(String).join(' ').slice(0, 300));

const store = runningStore();
const owner = `${os.hostname()}-${process.pid}-${randomUUID()}`;
const handlers = handlersFor(store);
const IDLE = 500;
/** Twice within what a server waits for (services/work/readiness.ts). */
const BEAT = 5_000;
let ending = false;

/** Says that it is there, so that a server can tell whether anybody does what waits. */
const counted = { done: 0 };
const beat = setInterval(() => {
  void sayBackground(store.db, { owner, now: new Date(), ...counted }).catch(() => {});
}, BEAT);

async function loop(): Promise<void> {
  const regular = regularJobs(store);
  while (!ending) {
    try {
      await regular(new Date());
      if (await workOnce(store, owner, handlers, () => new Date())) {
        counted.done += 1;
        continue;
      }
    } catch {
      // The database is away: it is tried again until it is back.
    }
    await new Promise((resolve) => setTimeout(resolve, IDLE));
  }
  clearInterval(beat);
  await leaveBackground(store.db, { owner }).catch(() => {});
  await store.close().catch(() => {});
  process.exit(0);
}

const end = () => {
  ending = true;
};
process.on('SIGTERM', end);
process.on('SIGINT', end);
process.on('disconnect', end);
process.on('message', (message) => {
  if (message === 'are you there?') process.send?.('here');
});
process.send?.('ready');
void loop();
