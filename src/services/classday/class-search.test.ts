import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPlace } from '@/services/plan/places';
import { find, update } from '@/store/query';
import type { Store } from '@/store/store';
import { cells, newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { addDish } from '../plan/sessions';
import { saveRecipe } from '../recipes/recipes';
import { addPerson, setStatus, viewRoll } from '../roll/roll';
import { classSince, planClassAgain, sayInClass, viewClass } from './live';
import { viewRunSheet } from './run-sheet';
import { swapInClass } from './substitute';

let store: Store;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

/** What foods hold, written by hand: the judge asks no table of the program's. */
const HOLDS: Readonly<Record<string, string>> = {
  milk: 'milk',
  'plain yogurt': 'milk',
  butter: 'milk',
  'firm tofu': 'soya',
  'almond butter': 'tree nuts',
  egg: 'egg',
  'plain wheat flour': 'wheat',
  'ground almonds': 'tree nuts',
};
/** What steps use, by how they begin. */
const WRITTEN: Readonly<Record<string, readonly string[]>> = {
  'Stir butter': ['butter', 'plain yogurt'],
  'Simmer the yogurt': ['plain yogurt'],
};
const NEEDS = ['milk', 'egg', 'soya', 'tree nuts', 'wheat'];
const OTHERS = ['firm tofu', 'almond butter', 'apple', 'plain yogurt', 'rapeseed oil'];

const chanceFrom = (seed: number) => () => {
  seed = (seed * 1103515245 + 12345) % 2147483648;
  return seed / 2147483648;
};

describe('a search for a class that hurts somebody', () => {
  it.each([11, 12, 97])('finds none: seed %i', async (seed) => {
    const chance = chanceFrom(seed);
    const pick = <T>(all: readonly T[]): T => all[Math.floor(chance() * all.length)] as T;
    const own = await newProgramme(store);
    const line = (ingredient: string, amount: string, unit: string, ...others: string[]) => ({
      ingredient,
      amount,
      unit,
      alternatives: others.map((other) => ({ ingredient: other, amount: '100', unit: 'g' })),
    });
    const { sessionId, courseId } = await newSession(
      own.coordinator,
      [1, 2, 3, 4, 5, 6].map((n) => ({ name: `Child ${n}`, age: String(6 + n) })),
      [line('milk', '200', 'g', 'apple'), line('egg', '100', 'g', 'firm tofu', 'apple')],
    );
    const recipeId = await saveRecipe(own.coordinator, {
      title: `Cake ${v7()}`,
      body: {
        servings: 4,
        lines: [
          line('butter', '100', 'g', 'rapeseed oil'),
          line('plain yogurt', '100', 'g', 'firm tofu', 'almond butter'),
        ],
        steps: ['Stir butter and yogurt.', 'Simmer the yogurt for 5 minutes.', 'Toss.'],
      },
    });
    await addDish(own.coordinator, { sessionId, recipeId });
    const place = { seats: '', hours: [], minutesBefore: 0, minutesAfter: 0, outdoor: null };
    const equipment = { stations: 3, burners: pick([1, 3]) };
    const placeId = await addPlace(own.coordinator, { ...place, name: `Hall ${v7()}`, equipment });
    await update(store.db, store.db.models.session, { id: sessionId }, { placeId });
    let minute = 0;
    /** Times that words of the plan were no longer true, and the screen said so. */
    let breaches = 0;
    const now = (): Context => ({
      ...own.coordinator,
      clock: () => Temporal.Instant.from('2026-11-26T16:00:00Z').add({ minutes: minute }),
    });
    const say = (what: string, item = '', value: object = {}) => {
      const at = now().clock().toString();
      return sayInClass(now(), { sessionId, now: at, events: [{ id: v7(), what, item, value, at }] });
    };
    for (let turn = 0; turn < 30; turn++) {
      minute += 1;
      const roll = chance();
      if (turn === 3 || roll > 0.95) {
        const { plan } = await viewClass(now(), { sessionId });
        await say('begun', '', { plan });
      } else if (roll < 0.2)
        await addPerson(own.coordinator, {
          courseId,
          cells: cells({ name: `New ${turn}`, age: '9', avoids: pick(NEEDS) }),
        });
      else if (roll < 0.35) {
        const { people } = await viewRoll(own.coordinator, { courseId });
        const one = pick(people.filter(({ status }) => status === 'enrolled'));
        if (one) await setStatus(own.coordinator, { enrolmentId: one.id, version: one.version, status: 'withdrawn' });
      } else if (roll < 0.75)
        await swapInClass(now(), {
          sessionId,
          id: v7(),
          food: pick(['milk', 'butter', 'egg', 'plain yogurt']),
          station: pick(['all', '1', '2']),
          way: pick(['recipe', 'other', 'leave out'] as const),
          instead: pick(OTHERS),
          amount: '100',
          unit: 'g',
        }).catch((error: unknown) => expect(error).toMatchObject({ kind: 'invalid' }));
      else
        await planClassAgain(now(), { sessionId, id: v7() }).catch((error: unknown) =>
          expect(error).toMatchObject({ kind: expect.stringMatching(/stale|invalid/) }),
        );
      await judge();
    }
    // A search that never comes near would find nothing.
    expect(breaches).toBeGreaterThan(0);

    /** Nobody stands at a station that is told to use what they must avoid; judged from the rows of the roll. */
    async function judge(): Promise<void> {
      const rows = await find(store.db, store.db.models.enrolment, { courseId, status: 'enrolled' });
      const avoidsOf = (ids: readonly string[]) =>
        new Set(rows.filter(({ id }) => ids.includes(id)).flatMap(({ needs }) => needs));
      const { plan, unsafe, changed } = await viewClass(now(), { sessionId });
      const said = [...unsafe, ...changed].join(' ');
      const placed = plan?.stations.flatMap(({ people }) => people) ?? [];
      const since = rows.map(({ id }) => id).filter((id) => !placed.includes(id));
      const { events } = await classSince(now(), { sessionId, after: 0 });
      // Before it begins the run sheet is what is cooked.
      if (!events.some(({ what }) => what === 'begun' || what === 'swapped')) {
        const { food, stations } = await viewRunSheet(now(), { sessionId });
        for (const { station, foods } of food) {
          const names =
            stations.find(({ number }) => number === station)?.pairs.flatMap(({ children }) => children) ?? [];
          const needs = new Set(rows.filter(({ name }) => names.includes(name)).flatMap((row) => row.needs));
          for (const each of foods)
            expect(needs.has(HOLDS[each.food] ?? ''), `${each.food} at station ${station}`).toBe(false);
        }
      }
      for (const task of plan?.tasks ?? []) {
        const written = Object.entries(WRITTEN).flatMap(([words, foods]) => (task.text.startsWith(words) ? foods : []));
        const left = written.filter((name) => !new RegExp(`(?:instead of|without) ${name}`, 'i').test(task.notes));
        const instead = [...task.notes.matchAll(/([A-Za-z ]+) instead of /g)].map(([, name = '']) =>
          name.trim().toLowerCase(),
        );
        const there = plan?.stations.find(({ number }) => number === task.station)?.people ?? [];
        const needs = avoidsOf([...there, ...since]);
        for (const each of [...instead, ...left]) {
          if (!needs.has(HOLDS[each] ?? '')) continue;
          breaches += 1;
          expect(said, `${each} at station ${task.station}, and nothing is said`).not.toBe('');
        }
      }
      expect(events.map(({ seq }) => seq)).toEqual(events.map((_, at) => at + 1));
    }
  });
});
