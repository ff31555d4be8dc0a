import { z } from 'zod';
import { classNow } from '@/core/classday/live/class-events';
import { stepTimes, type Took } from '@/core/closeout/timings';
import { civilOf, sayCivil } from '@/core/plan/civil';
import { civilIn } from '@/core/plan/clock';
import { lastMeetingEnds } from '@/core/plan/sitting';
import { saidSince } from '@/store/classday';
import { lastWordOn } from '@/store/closeout';
import { lockSessionRow } from '@/store/plan';
import { find, insert } from '@/store/query';
import type { SessionBundle } from '@/store/session-bundles';
import type { Db } from '@/store/store';
import type { CloseNoteRow } from '@/store/tables/closeout';
import { minutesIn } from '../classday/class-log';
import { openRoom } from '../classday/room';
import { ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, ROLES, service } from '../gate/gate';
import { timeZoneOf } from '../sheet/load-programme';
import { measuredJobs, plannedJobs } from './job-times';

/** @throws ServiceError before the last group of a session has met: nothing is left of what was not cooked */
export async function refuseBefore(context: Context, session: SessionBundle['session']): Promise<void> {
  const now = civilIn(context.clock().toString(), await timeZoneOf(context));
  const ends = lastMeetingEnds(session);
  if (civilOf(now.date, now.time) < ends - session.minutes)
    throw new ServiceError('stale', `It begins on ${sayCivil(ends - session.minutes)}: close it out when it is over.`);
}

/** Of several sittings in which a step was cooked, one figure: as typical as each. */
function typical(all: readonly Took[]): Took[] {
  const steps = new Map<string, number[]>();
  for (const { dishId, step, factor } of all) {
    const key = `${dishId} ${step}`;
    steps.set(key, [...(steps.get(key) ?? []), Math.log(factor)]);
  }
  return all
    .filter((one, at) => all.findIndex((other) => other.dishId === one.dishId && other.step === one.step) === at)
    .map(({ dishId, step, text }) => {
      const logs = steps.get(`${dishId} ${step}`) ?? [];
      return { dishId, step, text, factor: Math.exp(logs.reduce((sum, log) => sum + log, 0) / logs.length) };
    });
}

/** What steps and jobs took, as parts of what was planned: kept with the closing, so that lessons need not read whole classes. */
async function timesOf(
  context: Context,
  db: Db,
  bundle: SessionBundle,
): Promise<(Pick<CloseNoteRow, 'what' | 'item' | 'percent'> & Partial<CloseNoteRow>)[]> {
  const { session, dishes } = bundle;
  const sittings = ['', ...session.sittings.map(({ groupId }) => groupId)];
  const took: Took[] = [];
  for (const sitting of sittings) {
    const now = classNow(await saidSince(db, { sessionId: session.id, sitting }, 0));
    if (now.plan && now.begun) took.push(...stepTimes(now.plan, minutesIn(now, nowOf(context)).done));
  }
  const recipeOf = new Map(dishes.map(({ id, recipeId }) => [id, recipeId]));
  const steps = typical(took).flatMap(({ dishId, step, text, factor }) => {
    const recipeId = recipeOf.get(dishId);
    return recipeId
      ? [{ what: 'step' as const, item: `${recipeId} ${step}`, percent: Math.round(100 * factor), words: text }]
      : [];
  });
  const typed = await find(db, db.models.closeNote, { sessionId: session.id, what: 'job' });
  // What somebody wrote down is believed before what ticks say.
  const said = new Set(typed.flatMap(({ item, bad }) => (bad === null ? [] : [item])));
  const jobs = await measuredJobs(db, session.id, await plannedJobs(context, bundle, db));
  return [...steps, ...jobs.filter(({ item }) => !said.has(item))];
}

/** Now, or a moment after the last word: which of two is the newer shows in their moments alone. */
const momentAfter = (context: Context, last: { readonly at: Date } | undefined): Date =>
  new Date(Math.max(nowOf(context).getTime(), (last?.at.getTime() ?? 0) + 1));

const BLANK = { item: '', percent: null, bad: null, pieces: null, words: '' };

export const closeSession = service({
  title: 'Close a session: what is noted of it teaches from then on',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid(), id: z.uuid() }),
  run: async (context, { sessionId, id }) => {
    const { bundle } = await openRoom(context, sessionId);
    await refuseBefore(context, bundle.session);
    return context.store.transaction(async (db) => {
      // Closed by two phones at once, the second waits, and finds it closed.
      await lockSessionRow(db, { sessionId });
      const last = await lastWordOn(db, sessionId);
      if (last?.isClosed) return { closedAt: last.at.toISOString(), isNew: false };
      const made = { sessionId, at: momentAfter(context, last), actorId: context.actor.id };
      const times = await timesOf(context, db, bundle);
      await insert(db, db.models.closeNote, [
        ...times.map((time) => ({ ...BLANK, ...time, id: context.ids(), ...made })),
        { ...BLANK, what: 'closed' as const, id, ...made },
      ]);
      const mark = { id: context.ids(), sessionId, stage: 'closeout', done: 1, at: made.at, actorId: made.actorId };
      await insert(db, db.models.stageMark, [mark]);
      await logChange(context, db, 'closed', 'session', sessionId, {});
      return { closedAt: made.at.toISOString(), isNew: true };
    });
  },
});

export const openAgain = service({
  title: 'Open a closed session again, with the reason',
  roles: ['coordinator', 'instructor'],
  input: z.object({
    sessionId: z.uuid(),
    reason: z.string().trim().min(1, 'Say why it is opened again.').max(300, 'At most 300 characters.'),
  }),
  run: async (context, { sessionId, reason }) => {
    await openRoom(context, sessionId);
    await context.store.transaction(async (db) => {
      await lockSessionRow(db, { sessionId });
      const last = await lastWordOn(db, sessionId);
      if (!last?.isClosed) throw new ServiceError('stale', 'It is open already.');
      const made = { sessionId, at: momentAfter(context, last), actorId: context.actor.id };
      await insert(db, db.models.closeNote, [
        { ...BLANK, what: 'opened again', words: reason, id: context.ids(), ...made },
      ]);
      const mark = { id: context.ids(), sessionId, stage: 'closeout', done: 0, at: made.at, actorId: made.actorId };
      await insert(db, db.models.stageMark, [mark]);
      await logChange(context, db, 'opened again', 'session', sessionId, { reason });
    });
  },
});
