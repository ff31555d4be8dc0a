import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { briefingOf, stepsFor } from '@/core/crew/briefing';
import { HOLDS } from '@/core/crew/crew-standing';
import type { DutyKind } from '@/core/crew/duties';
import { whyNot } from '@/core/crew/may-do';
import { rulesAgainst } from '@/core/crew/roster-why';
import { addDays } from '@/core/plan/civil';
import { mannerOf } from '@/core/plan/manner';
import { writeCalendar } from '@/formats/plan/icalendar-out';
import { endCrewLinks, holdCrewMember, holdPromise, sessionsOfCrew } from '@/store/crew';
import { findOne, insert, update } from '@/store/query';
import type { Db } from '@/store/store';
import type { CrewMemberRow, PromiseRow } from '@/store/tables/crew';
import { openLink, validLink } from '../access/links';
import type { Visit } from '../access/sign-in';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, ROLES, service, todayIn } from '../gate/gate';
import { hasMoved } from '../sheet/duty-sessions';
import { heldBy, loadProgramme } from '../sheet/load-programme';
import { tellCrew } from './asking';
import { type CrewSession, crewNow, crewSessions, dutyId, rosterOf, type SessionDuty, toldOf } from './crew-sessions';

import { refuseClash } from './promised';
import { freshPromise, loadRoster } from './roster';

/** Somebody who looks at their own page, by their link or signed in. */
export interface Own {
  readonly context: Context;
  readonly person: CrewMemberRow;
}

const GONE = new ServiceError(
  'not-found',
  'This page has ended. Ask the coordinator of the programme for a new link to it.',
);

/** Whose page a link opens. @throws ServiceError where it opens none any more */
export async function ownByLink(visit: Visit, secret: string): Promise<Own> {
  // A page is looked at again and again, by many from one address: only guesses are counted.
  const link = (await validLink(visit, visit.store.db, 'crew', secret)) ?? (await openLink(visit, 'crew', secret));
  const { db } = visit.store;
  const person = link && (await findOne(db, db.models.crewMember, { id: link.crewId ?? '', erasedAt: null }));
  if (!person) throw GONE;
  const actor = { id: person.id, programmeId: person.programmeId, role: 'crew' as const, name: person.name };
  return { context: { ...visit, actor }, person };
}

/** The page of whoever is signed in, where a coordinator said who of the crew they are. */
async function ownBySignIn(context: Context): Promise<Own> {
  const { id: memberId, programmeId } = context.actor;
  const { db } = context.store;
  const person = await findOne(db, db.models.crewMember, { memberId, programmeId, erasedAt: null });
  if (!person)
    throw new ServiceError(
      'not-found',
      'Nobody has said yet who of the crew you are: ask a coordinator to link your sign-in.',
    );
  return { context, person };
}

/** A duty of somebody's own, as their page shows it. */
export interface OwnDuty {
  readonly promiseId: string;
  readonly version: number;
  readonly session: string;
  readonly kind: DutyKind;
  readonly title: string;
  readonly date: string;
  readonly from: number;
  readonly to: number;
  readonly place: string;
  readonly state: PromiseRow['state'];
  readonly isOffered: boolean;
  /** Where it was told otherwise: what was told. */
  readonly before?: PromiseRow['told'];
  readonly what: string;
  readonly bring: readonly string[];
  /** Of the dishes: the steps at which they are wanted. */
  readonly steps: readonly string[];
  /** Names of those who said yes beside them. */
  readonly beside: readonly string[];
  /** Whom to call: who leads the class, or a coordinator. */
  readonly lead?: { readonly name: string; readonly contact: string };
}

/** How far ahead somebody's page looks, in days. */
const AHEAD = 120;

/** A duty that somebody else would give away. */
type Offer = Pick<OwnDuty, 'promiseId' | 'title' | 'session' | 'date' | 'from' | 'to' | 'place'> & {
  readonly who: string;
};

