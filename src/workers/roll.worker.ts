import { parentPort, workerData } from 'node:worker_threads';
import { checkRoll, type NumberedCells } from '@/core/roll/roll-row';
import { readRollCsv } from '@/formats/roll-csv';
import { FileRefused } from '@/formats/text';

/** What the thread is started with: a file to read, or rows to check. */
export type RollTask =
  | { readonly read: Uint8Array }
  | {
      readonly rows: readonly NumberedCells[];
      readonly enrolled: Parameters<typeof checkRoll>[1];
      readonly groups: readonly string[];
    };

const task = workerData as RollTask;

function work() {
  if ('rows' in task) return { answer: checkRoll(task.rows, task.enrolled, task.groups) };
  try {
    return { answer: readRollCsv(task.read) };
  } catch (error) {
    if (error instanceof FileRefused) return { refused: error.message };
    throw error;
  }
}

parentPort?.postMessage(work());
