import { z } from 'zod';
import { HOLDS } from '@/core/crew/crew-standing';
import { JOB_OF, WITHOUT, type Without } from '@/core/crew/duties';
import { whyNot } from '@/core/crew/may-do';
import type { Change } from '@/core/crew/roster-case';
import { rulesAgainst } from '@/core/crew/roster-why';
import { sayRule } from '@/core/crew/say-rule';
import { whoCanStepIn } from '@/core/crew/step-in';
import { whyHere } from '@/core/crew/why-here';
import { holdPromise } from '@/store/crew';
import { findOne, update } from '@/store/query';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service } from '../gate/gate';
import { heldBy } from '../sheet/load-programme';
import { sayingFor } from '../sheet/saying';
import { pooled } from '../work/in-pool';
import { draftFor } from './asking';
import { type CrewSession, rosterOf, type SessionDuty, toldOf } from './crew-sessions';
import { refuseClash } from './promised';
import { ableAt, fillOf, holdersOf, loadRoster, namesOf } from './roster';

/** What would fill a place is tried for so long. */
const SECONDS = 2;
/** So many ways to fill a place are shown: nobody telephones more. */
const MOST_WAYS = 12;

/** What would have to be otherwise for a place to be filled, in words. */
function sayWould(change: Change, names: ReadonlyMap<string, string>, day: string): string {
  const name = names.get(change.person) ?? '';
  switch (change.rule) {
    case 'skill':
      return `${name} had ${change.skill} on ${day}`;
    case 'free':
      return `${name} had time on ${day}`;
    case 'most_duties':
      return `${name} took one duty more than they said`;
    case 'most_minutes':
      return `${name} took more hours than they said`;
    case 'apart':
      return `${name} and ${names.get(change.with) ?? ''} were at one duty`;
  }
}

/** What a class would be without, in words. */
const OTHERWISE: Readonly<Record<Without, string>> = {
  heat: 'no dish were cooked over heat in class (another dish, or cooked ahead)',
  fire: 'nothing were cooked over the fire (another dish, or under a roof)',
  knives: 'nothing were cut with a knife in class (another dish, or cut ahead)',
  'raw meat': 'nothing raw were handled in class (another dish, or cooked ahead)',
};

/**
 * Whether the session could be held with other dishes, so that a station is needed no more: the roster is worked out anew for it.
 *
 * @returns in words; none where that helps nobody
 */
async function otherDishes(
  context: Context,
  at: Pick<Awaited<ReturnType<typeof loadRoster>>, 'today' | 'crew' | 'sessions'> & {
    readonly session: CrewSession;
    readonly duty: SessionDuty;
  },
): Promise<string[]> {
  const { today, crew, sessions, session, duty } = at;
  const what = WITHOUT.find((kind) => kind === duty.kind);
  if (!what) return [];
  const inRoom = session.without(what);
  const keys = new Set(inRoom.map(({ key }) => key));
  const jobs = session.duties.filter(({ kind }) => JOB_OF.has(kind));
  const changed: CrewSession = {
    ...session,
    duties: [...inRoom, ...jobs],
    promises: session.promises.filter(({ duty: key }) => keys.has(key) || jobs.some((job) => job.key === key)),
  };
  const others = sessions.map((each) => (each.id === session.id ? changed : each));
  const { given } = await rosterOf(context, others, crew, today, ({ sessionId }) => sessionId !== session.id);
  const standing = new Set((given.fixed ?? []).map(({ duty: id }) => id));
  const own = new Set(inRoom.map(({ id }) => id));
  const duties = (given.duties ?? []).filter(({ id }) => own.has(id) || standing.has(id));
  const { places } = await pooled('bestRoster', { ...given, duties, seconds: SECONDS });
  const filled = places.filter(({ duty: id }) => own.has(id)).length;
  const wanted = inRoom.reduce((sum, { people }) => sum + people, 0);
  return filled === wanted ? [`${OTHERWISE[what]}: every place in the room has somebody then`] : [];
}

