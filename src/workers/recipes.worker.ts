import { parentPort, workerData } from 'node:worker_threads';
import type { Reference } from '@/core/reference/reference';
import { draftIncoming } from '@/formats/recipe-any';
import { FileRefused } from '@/formats/text';

/** What the thread is started with. */
export interface RecipesTask {
  readonly bytes: Uint8Array;
  readonly reference: Reference;
}

function work({ bytes, reference }: RecipesTask) {
  try {
    return { answer: draftIncoming(bytes, reference) };
  } catch (error) {
    if (error instanceof FileRefused) return { refused: error.message };
    throw error;
  }
}

parentPort?.postMessage(work(workerData as RecipesTask));
