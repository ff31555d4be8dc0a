import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { judgeSwap } from '@/core/buying/trip';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { loadSheet, lockKitSheet } from '../kits/kit-sheet';
import { changeBuyingPlan, makeBuyingPlan, viewBuyingPlan } from './plan';
import { receiveTrip } from './receipt';
import { attachReceipt, viewReceipt } from './receipts';
import { addShop, fillHole, setPrice, viewPriceBook } from './shops';
import { addLot, countShelf, moveLot, takeGift, viewStock } from './stock';
import { takeForSession, viewFromShelf, viewLot } from './take-out';
import { answerTrip, makeTrip, payTrip, tripSince, viewTrip } from './trips';

let store: Store;
let context: Context;
let crew: Context;
let shopId: string;
beforeAll(async () => {
  store = await testStore();
  const programme = await newProgramme(store);
  context = programme.coordinator;
  crew = programme.crew;
  // Friday is the day of the tests; the shop is visited on Tuesdays and Saturdays.
  shopId = await addShop(context, { name: 'Harbour stores', weekdays: [2, 6], aisles: ['dairy'], tripCost: '2.00' });
  await newSession(context, [{ name: 'Ada' }, { name: 'Bo', servings: '2' }, { name: 'Cy', avoids: 'milk' }]);
});
afterAll(() => store.close());

const fill = (ingredient: string, name: string, packGrams: number, price: string) =>
  fillHole(context, { ingredient, shopId, name, packGrams, price, soldBy: 'pack' });

const plan = async () => {
  const seen = await viewBuyingPlan(context, {});
  if (!seen.plan) throw new Error('There is no plan.');
  return { ...seen, plan: seen.plan, lines: seen.plan.planned.trips.flatMap(({ lines }) => lines) };
};

const lot = (more: object) => ({
  id: v7(),
  ingredient: 'egg',
  packs: 1,
  packGrams: 350,
  grams: 0,
  storage: 'fridge',
  lastDay: '2026-12-10',
  lastKind: 'best before',
  origin: 'bought',
  ...more,
});

