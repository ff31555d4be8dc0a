import { z } from 'zod';
import {
  checkRoll,
  type NumberedCells,
  ROLL_COLUMNS,
  type RollCells,
  type RollEntry,
  readRollRow,
} from '@/core/roll/roll-row';
import { type ModeRoom, modePlaces, placesOf, ROLL_STATUSES, type WaitlistRule } from '@/core/roll/waitlist';
import { ColumnsUnclear, type ColumnWords, headingKey, type RollFile, writeRollCsv } from '@/formats/roll-csv';
import { writeRollXlsx } from '@/formats/roll-xlsx';
import { FileRefused } from '@/formats/text';
import { execute, find, findOne, insert, updateVersion } from '@/store/query';
import type { CourseGroupRow, CourseRow, EnrolmentRow } from '@/store/rows';
import { groupsOf } from '@/store/sittings';
import type { Db } from '@/store/store';
import { checkRows, readRoll } from '@/workers/read-roll';
import { logChange } from '../access/change-log';
import { type Context, service } from '../access/gate';
import { logLook } from '../access/looks';
import { notFound, ServiceError, stale } from '../errors';
import { queueMessage } from '../messages/messages';
import { syncCallBacks } from '../packing/call-backs';
import { loadCourse } from '../plan/courses';
import { loadProgramme } from '../programme/load';
import { completeHousehold, householdsFor, withBothHomes } from './households';
import { rollPerson } from './person';

export const viewRoll = service({
  title: 'See a course’s roll',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid() }),
  run: async (context, { courseId }) => {
    const { db } = context.store;
    const course = await loadCourse(context, courseId);
    const rows = await find(db, db.models.enrolment, { courseId }, [['id', 'ASC']]);
    const { meanings } = await loadProgramme(context);
    const people = rows.filter((row) => row.status !== 'erased').map((row) => rollPerson(row, meanings));
    await logLook(context, 'roll', courseId, people.length);
    const groups = await groupsOf(db, courseId);
    const places = placesOf(
      people,
      course.capacity,
      course.waitlistRule as WaitlistRule,
      groups.filter(({ position }) => position > 0).map(({ id }) => id),
      modeRoomOf(course),
    );
    return { course, people, groups, places, modes: modePlaces(people, modeRoomOf(course)) };
  },
});

export const exportRoll = service({
  title: 'Take out a roll as CSV',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid() }),
  run: async (context, { courseId }) => {
    const { people, name } = await rollToTakeOut(context, courseId, 'roll, CSV');
    return { text: writeRollCsv(people), name };
  },
});

export const exportRollBook = service({
  title: 'Take out a roll as XLSX',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid() }),
  run: async (context, { courseId }) => {
    const { people, name } = await rollToTakeOut(context, courseId, 'roll, XLSX');
    return { bytes: await writeRollXlsx(people), name };
  },
});

/** Everybody enrolled, as a file has them. @param page what is kept of the look */
async function rollToTakeOut(context: Context, courseId: string, page: string) {
  const { db } = context.store;
  const course = await loadCourse(context, courseId);
  const rows = await find(db, db.models.enrolment, { courseId, status: 'enrolled' }, [['name', 'ASC']]);
  const ids = [...new Set(rows.map((row) => row.householdId))];
  const households = await find(db, db.models.household, { id: ids });
  const byId = new Map(households.map((household) => [household.id, household]));
  const groups = new Map((await groupsOf(db, courseId)).map(({ id, name }) => [id, name]));
  await logLook(context, page, courseId, rows.length);
  const people = rows.map((row): Required<RollCells> => {
    const { name, contact = '', address = '' } = byId.get(row.householdId) ?? { name: '' };
    return {
      name: row.name,
      age: row.age === null ? '' : String(row.age),
      servings: String(row.servings),
      avoids: (JSON.parse(row.wishes) as string[]).join('; '),
      mode: row.mode ?? '',
      group: groups.get(row.groupId ?? '') ?? '',
      household: name === row.name ? '' : name,
      contact,
      address,
      plan: row.actionPlan,
    };
  });
  return { people, name: `roll-${course.title}` };
}

const cells = z.object(
  Object.fromEntries(ROLL_COLUMNS.map((column) => [column, z.string().max(5000).default('')])) as Record<
    (typeof ROLL_COLUMNS)[number],
    z.ZodDefault<z.ZodString>
  >,
);

