import type { AsyncLocalStorage } from 'node:async_hooks';
import path from 'node:path';
import { Piscina } from 'piscina';
import { GlyphMissing } from '@/formats/label-layout';
import { ColumnsUnclear } from '@/formats/roll-headings';
import { FileRefused } from '@/formats/text';
import type { TaskAnswer, TaskInput, TaskName } from './tasks';

/** More waits already than will be done in the time anybody waits. */
export class PoolBusy extends Error {}

/** The sender is gone: nobody waits for an answer. */
export class SenderLeft extends Error {}

/** Work of a thread takes at most so long and so much; then the thread is ended, whatever it is at. */
const MOST_SECONDS = 15;
const MOST_MEGABYTES = 384;
const THREADS = 2;
const MOST_WAITING = 40;

const shared = globalThis as typeof globalThis & {
  logistraPool?: Piscina;
  /** Set by the web server: ends when the sender of the request under way leaves. */
  logistraLeaving?: AsyncLocalStorage<AbortSignal>;
};

/** The pool of this process, made when it is first needed; one thread stays ready. */
function pool(): Piscina {
  if (!shared.logistraPool) {
    shared.logistraPool = new Piscina({
      filename: path.join(process.cwd(), 'src/workers/thread.mjs'),
      minThreads: 1,
      maxThreads: THREADS,
      maxQueue: MOST_WAITING,
      idleTimeout: 60_000,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES, maxYoungGenerationSizeMb: 64 },
    });
    // A thread that dies while it does nothing is replaced; one that dies at work fails that work.
    shared.logistraPool.on('error', (error) => console.error(`A thread ended: ${(error as Error).message}`));
  }
  return shared.logistraPool;
}

/** Starts the first thread, so that nobody waits for it later. */
export const warmUp = (): void => void pool();

/**
 * Does one task on a thread of the pool.
 *
 * @param seconds the longest it may take, waiting for a thread included
 * @throws FileRefused when the file cannot be used, or a limit of time or memory was met: which one, and what to do
 * @throws GlyphMissing when something cannot be printed
 * @throws PoolBusy when too much waits
 * @throws SenderLeft when whoever asked is gone
 */
export async function onThread<Name extends TaskName>(
  task: Name,
  input: TaskInput<Name>,
  seconds = MOST_SECONDS,
): Promise<TaskAnswer<Name>> {
  const late = AbortSignal.timeout(seconds * 1000);
  const left = shared.logistraLeaving?.getStore();
  const signal = left ? AbortSignal.any([late, left]) : late;
  let outcome: { answer: unknown } | { refused: string; headings?: ColumnsUnclear['headings'] } | { missing: string };
  try {
    outcome = await pool().run({ task, input }, { signal });
  } catch (error) {
    if (left?.aborted) throw new SenderLeft('The sender left.');
    if (late.aborted)
      throw new FileRefused(
        `This was stopped after ${seconds} seconds: it takes longer than anything that fits a programme. Nothing was saved. Send a smaller part of it.`,
      );
    const code = (error as { code?: string }).code;
    if (code === 'ERR_WORKER_OUT_OF_MEMORY')
      throw new FileRefused(
        `This was stopped: it unfolds into more than ${MOST_MEGABYTES} MB. Nothing was saved. Send the sheet or the part that is needed alone.`,
      );
    if (/queue/i.test((error as Error).message)) throw new PoolBusy('Too much is being read just now.');
    throw error;
  }
  if ('missing' in outcome) throw new GlyphMissing(outcome.missing);
  if ('refused' in outcome)
    throw outcome.headings ? new ColumnsUnclear(outcome.headings, outcome.refused) : new FileRefused(outcome.refused);
  return outcome.answer as TaskAnswer<Name>;
}
