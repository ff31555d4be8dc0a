import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { packedNow, packProgress } from '@/core/packing/progress';
import { benchStandings } from '@/store/bench';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { randomFrom } from '../../../scripts/random.mjs';
import { cells, newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context, Role } from '../gate/gate';
import { lockKitSheet } from '../kits/kit-sheet';
import { editPerson } from '../roll/roll';
import { recordTicks, viewBench, viewEvents } from './bench';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
  own = await newProgramme(store);
});
afterAll(() => store.close());

async function locked(names: string[]) {
  const session = await newSession(
    own.coordinator,
    names.map((name) => ({ name })),
  );
  await lockKitSheet(own.coordinator, { sessionId: session.sessionId, basis: await session.basis() });
  const { sheet } = await viewBench(own.crew, { sessionId: session.sessionId });
  const tick = (kit: number, component: number, action = 'packed') => ({
    id: v7(),
    kitId: sheet.kits[kit]?.id ?? '',
    component: sheet.kits[kit]?.components[component] ?? '',
    action,
  });
  const send = (ticks: object[]) => recordTicks(own.crew, { sessionId: session.sessionId, ticks });
  const events = async () => (await viewEvents(own.crew, { sessionId: session.sessionId, since: 0 })).events;
  return { ...session, sheet, tick, send, events };
}

