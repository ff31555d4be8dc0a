import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Handing, handedNow } from '@/core/handout/handing';
import type { Store } from '@/store/store';
import { cells, NOW, newProgramme, newSession, testStore } from '../../../tests/programme';
import { recordAttendance, viewAttendance } from '../classday/attendance';
import { viewJobs } from '../countdown/countdown';
import type { Context, Role } from '../gate/gate';
import { lockKitSheet } from '../kits/kit-sheet';
import { listMessages } from '../messages/messages';
import { addPerson, editPerson } from '../roll/roll';
import { decideKit, viewNotFetched } from './not-fetched';
import { handOutKits, tableSince, viewTable } from './table';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
  own = await newProgramme(store);
});
afterAll(() => store.close());

const at = (minutes: number) => NOW.subtract({ minutes }).toString();

/** A hand-out of take-home kits: the table as the crew sees it, close enough to its day. */
async function handOut(names: string[]) {
  const session = await newSession(
    own.coordinator,
    names.map((name) => ({ name, mode: 'take-home' })),
  );
  const { sessionId } = session;
  await lockKitSheet(own.coordinator, { sessionId, basis: await session.basis() });
  const crew: Context = { ...own.crew, clock: () => NOW.add({ hours: 24 * 5 }) };
  const { kits } = await viewTable(crew, { sessionId });
  const kitOf = (name: string) => kits.find((kit) => kit.name === name)?.id ?? '';
  const said = (name: string, what: Handing, more: object = {}) => ({
    id: v7(),
    kitId: kitOf(name),
    what,
    at: at(0),
    ...more,
  });
  const send = (...events: object[]) => handOutKits(crew, { sessionId, events });
  const stateOf = async (name: string) =>
    handedNow((await viewTable(crew, { sessionId })).events).get(kitOf(name)) ?? { state: 'here', against: [] };
  return { ...session, crew, kits, kitOf, said, send, stateOf };
}