const numberedRows = z
  .array(
    z.object({
      line: z.number().int().min(0),
      cells,
      leaveOut: z.boolean().optional(),
      shape: z.string().max(500).optional(),
      as: z.enum(['update', 'new']).optional(),
    }),
  )
  .min(1)
  .max(2000);

const modeRoomOf = ({ modePlaces: written }: Pick<CourseRow, 'modePlaces'>) => JSON.parse(written) as ModeRoom;

/** Everybody who has to do with the course now: whoever withdrew may come again. */
const rollNow = (db: Db, courseId: string): Promise<EnrolmentRow[]> =>
  find(db, db.models.enrolment, { courseId, status: ['applied', 'enrolled', 'waitlisted'] });

/** What headings mean, as the coordinator said while bringing a file in. */
const columnWords = z
  .record(z.string().max(120), z.enum(ROLL_COLUMNS).nullable())
  .transform((words) => Object.fromEntries(Object.entries(words).map(([word, column]) => [headingKey(word), column])));

/** Keeps what headings mean here, for the next file. */
async function rememberColumns(context: Context, db: Db, columns: ColumnWords): Promise<void> {
  if (Object.keys(columns).length === 0) return;
  const { programme } = await loadProgramme(context, db);
  const words = { ...(JSON.parse(programme.columnWords) as ColumnWords), ...columns };
  await execute(db, 'UPDATE programme SET column_words = :words WHERE id = :id', {
    id: programme.id,
    words: JSON.stringify(words),
  });
}

/** Puts what a file says of somebody in the place of what is on the roll; an empty cell of the family takes nothing away. */
async function replacePerson(
  context: Context,
  db: Db,
  enrolmentId: string,
  entry: RollEntry,
  groups: readonly CourseGroupRow[],
): Promise<void> {
  const before = await loadEnrolment(context, enrolmentId, db);
  const { name, age, servings, mode, wishes, plan } = entry;
  const values = {
    name,
    age: age ?? before.age,
    servings,
    mode,
    ...(entry.group === '' ? {} : { groupId: groupIdOf(groups, entry) }),
    wishes: JSON.stringify(wishes),
    actionPlan: plan || before.actionPlan,
  };
  const household = await findOne(db, db.models.household, { id: before.householdId });
  if (household) await completeHousehold(db, household, withBothHomes(household, entry));
  if (!(await updateVersion(db, db.models.enrolment, enrolmentId, before.version, values))) throw stale(before.name);
  await logChange(context, db, 'changed', 'enrolment', enrolmentId, { before, after: values });
}

export const previewRollFile = service({
  title: 'Read a roll file before saving it',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid(), bytes: z.instanceof(Uint8Array), columns: columnWords.default({}) }),
  run: async (context, { courseId, bytes, columns }) => {
    await loadCourse(context, courseId);
    const { programme, meanings: known } = await loadProgramme(context);
    const remembered = { ...(JSON.parse(programme.columnWords) as ColumnWords), ...columns };
    let file: RollFile;
    try {
      file = await readRoll(bytes, remembered);
    } catch (error) {
      // Not refused: whoever brings it says which column is which.
      if (error instanceof ColumnsUnclear)
        throw new ServiceError(
          'invalid',
          error.message,
          error.headings.map(({ heading, column }) => ({ where: heading, message: column ?? '' })),
        );
      if (error instanceof FileRefused) throw new ServiceError('invalid', error.message);
      throw error;
    }
    const enrolled = (await rollNow(context.store.db, courseId)).map(({ id, name, age }) => ({ id, name, age }));
    const meanings = [...known];
    const groups = (await groupsOf(context.store.db, courseId)).map(({ name }) => name);
    const isUnused = groups.length === 0 && file.rows.some((row) => row.cells.group);
    return { ...file, ignored: isUnused ? [...file.ignored, 'group'] : file.ignored, enrolled, meanings, groups };
  },
});

