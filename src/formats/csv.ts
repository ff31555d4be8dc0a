import Papa from 'papaparse';

/**
 * Rows as CSV (RFC 4180) with a UTF-8 byte order mark, so that spreadsheet programs read accents right.
 *
 * Text that a spreadsheet program would run as a formula stays text: a cell that begins with = + - @ or a control
 * character gets an apostrophe in front. A phone number is no formula: "+44 20 7946 0123" stays as it is.
 */
export function writeCsv(rows: readonly (readonly (string | number)[])[]): string {
  const safe = rows.map((row) => row.map((cell) => (typeof cell === 'number' ? cell : asText(cell))));
  return `\uFEFF${Papa.unparse(safe, { newline: '\r\n' })}\r\n`;
}

const asText = (cell: string) =>
  /^\s*[=+\-@]|^[\t\r\n]/.test(cell) && !/^\+\d[\d\s()./-]{5,}$/.test(cell) ? `'${cell}` : cell;