describe('buying for a course', () => {
  it('names the foods without a price as holes, and plans the rest; a hole is filled with one form', async () => {
    await makeBuyingPlan(context, { toDay: '2026-12-10' });
    expect((await plan()).plan.planned.holes).toEqual(['egg', 'firm tofu', 'ground cumin', 'plain yogurt']);
    await fill('plain yogurt', 'Yogurt 500', 500, '1.80');
    await fill('plain yogurt', 'Yogurt 150', 150, '1.00');
    await fill('egg', 'Six eggs', 350, '1.50');
    await fill('ground cumin', 'Cumin jar', 40, '1.10');
    await fill('firm tofu', 'Tofu block', 400, '2.40');
    await makeBuyingPlan(context, { toDay: '2026-12-10' });
    const { plan: made, lines } = await plan();
    expect(made.planned).toMatchObject({ holes: [], short: [], proven: { cost: true } });
    expect(lines.map(({ product, packs }) => `${packs} × ${product}`).sort()).toEqual([
      '1 × Cumin jar',
      '1 × Six eggs',
      '1 × Tofu block',
      '1 × Yogurt 500',
    ]);
    expect(lines.find(({ ingredient }) => ingredient === 'plain yogurt')?.why).toContain('Yogurt 150 at $1.00');
    // What is bought adds up to what the plan says.
    const { cost, trips } = made.planned;
    expect(cost).toBe(
      trips.reduce((sum, trip) => sum + trip.cost + trip.lines.reduce((all, each) => all + each.cost, 0), 0),
    );
  });

  it('plans again around a pinned product and a visit left out, and refuses a plan that somebody else changed', async () => {
    const { plan: made, choices } = await plan();
    const small = choices.find(({ name }) => name === 'Yogurt 150')?.id ?? '';
    const pinned = { kind: 'pin' as const, ingredient: 'plain yogurt', productId: small };
    expect(await changeBuyingPlan(context, { version: made.version, change: pinned })).toMatchObject({
      dearer: expect.any(Number),
    });
    const { lines, plan: second } = await plan();
    expect(lines.find(({ ingredient }) => ingredient === 'plain yogurt')?.product).toBe('Yogurt 150');
    await expect(changeBuyingPlan(context, { version: made.version, change: pinned })).rejects.toMatchObject({
      kind: 'stale',
    });
    const [trip] = second.planned.trips;
    await changeBuyingPlan(context, {
      version: second.version,
      change: { kind: 'visit', shopId, day: trip?.day ?? '', on: false },
    });
    const third = await plan();
    expect(third.plan.planned.trips.map(({ day }) => day)).not.toContain(trip?.day);
    await changeBuyingPlan(context, {
      version: third.plan.version,
      change: { kind: 'visit', shopId, day: trip?.day ?? '', on: true },
    });
    const fourth = await plan();
    await changeBuyingPlan(context, { version: fourth.plan.version, change: { ...pinned, productId: '' } });
  });

  it('takes what stands on the shelf first, and nothing past its use-by', async () => {
    await addLot(crew, lot({ name: 'Eggs there' }));
    const before = (await plan()).plan.planned.cost;
    await makeBuyingPlan(context, { toDay: '2026-12-10' });
    const { plan: made, lines } = await plan();
    expect(made.planned.shelf).toMatchObject([{ ingredient: 'egg' }]);
    expect(lines.some(({ ingredient }) => ingredient === 'egg')).toBe(false);
    expect(made.planned.cost).toBe(before - 150);
    await expect(addLot(context, lot({ lastDay: '2026-11-01', lastKind: 'use by' }))).rejects.toMatchObject({
      problems: [{ where: 'lastDay' }],
    });
  });

  it('goes to the shop with two phones: an answer sent twice counts once, and a swap is judged by who eats of it', async () => {
    const { plan: made } = await plan();
    const [visit] = made.planned.trips;
    const tripId = await makeTrip(context, { shopId, day: visit?.day ?? '' });
    await expect(makeTrip(context, { shopId, day: visit?.day ?? '' })).rejects.toThrow('open that trip');
    const { lines } = await viewTrip(crew, { tripId });
    expect(JSON.stringify(lines)).not.toContain('Ada');
    const line = (food: string) => lines.find(({ body }) => body.ingredient === food) as (typeof lines)[number];
    const yogurt = line('plain yogurt');
    const taken = {
      id: v7(),
      lineId: yogurt.id,
      answer: { kind: 'taken' as const, packs: yogurt.body.packs, price: 190 },
    };
    await Promise.all([
      answerTrip(crew, { tripId, answers: [taken] }),
      answerTrip(context, { tripId, answers: [taken] }),
    ]);
    expect((await tripSince(crew, { tripId, after: 0 })).events).toHaveLength(1);
    // Tofu with milk in it, for the one who avoids milk.
    const tofu = line('firm tofu');
    const hand = { name: 'Smooth tofu', packGrams: 300, price: 250, label: ['SOY', 'MILK'] };
    expect(judgeSwap(tofu.body, hand)).toMatchObject({ isSafe: false, packs: 1, dearer: 10 });
    const swapped = { id: v7(), lineId: tofu.id, answer: { kind: 'instead' as const, packs: 1, hand } };
    expect((await answerTrip(crew, { tripId, answers: [swapped] })).unsafe).toMatchObject([{ lineId: tofu.id }]);
    // No cumin that is known holds milk; one in hand may.
    const spiced = { name: 'Cumin butter', packGrams: 50, price: 100, label: ['MILK'] };
    expect(judgeSwap(line('ground cumin').body, spiced).isSafe).toBe(false);
    const safe = { ...hand, name: 'Plain tofu', label: ['SOY'] };
    expect(judgeSwap(tofu.body, safe).isSafe).toBe(true);
    await answerTrip(crew, {
      tripId,
      answers: [{ id: v7(), lineId: tofu.id, answer: { kind: 'instead', packs: 1, hand: safe } }],
    });
    const cumin = line('ground cumin');
    await answerTrip(crew, {
      tripId,
      answers: [{ id: v7(), lineId: cumin.id, answer: { kind: 'taken', packs: 1, price: 110 } }],
    });
    await expect(
      answerTrip(crew, { tripId, answers: [{ id: v7(), lineId: v7(), answer: { kind: 'not there' } }] }),
    ).rejects.toMatchObject({ kind: 'not-found' });

    // What is on its way is not planned a second time.
    await makeBuyingPlan(context, { toDay: '2026-12-10' });
    expect((await plan()).lines).toEqual([]);

    await payTrip(crew, { tripId, paid: '7.50', payer: 'Marit' });
    const { prices } = await viewPriceBook(context, {});
    expect(prices.find(({ product }) => product === 'Yogurt 500')?.price).toBe(190);
    const picture = new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 1]);
    await attachReceipt(crew, { tripId, bytes: picture });
    await attachReceipt(crew, { tripId, bytes: new Uint8Array([...picture, 2]) });
    expect(await viewReceipt(context, { tripId })).toEqual({
      kind: 'image/jpeg',
      picture: new Uint8Array([...picture, 2]),
    });
    const page = new TextEncoder().encode('<script>alert(1)</script>');
    await expect(attachReceipt(crew, { tripId, bytes: page })).rejects.toThrow('no picture');

    const check = (lineId: string, more: object = {}) => ({
      id: v7(),
      lineId,
      packs: 1,
      refused: 0,
      lastDay: '2026-12-05',
      lastKind: 'use by' as const,
      storage: 'fridge' as const,
      ...more,
    });
    await expect(receiveTrip(crew, { tripId, lines: [check(yogurt.id), check(cumin.id)] })).rejects.toThrow(
      'not checked',
    );
    const refused = check(yogurt.id, { packs: 0, refused: 1, reasons: ['warm: 12 °C'] });
    const { short } = await receiveTrip(crew, { tripId, lines: [refused, check(tofu.id), check(cumin.id)] });
    expect(short).toMatchObject([{ ingredient: 'plain yogurt' }]);
    // Received twice by two phones, it is on the shelf once.
    await receiveTrip(context, { tripId, lines: [refused, check(tofu.id), check(cumin.id)] });
    const { lots } = await viewStock(crew, {});
    expect(lots.map(({ name }) => name).sort()).toEqual(['Cumin jar', 'Eggs there', 'Plain tofu']);
    // The session names the very product whose label the kit of the one who avoids milk hangs on.
    const { sheet } = await loadSheet(context, tofu.body.uses[0]?.sessionId ?? '');
    expect(sheet.draft?.input.products).toMatchObject({ 'firm tofu': 'Plain tofu' });
    await makeBuyingPlan(context, { toDay: '2026-12-10' });
    expect((await plan()).lines.map(({ ingredient }) => ingredient)).toEqual(['plain yogurt']);
  });
});

