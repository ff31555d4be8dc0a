import { beforeAll, describe, expect, it } from 'vitest';
import type { FoodNeed } from '@/core/buying/needs';
import { planBuying } from '@/core/buying/plan';
import type { Buyable, BuyingWorld, ShelfPrice } from '@/core/buying/plan-case';
import { findIngredient, TYPICAL } from '@/core/reference/reference';
import type { SolveMilp } from '@/core/solver/milp';
import { milpSolver } from '@/workers/highs';

let solve: SolveMilp;
beforeAll(async () => {
  solve = await milpSolver();
});

const need = (ingredient: string, day: string, grams: number, more: Partial<FoodNeed> = {}): FoodNeed => {
  const without = more.without ?? [];
  const sessionId = `on ${day}`;
  return {
    id: `${ingredient} ${day} ${without.join(' ')}`,
    sessionId,
    ingredient,
    aisle: 'dry',
    day,
    until: day,
    grams,
    without,
    letters: ['A'],
    eaters: [{ letters: ['A'], without }],
    ...more,
  };
};
const product = (id: string, ingredient: string, packGrams: number, label: string[] | null = null): Buyable => ({
  id,
  ingredient,
  name: id,
  packGrams,
  label,
});
const price = (productId: string, cents: number, more: Partial<ShelfPrice> = {}): ShelfPrice => ({
  productId,
  shopId: 'quay',
  soldBy: 'pack',
  price: cents,
  ...more,
});

const WORLD: Omit<BuyingWorld, 'needs'> = {
  today: '2026-12-01',
  visits: [
    { shopId: 'quay', day: '2026-12-01', cost: 200 },
    { shopId: 'quay', day: '2026-12-08', cost: 200 },
    { shopId: 'market', day: '2026-12-08', cost: 100 },
  ],
  prices: [price('rice 500', 120), price('rice 1 kg', 200)],
  products: [product('rice 500', 'long-grain white rice', 500), product('rice 1 kg', 'long-grain white rice', 1000)],
  stock: [],
  foodOf: (name) => findIngredient(TYPICAL, name),
};

const plan = (world: Partial<BuyingWorld> & { needs: readonly FoodNeed[] }) => {
  const sessions = [...new Set(world.needs.map(({ day }) => day))].map((day) => ({
    id: `on ${day}`,
    title: day,
    day,
    until: day,
    isLocked: true,
  }));
  return planBuying({ ...WORLD, ...world }, sessions, { solve, clock: () => performance.now() / 1000 }, 5);
};
const bought = (made: ReturnType<typeof plan>) =>
  made.trips.map(
    ({ day, shopId, lines }) =>
      `${day} ${shopId}: ${lines.map(({ packs, productId }) => `${packs} ${productId}`).join(', ')}`,
  );

