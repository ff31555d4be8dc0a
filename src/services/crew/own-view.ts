import { briefingOf, stepsFor } from '@/core/crew/briefing';
import type { DutyKind } from '@/core/crew/duties';
import { rulesAgainst } from '@/core/crew/roster-why';
import { addDays } from '@/core/plan/civil';
import { sayingFacts } from '@/core/plan/saying';
import { writeCalendar } from '@/formats/plan/icalendar-out';
import { sessionsOfCrew } from '@/store/crew';
import type { CrewMemberRow, PromiseRow } from '@/store/tables/crew';
import { type Context, todayIn } from '../gate/gate';
import { hasMoved } from '../sheet/duty-sessions';
import { loadProgramme } from '../sheet/load-programme';
import { type CrewSession, crewNow, crewSessions, rosterOf, type SessionDuty } from './crew-sessions';

/** Somebody who looks at their own page, by their link or signed in. */
export interface Own {
  readonly context: Context;
  readonly person: CrewMemberRow;
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

/** A duty that somebody else would give away. */
type Offer = Pick<OwnDuty, 'promiseId' | 'title' | 'session' | 'date' | 'from' | 'to' | 'place'> & {
  readonly who: string;
};

export async function viewOwn({ context, person }: Own) {
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
    says: sayingFacts(programme),
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

/** Their own duties as a calendar: those they said yes to, and those they are asked for. */
export async function ownCalendar(own: Own): Promise<string> {
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
