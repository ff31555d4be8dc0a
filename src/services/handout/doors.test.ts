import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find, findOne } from '@/store/query';
import type { Store } from '@/store/store';
import { NOW, newProgramme, newSession, testStore } from '../../../tests/programme';
import { addCrewMember } from '../crew/people';
import type { Context, Role } from '../gate/gate';
import { linkSecret } from '../gate/keys';
import { lockKitSheet } from '../kits/kit-sheet';
import { listMessages } from '../messages/messages';
import { eraseHousehold, listHouseholds } from '../privacy/households';
import { exportDoors, importDoors, setDoor, setRoads, viewDoors } from './doors';
import { ownRounds, roundOf, sayOnRound, viewRound } from './driving';
import { kitByLink, sayOfKit, tellFamilies, viewOwnKit } from './families';
import { dropRound, moveDoors, planDoorRounds } from './rounds';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
  own = await newProgramme(store);
});
afterAll(() => store.close());

/** Points a few minutes apart, on a line to the north. */
const point = (step: number) => `${(54 + step * 0.01).toFixed(4)}, -1.5`;
const bytes = (text: string) => new TextEncoder().encode(text);
/** The day of the class, at an hour. */
const on = (time: string): Temporal.Instant => Temporal.Instant.from(`2026-11-26T${time}:00Z`);
const at = (context: Context, time: string): Context => ({ ...context, clock: () => on(time) });

/** A class on screen, whose kits go to doors a few minutes apart. */
async function delivery(names: string[]) {
  own = await newProgramme(store);
  const session = await newSession(
    own.coordinator,
    names.map((name) => ({ name, mode: 'live online', contact: `${name}@example.test` })),
  );
  const { sessionId } = session;
  await lockKitSheet(own.coordinator, { sessionId, basis: await session.basis() });
  const programme = await findOne(store.db, store.db.models.programme, { id: own.coordinator.actor.programmeId });
  const roads = { version: programme?.version ?? 1, speed: '', factor: '', handing: '', kitLitres: '' };
  await setRoads(own.coordinator, { ...roads, kitchen: point(0) });
  await importDoors(own.coordinator, {
    bytes: bytes(['name,point', ...names.map((name, n) => `${name},"${point(n + 1)}"`)].join('\n')),
  });
  const crewId = await addCrewMember(own.coordinator, { name: `Edda ${v7()}` });
  const plan = (more: object = {}) =>
    planDoorRounds(own.coordinator, {
      sessionId,
      date: '2026-11-26',
      from: '10:00',
      to: '14:00',
      drivers: [{ crewId, from: '10:00', to: '14:00' }],
      ...more,
    });
  const view = () => viewDoors(own.coordinator, { sessionId });
  const person = async () => {
    const found = await findOne(store.db, store.db.models.crewMember, { id: crewId });
    if (!found) throw new Error('Nobody drives.');
    return found;
  };
  return { ...session, crewId, plan, view, person };
}

