import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { MODES } from '@/core/plan/mode';
import { checkRoll } from '@/core/roll/check-roll';
import { MOST_HOUSEHOLD_SERVINGS, NOT_ASKED, readRollRow } from '@/core/roll/roll-row';
import { modePlaces, placesOf, ROLL_STATUSES, type RollStatus, type WaitlistRule } from '@/core/roll/waitlist';
import { find, findOne, insert, updateVersion } from '@/store/query';
import { groupsOf } from '@/store/sittings';
import type { Db } from '@/store/store';
import type { EnrolmentRow } from '@/store/tables/roll';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { queueMessage } from '../messages/messages';
import { loadCourse } from '../plan/courses';
import { syncCallBacks } from '../sheet/call-backs';
import { loadProgramme } from '../sheet/load-programme';
import { rollPerson } from '../sheet/person';
import {
  cells,
  enrolment,
  loadEnrolment,
  lockCourse,
  namesOf,
  onRoll,
  rollCells,
  rollNow,
  seated,
  todayOf,
  valuesOf,
} from './enrolling';
import { completeHousehold, editReach, homesNamed, householdsFor } from './households';

export const viewRoll = service({
  title: 'See a course’s roll',
  roles: ['coordinator'],
  input: z.object({
    courseId: z.uuid(),
    /** Somebody who is being edited: how their family is reached comes too. */
    editing: z.string().max(200).default(''),
  }),
  run: async (context, { courseId, editing }) => {
    const { db } = context.store;
    const course = await loadCourse(context, courseId);
    const rows = await find(db, db.models.enrolment, { courseId }, [['id', 'ASC']]);
    const { meanings, programme } = await loadProgramme(context);
    const people = rows.filter((row) => row.status !== 'erased').map((row) => rollPerson(row, meanings));
    await logLook(context, 'roll', courseId, people.length);
    const groups = await groupsOf(db, courseId);
    const places = placesOf(
      people,
      course.capacity,
      course.waitlistRule as WaitlistRule,
      groups.filter(({ position }) => position > 0).map(({ id }) => id),
      course.modePlaces,
    );
    const row = rows.find(({ id }) => id === editing);
    const family = row && (await findOne(db, db.models.household, { id: row.householdId }));
    const group = groups.find(({ id }) => id === row?.groupId) ?? groups[0];
    return {
      course,
      people,
      /** Whoever is being changed, as the form has them. */
      cells: row && rollCells(row, family, group?.name ?? ''),
      groups,
      places,
      modes: modePlaces(people, course.modePlaces),
      reference: programme.reference,
    };
  },
});

export const addPerson = service({
  title: 'Add a person to a roll',
  roles: ['coordinator'],
  input: z.object({
    courseId: z.uuid(),
    cells,
    /** Whoever finds no room waits, however they are added. */
    status: z.enum(['applied', 'enrolled', 'waitlisted']).default('enrolled'),
    /** Where the family's name is known, and reached elsewhere: it is that family, or another of the name. */
    home: z.enum(['same', 'other']).optional(),
  }),
  run: (context, { courseId, cells: written, status, home }) =>
    context.store.transaction(async (db) => {
      const course = await lockCourse(context, courseId, db);
      const groups = await groupsOf(db, courseId);
      const before = await rollNow(db, courseId);
      // Whoever types a name by hand knows who is meant: only the very same one is refused.
      const homes = await homesNamed(context, db, [written.household]);
      const [row] = checkRoll(
        [{ line: 0, cells: written, as: 'new', home }],
        before.map(onRoll),
        namesOf(groups),
        homes,
      );
      const entry = row?.entry;
      if (!entry) throw refusedCells(row?.problems ?? []);
      const [householdId = ''] = await householdsFor(context, db, [entry]);
      const today = await todayOf(context, db);
      const [person = null] = seated(
        [{ ...enrolment(context, courseId, householdId, entry, groups, today), status }],
        before.filter((each) => each.status === 'enrolled'),
        status === 'enrolled' ? course : { capacity: null, modePlaces: {} },
      );
      if (!person) throw notFound('person');
      await insert(db, db.models.enrolment, [person]);
      await logChange(context, db, person.status, 'enrolment', person.id, { ...entry });
      return { id: person.id, status: person.status };
    }),
});

