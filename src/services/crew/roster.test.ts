import { Temporal } from 'temporal-polyfill';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { find, findOne } from '@/store/query';
import type { Store } from '@/store/store';
import { FLATBREAD, newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Visit } from '../access/sign-in';
import { viewJobs } from '../countdown/countdown';
import type { Context } from '../gate/gate';
import { withLink } from '../messages/link-place';
import { addDish, moveSession } from '../plan/sessions';
import { saveRecipe } from '../recipes/recipes';
import { askByItself, askCrew, askToStepIn, remindCrew } from './asking';
import { importBusy } from './busy';
import { exportHours, tapAtDoor, viewDoor, viewHours } from './hours';
import { endCrewLink, OWN_PAGE, ownByLink } from './own-page';
import { addCrewMember, editCrewMember, eraseCrewMember, listCrew, noteSick, takeSickBack } from './people';
import { changeDuty, changePlaces, resetDuty } from './places';
import { planRoster, viewRoster } from './roster';
import { viewSessionCrew } from './session-crew';
import { dropOut, viewPlace } from './step-in';
import { viewRosterTable } from './table';

let store: Store;
let context: Context;
let sessionId: string;
const ids: Record<string, string> = {};
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

/** A programme whose class is on Thursday the 26th at four, with nine of seven; who could lead, help, pack; today is the 20th. */
beforeEach(async () => {
  context = at('2026-11-20T15:00:00Z', (await newProgramme(store)).coordinator);
  ({ sessionId } = await newSession(
    context,
    Array.from({ length: 9 }, (_, child) => ({ name: `Child ${child}`, age: '7' })),
  ));
  const check = { skill: 'background check' as const, until: '2027-06-30' };
  const free = 'every day 8:00-22:00';
  const person = async (name: string, more: Partial<Parameters<typeof addCrewMember>[1] & object> = {}) => {
    ids[name] = await addCrewMember(context, { name, contact: `${name}@quay.example`, isAdult: true, free, ...more });
  };
  await person('Ada', { skills: [{ skill: 'lead' }, check] });
  await person('Bo', { skills: [{ skill: 'food handler' }, { skill: 'lead' }, check] });
  await person('Cy', { isAdult: false, skills: [{ skill: 'food handler' }] });
  await person('Dot', { skills: [{ ...check, until: '2026-11-25' }] });
});

const at = (instant: string, of: Context): Context => ({ ...of, clock: () => Temporal.Instant.from(instant) });
const duty = async (kind: string, of = context) => {
  const { sessions } = await viewRoster(of, { toDay: '2026-12-01' });
  const found = sessions.find(({ id }) => id === sessionId)?.duties.find((each) => each.kind === kind);
  if (!found) throw new Error(`There is no duty to ${kind}.`);
  return found;
};
const said = async (kind: string, of = context) =>
  (await duty(kind, of)).holders.map(({ name, state }) => `${name} ${state}`).sort();
const promiseOf = async (kind: string, name: string) => {
  const found = (await duty(kind)).holders.find((holder) => holder.name === name);
  if (!found) throw new Error(`${name} has no place there.`);
  return found.promiseId;
};

/** Somebody's page as the link in their newest message opens it. */
async function pageOf(name: string) {
  const { db } = store;
  const messages = await find(db, db.models.message, { crewId: ids[name] }, [['createdAt', 'DESC']]);
  const { body = '', linkId } = messages.find((each) => each.linkId) ?? {};
  const secret = /\/my\/(\S+)/.exec(withLink(context, body, linkId ?? ''))?.[1] ?? '';
  const { actor: _, ...rest } = context;
  const visit = { ...rest, ip: '192.0.2.1', device: 'test', deviceToken: '' } satisfies Visit;
  return { own: await ownByLink(visit, secret), visit, secret };
}

