import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fromText, toNumber } from '@/core/quantity/rational';
import type { Store } from '@/store/store';
import { NOW, newProgramme, newSession, testStore } from '../../../tests/programme';
import { addLot } from '../buying/stock';
import { viewLot } from '../buying/take-out';
import type { Context, Role } from '../gate/gate';
import { lockKitSheet } from '../kits/kit-sheet';
import { recordTicks, viewBench } from './bench';
import { packFromLot, setPackers, viewLine, weighIn } from './line';
import { prepSince, tickPrep, viewPrepPlan } from './prep';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
  own = await newProgramme(store);
});
afterAll(() => store.close());

async function bench(names: string[], avoids = '') {
  const session = await newSession(
    own.coordinator,
    names.map((name, at) => ({ name, avoids: at === 0 ? avoids : '' })),
  );
  const { sessionId } = session;
  await lockKitSheet(own.coordinator, { sessionId, basis: await session.basis() });
  const { sheet } = await viewBench(own.crew, { sessionId });
  const componentOf = (food: string, kit = 0) =>
    sheet.variants
      .find(({ letter }) => letter === sheet.kits[kit]?.variant)
      ?.components.find(({ ingredient }) => ingredient === food)?.key ?? '';
  const tick = (kit: number, food: string, minutes = 0) =>
    recordTicks(
      { ...own.crew, clock: () => NOW.subtract({ minutes }) },
      {
        sessionId,
        ticks: [{ id: v7(), kitId: sheet.kits[kit]?.id, component: componentOf(food, kit), action: 'packed' }],
      },
    );
  return { ...session, sheet, componentOf, tick };
}

const lotOf = async (ingredient: string, grams: number) => {
  const id = v7();
  const lot = { storage: 'fridge', lastDay: '2026-12-10', lastKind: 'use by', origin: 'bought' };
  await addLot(own.coordinator, {
    ...lot,
    id,
    ingredient,
    grams,
    labelRead: true,
    allergens: [],
    name: `Lot of ${grams}`,
  });
  return id;
};

describe('a line of packers', () => {
  it('is laid out for as many as there are, and says how quickly it goes', async () => {
    const { sessionId, tick } = await bench(['Ada', 'Bram', 'Cleo', 'Dot']);
    await setPackers(own.crew, { sessionId, packers: 2 });
    for (const [kit, food] of [
      [0, 'egg'],
      [1, 'egg'],
      [2, 'egg'],
      [3, 'egg'],
      [0, 'plain yogurt'],
    ] as const)
      await tick(kit, food, 10);
    const { line, pace } = await viewLine(own.crew, { sessionId });
    expect(line).toMatchObject({ packers: 2, proven: true });
    expect(
      line.stations
        .flat()
        .map(({ name }) => name)
        .sort(),
    ).toEqual(['egg, large, without shell', 'ground cumin', 'plain yogurt'].sort());
    // Five ticks in ten minutes; seven are left.
    expect(pace).toMatchObject({ ticksAnHour: 30, minutesLeft: 14, isLate: false });
  });

  it('sees what runs out from the bowl, before it does', async () => {
    const { sessionId, tick, sheet, componentOf } = await bench(['Ada', 'Bram', 'Cleo', 'Dot']);
    const each = sheet.variants[0]?.components.find(({ key }) => key === componentOf('ground cumin'));
    const grams = toNumber(fromText(each?.grams ?? '0'));
    await weighIn(own.crew, { sessionId, id: v7(), food: 'ground cumin', grams: grams * 3.5 });
    const out = async () =>
      (await viewLine({ ...own.crew, clock: () => NOW.add({ minutes: 1 }) }, { sessionId })).runningOut;
    expect(await out()).toMatchObject([{ say: 'ground cumin for 3 more kits, 4 to go' }]);
    await recordTicks(
      { ...own.crew, clock: () => NOW.add({ seconds: 30 }) },
      {
        sessionId,
        ticks: [{ id: v7(), kitId: sheet.kits[0]?.id, component: componentOf('ground cumin'), action: 'packed' }],
      },
    );
    expect(await out()).toMatchObject([{ say: 'ground cumin for 2 more kits, 3 to go' }]);
    await lotOf('ground cumin', 50);
    expect((await out())[0]?.ways[0]).toContain('more of “Lot of 50” off the shelf');
    await tick(0, 'egg');
  });

  it('weighs beside the aim, right within what the line allows', async () => {
    const { sessionId, sheet, componentOf } = await bench(['Ada']);
    const weigh = (grams: number) =>
      weighIn(own.crew, {
        sessionId,
        id: v7(),
        kitId: sheet.kits[0]?.id,
        component: componentOf('plain yogurt'),
        grams,
      });
    // A quarter of a cup of yogurt.
    const { aim } = (await weigh(1)) ?? { aim: '' };
    const target = Number(/\d+/.exec(aim)?.[0]);
    expect(await weigh(target)).toMatchObject({ verdict: 'right' });
    expect(await weigh(target * 2)).toMatchObject({ verdict: 'too much' });
    expect(await weigh(1)).toMatchObject({ verdict: 'too little' });
  });

  it('knows which kits are of which lot, scanned once', async () => {
    const { sessionId, tick, sheet } = await bench(['Ada', 'Bram', 'Cleo']);
    const [first, second] = [await lotOf('ground cumin', 100), await lotOf('ground cumin', 200)];
    const scan = (lotId: string) => packFromLot(own.crew, { sessionId, id: v7(), lotId });
    expect(await scan(first)).toMatchObject({ food: 'ground cumin', notFor: [] });
    await tick(0, 'ground cumin');
    await tick(1, 'ground cumin');
    await scan(second);
    await tick(2, 'ground cumin');
    const numbers = async (lotId: string) =>
      (await viewLot(own.coordinator, { lotId })).sessions
        .flatMap(({ kits }) => kits.map(({ number }) => number))
        .sort();
    expect(await numbers(first)).toEqual([sheet.kits[0]?.number, sheet.kits[1]?.number].sort());
    expect(await numbers(second)).toEqual([sheet.kits[2]?.number]);
    const strange = await lotOf('carrot', 100);
    await expect(scan(strange)).rejects.toThrow('No kit of this session holds carrot');
  });
});

describe('a prep day', () => {
  it('is ticked by all, each word once, and its own minutes are learned for the next', async () => {
    own = await newProgramme(store);
    await bench(['Ada', 'Bram', 'Cleo'], 'milk');
    const date = '2026-11-26';
    const before = await viewPrepPlan(own.crew, { date, hands: 2 });
    expect(before.plan?.phases[0]?.phase).toBe('without');
    const egg = before.motions.find(({ food }) => food === 'egg');
    const say = (action: string, minutes: number, id = v7()) =>
      tickPrep(
        { ...own.crew, clock: () => NOW.add({ minutes }) },
        { day: '2026-11-20', events: [{ id, motion: egg?.key, cut: egg?.cut, grams: 1000, action }] },
      );
    const id = v7();
    await Promise.all([say('begun', 0, id), say('begun', 0, id)]);
    await say('done', 40);
    expect((await prepSince(own.crew, { date: '2026-11-20', after: 0 })).events.map(({ seq }) => seq)).toEqual([1, 2]);
    const after = await viewPrepPlan(own.crew, { date, hands: 2 });
    expect(after.motions.find(({ food }) => food === 'egg')).toMatchObject({ timed: 1 });
    expect(after.plan?.minutes).toBeGreaterThanOrEqual(before.plan?.minutes ?? 0);
  });
});
