import { minutesOfStay, quarterHours } from '@/core/crew/hours';
import { type SayingFacts, sayingOf } from '@/core/plan/saying';
import { refuseUnprintable } from '../packing/label-layout';
import { makePdf } from '../pdf';
import type { HoursOf } from './hours-csv';

/** What a statement of hours says of whoever gives it. */
export interface HoursTitle {
  readonly programme: string;
  /** "Tuesday 1 September 2026 to Friday 18 December 2026" */
  readonly span: string;
  readonly says: SayingFacts;
}

const SIGNED = 'Signed for the programme: ____________________________   Date: ______________';

/** A statement of somebody's hours, a page each, for their school or employer. */
export const hoursPdf = (
  people: readonly HoursOf[],
  { programme, span, says }: HoursTitle,
  paper: 'A4' | 'LETTER',
): Promise<Uint8Array> =>
  makePdf(`Hours: ${programme}`, { size: paper, margin: 54 }, (pdf) => {
    const say = sayingOf(says);
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
        say.shortDate(stay.date),
        stay.title,
        stay.went === null
          ? `${say.time(stay.came)}, not ended`
          : `${say.time(stay.came)} to ${say.time(Math.min(stay.went, 1439))}`,
        quarterHours(minutesOfStay(stay)),
      ]);
      for (const text of rows.flat()) refuseUnprintable(text, 'The statement of hours');
      pdf.font('regular', 10);
      pdf.table({
        columnStyles: [75, '*', 125, 50],
        data: [['Date', 'Session', 'Time', 'Hours'], ...rows],
      });
      pdf.moveDown();
      write(`In all ${quarterHours(minutes)} hours.`, 12, true);
      pdf.moveDown(3);
      write(SIGNED, 10);
    }
  });
