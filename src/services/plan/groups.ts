// A course given to several groups: planned once, bought once, taught, packed and handed out for each.

import { z } from 'zod';
import { editedGroup, newGroup } from '@/contracts/plan';
import { addDays, sayDay } from '@/core/plan/civil';
import { daysAfter, MOST_DAYS_AFTER } from '@/core/plan/sitting';
import { comingOf, lockCourseRow } from '@/store/plan';
import { find, findOne, insert, updateVersion } from '@/store/query';
import type { SessionBundle } from '@/store/session-bundles';
import { groupsOf } from '@/store/sittings';
import type { Db } from '@/store/store';
import type { CourseGroupRow, SessionRow, SittingRow } from '@/store/tables/plan';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { changeSessions, definedOf, placeIdOf } from './changes';
import { checkTeacher, loadCourse } from './courses';

/** The sittings of a session as they are stored. */
export const sittingRows = ({ id, sittings }: Pick<SessionBundle['session'], 'id' | 'sittings'>): SittingRow[] =>
  sittings.map(({ groupName: _, outdoor: __, ...sitting }) => ({ sessionId: id, ...sitting }));

/** Where the groups beside the first usually meet for new sessions. */
export const usualSittings = (
  sessions: readonly Pick<SessionRow, 'id' | 'date'>[],
  groups: readonly CourseGroupRow[],
): SittingRow[] =>
  sessions.flatMap(({ id, date }) =>
    groups.flatMap((group): SittingRow[] => {
      const { id: groupId, daysAfter: after, startsAt, place, placeId, instructorId } = group;
      if (startsAt === null) return [];
      return [
        {
          sessionId: id,
          groupId,
          date: addDays(date, after),
          startsAt,
          place,
          placeId,
          instructorId,
          status: 'planned',
        },
      ];
    }),
  );

/**
 * A session's sittings with one of them moved.
 *
 * @throws ServiceError when the session is not given to that group, or food bought once would not be fresh that day
 */
export async function movedSitting(
  context: Context,
  db: Db,
  session: Pick<SessionBundle['session'], 'id' | 'date' | 'sittings'>,
  groupId: string,
  to: { readonly date?: string; readonly startsAt?: string; readonly place?: string; readonly instructorId?: string },
): Promise<SittingRow[]> {
  const rows = sittingRows(session);
  const own = rows.find((row) => row.groupId === groupId);
  if (!own) throw notFound('group');
  const place = to.place === undefined ? {} : { placeId: await placeIdOf(context, db, to.place) };
  const moved = { ...own, ...to, ...place };
  const after = daysAfter(session.date, moved);
  if (after < 0 || after > MOST_DAYS_AFTER) {
    const message = `A group meets from ${sayDay(session.date)} to ${sayDay(addDays(session.date, MOST_DAYS_AFTER))}: what is bought once for all must still be fresh. For another day, add a session of its own.`;
    throw new ServiceError('invalid', message, [{ where: 'date', message }]);
  }
  return rows.map((row) => (row === own ? moved : row));
}

/** Holds a course, so that two people cannot change its groups at once. */
async function holdCourse(context: Context, db: Db, courseId: string) {
  const course = await loadCourse(context, courseId, db);
  await lockCourseRow(db, { courseId });
  return course;
}

/** @throws ServiceError when another group of the course has the name */
function checkName(groups: readonly CourseGroupRow[], name: string, field: string, groupId?: string): void {
  const taken = groups.some((group) => group.id !== groupId && group.name.toLowerCase() === name.toLowerCase());
  if (!taken) return;
  const message = `There is a group called ${name} already. Give this one another name.`;
  throw new ServiceError('invalid', message, [{ where: field, message }]);
}

/** The sessions of a course that are still to come, with their sittings. */
async function comingSessions(context: Context, db: Db, courseId: string) {
  const today = context.clock().toString().slice(0, 10);
  const sessions = await comingOf(db, { courseId, today });
  const sittings = await find(db, db.models.sitting, { sessionId: sessions.map(({ id }) => id) });
  return sessions.map((session) => ({
    ...session,
    sittings: sittings.filter(({ sessionId }) => sessionId === session.id),
  }));
}

/** Gives all sessions to come the sittings that `of` says, in one step that can be taken back. */
async function changeSittings(
  context: Context,
  db: Db,
  courseId: string,
  said: string,
  of: (session: Awaited<ReturnType<typeof comingSessions>>[number]) => readonly SittingRow[],
): Promise<number> {
  const coming = await comingSessions(context, db, courseId);
  const wanted = coming.map((session) => {
    const { id: sessionId, version } = session;
    return { sessionId, version, change: { sittings: of(session) } };
  });
  if (wanted.length > 0) await changeSessions(context, db, wanted, said);
  return wanted.length;
}

