import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { calledBackNow } from '@/core/packing/progress';
import { find } from '@/store/query';
import { openStore, type Store } from '@/store/store';
import { cells, NOW, newProgramme, newSession, testStore } from '../../../tests/programme';
import { recordAttendance } from '../classday/attendance';
import type { Context, Role } from '../gate/gate';
import { decideKit } from '../handout/not-fetched';
import { unlockSheet } from '../kits/decide';
import {
  exportSheet,
  forgetLabel,
  leaveOut,
  lockKitSheet,
  putBack,
  recordLabel,
  viewKitSheet,
} from '../kits/kit-sheet';
import { recordTicks, viewBench } from '../packing/bench';
import { labelsToPrint } from '../packing/labels';
import { type BenchNews, watchBench } from '../packing/live';
import { addGroup } from '../plan/groups';
import { moveSession, removeDish } from '../plan/sessions';
import { forgetMeaning, giveMeaning } from '../programme/programme';
import { editRecipe, saveEdited } from '../recipes/drafts';
import { addProduct, setKitLabel } from '../recipes/products';
import { shareKit } from '../roll/away';
import { addPerson, editPerson, setStatus } from '../roll/roll';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
  own = await newProgramme(store);
});
afterAll(() => store.close());

async function locked(people: Parameters<typeof newSession>[1]) {
  const session = await newSession(own.coordinator, people);
  const { sessionId } = session;
  await lockKitSheet(own.coordinator, { sessionId, basis: await session.basis() });
  /** Numbers of the kits called back now. */
  const held = async () => {
    const { sheet, events } = await viewBench(own.crew, { sessionId });
    const back = calledBackNow(events);
    return sheet.kits.filter(({ id }) => back.has(id)).map(({ number }) => number);
  };
  const edit = (version: number, change: object) =>
    editPerson(own.coordinator, {
      enrolmentId: session.people[0],
      version,
      cells: cells({ name: 'Ada', ...change }),
    });
  return { ...session, held, edit };
}

