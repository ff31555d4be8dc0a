/** Components by where in a kit they belong: anything first, what is cold and ready to eat after, what is raw last. */
export const LINE_CLASSES = ['any', 'cold', 'raw'] as const;
export type LineClass = (typeof LINE_CLASSES)[number];

/** A component of a line: what all kits together take of a packer, in whole seconds. */
export interface LineTask {
  readonly id: string;
  readonly seconds: number;
  readonly class: LineClass;
}

/** Who stands where. */
export interface LineAnswer {
  /** Task ids at each station, in the order in which a kit comes by. */
  readonly stations: readonly (readonly string[])[];
  /** What the slowest station has to do, in seconds: when the last kit leaves it, the line is done. */
  readonly slowest: number;
  /** No line of so many stations is quicker. */
  readonly proven: boolean;
  readonly bound: number;
}

/** Steps of a search, before what is found so far is taken. */
const MOST_STEPS = 400_000;

/**
 * The line with the best pace: components shared among stations so that the slowest has as little to do as can be. What is cold comes
 * by after the rest, what is raw last of all.
 *
 * @example
 * balanceLine([{ id: 'oats', seconds: 60, class: 'any' }, { id: 'salt', seconds: 30, class: 'any' }, { id: 'nuts', seconds: 30, class: 'any' }], 2).slowest //=> 60
 */
export function balanceLine(tasks: readonly LineTask[], stations: number): LineAnswer {
  const inOrder = LINE_CLASSES.flatMap((name) =>
    tasks.filter((task) => task.class === name).sort((a, b) => b.seconds - a.seconds || (a.id < b.id ? -1 : 1)),
  );
  const all = inOrder.reduce((sum, { seconds }) => sum + seconds, 0);
  const longest = Math.max(0, ...inOrder.map(({ seconds }) => seconds));
  const bound = Math.max(longest, Math.ceil(all / Math.max(1, stations)));
  let best = greedy(inOrder, stations);
  let [low, high] = [bound, slowestOf(best, inOrder)];
  let isSure = true;
  // From below: the first length for which a line is found cannot be beaten.
  while (low < high) {
    const middle = isSure ? low + Math.floor((high - low) / 4) : low + Math.floor((high - low) / 2);
    const found = within(inOrder, stations, middle);
    if (found === 'unknown') {
      isSure = false;
      low = middle + 1;
    } else if (found) {
      best = found;
      high = slowestOf(found, inOrder);
    } else low = middle + 1;
  }
  const slowest = slowestOf(best, inOrder);
  const lines = Array.from({ length: stations }, (_, station) =>
    inOrder.filter((_, at) => best[at] === station).map(({ id }) => id),
  );
  return { stations: lines, slowest, proven: isSure || slowest === bound, bound: isSure ? slowest : bound };
}

function slowestOf(places: readonly number[], tasks: readonly LineTask[]): number {
  const loads = new Map<number, number>();
  for (const [at, station] of places.entries())
    loads.set(station, (loads.get(station) ?? 0) + (tasks[at]?.seconds ?? 0));
  return Math.max(0, ...loads.values());
}

/** One station after the other, each filled as far as is fair. */
function greedy(tasks: readonly LineTask[], stations: number): number[] {
  const all = tasks.reduce((sum, { seconds }) => sum + seconds, 0);
  let [station, load, done] = [0, 0, 0];
  return tasks.map(({ seconds }) => {
    const fair = (all - done) / Math.max(1, stations - station);
    if (load > 0 && load + seconds / 2 > fair && station < stations - 1) {
      station++;
      done += load;
      load = 0;
    }
    load += seconds;
    return station;
  });
}

/**
 * A line in which no station has more to do than `length`; undefined where there is none, "unknown" where the search was given up.
 * Station by station, from the last, where little is that must stand there: each is filled so far that the rest can still be done
 * by those before it.
 */
function within(tasks: readonly LineTask[], stations: number, length: number): number[] | undefined | 'unknown' {
  const order = [...tasks.keys()].sort((a, b) => classOf(tasks[b]) - classOf(tasks[a]) || a - b);
  const inOrder = order.map((at) => tasks[at] as LineTask);
  const places: (number | undefined)[] = inOrder.map(() => undefined);
  const all = tasks.reduce((sum, { seconds }) => sum + seconds, 0);
  let steps = 0;
  /** @param spare seconds that may be left over at the stations from this one on */
  const fill = (station: number, done: number, spare: number): boolean => {
    if (done === all) return true;
    if (station === stations) return false;
    const first = places.indexOf(undefined);
    // Of stations that hold one class alone, and nothing after it, each takes the largest that is left: they are alike.
    const isLastClass = classOf(inOrder[first]) === classOf(inOrder.at(-1));
    const put = (from: number, load: number): boolean => {
      if (++steps > MOST_STEPS) return false;
      const left = length - load;
      if (left <= spare && load > 0 && fill(station + 1, done + load, spare - left)) return true;
      const own = classOf(inOrder[places.indexOf(undefined)]);
      for (let at = from; at < inOrder.length; at++) {
        const { seconds } = inOrder[at] as LineTask;
        if (places[at] !== undefined || load + seconds > length) continue;
        // The next class only when this one is all placed.
        if (classOf(inOrder[at]) !== own) break;
        places[at] = station;
        if (put(at + 1, load + seconds)) return true;
        places[at] = undefined;
        if (steps > MOST_STEPS || (load === 0 && isLastClass)) return false;
      }
      return false;
    };
    return put(first, 0);
  };
  if (!fill(0, 0, stations * length - all)) return steps > MOST_STEPS ? 'unknown' : undefined;
  const found: number[] = [];
  for (const [at, task] of order.entries()) found[task] = stations - 1 - (places[at] ?? 0);
  return found;
}

const classOf = (task: LineTask | undefined): number => LINE_CLASSES.indexOf(task?.class ?? 'any');
