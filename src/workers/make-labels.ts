import { Worker } from 'node:worker_threads';
import type { LabelsAnswer, LabelsTask } from './labels.worker';

/** Makes a PDF of labels on a thread of its own, so that the serving thread never waits for it. */
export function makeLabels(task: LabelsTask): Promise<LabelsAnswer> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./labels.worker.ts', import.meta.url), { workerData: task });
    worker.once('message', (answer: LabelsAnswer) => {
      resolve(answer);
      void worker.terminate();
    });
    worker.once('error', reject);
  });
}
