import type { Motion, PrepPhase } from './motion';
import { PREP_PHASES } from './motion';

/** A pair of hands at the prep table. */
export interface Hand {
  readonly id: string;
  readonly name: string;
  /** May handle raw meat and fish. */
  readonly raw: boolean;
}

/** A stretch of work of one pair of hands: all of a motion, or a part of it. Minutes from when the prep begins. */
export interface Stretch {
  readonly motion: string;
  readonly hand: string;
  /** Fetching board, knife and food. */
  readonly from: number;
  readonly to: number;
  /** Minutes of the motion itself. */
  readonly minutes: number;
}

/** One part of the day, as it is planned. */
export interface PlannedPhase {
  readonly phase: PrepPhase;
  readonly from: number;
  readonly to: number;
  /** No plan for these hands is shorter. */
  readonly proven: boolean;
  /** What it cannot be shorter than. */
  readonly bound: number;
  readonly why: string;
}

export interface PrepPlan {
  readonly minutes: number;
  readonly proven: boolean;
  /** What the whole cannot be shorter than. */
  readonly bound: number;
  readonly phases: readonly PlannedPhase[];
  readonly stretches: readonly Stretch[];
}

/** Minutes to fetch board, knife and food, each time somebody takes up a motion. */
export const SET_UP = 2;
/** Minutes to wash hands, wipe and sanitise before the next part of the day. */
export const CLEAN = 5;
/** Orders in which motions are tried one after the other. */
const TRIES = 400;

/**
 * The shortest plan for the hands there are: part after part, with clean hands and boards between; a motion may be shared, and each
 * who takes it up sets up once.
 *
 * @param boards of which there are; no more work at once
 * @returns undefined where raw meat waits for somebody who may handle it
 */
export function planPrep(motions: readonly Motion[], hands: readonly Hand[], boards: number): PrepPlan | undefined {
  const phases: PlannedPhase[] = [];
  const stretches: Stretch[] = [];
  let from = 0;
  for (const phase of PREP_PHASES) {
    const own = motions.filter((motion) => motion.phase === phase);
    if (own.length === 0) continue;
    const able = hands.filter(({ raw }) => phase !== 'raw' || raw).slice(0, Math.max(1, boards));
    if (able.length === 0) return undefined;
    const begins = from === 0 && phases.length === 0 ? 0 : from + CLEAN;
    const { length, bound, parts } = shortest(own, able.length);
    for (const { motion, hand, at, minutes } of parts)
      stretches.push({
        motion: own[motion]?.key ?? '',
        hand: able[hand]?.id ?? '',
        from: begins + at,
        to: begins + at + SET_UP + minutes,
        minutes,
      });
    phases.push({
      phase,
      from: begins,
      to: begins + length,
      proven: length === bound,
      bound,
      why: why(phase, own, able.length, hands.length, boards, length, bound),
    });
    from = begins + length;
  }
  const cleaning = Math.max(0, phases.length - 1) * CLEAN;
  return {
    minutes: from,
    proven: phases.every(({ proven }) => proven),
    bound: phases.reduce((sum, { bound }) => sum + bound, 0) + cleaning,
    phases,
    stretches,
  };
}

function why(
  phase: PrepPhase,
  motions: readonly Motion[],
  able: number,
  hands: number,
  boards: number,
  length: number,
  bound: number,
): string {
  const work = motions.reduce((sum, { minutes }) => sum + minutes, 0);
  const few =
    phase === 'raw' && able < Math.min(hands, boards)
      ? ` Only ${able} may handle what is raw.`
      : able < hands
        ? ` There are ${able} boards.`
        : '';
  const each = `${work} minutes of work and ${motions.length} times setting up, for ${able} ${able === 1 ? 'pair' : 'pairs'} of hands: not below ${bound} minutes.`;
  return `${each}${few}${length > bound ? ` This plan takes ${length}: sharing a motion means setting up again.` : ''}`;
}

