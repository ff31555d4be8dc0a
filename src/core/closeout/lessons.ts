import {
  type Counted,
  estimateFactor,
  estimateShare,
  type FactorEstimate,
  piecesFor,
  type ShareBelief,
} from './estimates';

/** What lessons are about: an amount of a line, its spare, what is left of a trimmed food, the minutes of a step, of a job. */
export const LESSON_KINDS = ['amount', 'spare', 'trimming', 'step', 'job'] as const;
export type LessonKind = (typeof LESSON_KINDS)[number];

/** How sure a lesson is, in a word that a person can weigh. */
export type Sure = 'a first hint' | 'likely' | 'nearly sure';

/** What sessions say of a figure that was planned; nothing changes before a person takes it. */
export interface Lesson {
  /** What the figure is multiplied with, or how many are had instead. */
  readonly proposed: number;
  readonly planned: number;
  readonly sure: Sure;
  /** The truth lies between these, nine times in ten. */
  readonly low: number;
  readonly high: number;
  readonly sessions: number;
}

/** Smaller changes are not worth a person's time. */
const LEAST_CHANGE = 0.05;
/** Nothing is proposed that is not at least so probable. */
const LEAST_CHANCE = 0.8;
const NEARLY = 0.95;
/** Sessions from which on a lesson is more than a hint, and may be nearly sure. */
const SOME = 2;
const SEVERAL = 3;

/**
 * What became of an amount in a session, as a factor of what was planned: what was left was too much, what was fetched beside it too
 * little.
 *
 * @param planned above 0
 * @param left of it
 * @param more needed beside it
 * @example neededFactor(500, 100, 0) //=> 0.8
 */
export const neededFactor = (planned: number, left: number, more: number): number =>
  Math.max(0.05, (planned - Math.min(left, planned) + more) / planned);

const sureOf = (chance: number, sessions: number): Sure =>
  sessions < SOME ? 'a first hint' : chance >= NEARLY && sessions >= SEVERAL ? 'nearly sure' : 'likely';

/**
 * What sessions say of an amount, of minutes, of a yield: a factor on what is planned. Undefined where nothing is worth changing, or
 * too little was seen to tell.
 *
 * @param seen what each session needed or took, as a factor of its plan
 * @example
 * factorLesson([1.02, 0.98]) //=> undefined
 */
export function factorLesson(seen: readonly number[]): Lesson | undefined {
  if (seen.length === 0) return undefined;
  const found: FactorEstimate = estimateFactor(seen);
  const chance = Math.max(found.above, 1 - found.above);
  if (Math.abs(found.value - 1) < LEAST_CHANGE || chance < LEAST_CHANCE) return undefined;
  const { value, low, high, sessions } = found;
  return { proposed: Math.round(value * 100) / 100, planned: 1, sure: sureOf(chance, sessions), low, high, sessions };
}

/** Pieces suffice so often, nine sessions in ten. */
const ENOUGH = 0.9;

/**
 * What sessions say of spare pieces of a food: how many to have for so many good ones. Undefined where it is as planned.
 *
 * @param good pieces that are needed
 * @param planned pieces that are had now
 * @param seen bad or broken pieces of those that were had
 */
export function spareLesson(
  good: number,
  planned: number,
  belief: ShareBelief,
  seen: readonly Counted[],
): Lesson | undefined {
  if (seen.length === 0 || good <= 0) return undefined;
  const bad = estimateShare(belief, seen);
  const proposed = piecesFor(good, bad, ENOUGH);
  if (proposed === planned) return undefined;
  const isBeyond = bad.low > belief.mean || bad.high < belief.mean;
  const chance = isBeyond ? NEARLY : LEAST_CHANCE;
  return { proposed, planned, sure: sureOf(chance, seen.length), low: bad.low, high: bad.high, sessions: seen.length };
}
