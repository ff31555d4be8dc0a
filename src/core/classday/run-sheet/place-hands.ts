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
  const byAge = pairs.map((pair, at) => ({ at, age: pair.age })).sort((a, b) => a.age - b.age);
  const own = tasks
    .map((task, at) => ({ at, from: starts[at] ?? 0, to: (starts[at] ?? 0) + task.on, age: task.age ?? 0 }))
    .filter(({ from, to }) => to > from)
    .sort((a, b) => a.from - b.from || b.age - a.age || b.to - a.to);
  const free = new Map(byAge.map(({ at }) => [at, 0]));
  const placed = new Map<number, number>();
  let tries = 0;
  const place = (n: number): boolean => {
    const task = own[n];
    if (!task) return true;
    if (++tries > MOST_TRIES) return false;
    let last = -1;
    for (const { at, age } of byAge) {
      const until = free.get(at) ?? 0;
      if (age < task.age || until > task.from) continue;
      // Two of one age who are both free are alike.
      if (age === last) continue;
      last = age;
      free.set(at, task.to);
      placed.set(task.at, at);
      if (place(n + 1)) return true;
      free.set(at, until);
      placed.delete(task.at);
    }
    return false;
  };
  return place(0) ? placed : undefined;
}