export const editPerson = service({
  title: 'Change a person on a roll',
  roles: ['coordinator'],
  input: z.object({
    enrolmentId: z.uuid(),
    version: z.coerce.number().int(),
    cells,
    /** What the form showed of how the family is reached; left out, it is not changed. */
    shown: z.object({ contact: z.string().max(190), address: z.string().max(255) }).optional(),
  }),
  run: (context, { enrolmentId, version, cells: written, shown }) =>
    context.store.transaction(async (db) => {
      const before = await loadEnrolment(context, enrolmentId, db);
      const groups = await groupsOf(db, before.courseId);
      const reading = readRollRow(written, namesOf(groups));
      if ('problems' in reading) throw refusedCells(reading.problems);
      const household = await findOne(db, db.models.household, { id: before.householdId });
      if (household && shown) await editReach(context, db, household, shown, reading.entry);
      else if (household) await completeHousehold(context, db, household, reading.entry);
      const values = valuesOf(reading.entry, groups);
      if (!(await updateVersion(db, db.models.enrolment, enrolmentId, version, values))) throw stale(before.name);
      await logChange(context, db, 'changed', 'enrolment', enrolmentId, { before, after: values });
      await syncCallBacks(context, db, { courseId: before.courseId });
    }),
});

export const sayTheyWereAsked = service({
  title: 'Say that people were asked, and avoid nothing more than is written',
  roles: ['coordinator'],
  input: z.object({
    courseId: z.uuid(),
    enrolmentIds: z.array(z.uuid()).min(1, 'Tick those who were asked.').max(2000),
  }),
  run: (context, { courseId, enrolmentIds }) =>
    context.store.transaction(async (db) => {
      await lockCourse(context, courseId, db);
      const rows = await find(db, db.models.enrolment, { courseId, id: enrolmentIds });
      if (rows.length < new Set(enrolmentIds).size) throw notFound('person');
      for (const row of rows) {
        const needs = row.needs.filter((need) => need !== NOT_ASKED);
        const values = { needs };
        if (!(await updateVersion(db, db.models.enrolment, row.id, row.version, values))) throw stale(row.name);
        await logChange(context, db, 'were asked', 'enrolment', row.id, { before: row.needs, after: values.needs });
      }
      await syncCallBacks(context, db, { courseId });
    }),
});

const statusChange = {
  enrolmentId: z.uuid(),
  version: z.coerce.number().int(),
  /** Since when it holds; today where it is left out. A change that is taken back was never made. */
  since: civilDate.nullable().optional(),
};

export const setStatus = service({
  title: 'Withdraw a person, enrol them, or put them on the waitlist',
  roles: ['coordinator'],
  input: z.object({
    ...statusChange,
    status: z.enum(ROLL_STATUSES),
    /** Told to the family with it: the offer of a place, as the coordinator has worded it. */
    message: z
      .object({
        subject: z.string().trim().min(1, 'Write a subject.').max(190),
        body: z.string().trim().min(1).max(4000),
      })
      .optional(),
  }),
  run: (context, { message, ...wanted }) =>
    context.store.transaction(async (db) => {
      const before = await changeStatus(context, db, wanted);
      if (message) {
        const household = await findOne(db, db.models.household, { id: before.householdId });
        if (!household?.contact)
          throw new ServiceError(
            'invalid',
            'The family left no contact: tell them by hand, and enrol without a message.',
          );
        await queueMessage(context, db, context.actor.programmeId, {
          sentTo: household.contact,
          householdId: household.id,
          ...message,
        });
      }
      await syncCallBacks(context, db, { courseId: before.courseId });
    }),
});

export const setStatuses = service({
  title: 'Withdraw several people, or take a change of their status back',
  roles: ['coordinator'],
  input: z.object({
    people: z.array(z.object(statusChange)).min(1, 'Select somebody.').max(2000),
    status: z.enum(ROLL_STATUSES),
  }),
  run: (context, { people, status }) =>
    context.store.transaction(async (db) => {
      const courses = new Set<string>();
      // In order of id: two who change the same people cannot hold each other up.
      for (const person of [...people].sort((a, b) => (a.enrolmentId < b.enrolmentId ? -1 : 1)))
        courses.add((await changeStatus(context, db, { ...person, status })).courseId);
      for (const courseId of courses) await syncCallBacks(context, db, { courseId });
    }),
});

