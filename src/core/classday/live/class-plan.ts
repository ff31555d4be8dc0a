import { type Inside, washAfter } from '../../recipes/steps/safe-temperatures';
import type { ClassCase } from '../run-sheet/class-case';
import type { Pair, RunSheetAnswer } from '../run-sheet/sheet-case';

/** A task of a class that runs, whole: what a screen needs to show it, and what planning again needs. */
export interface LiveTask {
  readonly id: string;
  /** Title of its dish. */
  readonly dish: string;
  readonly text: string;
  /** What its station has instead of what the words say, and how the step differs; '' for nothing. */
  readonly notes: string;
  /** From 1; null where an adult does it. */
  readonly station: number | null;
  /** Minutes of hands, then minutes in which it goes on alone. */
  readonly on: number;
  readonly off: number;
  /** '' for none. */
  readonly heat: string;
  /** Of the oven, in °C. */
  readonly celsius: number | null;
  readonly tools: readonly string[];
  /** Which part of a step that several stations share, from 1, of how many. */
  readonly part: readonly [number, number] | null;
  readonly after: readonly string[];
  readonly age: number;
  /** Minutes that what it makes may wait. */
  readonly wait: number | null;
  /** Minute of the class at which it is planned to start; hands first. */
  readonly start: number;
  /** Whose hands; '' where it needs none. */
  readonly hands: string;
  /** The raw food after which hands are washed again; '' for none. */
  readonly wash: string;
  /** How hot it must be inside before it is done. */
  readonly inside: Inside | null;
}

/** The plan that a class follows. Minutes count from when the cooking began. */
export interface ClassPlan {
  /** When the last task ends. */
  readonly minutes: number;
  /** When the cooking should be over: what the class leaves for it. */
  readonly cooking: number;
  readonly tasks: readonly LiveTask[];
  readonly hands: readonly Pair[];
  readonly heat: Readonly<Record<string, number>>;
  readonly tools: Readonly<Record<string, number>>;
  /** Who stands where, by their places on the roll when it was made. */
  readonly stations: readonly { readonly number: number; readonly people: readonly string[] }[];
  /** What stands in for what where, as the words of its tasks say: see `standInsOf`. */
  readonly standIns: readonly string[];
}

export const endOfTask = ({ start, on, off }: Pick<LiveTask, 'start' | 'on' | 'off'>): number => start + on + off;

/**
 * A solved class as the plan that it follows.
 *
 * @param insides how hot the food of a dish must be inside, by dish and place of the step
 * @param stations ids of who stands where
 * @param cooking minutes that the class leaves for cooking
 */
export function planFrom(
  { given, tasks }: Pick<ClassCase, 'given' | 'tasks'>,
  answer: Extract<RunSheetAnswer, { readonly minutes: number }>,
  insides: ReadonlyMap<string, ReadonlyMap<number, Inside>>,
  cooking: number,
  stations: ClassPlan['stations'] = [],
): ClassPlan {
  const placed = new Map(answer.tasks.map((each) => [each.task, each]));
  return {
    minutes: answer.minutes,
    cooking,
    hands: given.hands ?? [],
    heat: given.heat ?? {},
    tools: given.tools ?? {},
    stations,
    standIns: [],
    tasks: tasks.map((task): LiveTask => {
      const { id, title, text, station, on, off, heat = '', celsius = null, tools = [], part = null } = task;
      const { after = [], age = 0, wait = null, dish = '', step } = task;
      const { start = 0, hands = '' } = placed.get(id) ?? {};
      const inside = insides.get(dish)?.get(step) ?? null;
      const own = { id, dish: title, text, notes: '', station, on, off, heat, celsius, tools, part, after, age, wait };
      // What comes out of the pan is no longer raw.
      const wash = heat ? '' : washAfter(task.uses);
      return { ...own, start, hands, wash, inside };
    }),
  };
}

/**
 * Dishes that not every station makes wholly by itself: what one cuts, or keeps on the heat, is eaten by all.
 *
 * @returns ids of dishes
 */
export function sharedDishes(
  tasks: readonly Pick<LiveTask, 'id' | 'station'>[],
  stations: number,
): ReadonlySet<string> {
  const where = new Map<string, Set<number | null>>();
  for (const { id, station } of tasks) {
    const step = id.replace(/\.\d+$/, '');
    where.set(step, (where.get(step) ?? new Set()).add(station));
  }
  return new Set(
    [...where].flatMap(([step, own]) => (stations > 1 && own.size < stations ? [step.replace(/ \d+$/, '')] : [])),
  );
}