describe('a kit at the table', () => {
  it('is handed out once, by whichever phone was first; what the second says is kept beside it until one is taken back', async () => {
    const { sessionId, crew, said, send, stateOf } = await handOut(['Ada', 'Bram']);
    const [first, second] = [said('Ada', 'handed'), said('Ada', 'handed', { who: 'Gran' })];
    const answers = await Promise.all([send(first), send(second), send(first)]);
    // One of the two was first, and the other is told; the same sent again is nothing new.
    expect(answers.flatMap(({ warnings }) => warnings)).toEqual([
      expect.objectContaining({ say: expect.stringMatching(/Kit 1 had gone already/) }),
    ]);
    const { state, against } = await stateOf('Ada');
    expect([state, against.length]).toEqual(['gone', 1]);
    const { events } = await tableSince(crew, { sessionId, after: 0 });
    expect(events.map(({ seq }) => seq)).toEqual([1, 2]);
    await send(said('Ada', 'undone', { item: against[0]?.id }));
    expect(await stateOf('Ada')).toMatchObject({ state: 'gone', against: [] });
  });

  it('that was handed out is fetched on the roll, from the table as from the room, and no longer when it was a slip', async () => {
    const { sessionId, people, crew, said, send, stateOf } = await handOut(['Ada', 'Bram']);
    const seen = async () => (await viewAttendance(crew, { sessionId })).people.map((person) => person.seen);
    const first = said('Ada', 'handed');
    await send(first);
    expect(await seen()).toEqual([['collected'], []]);
    await recordAttendance(crew, { sessionId, id: v7(), enrolmentId: people[1], state: 'collected' });
    expect((await stateOf('Bram')).state).toBe('gone');
    await send(said('Ada', 'undone', { item: first.id }));
    expect(await seen()).toEqual([['not collected'], ['collected']]);
    expect((await stateOf('Ada')).state).toBe('here');
  });

  it('that is called back does not go; where a phone without a network has handed it out, everybody who must act is told', async () => {
    const { sessionId, people, said, send, stateOf } = await handOut(['Ada', 'Bram']);
    await editPerson(own.coordinator, {
      enrolmentId: people[0],
      version: 1,
      cells: cells({ name: 'Ada', mode: 'take-home', avoids: 'milk' }),
    });
    await expect(send(said('Ada', 'handed'))).rejects.toMatchObject({ problems: [{ where: 'called back' }] });
    const { warnings } = await send(said('Ada', 'handed', { wasAway: true }));
    expect(warnings).toEqual([expect.objectContaining({ say: expect.stringContaining('Call the family at once') })]);
    expect((await stateOf('Ada')).state).toBe('gone');
    const told = await listMessages(own.coordinator, {});
    expect(told[0]?.subject).toContain('was handed out although it is called back');
    await expect(
      recordAttendance(own.coordinator, { sessionId, id: v7(), enrolmentId: people[1], state: 'collected' }),
    ).resolves.toBeUndefined();
  });

  it('of last week is of no kit here, and an id is not used for something else', async () => {
    const { said, send } = await handOut(['Ada', 'Bram']);
    await expect(send({ ...said('Ada', 'handed'), kitId: v7() })).rejects.toMatchObject({ kind: 'stale' });
    const one = said('Ada', 'handed');
    await send(one);
    await expect(send({ ...said('Bram', 'handed'), id: one.id })).rejects.toMatchObject({ kind: 'stale' });
    await expect(send(said('Ada', 'undone', { item: v7() }))).rejects.toMatchObject({ kind: 'not-found' });
  });

  it('that nobody fetched is decided on; one that came back cold is not kept for anybody', async () => {
    const { sessionId, said, send, kitOf } = await handOut(['Ada', 'Bram']);
    await send(said('Ada', 'not there'), said('Bram', 'handed'));
    await send(said('Bram', 'came back'));
    const { kits } = await viewNotFetched(own.coordinator, { sessionId });
    expect(kits.map(({ name }) => name)).toEqual(['Ada', 'Bram']);
    const decide = (name: string, fate: string) =>
      decideKit(own.coordinator, { sessionId, id: v7(), kitId: kitOf(name), fate });
    await expect(decide('Bram', 'held')).rejects.toThrow('came back');
    await decide('Bram', 'taken apart');
    await decide('Ada', 'delivered');
  });

  it('the last of all ends the hand-out on the countdown; a slip, or a kit more on the sheet, opens it again', async () => {
    const { sessionId, courseId, basis, said, send } = await handOut(['Ada', 'Bram']);
    const stage = async () => {
      const { thread } = await viewJobs(own.coordinator, { sessionId });
      return thread.knots.find((knot) => knot.stage === 'handout')?.state;
    };
    const last = said('Bram', 'not there');
    await send(said('Ada', 'handed'));
    expect(await stage()).toBe('doing');
    await send(last);
    expect(await stage()).toBe('done');
    await addPerson(own.coordinator, { courseId, cells: cells({ name: 'Cleo', mode: 'take-home' }) });
    await lockKitSheet(own.coordinator, { sessionId, basis: await basis() });
    expect(await stage()).toBe('doing');
  });

  it('is seen from two days before until the day after, by who hands out', async () => {
    const { sessionId } = await handOut(['Ada']);
    const on = (days: number): Context => ({ ...own.crew, clock: () => NOW.add({ hours: 24 * days }) });
    await expect(viewTable(on(3), { sessionId })).rejects.toMatchObject({ kind: 'forbidden' });
    await expect(viewTable(on(4), { sessionId })).resolves.toBeDefined();
    await expect(viewTable(on(8), { sessionId })).rejects.toMatchObject({ kind: 'forbidden' });
  });

  it('lends what goes along, until it is brought back, whichever session it was', async () => {
    const { crew, sessionId, said, send } = await handOut(['Ada']);
    await send(
      said('Ada', 'handed'),
      said('Ada', 'lent', { item: 'cool bag' }),
      said('Ada', 'lent', { item: 'board' }),
    );
    const has = async () => (await viewTable(crew, { sessionId })).kits[0]?.has;
    expect(await has()).toEqual(['cool bag', 'board']);
    await send(said('Ada', 'brought back', { item: 'cool bag' }));
    expect(await has()).toEqual(['board']);
  });
});
