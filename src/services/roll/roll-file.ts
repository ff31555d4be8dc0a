import { z } from 'zod';
import { type CheckedRow, checkRoll, type NumberedCells } from '@/core/roll/check-roll';
import type { KnownHome } from '@/core/roll/families';
import { type ColumnWords, ROLL_COLUMNS, type RollEntry } from '@/core/roll/roll-row';
import { type RollFile, writeRollCsv } from '@/formats/roll/roll-csv';
import { ColumnsUnclear, headingKey, isNameless } from '@/formats/roll/roll-headings';
import { find, findOne, insert, update, updateVersion } from '@/store/query';
import { groupsOf } from '@/store/sittings';
import type { Db } from '@/store/store';
import type { CourseGroupRow } from '@/store/tables/plan';
import type { EnrolmentRow } from '@/store/tables/roll';
import { ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { loadCourse } from '../plan/courses';
import { syncCallBacks } from '../sheet/call-backs';
import { loadProgramme } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';
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
import { completeHousehold, homesNamed, householdsFor, withBothHomes } from './households';

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
  costly: true,
  input: z.object({ courseId: z.uuid() }),
  run: async (context, { courseId }) => {
    const { people, name } = await rollToTakeOut(context, courseId, 'roll, XLSX');
    return { bytes: await pooled('rollXlsx', { people }), name };
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
  const people = rows.map((row) => rollCells(row, byId.get(row.householdId), groups.get(row.groupId ?? '') ?? ''));
  return { people, name: `roll-${course.title}` };
}

const numberedRows = z
  .array(
    z.object({
      line: z.number().int().min(0),
      cells,
      leaveOut: z.boolean().optional(),
      beyond: z.array(z.string().max(500)).max(300).optional(),
      as: z.enum(['update', 'new']).optional(),
      home: z.enum(['same', 'other']).optional(),
    }),
  )
  .min(1)
  .max(2000);

/** What headings mean, as the coordinator said while bringing a file in. */
const columnWords = z
  .record(z.string().max(120), z.enum(ROLL_COLUMNS).nullable())
  .transform((words) => Object.fromEntries(Object.entries(words).map(([word, column]) => [headingKey(word), column])));

/** Keeps what headings mean here, for the next file. */
async function rememberColumns(context: Context, db: Db, columns: ColumnWords): Promise<void> {
  if (Object.keys(columns).length === 0) return;
  const { programme } = await loadProgramme(context, db);
  // A column without a heading is another one in the next file.
  const named = Object.entries(columns).filter(([word]) => !isNameless(word));
  const words = { ...programme.columnWords, ...Object.fromEntries(named) };
  await update(db, db.models.programme, { id: programme.id }, { columnWords: words });
}

/** Puts what a file says of somebody in the place of what is on the roll; it takes nothing away that it does not name. */
async function replacePerson(
  context: Context,
  db: Db,
  enrolmentId: string,
  entry: RollEntry,
  groups: readonly CourseGroupRow[],
): Promise<void> {
  const before = await loadEnrolment(context, enrolmentId, db);
  const { age, groupId, ...values } = valuesOf(entry, groups);
  const now = { ...values, age: age ?? before.age, ...(entry.group === '' ? {} : { groupId }) };
  // What the file leaves empty takes nothing away.
  for (const [name, value] of Object.entries(now))
    if (value === '') Object.assign(now, { [name]: before[name as keyof EnrolmentRow] });
  const household = await findOne(db, db.models.household, { id: before.householdId });
  if (household) await completeHousehold(context, db, household, withBothHomes(household, entry));
  if (!(await updateVersion(db, db.models.enrolment, enrolmentId, before.version, now))) throw stale(before.name);
  await logChange(context, db, 'changed', 'enrolment', enrolmentId, { before, after: now });
}

/** Said in the place of a column where a person has to choose one. */
const MAY_MATTER = 'choose';

export const previewRollFile = service({
  title: 'Read a roll file before saving it',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ courseId: z.uuid(), bytes: z.instanceof(Uint8Array), columns: columnWords.default({}) }),
  run: async (context, { courseId, bytes, columns }) => {
    await loadCourse(context, courseId);
    const { programme, meanings: known } = await loadProgramme(context);
    const remembered = programme.columnWords;
    let file: RollFile;
    try {
      file = await pooled('readRoll', {
        bytes,
        remembered,
        now: columns,
        today: await todayOf(context, context.store.db),
      });
    } catch (error) {
      // Not refused: whoever brings it says which column is which.
      if (error instanceof ColumnsUnclear)
        throw new ServiceError(
          'invalid',
          error.message,
          error.headings.map(({ heading, column, mayMatter }) => ({
            where: heading,
            message: mayMatter ? MAY_MATTER : (column ?? ''),
          })),
        );
      throw error;
    }
    const enrolled = (await rollNow(context.store.db, courseId)).map(onRoll);
    // Whoever brings a file in sees what is held of those who are on the roll already.
    if (enrolled.length > 0) await logLook(context, 'roll, beside a file', courseId, enrolled.length);
    const meanings = [...known];
    const groups = (await groupsOf(context.store.db, courseId)).map(({ name }) => name);
    const homes = await homesNamed(
      context,
      context.store.db,
      file.rows.map((row) => row.cells.household),
    );
    const isUnused = groups.length === 0 && file.rows.some((row) => row.cells.group);
    return {
      ...file,
      ignored: isUnused ? [...file.ignored, 'group'] : file.ignored,
      enrolled,
      meanings,
      groups,
      homes,
    };
  },
});

/** So many rows are checked at once: asking another process would take longer. */
const FEW_ROWS = 200;

/** Checks the rows of a roll together; many of them apart. */
const checkedRows = async (
  rows: readonly NumberedCells[],
  enrolled: Parameters<typeof checkRoll>[1],
  groups: readonly string[],
  homes: readonly KnownHome[],
): Promise<readonly CheckedRow[]> =>
  rows.length <= FEW_ROWS
    ? checkRoll(rows, enrolled, groups, homes)
    : pooled('checkRows', { rows, enrolled, groups, homes });

export const saveRoll = service({
  title: 'Bring a roll in from a file',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ courseId: z.uuid(), rows: numberedRows, columns: columnWords.default({}) }),
  run: (context, { courseId, rows, columns }) =>
    context.store.transaction(async (db) => {
      const course = await lockCourse(context, courseId, db);
      const before = await rollNow(db, courseId);
      const enrolled = before.map(onRoll);
      const groups = await groupsOf(db, courseId);
      const homes = await homesNamed(
        context,
        db,
        rows.map((row) => row.cells.household),
      );
      const checked = await checkedRows(rows as NumberedCells[], enrolled, namesOf(groups), homes);
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
