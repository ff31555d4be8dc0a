import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { calledBackNow } from '@/core/packing/progress';
import type { Store } from '@/store/store';
import { cells, NOW, newProgramme, newSession, testStore } from '../../../tests/programme';
import { recordAttendance } from '../classday/attendance';
import type { Context } from '../gate/gate';
import { lockKitSheet, recordLabel, viewKitSheet } from '../kits/kit-sheet';
import { viewPrepList, viewStockOutcome } from '../kits/planning';
import { setContainers, setKitRules, setLineWays, viewKitRules } from '../kits/rules';
import { viewBench } from '../packing/bench';
import { addDish, addSession } from '../plan/sessions';
import { setHome, viewHousehold } from '../roll/home';
import { addPerson, editPerson, viewRoll } from '../roll/roll';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const SOUP = [
  { ingredient: 'onion', preparation: 'chopped', amount: '1', unit: 'cup' },
  { ingredient: 'olive oil', amount: '2', unit: 'tbsp' },
];

/** A take-home course of three sessions of one soup, with a jar of oil that does for one kit, and spoons. */
async function course(people: readonly object[]) {
  const first = await newSession(context, people, SOUP);
  const { courseId, recipeId } = first;
  const plan = { title: 'Soup', startsAt: '16:00', minutes: 60, place: 'Gate', mode: 'take-home' };
  await store.db.sequelize.query("UPDATE session SET mode = 'take-home' WHERE id = :id", {
    replacements: { id: first.sessionId },
  });
  const sessions = [first.sessionId];
  for (const date of ['2026-12-03', '2026-12-10']) {
    const sessionId = await addSession(context, { courseId, ...plan, date });
    await addDish(context, { sessionId, recipeId });
    sessions.push(sessionId);
  }
  const rules = {
    supplies: [
      { id: 'oil', kind: 'jar', name: 'Olive oil', grams: '20' },
      { id: 'spoons', kind: 'issue once', name: 'measuring spoons' },
    ],
  };
  const { course: row } = await viewKitRules(context, { courseId });
  await setKitRules(context, { courseId, version: row.version, rules });
  const lock = async (at: number) => {
    const sessionId = sessions[at] ?? '';
    const { sheet } = await viewKitSheet(context, { sessionId });
    return lockKitSheet(context, { sessionId, basis: sheet.basis });
  };
  /** What goes with the kit of somebody for the course. */
  const kitOf = async (at: number, name: string) => {
    const { sheet } = await viewKitSheet(context, { sessionId: sessions[at] ?? '' });
    const variant = sheet.draft?.variants.find(({ participants }) => participants.some((each) => each.name === name));
    return (variant?.components ?? [])
      .filter((component) => /jar for|spoons/.test(component.name))
      .map(({ name: what, sealedUnits, isCatchUp }) => `${sealedUnits ?? 1} ${what}${isCatchUp ? ', catch-up' : ''}`);
  };
  return { courseId, sessions, lock, kitOf };
}

const OIL = 'olive oil, jar for the course';

