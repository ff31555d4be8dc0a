import { Worker } from 'node:worker_threads';
import { type CheckedRow, checkRoll, type NumberedCells } from '@/core/roll/roll-row';
import { type RollFile, readRollCsv } from '@/formats/roll-csv';
import { FileRefused } from '@/formats/text';
import { ask } from './ask';
import type { RollTask } from './roll.worker';

/** Files and rolls up to these sizes are read at once: a thread would take longer to start than they take to read. */
const FEW_BYTES = 64 * 1024;
const FEW_ROWS = 200;

const inThread = <T>(task: RollTask) =>
  ask<T>(new Worker(new URL('./roll.worker.ts', import.meta.url), { workerData: task }));

/** Reads a roll file; a large one on a thread of its own. @throws FileRefused when the file cannot be used */
export async function readRoll(bytes: Uint8Array): Promise<RollFile> {
  if (bytes.length <= FEW_BYTES) return readRollCsv(bytes);
  const outcome = await inThread<{ answer: RollFile } | { refused: string }>({ read: bytes });
  if ('refused' in outcome) throw new FileRefused(outcome.refused);
  return outcome.answer;
}

/** Checks the rows of a roll together; many of them on a thread of its own. */
export async function checkRows(
  rows: readonly NumberedCells[],
  enrolled: Parameters<typeof checkRoll>[1],
  groups: readonly string[],
): Promise<readonly CheckedRow[]> {
  if (rows.length <= FEW_ROWS) return checkRoll(rows, enrolled, groups);
  return (await inThread<{ answer: readonly CheckedRow[] }>({ rows, enrolled, groups })).answer;
}