describe('a roster', () => {
  it('is planned for what the session needs, kept, and planned again without a change to anybody', async () => {
    expect(await planRoster(context, { toDay: '2026-12-01' })).toMatchObject({ proven: { empty: true } });
    expect(await said('lead')).toEqual(expect.arrayContaining([expect.stringMatching(/^(Ada|Bo) planned$/)]));
    // Dot's check ends the day before; Cy is a minor.
    expect((await duty('assistant')).holders.map(({ name }) => name)).not.toContain('Dot');
    expect(await planRoster(context, { toDay: '2026-12-01' })).toMatchObject({ changed: 0 });
  });

  it('leaves whom somebody put there, took out or pinned by hand, and says why it cannot be where it cannot', async () => {
    const place = { sessionId, duty: 'lead' };
    const put = (name: string, byWord = false) =>
      changePlaces(context, { changes: [{ ...place, crewId: ids[name] ?? '', what: 'put' }], byWord });
    await expect(put('Cy')).rejects.toThrow('Cy is a minor: this duty is for adults.');
    await expect(put('Dot')).rejects.toThrow('Dot lacks: lead.');
    await changePlaces(context, { changes: [{ ...place, crewId: ids.Ada ?? '', what: 'rule out' }] });
    await planRoster(context, { toDay: '2026-12-01' });
    expect(await said('lead')).toEqual(['Ada ruled out', 'Bo planned']);
    await put('Ada').catch((error: Error) => expect(error.message).toContain('has all its people'));
    // Of two who change places, each leaves before the other comes.
    await changePlaces(context, {
      changes: [
        { ...place, crewId: ids.Ada ?? '', what: 'put' },
        { ...place, crewId: ids.Bo ?? '', what: 'take away' },
        { sessionId, duty: 'assistant', crewId: ids.Ada ?? '', what: 'take away' },
      ],
    });
    await planRoster(context, { toDay: '2026-12-01' });
    expect(await said('lead')).toEqual(['Ada planned']);
  });

  it('holds a check that ends, and somebody’s time, against them; their word sets aside the time, never the check', async () => {
    const late = { name: 'Eve', isAdult: true, free: 'every day 8:00-9:00' };
    const skills = [{ skill: 'background check' as const, until: '2027-06-30' }];
    const crewId = await addCrewMember(context, { ...late, skills });
    const change = { sessionId, duty: 'assistant', what: 'put' as const };
    await expect(changePlaces(context, { changes: [{ ...change, crewId }] })).rejects.toThrow('Eve has no time then.');
    await changePlaces(context, { changes: [{ ...change, crewId }], byWord: true });
    const dot = changePlaces(context, { changes: [{ ...change, crewId: ids.Dot ?? '' }], byWord: true });
    await expect(dot).rejects.toThrow(/background check ends on 2026-11-25|has all its people/);
    await planRoster(context, {});
    expect(await said('assistant')).toContain('Eve planned');
  });
});

it('has who shops as soon as they can, where that is late already; who packs comes after', async () => {
  const late = at('2026-11-26T14:30:00Z', context);
  const [shop, pack] = [await duty('shop', late), await duty('pack', late)];
  // A quarter of an hour for the kit sheet, which is not locked yet.
  expect(shop).toMatchObject({ date: '2026-11-26', from: 885 });
  expect(pack.date).toBe('2026-11-26');
  expect(pack.from).toBeGreaterThanOrEqual(shop.to);
});

it('has who makes ready what must soak or marinate, so long before it is packed', async () => {
  const steps = ['Soak the cumin in the yogurt overnight, in the fridge.', 'Simmer for 40 minutes.'];
  const body = { servings: 4, lines: FLATBREAD, steps };
  const recipeId = await saveRecipe(context, { title: 'Yogurt pot', body });
  await addDish(context, { sessionId, recipeId });
  const { thread } = await viewJobs(context, { sessionId });
  expect(thread.jobs.find(({ key }) => key === 'cook-ahead')).toMatchObject({ title: 'Soak: Yogurt pot' });
  expect(thread.jobs.find(({ key }) => key === 'stand')).toMatchObject({ minutes: 720 });
  const [cook, pack] = [await duty('cook'), await duty('pack')];
  const at = ({ date, from }: typeof cook) => Date.parse(date) / 60_000 + from;
  expect(at(pack) - at(cook)).toBeGreaterThanOrEqual(720);
  expect(cook.skills).toEqual(['food handler']);
  // Whoever packs in the morning already has what stood through the night.
  const early = { sessionId, duty: 'pack', date: '2026-11-26', from: '9:00', to: '9:50', reason: 'the hall is let' };
  await changeDuty(context, early);
  expect(at(await duty('pack')) - at(await duty('cook'))).toBeGreaterThanOrEqual(720);
});

