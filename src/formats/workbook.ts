import { SaxesParser } from 'saxes';
import { FileRefused } from './text';
import type { ArchivedFile } from './zip';

/** A sheet of a workbook as text, row by row; only rows that say something. */
export interface WorkbookSheet {
  readonly name: string;
  /** Names of the further sheets. */
  readonly others: readonly string[];
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[];
  /** How many cells are formulas, and how many of these have no saved result. */
  readonly formulas: number;
  readonly unsure: number;
  /** Rows of cells that are merged into another, one for each cell. */
  readonly mergedIn: readonly number[];
}

const NOT_READABLE = new FileRefused('This is not a workbook that can be read. Save it again as .xlsx, or as CSV.');

/** What is told of an element: its name without prefix, its attributes likewise. */
type Attributes = Readonly<Record<string, string>>;

const bare = (name: string) => name.slice(name.indexOf(':') + 1);

/** Walks through the elements of an XML part once, from its beginning to its end. */
function walk(
  part: ArchivedFile | undefined,
  on: { open(name: string, attributes: Attributes): void; text?(text: string): void; close?(name: string): void },
): void {
  if (!part) return;
  const parser = new SaxesParser();
  parser.on('error', () => {
    throw NOT_READABLE;
  });
  // A workbook has no use for a document type; entities made there can unfold without end.
  parser.on('doctype', () => {
    throw NOT_READABLE;
  });
  parser.on('opentag', ({ name, attributes }) =>
    on.open(
      bare(name),
      Object.fromEntries(Object.entries(attributes as Attributes).map(([key, value]) => [bare(key), value])),
    ),
  );
  parser.on('text', (text) => on.text?.(text));
  parser.on('closetag', ({ name }) => on.close?.(bare(name)));
  parser.write(new TextDecoder().decode(part.bytes)).close();
}

/**
 * Reads the first sheet of a workbook (ECMA-376): formulas by the result that was saved with them, dates as YYYY-MM-DD, rich
 * text as text, errors as nothing, of merged cells the first. Takes as long as the file is, and as much as its filled cells.
 *
 * @param most columns and rows that are read
 * @throws FileRefused when it cannot be read, or something is filled beyond those columns or rows
 */
