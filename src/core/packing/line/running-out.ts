/** A food at the bench, as far as it is known what is left of it. */
export interface BowlNow {
  readonly food: string;
  /** Grams in the bowl now. */
  readonly grams: number;
  /** Kits that still wait for it, in the order in which they are filled. */
  readonly waiting: readonly {
    readonly number: number;
    readonly grams: number;
    readonly isReserve: boolean;
    /** How much less a measure may be, as a part of it: 0.05. */
    readonly tolerance: number;
  }[];
  /** Lots on the shelf that may go into these kits: their labels are read and hold nothing that is avoided. */
  readonly lots: readonly { readonly name: string; readonly grams: number }[];
  /** Foods that may stand in for it in these kits, as the recipe says. */
  readonly instead: readonly string[];
}

/** A food that does not reach for all kits, and what can be done before it runs out. */
export interface RunningOut {
  readonly food: string;
  readonly fills: number;
  readonly wanted: number;
  readonly missing: number;
  /** "oats for 3 more kits, 4 to go" */
  readonly say: string;
  readonly ways: readonly string[];
}

const kits = (count: number) => `${count} ${count === 1 ? 'kit' : 'kits'}`;

/**
 * Whether a food reaches for the kits that still wait for it; undefined where it does. Ways out are worked out while there is still
 * something to share.
 *
 * @example
 * runningOut({ food: 'oats', grams: 95, waiting: [1, 2, 3, 4].map((number) => ({ number, grams: 30, isReserve: false, tolerance: 0.05 })), lots: [], instead: [] })?.say
 * //=> 'oats for 3 more kits, 4 to go'
 */
export function runningOut({ food, grams, waiting, lots, instead }: BowlNow): RunningOut | undefined {
  const wanted = waiting.reduce((sum, kit) => sum + kit.grams, 0);
  if (wanted <= grams + 1e-9 || waiting.length === 0) return undefined;
  let [left, fills] = [grams, 0];
  for (const kit of waiting) {
    if (kit.grams > left + 1e-9) break;
    left -= kit.grams;
    fills++;
  }
  const missing = Math.ceil(wanted - grams - 1e-9);
  const ways: string[] = [];
  const lot = lots.find((each) => each.grams >= missing) ?? lots[0];
  if (lot) ways.push(`take ${Math.min(missing, lot.grams)} g more of “${lot.name}” off the shelf`);
  // Each kit may have so much less without anybody tasting it: as its line is measured.
  const least = waiting.reduce((sum, kit) => sum + kit.grams * (1 - kit.tolerance), 0);
  if (least <= grams + 1e-9) {
    const less = Math.ceil((1 - grams / wanted) * 1000) / 10;
    ways.push(`fill each a little less, ${less} % off: as near as it is measured`);
  }
  const kept = waiting.filter(({ isReserve }) => !isReserve);
  const reserve = waiting.length - kept.length;
  if (reserve > 0 && kept.reduce((sum, kit) => sum + kit.grams, 0) <= grams + 1e-9)
    ways.push(`leave out ${kits(reserve)} in reserve`);
  for (const other of instead.slice(0, 2))
    ways.push(`${other} instead, in the ${kits(waiting.length - fills)} left over`);
  if (ways.length === 0) ways.push(`buy ${missing} g more, or pack ${kits(waiting.length - fills)} less`);
  return {
    food,
    fills,
    wanted: waiting.length,
    missing,
    say: `${food} for ${fills} more ${fills === 1 ? 'kit' : 'kits'}, ${waiting.length} to go`,
    ways,
  };
}
