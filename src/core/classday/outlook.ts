import { type Missing, type Spell, sayTools } from './set-out';

/** What the run sheet of a class says before it. */
export interface RunSheetFacts {
  /** Minutes that the cooking takes; undefined where it cannot be done at all. */
  readonly minutes: number | undefined;
  /** Minutes that are left for it. */
  readonly cooking: number;
  readonly missing: readonly Pick<Missing, 'tool' | 'needed' | 'counted' | 'ways'>[];
  readonly idle: readonly Spell[];
}

/** Half of the cooking without a task is told days before; shorter spells stand on the run sheet alone. */
const LONG_SHARE = 0.5;

/**
 * What has to be settled before a class, a sentence each; none where its run sheet fits, its tools are there and nobody stands idle
 * for half of it.
 *
 * @example
 * settleBefore({ minutes: 62, cooking: 50, missing: [], idle: [] }) //=> ['The cooking takes 62 minutes, and 50 are left for it.']
 */
export function settleBefore({ minutes, cooking, missing, idle }: RunSheetFacts): string[] {
  if (minutes === undefined) return ['Its dishes cannot be cooked by who and what is there.'];
  const waits = new Map<string, number>();
  for (const { hands, from, to } of idle) waits.set(hands, (waits.get(hands) ?? 0) + to - from);
  const idlers = [...waits.values()].filter((each) => each >= minutes * LONG_SHARE).length;
  return [
    ...(minutes > cooking ? [`The cooking takes ${minutes} minutes, and ${cooking} are left for it.`] : []),
    ...missing.map(
      ({ tool, needed, counted = 0, ways }) =>
        `${sayTools(tool, needed)} would lie out at once, and the place has ${counted}: ${ways.join(', or ')}.`,
    ),
    ...(idlers > 0
      ? [
          `${idlers} ${idlers === 1 ? 'pair has' : 'pairs have'} nothing to do for half of the cooking or more: a dish with more handwork, or fewer stations, would help.`,
        ]
      : []),
  ];
}
