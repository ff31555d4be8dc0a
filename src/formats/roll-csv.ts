import Papa from 'papaparse';
import { type NumberedCells, ROLL_COLUMNS, type RollCells, type RollColumn } from '@/core/roll/roll-row';
import { writeCsv } from './csv';
import { decodeText, FileRefused } from './text';

/** A roll file read into rows; nothing is judged yet but its shape. */
export interface RollFile {
  readonly rows: readonly NumberedCells[];
  readonly encoding: string;
  readonly delimiter: 'comma' | 'semicolon' | 'tab';
  /** Columns of the file that are not used. */
  readonly ignored: readonly string[];
}

/** More rows than any programme's roll. */
const MOST_ROWS = 2000;

/** Columns a file may do without. */
const BLANK: RollCells = { name: '', age: '', servings: '', avoids: '', mode: '' };

/** Other words for the columns, in lower case. */
const HEADINGS: Readonly<Record<string, RollColumn>> = {
  name: 'name',
  'full name': 'name',
  participant: 'name',
  child: 'name',
  age: 'age',
  servings: 'servings',
  serves: 'servings',
  feeds: 'servings',
  avoids: 'avoids',
  avoid: 'avoids',
  avoidances: 'avoids',
  allergies: 'avoids',
  mode: 'mode',
  group: 'group',
  household: 'household',
  family: 'household',
  contact: 'contact',
  'e-mail': 'contact',
  email: 'contact',
  phone: 'contact',
  address: 'address',
  plan: 'plan',
  'action plan': 'plan',
};

const DELIMITERS = { ',': 'comma', ';': 'semicolon', '\t': 'tab' } as const;

/**
 * Reads a roll as CSV: comma, semicolon or tab; a header row with at least name and servings, in any order.
 *
 * @throws FileRefused when the file as a whole cannot be used, naming line and remedy
 */
export function readRollCsv(bytes: Uint8Array): RollFile {
  const { text, encoding } = decodeText(bytes);
  const delimiter = delimiterOf(text);
  const records = recordsOf(text, delimiter);
  const [header, ...body] = records;
  if (!header)
    throw new FileRefused(
      'The file holds no rows. The first row names the columns: name, age, servings, avoids, mode.',
    );
  const { columns, ignored } = readHeader(header.cells);
  if (body.length === 0)
    throw new FileRefused('The file has a header row but nobody under it. Add one row for each person.');
  if (body.length > MOST_ROWS)
    throw new FileRefused(`The file has ${body.length} rows; a roll holds at most ${MOST_ROWS}. Split it by course.`);
  const width = header.cells.length;
  const rows = body.map(({ line, cells }): NumberedCells => {
    const row = Object.fromEntries(columns.flatMap((column) => (column ? [[column, '']] : []))) as Record<
      RollColumn,
      string
    >;
    cells.forEach((cell, index) => {
      const column = columns[index];
      if (column) row[column] = cell.trim();
    });
    const extra = cells.slice(width).some((cell) => cell.trim() !== '');
    const shape = extra
      ? `This row has ${cells.length} cells, the header ${width}: put quotes around a cell that holds the separator.`
      : undefined;
    return { line, cells: { ...BLANK, ...row }, ...(shape ? { shape } : {}) };
  });
  return { rows, encoding, delimiter: DELIMITERS[delimiter], ignored };
}

type Delimiter = keyof typeof DELIMITERS;

/** The separator that stands most often in the first line, outside quotes. */
function delimiterOf(text: string): Delimiter {
  const first = (text.split(/\r?\n|\r/).find((line) => line.trim() !== '') ?? '').replace(/"[^"]*"/g, '');
  const count = (delimiter: string) => first.split(delimiter).length;
  return (Object.keys(DELIMITERS) as Delimiter[]).reduce(
    (best, next) => (count(next) > count(best) ? next : best),
    ',' as Delimiter,
  );
}

interface CsvRecord {
  readonly line: number;
  readonly cells: readonly string[];
}

/** Records with the line each begins on; quoted cells may span lines. Blank lines are passed over. */
function recordsOf(text: string, delimiter: Delimiter): CsvRecord[] {
  const records: CsvRecord[] = [];
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
      if (data.some((cell) => cell.trim() !== '')) records.push({ line, cells: data });
      line += countBreaks(text.slice(cursor, meta.cursor));
      cursor = meta.cursor;
    },
  });
  return records;
}

const countBreaks = (text: string) => (text.match(/\r\n|\n|\r/g) ?? []).length;

function readHeader(cells: readonly string[]): { columns: (RollColumn | undefined)[]; ignored: string[] } {
  const columns = cells.map((cell) => {
    const key = cell.trim().toLowerCase();
    return Object.hasOwn(HEADINGS, key) ? HEADINGS[key] : undefined;
  });
  for (const column of ['name', 'servings'] as const) {
    if (!columns.includes(column)) {
      throw new FileRefused(
        `The header row names no column "${column}". It reads: ${cells.map((cell) => `"${cell.trim().slice(0, 30)}"`).join(', ')}. Name the columns name, age, servings, avoids, mode.`,
      );
    }
  }
  const doubled = columns.find((column, index) => column && columns.indexOf(column) !== index);
  if (doubled) throw new FileRefused(`Two columns are called "${doubled}". Keep one of them.`);
  return {
    columns,
    ignored: cells.filter((cell, index) => !columns[index] && cell.trim() !== '').map((cell) => cell.trim()),
  };
}

/** A roll as CSV, with the columns that `readRollCsv` reads. */
export const writeRollCsv = (people: readonly Required<RollCells>[]): string =>
  writeCsv([ROLL_COLUMNS, ...people.map((person) => ROLL_COLUMNS.map((column) => person[column]))]);
