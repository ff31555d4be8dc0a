import ExcelJS from 'exceljs';
import { lettersOf } from '../columns';
import { columnsOf, inTable, type ReportOut, UNDER } from './report-rows';

const FORMATS = { count: '0', percent: '0 %', hours: '0.00', money: '0.00', kilograms: '0.0' } as const;
const HEAD = 1;

/**
 * A report as a workbook. On "Sessions": a row for each, with what it brings. On "Report": the figures as live formulas over these rows,
 * so that somebody can strike out a session and see what is left; what sessions do not add up to (people counted once, what is hidden)
 * stands as it is.
 */
export async function writeReportXlsx(report: ReportOut): Promise<Uint8Array<ArrayBuffer>> {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Report', { views: [{ state: 'frozen', ySplit: 4 }] });
  const rows = book.addWorksheet('Sessions', { views: [{ state: 'frozen', xSplit: 3, ySplit: HEAD }] });
  const columns = columnsOf(report);
  const last = Math.max(HEAD + 1, HEAD + report.sessions.length);
  rows.addRow(['Date', 'Course', 'Session']);
  rows.getRow(HEAD).font = { bold: true };
  for (const [at, { date, course, title }] of report.sessions.entries())
    rows.getRow(HEAD + 1 + at).values = [date, course, title];
  const formulas = new Map<string, string>();
  let column = 4;
  for (const { key, label, unit, parts = [] } of columns) {
    const own = new Map(parts.map((part) => [part.sessionId, part]));
    const fill = (head: string, of: (part: { value: number; of?: number }) => number) => {
      rows.getCell(HEAD, column).value = head;
      for (const [at, { id }] of report.sessions.entries()) {
        const part = own.get(id);
        const cell = rows.getCell(HEAD + 1 + at, column);
        cell.value = part ? of(part) : null;
        cell.numFmt = unit === 'percent' ? FORMATS.count : FORMATS[unit];
      }
      const name = lettersOf(column++);
      return `SUM(Sessions!$${name}$${HEAD + 1}:$${name}$${last})`;
    };
    if (unit === 'percent') {
      const yes = fill(`${label}: yes`, ({ value }) => value);
      const noted = fill(`${label}: noted`, ({ of = 0 }) => of);
      formulas.set(key, `IF(${noted}=0,"not known",${yes}/${noted})`);
    } else
      formulas.set(
        key,
        fill(label, ({ value }) => inTable(value, unit)),
      );
  }
  formulas.set('sessions', `COUNTA(Sessions!$A$${HEAD + 1}:$A$${last})`);
  const bought = formulas.get('bought');
  const kits = formulas.get('kits');
  // A kit's cost is of the sessions whose cost is known: a formula only where that is all of them.
  const isAllKnown = columns.find(({ key }) => key === 'bought')?.parts?.length === report.sessions.length;
  if (bought && kits && isAllKnown) {
    formulas.set('kit cost', `IF(${kits}=0,"not known",${bought}/${kits})`);
    const given = formulas.get('given money');
    if (given) formulas.set('kit worth', `IF(${kits}=0,"not known",(${bought}+${given})/${kits})`);
  }
  sheet.getCell('A1').value = `${report.title} · ${report.programme}`;
  sheet.getCell('A1').font = { bold: true, size: 14 };
  sheet.getCell('A2').value = report.span;
  sheet.getCell('A3').value = report.intro || UNDER;
  sheet.getRow(4).values = ['Figure', 'Value', 'How it comes about'];
  sheet.getRow(4).font = { bold: true };
  for (const [at, { key, label, unit, value, said, how }] of report.figures.entries()) {
    const row = sheet.getRow(5 + at);
    row.getCell(1).value = label;
    row.getCell(3).value = how;
    const cell = row.getCell(2);
    const formula = formulas.get(key);
    if (value === null) cell.value = said;
    else {
      const result = unit === 'percent' ? value / 1000 : inTable(value, unit);
      cell.value = formula ? { formula, result } : result;
      cell.numFmt = FORMATS[unit];
    }
    cell.alignment = { horizontal: 'right' };
  }
  sheet.getColumn(1).width = 34;
  sheet.getColumn(2).width = 16;
  sheet.getColumn(3).width = 80;
  for (const [at, width] of [12, 26, 30].entries()) rows.getColumn(at + 1).width = width;
  return new Uint8Array((await book.xlsx.writeBuffer()) as ArrayBuffer);
}