describe('a kit is called back', () => {
  it('when what its person must avoid changes after the lock, until it is as it was', async () => {
    const { edit, held } = await locked([{ name: 'Ada' }, { name: 'Bram' }]);
    await edit(1, { avoids: 'milk' });
    expect(await held()).toEqual([1]);
    await edit(2, { avoids: 'milk; fish' });
    expect(await held()).toEqual([1]);
    await edit(3, {});
    expect(await held()).toEqual([]);
  });

  it('when a word has no meaning, or gets another one, anywhere in the programme', async () => {
    await giveMeaning(own.coordinator, { word: 'dairy things', codes: ['MILK'] });
    const { held } = await locked([{ name: 'Ada', avoids: 'dairy things' }]);
    await forgetMeaning(own.coordinator, { word: 'dairy things' });
    expect(await held()).toEqual([1]);
    await giveMeaning(own.coordinator, { word: 'dairy things', codes: ['MILK'] });
    expect(await held()).toEqual([]);
  });

  it('when its person leaves, or is left out, and not when they come back', async () => {
    const { sessionId, people, held } = await locked([{ name: 'Ada' }, { name: 'Bram' }]);
    await setStatus(own.coordinator, { enrolmentId: people[1], version: 1, status: 'withdrawn' });
    expect(await held()).toEqual([2]);
    await setStatus(own.coordinator, { enrolmentId: people[1], version: 2, status: 'enrolled' });
    await leaveOut(own.coordinator, { sessionId, enrolmentId: people[0], reason: 'ill today' });
    expect(await held()).toEqual([1]);
    await putBack(own.coordinator, { sessionId, enrolmentId: people[0] });
    expect(await held()).toEqual([]);
  });

  it('when the product in hand holds what its person avoids', async () => {
    const { sessionId, held } = await locked([{ name: 'Ada' }, { name: 'Sefa', avoids: 'sesame' }]);
    await recordLabel(own.coordinator, {
      sessionId,
      ingredient: 'ground cumin',
      product: 'Spice no. 4',
      allergens: ['SESAME'],
    });
    expect(await held()).toEqual([2]);
  });

  it('for what is in it, whatever became of the recipe since', async () => {
    const { sessionId, recipeId, people, held } = await locked([{ name: 'Ada' }, { name: 'Bram' }]);
    const draft = await editRecipe(own.coordinator, { recipeId });
    const lines = draft.lines.filter(({ settled }) => settled.ingredient !== 'egg');
    await saveEdited(own.coordinator, { ...draft, lines, recipeId, title: `Without egg ${v7()}` });
    const needs = (avoids: string, at: number) =>
      editPerson(own.coordinator, { enrolmentId: people[0], version: at, cells: cells({ name: 'Ada', avoids }) });
    await needs('egg', 1);
    expect(await held()).toEqual([1]);
    await needs('', 2);
    expect(await held()).toEqual([]);
    const [dish] = await find(store.db, store.db.models.dish, { sessionId });
    await removeDish(own.coordinator, { sessionId, dishId: dish?.id });
    await needs('milk', 3);
    expect(await held()).toEqual([1]);
  });

  it('when the label of what stands in for somebody is found to hold it, is taken back, or the product is another', async () => {
    const { sessionId, held } = await locked([{ name: 'Ada' }, { name: 'Mo', avoids: 'milk' }]);
    const label = (allergens: string[]) =>
      recordLabel(own.coordinator, { sessionId, ingredient: 'firm tofu', product: 'Block', allergens });
    expect(await held()).toEqual([]);
    await label(['SOY']);
    expect(await held()).toEqual([]);
    await label(['SOY', 'MILK']);
    expect(await held()).toEqual([2]);
    await label(['SOY']);
    expect(await held()).toEqual([]);
    const add = (name: string, allergens: string[]) =>
      addProduct(own.coordinator, {
        ingredient: 'firm tofu',
        name,
        packGrams: '300',
        price: '',
        labelRead: true,
        allergens,
      });
    await add('With whey', ['SOY', 'MILK']);
    await forgetLabel(own.coordinator, { sessionId, ingredient: 'firm tofu' });
    expect(await held()).toEqual([]);
    const product = (
      await find(store.db, store.db.models.product, {
        name: 'With whey',
        programmeId: own.coordinator.actor.programmeId,
      })
    )[0];
    await setKitLabel(own.coordinator, { productId: product?.id, use: true });
    expect(await held()).toEqual([2]);
    await setKitLabel(own.coordinator, { productId: product?.id, use: false });
    expect(await held()).toEqual([]);
  });

  it('until it is eaten: by its last group, and by the day on which its family cooks', async () => {
    const { sessionId, courseId, people, held } = await locked([{ name: 'Ada' }, { name: 'Bram' }]);
    const later = { ...own.coordinator, clock: () => NOW.add({ hours: 24 * 9 }) };
    const need = (version: number, avoids: string) =>
      editPerson(later, { enrolmentId: people[0], version, cells: cells({ name: 'Ada', avoids }) });
    // Three days after the class, nobody eats of it any more.
    await need(1, 'milk');
    expect(await held()).toEqual([]);
    await store.db.models.session.update({ cookBy: '2026-11-30' }, { where: { id: sessionId } });
    await need(2, 'milk');
    expect(await held()).toEqual([1]);
    await need(3, '');
    await store.db.models.session.update({ cookBy: null }, { where: { id: sessionId } });
    await need(4, 'milk');
    expect(await held()).toEqual([]);
    await addGroup(own.coordinator, {
      courseId,
      name: 'Second',
      firstName: 'First',
      daysAfter: 4,
      startsAt: '16:00',
      place: 'Boatshed',
      instructorId: null,
    });
    await need(5, 'milk');
    expect(await held()).toEqual([1]);
  });

  it('for a brother who joined since and shares it, while it is not eaten', async () => {
    const family = { household: 'Finch' };
    const { courseId, sessionId, held, people } = await locked([{ name: 'Ada', ...family }, { name: 'Bram' }]);
    const [ada] = await find(store.db, store.db.models.enrolment, { id: people[0] });
    await shareKit(own.coordinator, { courseId, householdId: ada?.householdId ?? '', share: true });
    await store.db.models.session.update({ cookBy: '2026-12-01' }, { where: { id: sessionId } });
    const later = { ...own.coordinator, clock: () => NOW.add({ hours: 24 * 9 }) };
    const joined = { name: 'Egon', avoids: 'milk', ...family };
    await addPerson(later, { courseId, cells: cells(joined), status: 'enrolled' });
    await shareKit(later, { courseId, householdId: ada?.householdId ?? '', share: true });
    expect(await held()).toEqual([1]);
  });

  it('not for an amount or a dish that changed: that waits for the next revision, which lets all go on', async () => {
    const { sessionId, edit, held, basis } = await locked([{ name: 'Ada' }, { name: 'Bram' }]);
    await edit(1, { servings: '3' });
    expect(await held()).toEqual([]);
    await edit(2, { servings: '3', avoids: 'milk' });
    expect(await held()).toEqual([1]);
    await lockKitSheet(own.coordinator, { sessionId, basis: await basis() });
    expect(await held()).toEqual([]);
    await expect(removeDish(own.coordinator, { sessionId, dishId: v7() })).rejects.toMatchObject({ kind: 'not-found' });
  });
});

