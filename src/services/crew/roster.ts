import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { HOLDS, type Holder, type PromiseState } from '@/core/crew/crew-standing';
import { whyNot } from '@/core/crew/may-do';
import type { Place, RosterPlan } from '@/core/crew/roster-case';
import { bringTogether } from '@/core/crew/together';
import { addDays, dayOf } from '@/core/plan/civil';
import { holdSessions } from '@/store/plan';
import { find, findOne, insert, remove } from '@/store/query';
import type { Db } from '@/store/store';
import type { CrewMemberRow, PromiseRow } from '@/store/tables/crew';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service, todayIn } from '../gate/gate';
import { hasMoved } from '../sheet/duty-sessions';
import { heldBy, loadProgramme } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';
import {
  type CrewSession,
  crewNow,
  crewSessions,
  dutyId,
  keyIn,
  rosterOf,
  type SessionDuty,
  sessionOf,
} from './crew-sessions';

/** How far a roster looks where nobody says, and at most. */
const USUAL_DAYS = 14;
const MOST_DAYS = 120;
/** A plan is looked for so long, at most. */
const SECONDS = 8;

/** What a roster is for: all sessions until a day, those of one course, or one session. */
const span = {
  toDay: civilDate.optional(),
  courseId: z.uuid().optional(),
  sessionId: z.uuid().optional(),
};
type Span = z.output<z.ZodObject<typeof span>>;

/** Everything of a span's roster: its sessions and its crew. */
export async function loadRoster(context: Context, { toDay, courseId, sessionId }: Span, db: Db = context.store.db) {
  const loaded = await loadProgramme(context, db);
  const today = todayIn(context, loaded.programme.timeZone);
  const own = sessionId ? await findOne(db, db.models.session, { id: sessionId }) : undefined;
  const usual = addDays(today, courseId || sessionId ? MOST_DAYS : USUAL_DAYS);
  // A session is planned however far off it is.
  const last = toDay ?? (own && own.date > usual ? own.date : usual);
  if (toDay !== undefined && (toDay < today || dayOf(toDay) - dayOf(today) > MOST_DAYS))
    throw new ServiceError('invalid', 'Nothing was worked out yet.', [
      { where: 'toDay', message: `Choose a day between today and ${addDays(today, MOST_DAYS)}.` },
    ]);
  const crew = await crewNow(context, db);
  // What somebody has elsewhere counts, whatever is looked at: all sessions of the span are loaded, and those that a group still has.
  const sessions = await crewSessions(context, loaded, { notOverOn: today, to: last }, crew, db);
  if (courseId && !(await findOne(db, db.models.course, { id: courseId, programmeId: context.actor.programmeId })))
    throw notFound('course');
  if (sessionId && !sessions.some(({ id }) => id === sessionId)) throw notFound('session');
  const isMeant = (session: CrewSession) =>
    (!courseId || session.courseId === courseId) && (!sessionId || session.id === sessionId);
  return { today, toDay: last, crew, sessions, meant: sessions.filter(isMeant) };
}

/** Who is at a duty. */
export function holdersOf(
  duty: SessionDuty,
  promises: readonly PromiseRow[],
  crew: readonly CrewMemberRow[],
): Holder[] {
  const people = new Map(crew.map((row) => [row.id, row]));
  return promises
    .filter((each) => each.duty === duty.key)
    .flatMap((each): Holder[] => {
      const person = people.get(each.crewId);
      if (!person) return [];
      const lapsed = HOLDS.includes(each.state) ? whyNot(heldBy(person), duty) : undefined;
      return [
        {
          promiseId: each.id,
          crewId: each.crewId,
          name: person.name,
          state: each.state,
          isPinned: each.isPinned === 1,
          isOffered: each.isOffered === 1,
          note: each.note,
          moved: (each.state === 'asked' || each.state === 'accepted') && hasMoved(each.told, duty),
          askedAt: each.askedAt,
          ...(lapsed ? { lapsed } : {}),
        },
      ];
    })
    .sort((a, b) => HOLDS.indexOf(b.state) - HOLDS.indexOf(a.state) || a.name.localeCompare(b.name));
}

export const namesOf = (crew: readonly CrewMemberRow[]): ReadonlyMap<string, string> =>
  new Map(crew.map(({ id, name }) => [id, name]));

/** Who is at a duty in one of these states and may do it: who said yes and has no check any more takes nobody's place. */
export const ableAt = (
  duty: SessionDuty,
  promises: readonly PromiseRow[],
  crew: readonly CrewMemberRow[],
  states: readonly PromiseState[] = ['accepted'],
): Holder[] => holdersOf(duty, promises, crew).filter(({ state, lapsed }) => states.includes(state) && !lapsed);

/**
 * How a duty is filled. `empty`: places for which nobody is planned, asked or promised. `over`: how many said yes beyond those it
 * needs, as where a check is renewed, or a class goes back to its day, after somebody else said yes in their place.
 */
