import Papa from 'papaparse';
import { type NumberedCells, ROLL_COLUMNS, type RollCells, type RollColumn } from '@/core/roll/roll-row';
import { writeCsv } from './csv';
import { decodeText, FileRefused } from './text';

/** A roll file read into rows; nothing is judged yet but its shape. */
export interface RollFile {
  readonly rows: readonly NumberedCells[];
  readonly encoding: string;
  readonly delimiter: 'comma' | 'semicolon' | 'tab' | 'workbook';
  /** Columns of the file that are not used. */
  readonly ignored: readonly string[];
  /** Every heading, and the column it is taken for. */
  readonly headings: readonly { readonly heading: string; readonly column: RollColumn | null }[];
  /** What was passed over or taken for granted, said before anything is saved. */
  readonly notes?: readonly string[];
}

/** A file whose columns a person has to name. */
export class ColumnsUnclear extends FileRefused {
  constructor(
    readonly headings: RollFile['headings'],
    message: string,
  ) {
    super(message);
  }
}

/** What headings mean to a programme, in lower case; null for one that is not used. */
export type ColumnWords = Readonly<Record<string, RollColumn | null>>;

/** One form for a heading however it is capitalised and spaced. */
export const headingKey = (heading: string): string => heading.trim().toLowerCase().replace(/\s+/g, ' ');

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
export function readRollCsv(bytes: Uint8Array, remembered: ColumnWords = {}): RollFile {
  const { text, encoding } = decodeText(bytes);
  const delimiter = delimiterOf(text);
  return { ...rowsOfTable(recordsOf(text, delimiter), remembered), encoding, delimiter: DELIMITERS[delimiter] };
}

/**
 * The rows of a table whose first row names the columns.
 *
 * @param remembered what the programme said a heading means, in lower case; stands before the usual words
 * @throws FileRefused when the table as a whole cannot be used
 */
export function rowsOfTable(
  records: readonly TableRecord[],
  remembered: ColumnWords = {},
): Pick<RollFile, 'rows' | 'ignored' | 'headings'> {
  const [header, ...body] = records;
  if (!header)
    throw new FileRefused(
      'The file holds no rows. The first row names the columns: name, age, servings, avoids, mode.',
    );
  const { columns, ignored } = readHeader(header.cells, remembered);
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
  const headings = header.cells.map((cell, index) => ({ heading: cell.trim(), column: columns[index] ?? null }));
  return { rows, ignored, headings };
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
      if (data.some((cell) => cell.trim() !== '')) records.push({ line, cells: data });
      line += countBreaks(text.slice(cursor, meta.cursor));
      cursor = meta.cursor;
    },
  });
  return records;
}

const countBreaks = (text: string) => (text.match(/\r\n|\n|\r/g) ?? []).length;

function readHeader(
  cells: readonly string[],
  remembered: ColumnWords,
): { columns: (RollColumn | undefined)[]; ignored: string[] } {
  const columns = cells.map((cell) => {
    const key = headingKey(cell);
    if (Object.hasOwn(remembered, key)) return remembered[key] ?? undefined;
    return Object.hasOwn(HEADINGS, key) ? HEADINGS[key] : undefined;
  });
  for (const column of ['name', 'servings'] as const) {
    if (!columns.includes(column)) {
      throw new ColumnsUnclear(
        cells.map((cell, index) => ({ heading: cell.trim(), column: columns[index] ?? null })),
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