async function viewOwn({ context, person }: Own) {
  const { db } = context.store;
  const { programmeId, id: crewId } = person;
  // Asked for at once: none waits for another.
  const [loaded, ids, crew] = await Promise.all([
    loadProgramme(context),
    sessionsOfCrew(db, { programmeId, crewId, from: addDays(todayOf(context), -1) }),
    crewNow(context, db),
  ]);
  const { programme } = loaded;
  const today = todayIn(context, programme.timeZone);
  // Times are as they were told: nobody's free hours are looked through for a page that only says them.
  const sessions = await crewSessions(context, loaded, { ids: ids.map(({ id }) => id) }, []);
  const nameOf = new Map(crew.map((each) => [each.id, each]));
  const duties = sessions.flatMap((session) =>
    session.duties
      .filter(({ date }) => date >= today)
      .flatMap((duty) => {
        const all = session.promises.filter((each) => each.duty === duty.key);
        const mine = all.find(({ crewId }) => crewId === person.id);
        return mine && (mine.state === 'asked' || mine.state === 'accepted')
          ? [ownDuty(session, duty, mine, all, nameOf)]
          : [];
      }),
  );
  const offers = await offersFor(context, person, sessions, crew, today);
  duties.sort((a, b) => (a.date === b.date ? a.from - b.from : a.date < b.date ? -1 : 1));
  return {
    name: person.name,
    programme: programme.name,
    timeZone: programme.timeZone,
    manner: mannerOf(programme),
    today,
    duties,
    offers,
    away: person.free.exceptions.filter(({ date, isFree }) => !isFree && date >= today),
  };
}

/** What others would give away that somebody could take. */
async function offersFor(
  context: Context,
  person: CrewMemberRow,
  sessions: readonly CrewSession[],
  crew: readonly CrewMemberRow[],
  today: string,
): Promise<Offer[]> {
  const offered = sessions.flatMap((session) =>
    session.promises
      .filter(({ isOffered, crewId, state }) => isOffered === 1 && crewId !== person.id && state === 'accepted')
      .map((promise) => ({ session, promise })),
  );
  if (offered.length === 0) return [];
  const { given, places } = await rosterOf(context, sessions, crew, today);
  const asPerson = given.people?.find(({ id }) => id === person.id);
  const against = rulesAgainst(given, places);
  return offered.flatMap(({ session, promise }) => {
    const duty = session.duties.find(({ key }) => key === promise.duty);
    const asDuty = given.duties?.find(({ id }) => id === duty?.id);
    if (!asPerson || !duty || !asDuty || against(asPerson, asDuty) !== undefined) return [];
    const { title, date, from, to, place } = duty;
    const who = crew.find(({ id }) => id === promise.crewId)?.name ?? '';
    return [{ promiseId: promise.id, session: session.title, title, date, from, to, place, who }];
  });
}

const todayOf = (context: Context): string => context.clock().toString().slice(0, 10);

function ownDuty(
  session: CrewSession,
  duty: SessionDuty,
  mine: PromiseRow,
  all: readonly PromiseRow[],
  people: ReadonlyMap<string, CrewMemberRow>,
): OwnDuty {
  const { kind, title, date, from, to, place } = duty;
  const leads = session.promises.find((each) => each.duty.startsWith('lead') && each.state === 'accepted');
  const lead = leads && leads.crewId !== mine.crewId ? people.get(leads.crewId) : undefined;
  return {
    promiseId: mine.id,
    version: mine.version,
    session: session.title,
    kind,
    title,
    date,
    from,
    to,
    place,
    state: mine.state,
    isOffered: mine.isOffered === 1,
    ...(hasMoved(mine.told, duty) ? { before: mine.told } : {}),
    ...briefingOf(kind),
    steps: stepsFor(kind, session.steps),
    beside: all
      .filter(({ crewId, state }) => crewId !== mine.crewId && state === 'accepted')
      .flatMap(({ crewId }) => people.get(crewId)?.name ?? []),
    ...(lead ? { lead: { name: lead.name, contact: lead.contact } } : {}),
  };
}

/** What somebody says of a duty on their page. */
const answerOf = z.object({
  promiseId: z.uuid(),
  answer: z.enum(['yes', 'no', 'offer', 'keep']),
  note: z.string().trim().max(200, 'At most 200 characters.').default(''),
});
type Answer = z.output<typeof answerOf>;

/**
 * Says yes or no, or that somebody else may take it. Of two who say yes to one place at one moment, one has it.
 *
 * @returns what it came to, in a sentence
 */
