import { parseAmount } from './amount';
import {
  add,
  ceil,
  compare,
  divide,
  floor,
  max,
  multiply,
  ONE,
  type Rational,
  rational,
  roundHalfEven,
  subtract,
  toInteger,
  toText,
  ZERO,
} from './rational';

/**
 * How near a measured amount must come to the exact one: leavening, salt and thickeners tightly, vegetables and fruit
 * loosely.
 */
export type Precision = 'tight' | 'normal' | 'loose';

/** Largest allowed distance from the exact amount, as a part of it. */
export const TOLERANCE: Readonly<Record<Precision, Rational>> = {
  tight: rational(2, 100),
  normal: rational(5, 100),
  loose: rational(10, 100),
};

/** The measuring tools of a programme, made ready for searching: largest first, as multiples of one common size. */
export interface Tools {
  /** Size of each tool in US teaspoons, largest first. */
  readonly sizes: readonly Rational[];
  /** The common size, in US teaspoons, that every tool is a whole multiple of. */
  readonly step: Rational;
  /** Each tool as a multiple of `step`. */
  readonly steps: readonly number[];
}

/** A measured amount: the scoops that make it and what they hold together, both in US teaspoons. */
export interface Measured {
  readonly scoops: readonly Rational[];
  readonly total: Rational;
}

/**
 * Makes a set of tools ready.
 *
 * @param sizes tool sizes in US teaspoons, in any order, each above zero
 */
export function toolsOf(sizes: readonly Rational[]): Tools {
  if (sizes.length === 0) throw new RangeError('A programme needs at least one measuring tool.');
  const ordered = [...new Map(sizes.map((size) => [toText(size), size])).values()].sort((a, b) => compare(b, a));
  // gcd of fractions: gcd of the numerators over one common denominator
  const common = ordered.reduce((d, size) => lcm(d, BigInt(size.d)), 1n);
  const step = rational(
    ordered.reduce((g, size) => gcd(g, (BigInt(size.n) * common) / BigInt(size.d)), 0n),
    common,
  );
  return { sizes: ordered, step, steps: ordered.map((size) => toInteger(divide(size, step))) };
}

const gcd = (a: bigint, b: bigint): bigint => (b === 0n ? a : gcd(b, a % b));
const lcm = (a: bigint, b: bigint): bigint => (a / gcd(a, b)) * b;

/** Cups 1, ½, ⅓, ¼; one tablespoon; teaspoons 1, ½, ¼, ⅛ (US), in teaspoons. */
export const US_TOOLS: Tools = toolsOf(['48', '24', '16', '12', '3', '1', '1/2', '1/4', '1/8'].map(parseAmount));

const ML_PER_TSP = parseAmount('4.92892159375');

/** Cups of 250, 125 and 60 ml, a 15 ml tablespoon, spoons of 5, 2.5, 1.25 and 0.625 ml, in US teaspoons. */
export const METRIC_TOOLS: Tools = toolsOf(
  ['250', '125', '60', '15', '5', '2.5', '1.25', '0.625'].map((ml) => divide(parseAmount(ml), ML_PER_TSP)),
);

/**
 * Measures an amount by volume with the tools at hand.
 *
 * Among all sets of scoops whose total is within the tolerance: the fewest scoops; then the fewest different tools;
 * then the least error; then larger tools first. Where no set is near enough, the nearest multiple of the smallest tool
 * (never zero, halves to the even multiple), by the same order.
 *
 * @param exact the exact amount in US teaspoons, > 0
 */
export function measure(exact: Rational, precision: Precision, tools: Tools): Measured {
  const target = divide(exact, tools.step);
  const slack = multiply(target, TOLERANCE[precision]);
  let low = toInteger(ceil(subtract(target, slack)));
  let high = toInteger(floor(add(target, slack)));
  if (low < 1) low = 1;
  let counts = low <= high ? search(tools.steps, low, high, target) : null;
  if (!counts) {
    const smallest = tools.sizes.at(-1) as Rational;
    const multiple = max(roundHalfEven(divide(exact, smallest)), ONE);
    low = toInteger(divide(multiply(multiple, smallest), tools.step));
    high = low;
    counts = search(tools.steps, low, high, target) as number[];
  }
  const scoops: Rational[] = [];
  let total = ZERO;
  for (let i = 0; i < counts.length; i++) {
    const size = tools.sizes[i] as Rational;
    for (let k = 0; k < (counts[i] as number); k++) scoops.push(size);
    if (counts[i]) total = add(total, multiply(size, rational(counts[i] as number)));
  }
  return { scoops, total };
}

/**
 * The best counts of each tool with a total of low…high steps, or null when there is none. Larger counts of larger
 * tools are tried first, so of two equal answers the one with larger tools is found first and kept. A branch is left as
 * soon as even its largest remaining tool could not finish it in as few scoops as the best answer so far.
 */
function search(steps: readonly number[], low: number, high: number, target: Rational): number[] | null {
  const counts = new Array<number>(steps.length).fill(0);
  let best: number[] | null = null;
  let bestScoops = Number.POSITIVE_INFINITY;
  let bestTools = Number.POSITIVE_INFINITY;
  let bestError: Rational = ZERO;

  const visit = (tool: number, sum: number, scoops: number, different: number): void => {
    if (sum >= low) {
      if (scoops > bestScoops || (scoops === bestScoops && different > bestTools)) return;
      const gap = subtract(rational(sum), target);
      const error = gap.n < 0 ? subtract(ZERO, gap) : gap;
      const fewer = scoops < bestScoops || different < bestTools;
      if (!fewer && compare(error, bestError) >= 0) return;
      best = counts.slice();
      bestScoops = scoops;
      bestTools = different;
      bestError = error;
      return;
    }
    if (tool === steps.length) return;
    const step = steps[tool] as number;
    const most = Math.min(Math.floor((high - sum) / step), Math.ceil((low - sum) / step));
    const next = steps[tool + 1] ?? 0;
    for (let count = most; count >= 0; count--) {
      const rest = low - sum - count * step;
      if (rest > 0) {
        if (next === 0) break;
        if (scoops + count + Math.ceil(rest / next) > bestScoops) break;
      }
      counts[tool] = count;
      visit(tool + 1, sum + count * step, scoops + count, different + (count > 0 ? 1 : 0));
    }
    counts[tool] = 0;
  };
  visit(0, 0, 0, 0);
  return best;
}