export const addGroup = service({
  title: 'Give a course to one more group',
  roles: ['coordinator'],
  input: newGroup,
  run: (context, { courseId, name, firstName, place, ...usual }) =>
    context.store.transaction(async (db) => {
      const course = await holdCourse(context, db, courseId);
      await checkTeacher(context, db, usual.instructorId);
      const groups = await groupsOf(db, courseId);
      if (groups.length === 0 && firstName === '') {
        const message = 'Name the group that meets now, so that the two can be told apart.';
        throw new ServiceError('invalid', message, [{ where: 'firstName', message }]);
      }
      const plain = { courseId, daysAfter: 0, startsAt: null, place: '', placeId: null, instructorId: null, ended: 0 };
      const first = { ...plain, id: context.ids(), name: firstName, position: 0, version: 1 };
      const before = groups.length === 0 ? [first] : groups;
      checkName(before, name, 'name');
      const placeId = await placeIdOf(context, db, place);
      const position = Math.max(...before.map((group) => group.position)) + 1;
      const group = { ...plain, ...usual, id: context.ids(), name, position, place, placeId, version: 1 };
      await insert(db, db.models.courseGroup, groups.length === 0 ? [first, group] : [group]);
      const sessions = await changeSittings(context, db, courseId, `Gave ${course.title} to ${name} too`, (session) => [
        ...session.sittings,
        ...usualSittings([session], [group]),
      ]);
      await logChange(context, db, 'added', 'group', group.id, { courseId, name, ...usual, place });
      return { id: group.id, sessions };
    }),
});

async function loadGroup(context: Context, db: Db, groupId: string): Promise<CourseGroupRow> {
  const group = await findOne(db, db.models.courseGroup, { id: groupId, ended: 0 });
  if (!group) throw notFound('group');
  await holdCourse(context, db, group.courseId);
  return group;
}

export const editGroup = service({
  title: 'Change a group, and where it meets from now on',
  roles: ['coordinator'],
  input: editedGroup,
  run: (context, { groupId, version, name, place, ...usual }) =>
    context.store.transaction(async (db) => {
      const group = await loadGroup(context, db, groupId);
      await checkTeacher(context, db, usual.instructorId);
      checkName(await groupsOf(db, group.courseId), name, 'name', groupId);
      const given = definedOf(usual);
      const at = place === undefined ? {} : { place, placeId: await placeIdOf(context, db, place) };
      const values = group.startsAt === null ? { name } : { name, ...given, ...at };
      if (!(await updateVersion(db, db.models.courseGroup, groupId, version, values))) throw stale('The group');
      const after = { ...group, ...values };
      const moved = (['daysAfter', 'startsAt', 'place', 'instructorId'] as const).some(
        (key) => after[key] !== group[key],
      );
      if (moved)
        await changeSittings(context, db, group.courseId, `Moved ${name} in all sessions to come`, (session) =>
          session.sittings.map((sitting) =>
            sitting.groupId === groupId
              ? { ...(usualSittings([session], [after])[0] ?? sitting), status: sitting.status }
              : sitting,
          ),
        );
      await logChange(context, db, 'changed', 'group', groupId, { before: group, after: values });
    }),
});

export const endGroup = service({
  title: 'Stop giving a course to a group',
  roles: ['coordinator'],
  input: z.object({ groupId: z.uuid(), version: z.coerce.number().int() }),
  run: (context, { groupId, version }) =>
    context.store.transaction(async (db) => {
      const group = await loadGroup(context, db, groupId);
      if (group.position === 0)
        throw new ServiceError('invalid', 'The first group meets with the sessions themselves. Cancel those instead.');
      const people = await db.models.enrolment.count({
        where: { groupId, status: 'enrolled' },
        transaction: db.transaction,
      });
      if (people > 0)
        throw new ServiceError(
          'invalid',
          `${people} ${people === 1 ? 'person is' : 'people are'} still in ${group.name}. Put them in another group on the roll first.`,
        );
      if (!(await updateVersion(db, db.models.courseGroup, groupId, version, { ended: 1 }))) throw stale('The group');
      // Calendars that show its sessions are told that they are off.
      await changeSittings(context, db, group.courseId, `Ended ${group.name}`, (session) =>
        session.sittings.map((sitting) =>
          sitting.groupId === groupId ? { ...sitting, status: 'cancelled' } : sitting,
        ),
      );
      await logChange(context, db, 'ended', 'group', groupId, { name: group.name });
    }),
});
