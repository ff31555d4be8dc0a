// Changes of the plan: made together, each version checked, and one step back for the whole of it.

import { z } from 'zod';
import { moveAlong } from '@/core/plan/sitting';
import { holdSessions, joinDishes } from '@/store/plan';
import { find, findOne, insert, remove, update, updateVersion } from '@/store/query';
import { sessionTables } from '@/store/session-rows';
import { replaceSittings } from '@/store/sittings';
import type { Db } from '@/store/store';
import type { ChangedSession, SessionRow, SittingRow } from '@/store/tables/plan';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, nowOf, service } from '../gate/gate';
import { syncCallBacks } from '../sheet/call-backs';
import { either, labelsOf, writeLabel } from '../sheet/session-labels';
import { placeNamed } from './places';

/** What may be changed of a session. */
export type SessionChange = Partial<
  Pick<
    SessionRow,
    'title' | 'date' | 'startsAt' | 'minutes' | 'place' | 'mode' | 'instructorId' | 'cookBy' | 'status' | 'because'
  >
> & {
  /** When and where its other groups meet; left out, they go along with its date. */
  readonly sittings?: readonly SittingRow[];
};

/** A change of one session, and the version it was seen at. */
export interface WantedChange {
  readonly sessionId: string;
  readonly version: number;
  readonly change: SessionChange;
}

/** A session that was made of another one's dishes. */
type Split = NonNullable<ChangedSession['split']>;

/** What a calendar must hear of. */
const TOLD: readonly (keyof SessionRow & keyof SessionChange)[] = [
  'title',
  'date',
  'startsAt',
  'minutes',
  'place',
  'status',
];

/** What decides who eats of a session, and until when. */
const EATEN: readonly (keyof SessionChange)[] = ['date', 'cookBy', 'status', 'mode', 'sittings'];

/** Only what is given: what is left out stays as it is. */
export const definedOf = <T extends object>(values: T): T =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined)) as T;

/** The id of a place by its name; null when it is no place the programme has counted. */
export async function placeIdOf(context: Context, db: Db, name: string): Promise<string | null> {
  return (await placeNamed(db, context.actor.programmeId, name))?.id ?? null;
}

/**
 * Changes sessions, all or none, so that it can be taken back in one step. Who comes may change with the groups that meet:
 * what is packed for those who do not is called back, and let go on when it is taken back.
 *
 * @param said what was done, as the one who takes it back reads it
 * @param split a session that was made of one's dishes, to be joined again when this is taken back
 * @returns id of the change
 * @throws ServiceError when a session is not the asker's, or was changed since it was seen
 */
export async function changeSessions(
  context: Context,
  db: Db,
  wanted: readonly WantedChange[],
  said: string,
  split?: Split,
): Promise<string> {
  const rows = await holdSessions(
    db,
    context.actor.programmeId,
    wanted.map(({ sessionId }) => sessionId),
  );
  const meeting = await find(db, db.models.sitting, { sessionId: rows.map(({ id }) => id) });
  const steps: ChangedSession[] = [];
  for (const { sessionId, version, change: asked } of wanted) {
    const { sittings: given, ...values } = asked;
    const before = rows.find(({ id }) => id === sessionId);
    if (!before) throw notFound('session');
    const place = values.place === undefined ? {} : { placeId: await placeIdOf(context, db, values.place) };
    const own = meeting.filter((sitting) => sitting.sessionId === sessionId);
    const isTold = given !== undefined || TOLD.some((key) => values[key] !== undefined && values[key] !== before[key]);
    const changed = { ...values, ...place, sequence: before.sequence + (isTold ? 1 : 0) };
    if (!(await updateVersion(db, db.models.session, sessionId, version, changed)))
      throw stale(`${before.title}, ${before.date},`);
    const sittings = given ?? moveAlong(own, before.date, values.date ?? before.date);
    if (given || own.length > 0) await replaceSittings(db, sessionId, sittings);
    steps.push({ before, sittings: own, version: version + 1, ...(split ? { split } : {}) });
    await logChange(context, db, values.status === 'cancelled' ? 'cancelled' : 'changed', 'session', sessionId, asked);
  }
  // Who comes may have changed; and what was over may be eaten after all, by whoever told a need meanwhile.
  const touched = steps.filter((_, at) => EATEN.some((key) => wanted[at]?.change[key] !== undefined));
  if (touched.length > 0) await syncCallBacks(context, db, { sessionIds: touched.map(({ before }) => before.id) });
  const id = context.ids();
  await insert(db, db.models.planChange, [
    {
      id,
      programmeId: context.actor.programmeId,
      at: nowOf(context),
      actorId: context.actor.id,
      said: said.slice(0, 255),
      sessions: steps,
      undoneAt: null,
    },
  ]);
  return id;
}