interface Part {
  readonly motion: number;
  readonly hand: number;
  readonly at: number;
  readonly minutes: number;
}

/**
 * Shares motions among hands so that the last is done as early as can be. No plan is shorter than all work with one setting up of
 * each, shared evenly.
 */
function shortest(motions: readonly Motion[], hands: number): { length: number; bound: number; parts: Part[] } {
  const sizes = motions.map(({ minutes }) => minutes);
  const all = sizes.reduce((sum, size) => sum + size + SET_UP, 0);
  const bound = Math.max(Math.ceil(all / hands), SET_UP + 1);
  const inOrder = sizes.map((_, at) => at);
  const bySize = [...inOrder].sort((a, b) => (sizes[b] ?? 0) - (sizes[a] ?? 0));
  const random = numbers(11);
  const orders = [inOrder, bySize, [...bySize].reverse()];
  while (orders.length < TRIES) orders.push(shuffled(inOrder, random));
  for (let length = bound; ; length++)
    for (const order of orders) {
      const parts = wholeFirst(sizes, order, hands, length) ?? oneAfterAnother(sizes, order, hands, length);
      if (parts) return { length, bound, parts };
    }
}

/** Lays motions one after the other, from hand to hand: what does not fit is shared with the next. */
function oneAfterAnother(
  sizes: readonly number[],
  order: readonly number[],
  hands: number,
  length: number,
): Part[] | undefined {
  const parts: Part[] = [];
  let [hand, at] = [0, 0];
  for (const motion of order) {
    let left = sizes[motion] ?? 0;
    while (left > 0) {
      if (hand >= hands) return undefined;
      const room = length - at - SET_UP;
      if (room <= 0) {
        hand++;
        at = 0;
        continue;
      }
      const minutes = Math.min(left, room);
      parts.push({ motion, hand, at, minutes });
      at += SET_UP + minutes;
      left -= minutes;
    }
  }
  return parts;
}

/** Gives each motion whole to the fullest hand it fits; what fits none is shared among those with room. */
function wholeFirst(
  sizes: readonly number[],
  order: readonly number[],
  hands: number,
  length: number,
): Part[] | undefined {
  const parts: Part[] = [];
  const at = Array.from({ length: hands }, () => 0);
  const rest: number[] = [];
  for (const motion of order) {
    const need = (sizes[motion] ?? 0) + SET_UP;
    let best = -1;
    for (let hand = 0; hand < hands; hand++)
      if ((at[hand] ?? 0) + need <= length && (best < 0 || (at[hand] ?? 0) > (at[best] ?? 0))) best = hand;
    if (best < 0) rest.push(motion);
    else {
      parts.push({ motion, hand: best, at: at[best] ?? 0, minutes: need - SET_UP });
      at[best] = (at[best] ?? 0) + need;
    }
  }
  for (const motion of rest) {
    let left = sizes[motion] ?? 0;
    const byRoom = at.map((used, hand) => ({ hand, room: length - used - SET_UP })).sort((a, b) => b.room - a.room);
    for (const { hand, room } of byRoom) {
      const minutes = Math.min(left, room);
      if (minutes <= 0) break;
      parts.push({ motion, hand, at: at[hand] ?? 0, minutes });
      at[hand] = (at[hand] ?? 0) + SET_UP + minutes;
      left -= minutes;
      if (left === 0) break;
    }
    if (left > 0) return undefined;
  }
  return parts;
}

/** Numbers from 0 to 1, the same on every run. */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
    return state / 2 ** 31;
  };
}

function shuffled(items: readonly number[], random: () => number): number[] {
  const mixed = [...items];
  for (let at = mixed.length - 1; at > 0; at--) {
    const other = Math.floor(random() * (at + 1));
    [mixed[at], mixed[other]] = [mixed[other] as number, mixed[at] as number];
  }
  return mixed;
}
