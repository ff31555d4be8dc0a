import { Worker } from 'node:worker_threads';
import { ask } from './ask';
import type { SheetAnswer, SheetTask } from './sheet.worker';

/** Makes a kit sheet's PDF on a thread of its own, so that the serving thread never waits for it. */
export const makeSheetPdf = (task: SheetTask): Promise<SheetAnswer> =>
  ask(new Worker(new URL('./sheet.worker.ts', import.meta.url), { workerData: task }));
