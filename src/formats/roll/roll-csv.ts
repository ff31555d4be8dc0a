import Papa from 'papaparse';
import type { NumberedCells } from '@/core/roll/check-roll';
import type { ColumnWords } from '@/core/roll/roll-row';
import { ROLL_COLUMNS, type RollCells } from '@/core/roll/roll-row';
import { writeCsv } from '../csv';
import { decodeText, FileRefused } from '../text';
import { type Heading, type HeadingsKnown, namedColumns, readHeadings } from './roll-headings';

/** A roll file read into rows; nothing is judged yet but its shape. */
export interface RollFile {
  readonly rows: readonly NumberedCells[];
  readonly encoding: string;
  readonly delimiter: 'comma' | 'semicolon' | 'tab' | 'workbook';
  /** Columns of the file that are not used. */
  readonly ignored: readonly string[];
  /** Every heading, and the column it is taken for. */
  readonly headings: readonly Heading[];
  /** What was passed over or taken for granted, said before anything is saved. */
  readonly notes: readonly string[];
}

/** More rows than any programme's roll. */
export const MOST_ROWS = 2000;

/** More columns than any sheet of people; a stray cell far to the right makes thousands. */
export const MOST_COLUMNS = 300;
/** Characters shown of a cell beyond the last column. */
const LONGEST_BEYOND = 500;

/** What begins a file, for guessing how it is parted. */
const LONGEST_FIRST_LINE = 20_000;

/** Columns a file may do without. */
const BLANK: RollCells = { name: '', age: '', servings: '', avoids: '', mode: '' };

/** A title or two may stand above the headings; they are looked for in the first rows only. */
export const FIRST_ROWS = 10;

const DELIMITERS = { ',': 'comma', ';': 'semicolon', '\t': 'tab' } as const;

/**
 * Reads a roll as CSV: comma, semicolon or tab; a row of headings that names the people, in any order.
 *
 * @throws FileRefused when the file as a whole cannot be used, naming line and remedy
 */
export function readRollCsv(bytes: Uint8Array, remembered: ColumnWords = {}, known: HeadingsKnown = {}): RollFile {
  const { text, encoding } = decodeText(bytes);
  const delimiter = delimiterOf(text, remembered);
  return { ...rowsOfTable(recordsOf(text, delimiter), remembered, known), encoding, delimiter: DELIMITERS[delimiter] };
}

/**
 * The rows of a table under the row that names its columns.
 *
 * @param remembered what the programme said a heading means, in lower case; stands before the usual words
 * @throws FileRefused when the table as a whole cannot be used
 */
export function rowsOfTable(
  records: readonly TableRecord[],
  remembered: ColumnWords,
  known: HeadingsKnown,
): Pick<RollFile, 'rows' | 'ignored' | 'headings' | 'notes'> {
  if (records.length === 0)
    throw new FileRefused(
      'The file holds no rows. The first row names the columns: name, age, servings, avoids, mode.',
    );
  const wide = records.find(({ cells }) => cells.length > MOST_COLUMNS);
  if (wide) throw tooWide(wide.line);
  const isHeadless = hasNoHeadings(records, remembered);
  const above = isHeadless ? 0 : headerPlace(records, remembered);
  const nameless = { line: 0, cells: (records[0]?.cells ?? []).map(() => '') };
  const [header, ...body] = (isHeadless ? [nameless, ...records] : records.slice(above)) as [
    TableRecord,
    ...TableRecord[],
  ];
  if (body.length === 0)
    throw new FileRefused('The file has a header row but nobody under it. Add one row for each person.');
  if (body.length > MOST_ROWS)
    throw new FileRefused(`The file has ${body.length} rows; a roll holds at most ${MOST_ROWS}. Split it by course.`);
  const under = body.map(({ cells }) => cells);
  const { headings, notes, read } = readHeadings(header.cells, remembered, under, known);
  const width = header.cells.length;
  const totals = new Set<number>();
  const rows = body.flatMap(({ line, cells }): NumberedCells[] => {
    if (isTotal(cells)) {
      totals.add(line);
      return [];
    }
    const beyond = cells.slice(width).flatMap((cell) => cell.trim().slice(0, LONGEST_BEYOND) || []);
    return [{ line, cells: { ...BLANK, ...read(cells) }, ...(beyond.length > 0 ? { beyond } : {}) }];
  });
  const passed = records.slice(0, above).map(({ cells }) => `“${cells.find((cell) => cell.trim() !== '')?.trim()}”`);
  return {
    rows,
    headings,
    ignored: headings.filter(({ heading, column }) => !column && heading !== '').map(({ heading }) => heading),
    notes: [
      ...(totals.size > 0 ? [`A row that adds up others is nobody: line ${[...totals].join(', ')} is not read.`] : []),
      ...(above > 0 ? [`What stands above the headings is not read: ${passed.join(', ')}.`] : []),
      ...notes,
    ],
  };
}

