import type { Heat, StepPlan } from './step-plan';

/** How a step lies in time, in minutes from the start. */
export interface StepTime {
  readonly start: number;
  readonly handsUntil: number;
  readonly end: number;
  /** The latest start that still ends in the same time. */
  readonly latest: number;
}

/** The steps of a dish laid into the least time that was found. */
export interface StepSchedule {
  readonly minutes: number;
  readonly steps: readonly StepTime[];
  /** No order is shorter: every one was ruled out. Else it may be shorter by so many minutes at most. */
  readonly isShortest: boolean;
  readonly atMostShorterBy: number;
}

/** What is there to work with. */
export interface Hands {
  /** Pairs of hands at the dish. */
  readonly cooks: number;
  /** How many steps may be on each heat at once; unlimited where left out. */
  readonly heats?: Partial<Readonly<Record<Heat, number>>>;
}

type Timed = Pick<StepPlan, 'handsOn' | 'handsOff' | 'after' | 'heat' | 'ahead'>;

/** More nodes than this are not looked at: what was found by then is good, and said not to be proven. */
const MOST_NODES = 60_000;

/**
 * Steps that wait for each other in a circle, as places from 0; undefined when none do. A step that waits for a place that
 * is none is its own circle.
 */
export function circleIn(steps: readonly Pick<StepPlan, 'after'>[]): number[] | undefined {
  const state = new Map<number, 'open' | 'done'>();
  const path: number[] = [];
  const visit = (at: number): number[] | undefined => {
    if (!steps[at]) return [...path];
    if (state.get(at) === 'done') return undefined;
    if (state.get(at) === 'open') return path.slice(path.indexOf(at));
    state.set(at, 'open');
    path.push(at);
    for (const before of steps[at]?.after ?? []) {
      const found = visit(before);
      if (found) return found;
    }
    path.pop();
    state.set(at, 'done');
    return undefined;
  };
  for (let at = 0; at < steps.length; at++) {
    const found = visit(at);
    if (found) return found;
  }
  return undefined;
}

/**
 * Lays steps into the shortest time with so many hands and heats: every order is tried that could still be shorter
 * (branch and bound), up to a limit. A step starts when what it waits for is done, a pair of hands is free and its heat has
 * room; hands are free again while it goes on alone.
 *
 * @param mostNodes orders looked at before it is content with the best found
 * @throws RangeError when steps wait for each other in a circle
 */
export function scheduleSteps(planned: readonly Timed[], hands: Hands, mostNodes = MOST_NODES): StepSchedule {
  // What was done ahead takes no minute now.
  const steps = planned.map((step) => (step.ahead ? { ...step, handsOn: 0, handsOff: 0 } : step));
  const circle = circleIn(steps);
  if (circle) throw new RangeError(`Steps ${circle.map((at) => at + 1).join(', ')} wait for each other.`);
  const tail = tailsOf(steps);
  // No order is shorter than the longest chain, nor than all hands' work shared evenly.
  const work = steps.reduce((sum, { handsOn }) => sum + handsOn, 0);
  const least = Math.max(0, ...tail, Math.ceil(work / hands.cooks));
  let best: { minutes: number; starts: number[] } | undefined;
  let nodes = 0;
  const starts: number[] = steps.map(() => -1);

  const place = (left: readonly number[], free: readonly number[]): void => {
    if (left.length === 0) {
      const minutes = Math.max(0, ...steps.map((step, at) => (starts[at] as number) + lengthOf(step)));
      if (!best || minutes < best.minutes) best = { minutes, starts: [...starts] };
      return;
    }
    const ready = left
      .filter((at) => (steps[at] as Timed).after.every((before) => (starts[before] as number) >= 0))
      .sort((a, b) => (tail[b] as number) - (tail[a] as number) || a - b);
    for (const at of ready) {
      if (nodes++ > mostNodes || best?.minutes === least) return;
      const step = steps[at] as Timed;
      const after = Math.max(
        0,
        ...step.after.map((before) => (starts[before] as number) + lengthOf(steps[before] as Timed)),
      );
      const [first = 0, ...others] = [...free].sort((a, b) => a - b);
      const start = roomFor(step, step.handsOn > 0 ? Math.max(after, first) : after, steps, starts, hands);
      if (best && start + (tail[at] as number) >= best.minutes) continue;
      starts[at] = start;
      place(
        left.filter((other) => other !== at),
        step.handsOn > 0 ? [...others, start + step.handsOn] : free,
      );
      starts[at] = -1;
    }
  };
  place(
    steps.map((_, at) => at),
    Array.from({ length: hands.cooks }, () => 0),
  );
  const found = best ?? { minutes: 0, starts: [] };
  const isShortest = nodes <= mostNodes || found.minutes === least;
  return {
    minutes: found.minutes,
    isShortest,
    atMostShorterBy: isShortest ? 0 : found.minutes - least,
    steps: timesOf(steps, found.starts, found.minutes, hands.cooks),
  };
}

