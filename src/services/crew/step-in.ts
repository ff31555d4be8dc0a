import { z } from 'zod';
import { HOLDS } from '@/core/crew/crew-standing';
import { whyNot } from '@/core/crew/may-do';
import type { Change } from '@/core/crew/roster-case';
import { rulesAgainst } from '@/core/crew/roster-why';
import { sayRule } from '@/core/crew/say-rule';
import { whoCanStepIn } from '@/core/crew/step-in';
import { whyHere } from '@/core/crew/why-here';
import { sayDay } from '@/core/plan/civil';
import { holdPromise } from '@/store/crew';
import { findOne, update } from '@/store/query';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { nowOf, service } from '../gate/gate';
import { heldBy } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';
import { draftFor } from './asking';
import { rosterOf, toldOf } from './crew-sessions';
import { refuseClash } from './promised';
import { emptyAt, holdersOf, loadRoster, namesOf } from './roster';

/** What would fill a place is tried for so long. */
const SECONDS = 2;
/** So many ways to fill a place are shown: nobody telephones more. */
const MOST_WAYS = 12;

/** What would have to be otherwise for a place to be filled, in words. */
function sayWould(change: Change, names: ReadonlyMap<string, string>, date: string): string {
  const name = names.get(change.person) ?? '';
  switch (change.rule) {
    case 'skill':
      return `${name} had ${change.skill} on ${sayDay(date)}`;
    case 'free':
      return `${name} had time on ${sayDay(date)}`;
    case 'most_duties':
      return `${name} took one duty more than they said`;
    case 'most_minutes':
      return `${name} took more hours than they said`;
    case 'apart':
      return `${name} and ${names.get(change.with) ?? ''} were at one duty`;
  }
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
    const names = namesOf(crew);
    const rowOf = new Map(crew.map((row) => [row.id, row]));
    const holders = holdersOf(duty, session.promises, crew);
    const empty = emptyAt(duty, holders);
    const { given, places } = await rosterOf(context, sessions, crew, today);
    const asDuty = given.duties?.find(({ id }) => id === duty.id);
    const held = holders.filter(({ state }) => HOLDS.includes(state));
    const isHeld = (id: string) => held.some(({ crewId }) => crewId === id);
    const against = rulesAgainst(given, places);
    const untilOf = (crewId: string) => (skill: string) => {
      const until = rowOf.get(crewId)?.skills[skill as 'lead']?.until;
      return until ? ` (until ${sayDay(until)} ${until.slice(0, 4)})` : '';
    };
    const titleOf = new Map(sessions.flatMap((each) => each.duties.map((own) => [own.id, { ...own, of: each.title }])));
    const sayDuty = (id: string) => {
      const own = titleOf.get(id);
      return own ? `${own.title}, ${own.of}, ${sayDay(own.date)}` : '';
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
      would: (why?.would ?? []).map((change) => sayWould(change, names, duty.date)),
      draft: draftFor('somebody dropped out', { name: '…', duties: [toldOf(duty)], address: context.address }),
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
      const others = (meant[0]?.promises ?? []).filter(
        (each) => each.duty === row.duty && each.state === 'accepted' && each.id !== row.id,
      );
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