describe('asking', () => {
  it('sends each one message with a page of their own; yes is theirs, and of two who say yes to one place one has it', async () => {
    await planRoster(context, {});
    const { people, unreached } = await askCrew(context, { words: 'Bring a cake.' });
    expect([people > 1, unreached]).toEqual([true, []]);
    const [lead] = (await duty('lead')).holders;
    const name = lead?.name ?? '';
    const other = name === 'Ada' ? 'Bo' : 'Ada';
    const { own } = await pageOf(name);
    const mine = (await OWN_PAGE.view(own)).duties.find(({ kind }) => kind === 'lead');
    expect(mine).toMatchObject({ state: 'asked', date: '2026-11-26', from: 960 });
    expect(mine?.bring.join(' ')).toContain('apron');
    await askToStepIn(context, { sessionId, duty: 'lead', crewIds: [ids[other] ?? ''] });
    const theirs = await pageOf(other);
    const placeOf = async (page: typeof own) =>
      (await OWN_PAGE.view(page)).duties.find(({ kind }) => kind === 'lead')?.promiseId ?? '';
    // The one who stands elsewhere then has to give that up first: asked for both, they may choose.
    const place = await placeOf(theirs.own);
    const answers = await Promise.allSettled([
      OWN_PAGE.answer(own, { promiseId: mine?.promiseId, answer: 'yes' }),
      OWN_PAGE.answer(theirs.own, { promiseId: place, answer: 'yes' }),
    ]);
    expect(answers.map(({ status }) => status)).toContain('fulfilled');
    expect((await duty('lead')).holders.filter(({ state }) => state === 'accepted')).toHaveLength(1);
    expect((await duty('lead')).holders.filter(({ state }) => state === 'asked')).toHaveLength(0);
  });

  it('goes to another where a check ends; renewed, both have said yes, and that is said until one is taken away', async () => {
    const yes = async (name: string) => {
      await askToStepIn(context, { sessionId, duty: 'lead', crewIds: [ids[name] ?? ''] });
      return dropOut(context, { promiseId: await promiseOf('lead', name), answer: 'yes' });
    };
    const checkUntil = async (until: string) => {
      const row = (await listCrew(context, {})).people.find(({ id }) => id === ids.Ada);
      const skills = [{ skill: 'lead' as const }, { skill: 'background check' as const, until }];
      const fields = { name: 'Ada', contact: 'ada@quay.example', isAdult: true, free: 'every day 8:00-22:00', skills };
      await editCrewMember(context, { ...fields, crewId: row?.id ?? '', version: row?.version ?? 0 });
    };
    await yes('Ada');
    await expect(yes('Bo')).rejects.toThrow('has all its people');
    await checkUntil('2026-11-25');
    expect(await duty('lead')).toMatchObject({ empty: 1, over: 0 });
    await yes('Bo');
    await checkUntil('2027-06-30');
    expect(await duty('lead')).toMatchObject({ empty: 0, over: 1 });
    await changePlaces(context, {
      changes: [{ sessionId, duty: 'lead', crewId: ids.Bo ?? '', what: 'take away' }],
    });
    expect(await duty('lead')).toMatchObject({ empty: 0, over: 0 });
    expect(await said('lead')).toEqual(['Ada accepted']);
  });

  it('promises nothing twice: who said yes to one duty cannot say yes to another at that time', async () => {
    await askToStepIn(context, { sessionId, duty: 'lead', crewIds: [ids.Bo ?? ''] });
    await askToStepIn(context, { sessionId, duty: 'assistant', crewIds: [ids.Bo ?? ''] });
    const { own } = await pageOf('Bo');
    const { duties } = await OWN_PAGE.view(own);
    expect(duties).toHaveLength(2);
    await OWN_PAGE.answer(own, { promiseId: duties[0]?.promiseId, answer: 'yes' });
    await expect(OWN_PAGE.answer(own, { promiseId: duties[1]?.promiseId, answer: 'yes' })).rejects.toThrow(
      /Bo has promised .+ at that time/,
    );
  });

  it('asks again, and says why, when the session moved after somebody had said yes; the silent are reminded once', async () => {
    await planRoster(context, {});
    await askCrew(context, {});
    const name = (await duty('lead')).holders[0]?.name ?? '';
    const { own } = await pageOf(name);
    await OWN_PAGE.answer(own, { promiseId: await promiseOf('lead', name), answer: 'yes' });
    const { version } = (await findOne(store.db, store.db.models.session, { id: sessionId })) ?? { version: 0 };
    await moveSession(context, { sessionId, version, date: '2026-11-27', startsAt: '16:00' });
    expect((await duty('lead')).holders[0]).toMatchObject({ state: 'accepted', moved: true });
    const page = (await OWN_PAGE.view(own)).duties.find(({ kind }) => kind === 'lead');
    expect(page?.before).toMatchObject({ date: '2026-11-26' });
    expect((await askByItself(context)).moved).toBeGreaterThan(0);
    expect(await said('lead')).toContain(`${name} asked`);
    const messages = await find(store.db, store.db.models.message, { crewId: ids[name] });
    expect(messages.some(({ subject, body }) => subject.includes('moved') && body.includes('Fri, Nov 27'))).toBe(true);
    expect(await askByItself(context)).toEqual({ moved: 0, reminded: 0 });
    const later = at('2026-11-24T15:00:00Z', context);
    const { reminded } = await askByItself(later);
    expect(reminded).toBeGreaterThan(0);
    expect((await askByItself(later)).reminded).toBe(0);
    expect((await remindCrew(later, {})).places).toBe(reminded);
  });

  it('lets somebody offer what they promised: it stays theirs until another takes it, who may', async () => {
    await askToStepIn(context, { sessionId, duty: 'lead', crewIds: [ids.Ada ?? '', ids.Bo ?? ''] });
    const [ada, bo] = [(await pageOf('Ada')).own, (await pageOf('Bo')).own];
    const promiseId = await promiseOf('lead', 'Ada');
    await OWN_PAGE.answer(ada, { promiseId, answer: 'yes' });
    await OWN_PAGE.answer(ada, { promiseId, answer: 'offer' });
    expect(await said('lead')).toContain('Ada accepted');
    const { offers } = await OWN_PAGE.view(bo);
    expect(offers).toMatchObject([{ who: 'Ada', title: 'Lead the class' }]);
    await OWN_PAGE.take(bo, { promiseId: offers[0]?.promiseId });
    expect(await said('lead')).toEqual(['Ada taken', 'Bo accepted']);
    await expect(OWN_PAGE.take(bo, { promiseId })).rejects.toMatchObject({ kind: 'stale' });
  });

  it('opens nothing by a link that was ended, and shows nobody’s contact but the lead’s', async () => {
    await planRoster(context, {});
    await askCrew(context, {});
    const { own, visit, secret } = await pageOf('Bo');
    expect(JSON.stringify(await OWN_PAGE.view(own))).not.toMatch(/(Ada|Cy|Dot)@quay/);
    await endCrewLink(context, { crewId: ids.Bo ?? '' });
    await expect(ownByLink(visit, secret)).rejects.toMatchObject({ kind: 'not-found' });
    await expect(ownByLink(visit, 'x'.repeat(43))).rejects.toMatchObject({ kind: 'not-found' });
  });
});

