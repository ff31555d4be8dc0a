import type { EquipmentCounts } from '../plan/place';
import type { ClassPlan, LiveTask } from './live/class-plan';
import { countedOf } from './run-sheet/class-case';

/** Tools that a station, or the adults (null), have before them. */
export interface StationTools {
  readonly station: number | null;
  readonly tools: readonly { readonly tool: string; readonly count: number }[];
  /** What is hot there. */
  readonly heats: readonly string[];
}

/** A tool that goes from one station to another. */
export interface Turn {
  readonly minute: number;
  readonly from: number | null;
  readonly to: number | null;
}

/** A tool of which there are fewer than are laid out at once. */
export interface Missing {
  readonly tool: string;
  /** To lay out one wherever it is used. */
  readonly needed: number;
  /** What the place counts; undefined where nobody has. */
  readonly counted: number | undefined;
  /** Who hands it on to whom, where they take turns: the plan counts on it. */
  readonly turns: readonly Turn[];
  readonly ways: readonly string[];
}

/** A long while in which a pair has nothing to do. */
export interface Spell {
  readonly hands: string;
  readonly station: number | null;
  readonly from: number;
  readonly to: number;
}

/** Shorter than this nobody is idle, in minutes. */
const LONG = 10;

/** What can be used instead, with what it changes. */
export const INSTEAD: Readonly<Record<string, string>> = {
  grater: 'cut it finely with a knife instead: older children, a few minutes more',
  peeler: 'scrub it well, and leave the peel on where it is thin',
  whisk: 'use a fork',
  sieve: 'hold the lid ajar, or pour it off with a spoon before it',
  'rolling pin': 'use a straight, clean bottle',
  blender: 'mash it with a fork: it stays coarser',
  knife: 'tear it, or cut soft things with a table knife',
};

const toolsOf = (tasks: readonly LiveTask[]): string[] => [...new Set(tasks.flatMap(({ tools }) => tools))].sort();

/** Most of some tasks that hands are on at once. */
const atOnce = (tasks: readonly LiveTask[]): number =>
  Math.max(
    0,
    ...tasks.map(
      ({ start }) => tasks.filter((each) => each.start <= start && start < each.start + Math.max(1, each.on)).length,
    ),
  );

/** What each station has before it: of every tool as many as it uses at once. */
export function stationTools(plan: ClassPlan): StationTools[] {
  const stations = [...new Set(plan.tasks.map(({ station }) => station))].sort((a, b) => (a ?? 99) - (b ?? 99));
  return stations.map((station) => {
    const own = plan.tasks.filter((task) => task.station === station);
    return {
      station,
      tools: toolsOf(own).map((tool) => ({ tool, count: atOnce(own.filter(({ tools }) => tools.includes(tool))) })),
      heats: [...new Set(own.flatMap(({ heat }) => heat || []))],
    };
  });
}

/**
 * Tools of which the place has fewer than would lie at every station at once, or has counted none; with who hands which on when, and
 * what would do instead.
 */
export function missingTools(plan: ClassPlan, equipment: EquipmentCounts): Missing[] {
  const laid = stationTools(plan);
  return toolsOf(plan.tasks).flatMap((tool): Missing[] => {
    const needed = laid.reduce((sum, { tools }) => sum + (tools.find((each) => each.tool === tool)?.count ?? 0), 0);
    const counted = countedOf(equipment, tool);
    if (counted === undefined || counted >= needed) return [];
    const turns = turnsOf(
      plan.tasks.filter(({ tools }) => tools.includes(tool)),
      counted,
    );
    const ways = [
      ...(turns.length > 0 ? ['take turns as the plan has them'] : []),
      `bring ${needed - counted} more`,
      ...(INSTEAD[tool] ? [INSTEAD[tool]] : []),
    ];
    return [{ tool, needed, counted, turns, ways }];
  });
}

/** Tools that are used and that no place counts: somebody has to look. */
export const uncountedTools = (
  plan: ClassPlan,
  equipment: EquipmentCounts,
): { readonly tool: string; readonly needed: number }[] => {
  const laid = stationTools(plan);
  return toolsOf(plan.tasks)
    .filter((tool) => countedOf(equipment, tool) === undefined)
    .map((tool) => ({
      tool,
      needed: laid.reduce((sum, { tools }) => sum + (tools.find((each) => each.tool === tool)?.count ?? 0), 0),
    }));
};

/** Which of so many goes from where to where: one that the station has stays there. */
function turnsOf(tasks: readonly LiveTask[], count: number): Turn[] {
  const each = Array.from({ length: count }, () => ({ free: 0, at: undefined as number | null | undefined }));
  const turns: Turn[] = [];
  for (const { start, on, station } of [...tasks].sort((a, b) => a.start - b.start)) {
    const free = each.filter((one) => one.free <= start);
    const one = free.find(({ at }) => at === station) ?? free.find(({ at }) => at === undefined) ?? free[0];
    if (!one) continue;
    if (one.at !== undefined && one.at !== station) turns.push({ minute: start, from: one.at, to: station });
    one.at = station;
    one.free = start + on;
  }
  return turns;
}

/** Who has nothing to do for long, from beginning to end of the cooking. */
export function idleSpells(plan: ClassPlan): Spell[] {
  // Adults look after the others in between.
  const children = plan.hands.filter(({ at }) => stationOf(at) !== null);
  return children.flatMap(({ id, at }) => {
    const own = plan.tasks.filter(({ hands, on }) => hands === id && on > 0).sort((a, b) => a.start - b.start);
    const station = own[0]?.station ?? stationOf(at);
    const edges = [0, ...own.flatMap(({ start, on }) => [start, start + on]), plan.minutes];
    return edges.flatMap((from, n) => {
      const to = edges[n + 1];
      return n % 2 === 0 && to !== undefined && to - from >= LONG ? [{ hands: id, station, from, to }] : [];
    });
  });
}

const stationOf = (at: string | undefined): number | null => {
  const [, number] = /(\d+)$/.exec(at ?? '') ?? [];
  return number ? Number(number) : null;
};

/**
 * "3 knives"
 *
 * @example
 * sayTools('knife', 3) //=> '3 knives'
 * sayTools('grater', 1) //=> '1 grater'
 */
export const sayTools = (tool: string, count: number): string =>
  `${count} ${count === 1 ? tool : tool === 'knife' ? 'knives' : /(?:s|sh|ch)$/.test(tool) ? `${tool}es` : `${tool}s`}`;
