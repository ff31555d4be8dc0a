import { z } from 'zod';
import { dutyChangeFields } from '@/contracts/crew';
import { HOLDS } from '@/core/crew/crew-standing';
import { rulesAgainst } from '@/core/crew/roster-why';
import { BY_WORD, sayRule } from '@/core/crew/say-rule';
import { holdSessions } from '@/store/plan';
import { insert, remove, update } from '@/store/query';
import type { Db } from '@/store/store';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service } from '../gate/gate';
import { loadBundle } from '../plan/sessions';
import { loadProgramme } from '../sheet/load-programme';
import { tellCrew } from './asking';
import { crewSessions, dutyId, rosterOf } from './crew-sessions';
import { ableAt, freshPromise, loadRoster } from './roster';

const WHAT = ['put', 'take away', 'pin', 'unpin', 'rule out', 'allow'] as const;

const placeChange = z.object({
  sessionId: z.uuid(),
  duty: z.string().min(1).max(90),
  crewId: z.uuid(),
  what: z.enum(WHAT),
});
type PlaceChange = z.output<typeof placeChange>;

export const changePlaces = service({
  title: 'Put somebody at a duty by hand, take them away, pin them, or rule them out',
  roles: ['coordinator'],
  input: z.object({
    changes: z.array(placeChange).min(1).max(50),
    /** They were asked and said yes: what is written of their time and limits does not count. */
    byWord: z.boolean().default(false),
  }),
  run: (context, { changes, byWord }) =>
    context.store.transaction(async (db) => {
      const ids = [...new Set(changes.map(({ sessionId }) => sessionId))];
      if ((await holdSessions(db, context.actor.programmeId, ids)).length < ids.length) throw notFound('session');
      // First what makes room: of two who change places, each leaves before the other comes.
      const order = [...changes].sort((a, b) => Number(a.what === 'put') - Number(b.what === 'put'));
      for (const change of order) await changePlace(context, db, change, byWord);
    }),
});

async function changePlace(context: Context, db: Db, change: PlaceChange, byWord: boolean): Promise<void> {
  const { sessionId, duty, crewId, what } = change;
  const { today, crew, sessions } = await loadRoster(context, { sessionId }, db);
  const person = crew.find(({ id }) => id === crewId);
  const own = sessions.find(({ id }) => id === sessionId);
  const place = own?.duties.find(({ key }) => key === duty);
  const row = own?.promises.find((each) => each.duty === duty && each.crewId === crewId);
  if (person && row && !place && what === 'take away') {
    // The plan changed, and the duty is no longer there: whoever was told of it is told.
    await remove(db, db.models.promise, { id: row.id });
    await logChange(context, db, 'crew: take away', 'session', sessionId, { duty, crewId });
    if (row.told) await tellCrew(context, db, person, 'no longer needed', [row.told]);
    return;
  }
  if (!person || !own || !place) throw notFound('place');
  const holds = row !== undefined && HOLDS.includes(row.state);
  await logChange(context, db, `crew: ${what}`, 'session', sessionId, { duty, crewId });
  if (what === 'take away') {
    if (!row || !holds) return;
    await remove(db, db.models.promise, { id: row.id });
    if (row.state !== 'planned') await tellCrew(context, db, person, 'no longer needed', [place]);
    return;
  }
  if (what === 'pin' || what === 'unpin') {
    if (row && holds) await update(db, db.models.promise, { id: row.id }, { isPinned: what === 'pin' ? 1 : 0 });
    return;
  }
  if (what === 'allow') {
    if (row && !holds) await remove(db, db.models.promise, { id: row.id });
    return;
  }
  if (what === 'rule out') {
    if (row) await update(db, db.models.promise, { id: row.id }, { state: 'ruled out', isPinned: 0, told: null });
    else await insert(db, db.models.promise, [freshPromise(context, { sessionId, duty, crewId, state: 'ruled out' })]);
    if (row && holds && row.state !== 'planned') await tellCrew(context, db, person, 'no longer needed', [place]);
    return;
  }
  if (holds) return;
  if (ableAt(place, own.promises, crew, ['planned', 'accepted']).length >= place.people)
    throw new ServiceError('invalid', `${place.title} has all its people: take somebody away first.`);
  const { given, places } = await rosterOf(context, sessions, crew, today);
  const asPerson = given.people?.find(({ id }) => id === crewId);
  const asDuty = given.duties?.find(({ id }) => id === dutyId(sessionId, duty));
  if (!asPerson || !asDuty) throw notFound('place');
  // Somebody who was ruled out, or said no before, may be put there by hand all the same.
  const rule = rulesAgainst({ ...given, never: [] }, places)(asPerson, asDuty);
  if (rule !== undefined && !(byWord && BY_WORD.includes(rule)))
    throw new ServiceError(
      'invalid',
      `${person.name} ${sayRule(rule, asDuty.skills ?? [], asPerson.skills ?? {}, person)}.`,
    );
  const values = { state: 'planned' as const, isPinned: 1, told: null, note: '' };
  if (row) await update(db, db.models.promise, { id: row.id }, values);
  else await insert(db, db.models.promise, [freshPromise(context, { sessionId, duty, crewId, ...values })]);
}

export const changeDuty = service({
  title: 'Change a duty of a session by hand, add one, or leave one out',
  roles: ['coordinator'],
  input: dutyChangeFields.extend({ sessionId: z.uuid(), duty: z.string().max(90).optional() }),
  run: (context, { sessionId, duty, isLeftOut, reason, ...change }) =>
    context.store.transaction(async (db) => {
      await loadBundle(context, sessionId, db);
      const key = duty || context.ids();
      const [session] = await crewSessions(context, await loadProgramme(context, db), { ids: [sessionId] }, [], db);
      const now = session?.duties.find((each) => each.key === key);
      if (duty && !now && !isLeftOut) throw notFound('duty');
      // What stays as it follows from the plan goes on following it.
      const isOther = ([name, value]: [string, unknown]) =>
        value !== undefined && JSON.stringify(value) !== JSON.stringify(now?.[name as keyof typeof now]);
      const changedTo = Object.fromEntries(Object.entries(change).filter(isOther));
      if (!duty && !(change.title && change.date && change.from !== undefined && change.to !== undefined))
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: 'title', message: 'Say what is to be done, on which day, from when to when.' },
        ]);
      if (change.from !== undefined && change.to !== undefined && change.from >= change.to)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: 'to', message: 'It ends before it begins.' },
        ]);
      if (!isLeftOut && Object.keys(changedTo).length === 0)
        throw new ServiceError('invalid', 'Nothing of it is otherwise: change something first.');
      await remove(db, db.models.dutyChange, { sessionId, duty: key });
      await insert(db, db.models.dutyChange, [
        {
          id: context.ids(),
          sessionId,
          duty: key,
          isLeftOut: isLeftOut ? 1 : 0,
          changedTo,
          reason,
          at: nowOf(context),
          actorId: context.actor.id,
        },
      ]);
      await logChange(context, db, isLeftOut ? 'left out a duty' : 'changed a duty', 'session', sessionId, {
        duty: key,
      });
      return key;
    }),
});

export const resetDuty = service({
  title: 'Have a duty of a session as it follows from the plan again',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), duty: z.string().min(1).max(90) }),
  run: (context, { sessionId, duty }) =>
    context.store.transaction(async (db) => {
      await loadBundle(context, sessionId, db);
      await remove(db, db.models.dutyChange, { sessionId, duty });
      await logChange(context, db, 'took back a change of a duty', 'session', sessionId, { duty });
    }),
});
