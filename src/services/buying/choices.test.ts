import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { WrittenLine } from '@/core/recipes/recipe/recipe';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { fillSlot, setExtras } from '../plan/sessions';
import { tryChoices, viewShortfall } from './choices';
import { makeBuyingPlan, viewBuyingPlan } from './plan';
import { receiveTrip } from './receipt';
import { addShop, fillHole } from './shops';
import { addLot } from './stock';
import { answerTrip, makeTrip, viewTrip } from './trips';

// Any of spinach, kale, yogurt: one avoids milk, so yogurt is not for everybody.
const LINES: WrittenLine[] = [
  {
    ingredient: 'spinach',
    amount: '200',
    unit: 'g',
    slot: true,
    alternatives: [
      { ingredient: 'kale', amount: '150', unit: 'g' },
      { ingredient: 'plain yogurt', amount: '100', unit: 'g' },
    ],
  },
];
const UNTIL = '2026-12-10';

let store: Store;
let context: Context;
let sessionId: string;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
  const near = { weekdays: [2, 3], aisles: [], tripCost: '0.50' };
  const shopId = await addShop(context, { name: 'Harbour stores', ...near });
  const farId = await addShop(context, { name: 'Hill market', ...near, weekdays: [3], tripCost: '4.00' });
  const fill = (ingredient: string, name: string, packGrams: number, price: string, at = shopId) =>
    fillHole(context, { ingredient, shopId: at, name, packGrams, price, soldBy: 'pack' });
  ({ sessionId } = await newSession(context, [{ name: 'Ada' }, { name: 'Bo' }, { name: 'Cy', avoids: 'milk' }], LINES));
  await makeBuyingPlan(context, { toDay: UNTIL });
  await fill('spinach', 'Spinach bag', 400, '3.00');
  await fill('spinach', 'Market spinach', 400, '2.00', farId);
  await fill('kale', 'Kale bag', 400, '1.20');
  await fill('plain yogurt', 'Yogurt', 500, '0.40');
});
afterAll(() => store.close());

const planned = async () => {
  await makeBuyingPlan(context, { toDay: UNTIL });
  const { plan } = await viewBuyingPlan(context, {});
  return plan?.planned;
};

describe('open lines of dishes', () => {
  it('are tried against the whole plan, and only what is right for everybody can be taken: the plan then costs as was said', async () => {
    const before = await planned();
    const ideas = await tryChoices(context, {});
    expect(ideas.map(({ food, refused }) => ({ food, refused }))).toEqual([
      { food: 'kale', refused: 0 },
      // Cy gets what was written first: no kit is refused, and yogurt is bought for the others.
      { food: 'plain yogurt', refused: 0 },
    ]);
    const kale = ideas.find(({ food }) => food === 'kale');
    expect(kale).toMatchObject({ isEnough: true });
    await fillSlot(context, { sessionId, dishId: kale?.dishId ?? '', written: 'spinach', chosen: 'kale' });
    expect((await planned())?.cost).toBe((before?.cost ?? 0) + (kale?.dearer ?? Number.NaN));
    await fillSlot(context, { sessionId, dishId: kale?.dishId ?? '', written: 'spinach', chosen: 'spinach' });
  });
});

describe('a delivery that came short', () => {
  it('is mended by what was tried, cheapest first: the shelf, another visit, another food, fewer kits in reserve', async () => {
    await setExtras(context, { sessionId, tasters: 0, crew: 0, reserve: 1, reserveServings: 1 });
    const made = await planned();
    const [visit] = made?.trips ?? [];
    const tripId = await makeTrip(context, { shopId: visit?.shopId ?? '', day: visit?.day ?? '' });
    const { lines } = await viewTrip(context, { tripId });
    const [spinach] = lines;
    if (!spinach) throw new Error('Nothing is on the trip.');
    const taken = { kind: 'taken' as const, packs: spinach.body.packs, price: spinach.body.price };
    await answerTrip(context, { tripId, answers: [{ id: v7(), lineId: spinach.id, answer: taken }] });
    const { short } = await receiveTrip(context, {
      tripId,
      lines: [
        {
          id: v7(),
          lineId: spinach.id,
          packs: 0,
          refused: spinach.body.packs,
          reasons: ['warm'],
          lastDay: '',
          lastKind: 'use by',
          storage: 'fridge',
        },
      ],
    });
    expect(short).toMatchObject([{ ingredient: 'spinach', grams: expect.any(Number) }]);
    expect((await viewBuyingPlan(context, {})).cameShort).toMatchObject([{ id: tripId, foods: ['spinach'] }]);

    const ways = async () => (await viewShortfall(context, { tripId })).short[0]?.ways ?? [];
    const first = await ways();
    const said = first.map(({ kind, food, buys }) => food ?? `${kind} ${[...new Set(buys.map(({ shop }) => shop))]}`);
    expect(said).toContain('kale');
    expect(said.join()).toMatch(/visit (Harbour stores|Hill market)/);
    expect(said.join()).not.toContain('shelf');
    expect(first.map(({ cost }) => cost)).toEqual(first.map(({ cost }) => cost).toSorted((a, b) => a - b));
    // What is there is enough for the kits, not for the one in reserve.
    const all = (await viewBuyingPlan(context, {})).needs.filter(({ ingredient }) => ingredient === 'spinach');
    const grams = all.reduce((sum, need) => sum + (need.grams ?? 0), 0);
    const lot = {
      id: v7(),
      ingredient: 'spinach',
      packs: 0,
      grams: grams - 10,
      packGrams: null,
      storage: 'fridge',
      lastDay: '2026-12-01',
      lastKind: 'use by',
      origin: 'garden',
      name: 'Of the garden',
    };
    await addLot(context, lot);
    expect((await ways())[0]).toMatchObject({ kind: 'fewer in reserve', cost: 0 });
    await addLot(context, { ...lot, id: v7(), grams: 10 });
    expect((await ways())[0]).toMatchObject({ kind: 'shelf', cost: 0 });
  });
});