/** Labels that were read for a part come back with its dishes: where both name a product, what either holds is in it. */
async function moveLabels(context: Context, db: Db, sessionId: string, madeId: string): Promise<void> {
  const there = await labelsOf(db, sessionId);
  for (const label of await labelsOf(db, madeId)) {
    const own = there.find(({ ingredient }) => ingredient === label.ingredient);
    await writeLabel(context, db, sessionId, own ? either([own, label]) : label);
  }
  await remove(db, db.models.productLabel, { sessionId: madeId });
}

/** What was written for those who cook later comes back too: a copy says nothing new, words of its own are added. */
async function moveLesson(db: Db, sessionId: string, madeId: string): Promise<void> {
  const [made, own] = [
    await findOne(db, db.models.lessonNote, { sessionId: madeId }),
    await findOne(db, db.models.lessonNote, { sessionId }),
  ];
  if (!made) return;
  if (!own) await insert(db, db.models.lessonNote, [{ ...made, sessionId }]);
  else if (!own.words.includes(made.words))
    await db.models.lessonNote.update(
      { words: `${own.words}\n\n${made.words}`, version: own.version + 1 },
      { where: { sessionId }, transaction: db.transaction },
    );
  await remove(db, db.models.lessonNote, { sessionId: madeId });
}

/** Joins a session that was split. @throws ServiceError when work has been done on the part that was made */
async function join(context: Context, db: Db, sessionId: string, { madeId, dishIds }: Split): Promise<void> {
  const made = await findOne(db, db.models.session, { id: madeId });
  const extra = await find(db, db.models.dish, { sessionId: madeId });
  let why = extra.some(({ id }) => !dishIds.includes(id)) ? 'it has other dishes now' : undefined;
  if (await findOne(db, db.models.stockMove, { sessionId: madeId })) why ??= 'food was taken off the shelves for it';
  const tables = sessionTables(db);
  for (const { table, joined } of tables)
    if (typeof joined === 'object' && !why && (await findOne(db, table, { sessionId: madeId }))) why = joined.keeps;
  if (!made || why)
    throw new ServiceError(
      'stale',
      `${made?.title ?? 'The new session'} cannot be joined again: ${why ?? 'it is gone'}.`,
    );
  await joinDishes(db, { sessionId, madeId });
  await moveLabels(context, db, sessionId, madeId);
  await moveLesson(db, sessionId, madeId);
  for (const { table, joined } of tables) if (joined === 'goes') await remove(db, table, { sessionId: madeId });
  await remove(db, db.models.session, { id: madeId });
}

/** The last changes that can still be taken back, newest first. */
export const listChanges = service({
  title: 'See the last changes of the plan',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const rows = await find(
      db,
      db.models.planChange,
      { programmeId: context.actor.programmeId, undoneAt: null },
      [
        ['at', 'DESC'],
        ['id', 'DESC'],
      ],
      5,
    );
    return rows.map(({ id, said, at }) => ({ id, said, at: at.toISOString() }));
  },
});

export const undoChange = service({
  title: 'Take a change of the plan back',
  roles: ['coordinator'],
  input: z.object({ changeId: z.uuid() }),
  run: (context, { changeId }) =>
    context.store.transaction(async (db) => {
      const row = await findOne(db, db.models.planChange, { id: changeId, programmeId: context.actor.programmeId });
      if (!row) throw notFound('change');
      if (row.undoneAt) throw new ServiceError('stale', 'This was taken back already.');
      const steps = row.sessions;
      await holdSessions(
        db,
        context.actor.programmeId,
        steps.map(({ before }) => before.id),
      );
      const places = await find(db, db.models.place, { programmeId: context.actor.programmeId });
      /** Where it was: under the name the place has now, or under its name alone when it was taken away since. */
      const placed = <Row extends { place: string; placeId: string | null }>(row: Row): Row => {
        const place = places.find(({ id }) => id === row.placeId) ?? places.find(({ name }) => name === row.place);
        return { ...row, placeId: place?.id ?? null, place: place?.name ?? row.place };
      };
      for (const { before, sittings = [], version, split } of steps) {
        const now = await findOne(db, db.models.session, { id: before.id });
        if (!now || now.version !== version)
          throw new ServiceError(
            'stale',
            `${before.title} was changed again since. Take that back first, or move it by hand.`,
          );
        // A calendar hears of the way back too: its sequence only ever goes up.
        const { id, version: _version, sequence: _sequence, ...values } = placed(before);
        await updateVersion(db, db.models.session, id, version, { ...values, sequence: now.sequence + 1 });
        if (split) await join(context, db, id, split);
        await replaceSittings(db, id, sittings.map(placed));
        // A group that meets again is given the course again.
        const meeting = sittings.filter(({ status }) => status === 'planned').map(({ groupId }) => groupId);
        await update(db, db.models.courseGroup, { id: meeting, ended: 1 }, { ended: 0 });
        await syncCallBacks(context, db, { sessionId: id });
        await logChange(context, db, 'took back', 'session', id, { said: row.said });
      }
      await db.models.planChange.update(
        { undoneAt: nowOf(context) },
        { where: { id: changeId }, transaction: db.transaction },
      );
      return row.said;
    }),
});
