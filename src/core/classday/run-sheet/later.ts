import type { Found } from './choices';
import { placeHands } from './place-hands';
import { lengthOf, type RunModel, type RunTask } from './sheet-case';

/**
 * The same plan with the dishes that end early moved as late as they go: each of their tasks in turn, the last first, at its latest
 * start with which everything still holds. No proof, but a good beginning for a search.
 *
 * @param minutes of the whole, which stays as it is
 * @returns the plan as it was where hands cannot be found for the later one
 */
export function movedLater(model: RunModel, found: Found, minutes: number): Found {
  const { tasks } = model;
  const starts = [...found.starts];
  const endOfDish = (dish: string) =>
    Math.max(...tasks.map((task, at) => (task.dish === dish ? (starts[at] ?? 0) + lengthOf(task) : 0)));
  const early = new Set(tasks.flatMap(({ dish }) => (dish !== undefined && endOfDish(dish) < minutes ? dish : [])));
  const inTurn = tasks
    .map((task, at) => ({ task, at }))
    .filter(({ task }) => task.dish !== undefined && early.has(task.dish))
    .sort((a, b) => (starts[b.at] ?? 0) + lengthOf(b.task) - ((starts[a.at] ?? 0) + lengthOf(a.task)));
  // What may not wait long lets what follows it move only once it has moved itself.
  for (let isMoved = true; isMoved; ) {
    isMoved = false;
    for (const { task, at } of inTurn) {
      const now = starts[at] ?? 0;
      for (let start = minutes - lengthOf(task); start > now; start -= 1) {
        starts[at] = start;
        if (holds(model, starts, minutes)) {
          isMoved = true;
          break;
        }
        starts[at] = now;
      }
    }
  }
  const hands = placeHands(tasks, starts, model.hands);
  return hands ? { starts, hands } : found;
}

/** Whether starts keep to every order, and to what there is of everything. */
function holds({ tasks, arcs, shared, apart }: RunModel, starts: readonly number[], minutes: number): boolean {
  const [end, beginning] = [tasks.length, tasks.length + 1];
  const at = (n: number) => (n === end ? minutes : n === beginning ? 0 : (starts[n] ?? 0));
  if (arcs.some(({ from, to, minutes: lag }) => at(to) < at(from) + lag)) return false;
  const overlap = (one: number, other: number, a: number, b: number) =>
    at(one) < at(other) + b && at(other) < at(one) + a;
  if (
    apart.some(([one, other]) =>
      overlap(one, other, lengthOf(tasks[one] as RunTask), lengthOf(tasks[other] as RunTask)),
    )
  )
    return false;
  // What is used the most is used so at the beginning of some use.
  return shared.every(({ users, count }) =>
    users.every(
      ({ task: first }) =>
        users.filter(({ task, minutes: long }) => at(task) <= at(first) && at(first) < at(task) + long).length <= count,
    ),
  );
}