/** A row under the people that counts them: a word for a sum, and beside it numbers alone. */
const isTotal = (cells: readonly string[]): boolean => {
  const filled = cells.map((cell) => cell.trim()).filter(Boolean);
  const [first = '', ...others] = filled;
  return (
    /^(?:(?:grand |sub-?)?totals?|sum|count|number of (?:children|people|participants))\b\s*:?\s*\d*$/i.test(first) &&
    others.every((cell) => /^[\d.,\s]+$/.test(cell))
  );
};

/** A row that reaches too far to the right. */
export const tooWide = (line: number) =>
  new FileRefused(
    `Line ${line} has more than ${MOST_COLUMNS} columns. Take away what stands far to the right, or save the columns of the roll alone.`,
  );

/** No row names a column, and the first has figures as those below it: it is somebody, and no headings. */
function hasNoHeadings(records: readonly TableRecord[], remembered: ColumnWords): boolean {
  const first = records.slice(0, FIRST_ROWS);
  const figures = ({ cells }: TableRecord) => cells.flatMap((cell, at) => (/^\s*\d{1,3}\s*$/.test(cell) ? [at] : []));
  const [top, next] = first;
  if (!top || !next || first.some(({ cells }) => namedColumns(cells, remembered) > 0)) return false;
  const below = new Set(figures(next));
  return figures(top).some((at) => below.has(at));
}

/** Where the headings stand: the first row that names two columns; else the first with two cells, to be asked about. */
function headerPlace(records: readonly TableRecord[], remembered: ColumnWords): number {
  const first = records.slice(0, FIRST_ROWS);
  const named = first.findIndex(({ cells }) => namedColumns(cells, remembered) > 1);
  if (named >= 0) return named;
  return Math.max(
    0,
    first.findIndex(({ cells }) => cells.filter((cell) => cell.trim() !== '').length > 1),
  );
}

type Delimiter = keyof typeof DELIMITERS;

/** The separator by which one of the first lines names most columns, or else is parted most often, outside quotes. */
function delimiterOf(text: string, remembered: ColumnWords): Delimiter {
  const lines = text
    .slice(0, LONGEST_FIRST_LINE * FIRST_ROWS)
    .split(/\r?\n|\r/)
    .filter((line) => line.trim() !== '')
    .slice(0, FIRST_ROWS)
    .map((line) => line.slice(0, LONGEST_FIRST_LINE).replace(/"[^"]*"/g, (quoted) => quoted.replace(/[,;\t]/g, ' ')));
  const score = (delimiter: string) => {
    const rows = lines.map((line) => line.split(delimiter).map((cell) => cell.replace(/"/g, '')));
    return Math.max(...rows.map((cells) => namedColumns(cells, remembered) * 1000), rows[0]?.length ?? 0);
  };
  const all = Object.keys(DELIMITERS) as Delimiter[];
  return all.reduce((best, next) => (score(next) > score(best) ? next : best));
}

/** One row of a table, with the line of the file or the row of the sheet it stands in. */
export interface TableRecord {
  readonly line: number;
  readonly cells: readonly string[];
}

/** Records with the line each begins on; quoted cells may span lines. Blank lines are passed over. */
function recordsOf(text: string, delimiter: Delimiter): TableRecord[] {
  const records: TableRecord[] = [];
  let line = 1;
  let cursor = 0;
  Papa.parse<string[]>(text, {
    delimiter,
    skipEmptyLines: false,
    step: ({ data, errors, meta }) => {
      const [error] = errors;
      if (error) {
        throw new FileRefused(
          `Line ${line}: a quotation mark is opened and not closed, or closed in the middle of a cell. Put a cell that holds quotation marks in quotes and double the marks inside.`,
        );
      }
      if (data.length > MOST_COLUMNS) throw tooWide(line);
      // An apostrophe that keeps a spreadsheet program from running a cell is taken off again.
      const cells = data.map((cell) => cell.replace(/^'(?=[=+\-@])/, ''));
      if (cells.some((cell) => cell.trim() !== '')) records.push({ line, cells });
      line += countBreaks(text.slice(cursor, meta.cursor));
      cursor = meta.cursor;
    },
  });
  return records;
}

const countBreaks = (text: string) => (text.match(/\r\n|\n|\r/g) ?? []).length;

/** A roll as CSV, with the columns that `readRollCsv` reads. */
export const writeRollCsv = (people: readonly Required<RollCells>[]): string =>
  writeCsv([ROLL_COLUMNS, ...people.map((person) => ROLL_COLUMNS.map((column) => person[column]))]);
