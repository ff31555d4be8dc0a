import { parentPort, workerData } from 'node:worker_threads';
import type { SheetContent } from '@/core/kits/sheet-content';
import { type SheetTitle, sheetPdf } from '@/formats/sheet-pdf';

/** What the thread is started with. */
export interface SheetTask {
  readonly content: SheetContent;
  readonly title: SheetTitle;
  readonly paper: 'A4' | 'LETTER';
}

/** What it answers: the PDF, or why there is none. */
export type SheetAnswer = { readonly pdf: Uint8Array } | { readonly refused: string } | { readonly failed: string };

const { content, title, paper } = workerData as SheetTask;
const answer = (message: SheetAnswer) => parentPort?.postMessage(message);

sheetPdf(content, title, paper).then(
  (pdf) => answer({ pdf }),
  (error: Error) =>
    answer(error.name === 'GlyphMissing' ? { refused: error.message } : { failed: error.stack ?? error.message }),
);
