import { Worker } from 'node:worker_threads';
import { ask } from './ask';
import type { LabelsAnswer, LabelsTask } from './labels.worker';

/** Makes a PDF of labels on a thread of its own, so that the serving thread never waits for it. */
export const makeLabels = (task: LabelsTask): Promise<LabelsAnswer> =>
  ask(new Worker(new URL('./labels.worker.ts', import.meta.url), { workerData: task }));