export const saveRoll = service({
  title: 'Bring a roll in from a file',
  roles: ['coordinator'],
  input: z.object({ courseId: z.uuid(), rows: numberedRows, columns: columnWords.default({}) }),
  run: (context, { courseId, rows, columns }) =>
    context.store.transaction(async (db) => {
      const course = await lockCourse(context, courseId, db);
      const before = await rollNow(db, courseId);
      const enrolled = before.map(({ id, name, age }) => ({ id, name, age }));
      const groups = await groupsOf(db, courseId);
      const checked = await checkRows(rows as NumberedCells[], enrolled, namesOf(groups));
      const wanted = checked.filter((row) => !row.leaveOut);
      const refused = wanted.filter((row) => !row.entry);
      if (refused.length > 0) {
        throw new ServiceError(
          'invalid',
          `${refused.length} of ${rows.length} rows cannot be used. Nothing was saved. Mend them, or leave them out.`,
          refused.flatMap(({ line, problems }) =>
            problems.map(({ column, message }) => ({ where: `line ${line}, ${column}`, message })),
          ),
        );
      }
      if (wanted.length === 0) throw new ServiceError('invalid', 'Every row is left out: there is nobody to save.');
      await rememberColumns(context, db, columns);
      const updates = wanted.filter((row) => row.as === 'update' && row.onRoll?.id);
      for (const { entry, onRoll } of updates)
        await replacePerson(context, db, onRoll?.id ?? '', entry as RollEntry, groups);
      const entries = wanted.filter((row) => !updates.includes(row)).map(({ entry }) => entry as RollEntry);
      const households = await householdsFor(context, db, entries);
      const today = await todayOf(context, db);
      const people = seated(
        entries.map((entry, index) => enrolment(context, courseId, households[index] ?? '', entry, groups, today)),
        before.filter(({ status }) => status === 'enrolled'),
        course,
      );
      await insert(db, db.models.enrolment, people);
      await logChange(context, db, 'brought in a roll', 'course', courseId, {
        people: people.length,
        updated: updates.length,
        leftOut: rows.length - wanted.length,
      });
      if (updates.length > 0) await syncCallBacks(context, db, { courseId });
      return {
        saved: people.length,
        updated: updates.length,
        waiting: people.filter(({ status }) => status === 'waitlisted').length,
      };
    }),
});

/** Locks a course for the rest of the transaction, so that two imports at once see each other. */
async function lockCourse(context: Context, courseId: string, db: Db): Promise<CourseRow> {
  const course = await loadCourse(context, courseId, db);
  await execute(db, 'SELECT id FROM course WHERE id = :courseId FOR UPDATE', { courseId });
  return course;
}

const namesOf = (groups: readonly CourseGroupRow[]) => groups.map(({ name }) => name);

/** The id of a person's group; null for the first, and where there is only one. */
const groupIdOf = (groups: readonly CourseGroupRow[], { group }: RollEntry): string | null =>
  groups.find(({ name, position }) => name === group && position > 0)?.id ?? null;

const enrolment = (
  context: Context,
  courseId: string,
  householdId: string,
  entry: RollEntry,
  groups: readonly CourseGroupRow[],
  today: string,
): EnrolmentRow => ({
  id: context.ids(),
  courseId,
  householdId,
  name: entry.name,
  age: entry.age,
  servings: entry.servings,
  wishes: JSON.stringify(entry.wishes),
  actionPlan: entry.plan,
  mode: entry.mode,
  groupId: groupIdOf(groups, entry),
  status: 'enrolled',
  since: today,
  sharedKit: 0,
  version: 1,
});

/** Whoever finds no room in their group or their mode waits, in the order they came. @param before who is enrolled */
function seated(
  fresh: readonly EnrolmentRow[],
  before: readonly EnrolmentRow[],
  course: Pick<CourseRow, 'capacity' | 'modePlaces'>,
): EnrolmentRow[] {
  const { capacity } = course;
  const modeRoom = modeRoomOf(course);
  const inGroup = new Map<string | null, number>();
  const inMode = new Map<string | null, number>();
  const sit = ({ groupId, mode }: EnrolmentRow) => {
    inGroup.set(groupId, (inGroup.get(groupId) ?? 0) + 1);
    inMode.set(mode, (inMode.get(mode) ?? 0) + 1);
  };
  before.forEach(sit);
  return fresh.map((person) => {
    const fits =
      (capacity === null || (inGroup.get(person.groupId) ?? 0) < capacity) &&
      (inMode.get(person.mode) ?? 0) < (modeRoom[person.mode ?? ''] ?? Number.POSITIVE_INFINITY);
    if (!fits) return { ...person, status: 'waitlisted' };
    sit(person);
    return person;
  });
}

/** The civil date where the programme is. */
async function todayOf(context: Context, db: Db): Promise<string> {
  const { timeZone } = (await loadProgramme(context, db)).programme;
  return context.clock().toZonedDateTimeISO(timeZone).toPlainDate().toString();
}

