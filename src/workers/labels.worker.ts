import { parentPort, workerData } from 'node:worker_threads';
import type { KitLabel } from '@/core/packing/label';
import type { PaperName } from '@/formats/label-layout';
import { labelsPdf } from '@/formats/labels-pdf';

/** What the thread is started with. */
export interface LabelsTask {
  readonly labels: readonly KitLabel[];
  readonly paper: PaperName;
}

/** What it answers: the PDF, or why there is none. */
export type LabelsAnswer = { readonly pdf: Uint8Array } | { readonly refused: string } | { readonly failed: string };

const { labels, paper } = workerData as LabelsTask;
const answer = (message: LabelsAnswer) => parentPort?.postMessage(message);

labelsPdf(labels, paper).then(
  (pdf) => answer({ pdf }),
  (error: Error) =>
    answer(error.name === 'GlyphMissing' ? { refused: error.message } : { failed: error.stack ?? error.message }),
);