export function readFirstSheet(
  parts: readonly ArchivedFile[],
  most: { readonly columns: number; readonly rows: number },
): WorkbookSheet {
  const byName = new Map(parts.map((part) => [part.name.replace(/^\//, ''), part]));
  const book = sheetsOf(byName);
  const [first, ...others] = book.sheets;
  if (!first) throw new FileRefused('The workbook holds no sheet.');
  const part = byName.get(first.part);
  if (!part) throw NOT_READABLE;
  const texts = sharedTexts(byName.get('xl/sharedStrings.xml'));
  const isDate = dateStyles(byName.get('xl/styles.xml'));
  const rows: { line: number; cells: string[] }[] = [];
  const merges: string[] = [];
  let formulas = 0;
  let unsure = 0;
  let row: { line: number; cells: string[] } | undefined;
  let line = 0;
  let cell:
    | { column: number; type: string; style: number; isFormula: boolean; value: string; inline: string }
    | undefined;
  let inside = '';
  walk(part, {
    open(name, { r, t = 'n', s = '', ref = '' }) {
      inside = name;
      if (name === 'row') {
        line = Number(r) || line + 1;
        row = { line, cells: [] };
      } else if (name === 'c') {
        const column = r ? columnOf(r) : (row?.cells.length ?? 0) + 1;
        cell = { column, type: t, style: Number(s) || 0, isFormula: false, value: '', inline: '' };
      } else if (name === 'f' && cell) cell.isFormula = true;
      else if (name === 'mergeCell') merges.push(ref);
    },
    text(text) {
      if (!cell) return;
      if (inside === 'v') cell.value += text;
      else if (inside === 't') cell.inline += text;
    },
    close(name) {
      inside = '';
      if (name === 'c' && cell && row) {
        if (cell.isFormula) formulas++;
        if (cell.isFormula && cell.value === '') unsure++;
        const text = cell.type === 'inlineStr' ? cell.inline : textOf(cell, texts, isDate, book.from1904);
        if (text.trim() !== '') {
          if (cell.column > most.columns)
            throw new FileRefused(
              `Row ${row.line} has something in its column ${cell.column}, further right than any sheet of people reaches. Take it away, and save the workbook again.`,
            );
          row.cells[cell.column - 1] = text;
        }
        cell = undefined;
      } else if (name === 'row' && row) {
        if (row.cells.length > 0) rows.push({ line: row.line, cells: Array.from(row.cells, (each) => each ?? '') });
        if (rows.length > most.rows)
          throw new FileRefused(
            `The sheet has more than ${most.rows} filled rows. Save the rows that are needed alone.`,
          );
        row = undefined;
      }
    },
  });
  const mergedIn = unmerge(rows, merges, most.columns);
  const filled = rows.filter(({ cells }) => cells.some((each) => each !== ''));
  return { name: first.name, others: others.map(({ name }) => name), rows: filled, formulas, unsure, mergedIn };
}

/** The sheets in the order of their tabs, with the part each is in. */
function sheetsOf(byName: ReadonlyMap<string, ArchivedFile>) {
  const targets = new Map<string, string>();
  walk(byName.get('xl/_rels/workbook.xml.rels'), {
    open: (name, { Id = '', Target = '' }) => {
      if (name === 'Relationship') targets.set(Id, Target.startsWith('/') ? Target.slice(1) : `xl/${Target}`);
    },
  });
  const sheets: { name: string; part: string }[] = [];
  let from1904 = false;
  walk(byName.get('xl/workbook.xml'), {
    open: (element, { name = '', id = '', date1904 }) => {
      if (element === 'sheet') sheets.push({ name, part: targets.get(id) ?? '' });
      if (element === 'workbookPr') from1904 = date1904 === '1' || date1904 === 'true';
    },
  });
  return { sheets, from1904 };
}

/** Texts that cells share, by their number; how a word is read aloud beside it is no part of it. */
function sharedTexts(part: ArchivedFile | undefined): string[] {
  const texts: string[] = [];
  let inside = '';
  let isAside = false;
  walk(part, {
    open(name) {
      inside = name;
      if (name === 'si') texts.push('');
      if (name === 'rPh') isAside = true;
    },
    text(text) {
      if (inside === 't' && !isAside) texts[texts.length - 1] += text;
    },
    close(name) {
      inside = '';
      if (name === 'rPh') isAside = false;
    },
  });
  return texts;
}

/** Number formats that ship with the format and show a date (ECMA-376, 18.8.30). */
const DATE_FORMATS = new Set([14, 15, 16, 17, 18, 19, 20, 21, 22, 45, 46, 47]);

/** For each style of a cell whether it shows a date. */
function dateStyles(part: ArchivedFile | undefined): readonly boolean[] {
  const own = new Map<number, boolean>();
  const styles: boolean[] = [];
  let isOfCells = false;
  walk(part, {
    open(name, { numFmtId = '', formatCode = '' }) {
      const id = Number(numFmtId);
      // What stands in quotes, in brackets or behind a backslash is shown as it is.
      if (name === 'numFmt')
        own.set(id, /[dmyhs]/i.test(formatCode.slice(0, 200).replace(/"[^"]*"|\[[^\]]*\]|\\./g, '')));
      if (name === 'cellXfs') isOfCells = true;
      if (name === 'xf' && isOfCells) styles.push(own.get(id) ?? DATE_FORMATS.has(id));
    },
    close(name) {
      if (name === 'cellXfs') isOfCells = false;
    },
  });
  return styles;
}

function textOf(
  { type, style, value }: { type: string; style: number; value: string },
  texts: readonly string[],
  isDate: readonly boolean[],
  from1904: boolean,
): string {
  if (value === '' || type === 'e') return '';
  if (type === 's') return texts[Number(value)] ?? '';
  if (type === 'str') return value;
  if (type === 'b') return value === '1' ? 'true' : 'false';
  if (type === 'd') return value.slice(0, 10);
  const number = Number(value);
  if (!Number.isFinite(number)) return '';
  return isDate[style] ? dateText(number, from1904) : String(number);
}

/** Days since the workbook's first day. The first system counts a 29 February 1900 that never was. */
function dateText(serial: number, from1904: boolean): string {
  const days = from1904 ? serial + 1462 : serial < 60 ? serial + 1 : serial;
  const at = new Date((Math.floor(days) - 25_569) * 86_400_000);
  return Number.isNaN(at.getTime()) ? '' : at.toISOString().slice(0, 10);
}

/** 3 for "C7". */
const columnOf = (reference: string): number => {
  let column = 0;
  for (const letter of reference.slice(0, 4).toUpperCase()) {
    const at = letter.charCodeAt(0) - 64;
    if (at < 1 || at > 26) break;
    column = column * 26 + at;
  }
  return column;
};

/** Merges that are looked at; a sheet of people has a few. */
const MOST_MERGES = 500;

/** Empties all cells of merged ones but the first. @returns the row of each that was emptied, or was empty already */
function unmerge(rows: { line: number; cells: string[] }[], merges: readonly string[], columns: number): number[] {
  const emptied: number[] = [];
  for (const reference of merges.slice(0, MOST_MERGES)) {
    const [from = '', to = from] = reference.split(':');
    const [top, bottom] = [Number(from.replace(/\D/g, '')), Number(to.replace(/\D/g, ''))];
    const right = Math.min(columnOf(to), columns);
    for (const { line, cells } of rows) {
      if (line < top || line > bottom) continue;
      for (let column = columnOf(from); column <= right; column++) {
        if (line === top && column === columnOf(from)) continue;
        emptied.push(line);
        if (cells[column - 1] !== undefined) cells[column - 1] = '';
      }
    }
  }
  return emptied;
}