describe('a session that was over', () => {
  it('and is moved to a later day calls back what was told meanwhile', async () => {
    const { sessionId, people, held } = await locked([{ name: 'Ada' }, { name: 'Bram' }]);
    const later = { ...own.coordinator, clock: () => NOW.add({ hours: 24 * 9 }) };
    await editPerson(later, { enrolmentId: people[0], version: 1, cells: cells({ name: 'Ada', avoids: 'milk' }) });
    expect(await held()).toEqual([]);
    const to = { date: '2026-12-01', startsAt: '16:00' };
    await moveSession(later, { sessionId, version: 1, ...to });
    expect(await held()).toEqual([1]);
  });
});

describe('what is in a kit', () => {
  it('counts until it is taken out again, whatever a later revision asks for', async () => {
    const { sessionId, edit, held, basis } = await locked([{ name: 'Ada' }, { name: 'Bram' }]);
    const { sheet } = await viewBench(own.crew, { sessionId });
    const [kit] = sheet.kits;
    const yogurt = kit?.components.find((key) => key.includes('plain yogurt'));
    const tick = (action: string) =>
      recordTicks(own.crew, { sessionId, ticks: [{ id: v7(), kitId: kit?.id, component: yogurt, action }] });
    await tick('packed');
    await edit(1, { avoids: 'milk' });
    expect(await held()).toEqual([1]);
    // The new revision holds tofu; the yogurt stands in the kit all the same.
    await lockKitSheet(own.coordinator, { sessionId, basis: await basis() });
    expect(await held()).toEqual([1]);
    await tick('undone');
    expect(await held()).toEqual([]);
  });

  it('is judged although its sheet was unlocked', async () => {
    const { sessionId, edit, people } = await locked([{ name: 'Ada', mode: 'take-home' }, { name: 'Bram' }]);
    await unlockSheet(own.coordinator, { sessionId, revision: 1, reason: 'another dish' });
    await edit(1, { avoids: 'milk', mode: 'take-home' });
    const collected = { sessionId, id: v7(), enrolmentId: people[0], state: 'collected' };
    await expect(recordAttendance(own.coordinator, collected)).rejects.toThrow('The kit of Ada is called back');
  });

  it('is judged for whoever took it over', async () => {
    const { sessionId, courseId, held, people } = await locked([{ name: 'Ada', mode: 'take-home' }, { name: 'Bram' }]);
    const eve = await addPerson(own.coordinator, {
      courseId,
      cells: cells({ name: 'Eve', avoids: 'fish' }),
      status: 'waitlisted',
    });
    await recordAttendance(own.coordinator, { sessionId, id: v7(), enrolmentId: people[0], state: 'not collected' });
    const { sheet } = await viewBench(own.crew, { sessionId });
    const given = { sessionId, id: v7(), kitId: sheet.kits[0]?.id, fate: 'given away', toId: eve.id };
    await decideKit(own.coordinator, given);
    // It is no longer Ada's.
    await editPerson(own.coordinator, {
      enrolmentId: people[0],
      version: 1,
      cells: cells({ name: 'Ada', avoids: 'milk', mode: 'take-home' }),
    });
    expect(await held()).toEqual([]);
    await editPerson(own.coordinator, {
      enrolmentId: eve.id,
      version: 1,
      cells: cells({ name: 'Eve', avoids: 'fish; egg' }),
    });
    expect(await held()).toEqual([1]);
  });
});

describe('what is found in a product that nobody here avoids', () => {
  it('changes what labels must say: whose are out is told, and those alone are printed anew', async () => {
    const { sessionId, held, basis } = await locked([{ name: 'Ada' }]);
    const label = { sessionId, ingredient: 'ground cumin', product: 'Tin no. 4', allergens: ['SESAME'] };
    await recordLabel(own.coordinator, label);
    expect(await held()).toEqual([]);
    const { sheet } = await viewKitSheet(own.coordinator, { sessionId });
    expect(sheet.differences.map(({ names, what }) => [names, what])).toEqual([
      [['Ada'], ['print its label anew: it does not say sesame', 'ground cumin of Tin no. 4, was of any product']],
    ]);
    await lockKitSheet(own.coordinator, { sessionId, basis: await basis() });
    const { labels } = await labelsToPrint(own.coordinator, { sessionId, paper: 'a4', of: 'changed' });
    expect(labels.map(({ name, allergens, inside }) => [name, allergens, inside.at(-1)])).toEqual([
      ['Ada', expect.stringContaining('sesame'), expect.stringContaining('ground cumin (Tin no. 4)')],
    ]);
  });
});