export const addPerson = service({
  title: 'Add a person to a roll',
  roles: ['coordinator'],
  input: z.object({
    courseId: z.uuid(),
    cells,
    /** Whoever finds no room waits, however they are added. */
    status: z.enum(['applied', 'enrolled', 'waitlisted']).default('enrolled'),
  }),
  run: (context, { courseId, cells: written, status }) =>
    context.store.transaction(async (db) => {
      const course = await lockCourse(context, courseId, db);
      const groups = await groupsOf(db, courseId);
      const before = await rollNow(db, courseId);
      // Whoever types a name by hand knows who is meant: only the very same one is refused.
      const [row] = checkRoll([{ line: 0, cells: written, as: 'new' }], before, namesOf(groups));
      const entry = row?.entry;
      if (!entry) throw refusedCells(row?.problems ?? []);
      const [householdId = ''] = await householdsFor(context, db, [entry]);
      const today = await todayOf(context, db);
      const [person = null] = seated(
        [{ ...enrolment(context, courseId, householdId, entry, groups, today), status }],
        before.filter((each) => each.status === 'enrolled'),
        status === 'enrolled' ? course : { capacity: null, modePlaces: '{}' },
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
  input: z.object({ enrolmentId: z.uuid(), version: z.coerce.number().int(), cells }),
  run: (context, { enrolmentId, version, cells: written }) =>
    context.store.transaction(async (db) => {
      const before = await loadEnrolment(context, enrolmentId, db);
      const groups = await groupsOf(db, before.courseId);
      const reading = readRollRow(written, namesOf(groups));
      if ('problems' in reading) throw refusedCells(reading.problems);
      const { name, age, servings, mode, wishes, plan } = reading.entry;
      const household = await findOne(db, db.models.household, { id: before.householdId });
      if (household) await completeHousehold(db, household, reading.entry);
      const groupId = groupIdOf(groups, reading.entry);
      const values = { name, age, servings, mode, groupId, wishes: JSON.stringify(wishes), actionPlan: plan };
      if (!(await updateVersion(db, db.models.enrolment, enrolmentId, version, values))) throw stale(before.name);
      await logChange(context, db, 'changed', 'enrolment', enrolmentId, { before, after: values });
      await syncCallBacks(context, db, { courseId: before.courseId });
    }),
});

export const setStatus = service({
  title: 'Withdraw a person, enrol them, or put them on the waitlist',
  roles: ['coordinator'],
  input: z.object({
    enrolmentId: z.uuid(),
    version: z.coerce.number().int(),
    status: z.enum(ROLL_STATUSES),
    /** Told to the family with it: the offer of a place, as the coordinator has worded it. */
    message: z
      .object({
        subject: z.string().trim().min(1, 'Write a subject.').max(190),
        body: z.string().trim().min(1).max(4000),
      })
      .optional(),
  }),
  run: (context, { enrolmentId, version, status, message }) =>
    context.store.transaction(async (db) => {
      const before = await loadEnrolment(context, enrolmentId, db);
      const course = await lockCourse(context, before.courseId, db);
      const { capacity, title } = course;
      if (status === 'enrolled' && before.status !== 'enrolled') {
        const enrolled = (await rollNow(db, before.courseId)).filter((each) => each.status === 'enrolled');
        const inGroup = enrolled.filter((each) => each.groupId === before.groupId).length;
        const full = modePlaces(enrolled, modeRoomOf(course)).find(
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
      const values = { status, since: await todayOf(context, db) };
      if (!(await updateVersion(db, db.models.enrolment, enrolmentId, version, values))) throw stale(before.name);
      if (message) {
        const household = await findOne(db, db.models.household, { id: before.householdId });
        if (!household?.contact)
          throw new ServiceError(
            'invalid',
            'The family left no contact: tell them by hand, and enrol without a message.',
          );
        await queueMessage(context, db, context.actor.programmeId, { sentTo: household.contact, ...message });
      }
      await logChange(context, db, status, 'enrolment', enrolmentId, { name: before.name });
      await syncCallBacks(context, db, { courseId: before.courseId });
    }),
});

async function loadEnrolment(context: Context, enrolmentId: string, db: Db): Promise<EnrolmentRow> {
  const row = await findOne(db, db.models.enrolment, { id: enrolmentId });
  if (!row || row.status === 'erased') throw notFound('person');
  await loadCourse(context, row.courseId, db);
  return row;
}

const refusedCells = (problems: readonly { column: string; message: string }[]) =>
  new ServiceError(
    'invalid',
    'Nothing was saved yet.',
    problems.map(({ column, message }) => ({ where: column, message })),
  );
