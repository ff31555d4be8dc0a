import jstat from 'jstat';

/** An estimate with how sure it is. */
export interface Estimate {
  /** What is most believed. */
  readonly value: number;
  /** The truth lies between these with the chance that was asked for. */
  readonly low: number;
  readonly high: number;
  /** Sessions it is drawn from. */
  readonly sessions: number;
}

/** The chance with which an interval holds, where nothing else is said. */
export const USUAL_CHANCE = 0.9;

/** What is believed of a share before anything is seen: its mean, and how many pieces that belief counts for. */
export interface ShareBelief {
  readonly mean: number;
  readonly pieces: number;
}

/** So many of so many: pieces that were bad, people who came. */
export interface Counted {
  readonly count: number;
  readonly of: number;
}

/**
 * A share from counts of several sessions: Beta prior, binomial evidence. With nothing seen it is the belief; with much seen, what was
 * seen.
 *
 * @param belief mean above 0 and below 1, pieces above 0
 * @param seen counts, `count` at most `of`
 * @param chance with which the interval holds, between 0 and 1
 * @example
 * // A twentieth is usually bad; today a tenth of forty was:
 * estimateShare({ mean: 0.05, pieces: 40 }, [{ count: 4, of: 40 }]).value //=> 0.075
 */
export function estimateShare(belief: ShareBelief, seen: readonly Counted[], chance = USUAL_CHANCE): Estimate {
  const bad = belief.mean * belief.pieces + seen.reduce((sum, { count }) => sum + count, 0);
  const all = belief.pieces + seen.reduce((sum, { of }) => sum + of, 0);
  const side = (1 - chance) / 2;
  return {
    value: Math.round((bad / all) * 1e9) / 1e9,
    low: jstat.beta.inv(side, bad, all - bad),
    high: jstat.beta.inv(1 - side, bad, all - bad),
    sessions: seen.length,
  };
}

/**
 * How many pieces to have so that so many are good, all but now and then.
 *
 * @param needed good pieces
 * @param enough the chance that they suffice
 * @returns pieces, with what is bad among them taken as the estimate has it, one session's chance included
 * @example piecesFor(20, estimateShare({ mean: 0.1, pieces: 1000 }, []), 0.9) //=> 24
 */
export function piecesFor(needed: number, bad: Estimate, enough: number): number {
  for (let pieces = needed; pieces <= needed * 4 + 20; pieces++)
    if (atLeastGood(pieces, needed, 1 - bad.value) >= enough) return pieces;
  return needed * 4 + 20;
}

/** The chance that of so many pieces at least so many are good. */
function atLeastGood(pieces: number, needed: number, good: number): number {
  // The incomplete beta function is the binomial's tail.
  return needed === 0 ? 1 : jstat.beta.cdf(good, needed, pieces - needed + 1);
}

/** What is believed of a factor before anything is seen. */
export interface FactorBelief {
  /** How far single sessions usually lie from what is planned, as a part: 0.2 for a fifth. */
  readonly spread: number;
  /** How many sessions the plan itself counts for. */
  readonly sessions: number;
}

/** The recipe, the usual minutes: worth two sessions, a fifth around them. */
export const USUAL_BELIEF: FactorBelief = { spread: 0.2, sessions: 2 };

/** What a factor on a plan is, and what the next session may need. */
export interface FactorEstimate extends Estimate {
  /** The factor with which the next session has enough with this chance. */
  enoughFor(chance: number): number;
  /** The chance that the truth lies above the plan. */
  readonly above: number;
}

/**
 * By what factor the truth lies off a plan, from what each session needed or took as a factor of its plan: the logarithm of a factor is
 * taken as normal, with its mean and spread both unknown (normal with inverse gamma, from the belief).
 *
 * @param seen factors above 0: 1.25 where a quarter more was needed, 0.8 where a fifth was left
 * @example
 * estimateFactor([]).value //=> 1
 */
export function estimateFactor(
  seen: readonly number[],
  belief: FactorBelief = USUAL_BELIEF,
  chance = USUAL_CHANCE,
): FactorEstimate {
  const logs = seen.map(Math.log);
  const n = logs.length;
  const mean = n === 0 ? 0 : logs.reduce((sum, each) => sum + each, 0) / n;
  const squares = logs.reduce((sum, each) => sum + (each - mean) ** 2, 0);
  const weight = belief.sessions + n;
  const centre = (n * mean) / weight;
  const shape = SHAPE + n / 2;
  const scale = (SHAPE - 1) * belief.spread ** 2 + squares / 2 + (belief.sessions * n * mean ** 2) / (2 * weight);
  const ofMean = Math.sqrt(scale / (shape * weight));
  const ofNext = Math.sqrt((scale * (weight + 1)) / (shape * weight));
  const at = (part: number, wide: number) => Math.exp(centre + jstat.studentt.inv(part, 2 * shape) * wide);
  const side = (1 - chance) / 2;
  return {
    value: Math.exp(centre),
    low: at(side, ofMean),
    high: at(1 - side, ofMean),
    sessions: n,
    enoughFor: (part) => at(part, ofNext),
    above: 1 - jstat.studentt.cdf(-centre / ofMean, 2 * shape),
  };
}

/** Of the inverse gamma: a spread is believed about as firmly as four sessions would show it. */
const SHAPE = 3;
