import { z } from 'zod';
import { newCourse } from '@/contracts/plan';
import { find, findOne, insert, select } from '@/store/query';
import type { CourseRow, SessionRow } from '@/store/rows';
import type { Db } from '@/store/store';
import { logChange } from '../access/change-log';
import { type Context, service } from '../access/gate';
import { notFound } from '../errors';

/** A course of the asker's programme. @throws ServiceError when there is none */
export async function loadCourse(context: Context, courseId: string, db: Db = context.store.db): Promise<CourseRow> {
  const course = await findOne(db, db.models.course, { id: courseId, programmeId: context.actor.programmeId });
  if (!course) throw notFound('course');
  return course;
}

export const listCourses = service({
  title: 'See all courses',
  roles: ['coordinator'],
  input: z.object({}),
  run: (context) =>
    select<{ id: string; title: string; audience: string; sessions: number; people: number; next: string | null }>(
      context.store.db,
      `SELECT c.id, c.title, c.audience,
              (SELECT COUNT(*) FROM session s WHERE s.course_id = c.id) AS sessions,
              (SELECT COUNT(*) FROM enrolment e WHERE e.course_id = c.id AND e.status = 'enrolled') AS people,
              (SELECT MIN(s.date) FROM session s WHERE s.course_id = c.id AND s.date >= :today) AS next
         FROM course c WHERE c.programme_id = :programmeId ORDER BY c.title`,
      { programmeId: context.actor.programmeId, today: context.clock().toString().slice(0, 10) },
    ),
});

export const addCourse = service({
  title: 'Add a course',
  roles: ['coordinator'],
  input: newCourse,
  run: (context, course) =>
    context.store.transaction(async (db) => {
      const id = context.ids();
      await insert(db, db.models.course, [{ id, programmeId: context.actor.programmeId, ...course, version: 1 }]);
      await logChange(context, db, 'added', 'course', id, course);
      return id;
    }),
});

export const viewCourse = service({
  title: 'See a course with its sessions',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid() }),
  run: async (context, { courseId }): Promise<{ course: CourseRow; sessions: SessionRow[] }> => {
    const { db } = context.store;
    const course = await loadCourse(context, courseId);
    const sessions = await find(db, db.models.session, { courseId }, [
      ['date', 'ASC'],
      ['startsAt', 'ASC'],
    ]);
    return { course, sessions };
  },
});
