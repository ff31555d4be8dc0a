// A class, said exactly: whole minutes, pairs of hands with the age of the youngest, heat and tools as they are counted.

/** Somebody at work, or a pair; a task asks for an age. */
export interface Pair {
  readonly id: string;
  readonly age: number;
  /** The station they work at. */
  readonly at?: string;
}

export interface RunTask {
  readonly id: string;
  /** A dish ends with its last task; without one it counts in the whole alone. */
  readonly dish?: string;
  /** Minutes of hands without a break; then it goes on alone. */
  readonly on: number;
  readonly off: number;
  /** Taken for both. */
  readonly heat?: string;
  /** Of the oven: what is in it at once has the same. */
  readonly celsius?: number;
  /** Taken while hands are on it, one of each. */
  readonly tools?: readonly string[];
  readonly age?: number;
  /** Done by hands of this station; by any where none is said. */
  readonly at?: string;
  /** Done by these very hands; by any that may where none are said. */
  readonly by?: string;
  /** Starts no later than this minute. */
  readonly latest?: number;
  /** What must have ended before it starts. */
  readonly after?: readonly string[];
  /** Whatever waits for it starts at most so many minutes after its end; where nothing does, the whole ends so soon. */
  readonly wait?: number;
}

export interface RunSheetCase {
  readonly hands?: readonly Pair[];
  /** How many of each; of the oven its shelves. */
  readonly heat?: Readonly<Record<string, number>>;
  readonly tools?: Readonly<Record<string, number>>;
  readonly tasks?: readonly RunTask[];
  readonly seconds?: number;
}

export const RUN_FIGURES = ['minutes', 'spread'] as const;
export type RunFigure = (typeof RUN_FIGURES)[number];

export interface PlacedTask {
  readonly task: string;
  readonly start: number;
  /** Whose hands; absent where no hands are on it. */
  readonly hands?: string;
}

export type RunSheetAnswer =
  | {
      readonly minutes: number;
      readonly spread: number;
      readonly proven: Readonly<Record<RunFigure, boolean>>;
      /** Below what the first figure that is not proven cannot be. */
      readonly bound?: Readonly<Partial<Record<RunFigure, number>>>;
      readonly tasks: readonly PlacedTask[];
    }
  /** Tasks that cannot be done even alone together, none of which can be left out. */
  | { readonly impossible: readonly string[] };

/** One thing that tasks share, so many at once: hands from an age on, a tool, a heat. */
export interface Shared {
  readonly name: string;
  readonly count: number;
  /** Tasks that take one of it, each for how long from its start. */
  readonly users: readonly { readonly task: number; readonly minutes: number }[];
}

/** A case with its tasks as numbers. */
export interface RunModel {
  readonly tasks: readonly RunTask[];
  /** Start of `to` at least so many minutes after the start of `from`; the last number stands for the end of all. */
  readonly arcs: readonly { readonly from: number; readonly to: number; readonly minutes: number }[];
  readonly shared: readonly Shared[];
  /** Pairs that are never in the oven at once. */
  readonly apart: readonly (readonly [number, number])[];
  readonly hands: readonly Pair[];
}

export const lengthOf = ({ on, off }: RunTask): number => on + off;

/** The end of all, as a number among tasks; and the beginning. */
export const endOf = ({ tasks }: Pick<RunModel, 'tasks'>): number => tasks.length;
export const beginningOf = ({ tasks }: Pick<RunModel, 'tasks'>): number => tasks.length + 1;

export function modelOf({ hands = [], heat = {}, tools = {}, tasks = [] }: RunSheetCase): RunModel {
  const numbers = new Map(tasks.map(({ id }, at) => [id, at]));
  const end = tasks.length;
  const beginning = end + 1;
  const arcs: { from: number; to: number; minutes: number }[] = [];
  const followed = new Set<number>();
  for (const [at, task] of tasks.entries()) {
    arcs.push({ from: beginning, to: at, minutes: 0 }, { from: at, to: end, minutes: lengthOf(task) });
    if (task.latest !== undefined) arcs.push({ from: at, to: beginning, minutes: -task.latest });
    for (const name of task.after ?? []) {
      const before = numbers.get(name);
      if (before === undefined) continue;
      followed.add(before);
      const first = tasks[before] as RunTask;
      arcs.push({ from: before, to: at, minutes: lengthOf(first) });
      if (first.wait !== undefined) arcs.push({ from: at, to: before, minutes: -(lengthOf(first) + first.wait) });
    }
  }
  for (const [at, task] of tasks.entries())
    if (task.wait !== undefined && !followed.has(at))
      arcs.push({ from: end, to: at, minutes: -(lengthOf(task) + task.wait) });
  const users = (uses: (task: RunTask) => number): Shared['users'] =>
    tasks.flatMap((task, at) => {
      const minutes = uses(task);
      return minutes > 0 ? [{ task: at, minutes }] : [];
    });
  const ages = [...new Set(tasks.map(({ age = 0 }) => age))];
  const places = [undefined, ...new Set(tasks.flatMap(({ at }) => at ?? []))];
  const shared: Shared[] = [
    ...places.flatMap((place) =>
      ages.map((age) => ({
        name: `hands from ${age}${place === undefined ? '' : ` at ${place}`}`,
        count: hands.filter((pair) => pair.age >= age && (place === undefined || pair.at === place)).length,
        users: users((task) => ((task.age ?? 0) >= age && (place === undefined || task.at === place) ? task.on : 0)),
      })),
    ),
    ...[...new Set(tasks.flatMap(({ tools: own = [] }) => own))].map((tool) => ({
      name: tool,
      count: tools[tool] ?? 0,
      users: users((task) => (task.tools?.includes(tool) ? task.on : 0)),
    })),
    ...[...new Set(tasks.flatMap(({ heat: own }) => own ?? []))].map((source) => ({
      name: source,
      count: heat[source] ?? 0,
      users: users((task) => (task.heat === source ? lengthOf(task) : 0)),
    })),
  ].filter((each) => each.users.length > 0);
  const inOven = tasks.flatMap((task, at) => (task.heat === 'oven' && lengthOf(task) > 0 ? [at] : []));
  const apart = inOven.flatMap((one, at) =>
    inOven.slice(at + 1).flatMap((other): [number, number][] => {
      const [a, b] = [tasks[one]?.celsius, tasks[other]?.celsius];
      return a !== undefined && b !== undefined && a !== b ? [[one, other]] : [];
    }),
  );
  return { tasks, arcs, shared, apart, hands };
}