describe('supplies of a course', () => {
  it('go with the first kit, are drawn down over sessions that are planned or locked, and catch a late joiner up', async () => {
    const { courseId, lock, kitOf } = await course([{ name: 'Ada', servings: '4' }]);
    expect(await kitOf(0, 'Ada')).toEqual([`2 ${OIL}`, '1 measuring spoons']);
    // 27 g a session: 40 g do not suffice for a second one, 60 g do; a third needs a fifth.
    expect(await kitOf(1, 'Ada')).toEqual([`1 ${OIL}`]);
    await lock(0);
    expect(await kitOf(1, 'Ada')).toEqual([`1 ${OIL}`]);
    const late = await addPerson(context, { courseId, cells: cells({ name: 'Late', servings: '4' }) });
    expect(late.status).toBe('enrolled');
    expect(await kitOf(1, 'Late')).toEqual([`2 ${OIL}, catch-up`, '1 measuring spoons, catch-up']);
    // One query more than without supplies; the page adds one: who is signed in. Ten in all.
    const before = store.queries();
    await kitOf(1, 'Late');
    expect(store.queries() - before).toBeLessThanOrEqual(9);
    await lock(1);
    expect(await kitOf(2, 'Late')).toEqual([`1 ${OIL}`]);
    expect(await kitOf(2, 'Ada')).toEqual([`2 ${OIL}`]);
  });

  it('heed the product labels of an earlier session that is not locked yet', async () => {
    const { sessions, kitOf } = await course([{ name: 'Ash', servings: '4', avoids: 'sesame' }]);
    expect(await kitOf(1, 'Ash')).toEqual([`1 ${OIL}`]);
    // The first kit cannot hold this oil: nothing of it is there to be drawn down, and the second is no catch-up.
    const label = { ingredient: 'olive oil', product: 'Blended oil', allergens: ['SESAME'] };
    await recordLabel(context, { sessionId: sessions[0] ?? '', ...label });
    expect(await kitOf(1, 'Ash')).toEqual([`2 ${OIL}`]);
  });

  it('are eaten by the label of the jar that went out, not by that of what is bought today', async () => {
    const { courseId, sessions, lock, kitOf } = await course([{ name: 'Mia', servings: '4' }, { name: 'Noa' }]);
    const label = (at: number, allergens: string[]) =>
      recordLabel(context, {
        sessionId: sessions[at] ?? '',
        ingredient: 'olive oil',
        product: `Oil ${at}`,
        allergens,
      });
    await label(0, ['WHEAT', 'GLUTEN']);
    await lock(0);
    await label(1, []);
    await lock(1);
    const need = async (name: string, avoids: string) => {
      const { people } = await viewRoll(context, { courseId });
      const person = people.find((each) => each.name === name);
      const enrolmentId = person?.id ?? '';
      await editPerson(context, {
        enrolmentId,
        version: person?.version,
        cells: cells({ name, servings: name === 'Mia' ? '4' : '1', avoids }),
      });
    };
    const held = async (at: number) => {
      const { sheet, events } = await viewBench(context, { sessionId: sessions[at] ?? '' });
      const back = calledBackNow(events);
      return sheet.kits.filter(({ id }) => back.has(id)).map(({ number }) => number);
    };
    await need('Noa', 'wheat');
    expect([await held(0), await held(1)]).toEqual([[2], [2]]);
    // What is not locked yet packs her oil afresh.
    await label(2, []);
    expect(await kitOf(2, 'Noa')).toEqual([]);
    expect((await kitOf(2, 'Mia'))[0]).toContain('jar for the course');
    await need('Noa', '');
    expect([await held(0), await held(1)]).toEqual([[], []]);
    // What is found in it later, of the first session's product, is in it all the same.
    await need('Noa', 'milk');
    expect(await held(1)).toEqual([]);
    await label(0, ['MILK']);
    expect(await held(1)).toEqual([2]);
  });

  it('leave a session that is over alone when somebody joins after it', async () => {
    const { courseId, sessions, lock } = await course([{ name: 'Abe', servings: '4' }]);
    await lock(0);
    const after = { ...context, clock: () => NOW.add({ hours: 24 * 10 }) };
    await addPerson(after, { courseId, cells: cells({ name: 'Late', servings: '4' }) });
    const differences = async (at: number) =>
      (await viewKitSheet(context, { sessionId: sessions[at] ?? '' })).sheet.differences.map(({ names }) => names);
    expect(await differences(0)).toEqual([]);
    await lock(1);
    await addPerson(after, { courseId, cells: cells({ name: 'Later', servings: '4' }) });
    expect(await differences(1)).toEqual([['Later']]);
  });

  it('are lacked by whoever never fetched the kit that held them', async () => {
    const { sessions, lock, kitOf } = await course([{ name: 'Bo', servings: '4' }]);
    await lock(0);
    const { sheet } = await viewKitSheet(context, { sessionId: sessions[0] ?? '' });
    const enrolmentId = sheet.locked?.kits[0]?.enrolmentId ?? '';
    expect(await kitOf(1, 'Bo')).toEqual([`1 ${OIL}`]);
    const mark = { sessionId: sessions[0] ?? '', enrolmentId };
    await recordAttendance(context, { ...mark, id: context.ids(), state: 'not collected' });
    expect(await kitOf(1, 'Bo')).toEqual([`2 ${OIL}, catch-up`, '1 measuring spoons, catch-up']);
  });

  it('are refused when they name no food, hold nothing, or end before they begin', async () => {
    const { courseId } = await course([{ name: 'Cy' }]);
    const { course: row } = await viewKitRules(context, { courseId });
    const save = (supply: object) =>
      setKitRules(context, { courseId, version: row.version, rules: { supplies: [{ id: 'x', ...supply }] } });
    await expect(save({ kind: 'jar', name: 'moon dust', grams: '100' })).rejects.toMatchObject({
      problems: [{ where: 'moon dust', message: expect.stringContaining('reference table') }],
    });
    await expect(save({ kind: 'jar', name: 'salt' })).rejects.toMatchObject({
      problems: [{ where: 'rules.supplies[0].grams' }],
    });
    await expect(save({ kind: 'issue once', name: 'board', from: 4, until: 2 })).rejects.toMatchObject({
      problems: [{ where: 'rules.supplies[0].until', message: 'The last session that needs it is before the first.' }],
    });
    await expect(setKitRules(context, { courseId, version: row.version - 1, rules: {} })).rejects.toMatchObject({
      kind: 'stale',
    });
  });
});

