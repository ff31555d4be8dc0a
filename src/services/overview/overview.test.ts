import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { accountFor } from '@/store/accounts';
import { insert, remove, update } from '@/store/query';
import type { Store } from '@/store/store';
import { NOW, newProgramme, newSession, newVisit, select, testStore } from '../../../tests/programme';
import { hashPassword } from '../access/passwords';
import { signIn } from '../access/sign-in';
import { recordAttendance } from '../classday/attendance';
import type { Context } from '../gate/gate';
import { findOverseer, OVERSEEING, type Overseeing } from '../gate/overseeing';
import { lockKitSheet } from '../kits/kit-sheet';
import { saveCity, viewCity } from './city';
import { viewInstallation } from './operating';

const PASSWORD = 'counts and coins';
const SPAN = { from: '2026-11-01', to: '2026-11-30' };
let store: Store;

async function newCity(): Promise<string> {
  const id = v7();
  await insert(store.db, store.db.models.city, [{ id, name: `City ${id}` }]);
  return id;
}

/** A programme of a city, with a session on 26 November for these people, all but the last of whom came. */
async function programmeIn(cityId: string, names: readonly string[]): Promise<{ context: Context; sessionId: string }> {
  const context = (await newProgramme(store)).coordinator;
  await update(store.db, store.db.models.programme, { id: context.actor.programmeId }, { cityId });
  const { sessionId, people, basis } = await newSession(
    context,
    names.map((name) => ({ name, servings: '2' })),
  );
  await lockKitSheet(context, { sessionId, basis: await basis() });
  const after: Context = { ...context, clock: () => NOW.add({ hours: 24 * 7 }) };
  for (const [at, enrolmentId] of people.entries()) {
    const mark = { sessionId, enrolmentId };
    // Told wrongly first: the newest answer counts.
    await recordAttendance(after, { ...mark, id: v7(), state: 'absent' });
    if (at < people.length - 1) await recordAttendance(after, { ...mark, id: v7(), state: 'came' });
  }
  return { context, sessionId };
}

/** Somebody who looks over cities, and (with null) after the installation, signed in. */
async function overseer(...cityIds: (string | null)[]): Promise<Overseeing> {
  const visit = newVisit(store);
  const email = `${v7()}@example.test`;
  const accountId = await accountFor(store.db, { email, id: v7(), passwordHash: await hashPassword(visit, PASSWORD) });
  const createdAt = new Date();
  await insert(
    store.db,
    store.db.models.overseer,
    cityIds.map((cityId) => ({ id: v7(), accountId, cityId, name: 'Ines', createdAt })),
  );
  const { signInId = '' } = (await signIn(visit, email, PASSWORD)) ?? {};
  const found = await findOverseer(store, signInId, new Date(NOW.epochMilliseconds));
  if (!found) throw new Error('nobody');
  return { overseer: found, clock: () => NOW.add({ hours: 24 * 8 }), store };
}

beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

describe('whoever looks over a city', () => {
  it('sees what its programmes count, and names nobody', async () => {
    const cityId = await newCity();
    const names = ['Ansa Brill', 'Ruan Tarn', 'Jory Lund', 'Cato Frome', 'Mab Selwick', 'Una Skene'];
    const quay = await programmeIn(cityId, names);
    await programmeIn(cityId, [...names, 'Lark Oxley']);
    await programmeIn(await newCity(), names);
    const asked = await overseer(cityId);
    const before = store.queries();
    const { programmes, totals } = await viewCity(asked, { cityId, ...SPAN });
    // However many programmes there are.
    expect(store.queries() - before).toBe(8);
    expect(programmes).toHaveLength(2);
    expect(programmes.find(({ id }) => id === quay.context.actor.programmeId)).toMatchObject({
      held: 1,
      people: 6,
      kits: 6,
      attendance: 83,
    });
    expect(totals).toMatchObject({ held: 2, people: 13, kits: 13, attendance: 85 });
    const file = await saveCity(asked, { cityId, ...SPAN });
    for (const name of names.flatMap((each) => each.split(' ')))
      expect(JSON.stringify({ programmes, file })).not.toContain(name);
  });

  it('sees no other city, and not the installation; a sign-in that has ended sees nothing', async () => {
    const [own, other] = [await newCity(), await newCity()];
    await programmeIn(other, ['Ansa Brill']);
    const asked = await overseer(own);
    await expect(viewCity(asked, { cityId: other, ...SPAN })).rejects.toMatchObject({ kind: 'not-found' });
    await expect(viewCity(asked, { cityId: `${other}' OR 1=1 -- `, ...SPAN })).rejects.toMatchObject({
      kind: 'not-found',
    });
    await expect(viewInstallation(asked, {})).rejects.toMatchObject({ kind: 'not-found' });
    await expect(viewCity(asked, { cityId: own, from: '2026-11-30', to: '2026-11-01' })).rejects.toMatchObject({
      problems: [{ where: 'to' }],
    });
    const [row] = await select<{ id: string }>(store.db, 'SELECT id FROM sign_in WHERE account_id = :id', {
      id: asked.overseer.accountId,
    });
    await update(store.db, store.db.models.signIn, { id: row?.id ?? '' }, { endedAt: new Date() });
    expect(await findOverseer(store, row?.id ?? '', new Date(NOW.epochMilliseconds))).toBeUndefined();
  });

  it('comes in no more once they look over nothing', async () => {
    const email = `${v7()}@example.test`;
    const visit = newVisit(store);
    const accountId = await accountFor(store.db, {
      email,
      id: v7(),
      passwordHash: await hashPassword(visit, PASSWORD),
    });
    expect(await signIn(visit, email, PASSWORD)).toBeUndefined();
    const row = { id: v7(), accountId, cityId: await newCity(), name: 'Ines', createdAt: new Date() };
    await insert(store.db, store.db.models.overseer, [row]);
    expect(await signIn(visit, email, PASSWORD)).toBeDefined();
    await remove(store.db, store.db.models.overseer, { accountId });
    expect(await signIn(visit, email, PASSWORD)).toBeUndefined();
  });

  it('is not a member of any programme, and a member looks over none', async () => {
    const { coordinator } = await newProgramme(store);
    expect(await findOverseer(store, coordinator.actor.id, new Date())).toBeUndefined();
    expect(OVERSEEING.map(({ title, of }) => `${of}: ${title}`).sort()).toEqual([
      'city: Look over the programmes of a city, in counts and money',
      'operator: See how the installation stands: its database, its work, its programmes, in counts',
    ]);
  });
});

describe('whoever looks after the installation', () => {
  it('sees how it stands, what is wrong first, and no family', async () => {
    const cityId = await newCity();
    const { context } = await programmeIn(cityId, ['Ansa Brill', 'Ruan Tarn']);
    // Long after whatever else says here that it works in the background.
    const asked: Overseeing = { ...(await overseer(null)), clock: () => NOW.add({ hours: 24 * 3650 }) };
    const seen = await viewInstallation(asked, { find: cityId });
    expect(seen.ready).toMatchObject({ database: true, migrations: true });
    expect(seen.wrong.join(' ')).toContain('Start a background process');
    expect(seen.programmes.find(({ id }) => id === context.actor.programmeId)).toMatchObject({ members: 3, people: 2 });
    expect(JSON.stringify(seen)).not.toMatch(/Ansa|Ruan/);
    await expect(viewCity(asked, { cityId: '', ...SPAN })).rejects.toMatchObject({ kind: 'not-found' });
  });
});