describe('rounds to the doors', () => {
  it('are planned in the order that is shortest, kept, and judged anew when a family has other hours', async () => {
    const { plan, view, sessionId } = await delivery(['Ada', 'Bram', 'Cleo']);
    expect(await plan()).toMatchObject({ missed: 0, proven: { missed: true, driving: true } });
    const { rounds, doors, missed } = await view();
    expect(rounds.map(({ stops }) => stops.map(({ name }) => name))).toEqual([['Ada', 'Bram', 'Cleo']]);
    expect(missed).toEqual([]);
    const bram = doors.find(({ name }) => name === 'Bram');
    await setDoor(own.coordinator, {
      householdId: bram?.householdId,
      version: bram?.version,
      point: point(2),
      from: '9:00',
      to: '9:30',
    });
    expect((await view()).rounds[0]?.trouble).toMatchObject({
      at: bram?.householdId,
      say: expect.stringContaining('nobody is there'),
    });
    // Planned anew, its door is missed, with what would help.
    expect(await plan()).toMatchObject({ missed: 1 });
    const [left] = (await view()).missed;
    expect(left).toMatchObject({ name: 'Bram', why: expect.stringContaining('on duty early enough') });
    expect(left?.help.join()).toContain('if somebody is there until 10:');
    expect(await exportDoors(own.coordinator, { sessionId })).toContain('09:00,09:30');
  });

  it('are changed by hand, unless a door would be in two, somebody else changed them, or they have left', async () => {
    const { plan, view, sessionId, person } = await delivery(['Ada', 'Bram']);
    await plan();
    const [round] = (await view()).rounds;
    const [ada, bram] = round?.stops.map(({ householdId }) => householdId) ?? [];
    const move = (stops: unknown[], version = round?.version) =>
      moveDoors(own.coordinator, { sessionId, rounds: [{ id: round?.id, version, stops }] });
    await expect(move([ada, ada])).rejects.toMatchObject({ kind: 'stale' });
    await move([bram, ada]);
    expect((await view()).rounds[0]?.stops.map(({ name }) => name)).toEqual(['Bram', 'Ada']);
    await expect(move([ada, bram])).rejects.toMatchObject({ kind: 'stale' });
    const driver = at(own.crew, '10:05');
    await sayOnRound(driver, await person(), {
      roundId: round?.id ?? '',
      events: [{ id: v7(), what: 'left', at: on('10:05').toString() }],
    });
    await expect(move([ada, bram], 3)).rejects.toThrow('has left the kitchen');
    await expect(dropRound(own.coordinator, { sessionId, roundId: round?.id })).rejects.toThrow('has left');
    // What left goes on when the rest is planned anew.
    await plan();
    expect((await view()).rounds).toHaveLength(1);
  });

  it('tell families when their kit leaves and when it is late, once; doors where nobody is are fetched by nobody', async () => {
    const { plan, view, person } = await delivery(['Ada', 'Bram', 'Cleo']);
    await plan();
    const [round] = (await view()).rounds;
    const [ada, bram] = round?.stops ?? [];
    const say = async (time: string, ...events: object[]) =>
      sayOnRound(at(own.crew, time), await person(), { roundId: round?.id ?? '', events: events as never });
    const subjects = async () => (await listMessages(own.coordinator, {})).map(({ subject }) => subject.split(':')[0]);
    await say('10:10', { id: v7(), what: 'left', at: on('10:10').toString() });
    await say('10:10', { id: v7(), what: 'left', at: on('10:10').toString() });
    expect(await subjects()).toEqual(['On its way', 'On its way', 'On its way']);
    const handed = (kitId: string | undefined, time: string, what = 'handed') => ({
      id: v7(),
      kitId,
      what,
      who: '',
      item: '',
      at: on(time).toString(),
      wasAway: false,
    });
    await say('10:20', handed(ada?.bags[0]?.id, '10:20'));
    expect(await subjects()).toHaveLength(3);
    // An hour goes by: the last family hears that it is late, once.
    await say('11:20', handed(bram?.bags[0]?.id, '11:20', 'not there'));
    expect((await subjects()).filter((each) => each === 'A little later')).toHaveLength(1);
    const [now] = (await view()).rounds;
    expect(now?.standing).toMatchObject({ state: 'on the road', done: 2 });
    expect(now?.stops.map(({ bags }) => bags[0]?.now.state)).toEqual(['gone', 'not there', 'here']);
  });

  it('are shown to their driver on their day, and no other round to them', async () => {
    const { plan, view, person } = await delivery(['Ada', 'Bram']);
    await plan();
    const [round] = (await view()).rounds;
    const other = await addCrewMember(own.coordinator, { name: `Wilf ${v7()}` });
    const wilf = await findOne(store.db, store.db.models.crewMember, { id: other });
    expect(
      (await ownRounds(at(own.crew, '9:00'.padStart(5, '0')), await person())).map(({ stops }) => stops.length),
    ).toEqual([2]);
    expect(await ownRounds(own.crew, await person())).toEqual([]);
    await expect(roundOf(at(own.crew, '09:00'), wilf, round?.id ?? '')).rejects.toMatchObject({ kind: 'not-found' });
    await expect(roundOf(own.crew, await person(), round?.id ?? '')).rejects.toMatchObject({ kind: 'not-found' });
    await expect(viewRound(at(own.crew, '09:00'), { roundId: round?.id })).rejects.toMatchObject({ kind: 'not-found' });
    // Seeing ends with the day; what a phone without a network kept is taken until the next one is over.
    const dayLater = (days: number): Context => ({
      ...own.crew,
      clock: () => on('09:00').add({ hours: 24 * days }),
    });
    const bag = round?.stops[0]?.bags[0]?.id;
    const handed = {
      id: v7(),
      kitId: bag,
      what: 'handed',
      who: '',
      item: '',
      at: on('10:30').toString(),
      wasAway: true,
    };
    const sayLate = async (days: number) =>
      sayOnRound(dayLater(days), await person(), { roundId: round?.id ?? '', events: [handed] as never });
    await expect(roundOf(dayLater(1), await person(), round?.id ?? '')).rejects.toMatchObject({ kind: 'not-found' });
    await expect(sayLate(2)).rejects.toMatchObject({ kind: 'not-found' });
    await sayLate(1);
    expect((await view()).rounds[0]?.stops[0]?.bags[0]?.now.state).toBe('gone');
    // A driver says nothing of a kit that is not of their round.
    const strange = {
      id: v7(),
      kitId: v7(),
      what: 'handed' as const,
      who: '',
      item: '',
      at: NOW.toString(),
      wasAway: true,
    };
    await expect(
      sayOnRound(at(own.crew, '10:00'), await person(), { roundId: round?.id ?? '', events: [strange] }),
    ).rejects.toMatchObject({ kind: 'not-found' });
  });

  it('come in as a file whole or not at all, each bad line named', async () => {
    await delivery(['Ada', 'Bram']);
    const file = [
      'name;point;from;to',
      'Ada;95, 200;;',
      'Nobody;54, -1;;',
      'Bram;54, -1;18:00;17:00',
      'Ada;;16:00;',
    ].join('\n');
    await expect(importDoors(own.coordinator, { bytes: bytes(file) })).rejects.toMatchObject({
      problems: [
        { where: 'line 2', message: expect.stringContaining('is no point') },
        { where: 'line 3', message: expect.stringContaining('No family is called “Nobody”') },
        { where: 'line 4', message: 'It ends before it begins.' },
        { where: 'line 5', message: 'Write both times, or neither.' },
      ],
    });
    const lat = ['name,latitude,longitude', 'Ada,54.5,-1.25'].join('\n');
    expect(await importDoors(own.coordinator, { bytes: bytes(lat) })).toBe(1);
    const [ada] = await find(store.db, store.db.models.household, {
      programmeId: own.coordinator.actor.programmeId,
      name: 'Ada',
    });
    expect(ada?.door.at).toEqual([54.5, -1.25]);
  });
});

