import { Worker } from 'node:worker_threads';
import type { Reference } from '@/core/reference/reference';
import { type DraftedFound, draftIncoming } from '@/formats/recipe-any';
import { FileRefused } from '@/formats/text';
import { isZip } from '@/formats/zip';
import { ask } from './ask';
import type { RecipesTask } from './recipes.worker';

/** One recipe is seldom larger: it is read at once, since a thread would take longer to start. */
const FEW_BYTES = 16 * 1024;

/** Reads recipes; many of them on a thread of its own. @throws FileRefused when there is none in it */
export async function readRecipes(bytes: Uint8Array, reference: Reference): Promise<DraftedFound[]> {
  if (bytes.length <= FEW_BYTES && !isZip(bytes)) return draftIncoming(bytes, reference);
  const task: RecipesTask = { bytes, reference };
  const outcome = await ask<{ answer: DraftedFound[] } | { refused: string }>(
    new Worker(new URL('./recipes.worker.ts', import.meta.url), { workerData: task }),
  );
  if ('refused' in outcome) throw new FileRefused(outcome.refused);
  return outcome.answer;
}