export const viewPlace = service({
  title: 'See a duty of a session: who is there and why, who could step in, and what would fill it',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ sessionId: z.uuid(), duty: z.string().min(1).max(90) }),
  run: async (context, { sessionId, duty: key }) => {
    const { today, crew, sessions, meant } = await loadRoster(context, { sessionId });
    const [session] = meant;
    const duty = session?.duties.find((each) => each.key === key);
    if (!session || !duty) throw notFound('duty');
    const say = await sayingFor(context);
    const names = namesOf(crew);
    const rowOf = new Map(crew.map((row) => [row.id, row]));
    const holders = holdersOf(duty, session.promises, crew);
    const { empty, over } = fillOf(duty, holders);
    const { given, places } = await rosterOf(context, sessions, crew, today);
    const asDuty = given.duties?.find(({ id }) => id === duty.id);
    const held = holders.filter(({ state }) => HOLDS.includes(state));
    const isHeld = (id: string) => held.some(({ crewId }) => crewId === id);
    const against = rulesAgainst(given, places);
    const untilOf = (crewId: string) => (skill: string) => {
      const until = rowOf.get(crewId)?.skills[skill as 'lead']?.until;
      return until ? ` (until ${say.longDate(until)})` : '';
    };
    const titleOf = new Map(sessions.flatMap((each) => each.duties.map((own) => [own.id, { ...own, of: each.title }])));
    const sayDuty = (id: string) => {
      const own = titleOf.get(id);
      return own ? `${own.title}, ${own.of}, ${say.shortDate(own.date)}` : '';
    };
    const isAsked = new Set(held.filter(({ state }) => state === 'asked').map(({ crewId }) => crewId));
    const ways = whoCanStepIn(given, places, duty.id, [...isAsked]).slice(0, MOST_WAYS);
    const why =
      empty > 0 && ways.length === 0
        ? await pooled('whyEmpty', { given: { ...given, seconds: SECONDS }, places, duty: duty.id })
        : undefined;
    return {
      today,
      session: { id: session.id, title: session.title, courseId: session.courseId, below: session.below },
      duty,
      empty,
      over,
      holders: holders.map((holder) => ({
        ...holder,
        why: isHeld(holder.crewId)
          ? whyHere(given, { duty: duty.id, person: holder.crewId }, untilOf(holder.crewId))
          : '',
      })),
      ways: ways.map(({ steps, leaves, wishes }) => ({
        steps: steps.map(({ person, takes, gives }) => ({
          crewId: person,
          name: names.get(person) ?? '',
          takes: sayDuty(takes),
          ...(gives ? { gives: sayDuty(gives) } : {}),
        })),
        ...(leaves ? { leaves: sayDuty(leaves) } : {}),
        wishes,
      })),
      others: (given.people ?? []).flatMap((person) => {
        if (isHeld(person.id) || !asDuty) return [];
        const rule = against(person, asDuty);
        const row = rowOf.get(person.id);
        return rule && row
          ? [
              {
                crewId: person.id,
                name: row.name,
                rule,
                why: sayRule(rule, asDuty.skills ?? [], person.skills ?? {}, row),
              },
            ]
          : [];
      }),
      /** Planning the session anew would fill it. */
      isBetter: why?.isBetter ?? false,
      would: [
        ...(why?.would ?? []).map((change) => sayWould(change, names, say.shortDate(duty.date))),
        ...(why && !why.isBetter ? await otherDishes(context, { today, crew, sessions, session, duty }) : []),
      ],
      draft: draftFor('somebody dropped out', { name: '…', duties: [toldOf(duty)], address: context.address, say }),
    };
  },
});

export const dropOut = service({
  title: 'Note that somebody of the crew cannot come after all, or said yes or no by telephone',
  roles: ['coordinator'],
  input: z.object({
    promiseId: z.uuid(),
    answer: z.enum(['yes', 'no']),
    note: z.string().trim().max(200).default(''),
  }),
  run: (context, { promiseId, answer, note }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      if ((await holdPromise(db, { programmeId, promiseId })).length === 0) throw notFound('promise');
      const row = await findOne(db, db.models.promise, { id: promiseId });
      if (!row || !HOLDS.includes(row.state)) throw notFound('promise');
      const { meant, crew } = await loadRoster(context, { sessionId: row.sessionId }, db);
      const duty = meant[0]?.duties.find(({ key }) => key === row.duty);
      const others = duty
        ? ableAt(duty, meant[0]?.promises ?? [], crew).filter(({ crewId }) => crewId !== row.crewId)
        : [];
      const person = crew.find(({ id }) => id === row.crewId);
      const no = answer === 'yes' && duty && person ? whyNot(heldBy(person), duty) : undefined;
      if (no) throw new ServiceError('invalid', `They may not do it: ${no}.`);
      if (answer === 'yes' && duty && person) await refuseClash(context, db, person, duty, row.id);
      const isFull = answer === 'yes' && duty !== undefined && others.length >= duty.people;
      const values = {
        state: answer === 'no' ? ('declined' as const) : isFull ? ('taken' as const) : ('accepted' as const),
        told: answer === 'yes' && duty ? toldOf(duty) : row.told,
        isOffered: 0,
        isPinned: answer === 'no' ? 0 : row.isPinned,
        note,
        answeredAt: nowOf(context),
        version: row.version + 1,
      };
      await update(db, db.models.promise, { id: row.id }, values);
      const did = answer === 'yes' ? 'accepted' : row.state === 'accepted' ? 'dropped out' : 'declined';
      await logChange(context, db, did, 'session', row.sessionId, { duty: row.duty, crewId: row.crewId });
      return { state: values.state, sessionId: row.sessionId, duty: row.duty };
    }),
});