describe('a family’s page of its kit', () => {
  it('says when a kit usually comes until a round is planned: before a class on screen, not at its hour', async () => {
    const { view, sessionId, plan } = await delivery(['Cleo']);
    const [door] = (await view()).doors;
    const kit = { context: own.coordinator, sessionId, householdId: door?.householdId ?? '' };
    const { startsAt } = (await view()).session;
    expect(startsAt).toBe('16:00');
    expect(await viewOwnKit(kit)).toMatchObject({
      where: 'at your door',
      when: expect.stringMatching(/^as it looks now between 10.00.* and (14.00|2.00 pm)$/),
    });
    await tellFamilies(own.coordinator, { sessionId });
    const [soon] = await listMessages(own.coordinator, {});
    expect(soon?.body).toMatch(
      /your door on Thu, Nov 26, as it looks now between 10.00.* We write again when we know the hour/,
    );
    await plan();
    const { when } = await viewOwnKit(kit);
    await tellFamilies(own.coordinator, { sessionId });
    const [sure] = await listMessages(own.coordinator, {});
    expect(when).toMatch(/^between/);
    expect(sure?.body).toContain(when);
  });

  it('says when it comes, takes its answer, sends the recipe, and ends with the family', async () => {
    const { plan, view, sessionId } = await delivery(['Ada', 'Bram']);
    await plan();
    expect(await tellFamilies(own.coordinator, { sessionId })).toEqual({ told: 2, unreached: [] });
    const { doors } = await view();
    const householdId = doors[0]?.householdId ?? '';
    const [link] = await find(store.db, store.db.models.accessLink, { householdId, sessionId });
    const secret = linkSecret(own.coordinator, link?.id ?? '');
    const visit = { ...own.coordinator, ip: '192.0.2.1', userAgent: '' };
    const kit = await kitByLink(visit as never, secret);
    const before = store.queries();
    expect(await viewOwnKit(kit)).toMatchObject({
      title: 'Breads',
      where: 'at your door',
      when: expect.stringContaining('between'),
      kits: [{ name: 'Ada' }],
    });
    expect(store.queries() - before).toBe(9);
    await expect(sayOfKit(kit, { word: 'later' })).rejects.toMatchObject({ problems: [{ where: 'note' }] });
    await sayOfKit(kit, { word: 'later', note: 'tomorrow at six' });
    await sayOfKit(kit, { word: 'card' });
    expect((await viewOwnKit(kit)).said).toEqual({ word: 'later', note: 'tomorrow at six' });
    const [card] = await listMessages(own.coordinator, {});
    expect(card).toMatchObject({ subject: 'The recipe: Breads', sentTo: 'Ada@example.test' });
    expect(card?.body).toContain('plain yogurt');
    const [home] = (await listHouseholds(own.coordinator, {})).filter(({ id }) => id === householdId);
    await eraseHousehold(own.coordinator, { householdId, version: home?.version });
    await expect(kitByLink(visit as never, secret)).rejects.toMatchObject({ kind: 'not-found' });
    expect((await find(store.db, store.db.models.kitWord, { sessionId })).map(({ note }) => note)).toEqual(['', '']);
  });
});