describe('what to buy for a course', () => {
  const rice = (day: string, grams: number) => need('long-grain white rice', day, grams);

  it('shares a pack between sessions and goes once, where each by itself would go and round up', () => {
    const made = plan({ needs: [rice('2026-12-02', 450), rice('2026-12-09', 500)] });
    expect(bought(made)).toEqual(['2026-12-01 quay: 1 rice 1 kg']);
    expect(made).toMatchObject({
      cost: 400,
      waste: 50,
      proven: { cost: true, waste: true },
      apart: { cost: 640, sessions: 2 },
    });
    expect(made.trips[0]?.lines[0]?.why).toBe(
      '1 × rice 1 kg at 2.00 instead of 2 × rice 500 at 1.20: 0.40 less; shared by Wed 2 Dec, Wed 9 Dec; 50 g left over.',
    );
  });

  it('reckons each session by itself for the same food: what the last day’s shops do not have is fetched before', () => {
    // The last visit before the class is to the market, which has onions and no rice.
    const visits = [
      { shopId: 'quay', day: '2026-12-01', cost: 200 },
      { shopId: 'market', day: '2026-12-08', cost: 100 },
    ];
    const onion = { ...price('net of onions', 90), shopId: 'market' };
    const made = plan({
      needs: [rice('2026-12-09', 450), need('onion', '2026-12-09', 900)],
      visits,
      prices: [...WORLD.prices, onion],
      products: [...WORLD.products, product('net of onions', 'onion', 1000)],
    });
    expect(made.cost).toBe(200 + 120 + 100 + 90);
    expect(made.apart).toMatchObject({ cost: made.cost, sessions: 1 });
  });

  it('takes what is open and what ends first from the shelf, and nothing past its day', () => {
    const lot = { ingredient: 'long-grain white rice', product: 'rice', label: null, packGrams: 500, loose: 0 };
    const stock = [
      { ...lot, lotId: 'gone', packs: 2, last: '2026-11-30', lastOpen: '2026-11-30' },
      { ...lot, lotId: 'there', packs: 1, last: '2027-12-01', lastOpen: '2027-12-01' },
    ];
    const made = plan({ needs: [rice('2026-12-02', 450)], stock });
    expect(bought(made)).toEqual([]);
    expect(made.shelf).toMatchObject([{ lotId: 'there', grams: 450 }]);
    expect(made.ready).toEqual(['on 2026-12-02']);
  });

  it('weighs an offer against the usual price, on its days only, and what is sold by weight to the coin', () => {
    const offer = price('rice 500', 60, { from: '2026-12-07', to: '2026-12-09' });
    const later = plan({ needs: [rice('2026-12-09', 450)], prices: [...WORLD.prices, offer] });
    expect(bought(later)).toEqual(['2026-12-08 quay: 1 rice 500']);
    expect(later.cost).toBe(260);
    const sooner = plan({ needs: [rice('2026-12-02', 450)], prices: [...WORLD.prices, offer] });
    expect(sooner.cost).toBe(320);
    // An offer for several packs is taken where they are needed, or where more of them cost less.
    const several = price('rice 500', 70, { from: '2026-12-01', to: '2026-12-09', least: 2 });
    const two = plan({
      needs: [rice('2026-12-02', 450)],
      prices: [price('rice 500', 150), several],
      products: [WORLD.products[0] as Buyable],
    });
    expect(two.proven).toEqual({ cost: true, waste: true });
    expect(two.trips[0]?.lines).toMatchObject([{ packs: 2, price: 70, cost: 140, left: 550 }]);
    const loose = { ...price('loose', 99, { soldBy: 'weight' as const }), shopId: 'market' };
    const weighed = plan({
      needs: [need('onion', '2026-12-09', 1234)],
      products: [product('loose', 'onion', 1000)],
      prices: [loose],
    });
    // 1.3 kg at 0.99: 1.287, and the way.
    expect(weighed.cost).toBe(129 + 100);
  });

  it('buys hard fruit early enough to ripen, and ripe where no visit leaves the time', () => {
    const avocado = (day: string) => ({
      needs: [need('avocado', day, 300)],
      products: [product('avocados', 'avocado', 400)],
      prices: [price('avocados', 300)],
    });
    const visits = [
      { shopId: 'quay', day: '2026-12-05', cost: 200 },
      { shopId: 'quay', day: '2026-12-08', cost: 100 },
    ];
    const early = plan({ ...avocado('2026-12-10'), visits });
    expect(bought(early)).toEqual(['2026-12-05 quay: 1 avocados']);
    expect(early.trips[0]?.lines[0]?.why).toContain('Buy it hard');
    const late = plan({ ...avocado('2026-12-03') });
    expect(bought(late)).toEqual(['2026-12-01 quay: 1 avocados']);
    expect(late.trips[0]?.lines[0]?.why).toContain('Buy it ripe');
  });

  it('gives those who avoid something a product whose label allows it, and says whose label nobody has read', () => {
    const needs = [need('firm tofu', '2026-12-02', 100), need('firm tofu', '2026-12-02', 100, { without: ['GLUTEN'] })];
    const products = [
      product('cheap', 'firm tofu', 400, ['SOY', 'GLUTEN']),
      product('dear', 'firm tofu', 400, ['SOY']),
    ];
    const prices = [price('cheap', 100), price('dear', 300)];
    const made = plan({ needs, products, prices });
    expect(bought(made)).toEqual(['2026-12-01 quay: 1 dear']);
    const unread = [products[0] as Buyable, product('dear', 'baking powder', 100)];
    const short = plan({
      needs: [need('baking powder', '2026-12-02', 5, { without: ['GLUTEN'] })],
      products: unread,
      prices,
    });
    expect(short.short[0]?.why).toContain('nobody has read the label of dear');
  });

  it('takes needs together that ask for the same of every product there is, and keeps who avoids what', () => {
    const made = plan({
      needs: [
        rice('2026-12-02', 100),
        need('long-grain white rice', '2026-12-02', 50, {
          without: ['MILK'],
          letters: ['B'],
          eaters: [{ letters: ['B'], without: ['MILK'] }],
        }),
      ],
    });
    expect(made.needs).toMatchObject([
      {
        grams: 150,
        without: [],
        letters: ['A', 'B'],
        eaters: [
          { letters: ['A'], without: [] },
          { letters: ['B'], without: ['MILK'] },
        ],
      },
    ]);
  });

  it('buys the one product that kits are made with, and says so where no shop has it', () => {
    const needs = [{ ...rice('2026-12-02', 450), product: 'rice 1 kg' }];
    expect(bought(plan({ needs }))).toEqual(['2026-12-01 quay: 1 rice 1 kg']);
    const elsewhere = plan({ needs: [{ ...rice('2026-12-02', 450), product: 'Harbour rice' }] });
    expect(elsewhere.short).toMatchObject([{ why: expect.stringContaining('“Harbour rice”, and it has no price') }]);
  });

  it('buys nothing on a visit that is left out, and plans with what is already on its way', () => {
    const needs = [rice('2026-12-09', 450)];
    const wishes = { noVisits: ['quay 2026-12-01'] };
    expect(bought(plan({ needs, wishes }))).toEqual(['2026-12-08 quay: 1 rice 500']);
    const coming = [
      {
        lotId: 'line',
        ingredient: 'long-grain white rice',
        product: 'rice',
        label: null,
        packs: 1,
        packGrams: 500,
        loose: 0,
        shopId: 'quay',
        day: '2026-12-01',
        cost: 0,
      },
    ];
    const visits = WORLD.visits.map((visit) => ({ ...visit, cost: visit.day === '2026-12-01' ? 0 : visit.cost }));
    expect(bought(plan({ needs, coming, visits }))).toEqual([]);
  });
});