describe('a kit that is called back', () => {
  it('is stopped wherever it goes: at the bench, at the door, on its label and in what is taken out', async () => {
    const { sessionId, people, edit, held } = await locked([{ name: 'Ada', mode: 'take-home' }, { name: 'Bram' }]);
    const { sheet } = await viewBench(own.crew, { sessionId });
    const tick = (kit: number, component: number, action = 'packed') => {
      const { id, components } = sheet.kits[kit] as (typeof sheet.kits)[0];
      return { id: v7(), kitId: id, component: components[component], action };
    };
    const send = (...ticks: object[]) => recordTicks(own.crew, { sessionId, ticks });
    const before = tick(0, 0);
    await send(before);
    await edit(1, { avoids: 'milk', mode: 'take-home' });
    expect(await held()).toEqual([1]);
    await expect(send(tick(0, 1))).rejects.toThrow('Kit 1 is called back');
    // Its answer was lost: it is no new one. The other kit goes on, and what is in this one may come out.
    expect(await send(before, tick(1, 0), tick(0, 0, 'undone'))).toMatchObject({ added: 2 });

    const collected = { sessionId, id: v7(), enrolmentId: people[0], state: 'collected' };
    await expect(recordAttendance(own.coordinator, collected)).rejects.toThrow('The kit of Ada is called back');
    await recordAttendance(own.coordinator, { ...collected, anyway: true });

    const { labels } = await labelsToPrint(own.coordinator, { sessionId, paper: 'a4' });
    expect(labels.map(({ madeWithout }) => madeWithout)).toEqual([expect.stringMatching(/^CALLED BACK/), '']);
    const made = await labelsToPrint(own.coordinator, { sessionId, paper: 'a4', of: 'made' });
    expect(made.labels[0]?.madeWithout).toMatch(/^CALLED BACK/);
    const { text } = await exportSheet(own.coordinator, { sessionId });
    expect(text).toMatch(/^called back,.*do not hand out.*1 Ada/m);
    await edit(2, { mode: 'take-home' });
    expect((await exportSheet(own.coordinator, { sessionId })).text).not.toContain('called back');
    await send(tick(0, 1));
  });
});

describe('a screen at the bench', () => {
  it('hears soon while others tick without a pause', async () => {
    const { sessionId } = await locked([{ name: 'Ada' }, { name: 'Bram' }]);
    const { sheet } = await viewBench(own.crew, { sessionId });
    const heard: number[] = [];
    let acknowledged = 0;
    const stop = watchBench(store, sessionId, 0, ({ events }) => {
      for (const { seq } of events) heard.push(seq);
    });
    // Each tick wakes the bench again before it has looked: it must not be put off for ever.
    for (let n = 0; n < 60; n++) {
      const kit = sheet.kits[n % 2];
      const sent = { id: v7(), kitId: kit?.id, component: kit?.components[0], action: 'packed' };
      acknowledged += (await recordTicks(own.crew, { sessionId, ticks: [sent] })).added;
    }
    expect(acknowledged).toBe(60);
    // Before the last was acknowledged, most had been heard.
    expect(heard.length).toBeGreaterThan(20);
    await expect.poll(() => heard.length, { timeout: 10_000 }).toBe(60);
    stop();
  });

  it('hears every tick and call-back in order, without a gap, also of another server, and from where it left off', async () => {
    const { sessionId, edit } = await locked([{ name: 'Ada' }, { name: 'Bram' }, { name: 'Cleo' }]);
    const { sheet } = await viewBench(own.crew, { sessionId });
    const other = openStore(process.env.TEST_DATABASE_URL ?? '');
    const heard: BenchNews[] = [];
    const stop = watchBench(store, sessionId, 0, (news) => heard.push(news));
    const tick = (n: number) => {
      const kit = sheet.kits[n % 3];
      const sent = { id: v7(), kitId: kit?.id, component: kit?.components[n % 2], action: 'packed' };
      return recordTicks({ ...own.crew, store: n % 2 ? other : store }, { sessionId, ticks: [sent] });
    };
    await Promise.all(Array.from({ length: 80 }, (_, n) => tick(n)));
    await edit(1, { avoids: 'milk' });
    const seqs = (news: BenchNews[]) => news.flatMap(({ events }) => events.map(({ seq }) => seq));
    const wanted = Array.from({ length: 81 }, (_, n) => n + 1);
    await expect.poll(() => seqs(heard), { timeout: 10_000 }).toEqual(wanted);
    expect(heard.at(-1)?.events.at(-1)).toMatchObject({ action: 'called back' });
    stop();
    // The connection broke after the fortieth: the screen comes back and hears the rest.
    const again: BenchNews[] = [];
    const stopAgain = watchBench(store, sessionId, 40, (news) => again.push(news));
    await expect.poll(() => seqs(again), { timeout: 10_000 }).toEqual(wanted.slice(40));
    stopAgain();
    await other.close();
  });
});
