import { SECTIONS } from '@/core/closeout/report/report';
import { refuseUnprintable } from '../packing/label-layout';
import { makePdf, type Pdf } from '../pdf';
import { type ReportOut, UNDER } from './report-rows';

const MARGIN = 54;
const LOGO = 60;
const BAR = 14;

/** A report on paper: figures by section, and attendance as bars with their numbers beside them: it needs no colour. */
export const reportPdf = (report: ReportOut, paper: 'A4' | 'LETTER'): Promise<Uint8Array> =>
  makePdf(`${report.title}: ${report.programme}`, { size: paper, margin: MARGIN, bufferPages: true }, (pdf) => {
    const write = (text: string, size: number, isBold = false) => {
      refuseUnprintable(text, 'The report');
      pdf.font(isBold ? 'bold' : 'regular', size).text(text, MARGIN);
    };
    if (report.logo)
      pdf.image(Buffer.from(report.logo.bytes), pdf.page.width - MARGIN - LOGO * 2, MARGIN - 20, {
        fit: [LOGO * 2, LOGO],
        align: 'right',
      });
    write(report.programme, 11);
    write(report.title, 18, true);
    write(report.span, 11);
    pdf.moveDown(0.5);
    if (report.intro) write(report.intro, 11);
    for (const section of SECTIONS) {
      const own = report.figures.filter((figure) => figure.section === section);
      if (own.length === 0) continue;
      pdf.moveDown();
      if (pdf.y > pdf.page.height - MARGIN - 80) pdf.addPage();
      write(section, 13, true);
      for (const text of own.flatMap(({ label, said, how }) => [label, said, how]))
        refuseUnprintable(text, 'The report');
      pdf.font('regular', 10);
      pdf.table({
        columnStyles: [150, 80, '*'],
        defaultStyle: { border: [0, 0, 0.5, 0], padding: 3 },
        data: own.map(({ label, said, how }) => [label, said, how]),
      });
    }
    if (report.bars.length > 0) bars(pdf, report);
    pdf.moveDown(2);
    write(UNDER, 9);
  });

function bars(pdf: Pdf, { bars: all, saysBars }: ReportOut): void {
  const { width, height } = pdf.page;
  const room = width - 2 * MARGIN;
  const [labels, numbers] = [190, 40];
  if (pdf.y + 60 + BAR > height - MARGIN) pdf.addPage();
  pdf.moveDown();
  pdf.font('bold', 13).text('Attendance', MARGIN);
  refuseUnprintable(saysBars, 'The report');
  pdf.font('regular', 10).text(saysBars, MARGIN);
  pdf.moveDown(0.5);
  for (const { label, value } of all) {
    if (pdf.y + BAR > height - MARGIN) pdf.addPage();
    const { y } = pdf;
    refuseUnprintable(label, 'The report');
    pdf.font('regular', 8).text(label, MARGIN, y + 2, { width: labels - 8, height: BAR, ellipsis: true });
    const long = ((room - labels - numbers) * value) / 100;
    pdf.rect(MARGIN + labels, y + 2, Math.max(1, long), BAR - 5).fillAndStroke('#888888', '#000000');
    pdf.fillColor('#000000').text(`${value} %`, MARGIN + labels + long + 4, y + 2);
    pdf.y = y + BAR;
  }
}
