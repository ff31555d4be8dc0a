import type { ClassPlan, LiveTask } from './class-plan';

/** A task as it goes: when it began and ends as things stand, in minutes of the class. */
export interface TaskNow {
  readonly task: LiveTask;
  readonly state: 'done' | 'now' | 'next' | 'later';
  readonly starts: number;
  readonly ends: number;
  /** Minutes that it is over its planned end, from 0. */
  readonly late: number;
}

export interface Standing {
  readonly tasks: readonly TaskNow[];
  /** When the last task ends as things stand. */
  readonly ends: number;
  /** Minutes later than the plan. */
  readonly behind: number;
  /** By station (null for the adults): minutes that its most overdue task is late. */
  readonly stations: ReadonlyMap<number | null, number>;
}

/**
 * How a class stands against its plan. Nobody says that a task begins: it does as planned, once what it needs is done, and its hands, tools and
 * heat are free; what nobody has called done goes on.
 *
 * @param done minute at which each task was called done
 * @param minute of the class now, from 0
 */
export function standingOf(plan: ClassPlan, done: ReadonlyMap<string, number>, minute: number): Standing {
  const ends = new Map<string, number>();
  const free = new Map<string, number>();
  const known = new Set(plan.tasks.map(({ id }) => id));
  /** What those that go on have taken: hands, tools while hands are on, heat. */
  const taken = new Map<string, number>();
  const take = ({ on, off, hands, tools, heat }: LiveTask, starts: number): boolean => {
    const isHandsOn = on > 0 && (off === 0 || starts + on > minute);
    const wanted = [
      ...(isHandsOn && hands ? [[`hands ${hands}`, 1] as const] : []),
      ...(isHandsOn ? tools.map((tool) => [`tool ${tool}`, plan.tools[tool] ?? 1] as const) : []),
      ...(heat ? [[`heat ${heat}`, plan.heat[heat] ?? 1] as const] : []),
    ];
    if (wanted.some(([thing, count]) => (taken.get(thing) ?? 0) >= count)) return false;
    for (const [thing] of wanted) taken.set(thing, (taken.get(thing) ?? 0) + 1);
    return true;
  };
  const inTurn = [...plan.tasks].sort((a, b) => a.start - b.start || a.on + a.off - (b.on + b.off));
  const tasks = inTurn.map((task): TaskNow => {
    const { id, start, on, off, hands, after } = task;
    const needs = Math.max(0, ...after.map((each) => ends.get(each) ?? 0));
    const starts = Math.max(start, needs, hands ? (free.get(hands) ?? 0) : 0);
    const said = done.get(id);
    const isOpen = said === undefined;
    const end = isOpen ? (starts <= minute ? Math.max(starts + on + off, minute) : starts + on + off) : said;
    ends.set(id, end);
    // What goes on alone leaves its hands free.
    if (hands && on > 0) free.set(hands, off > 0 ? Math.min(end, starts + on) : end);
    const planned = start + on + off;
    const late = isOpen ? Math.max(0, minute - planned) : 0;
    if (!isOpen) return { task, state: 'done', starts: Math.min(starts, end), ends: end, late };
    const isNow = starts <= minute && after.every((each) => done.has(each) || !known.has(each)) && take(task, starts);
    return { task, state: isNow ? 'now' : 'later', starts, ends: end, late };
  });
  const isDone = (id: string) => done.has(id);
  const shown = tasks.map(
    (each): TaskNow => (each.state === 'later' && isNext(each, tasks, isDone) ? { ...each, state: 'next' } : each),
  );
  const last = Math.max(0, ...tasks.map((each) => each.ends));
  const stations = new Map<number | null, number>();
  for (const { task, late } of tasks) stations.set(task.station, Math.max(stations.get(task.station) ?? 0, late));
  return { tasks: shown, ends: last, behind: Math.max(0, last - plan.minutes), stations };
}

/** The first of its hands that has not begun. */
const isNext = (one: TaskNow, all: readonly TaskNow[], isDone: (id: string) => boolean): boolean =>
  !all.some(
    (other) =>
      other !== one &&
      other.state === 'later' &&
      other.task.hands === one.task.hands &&
      !isDone(other.task.id) &&
      (other.starts < one.starts || (other.starts === one.starts && other.task.id < one.task.id)),
  );