describe('somebody drops out', () => {
  it('and who could step in stands there in order, with what each gives up, and what would fill it where nobody can', async () => {
    await planRoster(context, {});
    await askCrew(context, {});
    const name = (await duty('lead')).holders[0]?.name ?? '';
    await dropOut(context, { promiseId: await promiseOf('lead', name), answer: 'yes' });
    await dropOut(context, { promiseId: await promiseOf('lead', name), answer: 'no', note: 'ill' });
    const { ways, others, empty, draft } = await viewPlace(context, { sessionId, duty: 'lead' });
    const other = name === 'Ada' ? 'Bo' : 'Ada';
    expect(empty).toBe(1);
    expect(ways[0]?.steps[0]?.name).toBe(other);
    expect(others).toEqual(
      expect.arrayContaining([expect.objectContaining({ name: 'Cy', why: expect.stringContaining('minor') })]),
    );
    expect(draft.body).toContain('Whoever says yes first has the place.');
    await changePlaces(context, { changes: [{ sessionId, duty: 'lead', crewId: ids[other] ?? '', what: 'rule out' }] });
    const nobody = await viewPlace(context, { sessionId, duty: 'lead' });
    expect(nobody.ways).toEqual([]);
    expect(nobody.would).toEqual([]);
  });

  it('and where nobody can stand at the heat, another dish is tried, and said where it would do', async () => {
    const body = { servings: 4, lines: FLATBREAD, steps: ['Fry the flatbreads in a hot pan for 5 minutes.'] };
    const recipeId = await saveRecipe(context, { title: 'From the pan', body });
    await addDish(context, { sessionId, recipeId });
    await planRoster(context, {});
    expect((await duty('heat')).empty).toBe(1);
    const { ways, would } = await viewPlace(context, { sessionId, duty: 'heat' });
    expect(ways).toEqual([]);
    expect(would).toEqual(expect.arrayContaining([expect.stringContaining('Ada had heat')]));
    expect(would.at(-1)).toBe(
      'no dish were cooked over heat in class (another dish, or cooked ahead): every place in the room has somebody then',
    );
  });

  it('by sickness: their duties are open, others are planned for them, and a class below its adults is said loudly', async () => {
    await planRoster(context, {});
    await askCrew(context, {});
    for (const kind of ['lead', 'assistant'])
      for (const { promiseId } of (await duty(kind)).holders) await dropOut(context, { promiseId, answer: 'yes' });
    const eve = at('2026-11-25T15:00:00Z', context);
    expect((await viewSessionCrew(eve, { sessionId })).below).toBeUndefined();
    const name = (await duty('lead')).holders[0]?.name ?? '';
    const row = (await listCrew(eve, {})).people.find((person) => person.name === name);
    const of = { crewId: row?.id ?? '', version: row?.version ?? 0 };
    const { places, before } = await noteSick(eve, { ...of, lastSymptom: '2026-11-25' });
    expect(places).toBeGreaterThan(0);
    expect(await said('lead', eve)).toContain(`${name} declined`);
    expect((await viewSessionCrew(eve, { sessionId })).below).toMatch(/^Below its adults: \d of 2 have said yes/);
    // It was somebody else who is sick.
    const back = await takeSickBack(eve, { ...of, version: of.version + 1, ...before });
    expect(back).toEqual({ places: before.theirs.length, lost: 0 });
    expect(await said('lead', eve)).toContain(`${name} accepted`);
    expect((await viewSessionCrew(eve, { sessionId })).below).toBeUndefined();
    // Nor is there anything to give back to somebody who had promised nothing.
    const free = { crewId: await addCrewMember(eve, { name: 'Fay', free: 'every day 8:00-9:00', isAdult: true }) };
    const noted = await noteSick(eve, { ...free, version: 1, lastSymptom: '2026-11-25' });
    const nothing = await takeSickBack(eve, { ...free, version: 2, ...noted.before });
    expect(nothing).toEqual({ places: 0, lost: 0 });
  });

  it('by being erased: nothing of them is left, and their places are open', async () => {
    await planRoster(context, {});
    await askCrew(context, {});
    const { id = '', version = 0 } = (await listCrew(context, {})).people.find(({ name }) => name === 'Bo') ?? {};
    expect((await eraseCrewMember(context, { crewId: id, version })).places).toBeGreaterThan(0);
    const { db } = store;
    for (const table of [db.models.promise, db.models.crewHours, db.models.message])
      expect(await find(db, table as typeof db.models.promise, { crewId: id })).toEqual([]);
    await expect(pageOf('Bo')).rejects.toMatchObject({ kind: 'not-found' });
  });
});

