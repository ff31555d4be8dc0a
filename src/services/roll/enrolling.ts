import { z } from 'zod';
import type { Mode } from '@/core/plan/mode';
import type { OnRoll } from '@/core/roll/check-roll';
import { ROLL_COLUMNS, type RollCells, type RollEntry } from '@/core/roll/roll-row';
import { lockCourseRow } from '@/store/plan';
import { find, findOne } from '@/store/query';
import type { Db } from '@/store/store';
import type { CourseGroupRow, CourseRow } from '@/store/tables/plan';
import type { EnrolmentRow, HouseholdRow } from '@/store/tables/roll';
import { notFound } from '../errors';
import { type Context, todayIn } from '../gate/gate';
import { loadCourse } from '../plan/courses';
import { loadProgramme } from '../sheet/load-programme';

/** A row of a roll, as it is typed or stands in a file. */
export const cells = z.object(
  Object.fromEntries(ROLL_COLUMNS.map((column) => [column, z.string().max(5000).default('')])) as Record<
    (typeof ROLL_COLUMNS)[number],
    z.ZodDefault<z.ZodString>
  >,
);

/** Everybody who has to do with the course now: whoever withdrew may come again. */
export const rollNow = (db: Db, courseId: string): Promise<EnrolmentRow[]> =>
  find(db, db.models.enrolment, { courseId, status: ['applied', 'enrolled', 'waitlisted'] });

/** Somebody on the roll, as the rows of a file are held against them. */
export const onRoll = ({ id, name, age, servings, mode, needs }: EnrolmentRow): OnRoll => ({
  id,
  name,
  age,
  servings,
  mode: mode as Mode | null,
  needs,
});

/** Locks a course for the rest of the transaction, so that two imports at once see each other. */
export async function lockCourse(context: Context, courseId: string, db: Db): Promise<CourseRow> {
  const course = await loadCourse(context, courseId, db);
  await lockCourseRow(db, { courseId });
  return course;
}

export const namesOf = (groups: readonly CourseGroupRow[]) => groups.map(({ name }) => name);

/** The id of a person's group; null for the first, and where there is only one. */
export const groupIdOf = (groups: readonly CourseGroupRow[], { group }: RollEntry): string | null =>
  groups.find(({ name, position }) => name === group && position > 0)?.id ?? null;

/** What an entry of a roll says of somebody, as it is kept. */
export const valuesOf = (entry: RollEntry, groups: readonly CourseGroupRow[]) => ({
  name: entry.name,
  age: entry.age,
  servings: entry.servings,
  needs: entry.needs,
  actionPlan: entry.plan,
  mode: entry.mode,
  groupId: groupIdOf(groups, entry),
});

/** Somebody as a file or a form has them: the way back from an entry. @param group what their group is called; '' for the first */
export const rollCells = (
  row: EnrolmentRow,
  household: Pick<HouseholdRow, 'name' | 'contact' | 'address'> | undefined,
  group: string,
): Required<RollCells> => ({
  name: row.name,
  age: row.age === null ? '' : String(row.age),
  servings: String(row.servings),
  avoids: row.needs.join('; '),
  mode: row.mode ?? '',
  group,
  household: !household || household.name === row.name ? '' : household.name,
  contact: household?.contact ?? '',
  address: household?.address ?? '',
  plan: row.actionPlan,
});

export const enrolment = (
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
  ...valuesOf(entry, groups),
  status: 'enrolled',
  since: today,
  sharedKit: 0,
  version: 1,
});

/** Whoever finds no room in their group or their mode waits, in the order they came. @param before who is enrolled */
export function seated(
  fresh: readonly EnrolmentRow[],
  before: readonly EnrolmentRow[],
  course: Pick<CourseRow, 'capacity' | 'modePlaces'>,
): EnrolmentRow[] {
  const { capacity } = course;
  const modeRoom = course.modePlaces;
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
export async function todayOf(context: Context, db: Db): Promise<string> {
  const { timeZone } = (await loadProgramme(context, db)).programme;
  return todayIn(context, timeZone);
}

export async function loadEnrolment(context: Context, enrolmentId: string, db: Db): Promise<EnrolmentRow> {
  const row = await findOne(db, db.models.enrolment, { id: enrolmentId });
  if (!row || row.status === 'erased') throw notFound('person');
  await loadCourse(context, row.courseId, db);
  return row;
}