/** What may be changed of several people at once; what is left out stays. */
const severalChange = z.object({
  enrolmentId: z.uuid(),
  version: z.coerce.number().int(),
  /** Null: as the session is. */
  mode: z.enum(MODES).nullable().optional(),
  /** Null: the course's first group. */
  groupId: z.uuid().nullable().optional(),
  servings: z.coerce
    .number('Write a number.')
    .int('Whole servings.')
    .min(1, 'At least one.')
    .max(MOST_HOUSEHOLD_SERVINGS, `At most ${MOST_HOUSEHOLD_SERVINGS}.`)
    .optional(),
});

export const changeSeveral = service({
  title: 'Change the mode, the group or the servings of several people at once',
  roles: ['coordinator'],
  input: z.object({ people: z.array(severalChange).min(1, 'Select somebody.').max(2000) }),
  run: (context, { people }) =>
    context.store.transaction(async (db) => {
      const before: z.input<typeof severalChange>[] = [];
      const courses = new Set<string>();
      // In order of id: two who change the same people cannot hold each other up.
      for (const { enrolmentId, version, ...change } of [...people].sort((a, b) =>
        a.enrolmentId < b.enrolmentId ? -1 : 1,
      )) {
        const was = await loadEnrolment(context, enrolmentId, db);
        if (change.groupId && !(await groupsOf(db, was.courseId)).some(({ id }) => id === change.groupId))
          throw notFound('group');
        const values = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
        if (!(await updateVersion(db, db.models.enrolment, enrolmentId, version, values))) throw stale(was.name);
        const old = Object.fromEntries(Object.keys(values).map((name) => [name, was[name as keyof EnrolmentRow]]));
        await logChange(context, db, 'changed', 'enrolment', enrolmentId, { before: old, after: values });
        before.push({ enrolmentId, version: version + 1, ...old });
        courses.add(was.courseId);
      }
      for (const courseId of courses) await syncCallBacks(context, db, { courseId });
      /** What takes it back: everybody as they were. */
      return before;
    }),
});

type StatusChange = z.output<z.ZodObject<typeof statusChange>> & { readonly status: RollStatus };

/** Gives somebody another status. @returns them as they were @throws ServiceError when the course is full, or they changed */
async function changeStatus(
  context: Context,
  db: Db,
  { enrolmentId, version, status, since }: StatusChange,
): Promise<EnrolmentRow> {
  const before = await loadEnrolment(context, enrolmentId, db);
  const course = await lockCourse(context, before.courseId, db);
  const { capacity, title } = course;
  if (status === 'enrolled' && before.status !== 'enrolled') {
    const enrolled = (await rollNow(db, before.courseId)).filter((each) => each.status === 'enrolled');
    const inGroup = enrolled.filter((each) => each.groupId === before.groupId).length;
    const full = modePlaces(enrolled, course.modePlaces).find(
      ({ mode, enrolled: taken, room }) => mode === before.mode && taken >= room,
    );
    if (full)
      throw new ServiceError(
        'invalid',
        `${title} is full ${full.mode}: ${full.enrolled} of ${full.room} places are taken. Offer ${before.name} another mode, put them on the waitlist, or make more room in the course.`,
      );
    if (capacity !== null && inGroup >= capacity)
      throw new ServiceError(
        'invalid',
        `${title} is full: ${inGroup} of ${capacity} places are taken. Put ${before.name} on the waitlist, or make more room in the course.`,
      );
  }
  const values = { status, since: since === undefined ? await todayOf(context, db) : since };
  if (!(await updateVersion(db, db.models.enrolment, enrolmentId, version, values))) throw stale(before.name);
  await logChange(context, db, status, 'enrolment', enrolmentId, { name: before.name });
  return before;
}

const refusedCells = (problems: readonly { column: string; message: string }[]) =>
  new ServiceError(
    'invalid',
    'Nothing was saved yet.',
    problems.map(({ column, message }) => ({ where: column, message })),
  );
