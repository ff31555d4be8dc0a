import type { AsyncLocalStorage } from 'node:async_hooks';
import path from 'node:path';
import { Tinypool } from 'tinypool';
import { GlyphMissing } from '@/formats/packing/label-layout';
import { ColumnsUnclear } from '@/formats/roll/roll-headings';
import { FileRefused } from '@/formats/text';
import { faultOf, log } from '@/watch/log';
import { meter } from '@/watch/meter';
import type { TaskAnswer, TaskInput, TaskName } from './tasks';

/** More waits already than will be done in the time anybody waits. */
export class PoolBusy extends Error {}

/** The sender is gone: nobody waits for an answer. */
export class SenderLeft extends Error {}

/** A task takes at most so long and so much; then its process is ended, whatever it is at. */
const MOST_SECONDS = 15;
const MOST_MEGABYTES = 384;
const PROCESSES = 2;
const MOST_WAITING = 40;

/** What may take many seconds. It has processes of its own: whoever brings a file, or opens a page, does not wait behind plans. */
const PLANS: ReadonlySet<TaskName> = new Set<TaskName>([
  'planBuying',
  'planCourseBuying',
  'planRoster',
  'planRunSheet',
  'planRoutes',
  'bestRoster',
  'whyEmpty',
  'tryBuying',
]);

const shared = globalThis as typeof globalThis & {
  logistraPools?: { readonly readers: Tinypool; readonly plans: Tinypool };
  /** Set by the web server: ends when the sender of the request under way leaves. */
  logistraLeaving?: AsyncLocalStorage<AbortSignal>;
};

/**
 * The pools of this process, made when they are first needed; one of each stays ready. Readers are processes, not threads: a thread
 * that runs out of memory may take the whole server with it, and one that never pauses cannot be told to. They know nothing of
 * the database or of any key.
 */
function pools() {
  shared.logistraPools ??= { readers: newPool('no'), plans: newPool('yes') };
  return shared.logistraPools;
}

/** @param plans whether its processes work only where nothing else wants to */
function newPool(plans: 'yes' | 'no'): Tinypool {
  const { PATH = '', TMPDIR } = process.env;
  const pool = new Tinypool({
    runtime: 'child_process',
    filename: path.join(process.cwd(), 'src/workers/reader.mjs'),
    execArgv: [`--max-old-space-size=${MOST_MEGABYTES}`],
    env: { PATH, NODE_ENV: 'production', PLANS: plans, ...(TMPDIR ? { TMPDIR } : {}) },
    serialization: 'advanced',
    minThreads: 1,
    maxThreads: PROCESSES,
    maxQueue: MOST_WAITING,
    idleTimeout: 60_000,
  });
  // A reader that dies while it does nothing is replaced; one that dies at work fails that work.
  pool.on('error', (error: unknown) => log().warn(faultOf(error), 'a reader ended'));
  return pool;
}

/** Starts the first readers, so that nobody waits for them later. */
export const warmUp = (): void => void pools();

/** Ends all readers; the next task starts new ones. */
export async function closePool(): Promise<void> {
  await Promise.all(Object.values(shared.logistraPools ?? {}).map((pool) => pool.destroy()));
  delete shared.logistraPools;
}

/**
 * Does one task in a process of the pool.
 *
 * @param seconds the longest it may take, waiting for a reader included
 * @throws FileRefused when the file cannot be used, or a limit of time or memory was met: which one, and what to do
 * @throws GlyphMissing when something cannot be printed
 * @throws PoolBusy when too much waits
 * @throws SenderLeft when whoever asked is gone
 */
export async function inPool<Name extends TaskName>(
  task: Name,
  input: TaskInput<Name>,
  seconds = MOST_SECONDS,
): Promise<TaskAnswer<Name>> {
  const late = AbortSignal.timeout(seconds * 1000);
  const left = shared.logistraLeaving?.getStore();
  const signal = left ? AbortSignal.any([late, left]) : late;
  const begun = performance.now();
  const took = (outcome: 'done' | 'refused' | 'failed') =>
    meter().task(task, outcome, (performance.now() - begun) / 1000);
  let outcome: { answer: unknown } | { refused: string; headings?: ColumnsUnclear['headings'] } | { missing: string };
  try {
    const { plans, readers } = pools();
    outcome = await (PLANS.has(task) ? plans : readers).run({ task, input }, { signal });
  } catch (error) {
    took('failed');
    if (left?.aborted) throw new SenderLeft('The sender left.');
    if (late.aborted)
      throw new FileRefused(
        `This was stopped after ${seconds} seconds: it takes longer than anything that fits a programme. Nothing was saved. Send a smaller part of it.`,
      );
    // The only way a reader ends at work by itself.
    if (/exited unexpectedly/.test((error as Error).message))
      throw new FileRefused(
        `This was stopped: it unfolds into more than ${MOST_MEGABYTES} MB. Nothing was saved. Send the sheet or the part that is needed alone.`,
      );
    if (/queue/i.test((error as Error).message)) throw new PoolBusy('Too much is being read just now.');
    throw error;
  }
  took('answer' in outcome ? 'done' : 'refused');
  if ('missing' in outcome) throw new GlyphMissing(outcome.missing);
  if ('refused' in outcome)
    throw outcome.headings ? new ColumnsUnclear(outcome.headings, outcome.refused) : new FileRefused(outcome.refused);
  return outcome.answer as TaskAnswer<Name>;
}