describe('taking out for a session', () => {
  it('notes which lot went into which kits, once, and only what its label allows: a lot that is called back names them', async () => {
    const { sessionId, basis } = await newSession(context, [{ name: 'Dot' }, { name: 'Eli', avoids: 'milk' }]);
    await expect(takeForSession(crew, { sessionId })).rejects.toThrow('Lock the kit sheet first');
    const milky = lot({
      name: 'Creamy tofu',
      ingredient: 'firm tofu',
      labelRead: true,
      allergens: ['SOY', 'MILK'],
      lastDay: '2026-11-27',
    });
    const plain = lot({ name: 'Tofu of the mill', ingredient: 'firm tofu', labelRead: true, allergens: ['SOY'] });
    const yogurt = lot({ name: 'Yogurt there', ingredient: 'plain yogurt', packGrams: 500 });
    for (const each of [milky, plain, yogurt]) await addLot(context, each);
    await lockKitSheet(context, { sessionId, basis: await basis() });
    const seen = await viewFromShelf(crew, { sessionId });
    const takes = seen.takes.map(({ name, letters }) => `${name}: ${letters.join('')}`);
    expect(takes).not.toContainEqual(expect.stringContaining('Creamy tofu'));
    expect(await takeForSession(crew, { sessionId })).toMatchObject({ taken: seen.takes.length });
    expect(await takeForSession(crew, { sessionId })).toMatchObject({ taken: 0 });
    // What was taken out is not bought again.
    await makeBuyingPlan(context, { toDay: '2026-12-10' });
    const { needs, planned } = (await plan()).plan;
    expect(needs.filter((need) => need.sessionId === sessionId)).toEqual([]);
    expect(planned.ready).toContain(sessionId);
    const tofu = seen.takes.find(({ ingredient }) => ingredient === 'firm tofu');
    const { sessions } = await viewLot(context, { lotId: tofu?.lotId ?? '' });
    expect(sessions.find(({ id }) => id === sessionId)?.kits.map(({ name }) => name)).toEqual(['Eli']);
    const bowl = await viewLot(context, { lotId: yogurt.id });
    expect(bowl.sessions.flatMap(({ kits }) => kits.map(({ name }) => name))).toEqual(['Dot']);
    expect(bowl.moves.at(-1)).toMatchObject({ kind: 'used', sessionId });
  });
});

