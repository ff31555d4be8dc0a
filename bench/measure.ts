/** Figures of a number of runs, in milliseconds and megabytes. */
export interface Figures {
  readonly median: number;
  readonly p95: number;
  readonly first: number;
  /** Most heap in use after any run, beyond what was in use before the first. */
  readonly heap: number;
}

/** Runs before measuring, and the least they take in ms: a server that has been up for a moment is measured, not a compiler. */
const WARM_UP = { runs: 20, least: 300 };

/** Runs something `times` times after a warm-up; the very first run is told apart. */
export async function measureRuns(run: () => unknown, times: number): Promise<Figures> {
  const before = process.memoryUsage().heapUsed;
  const spent: number[] = [];
  let heap = 0;
  let kept: unknown;
  let warmedUp = 0;
  for (let past = 0, left = times; left > 0; ) {
    const isWarm = spent.length >= WARM_UP.runs && past >= WARM_UP.least;
    const start = performance.now();
    kept = await run();
    const took = performance.now() - start;
    spent.push(took);
    past += took;
    if (isWarm) left -= 1;
    else warmedUp += 1;
    heap = Math.max(heap, process.memoryUsage().heapUsed - before);
  }
  if (kept === undefined) throw new Error('The run computed nothing.');
  const [first = 0] = spent;
  const warm = spent.slice(warmedUp);
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
