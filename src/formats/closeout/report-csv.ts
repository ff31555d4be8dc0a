import { writeCsv } from '../csv';
import { columnsOf, inTable, type ReportOut } from './report-rows';

/** A report as CSV: each figure with how it comes about, then each session with what it brings. */
export function writeReportCsv(report: ReportOut): string {
  const columns = columnsOf(report);
  const parts = columns.map(({ parts: own }) => new Map((own ?? []).map((part) => [part.sessionId, part])));
  const heads = columns.flatMap(({ label, unit }) =>
    unit === 'percent' ? [`${label}: yes`, `${label}: noted`] : [label],
  );
  return writeCsv([
    [report.title, report.span],
    ['figure', 'value', 'how it comes about'],
    ...report.figures.map(({ label, said, how }) => [label, said, how]),
    [],
    ['date', 'course', 'session', ...heads],
    ...report.sessions.map(({ id, date, course, title }) => [
      date,
      course,
      title,
      ...columns.flatMap(({ unit }, at) => {
        const part = parts[at]?.get(id);
        if (unit === 'percent') return [String(part?.value ?? ''), String(part?.of ?? '')];
        return [part ? String(inTable(part.value, unit)) : ''];
      }),
    ]),
  ]);
}
