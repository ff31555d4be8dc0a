import type { BuyingAnswer, BuyingCase, BuyingProduct, Need } from '@/core/buying/case';
import { cheapestBuying } from '@/core/buying/cheapest';
import { milpSolver } from '@/workers/highs';

/** How long kinds of food keep, unopened and opened, and what a gram costs in hundredths of the smallest coin. */
const KINDS = [
  { keeps: 8, opened: 3, gram: 60 },
  { keeps: 12, opened: 5, gram: 45 },
  { keeps: 30, opened: 14, gram: 90 },
  { keeps: 300, opened: 60, gram: 25 },
] as const;

/** Numbers that are the same on every run. */
function numbers(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
    return Math.floor((state / 2 ** 31) * below);
  };
}

/** Sessions with so many foods, each food in three packs of which the larger are cheaper by weight, and a trip every few days. */
export function buyingTerm(
  wanted: { sessions: number; foods: number; trips: number; days: number },
  seed = 7,
): BuyingCase {
  const any = numbers(seed);
  const products: BuyingProduct[] = [];
  const needs: Need[] = [];
  for (let food = 0; food < wanted.foods; food++) {
    const kind = KINDS[any(KINDS.length)] ?? KINDS[0];
    for (const [at, pack] of [250, 500, 1000].entries())
      products.push({
        id: `f${food} ${pack}`,
        food: `f${food}`,
        pack,
        price: Math.round((pack * kind.gram * (100 - 12 * at + any(15))) / 10_000),
        keeps: kind.keeps,
        opened: kind.opened,
        holds: any(4) === 0 ? ['MILK'] : [],
      });
    for (let session = 0; session < wanted.sessions; session++) {
      if (any(10) < 4) continue;
      const day = 1 + Math.floor(((session + 1) * (wanted.days - 2)) / wanted.sessions);
      needs.push({
        id: `f${food} s${session}`,
        food: `f${food}`,
        day,
        grams: 40 + any(900),
        ...(any(8) === 0 ? { without: ['MILK'] } : {}),
      });
    }
  }
  // One pack of each food has a label that suits everybody.
  const safe = products.map((product, at) => (at % 3 === 1 ? { ...product, holds: [] } : product));
  const trips = Array.from({ length: wanted.trips }, (_, at) => ({
    day: Math.floor((at * wanted.days) / wanted.trips),
    cost: 350,
  }));
  return { days: wanted.days, trips, products: safe, needs };
}

/** Two cases of the size that courses have: how long until they are proven, and what is known before. */
export async function buyingFigures(): Promise<void> {
  const solve = await milpSolver();
  const run = (title: string, given: BuyingCase, goal: string) => {
    const start = performance.now();
    let solved = 0;
    const answer: BuyingAnswer = cheapestBuying(given, {
      solve: (model, seconds) => {
        solved++;
        return solve(model, seconds);
      },
      clock: () => performance.now() / 1000,
    });
    const spent = ((performance.now() - start) / 1000).toFixed(2);
    if ('unmet' in answer) throw new Error(`${title}: ${answer.unmet.length} needs cannot be met.`);
    const { cost, waste, proven, bound } = answer;
    const gap = bound?.cost === undefined ? 0 : (100 * (cost - bound.cost)) / bound.cost;
    console.log(
      `${title}\n  ${spent} s, ${solved} models; cost ${cost}, ${waste} g lost; ${proven.cost ? 'cost proven' : `within ${gap.toFixed(3)} % of ${bound?.cost}`}, ${proven.waste ? 'loss proven' : 'loss not proven'}\n  ${goal}\n`,
    );
  };
  for (const seed of [7, 8, 9])
    run(
      `Buying for two courses of 8 sessions: 25 foods × 3 products × 8 trips, numbers ${seed}`,
      buyingTerm({ sessions: 16, foods: 25, trips: 8, days: 58 }, seed),
      'goal: proven in at most 3 s',
    );
  const large = buyingTerm({ sessions: 12, foods: 60, trips: 10, days: 75 });
  run(
    'Buying for 12 sessions: 60 foods × 3 products × 10 trips, 10 s',
    { ...large, seconds: 10 },
    'goal: within 0.1 % of the bound',
  );
  run('The same, until it is proven', { ...large, seconds: 60 }, 'goal: proven in at most 60 s');
}