const lengthOf = ({ handsOn, handsOff }: Timed) => handsOn + handsOff;

/** Minutes from the start of each step to the end of the longest chain that follows from it. */
function tailsOf(steps: readonly Timed[]): number[] {
  const known: (number | undefined)[] = steps.map(() => undefined);
  const followers = steps.map((_, at) => steps.flatMap((step, other) => (step.after.includes(at) ? [other] : [])));
  const tail = (at: number): number => {
    const own = known[at] ?? lengthOf(steps[at] as Timed) + Math.max(0, ...(followers[at] ?? []).map(tail));
    known[at] = own;
    return own;
  };
  return steps.map((_, at) => tail(at));
}

/** The first moment from `from` on at which a step's heat has room for it to its end. */
function roomFor(
  step: Timed,
  from: number,
  steps: readonly Timed[],
  starts: readonly number[],
  { heats }: Hands,
): number {
  const room = step.heat === 'none' ? undefined : heats?.[step.heat];
  if (room === undefined) return from;
  const others = steps.flatMap((other, at) =>
    other.heat === step.heat && (starts[at] as number) >= 0
      ? [{ start: starts[at] as number, end: (starts[at] as number) + lengthOf(other) }]
      : [],
  );
  let start = from;
  for (;;) {
    const during = others.filter((other) => other.start < start + lengthOf(step) && other.end > start);
    if (during.length < Math.max(1, room)) return start;
    start = Math.min(...during.map(({ end }) => end));
  }
}

function timesOf(steps: readonly Timed[], starts: readonly number[], minutes: number, cooks: number): StepTime[] {
  const byStart = steps.map((_, at) => at).sort((a, b) => (starts[a] as number) - (starts[b] as number));
  // Whose hands take up what next: that must not be put off either.
  const last: { at: number; until: number }[] = Array.from({ length: cooks }, () => ({ at: -1, until: 0 }));
  const next = new Map<number, number>();
  for (const at of byStart) {
    const { handsOn } = steps[at] as Timed;
    if (handsOn === 0) continue;
    const free = last.filter(({ until }) => until <= (starts[at] as number)).sort((a, b) => b.until - a.until);
    const cook = free[0] ?? (last[0] as (typeof last)[number]);
    if (cook.at >= 0) next.set(cook.at, at);
    Object.assign(cook, { at, until: (starts[at] as number) + handsOn });
  }
  const latest: number[] = steps.map(() => 0);
  for (const at of byStart.reverse()) {
    const step = steps[at] as Timed;
    const followers = steps.flatMap((other, place) => (other.after.includes(at) ? [latest[place] as number] : []));
    const sameHands = next.get(at);
    const byHands = sameHands === undefined ? minutes : (latest[sameHands] as number) - step.handsOn;
    latest[at] = Math.max(starts[at] as number, Math.min(byHands, Math.min(minutes, ...followers) - lengthOf(step)));
  }
  return steps.map((step, at) => {
    const start = starts[at] as number;
    return { start, handsUntil: start + step.handsOn, end: start + lengthOf(step), latest: latest[at] as number };
  });
}
