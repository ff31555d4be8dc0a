import type { Pair, RunTask } from './sheet-case';

/** Looks at so many ways before it gives up; a class of any size needs far fewer. */
const MOST_TRIES = 20_000;

/**
 * Whose hands are on which task: each pair at one task at a time, from its beginning to its end, and old enough for it. The youngest
 * who may do it does it, where that goes up.
 *
 * @param starts of the tasks
 * @returns the pair of each task, by their places; undefined where there is no such way
 */
export function placeHands(
  tasks: readonly RunTask[],
  starts: readonly number[],
  pairs: readonly Pair[],
): ReadonlyMap<number, number> | undefined {
  const all = new Map<number, number>();
  // Where every task says its station, each station is looked at by itself.
  const places = tasks.every(({ at }) => at !== undefined) ? new Set(tasks.map(({ at }) => at)) : [undefined];
  for (const place of places) {
    const placed = placeAt(tasks, starts, pairs, place);
    if (!placed) return undefined;
    for (const [task, pair] of placed) all.set(task, pair);
  }
  return all;
}

function placeAt(
  tasks: readonly RunTask[],
  starts: readonly number[],
  pairs: readonly Pair[],
  place: string | undefined,
): ReadonlyMap<number, number> | undefined {
  const byAge = pairs
    .flatMap((pair, at) => (place === undefined || pair.at === place ? [{ at, age: pair.age, place: pair.at }] : []))
    .sort((a, b) => a.age - b.age);
  const own = tasks
    .map((task, at) => ({
      at,
      from: starts[at] ?? 0,
      to: (starts[at] ?? 0) + task.on,
      age: task.age ?? 0,
      place: task.at,
      by: task.by,
    }))
    .filter((task) => task.to > task.from && (place === undefined || task.place === place))
    // Who is spoken for is taken first.
    .sort(
      (a, b) =>
        a.from - b.from || Number(b.by !== undefined) - Number(a.by !== undefined) || b.age - a.age || b.to - a.to,
    );
  const free = new Map(byAge.map(({ at }) => [at, 0]));
  const placed = new Map<number, number>();
  let tries = 0;
  const placeFrom = (n: number): boolean => {
    const task = own[n];
    if (!task) return true;
    if (++tries > MOST_TRIES) return false;
    const tried = new Set<string>();
    for (const { at, age, place: station } of byAge) {
      const until = free.get(at) ?? 0;
      if (age < task.age || until > task.from || (task.place !== undefined && task.place !== station)) continue;
      if (task.by !== undefined && task.by !== pairs[at]?.id) continue;
      // Two of one age at one station who are both free are alike.
      const alike = `${age} ${station ?? ''}`;
      if (tried.has(alike)) continue;
      tried.add(alike);
      free.set(at, task.to);
      placed.set(task.at, at);
      if (placeFrom(n + 1)) return true;
      free.set(at, until);
      placed.delete(task.at);
    }
    return false;
  };
  return placeFrom(0) ? placed : undefined;
}
