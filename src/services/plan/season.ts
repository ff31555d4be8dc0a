import { z } from 'zod';
import { civilDate, civilTime, seasonPlan, weekday } from '@/contracts/plan';
import { CadenceError, type LostDay, layDown, type OnClosure } from '@/core/plan/cadence';
import type { Cadence } from '@/core/plan/cadence-rule';
import { addDays, dayOf, minutesOf } from '@/core/plan/civil';
import { type Booking, type Conflict, checkBooking } from '@/core/plan/conflicts';
import type { Mode } from '@/core/plan/mode';
import { type WeekPlace, weekPlaces, whyBetter } from '@/core/plan/week-places';
import { freshCourse, freshSession } from '@/store/fresh';
import { find, insert, updateVersion } from '@/store/query';
import { copyRows } from '@/store/session-rows';
import { groupsOf } from '@/store/sittings';
import type { CourseRow, SessionRow } from '@/store/tables/plan';
import { ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { placeIdOf } from './changes';
import { checkTeacher, loadCourse } from './courses';
import { usualSittings } from './groups';
import { loadPlan, type Plan } from './world';

type SeasonPlan = z.output<typeof seasonPlan>;

/** A session of a season before it is saved. */
export interface DraftSession {
  readonly title: string;
  readonly date: string;
  readonly startsAt: string;
  readonly minutes: number;
  readonly mode: Mode;
  /** Why it is not simply a day of the cadence; '' when it is. */
  readonly because: string;
  readonly conflicts: readonly Conflict[];
  /** The course meets then already: it is not laid down twice. */
  readonly isThere: boolean;
}

export interface SeasonDraft {
  readonly sessions: readonly DraftSession[];
  readonly lost: readonly LostDay[];
}

/** The furthest a season can reach: its own days, and those that closures push it to. */
const SEASON_DAYS = 800;

/** @throws ServiceError when the cadence gives nothing that can be laid down */
function draftOf(
  season: SeasonPlan,
  course: CourseRow,
  existing: readonly SessionRow[],
  /** How each of the roll comes, where they do not come as the session is. */
  people: readonly (string | null)[],
  plan: Plan,
): SeasonDraft {
  const place = [...plan.world.places.values()].find(({ name }) => name.toLowerCase() === season.place.toLowerCase());
  const laid = lay(season.cadence, season, plan, place?.id ?? null);
  const sessions = laid.sessions.map(({ date, startsAt, minutes, because }, index): DraftSession => {
    const mode = season.modes[index % season.modes.length] as Mode;
    const booking: Booking = {
      id: `new ${index}`,
      courseId: course.id,
      title: course.title,
      date,
      startsAt,
      minutes,
      placeId: place?.id ?? null,
      instructorId: season.instructorId ?? course.instructorId,
      inRoom: people.filter((own) => (own ?? mode) === 'in person').length,
      people: people.length,
      capacity: course.capacity,
      uses: course.uses,
    };
    const isThere = existing.some(
      (session) => session.status === 'planned' && session.date === date && session.startsAt === startsAt,
    );
    return {
      title: season.titles[index] || `${course.title} ${index + 1}`,
      date,
      startsAt,
      minutes,
      mode,
      because,
      conflicts: isThere ? [] : checkBooking(booking, plan.index, plan.world),
      isThere,
    };
  });
  return { sessions, lost: laid.lost };
}

function lay(
  cadence: Cadence,
  season: { from: string; to: string | null; days: number | null; onClosure: OnClosure },
  plan: Plan,
  placeId: string | null,
) {
  try {
    return layDown(cadence, season, season.days, plan.world.closures, season.onClosure, placeId);
  } catch (error) {
    if (error instanceof CadenceError)
      throw new ServiceError('invalid', error.message, [{ where: 'cadence', message: error.message }]);
    throw error;
  }
}

async function loadSeason(context: Context, season: SeasonPlan, db = context.store.db) {
  const course = await loadCourse(context, season.courseId, db);
  const plan = await loadPlan(context, { from: season.from, to: season.to ?? addDays(season.from, SEASON_DAYS) }, db);
  const existing = await find(db, db.models.session, { courseId: season.courseId });
  const enrolled = await find(db, db.models.enrolment, { courseId: season.courseId, status: 'enrolled' });
  const people = enrolled.map(({ mode }) => mode);
  return { course, existing, draft: draftOf(season, course, existing, people, plan) };
}

export const previewSeason = service({
  title: 'See a season before laying it down',
  roles: ['coordinator'],
  costly: true,
  input: seasonPlan,
  run: async (context, season): Promise<SeasonDraft> => (await loadSeason(context, season)).draft,
});

export const laySeason = service({
  title: 'Lay down the sessions of a season',
  roles: ['coordinator'],
  costly: true,
  input: seasonPlan.extend({ version: z.coerce.number().int() }),
  run: (context, { version, ...season }) =>
    context.store.transaction(async (db) => {
      const { course, existing, draft } = await loadSeason(context, season, db);
      await checkTeacher(context, db, season.instructorId);
      const saved = await updateVersion(db, db.models.course, course.id, version, {
        cadence: season.cadence,
        seasonFrom: season.from,
        seasonTo: season.to ?? draft.sessions.at(-1)?.date ?? null,
        onClosure: season.onClosure,
        ...(season.instructorId ? { instructorId: season.instructorId } : {}),
      });
      if (!saved) throw stale('The course');
      const fresh = draft.sessions.filter(({ isThere }) => !isThere);
      if (fresh.length === 0) throw new ServiceError('invalid', 'Every session of this season is there already.');
      let number = Math.max(0, ...existing.map((session) => session.number));
      const placeId = await placeIdOf(context, db, season.place);
      const rows = draft.sessions.flatMap(({ isThere, title, date, startsAt, minutes, mode, because }) => {
        if (isThere) return [];
        number += 1;
        return [
          freshSession({
            id: context.ids(),
            courseId: course.id,
            number,
            title,
            date,
            startsAt,
            minutes,
            place: season.place,
            placeId,
            mode,
            because,
          }),
        ];
      });
      await insert(db, db.models.session, rows);
      await insert(db, db.models.sitting, usualSittings(rows, await groupsOf(db, course.id)));
      await logChange(context, db, 'laid down', 'course', course.id, {
        cadence: season.cadence,
        from: season.from,
        to: season.to,
        sessions: fresh.length,
        lost: draft.lost,
      });
      return { saved: fresh.length };
    }),
});

export const repeatCourse = service({
  title: 'Repeat a course in another season',
  roles: ['coordinator'],
  input: z.object({
    courseId: z.uuid(),
    title: z.string().trim().min(1, 'The course needs a title.').max(120),
    from: civilDate,
  }),
  run: (context, { courseId, title, from }) =>
    context.store.transaction(async (db) => {
      const course = await loadCourse(context, courseId, db);
      const old = (
        await find(db, db.models.session, { courseId }, [
          ['date', 'ASC'],
          ['startsAt', 'ASC'],
        ])
      ).filter(({ status }) => status === 'planned');
      const [first] = old;
      if (!first) throw new ServiceError('invalid', 'This course has no sessions to repeat.');
      const cadence: Cadence = course.cadence
        ? course.cadence
        : { rule: null, dates: [], slots: [{ startsAt: first.startsAt, minutes: first.minutes }] };
      const shift = dayOf(from) - dayOf(first.date);
      const dates = old.map(({ date }) => addDays(date, shift));
      const season = {
        from,
        to: null,
        days: Math.ceil(old.length / cadence.slots.length),
        onClosure: course.onClosure,
      };
      const plan = await loadPlan(context, { from, to: addDays(from, SEASON_DAYS) }, db);
      const laid = lay(cadence.rule === null ? { ...cadence, dates } : cadence, season, plan, first.placeId);
      const id = context.ids();
      const { programmeId } = context.actor;
      const { id: _id, version: _version, ...same } = course;
      await insert(db, db.models.course, [
        freshCourse({
          ...same,
          id,
          programmeId,
          title,
          seasonFrom: from,
          seasonTo: laid.sessions.at(-1)?.date ?? from,
        }),
      ]);
      const fresh = laid.sessions.slice(0, old.length).map(({ date, startsAt, minutes, because }, index) => {
        const model = old[index] as SessionRow;
        const { place, placeId, instructorId, mode, jobs } = model;
        const given = {
          id: context.ids(),
          courseId: id,
          number: index + 1,
          title: model.title,
          date,
          startsAt,
          minutes,
        };
        const cookBy = model.cookBy && addDays(model.cookBy, dayOf(date) - dayOf(model.date));
        return freshSession({ ...given, place, placeId, instructorId, mode, jobs, cookBy, because });
      });
      await insert(db, db.models.session, fresh);
      const groups = (await groupsOf(db, courseId)).map((group) => ({ ...group, id: context.ids(), courseId: id }));
      await insert(db, db.models.courseGroup, groups);
      await insert(db, db.models.sitting, usualSittings(fresh, groups));
      const pairs = old.flatMap((session, at) => (fresh[at] ? [[session.id, fresh[at].id] as const] : []));
      await copyRows(db, 'repeat', new Map(pairs), context.ids);
      await logChange(context, db, 'repeated', 'course', id, { from: courseId, sessions: fresh.length });
      return { id, sessions: fresh.length, lost: laid.lost };
    }),
});

/** A place in the week with names, and why it comes before the next. */
export interface NamedWeekPlace extends WeekPlace {
  readonly placeName: string;
  readonly instructorName: string | null;
  readonly why: string;
}

export const findWeekPlace = service({
  title: 'Find a place in the week for a course',
  roles: ['coordinator'],
  costly: true,
  input: z
    .object({
      courseId: z.uuid(),
      from: civilDate,
      to: civilDate,
      every: z.coerce.number().int().min(1).max(8).default(1),
      minutes: z.coerce.number().int().min(15).max(720),
      weekdays: z.array(weekday).min(1, 'Choose at least one weekday.'),
      earliest: civilTime,
      latest: civilTime,
      people: z.coerce.number().int().min(0).max(100_000),
      anyInstructor: z.boolean().default(false),
    })
    .refine(({ from, to }) => from <= to, { message: 'The season ends before it starts.', path: ['to'] })
    .refine(({ from, to }) => dayOf(to) - dayOf(from) <= 400, {
      message: 'A season is at most 400 days long.',
      path: ['to'],
    })
    .refine(({ earliest, latest, minutes }) => minutesOf(earliest) + minutes <= minutesOf(latest), {
      message: 'The class does not fit between these hours.',
      path: ['latest'],
    }),
  run: async (context, { courseId, weekdays, anyInstructor, ...wish }): Promise<NamedWeekPlace[]> => {
    const course = await loadCourse(context, courseId);
    const plan = await loadPlan(context, wish);
    const { places, instructors } = plan.world;
    const found = weekPlaces(
      {
        ...wish,
        weekdays,
        uses: course.uses,
        instructorIds: anyInstructor ? [...instructors.keys()] : course.instructorId ? [course.instructorId] : [],
        placeIds: [...places.values()].filter(({ outdoor }) => outdoor === null).map(({ id }) => id),
        onClosure: course.onClosure,
      },
      plan.index,
      plan.world,
    );
    return found.map((place, index) => {
      const next = found[index + 1];
      return {
        ...place,
        placeName: places.get(place.placeId)?.name ?? '',
        instructorName: place.instructorId ? (instructors.get(place.instructorId) ?? null) : null,
        why: next ? whyBetter(place, next) : '',
      };
    });
  },
});