describe('duties', () => {
  it('are changed, added and left out by hand with the reason; the adults of a class are never fewer for it', async () => {
    const change = { sessionId, reason: 'two tables only' };
    await changeDuty(context, { ...change, duty: 'assistant', isLeftOut: true });
    expect(await duty('assistant')).toMatchObject({
      people: 1,
      because: [expect.any(String), '2 adults in all, whatever is left out by hand.'],
    });
    await changeDuty(context, { ...change, duty: 'wash up', people: '3', from: '17:30', to: '18:15' });
    expect(await duty('wash up')).toMatchObject({ people: 3, to: 1095, changed: 'two tables only' });
    await resetDuty(context, { sessionId, duty: 'wash up' });
    expect(await duty('wash up')).toMatchObject({ people: 1 });
    const added = { title: 'Play the fiddle', date: '2026-11-26', from: '17:00', to: '17:30' };
    await changeDuty(context, { ...change, ...added });
    expect(await duty('other')).toMatchObject({ title: 'Play the fiddle', from: 1020, to: 1050 });
    await expect(changeDuty(context, { ...change, ...added, to: '16:00' })).rejects.toMatchObject({
      problems: [{ where: 'to', message: 'It ends before it begins.' }],
    });
  });

  it('that are gone are told to whom they were asked of, and let go', async () => {
    const added = { title: 'Play the fiddle', date: '2026-11-26', from: '17:00', to: '17:30', reason: 'a feast' };
    const key = await changeDuty(context, { sessionId, ...added });
    await askToStepIn(context, { sessionId, duty: key, crewIds: [ids.Cy ?? ''] });
    await resetDuty(context, { sessionId, duty: key });
    const { left } = await viewSessionCrew(context, { sessionId });
    expect(left).toMatchObject([{ name: 'Cy', title: 'Play the fiddle' }]);
    await changePlaces(context, { changes: [{ sessionId, duty: key, crewId: ids.Cy ?? '', what: 'take away' }] });
    expect((await viewSessionCrew(context, { sessionId })).left).toEqual([]);
    const messages = await find(store.db, store.db.models.message, { crewId: ids.Cy });
    expect(messages.map(({ subject }) => subject)).toContain('You are not needed after all');
  });

  it('go along with the session when only something else of them was changed', async () => {
    await changeDuty(context, {
      sessionId,
      duty: 'wash up',
      people: '2',
      from: '17:30',
      to: '18:00',
      reason: 'many pots',
    });
    const { version } = (await findOne(store.db, store.db.models.session, { id: sessionId })) ?? { version: 0 };
    await moveSession(context, { sessionId, version, date: '2026-11-27', startsAt: '16:00' });
    expect(await duty('wash up')).toMatchObject({ people: 2, date: '2026-11-27' });
  });
});

