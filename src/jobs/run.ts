// The background process: takes jobs from their table, one at a time. Any number may run, here and on other machines.
import { createHash, randomUUID } from 'node:crypto';
import os from 'node:os';
import { contextFor, runningStore } from '@/services/runtime';
import { queueJob } from '@/services/work/jobs';
import { find } from '@/store/query';
import { isDuplicate } from '@/store/store';
import { handlersFor } from './handlers';
import { workOnce } from './work';

const store = runningStore();
const owner = `${os.hostname()}-${process.pid}-${randomUUID()}`;
const handlers = handlersFor(store);
const IDLE = 500;
let ending = false;

/** What is kept too long is cleared out once a day: the job's id is made of programme and day, so it is queued once. */
async function queueDaily(): Promise<void> {
  const day = new Date().toISOString().slice(0, 10);
  for (const { id: programmeId } of await find(store.db, store.db.models.programme, {})) {
    const hex = createHash('sha256').update(`clear out ${programmeId} ${day}`).digest('hex');
    const id = `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
    const context = contextFor({ id: programmeId, programmeId, role: 'coordinator', name: 'Logistra' });
    await queueJob(context, store.db, programmeId, 'clear out', {}, null, id).catch((error) => {
      if (!isDuplicate(error)) throw error;
    });
  }
}

async function loop(): Promise<void> {
  let nextDaily = 0;
  while (!ending) {
    try {
      if (Date.now() > nextDaily) {
        await queueDaily();
        nextDaily = Date.now() + 3_600_000;
      }
      if (await workOnce(store, owner, handlers, () => new Date())) continue;
    } catch {
      // The database is away: it is tried again until it is back.
    }
    await new Promise((resolve) => setTimeout(resolve, IDLE));
  }
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
