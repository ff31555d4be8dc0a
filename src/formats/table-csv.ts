import Papa from 'papaparse';
import { decodeText, FileRefused } from './text';

/** A table with a heading row, read line by line. */
export interface TableFile<Line> {
  readonly lines: readonly Line[];
  readonly problems: readonly { readonly line: number; readonly message: string }[];
}

/**
 * Reads a table of our own form: a heading row that names the columns, in any order; semicolons, tabs or commas. An apostrophe that
 * keeps a spreadsheet program from running a cell is taken off again.
 *
 * @param lineOf a line from its cells, by the name of their column; or what is wrong with it
 * @param like where a file that fits can be taken out: "the price book"
 * @throws FileRefused where a needed column is not named, or there are too many lines
 */
export function readTable<Line>(
  bytes: Uint8Array,
  { needed, most, like }: { needed: readonly string[]; most: number; like: string },
  lineOf: (cell: (name: string) => string, line: number) => Line | string,
): TableFile<Line> {
  const { data } = Papa.parse<string[]>(decodeText(bytes).text, { skipEmptyLines: false });
  const [headings = [], ...rows] = data;
  const names = headings.map((heading) => heading.trim().toLowerCase());
  const missing = needed.filter((name) => !names.includes(name));
  if (missing.length > 0)
    throw new FileRefused(
      `The first row names no column ${missing.map((name) => `“${name}”`).join(', ')}. Take ${like} out as CSV to see one that fits.`,
    );
  if (rows.length > most) throw new FileRefused(`The file has ${rows.length} lines. Bring in at most ${most} at once.`);
  const lines: Line[] = [];
  const problems: { line: number; message: string }[] = [];
  for (const [at, row] of rows.entries()) {
    if (row.every((cell) => cell.trim() === '')) continue;
    const cell = (name: string) => (row[names.indexOf(name)] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
    const read = lineOf(cell, at + 2);
    if (typeof read === 'string') problems.push({ line: at + 2, message: read });
    else lines.push(read);
  }
  return { lines, problems };
}
