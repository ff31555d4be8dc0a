/** How many were expected in past sessions, and how many came; the same for kits to be fetched, and those fetched. */
export interface PastSession {
  readonly expected: number;
  readonly came: number;
  /** Came without being on the roll. */
  readonly walkIns?: number;
}

/**
 * What is believed before anything was counted: about 85 of 100 come, as sure as if twenty had been counted. Ours, coarse;
 * a few sessions of one's own outweigh it.
 */
export const PRIOR = { come: 17, stayAway: 3 } as const;

/** Chances of each number of people who come, from 0 on; they add up to 1. */
export type Chances = readonly number[];

/** What is expected of a session. */
export interface Forecast {
  readonly expected: number;
  /** In eight of ten sessions at least `low` and at most `high` come. */
  readonly low: number;
  readonly high: number;
  readonly chances: Chances;
  /** Past people counted; 0 when it is only the belief above. */
  readonly counted: number;
}

/**
 * How many of those on the roll come, from the programme's own past: each comes with the same unknown chance, which is
 * learned from the past (a beta-binomial model). Little history leaves wide limits; none leaves the belief above.
 *
 * @param enrolled on the roll, at most 2,000
 */
export function forecast(enrolled: number, past: readonly PastSession[]): Forecast {
  const came = past.reduce((sum, each) => sum + Math.min(each.came, each.expected), 0);
  const counted = past.reduce((sum, { expected }) => sum + expected, 0);
  const walkIns = past.reduce((sum, each) => sum + (each.walkIns ?? 0), 0) / Math.max(1, past.length);
  const own = betaBinomial(enrolled, PRIOR.come + came, PRIOR.stayAway + counted - came);
  const chances = withWalkIns(own, walkIns);
  const expected = chances.reduce((sum, chance, people) => sum + chance * people, 0);
  return { expected, low: quantile(chances, 0.1), high: quantile(chances, 0.9), chances, counted };
}

/** Chances of k of n when the chance of each is unknown, with a and b seen for and against. */
function betaBinomial(n: number, a: number, b: number): number[] {
  // From one number to the next, so that nothing overflows: started from the likeliest, then made to add up to 1.
  const logs = [0];
  for (let k = 0; k < n; k++)
    logs.push((logs[k] as number) + Math.log(((n - k) * (k + a)) / ((k + 1) * (n - k - 1 + b))));
  const most = Math.max(...logs);
  const weights = logs.map((log) => Math.exp(log - most));
  const sum = weights.reduce((total, weight) => total + weight, 0);
  return weights.map((weight) => weight / sum);
}

/** People who come without being on the roll, a few a session (Poisson). */
function withWalkIns(chances: Chances, mean: number): number[] {
  if (mean <= 0) return [...chances];
  const most = Math.ceil(mean + 6 * Math.sqrt(mean)) + 2;
  const more = [Math.exp(-mean)];
  for (let k = 1; k <= most; k++) more.push(((more[k - 1] as number) * mean) / k);
  const all = Array.from({ length: chances.length + most }, () => 0);
  for (const [people, chance] of chances.entries())
    for (const [extra, part] of more.entries()) all[people + extra] = (all[people + extra] as number) + chance * part;
  return all;
}

function quantile(chances: Chances, part: number): number {
  let sum = 0;
  for (const [people, chance] of chances.entries()) {
    sum += chance;
    if (sum >= part - 1e-12) return people;
  }
  return chances.length - 1;
}

/** What a kit that nobody fetches costs against a child that is turned away, in minor units of money: set by the programme. */
export interface ReserveCosts {
  readonly wasted: number;
  readonly turnedAway: number;
}

/** As good a beginning as any: a child turned away is as bad as four kits thrown away. */
export const USUAL_COSTS: ReserveCosts = { wasted: 400, turnedAway: 1600 };

/** One number of kits, and what it means. */
export interface KitNumber {
  readonly kits: number;
  /** The chance that somebody gets none, 0 to 1. */
  readonly runsShort: number;
  /** Kits left over and people turned away, on average. */
  readonly wasted: number;
  readonly turnedAway: number;
  /** What both cost together on average, in minor units. */
  readonly cost: number;
}

/**
 * The number of kits that costs least on average, with those around it: too many are thrown away, too few turn a child
 * away. Of two that cost the same, the larger.
 *
 * @returns every number from 0 to the most that may come, and the best of them
 */
export function balance(
  chances: Chances,
  { wasted: each, turnedAway: child }: ReserveCosts,
): { readonly best: KitNumber; readonly all: readonly KitNumber[] } {
  const all = chances.map((_, kits): KitNumber => {
    let wasted = 0;
    let turnedAway = 0;
    let runsShort = 0;
    for (const [people, chance] of chances.entries()) {
      wasted += chance * Math.max(0, kits - people);
      turnedAway += chance * Math.max(0, people - kits);
      if (people > kits) runsShort += chance;
    }
    return { kits, runsShort, wasted, turnedAway, cost: wasted * each + turnedAway * child };
  });
  const best = all.reduce((least, next) => (next.cost <= least.cost + 1e-9 ? next : least));
  return { best, all };
}