describe('stock', () => {
  const move = (lotId: string, more: object) => ({
    id: v7(),
    lotId,
    kind: 'used' as const,
    packs: 0,
    grams: 0,
    ...more,
  });
  const find = async (name: string) => (await viewStock(context, {})).lots.find((each) => each.name === name);

  it('is never negative, whoever takes at the same moment', async () => {
    const one = lot({ name: 'Lentils', ingredient: 'brown lentils', packs: 2, packGrams: 500, storage: 'shelf' });
    await addLot(context, one);
    const takes = await Promise.allSettled(Array.from({ length: 3 }, () => moveLot(crew, move(one.id, { packs: 1 }))));
    expect(takes.filter(({ status }) => status === 'fulfilled')).toHaveLength(2);
    expect(await find('Lentils')).toBeUndefined();
  });

  it('opens a pack for what is taken out of it, which then ends sooner', async () => {
    const one = lot({ name: 'Milk carton', ingredient: 'milk', packs: 2, packGrams: 1000, lastDay: '2026-12-20' });
    await addLot(context, one);
    const taken = move(one.id, { grams: 300 });
    await moveLot(crew, taken);
    await moveLot(crew, taken);
    expect((await find('Milk carton'))?.now).toMatchObject({
      packs: 1,
      loose: 700,
      last: '2026-12-20',
      lastOpen: '2026-11-27',
    });
    await countShelf(crew, { moves: [{ id: v7(), lotId: one.id, packs: 1, grams: 550 }] });
    expect((await find('Milk carton'))?.now).toMatchObject({ packs: 1, loose: 550 });
    await moveLot(crew, move(one.id, { kind: 'frozen' }));
    await moveLot(crew, move(one.id, { kind: 'thawed' }));
    expect((await find('Milk carton'))?.now).toMatchObject({
      storage: 'fridge',
      last: '2026-11-21',
      lastOpen: '2026-11-21',
    });
    await expect(moveLot(crew, move(one.id, { kind: 'thrown away', packs: 1 }))).rejects.toMatchObject({
      problems: [{ where: 'reason' }],
    });
  });

  it('takes a gift that is sealed, labelled, in date, whole and not home-made; keeps why another was not taken', async () => {
    const checks = ['sealed', 'labelled', 'in date', 'undamaged', 'not home-made'];
    const tin = lot({
      name: 'Chickpeas',
      ingredient: 'canned chickpeas',
      storage: 'shelf',
      origin: 'given',
      labelRead: true,
      allergens: [],
    });
    expect(
      await takeGift(crew, { ...tin, isTin: true, checks: [...checks, 'not bulging', 'no rust', 'no leak'] }),
    ).toEqual({
      isTaken: false,
      reasons: ['the tin is dented on a seam'],
    });
    expect(await find('Chickpeas')).toBeUndefined();
    const sound = {
      ...tin,
      id: v7(),
      isTin: true,
      checks: [...checks, 'no dent on a seam', 'not bulging', 'no rust', 'no leak'],
    };
    await expect(takeGift(crew, { ...sound, labelRead: false })).rejects.toMatchObject({
      problems: [{ where: 'labelRead' }],
    });
    expect(await takeGift(crew, sound)).toEqual({ isTaken: true, reasons: [] });
    expect((await viewStock(context, {})).refused).toMatchObject([{ name: 'Chickpeas' }]);
  });

  it('has a price of before back where one was written down by mistake', async () => {
    const [now] = (await viewPriceBook(context, {})).prices;
    const same = { shopId: now?.shopId, productId: now?.productId };
    const was = await setPrice(context, { ...same, price: '9.99' });
    expect(was).toMatchObject({ price: now?.price, soldBy: now?.soldBy });
    await setPrice(context, { ...same, ...was, price: was.price === null ? '' : (was.price / 100).toFixed(2) });
    expect((await viewPriceBook(context, {})).prices.map((each) => each.price)).toContain(now?.price);
  });

  it('says what cannot be a price', async () => {
    const { products } = await viewPriceBook(context, {});
    const price = {
      shopId,
      productId: products[0]?.id ?? '',
      soldBy: 'pack',
      price: '1.00',
      fromDay: '',
      toDay: '',
      least: 1,
    } as const;
    await expect(setPrice(context, { ...price, price: '0' })).rejects.toMatchObject({ problems: [{ where: 'price' }] });
    await expect(setPrice(context, { ...price, fromDay: '2026-12-02', toDay: '2026-12-01' })).rejects.toMatchObject({
      problems: [{ where: 'toDay' }],
    });
    await expect(setPrice(context, { ...price, productId: v7() })).rejects.toMatchObject({ kind: 'not-found' });
  });
});