describe('ticks at the bench', () => {
  it('change nothing when they are sent twice, in one request or in two', async () => {
    const { tick, send, events } = await locked(['Ada', 'Bram']);
    const one = tick(0, 0);
    expect(await send([one, one, tick(1, 0)])).toMatchObject({ added: 2 });
    expect(await send([one])).toMatchObject({ added: 0 });
    expect((await events()).map(({ seq }) => seq)).toEqual([1, 2]);
  });

  it('take six statements, however many of one bench are sent together and whatever was ticked before', async () => {
    const { tick, send } = await locked(['Ada', 'Bram', 'Cleo']);
    await send([tick(0, 0)]);
    for (const ticks of [[tick(0, 1)], [tick(0, 2), tick(1, 0), tick(2, 0)]]) {
      const before = store.queries();
      expect(await send(ticks)).toMatchObject({ added: ticks.length });
      expect(store.queries() - before).toBe(6);
    }
    // What is taken out again has to have been put in: one look more, at its own kit.
    const before = store.queries();
    expect(await send([tick(2, 0, 'undone')])).toMatchObject({ added: 1 });
    expect(store.queries() - before).toBe(7);
  });

  it('from many screens at once are all kept, in one order without gaps', async () => {
    const { tick, send, events } = await locked(['Ada', 'Bram', 'Cleo']);
    const sent = Array.from({ length: 60 }, (_, n) => [tick(n % 3, n % 3, n % 2 ? 'packed' : 'packed')]);
    // Every screen also sends its tick a second time, as after a lost answer.
    await Promise.all([...sent, ...sent].map(send));
    const kept = await events();
    expect(kept.map(({ seq }) => seq)).toEqual(Array.from({ length: 60 }, (_, n) => n + 1));
    expect(new Set(kept.map(({ id }) => id))).toEqual(new Set(sent.map(([one]) => one?.id)));
  });

  it('leave no gap in their order, whatever of them is refused, sent again, taken out or called back meanwhile', async () => {
    const { tick, send, events, sessionId, people } = await locked(['Ada', 'Bram', 'Cleo']);
    const random = randomFrom(20261130);
    let version = 1;
    const sent: ReturnType<typeof tick>[] = [];
    const told = { taken: 0, refused: 0 };
    for (let round = 0; round < 40; round++) {
      const one = () => {
        const before = sent[Math.floor(random() * sent.length)];
        if (before && random() < 0.3) return random() < 0.8 ? before : { ...tick(0, 0), id: before.id };
        const made = tick(Math.floor(random() * 3), Math.floor(random() * 3), random() < 0.7 ? 'packed' : 'undone');
        sent.push(made);
        return random() < 0.1 ? { ...made, component: 'gold' } : made;
      };
      const works: Promise<unknown>[] = Array.from({ length: 3 }, () => send(Array.from({ length: 2 }, one)));
      if (round % 5 === 4) {
        const written = cells({ name: 'Ada', avoids: version % 2 ? 'milk' : '' });
        works.push(editPerson(own.coordinator, { enrolmentId: people[0], version, cells: written }));
        version += 1;
      }
      for (const { status } of await Promise.allSettled(works)) told[status === 'fulfilled' ? 'taken' : 'refused'] += 1;
    }
    const kept = await events();
    expect(kept.map(({ seq }) => seq)).toEqual(kept.map((_, at) => at + 1));
    expect((await benchStandings(store.db, [sessionId]))[0]?.seq).toBe(kept.length);
    expect(Math.min(told.taken, told.refused)).toBeGreaterThan(10);
    expect(new Set(kept.map(({ action }) => action))).toContain('called back');
  });

  it('are saved all or not at all, and only for kits and components of the sheet', async () => {
    const { tick, send, events } = await locked(['Ada']);
    await expect(send([tick(0, 0), { ...tick(0, 0), component: 'gold' }])).rejects.toMatchObject({ kind: 'stale' });
    await expect(send([{ ...tick(0, 0), kitId: v7() }])).rejects.toThrow('This kit is not on the kit sheet');
    await expect(send([tick(0, 0, 'undone')])).rejects.toMatchObject({ kind: 'stale' });
    expect(await events()).toEqual([]);
  });

  it('whose id was used before, for something else, are refused, and those of another screen saved all the same', async () => {
    const { tick, send, events } = await locked(['Ada', 'Bram']);
    const one = tick(0, 0);
    await send([one]);
    const [wrong, right] = await Promise.allSettled([send([{ ...tick(1, 1), id: one.id }]), send([tick(1, 0)])]);
    expect(wrong).toMatchObject({ status: 'rejected', reason: { kind: 'stale' } });
    expect(right).toMatchObject({ status: 'fulfilled', value: { added: 1 } });
    expect(await events()).toHaveLength(2);
  });

  it('cannot be changed or removed afterwards, not even in the database', async () => {
    const { tick, send, sessionId } = await locked(['Ada']);
    await send([tick(0, 0)]);
    await expect(store.db.models.packEvent.update({ action: 'undone' }, { where: { sessionId } })).rejects.toThrow(
      'append-only',
    );
    expect(await find(store.db, store.db.models.packEvent, { sessionId })).toHaveLength(1);
  });

  it('carry over to the next revision where the component did not change, and are called back where it did', async () => {
    const { sheet, send, sessionId, people, basis } = await locked(['Ada', 'Bram']);
    const all = sheet.kits.flatMap((kit) =>
      kit.components.map((component) => ({ id: v7(), kitId: kit.id, component, action: 'packed' })),
    );
    await send(all);
    await editPerson(own.coordinator, {
      enrolmentId: people[0],
      version: 1,
      cells: cells({ name: 'Ada', avoids: 'milk' }),
    });
    await lockKitSheet(own.coordinator, { sessionId, basis: await basis() });
    const { sheet: next, events } = await viewBench(own.crew, { sessionId });
    const progress = packProgress(next.kits, packedNow(events));
    expect(next.revision).toBe(2);
    expect(progress).toMatchObject({ kits: 2, kitsDone: 1, ticksNeeded: 6, ticks: 5 });
    expect(progress.toTakeOut).toHaveLength(1);
    const [out] = progress.toTakeOut;
    await expect(
      send([{ id: v7(), kitId: out?.kitId, component: out?.component, action: 'undone' }]),
    ).resolves.toMatchObject({ added: 1, revision: 2 });
    // A screen that still shows revision 1 sends again what was taken in before: it is answered as before.
    await expect(send(all.slice(0, 2))).resolves.toMatchObject({ added: 0 });
  });
});
