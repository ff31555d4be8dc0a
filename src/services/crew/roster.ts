import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import type { CrewMember, RosterDuty } from '@/core/crew/crew-case';
import { crewCase } from '@/core/crew/crew-case';
import { adultsOf, type DutySession, dutiesOf, type PlannedJob, type Skill } from '@/core/crew/duties';
import type { RosterAnswer } from '@/core/crew/roster-case';
import { addDays, dayOf, minutesOf } from '@/core/plan/civil';
import { civilIn } from '@/core/plan/clock';
import type { Mode } from '@/core/plan/mode';
import { findIngredient } from '@/core/reference/reference';
import { loadSessionBundles, type SessionBundle } from '@/store/session-bundles';
import type { CrewMemberRow } from '@/store/tables/crew';
import { inPool } from '@/workers/pool';

import { ServiceError } from '../errors';
import { type Context, service, todayIn } from '../gate/gate';
import { stepsOf } from '../recipes/steps';
import { loadProgramme, type Programme } from '../sheet/load-programme';
import { comingOf, type SessionSheet, sessionSheet } from '../sheet/session-sheet';
import { sessionThread } from '../sheet/session-thread';
import { crewNow } from './people';

/** How far a roster looks where nobody says, and at most. */
const USUAL_DAYS = 14;
const MOST_DAYS = 120;
const SECONDS = 4;

/** A session as its duties are counted from. */
function dutySession(
  bundle: SessionBundle,
  sheet: SessionSheet,
  programme: Programme,
  jobs: readonly PlannedJob[],
): DutySession {
  const { session } = bundle;
  const coming = comingOf(bundle);
  const modeOf = ({ mode }: { readonly mode: string | null }) => (mode ?? session.mode) as Mode;
  const inRoom = coming.filter((row) => modeOf(row) === 'in person' || modeOf(row) === 'demonstration');
  const steps = bundle.dishes.flatMap((dish) => stepsOf(dish, programme.reference));
  const foods = (sheet.locked?.content ?? sheet.draft)?.totals.map(({ ingredient }) => ingredient) ?? [];
  return {
    date: session.date,
    startsAt: minutesOf(session.startsAt),
    minutes: session.minutes,
    place: session.place,
    modes: [...new Set([session.mode as Mode, ...coming.map(modeOf)])],
    ages: inRoom.map(({ age }) => age),
    steps: steps.filter(({ ahead }) => !ahead),
    hasRawMeat: foods.some((food) => findIngredient(programme.reference, food)?.aisle === 'meat'),
    isOutdoor: session.outdoor !== null,
    jobs,
    stops: new Set(coming.filter((row) => modeOf(row) === 'live online').map(({ householdId }) => householdId)).size,
    profile: programme.safetyProfile,
  };
}

const jobAt = (key: string, minutes: number, { date, time }: { date: string; time: string }): PlannedJob => ({
  key,
  minutes,
  date,
  from: minutesOf(time),
});

/** What the sessions of a span need people for. */
async function dutiesBetween(
  context: Context,
  { programme, meanings, hours }: Awaited<ReturnType<typeof loadProgramme>>,
  { from, to }: { from: string; to: string },
) {
  const { db } = context.store;
  return (await loadSessionBundles(db, context.actor.programmeId, { from, to })).map((bundle) => {
    const { id, title, courseTitle } = bundle.session;
    const sheet = sessionSheet(bundle, programme, meanings);
    const thread = sessionThread(bundle, sheet, programme, hours, context.clock());
    const jobs = thread.jobs.flatMap(({ key, state, planned, startBy, minutes }) =>
      state === 'done' || state === 'not needed'
        ? []
        : [jobAt(key, minutes, civilIn(planned ?? startBy, programme.timeZone))],
    );
    const own = dutySession(bundle, sheet, programme, jobs);
    const duties = dutiesOf(own).map((duty, at): RosterDuty => ({ ...duty, id: `${id} ${duty.kind} ${at}` }));
    return { id, title: `${courseTitle}: ${title}`, date: own.date, adults: adultsOf(own), duties };
  });
}

const memberFrom = ({ skills, limits, ...row }: CrewMemberRow): CrewMember => ({
  id: row.id,
  isAdult: row.isAdult === 1,
  skills: Object.fromEntries(Object.entries(skills).map(([skill, { until }]) => [skill as Skill, until])),
  free: row.free,
  ...(limits.mostDuties === undefined ? {} : { mostDuties: limits.mostDuties }),
  ...(limits.mostHours === undefined ? {} : { mostMinutes: limits.mostHours * 60 }),
  ...(limits.noLifting ? { noLifting: true } : {}),
  ratherNot: row.ratherNot,
  apart: row.apart,
  ...(row.sickUntil === null ? {} : { sickUntil: row.sickUntil }),
});

export const proposeRoster = service({
  title: 'See what the coming sessions need people for, and the best roster for it',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ toDay: civilDate.optional() }),
  run: async (context, { toDay }) => {
    const loaded = await loadProgramme(context);
    const { programme } = loaded;
    const first = todayIn(context, programme.timeZone);
    const last = toDay ?? addDays(first, USUAL_DAYS);
    if (last < first || dayOf(last) - dayOf(first) > MOST_DAYS)
      throw new ServiceError('invalid', 'Nothing was worked out yet.', [
        { where: 'toDay', message: `Choose a day between today and ${addDays(first, MOST_DAYS)}.` },
      ]);
    const sessions = await dutiesBetween(context, loaded, { from: first, to: last });
    const crew = await crewNow(context, context.store.db);
    const duties = sessions.flatMap((session) => session.duties).filter(({ date }) => date >= first);
    const given = crewCase(duties, crew.map(memberFrom), [], first);
    const answer: RosterAnswer = await inPool('planRoster', { ...given, seconds: SECONDS }, 2 * SECONDS);
    const nameOf = new Map(crew.map(({ id, name }) => [id, name]));
    const whyOf = new Map(answer.why.map((each) => [each.duty, each]));
    return {
      today: first,
      toDay: last,
      crew: crew.length,
      empty: duties.reduce((sum, { people }) => sum + people, 0) - answer.places.length,
      proven: answer.proven,
      sessions: sessions.map(({ duties: own, ...session }) => ({
        ...session,
        duties: own
          .filter(({ date }) => date >= first)
          .map((duty) => {
            const why = whyOf.get(duty.id);
            return {
              ...duty,
              who: answer.places
                .filter((place) => place.duty === duty.id)
                .map(({ person }) => nameOf.get(person) ?? ''),
              missing: why?.missing ?? 0,
              because: why?.because.map(({ person, rule }) => ({ name: nameOf.get(person) ?? '', rule })) ?? [],
              working: duty.because,
              would:
                why?.would.map((change) => ({
                  ...change,
                  name: nameOf.get(change.person) ?? '',
                  ...('with' in change ? { with: nameOf.get(change.with) ?? '' } : {}),
                })) ?? [],
            };
          }),
      })),
    };
  },
});
