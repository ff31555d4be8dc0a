import path from 'node:path';
import PDFDocument from 'pdfkit';

const FOLDER = path.join(process.cwd(), 'node_modules', 'dejavu-fonts-ttf', 'ttf');

/** A condensed face with Latin, Greek, Cyrillic and every kitchen fraction; static, so that nothing is substituted. */
export const FONT_FILES = {
  regular: path.join(FOLDER, 'DejaVuSansCondensed.ttf'),
  bold: path.join(FOLDER, 'DejaVuSansCondensed-Bold.ttf'),
};

export type Pdf = InstanceType<typeof PDFDocument>;

/**
 * Draws a PDF in the shipped fonts, "regular" and "bold".
 *
 * @param options as pdfkit takes them: size, margin, layout
 * @returns the file, when all of it is drawn
 */
export async function makePdf(
  title: string,
  options: PDFKit.PDFDocumentOptions,
  draw: (pdf: Pdf) => void,
): Promise<Uint8Array> {
  const pdf = new PDFDocument({ ...options, info: { Title: title, Creator: 'Logistra', Producer: 'Logistra' } });
  pdf.registerFont('regular', FONT_FILES.regular);
  pdf.registerFont('bold', FONT_FILES.bold);
  const parts: Buffer[] = [];
  const ended = new Promise((resolve, reject) => {
    pdf.on('data', (part: Buffer) => parts.push(part));
    pdf.once('end', resolve);
    pdf.once('error', reject);
  });
  draw(pdf);
  pdf.end();
  await ended;
  return new Uint8Array(Buffer.concat(parts));
}
