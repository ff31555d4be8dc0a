import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { HOLDS } from '@/core/crew/crew-standing';
import { whyNot } from '@/core/crew/may-do';
import { rulesAgainst } from '@/core/crew/roster-why';
import { holdCrewMember, holdPromise } from '@/store/crew';
import { findOne, insert, update } from '@/store/query';
import type { Db } from '@/store/store';
import type { CrewMemberRow, PromiseRow } from '@/store/tables/crew';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf } from '../gate/gate';
import { heldBy } from '../sheet/load-programme';
import { tellCrew } from './asking';
import { dutyId, rosterOf, type SessionDuty, toldOf } from './crew-sessions';
import type { Own } from './own-view';
import { refuseClash } from './promised';
import { ableAt, freshPromise, loadRoster } from './roster';
/** What somebody says of a duty on their page. */
export const answerOf = z.object({
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
export const answerOwn = ({ context, person }: Own, { promiseId, answer, note }: Answer): Promise<string> =>
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
    const others = ableAt(duty, all, crew).filter(({ crewId }) => crewId !== person.id);
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
  const { sessions, crew, today } = await loadRoster(context, { sessionId: first.sessionId }, db);
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
export const takeOffer = ({ context, person }: Own, promiseId: string): Promise<string> =>
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

export const awayOf = z
  .object({
    date: civilDate,
    from: z.number().int().min(0).max(1440).default(0),
    to: z.number().int().min(0).max(1440).default(1440),
    isAway: z.boolean(),
  })
  .refine(({ from, to }) => from < to, { message: 'It ends before it begins.', path: ['to'] });

/** Says that they cannot on a day, or can after all. What they have promised then stays promised until they say no to it. */
export const sayAway = ({ context, person }: Own, { date, from, to, isAway }: z.output<typeof awayOf>): Promise<void> =>
  context.store.transaction(async (db) => {
    const row = await findOne(db, db.models.crewMember, { id: person.id, erasedAt: null });
    if (!row) throw notFound('person');
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
