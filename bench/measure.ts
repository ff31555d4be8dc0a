/** Figures of a number of runs, in milliseconds and megabytes. */
export interface Figures {
  readonly median: number;
  readonly p95: number;
  readonly first: number;
  /** Most heap in use after any run, beyond what was in use before the first. */
  readonly heap: number;
}

/** Runs before measuring, so that a server that has been up for a moment is measured, not a compiler. */
const WARM_UP = 20;

/** Runs something `times` times after a warm-up; the very first run is told apart. */
export async function measureRuns(run: () => unknown, times: number): Promise<Figures> {
  const before = process.memoryUsage().heapUsed;
  const spent: number[] = [];
  let heap = 0;
  let kept: unknown;
  for (let index = 0; index < times + WARM_UP; index++) {
    const start = performance.now();
    kept = await run();
    spent.push(performance.now() - start);
    heap = Math.max(heap, process.memoryUsage().heapUsed - before);
  }
  if (kept === undefined) throw new Error('The run computed nothing.');
  const [first = 0] = spent;
  const warm = spent.slice(WARM_UP);
  warm.sort((a, b) => a - b);
  const at = (part: number) => warm[Math.min(warm.length - 1, Math.floor(warm.length * part))] ?? 0;
  return { median: at(0.5), p95: at(0.95), first, heap: heap / 1024 / 1024 };
}

/** Prints figures beside what they are compared with. */
export function say(title: string, figures: Figures, baseline: string): void {
  const ms = (value: number) => `${value.toFixed(1)} ms`;
  console.log(
    `${title}\n  median ${ms(figures.median)}, p95 ${ms(figures.p95)}, first run ${ms(figures.first)}, heap at most ${figures.heap.toFixed(0)} MB\n  ${baseline}\n`,
  );
}
