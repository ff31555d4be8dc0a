import type { BuyingAnswer, BuyingCase, BuyingProduct, Need } from '@/core/buying/case';
import { cheapestBuying } from '@/core/buying/cheapest';
import type { FoodNeed } from '@/core/buying/needs';
import { planBuying } from '@/core/buying/plan';
import type { BuyingWorld } from '@/core/buying/plan-case';
import { judgeSwap } from '@/core/buying/trip';
import { addDays } from '@/core/plan/civil';
import { findIngredient, TYPICAL } from '@/core/reference/reference';
import type { SolveMilp } from '@/core/solver/milp';
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

/** A plan as the desk asks for it: twelve sessions with sixty foods of the table, and one of its lines judged against a pack in hand. */
function planFigures(solve: SolveMilp): void {
  const any = numbers(3);
  const foods = TYPICAL.ingredients.filter(({ daysWhole }) => daysWhole >= 7).slice(0, 60);
  const day = (at: number) => addDays('2026-12-01', at);
  const sessions = Array.from({ length: 12 }, (_, at) => ({
    id: `s${at}`,
    title: `Session ${at}`,
    day: day(2 + at * 6),
    until: day(2 + at * 6),
    isLocked: true,
  }));
  const needs = sessions.flatMap((session) =>
    foods
      .filter(() => any(10) < 6)
      .map(
        ({ name, aisle }): FoodNeed => ({
          id: `${session.id} ${name}`,
          sessionId: session.id,
          ingredient: name,
          aisle,
          day: session.day,
          until: session.day,
          grams: 50 + any(900),
          without: [],
          letters: ['A', 'B'],
          eaters: [
            { letters: ['A'], without: [] },
            { letters: ['B'], without: ['MILK', 'EGG'] },
          ],
        }),
      ),
  );
  const products = foods.flatMap(({ name }) =>
    [250, 500, 1000].map((packGrams) => ({
      id: `${name} ${packGrams}`,
      ingredient: name,
      name: `${name} ${packGrams}`,
      packGrams,
      label: [],
    })),
  );
  const world: BuyingWorld = {
    today: '2026-12-01',
    needs,
    visits: Array.from({ length: 10 }, (_, at) => ({ shopId: 'quay', day: day(at * 7), cost: 350 })),
    prices: products.map(({ id, packGrams }) => ({
      shopId: 'quay',
      productId: id,
      soldBy: 'pack',
      price: Math.round(packGrams * 0.3) + 20 + any(30),
    })),
    products,
    stock: [],
    foodOf: (name) => findIngredient(TYPICAL, name),
  };
  const clock = () => performance.now() / 1000;
  for (const [title, own] of [
    ['A plan for 12 sessions × 60 foods, with what each session by itself would cost', world],
    [
      'The same planned again, with a product pinned',
      { ...world, wishes: { pins: { [foods[0]?.name ?? '']: products[1]?.id ?? '' } } },
    ],
  ] as const) {
    const start = clock();
    const { cost, apart, proven, trips } = planBuying(own, sessions, { solve, clock }, 10);
    console.log(
      `${title}\n  ${(clock() - start).toFixed(2)} s; ${cost}${proven.cost ? ', proven' : ''}; session by session ${apart.cost}, saved ${apart.cost - cost} and ${apart.spares} g\n  goal: planned again in at most 2 s\n`,
    );
    const [line] = trips[0]?.lines ?? [];
    if (!line || own !== world) continue;
    const body = { ...line, contains: [], mayContain: ['MILK'], others: [], elsewhere: [], sessions: {} };
    const begun = performance.now();
    for (let at = 0; at < 1000; at++) judgeSwap(body, { name: 'x', packGrams: 300 + at, price: 200, label: ['MILK'] });
    console.log(
      `A pack in hand judged\n  ${((performance.now() - begun) / 1000).toFixed(3)} ms\n  goal: at most 50 ms on a phone\n`,
    );
  }
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
  planFigures(solve);
}
