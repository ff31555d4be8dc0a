import { quarterHours } from '@/core/crew/hours';
import { refuseUnprintable } from '../packing/label-layout';
import { makePdf } from '../pdf';
import type { HoursOf } from './hours-csv';
import type { HoursTitle } from './hours-pdf';

const MARGIN = 72;

/** A certificate of what somebody gave, a page each, to be signed. */
export const certificatePdf = (
  people: readonly HoursOf[],
  { programme, span }: HoursTitle,
  paper: 'A4' | 'LETTER',
): Promise<Uint8Array> =>
  makePdf(`Certificate: ${programme}`, { size: paper, margin: MARGIN, layout: 'landscape' }, (pdf) => {
    for (const [at, { name, minutes, stays }] of people.entries()) {
      if (at > 0) pdf.addPage();
      const { width, height } = pdf.page;
      pdf
        .rect(36, 36, width - 72, height - 72)
        .lineWidth(1.5)
        .stroke();
      const write = (text: string, size: number, isBold = false) => {
        refuseUnprintable(text, 'The certificate');
        pdf
          .font(isBold ? 'bold' : 'regular', size)
          .text(text, MARGIN, undefined, { align: 'center', width: width - 2 * MARGIN });
      };
      pdf.y = MARGIN + 40;
      write('Certificate of volunteering', 22, true);
      pdf.moveDown(1.5);
      write(name, 30, true);
      pdf.moveDown();
      const days = new Set(stays.map(({ date }) => date)).size;
      const courses = [...new Set(stays.map(({ title }) => title.split(': ')[0] ?? ''))].filter(Boolean);
      write(`gave ${quarterHours(minutes)} hours on ${days} ${days === 1 ? 'day' : 'days'}`, 15);
      write(`to ${programme}`, 15);
      write(span, 12);
      pdf.moveDown();
      if (courses.length > 0) write(`helping with ${courses.join(', ')}.`, 12);
      pdf.moveDown(3);
      write('Signed for the programme: ____________________________      Date: ______________', 11);
    }
  });
