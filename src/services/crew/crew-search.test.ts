import { Temporal } from 'temporal-polyfill';
import { expect, it } from 'vitest';
import { find, findOne } from '@/store/query';
import { randomFrom } from '../../../scripts/random.mjs';
import { cells, newProgramme, newSession, select, testStore } from '../../../tests/programme';
import { ServiceError } from '../errors';
import type { Context } from '../gate/gate';
import { addSession, moveSession } from '../plan/sessions';
import { addPerson } from '../roll/roll';
import { askByItself, askCrew, askToStepIn } from './asking';
import { OWN_PAGE } from './own-page';
import { addCrewMember, editCrewMember, eraseCrewMember, listCrew, noteSick, takeSickBack } from './people';
import { changeDuty, changePlaces } from './places';
import { planRoster, viewRoster } from './roster';
import { viewSessionCrew } from './session-crew';
import { dropOut } from './step-in';

const STEPS = Number(process.env.CREW_STEPS ?? 100);
const DAYS = ['2026-11-24', '2026-11-25', '2026-11-26', '2026-11-27', '2026-11-30'];
const TIMES = ['10:00', '15:00', '16:00'];

interface Promised {
  readonly sessionId: string;
  readonly duty: string;
  readonly crewId: string;
  readonly state: string;
  readonly told: { readonly date: string; readonly from: number; readonly to: number } | null;
  readonly skills: Readonly<Record<string, { readonly until: string | null }>>;
  readonly isAdult: number;
  readonly sickUntil: string | null;
  readonly erased: number;
}

/** What makes somebody's yes good again that was not, or asks for fewer: after it a duty may have one too many, which is said. */
const HEALS = ['sick back', 'check ends', 'move', 'leave out', 'another child'];

/**
 * What is broken, by the rows alone: with none of the code that plans, asks, or counts.
 *
 * @param before how many each duty had too many, which this brings up to date
 * @param mayHeal whether one of these steps did something that may leave one too many
 */
async function broken(context: Context, before: Map<string, number>, mayHeal: boolean): Promise<string[]> {
  const found: string[] = [];
  const rows = await select<Promised>(
    context.store.db,
    `SELECT p.session_id AS sessionId, p.duty, p.crew_id AS crewId, p.state, p.told, m.skills, m.is_adult AS isAdult,
            CAST(m.sick_until AS CHAR) AS sickUntil, m.erased_at IS NOT NULL AS erased
       FROM promise p JOIN crew_member m ON m.id = p.crew_id WHERE m.programme_id = :programmeId`,
    { programmeId: context.actor.programmeId },
  );
  const accepted = rows.filter(({ state }) => state === 'accepted');
  for (const one of accepted)
    for (const other of accepted)
      if (one !== other && one.crewId === other.crewId && one.told && other.told && one.told.date === other.told.date)
        if (one.told.from < other.told.to && other.told.from < one.told.to)
          found.push(`${one.crewId} promised ${one.duty} and ${other.duty} at one time`);
  if (rows.some(({ erased }) => erased === 1)) found.push('somebody erased has a promise');
  const today = context.clock().toZonedDateTimeISO('Europe/London').toPlainDate().toString();
  const { sessions } = await viewRoster(context, { toDay: '2027-01-10' });
  for (const session of sessions) {
    const may = (row: Promised, duty: (typeof session.duties)[number]) =>
      (row.isAdult === 1 || !duty.isAdult) &&
      (row.sickUntil === null || row.sickUntil < duty.date) &&
      duty.skills.every((skill) => {
        const held = row.skills[skill];
        return held !== undefined && (held.until === null || held.until >= duty.date);
      });
    let sure = 0;
    for (const duty of session.duties) {
      const own = rows.filter((row) => row.sessionId === session.id && row.duty === duty.key);
      const yes = own.filter((row) => row.state === 'accepted');
      const good = yes.filter((row) => may(row, duty));
      const over = Math.max(0, good.length - duty.people);
      if (duty.over !== over) found.push(`${duty.title}: ${over} too many, and it says ${duty.over}`);
      if (over > (before.get(duty.id) ?? 0) && !mayHeal) found.push(`${duty.title}: ${good.length} for ${duty.people}`);
      before.set(duty.id, over);
      for (const row of yes) {
        const shown = duty.holders.find((holder) => holder.crewId === row.crewId);
        if ((shown?.lapsed === undefined) !== may(row, duty)) found.push(`${duty.title}: lapsed is said wrongly`);
        const { date, from, to } = row.told ?? { date: '', from: 0, to: 0 };
        const moved = date !== duty.date || from !== duty.from || Math.abs(to - duty.to) > 15;
        if (moved !== shown?.moved) found.push(`${duty.title}: moved is said wrongly`);
      }
      if (['lead', 'assistant', 'knives', 'heat', 'fire', 'raw meat'].includes(duty.kind))
        sure += Math.min(
          duty.people,
          good.filter(({ told }) => told?.date === duty.date && told.from === duty.from).length,
        );
    }
    const needed = session.rooms.reduce((sum, { adults }) => sum + adults.adults, 0);
    const days = Temporal.PlainDate.from(today).until(Temporal.PlainDate.from(session.date)).days;
    const { below, promises } = { ...(await viewSessionCrew(context, { sessionId: session.id })), promises: rows };
    const isAsked = promises.some(({ sessionId }) => sessionId === session.id);
    if (isAsked && days >= 0 && days <= 3 && sure < needed && below === undefined)
      found.push(`${session.title}: ${sure} of ${needed} adults, and nobody is told`);
    if (sure >= needed && below !== undefined)
      found.push(`${session.title}: ${sure} of ${needed} adults, and it is stopped`);
  }
  return found;
}

