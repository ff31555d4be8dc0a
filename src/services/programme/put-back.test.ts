import { afterAll, beforeAll, expect, it } from 'vitest';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { NOW, newProgramme, newSession, testStore } from '../../../tests/programme';
import { addOneOffJob, removeOneOffJob } from '../countdown/countdown';
import type { Context } from '../gate/gate';
import { addClosure, bringPublicHolidays, listClosures, removeCalendar, removeClosure } from '../plan/closures';
import { addPlace, removePlace, setTravel } from '../plan/places';
import { removeDish } from '../plan/sessions';
import { addProduct, removeProduct } from '../recipes/products';
import { putBackTaken } from './put-back';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
  context = (await newProgramme(store)).coordinator;
});
afterAll(() => store.close());

const PLACE = { seats: '', hours: [], equipment: {}, minutesBefore: 0, minutesAfter: 0, outdoor: null };
const WHERE = ['place', 'travel', 'closureCalendar', 'closure', 'product', 'dish', 'sessionJob'] as const;

/** Every row that belongs to one of these, of the tables that something can be taken from, as the database has it. */
async function rowsOf(ids: readonly string[]): Promise<string[]> {
  const rows = await Promise.all(WHERE.map((table) => find(store.db, store.db.models[table] as never, {})));
  const written = rows.flatMap((of, at) => of.map((row) => `${WHERE[at]} ${JSON.stringify(row)}`));
  return written.filter((row) => ids.some((id) => row.includes(id))).sort();
}

it('what was taken away is put back as it was, once, and by nobody else', async () => {
  const { sessionId } = await newSession(context, [{ name: 'Ada' }]);
  const from = await addPlace(context, { name: 'Net loft', ...PLACE });
  const to = await addPlace(context, { name: 'Sail hall', ...PLACE });
  await setTravel(context, { fromId: from, toId: to, minutes: 12 });
  const own = await addClosure(context, { title: 'Regatta', from: '2026-12-02', to: '2026-12-03', placeId: to });
  const { id: calendarId } = await bringPublicHolidays(context, { country: 'GB', region: 'SCT' });
  await addProduct(context, { ingredient: 'ground cumin', name: 'Jar', packGrams: '40', price: '2,49' });
  const [product] = await find(store.db, store.db.models.product, { programmeId: context.actor.programmeId });
  const [dish] = await find(store.db, store.db.models.dish, { sessionId });
  const job = await addOneOffJob(context, {
    sessionId,
    title: 'Fetch the urn',
    stage: 'packing',
    minutes: 20,
    hours: 'crew',
    before: 'packing',
  });
  const ways: [string, () => Promise<string>][] = [
    ['a closure', () => removeClosure(context, { closureId: own })],
    ['holidays', () => removeCalendar(context, { calendarId })],
    ['a place with its ways and closures', () => removePlace(context, { placeId: to })],
    ['a product', () => removeProduct(context, { productId: product?.id ?? '' })],
    ['a dish', () => removeDish(context, { sessionId, dishId: dish?.id ?? '' })],
    ['a job', () => removeOneOffJob(context, { sessionId, job })],
  ];
  const foreign = (await newProgramme(store)).coordinator;
  const { calendars } = await listClosures(context, {});
  const everything = () => rowsOf([context.actor.programmeId, sessionId, from, ...calendars.map(({ id }) => id)]);
  const before = await everything();
  expect(before.length).toBeGreaterThan(20);
  for (const [what, takeAway] of ways) {
    const changeId = await takeAway();
    expect(await everything(), what).not.toEqual(before);
    await expect(putBackTaken(foreign, { changeId })).rejects.toMatchObject({ kind: 'not-found' });
    await putBackTaken(context, { changeId });
    expect(await everything(), what).toEqual(before);
    await expect(putBackTaken(context, { changeId })).rejects.toThrow('put back already');
  }
});

it('is not put back a day later, nor into what is gone itself', async () => {
  const closureId = await addClosure(context, { title: 'Gale', from: '2026-12-09', to: '2026-12-09', placeId: '' });
  const changeId = await removeClosure(context, { closureId });
  const tomorrow = { ...context, clock: () => NOW.add({ hours: 25 }) };
  await expect(putBackTaken(tomorrow, { changeId })).rejects.toMatchObject({ kind: 'not-found' });
  const { calendars } = await listClosures(context, {});
  await removeCalendar(context, { calendarId: calendars.find(({ name }) => name === 'Own closures')?.id ?? '' });
  await expect(putBackTaken(context, { changeId })).rejects.toThrow('what it belonged to is gone');
});
