import { parentPort, workerData } from 'node:worker_threads';
import { checkRoll, type NumberedCells } from '@/core/roll/check-roll';
import { readRollCsv } from '@/formats/roll-csv';
import { ColumnsUnclear, type ColumnWords } from '@/formats/roll-headings';
import { isWorkbook, readRollXlsx } from '@/formats/roll-xlsx';
import { FileRefused } from '@/formats/text';

/** What the thread is started with: a file to read, or rows to check. */
export type RollTask =
  | { readonly read: Uint8Array; readonly remembered: ColumnWords; readonly today: string }
  | {
      readonly rows: readonly NumberedCells[];
      readonly enrolled: Parameters<typeof checkRoll>[1];
      readonly groups: readonly string[];
    };

const task = workerData as RollTask;

async function work() {
  if ('rows' in task) return { answer: checkRoll(task.rows, task.enrolled, task.groups) };
  try {
    const { read, remembered, today } = task;
    return {
      answer: isWorkbook(read) ? await readRollXlsx(read, remembered, today) : readRollCsv(read, remembered, today),
    };
  } catch (error) {
    if (error instanceof ColumnsUnclear) return { refused: error.message, headings: error.headings };
    if (error instanceof FileRefused) return { refused: error.message };
    throw error;
  }
}

parentPort?.postMessage(await work());