const answerOwn = ({ context, person }: Own, { promiseId, answer, note }: Answer): Promise<string> =>
  context.store.transaction(async (db) => {
    const { row, session, duty, all, crew } = await heldPlace(context, db, promiseId, person.id);
    const version = row.version + 1;
    if (answer === 'offer' || answer === 'keep') {
      if (row.state !== 'accepted') throw new ServiceError('invalid', 'Say yes first: it is not yours yet.');
      await update(db, db.models.promise, { id: row.id }, { isOffered: answer === 'offer' ? 1 : 0, note, version });
      await logChange(context, db, `crew: ${answer}`, 'session', session.id, { duty: duty.key });
      return answer === 'offer' ? 'Others can take it now. It is yours until somebody does.' : 'It stays yours.';
    }
    const answeredAt = nowOf(context);
    if (answer === 'no') {
      const values = { state: 'declined' as const, isOffered: 0, isPinned: 0, note, answeredAt, version };
      await update(db, db.models.promise, { id: row.id }, values);
      await logChange(context, db, row.state === 'accepted' ? 'dropped out' : 'declined', 'session', session.id, {
        duty: duty.key,
      });
      return 'Thank you for saying so: we look for somebody else.';
    }
    const no = whyNot(heldBy(person), duty);
    if (no) throw new ServiceError('invalid', `It cannot be yours as things stand: ${no}. Tell the coordinator.`);
    const mayStay = (crewId: string) => {
      const other = crew.find(({ id }) => id === crewId);
      return other !== undefined && whyNot(heldBy(other), duty) === undefined;
    };
    const others = all.filter(({ crewId, state }) => crewId !== person.id && state === 'accepted' && mayStay(crewId));
    if (others.length >= duty.people) {
      await update(db, db.models.promise, { id: row.id }, { state: 'taken', answeredAt, version });
      return 'Thank you: somebody was quicker, and it is taken.';
    }
    await refuseClash(context, db, person, duty, row.id);
    const values = { state: 'accepted' as const, told: toldOf(duty), note, answeredAt, version };
    await update(db, db.models.promise, { id: row.id }, values);
    await logChange(context, db, 'accepted', 'session', session.id, { duty: duty.key });
    if (others.length + 1 >= duty.people) await tellTaken(context, db, crew, duty, all, person.id);
    return 'Thank you: it is yours.';
  });

/** A place with its session held for the rest of the transaction. */
async function heldPlace(context: Context, db: Db, promiseId: string, crewId?: string) {
  const { programmeId } = context.actor;
  const [first] = await holdPromise(db, { programmeId, promiseId });
  if (!first || (crewId && first.crewId !== crewId)) throw notFound('duty');
  const row = await findOne(db, db.models.promise, { id: promiseId });
  const { sessions, crew, today } = await loadRoster(context, { toDay: addDays(todayOf(context), AHEAD) }, db);
  const session = sessions.find(({ id }) => id === first.sessionId);
  const duty = session?.duties.find(({ key }) => key === row?.duty);
  if (!row || !session || !duty || !HOLDS.includes(row.state))
    throw new ServiceError('stale', 'This is not asked of you any more. Load the page again.');
  if (duty.date < today) throw new ServiceError('invalid', 'That day is over.');
  return { row, session, duty, crew, sessions, today, all: session.promises.filter((each) => each.duty === duty.key) };
}

/** Those who were asked for the same place, and were not the first, are thanked. */
async function tellTaken(
  context: Context,
  db: Db,
  crew: readonly CrewMemberRow[],
  duty: SessionDuty,
  all: readonly PromiseRow[],
  except: string,
): Promise<void> {
  for (const row of all) {
    if (row.crewId === except || (row.state !== 'asked' && row.state !== 'planned')) continue;
    await update(db, db.models.promise, { id: row.id }, { state: 'taken', version: row.version + 1 });
    const person = crew.find(({ id }) => id === row.crewId);
    if (person && row.state === 'asked') await tellCrew(context, db, person, 'taken', [duty]);
  }
}

/** Takes what somebody else offers: theirs until then, from now on one's own. */
const takeOffer = ({ context, person }: Own, promiseId: string): Promise<string> =>
  context.store.transaction(async (db) => {
    await holdCrewMember(db, { crewId: person.id });
    const { row, session, sessions, duty, all, crew, today } = await heldPlace(context, db, promiseId);
    if (row.isOffered === 0 || row.state !== 'accepted' || row.crewId === person.id)
      throw new ServiceError('stale', 'Somebody has taken it already, or it is kept after all.');
    const without = sessions.map((each) =>
      each.id === session.id ? { ...each, promises: each.promises.filter(({ id }) => id !== row.id) } : each,
    );
    const { given, places } = await rosterOf(context, without, crew, today);
    const asPerson = given.people?.find(({ id }) => id === person.id);
    const asDuty = given.duties?.find(({ id }) => id === dutyId(session.id, duty.key));
    const rule = asPerson && asDuty ? rulesAgainst(given, places)(asPerson, asDuty) : 'never';
    if (rule !== undefined && rule !== 'free')
      throw new ServiceError('invalid', 'You cannot take it as things stand. Ask the coordinator.');
    await refuseClash(context, db, person, duty, row.id);
    const values = { state: 'accepted' as const, told: toldOf(duty), answeredAt: nowOf(context), isOffered: 0 };
    const mine = all.find(({ crewId }) => crewId === person.id);
    if (mine) await update(db, db.models.promise, { id: mine.id }, { ...values, version: mine.version + 1 });
    else
      await insert(db, db.models.promise, [
        freshPromise(context, { sessionId: session.id, duty: duty.key, crewId: person.id, ...values }),
      ]);
    await update(db, db.models.promise, { id: row.id }, { state: 'taken', isOffered: 0, version: row.version + 1 });
    await logChange(context, db, 'took over', 'session', session.id, { duty: duty.key, from: row.crewId });
    const before = crew.find(({ id }) => id === row.crewId);
    if (before) await tellCrew(context, db, before, 'no longer needed', [duty], `${person.name} has it now.`);
    return 'Thank you: it is yours now.';
  });

