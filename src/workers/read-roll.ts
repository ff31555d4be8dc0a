import { Worker } from 'node:worker_threads';
import { type CheckedRow, checkRoll, type NumberedCells } from '@/core/roll/check-roll';
import { type RollFile, readRollCsv } from '@/formats/roll-csv';
import { ColumnsUnclear, type ColumnWords } from '@/formats/roll-headings';
import { isWorkbook } from '@/formats/roll-xlsx';
import { FileRefused } from '@/formats/text';
import { ask } from './ask';
import type { RollTask } from './roll.worker';

/** Files and rolls up to these sizes are read at once: a thread would take longer to start than they take to read. */
const FEW_BYTES = 64 * 1024;
const FEW_ROWS = 200;

const inThread = <T>(task: RollTask) =>
  ask<T>(new Worker(new URL('./roll.worker.ts', import.meta.url), { workerData: task }));

/**
 * Reads a roll file; a large one, and a workbook, on a thread of its own.
 *
 * @param today the civil date on which ages are counted from birth dates
 * @throws FileRefused when the file cannot be used
 */
export async function readRoll(bytes: Uint8Array, remembered: ColumnWords, today: string): Promise<RollFile> {
  // A workbook is packed: what is small may unfold into much.
  if (bytes.length <= FEW_BYTES && !isWorkbook(bytes)) return readRollCsv(bytes, remembered, today);
  const outcome = await inThread<{ answer: RollFile } | { refused: string; headings?: RollFile['headings'] }>({
    read: bytes,
    remembered,
    today,
  });
  if ('refused' in outcome)
    throw outcome.headings ? new ColumnsUnclear(outcome.headings, outcome.refused) : new FileRefused(outcome.refused);
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