export function fillOf(
  { people }: Pick<SessionDuty, 'people'>,
  holders: readonly Holder[],
): { readonly empty: number; readonly over: number } {
  const may = holders.filter(({ state, lapsed }) => HOLDS.includes(state) && !lapsed);
  const yes = may.filter(({ state }) => state === 'accepted');
  return { empty: Math.max(0, people - may.length), over: Math.max(0, yes.length - people) };
}

export const viewRoster = service({
  title: 'See what the coming sessions need people for, and who does it',
  roles: ['coordinator'],
  input: z.object(span),
  run: async (context, wanted) => {
    const { today, toDay, crew, meant } = await loadRoster(context, wanted);
    return {
      today,
      toDay,
      crew: crew.map(({ id, name, sickUntil }) => ({ id, name, isSick: sickUntil !== null && sickUntil >= today })),
      sessions: meant
        .map(({ duties, promises, ...session }) => ({
          ...session,
          duties: duties
            .filter(({ date }) => date >= today)
            .map((duty) => {
              const holders = holdersOf(duty, promises, crew);
              return { ...duty, holders, ...fillOf(duty, holders) };
            }),
        }))
        .filter(({ duties }) => duties.length > 0),
    };
  },
});

/** What a plan came to. */
export interface Planned {
  /** People who are newly planned, and places still empty. */
  readonly planned: number;
  readonly empty: number;
  readonly proven: RosterPlan['proven'];
  readonly changed: number;
}

/** Works out the best roster for sessions and saves it: whoever was asked, has promised, or is pinned, stays. */
export async function planAndSave(context: Context, wanted: Span): Promise<Planned> {
  const { today, crew, sessions, meant } = await loadRoster(context, wanted);
  const meantIds = new Set(meant.map(({ id }) => id));
  // What is not meant stays as it is.
  const { given } = await rosterOf(context, sessions, crew, today, ({ sessionId }) => !meantIds.has(sessionId));
  const standing = new Set((given.fixed ?? []).map(({ duty }) => duty));
  const duties = (given.duties ?? []).filter(({ id }) => meantIds.has(sessionOf(id)) || standing.has(id));
  const answer = await pooled('bestRoster', { ...given, duties, seconds: SECONDS });
  const withWishes = crew.flatMap(({ id, withWhom }) => withWhom.map((other) => ({ person: id, with: other })));
  const found = bringTogether({ ...given, duties }, answer.places, withWishes, sessionOf);
  const own = found.filter(({ duty }) => meantIds.has(sessionOf(duty)));
  const saved = await savePlaces(context, [...meantIds], own);
  const empty = meant
    .flatMap((session) => session.duties)
    .filter(({ date }) => date >= today)
    .reduce((sum, { id, people }) => sum + Math.max(0, people - own.filter(({ duty }) => duty === id).length), 0);
  return { ...saved, empty, proven: answer.proven };
}

/** Puts a plan in the place of what was only planned. Somebody who was asked or pinned meanwhile stays. */
async function savePlaces(
  context: Context,
  sessionIds: readonly string[],
  places: readonly Place[],
): Promise<Pick<Planned, 'planned' | 'changed'>> {
  if (sessionIds.length === 0) return { planned: 0, changed: 0 };
  return context.store.transaction(async (db) => {
    await holdSessions(db, context.actor.programmeId, sessionIds);
    const now = await find(db, db.models.promise, { sessionId: [...sessionIds] });
    const wanted = new Map(places.map((place) => [`${place.duty} ${place.person}`, place]));
    const keyOf = ({ sessionId, duty, crewId }: PromiseRow) => `${dutyId(sessionId, duty)} ${crewId}`;
    const gone = now.filter((row) => row.state === 'planned' && row.isPinned === 0 && !wanted.has(keyOf(row)));
    const there = new Set(now.map(keyOf));
    const fresh = [...wanted].flatMap(([key, { duty, person }]): PromiseRow[] => {
      if (there.has(key)) return [];
      return [freshPromise(context, { sessionId: sessionOf(duty), duty: keyIn(duty), crewId: person })];
    });
    await remove(db, db.models.promise, { id: gone.map(({ id }) => id) });
    await insert(db, db.models.promise, fresh);
    for (const sessionId of new Set([...gone, ...fresh].map((row) => row.sessionId)))
      await logChange(context, db, 'planned the crew', 'session', sessionId, {});
    return { planned: fresh.length, changed: gone.length + fresh.length };
  });
}

/** Somebody and a duty, planned and nothing more. */
export const freshPromise = (
  context: Pick<Context, 'ids'>,
  of: Pick<PromiseRow, 'sessionId' | 'duty' | 'crewId'> & Partial<PromiseRow>,
): PromiseRow => ({
  state: 'planned',
  isPinned: 0,
  isOffered: 0,
  told: null,
  note: '',
  askedAt: null,
  remindedAt: null,
  answeredAt: null,
  version: 1,
  ...of,
  id: context.ids(),
});

export const planRoster = service({
  title: 'Plan who does what, as well as can be done',
  roles: ['coordinator'],
  costly: true,
  input: z.object(span),
  run: planAndSave,
});
