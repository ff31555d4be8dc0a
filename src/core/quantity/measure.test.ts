import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseAmount } from './amount';
import { METRIC_TOOLS, measure, type Precision, TOLERANCE, type Tools, toolsOf, US_TOOLS } from './measure';
import {
  add,
  compare,
  divide,
  multiply,
  type Rational,
  rational,
  roundHalfEven,
  subtract,
  toText,
  ZERO,
} from './rational';

const tsp = (text: string) => parseAmount(text);
const scoops = (exact: string, precision: Precision, tools = US_TOOLS) =>
  measure(tsp(exact), precision, tools).scoops.map(toText);
const abs = (r: Rational) => (compare(r, ZERO) < 0 ? subtract(ZERO, r) : r);

/**
 * The same rule by brute force: every multiset of tools by rising number of scoops, judged by the four criteria one
 * after the other.
 */
function bestByTrying(exact: Rational, precision: Precision, tools: Tools): string[] {
  const within = (total: Rational) => compare(abs(subtract(total, exact)), multiply(exact, TOLERANCE[precision])) <= 0;
  const smallest = tools.sizes.at(-1) as Rational;
  const nearest = roundHalfEven(divide(exact, smallest));
  const fallback = multiply(compare(nearest, rational(1)) < 0 ? rational(1) : nearest, smallest);
  for (const fits of [within, (total: Rational) => compare(total, fallback) === 0]) {
    for (let count = 1; count <= 7; count++) {
      const found = multisets(tools.sizes, count).filter((set) => fits(set.reduce(add)));
      if (found.length === 0) continue;
      found.sort((a, b) => {
        const different = (set: Rational[]) => new Set(set.map(toText)).size;
        const error = (set: Rational[]) => abs(subtract(set.reduce(add), exact));
        const larger = () => {
          const at = a.findIndex((size, index) => compare(size, b[index] as Rational) !== 0);
          return at < 0 ? 0 : compare(b[at] as Rational, a[at] as Rational);
        };
        return different(a) - different(b) || compare(error(a), error(b)) || larger();
      });
      return (found[0] as Rational[]).map(toText);
    }
  }
  return ['more than 7 scoops'];
}

/** All multisets of `count` tools, each largest first. */
function multisets(sizes: readonly Rational[], count: number): Rational[][] {
  if (count === 0) return [[]];
  return sizes.flatMap((size, index) => multisets(sizes.slice(index), count - 1).map((rest) => [size, ...rest]));
}

describe('measuring with the tools at hand', () => {
  it('takes the fewest scoops that come near enough', () => {
    expect(scoops('18', 'loose')).toEqual(['16', '3']);
    expect(scoops('28/3', 'normal')).toEqual(['3', '3', '3']);
    expect(scoops('64', 'normal')).toEqual(['48', '16']);
  });

  it('measures leavening tighter than fruit', () => {
    expect(scoops('33/32', 'loose')).toEqual(['1']);
    expect(scoops('9/8', 'tight')).toEqual(['1', '1/8']);
  });

  it('falls back to the nearest multiple of the smallest spoon, never to nothing', () => {
    expect(scoops('2/3', 'normal')).toEqual(['1/2', '1/8']);
    expect(scoops('1/100', 'tight')).toEqual(['1/8']);
    expect(scoops('3/16', 'tight')).toEqual(['1/4']);
    expect(scoops('5/16', 'tight')).toEqual(['1/4']);
  });

  it('finds what trying every set of tools finds', () => {
    const exact = fc
      .tuple(fc.integer({ min: 1, max: 200 }), fc.integer({ min: 1, max: 9 }))
      .map(([n, d]) => rational(n, d));
    const precision = fc.constantFrom<Precision>('tight', 'normal', 'loose');
    fc.assert(
      fc.property(exact, precision, (amount, near) => {
        const expected = bestByTrying(amount, near, toolsOf(['12', '5', '3', '1', '1/2'].map(tsp)));
        if (expected[0] !== 'more than 7 scoops') {
          const found = measure(amount, near, toolsOf(['12', '5', '3', '1', '1/2'].map(tsp)));
          expect(found.scoops.map(toText)).toEqual(expected);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('finds what trying finds with the US set, near the awkward small amounts', () => {
    for (let n = 1; n <= 40; n++) {
      const amount = rational(n, 11);
      const expected = bestByTrying(amount, 'tight', US_TOOLS);
      expect(measure(amount, 'tight', US_TOOLS).scoops.map(toText)).toEqual(expected);
    }
  });

  it('measures large amounts as quickly as small ones, and still rightly', () => {
    const { scoops: many, total } = measure(rational(48 * 500), 'tight', US_TOOLS);
    expect(many.length).toBe(490);
    expect(toText(total)).toBe(String(48 * 490));
  });

  it('uses the metric set in whole tools of its own', () => {
    const cup = divide(rational(250), tsp('4.92892159375'));
    expect(measure(cup, 'tight', METRIC_TOOLS).scoops).toHaveLength(1);
  });
});