describe('time', () => {
  it('that somebody is busy comes from their calendar: only when, not with what', async () => {
    const { id = '', version = 0 } = (await listCrew(context, {})).people.find(({ name }) => name === 'Ada') ?? {};
    const event = [
      'BEGIN:VEVENT',
      'UID:1',
      'SUMMARY:Dentist',
      'DTSTART:20261126T150000Z',
      'DTEND:20261126T180000Z',
      'END:VEVENT',
    ];
    const bytes = new TextEncoder().encode(['BEGIN:VCALENDAR', 'VERSION:2.0', ...event, 'END:VCALENDAR'].join('\r\n'));
    expect(await importBusy(context, { crewId: id, version, bytes })).toMatchObject({ times: 1 });
    const { free } = (await listCrew(context, {})).people.find(({ name }) => name === 'Ada') ?? {};
    expect(free).toMatch(/not on 2026-11-26 15:00-18:00/);
    await planRoster(context, {});
    expect(await said('lead')).toEqual(['Bo planned']);
    const none = importBusy(context, { crewId: id, version: version + 1, bytes: new Uint8Array([1, 2]) });
    await expect(none).rejects.toThrow(/not a (text|calendar) file/);
  });

  it('that somebody gave is tapped at the door, changed where a tap was forgotten, and stated', async () => {
    const on = (time: string) => at(`2026-11-26T${time}:00Z`, context);
    const tap = (time: string) => tapAtDoor(on(time), { sessionId, crewId: ids.Cy ?? '' });
    expect([await tap('20:30'), await tap('22:00')]).toEqual(['came', 'went']);
    expect([await tap('22:10'), await tap('22:10')]).toEqual(['came', 'not there']);
    expect((await viewDoor(on('22:11'), { sessionId })).people.find(({ name }) => name === 'Cy')?.stays).toHaveLength(
      1,
    );
    // Whoever is no coordinator notes nobody's hours on another day than the duty's.
    const crewActor = { ...context.actor, role: 'crew' as const };
    const other = { ...at('2026-11-24T12:00:00Z', context), actor: crewActor };
    await expect(tapAtDoor(other, { sessionId, crewId: ids.Cy ?? '' })).rejects.toMatchObject({ kind: 'forbidden' });
    const { people } = await viewHours(on('23:00'), {});
    expect(people).toMatchObject([{ name: 'Cy', minutes: 90 }]);
    expect(await exportHours(on('23:00'), { as: 'csv' })).toContain('Cy,2026-11-26,');
    const pdf = await exportHours(on('23:00'), { as: 'pdf' });
    expect(new TextDecoder('latin1').decode(pdf as Uint8Array).slice(0, 5)).toBe('%PDF-');
  });
});

it('keeps a table of people against duties that is checked with the rules it was planned by', async () => {
  await planRoster(context, {});
  const { given, duties, places } = await viewRosterTable(context, {});
  expect(given.duties).toHaveLength(duties.length);
  expect(places.length).toBeGreaterThan(0);
  const {
    id = '',
    version = 0,
    ...rest
  } = (await listCrew(context, {})).people.find(({ name }) => name === 'Ada') ?? {};
  expect(rest).toBeDefined();
  await expect(editCrewMember(context, { crewId: id, version, name: 'Ada', memberId: id })).rejects.toMatchObject({
    kind: 'not-found',
  });
});