const awayOf = z
  .object({
    date: civilDate,
    from: z.number().int().min(0).max(1440).default(0),
    to: z.number().int().min(0).max(1440).default(1440),
    isAway: z.boolean(),
  })
  .refine(({ from, to }) => from < to, { message: 'It ends before it begins.', path: ['to'] });

/** Says that they cannot on a day, or can after all. What they have promised then stays promised until they say no to it. */
const sayAway = ({ context, person }: Own, { date, from, to, isAway }: z.output<typeof awayOf>): Promise<void> =>
  context.store.transaction(async (db) => {
    const row = await findOne(db, db.models.crewMember, { id: person.id, erasedAt: null });
    if (!row) throw GONE;
    const rest = row.free.exceptions.filter((each) => each.date !== date || each.isFree);
    if (isAway && rest.length >= 400) throw new ServiceError('invalid', 'So many days cannot be kept.');
    const exceptions = isAway ? [...rest, { date, from, to, isFree: false }] : rest;
    await update(
      db,
      db.models.crewMember,
      { id: row.id },
      { free: { ...row.free, exceptions }, version: row.version + 1 },
    );
    await logChange(context, db, isAway ? 'said when they cannot' : 'said that they can', 'crew', row.id, {});
  });

/** Their own duties as a calendar: those they said yes to, and those they are asked for. */
async function ownCalendar(own: Own): Promise<string> {
  const { name, programme, timeZone, duties } = await viewOwn(own);
  return writeCalendar({
    name: `${programme}: ${name}`,
    timeZone,
    events: duties.map(({ promiseId, version, state, title, session, place, date, from, to }) => ({
      uid: `duty-${promiseId}@logistra`,
      sequence: version,
      title: state === 'asked' ? `Asked: ${title}` : title,
      description: session,
      place,
      date,
      startsAt: `${String(Math.floor(from / 60)).padStart(2, '0')}:${String(from % 60).padStart(2, '0')}`,
      minutes: to - from,
      cancelled: false,
    })),
    tasks: [],
    stamp: own.context.clock().toString(),
  });
}

/** What somebody can do on their page, however they came to it. */
export const OWN_PAGE = {
  view: viewOwn,
  answer: (own: Own, sent: unknown) => answerOwn(own, read(answerOf, sent)),
  take: (own: Own, sent: unknown) => takeOffer(own, read(z.object({ promiseId: z.uuid() }), sent).promiseId),
  away: (own: Own, sent: unknown) => sayAway(own, read(awayOf, sent)),
  calendar: ownCalendar,
} as const;

function read<T extends z.ZodType>(schema: T, sent: unknown): z.output<T> {
  const reading = schema.safeParse(sent);
  if (reading.success) return reading.data;
  throw new ServiceError(
    'invalid',
    'Nothing was saved yet.',
    reading.error.issues.map(({ path, message }) => ({ where: String(path[0] ?? ''), message })),
  );
}

export const viewMyPage = service({
  title: 'See one’s own duties',
  roles: ROLES,
  input: z.object({}),
  run: async (context) => viewOwn(await ownBySignIn(context)),
});

export const answerOnMyPage = service({
  title: 'Say yes or no to a duty of one’s own',
  roles: ROLES,
  input: answerOf,
  run: async (context, sent) => answerOwn(await ownBySignIn(context), sent),
});

export const endCrewLink = service({
  title: 'End the personal link of somebody of the crew',
  roles: ['coordinator'],
  input: z.object({ crewId: z.uuid() }),
  run: (context, { crewId }) =>
    context.store.transaction(async (db) => {
      if (!(await crewNow(context, db)).some(({ id }) => id === crewId)) throw notFound('person');
      const ended = await endCrewLinks(db, { crewId, now: nowOf(context) });
      await logChange(context, db, 'ended the personal link', 'crew', crewId, {});
      return ended;
    }),
});
