import { z } from 'zod';
import { editedCourse, newCourse } from '@/contracts/plan';
import { freshCourse } from '@/store/fresh';
import { coursesWithCounts, teachers } from '@/store/plan';
import { find, findOne, insert, updateVersion } from '@/store/query';
import { groupsOf, sittingsOf } from '@/store/sittings';
import type { Db } from '@/store/store';
import type { CourseRow, SessionRow } from '@/store/tables/plan';
import { notFound, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { conflictsOfBooking, loadPlan } from './world';

/** A course of the asker's programme. @throws ServiceError when there is none */
export async function loadCourse(context: Context, courseId: string, db: Db = context.store.db): Promise<CourseRow> {
  const course = await findOne(db, db.models.course, { id: courseId, programmeId: context.actor.programmeId });
  if (!course) throw notFound('course');
  return course;
}

/** @throws ServiceError when nobody of that id can teach here */
export async function checkTeacher(context: Context, db: Db, instructorId: string | null | undefined): Promise<void> {
  if (!instructorId) return;
  const known = await teachers(db, context.actor.programmeId);
  if (!known.some(({ id }) => id === instructorId)) throw notFound('instructor');
}

export const listCourses = service({
  title: 'See all courses',
  roles: ['coordinator'],
  input: z.object({}),
  run: (context) =>
    coursesWithCounts(context.store.db, {
      programmeId: context.actor.programmeId,
      today: context.clock().toString().slice(0, 10),
    }),
});

export const listTeachers = service({
  title: 'See who can teach',
  roles: ['coordinator'],
  input: z.object({}),
  run: (context) => teachers(context.store.db, context.actor.programmeId),
});

export const addCourse = service({
  title: 'Add a course',
  roles: ['coordinator'],
  input: newCourse,
  run: (context, course) =>
    context.store.transaction(async (db) => {
      const id = context.ids();
      await insert(db, db.models.course, [freshCourse({ id, programmeId: context.actor.programmeId, ...course })]);
      await logChange(context, db, 'added', 'course', id, course);
      return id;
    }),
});

export const editCourse = service({
  title: 'Change a course',
  roles: ['coordinator'],
  input: editedCourse,
  run: (context, { courseId, version, uses, modePlaces, ...values }) =>
    context.store.transaction(async (db) => {
      await loadCourse(context, courseId, db);
      await checkTeacher(context, db, values.instructorId);
      const change = { ...values, uses, modePlaces };
      if (!(await updateVersion(db, db.models.course, courseId, version, change))) throw stale('The course');
      await logChange(context, db, 'changed', 'course', courseId, { ...values, uses, modePlaces });
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

export const viewCoursePlan = service({
  title: 'See a course’s sessions with what stands against each',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid() }),
  run: async (context, { courseId }) => {
    const { course, sessions } = await viewCourse(context, { courseId });
    const dates = sessions.filter(({ status }) => status === 'planned').map(({ date }) => date);
    const plan = await loadPlan(context, {
      from: dates[0] ?? '2000-01-01',
      to: dates.at(-1) ?? dates[0] ?? '2000-01-01',
    });
    // What is past is past: nobody settles it any more.
    const own = plan.bookings.filter((booking) => booking.courseId === courseId && booking.date >= plan.today);
    const conflicts = own
      .map((booking) => conflictsOfBooking(booking, plan))
      .filter((each) => each.conflicts.length > 0);
    return {
      course,
      sessions,
      groups: await groupsOf(context.store.db, courseId),
      sittings: await sittingsOf(context.store.db, courseId),
      conflicts,
      teachers: [...plan.world.instructors].map(([id, name]) => ({ id, name })),
      places: [...plan.world.places.values()].map(({ id, name }) => ({ id, name })),
      today: plan.today,
    };
  },
});