it('no random steps leave a duty promised twice, held by who may not, or a class below its adults unsaid', async () => {
  const store = await testStore();
  const seed = Number(process.env.CREW_SEED ?? 11);
  const chance = randomFrom(seed);
  const oneOf = <T>(list: readonly T[]): T => {
    const one = list[Math.floor(chance() * list.length)];
    if (one === undefined) throw new ServiceError('not-found', 'None.');
    return one;
  };
  const own = (await newProgramme(store)).coordinator;
  let hours = 0;
  const start = Temporal.Instant.from('2026-11-20T12:00:00Z');
  const context: Context = { ...own, clock: () => start.add({ hours: Math.floor(hours) }) };
  const { db } = store;
  const { courseId, sessionId } = await newSession(
    context,
    Array.from({ length: 9 }, (_, child) => ({ name: `Child ${child}`, age: '7' })),
  );
  const second = {
    title: 'Soups',
    date: '2026-11-26',
    startsAt: '15:00',
    minutes: 90,
    place: 'Hall',
    mode: 'in person',
  };
  const sessions = [sessionId, await addSession(context, { courseId, ...second })];
  const check = (until: string | null) => ({ skill: 'background check' as const, until: until ?? '' });
  for (let at = 0; at < 9; at++)
    await addCrewMember(context, {
      name: `Helper ${at}`,
      contact: at % 4 === 0 ? '' : `h${at}@quay.example`,
      isAdult: at !== 8,
      free: at % 3 === 0 ? 'every day 8:00-22:00' : 'weekdays 9:00-19:00',
      skills: [
        ...(at % 2 === 0 ? [{ skill: 'lead' as const }] : []),
        check(at % 3 === 1 ? '2026-11-26' : null),
        { skill: 'food handler' as const },
      ],
    });
  const promises = () => find(db, db.models.promise, { sessionId: sessions }, [['id', 'ASC']]);
  const crew = async () => (await listCrew(context, {})).people;
  const duties = async () => (await viewRoster(context, {})).sessions.flatMap((session) => session.duties);
  const page = async (crewId: string) => {
    const person = await findOne(db, db.models.crewMember, { id: crewId });
    if (!person) throw new ServiceError('not-found', 'None.');
    const actor = { id: person.id, programmeId: person.programmeId, role: 'crew' as const, name: person.name };
    return { context: { ...context, actor }, person };
  };
  const answer = async () => {
    const { id: promiseId, crewId } = oneOf(await promises());
    return OWN_PAGE.answer(await page(crewId), {
      promiseId,
      answer: oneOf(['yes', 'yes', 'yes', 'yes', 'no', 'offer']),
    });
  };
  const noted: (Parameters<typeof takeSickBack>[1] & object)[] = [];
  const operations: Record<string, () => Promise<unknown>> = {
    plan: () => planRoster(context, {}),
    ask: () => askCrew(context, {}),
    answer,
    'step in': async () => {
      const duty = oneOf(await duties());
      const people = (await crew()).filter(() => chance() < 0.4).map(({ id }) => id);
      return askToStepIn(context, { sessionId: duty.sessionId, duty: duty.key, crewIds: people.slice(0, 3) });
    },
    take: async () => OWN_PAGE.take(await page(oneOf(await crew()).id), { promiseId: oneOf(await promises()).id }),
    word: async () => dropOut(context, { promiseId: oneOf(await promises()).id, answer: oneOf(['yes', 'yes', 'no']) }),
    hand: async () => {
      const duty = oneOf(await duties());
      const what = oneOf(['put', 'put', 'take away', 'pin', 'rule out', 'allow'] as const);
      const change = { sessionId: duty.sessionId, duty: duty.key, crewId: oneOf(await crew()).id, what };
      return changePlaces(context, { changes: [change], byWord: chance() < 0.5 });
    },
    move: async () => {
      const { id, version } = (await findOne(db, db.models.session, { id: oneOf(sessions) })) ?? { id: '', version: 0 };
      return moveSession(context, { sessionId: id, version, date: oneOf(DAYS), startsAt: oneOf(TIMES) });
    },
    'check ends': async () => {
      const { id, version, name, isAdult, free, skills } = oneOf(await crew());
      const until = oneOf(['2026-11-24', '2026-12-30', '']);
      const held = Object.keys(skills).map((skill) => ({
        skill: skill as 'lead',
        ...(skill === 'background check' ? { until } : {}),
      }));
      return editCrewMember(context, { crewId: id, version, name, isAdult: isAdult === 1, free, skills: held });
    },
    sick: async () => {
      const { id, version } = oneOf(await crew());
      const lastSymptom = chance() < 0.7 ? context.clock().toString().slice(0, 10) : null;
      const { before } = await noteSick(context, { crewId: id, version, lastSymptom });
      noted.push({ crewId: id, version: version + 1, ...before });
    },
    'sick back': async () => takeSickBack(context, noted.pop() ?? oneOf([])),
    'another child': () => addPerson(context, { courseId, cells: cells({ name: `Child ${chance()}`, age: '5' }) }),
    'by itself': () => askByItself(context),
    'leave out': async () => {
      const duty = oneOf(await duties());
      return changeDuty(context, { sessionId: duty.sessionId, duty: duty.key, isLeftOut: true, reason: 'by chance' });
    },
    erase: async () => {
      const people = await crew();
      if (people.length < 7) throw new ServiceError('not-found', 'Too few.');
      const { id, version } = oneOf(people);
      return eraseCrewMember(context, { crewId: id, version });
    },
  };
  // What people do most is done most.
  const often: Record<string, number> = { answer: 8, word: 6, 'step in': 5, ask: 3, plan: 2, hand: 3 };
  const names = Object.keys(operations).flatMap((name) => Array<string>(often[name] ?? 1).fill(name));
  const done = new Map<string, number>();
  const log: string[] = [];
  const found: string[] = [];
  const tooMany = new Map<string, number>();
  for (let step = 0; step < STEPS && found.length === 0; step++) {
    hours += chance() * 0.6;
    // Often several at one moment: two who say yes, one who moves what another is asked for.
    const now = Array.from({ length: chance() < 0.25 ? 3 : 1 }, () => oneOf(names));
    const ended = await Promise.allSettled(now.map((name) => operations[name]?.()));
    for (const [at, end] of ended.entries()) {
      const name = now[at] ?? '';
      log.push(`${name}${end.status === 'fulfilled' ? '' : ' (refused)'}`);
      if (end.status === 'fulfilled') done.set(name, (done.get(name) ?? 0) + 1);
      else if (!(end.reason instanceof ServiceError)) found.push(`${name}: ${end.reason} ${end.reason?.stack}`);
    }
    found.push(
      ...(await broken(
        context,
        tooMany,
        now.some((name) => HEALS.includes(name)),
      )),
    );
  }
  await store.close();
  expect(found, `seed ${seed}, after ${log.slice(-12).join('; ')}:\n${found.join('\n')}`).toEqual([]);
  // A search in which nothing is ever promised proves nothing.
  expect([...done.keys()].sort()).toEqual(
    expect.arrayContaining(['answer', 'ask', 'hand', 'move', 'plan', 'sick', 'step in']),
  );
}, 180_000);
