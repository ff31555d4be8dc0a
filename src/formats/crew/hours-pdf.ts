import { minutesOfStay, quarterHours } from '@/core/crew/hours';
import { timeOf } from '@/core/plan/civil';
import { refuseUnprintable } from '../packing/label-layout';
import { makePdf } from '../pdf';
import type { HoursOf } from './hours-csv';

/** What a statement of hours says of whoever gives it. */
export interface HoursTitle {
  readonly programme: string;
  /** "1 Sep 2026 to 18 Dec 2026" */
  readonly span: string;
}

const SIGNED = 'Signed for the programme: ____________________________   Date: ______________';

/** A statement of somebody's hours, a page each, for their school or employer. */
export const hoursPdf = (
  people: readonly HoursOf[],
  { programme, span }: HoursTitle,
  paper: 'A4' | 'LETTER',
): Promise<Uint8Array> =>
  makePdf(`Hours: ${programme}`, { size: paper, margin: 54 }, (pdf) => {
    const write = (text: string, size: number, isBold = false) => {
      refuseUnprintable(text, 'The statement of hours');
      pdf.font(isBold ? 'bold' : 'regular', size).text(text);
    };
    for (const [at, { name, minutes, stays }] of people.entries()) {
      if (at > 0) pdf.addPage();
      write(programme, 11);
      write(`Hours of ${name}`, 18, true);
      write(span, 11);
      pdf.moveDown();
      const rows = stays.map((stay) => [
        stay.date,
        stay.title,
        stay.went === null
          ? `${timeOf(stay.came)}, not ended`
          : `${timeOf(stay.came)} to ${timeOf(Math.min(stay.went, 1439))}`,
        quarterHours(minutesOfStay(stay)),
      ]);
      for (const text of rows.flat()) refuseUnprintable(text, 'The statement of hours');
      pdf.font('regular', 10);
      pdf.table({
        columnStyles: [70, '*', 110, 50],
        data: [['Date', 'Session', 'Time', 'Hours'], ...rows],
      });
      pdf.moveDown();
      write(`In all ${quarterHours(minutes)} hours.`, 12, true);
      pdf.moveDown(3);
      write(SIGNED, 10);
    }
  });
