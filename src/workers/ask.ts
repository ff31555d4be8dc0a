import type { Worker } from 'node:worker_threads';

/** The one answer of a thread, which then ends. @throws what the thread threw */
export function ask<Answer>(worker: Worker): Promise<Answer> {
  return new Promise((resolve, reject) => {
    worker.once('message', (answer: Answer) => {
      resolve(answer);
      void worker.terminate();
    });
    worker.once('error', reject);
  });
}
