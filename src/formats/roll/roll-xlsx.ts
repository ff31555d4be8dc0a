import ExcelJS from 'exceljs';
import type { ColumnWords } from '@/core/roll/roll-row';
import { ROLL_COLUMNS, type RollCells } from '@/core/roll/roll-row';
import { FileRefused } from '../text';
import { readFirstSheet } from '../workbook';
import { type ArchivedFile, readZip } from '../zip';
import { FIRST_ROWS, MOST_COLUMNS, MOST_ROWS, type RollFile, rowsOfTable } from './roll-csv';
import type { HeadingsKnown } from './roll-headings';

/** A workbook is a ZIP archive; one with a password, or of the old format, is a compound file. */
const ZIP = [0x50, 0x4b, 0x03, 0x04];
const COMPOUND = [0xd0, 0xcf, 0x11, 0xe0];

/** How an OpenDocument archive begins: with its kind. */
const OPEN_DOCUMENT = /mimetypeapplication\/vnd\.oasis\.opendocument/;

const beginsWith = (bytes: Uint8Array, mark: readonly number[]) => mark.every((byte, at) => bytes[at] === byte);

/** Whether a file is a workbook, readable or not. */
export const isWorkbook = (bytes: Uint8Array): boolean => beginsWith(bytes, ZIP) || beginsWith(bytes, COMPOUND);

/**
 * Reads a roll from the first sheet of a workbook: formulas by the result that was saved with them, dates as dates, merged
 * cells by their first. Further sheets are named and not read.
 *
 * @throws FileRefused when the file as a whole cannot be used, saying what to do
 */
export async function readRollXlsx(
  bytes: Uint8Array,
  remembered: ColumnWords = {},
  known: HeadingsKnown = {},
): Promise<RollFile> {
  if (beginsWith(bytes, COMPOUND))
    throw new FileRefused(
      'This workbook is protected by a password, or of the old .xls format. Open it, save it as .xlsx without a password, and choose that.',
    );
  if (OPEN_DOCUMENT.test(new TextDecoder('latin1').decode(bytes.subarray(0, 200))))
    throw new FileRefused(
      'This is an OpenDocument file. Save the sheet with the roll as .xlsx or as CSV, and choose that.',
    );
  let parts: ArchivedFile[];
  try {
    // Before anything is built of it: a small file may unfold into gigabytes.
    parts = readZip(bytes);
  } catch {
    throw new FileRefused(
      'This workbook is broken, has a password, or unfolds into too much. Save the sheet with the roll alone.',
    );
  }
  const { name, others, rows, formulas, unsure, mergedIn } = readFirstSheet(parts, {
    columns: MOST_COLUMNS,
    rows: MOST_ROWS + FIRST_ROWS,
  });
  const notes: string[] = [];
  if (others.length > 0)
    notes.push(`Only the first sheet, “${name}”, is read; not: ${others.map((other) => `“${other}”`).join(', ')}.`);
  if (formulas > 0)
    notes.push(
      `${formulas} ${formulas === 1 ? 'cell is a formula' : 'cells are formulas'}: the result that was saved is used${unsure > 0 ? `; ${unsure} have none and are empty` : ''}.`,
    );
  const table = rowsOfTable(rows, remembered, { ...known, isTrimmed: true });
  const merged = mergedIn.filter((line) => line >= (table.rows[0]?.line ?? 0)).length;
  if (merged > 0)
    notes.push(
      `${merged} merged ${merged === 1 ? 'cell is' : 'cells are'} empty but for the first of each: check those rows.`,
    );
  return { ...table, encoding: 'XLSX', delimiter: 'workbook', notes: [...notes, ...table.notes] };
}

/** A roll as a workbook, with the columns that `readRollXlsx` reads. Text is text: nothing in it runs as a formula. */
export async function writeRollXlsx(people: readonly Required<RollCells>[]): Promise<Uint8Array<ArrayBuffer>> {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Roll', { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.columns = ROLL_COLUMNS.map((column) => ({ header: column, key: column, width: column === 'plan' ? 40 : 18 }));
  sheet.getRow(1).font = { bold: true };
  for (const person of people) {
    const number = (text: string) => (text === '' ? null : Number(text));
    sheet.addRow({ ...person, age: number(person.age), servings: number(person.servings) });
  }
  return new Uint8Array((await book.xlsx.writeBuffer()) as ArrayBuffer);
}