describe('what a family has at home', () => {
  it('is not packed, is topped up, and is told as a difference once the sheet is locked', async () => {
    const { courseId, sessions, lock } = await course([{ name: 'Dee', servings: '4' }]);
    await lock(0);
    const [person] = (await viewRoll(context, { courseId })).people;
    const householdId = person?.householdId ?? '';
    const home = { staples: ['Olive oil'], box: [{ ingredient: 'onion', grams: '500' }], heat: [], language: 'Norn' };
    const { household } = await viewHousehold(context, { householdId });
    await setHome(context, { householdId, version: household.version, home });
    const { sheet, figures } = await viewKitSheet(context, { sessionId: sessions[0] ?? '' });
    // Spoons go with this kit; a family that has none would be named with the next.
    expect(figures?.noSpoons).toEqual([]);
    expect(sheet.draft?.variants[0]?.components?.map(({ name, from }) => [name, from])).toContainEqual([
      'onion, chopped',
      'in the box they receive',
    ]);
    expect(sheet.differences).toHaveLength(1);
    await expect(
      setHome(context, { householdId, version: household.version + 1, home: { staples: ['moon dust'] } }),
    ).rejects.toMatchObject({ problems: [{ where: 'moon dust' }] });
    await expect(setHome(context, { householdId, version: household.version, home: {} })).rejects.toMatchObject({
      kind: 'stale',
    });
  });
});

describe('a dish in a session', () => {
  it('stays whole for who can cut, stands at the station for the room, and serves as many as the class says', async () => {
    const { sessionId, people } = await newSession(
      context,
      [
        { name: 'Eve', age: '9', servings: '1' },
        { name: 'Flo', age: '6', servings: '1' },
        { name: 'Gus', age: '12', servings: '1', mode: 'take-home' },
      ],
      SOUP,
    );
    expect(people).toHaveLength(3);
    const { bundle } = await viewKitSheet(context, { sessionId });
    const dishId = bundle.dishes[0]?.id ?? '';
    const ways = [
      { ingredient: 'onion', way: 'whole' },
      { ingredient: 'olive oil', way: 'station' },
    ] as const;
    await setLineWays(context, { sessionId, dishId, ways: [...ways], serves: 2 });
    const { sheet } = await viewKitSheet(context, { sessionId });
    const told = Object.fromEntries(
      (sheet.draft?.variants ?? []).map(({ participants, components }) => [
        participants[0]?.name,
        components?.map(({ say, name, isShared }) => `${say} ${name}${isShared ? ' (station)' : ''}`),
      ]),
    );
    expect(told).toEqual({
      Eve: ['1 onion, whole, cut at class', '1 Tbsp olive oil (station)'],
      Flo: ['½ cup onion, chopped', '1 Tbsp olive oil (station)'],
      Gus: ['1 onion, whole, cut at class', '1 Tbsp olive oil'],
    });
    await expect(
      setLineWays(context, { sessionId, dishId, ways: [{ ingredient: 'kale', way: 'whole' }], serves: null }),
    ).rejects.toThrow('kale is not among what');
    const prep = await viewPrepList(context, { date: '2026-11-26' });
    expect(prep.parts.flatMap(({ foods }) => foods.map(({ ingredient }) => ingredient))).toContain('onion');
  });

  it('is held against what is there, in grams, kilograms or pieces', async () => {
    const { sessionId } = await newSession(context, [{ name: 'Hal' }, { name: 'Ida' }], SOUP);
    const makes = async (have: Record<string, string>) => viewStockOutcome(context, { sessionId, have });
    // A quarter cup each: 40 g; the table’s medium onion is 110 g without its skin.
    expect((await makes({ onion: '45 g' })).outcome).toMatchObject({ kits: 1, of: 2 });
    expect((await makes({ onion: '1' })).outcome).toMatchObject({ kits: 2 });
    expect((await makes({ onion: '1 kg', 'olive oil': '0.001 kg' })).outcome).toMatchObject({ kits: 0 });
    expect((await makes({ onion: 'plenty' })).problems).toEqual([
      { where: 'onion', message: '"plenty" is no amount: write 750 g, 2 kg or 3.' },
    ]);
  });

  it('is packed in the programme’s containers, which are counted', async () => {
    const { sessionId } = await newSession(context, [{ name: 'Jo', servings: '4' }], SOUP);
    const containers = [
      { name: 'bag', ml: 250 },
      { name: 'pot', ml: 60 },
    ];
    await setContainers(context, { version: 1, containers });
    const { figures } = await viewKitSheet(context, { sessionId });
    expect(figures?.consumables.map(({ name, count }) => [name, count])).toEqual([
      ['pot', 1],
      ['bag', 1],
    ]);
  });
});
