import QRCode from 'qrcode';
import type { KitLabel } from '@/core/packing/label';
import { makePdf, type Pdf } from '../pdf';
import {
  codeSize,
  type LabelPlace,
  layLabel,
  lineHeight,
  PADDING,
  PAPERS,
  type Paper,
  type PaperName,
} from './label-layout';

/** Modules of quiet around a QR code, as the standard asks. */
const QUIET = 4;

/**
 * Labels as a PDF, in kit order, a label to a place.
 *
 * @throws GlyphMissing when a name holds a character that cannot be printed rightly
 */
export async function labelsPdf(labels: readonly KitLabel[], paperName: PaperName): Promise<Uint8Array> {
  const paper: Paper = PAPERS[paperName];
  const places = labels.flatMap((label) => layLabel(label, paper));
  const { width, height } = paper.page;
  const perPage = paper.columns * paper.rows;
  const draw = (pdf: Pdf) =>
    places.forEach((place, index) => {
      const onPage = index % perPage;
      if (onPage === 0) pdf.addPage();
      const left = paper.margin.left + (onPage % paper.columns) * paper.label.width;
      const top = paper.margin.top + Math.floor(onPage / paper.columns) * paper.label.height;
      drawLabel(pdf, place, left + PADDING, top + PADDING, left + paper.label.width - PADDING, codeSize(paper));
    });
  return makePdf('Kit labels', { size: [width, height], margin: 0, autoFirstPage: false }, draw);
}

function drawLabel(
  pdf: Pdf,
  { label, lines, part }: LabelPlace,
  left: number,
  top: number,
  right: number,
  code: number,
): void {
  /** What stands under the code grows with it. */
  const grown = code / 46;
  const write = (text: string, x: number, y: number, size: number, bold: boolean) =>
    pdf.font(bold ? 'bold' : 'regular', size).text(text, x, y, { lineBreak: false });
  let y = top;
  for (const { text, size, bold } of lines) {
    write(text, left, y, size, bold);
    y += lineHeight(size);
  }
  // Beside the text: the code, and under it what the packer looks for.
  const codeLeft = right - code;
  drawCode(pdf, label.kitId, codeLeft, top, code);
  const centred = (text: string, below: number, size: number, bold: boolean) => {
    const width = pdf.font(bold ? 'bold' : 'regular', size * grown).widthOfString(text);
    write(text, codeLeft + (code - width) / 2, top + code + below * grown, size * grown, bold);
  };
  // What stands on a shelf is no kit: its code alone.
  if (label.number === 0) return;
  centred(label.variant, 1, 20, true);
  centred(`kit ${label.number}, feeds ${label.servings}`, 24.5, 6, false);
  if (part !== '') centred(part, 31.5, 6, false);
}

/** The kit's id as a QR code: one rectangle for each run of dark modules. */
function drawCode(pdf: Pdf, id: string, left: number, top: number, size: number): void {
  const { modules } = QRCode.create(id, { errorCorrectionLevel: 'M' });
  const unit = size / (modules.size + 2 * QUIET);
  for (let y = 0; y < modules.size; y++) {
    for (let x = 0; x < modules.size; x++) {
      const start = x;
      while (x < modules.size && modules.get(y, x)) x++;
      if (x > start) pdf.rect(left + (start + QUIET) * unit, top + (y + QUIET) * unit, (x - start) * unit, unit);
    }
  }
  pdf.fill('black');
}
