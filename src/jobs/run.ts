// The background process: takes jobs from their table, one at a time. Any number may run, here and on other machines.
import { createHash, randomUUID } from 'node:crypto';
import os from 'node:os';
import { contextFor, runningStore } from '@/services/runtime';
import { type JobKind, queueJob } from '@/services/work/jobs';
import { find } from '@/store/query';
import { isDuplicate } from '@/store/store';
import { handlersFor } from './handlers';
import { workOnce } from './work';

const store = runningStore();
const owner = `${os.hostname()}-${process.pid}-${randomUUID()}`;
const handlers = handlersFor(store);
const IDLE = 500;
let ending = false;

/**
 * What goes on by itself: what is kept too long is cleared out once a day, the crew is asked again and reminded, families are
 * asked whether they cooked, and the run sheets of the coming days are worked out each hour. A job's
 * id is made of programme and time, so that it is queued once.
 */
async function queueRegular(): Promise<void> {
  const now = new Date().toISOString();
  for (const { id: programmeId } of await find(store.db, store.db.models.programme, {})) {
    await queueOnce(programmeId, 'clear out', now.slice(0, 10));
    await queueOnce(programmeId, 'ask the crew', now.slice(0, 13));
    await queueOnce(programmeId, 'look at classes', now.slice(0, 13));
    await queueOnce(programmeId, 'ask families', now.slice(0, 13));
  }
}

async function queueOnce(programmeId: string, kind: JobKind, at: string): Promise<void> {
  const hex = createHash('sha256').update(`${kind} ${programmeId} ${at}`).digest('hex');
  const id = `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
  const context = contextFor({ id: programmeId, programmeId, role: 'coordinator', name: 'Logistra' });
  await queueJob(context, store.db, programmeId, kind, {}, null, id).catch((error) => {
    if (!isDuplicate(error)) throw error;
  });
}

async function loop(): Promise<void> {
  let nextRegular = 0;
  while (!ending) {
    try {
      if (Date.now() > nextRegular) {
        await queueRegular();
        nextRegular = Date.now() + 1_800_000;
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
