import { z } from 'zod';
import { civilDate, civilTime, editedSession, mode, newSession } from '@/contracts/plan';
import { VERSION_POLICIES } from '@/core/kits/sheet/fewest-variants';
import { addDays, dayOf, sayDay } from '@/core/plan/civil';
import type { Booking } from '@/core/plan/conflicts';
import { moveAlong } from '@/core/plan/sitting';
import { slotsOf } from '@/core/recipes/recipe/slots';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { freshSession } from '@/store/fresh';
import { setSwapIn } from '@/store/plan';
import { find, findOne, insert, remove, update, updateVersion } from '@/store/query';
import { loadSessionBundles, type SessionBundle } from '@/store/session-bundles';
import { groupsOf } from '@/store/sittings';
import { type Db, isDuplicate } from '@/store/store';
import type { SessionRow } from '@/store/tables/plan';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { logTaken } from '../gate/taken';
import { syncCallBacks } from '../sheet/call-backs';
import { loadProgramme } from '../sheet/load-programme';
import { sessionSheet } from '../sheet/session-sheet';
import { markedDone, sessionThread } from '../sheet/session-thread';
import { changeSessions, definedOf, placeIdOf } from './changes';
import { checkTeacher, loadCourse } from './courses';
import { movedSitting, usualSittings } from './groups';
import { bookingsOf, conflictsOfBooking, loadPlan } from './world';

/** One session with all that belongs to it. @throws ServiceError when it is not the asker's */
export async function loadBundle(
  context: Context,
  sessionId: string,
  db: Db = context.store.db,
): Promise<SessionBundle> {
  const [bundle] = await loadSessionBundles(db, context.actor.programmeId, { ids: [sessionId] });
  if (!bundle) throw notFound('session');
  return bundle;
}

export const addSession = service({
  title: 'Add a session',
  roles: ['coordinator'],
  input: newSession,
  run: (context, session) =>
    context.store.transaction(async (db) => {
      await loadCourse(context, session.courseId, db);
      await checkTeacher(context, db, session.instructorId);
      const others = await find(db, db.models.session, { courseId: session.courseId });
      const number = Math.max(0, ...others.map((other) => other.number)) + 1;
      const id = context.ids();
      const placeId = await placeIdOf(context, db, session.place);
      const row = freshSession({ id, number, ...session, placeId });
      await insert(db, db.models.session, [row]);
      await insert(db, db.models.sitting, usualSittings([row], await groupsOf(db, session.courseId)));
      await logChange(context, db, 'added', 'session', id, session);
      return id;
    }),
});

export const editSession = service({
  title: 'Change a session’s date, place or mode',
  roles: ['coordinator'],
  input: editedSession,
  run: (context, { sessionId, version, ...values }) =>
    context.store.transaction(async (db) => {
      await checkTeacher(context, db, values.instructorId);
      const { session } = await loadBundle(context, sessionId, db);
      const change = definedOf(values);
      await changeSessions(context, db, [{ sessionId, version, change }], sayChange(session, values));
    }),
});

/** A change in a few words: "Moved Breads to Thu 26 Nov, 16:00". */
function sayChange(
  before: Pick<SessionRow, 'title' | 'date' | 'startsAt' | 'place'>,
  after: { date: string; startsAt: string; place: string },
): string {
  if (before.date !== after.date || before.startsAt !== after.startsAt)
    return `Moved ${before.title} from ${sayDay(before.date)}, ${before.startsAt} to ${sayDay(after.date)}, ${after.startsAt}`;
  return before.place === after.place ? `Changed ${before.title}` : `Moved ${before.title} to ${after.place}`;
}

/** One group beside the first; left out, the whole session is meant. */
export const groupId = z.uuid().optional();

/** What a session could become, held against the whole plan, before anything is saved. */
export const previewChange = service({
  title: 'See what moves with a session before moving it',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    groupId,
    date: civilDate,
    startsAt: civilTime,
    place: z.string().trim().max(120).optional(),
  }),
  run: async (context, { sessionId, groupId: group, date, startsAt, place }) => {
    const { db } = context.store;
    const bundle = await loadBundle(context, sessionId);
    const { session } = bundle;
    const from = meetingOf(session, group);
    const [first, last] = [from.date, date].sort() as [string, string];
    const plan = await loadPlan(context, { from: first, to: last });
    const placeId = place === undefined ? from.placeId : await placeIdOf(context, db, place);
    const to = { date, startsAt, placeId };
    const moveOf = <S extends Pick<SessionBundle['session'], 'date' | 'cookBy' | 'sittings'>>(before: S): S =>
      group
        ? { ...before, sittings: before.sittings.map((each) => (each.groupId === group ? { ...each, ...to } : each)) }
        : {
            ...before,
            ...to,
            cookBy: shiftCookBy(before, date),
            sittings: moveAlong(before.sittings, before.date, date),
          };
    const planned = plan.sessions.find(({ id }) => id === sessionId);
    const bookings = planned ? bookingsOf(moveOf(planned), plan.hours, plan.today) : [];
    const checks = bookings.map((booking) => conflictsOfBooking(booking, plan));
    const { programme, meanings, hours } = await loadProgramme(context);
    const sheet = sessionSheet(bundle, programme, meanings);
    const now = context.clock();
    const before = sessionThread(bundle, sheet, programme, hours, now);
    const after = sessionThread({ ...bundle, session: moveOf(session) }, sheet, programme, hours, now);
    const jobs = after.jobs
      .filter(({ state }) => state !== 'done')
      .flatMap((job) => {
        const old = before.jobs.find(({ key }) => key === job.key);
        return old && old.latest !== job.latest
          ? [{ title: job.title, from: old.latest, to: job.latest, state: job.state }]
          : [];
      });
    return {
      title: from.title,
      from: { date: from.date, startsAt: from.startsAt },
      to: { date, startsAt },
      version: session.version,
      conflicts: checks.flatMap(({ conflicts }) => conflicts),
      // Ways out for the one that is moved; the other groups have theirs on the course’s page.
      fixes: checks.find((check) => check.groupId === (group ?? ''))?.fixes ?? [],
      along: group
        ? []
        : session.sittings
            .filter(({ status }) => status === 'planned')
            .map(({ groupName, date: old }) => ({
              groupName,
              date: addDays(old, dayOf(date) - dayOf(session.date)),
            })),
      jobs,
      tooLate: after.tooLate,
      people: bundle.enrolments.filter(({ status }) => status === 'enrolled').length,
      locked: bundle.sheet !== undefined,
      bought: markedDone(bundle.marks).has('buying'),
      packed: bundle.events.length > 0,
      timeZone: programme.timeZone,
    };
  },
});

/** When and where a session, or one of its groups, meets. @throws ServiceError when it is not given to that group */
export function meetingOf(session: SessionBundle['session'], group: string | undefined) {
  if (group === undefined) return session;
  const sitting = session.sittings.find((each) => each.groupId === group);
  if (!sitting) throw notFound('group');
  return { ...sitting, title: `${session.title} (${sitting.groupName})` };
}

export const checkSession = service({
  title: 'See what stands against a session as it is being written',
  roles: ['coordinator'],
  input: z.object({
    courseId: z.uuid(),
    sessionId: z.uuid().optional(),
    date: civilDate,
    startsAt: civilTime,
    minutes: z.coerce.number().int().min(15).max(720),
    place: z.string().trim().max(120),
    mode,
    instructorId: z.preprocess((value) => value || null, z.uuid().nullable()),
  }),
  run: async (context, { courseId, sessionId = '', place, ...asked }) => {
    const course = await loadCourse(context, courseId);
    const plan = await loadPlan(context, { from: asked.date, to: asked.date });
    const { db } = context.store;
    const enrolled = await find(db, db.models.enrolment, { courseId, status: 'enrolled' });
    const booking: Booking = {
      id: sessionId,
      courseId,
      title: course.title,
      date: asked.date,
      startsAt: asked.startsAt,
      minutes: asked.minutes,
      placeId: await placeIdOf(context, db, place),
      instructorId: asked.instructorId ?? course.instructorId,
      inRoom: enrolled.filter((person) => (person.mode ?? asked.mode) === 'in person').length,
      people: enrolled.length,
      capacity: course.capacity,
      uses: course.uses,
    };
    const { conflicts, fixes } = conflictsOfBooking(booking, plan);
    return { conflicts: conflicts.map(({ say }) => say), fixes: fixes.map(({ say }) => say) };
  },
});

/** The day by which families cook moves with the lesson. */
const shiftCookBy = (session: Pick<SessionRow, 'date' | 'cookBy'>, date: string): string | null =>
  session.cookBy && addDays(session.cookBy, dayOf(date) - dayOf(session.date));

export const moveSession = service({
  title: 'Move a session, or one of its groups, to another day, hour or place',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    groupId,
    version: z.coerce.number().int(),
    date: civilDate,
    startsAt: civilTime,
    place: z.string().trim().min(1).max(120).optional(),
    instructorId: z.uuid().optional(),
  }),
  run: (context, { sessionId, groupId: group, version, ...to }) =>
    context.store.transaction(async (db) => {
      await checkTeacher(context, db, to.instructorId);
      const { session } = await loadBundle(context, sessionId, db);
      const from = meetingOf(session, group);
      const given = definedOf(to);
      const change = group
        ? { sittings: await movedSitting(context, db, session, group, given) }
        : { ...given, cookBy: shiftCookBy(session, to.date) };
      return changeSessions(context, db, [{ sessionId, version, change }], sayChange(from, { ...from, ...given }));
    }),
});

export const settleConflict = service({
  title: 'Take a way out of a conflict',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    groupId,
    version: z.coerce.number().int(),
    date: civilDate.optional(),
    startsAt: civilTime.optional(),
    placeId: z.uuid().optional(),
    instructorId: z.uuid().optional(),
    rollClosesDays: z.number().int().min(0).max(60).optional(),
  }),
  run: (context, { sessionId, groupId: group, version, placeId, rollClosesDays, ...change }) =>
    context.store.transaction(async (db) => {
      await checkTeacher(context, db, change.instructorId);
      const { session } = await loadBundle(context, sessionId, db);
      if (rollClosesDays !== undefined) {
        const course = await loadCourse(context, session.courseId, db);
        if (!(await updateVersion(db, db.models.course, course.id, course.version, { rollClosesDays })))
          throw stale('The course');
        await logChange(context, db, 'changed', 'course', course.id, { rollClosesDays });
        return;
      }
      const place =
        placeId && (await findOne(db, db.models.place, { id: placeId, programmeId: context.actor.programmeId }));
      if (placeId && !place) throw notFound('place');
      const to = { ...definedOf(change), ...(place ? { place: place.name } : {}) };
      const cookBy = change.date ? { cookBy: shiftCookBy(session, change.date) } : {};
      const wanted = group ? { sittings: await movedSitting(context, db, session, group, to) } : { ...to, ...cookBy };
      const from = meetingOf(session, group);
      await changeSessions(context, db, [{ sessionId, version, change: wanted }], sayChange(from, { ...from, ...to }));
    }),
});

export const fallBack = service({
  title: 'Take an outdoor session to its fallback: the weather is bad',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), groupId, version: z.coerce.number().int() }),
  run: (context, { sessionId, groupId: group, version }) =>
    context.store.transaction(async (db) => {
      const { session } = await loadBundle(context, sessionId, db);
      const { title, place, outdoor } = meetingOf(session, group);
      if (outdoor === null) throw new ServiceError('invalid', `${title} is under a roof already.`);
      const { fallbackPlaceId } = outdoor;
      const fallback =
        fallbackPlaceId &&
        (await findOne(db, db.models.place, { id: fallbackPlaceId, programmeId: context.actor.programmeId }));
      if (!fallback)
        throw new ServiceError(
          'invalid',
          `${place} has no fallback for bad weather. Name one under Places, or move it.`,
        );
      const change = group
        ? { sittings: await movedSitting(context, db, session, group, { place: fallback.name }) }
        : { place: fallback.name, because: `Weather: moved in from ${place}`.slice(0, 255) };
      const said = `Bad weather: took ${title} to ${fallback.name}`;
      return changeSessions(context, db, [{ sessionId, version, change }], said);
    }),
});

export const addDish = service({
  title: 'Choose a dish for a session',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), recipeId: z.uuid('Choose a recipe.') }),
  run: async (context, { sessionId, recipeId }) => {
    try {
      await context.store.transaction(async (db) => {
        const bundle = await loadBundle(context, sessionId, db);
        const recipe = await findOne(db, db.models.recipe, { id: recipeId, programmeId: context.actor.programmeId });
        if (!recipe) throw notFound('recipe');
        const position = Math.max(0, ...bundle.dishes.map((dish) => dish.position)) + 1;
        await insert(db, db.models.dish, [
          { id: context.ids(), sessionId, recipeId, position, fillings: [], swapIn: 0, ways: [], serves: null },
        ]);
        await logChange(context, db, 'chose a dish', 'session', sessionId, { recipeId, title: recipe.title });
      });
    } catch (error) {
      if (isDuplicate(error)) throw new ServiceError('invalid', 'This dish is chosen for the session already.');
      throw error;
    }
  },
});

const portions = z.coerce
  .number('Write a number.')
  .int('A whole number.')
  .min(0, 'Not less than 0.')
  .max(200, 'At most 200.')
  .default(0);

export const setExtras = service({
  title: 'Say what is made beside the kits: swap-ins, tasters, crew, reserve',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    tasters: portions,
    crew: portions,
    reserve: portions,
    reserveServings: portions.pipe(z.number().min(1, 'At least 1 serving.')).optional(),
    /** Servings made before class, by dish. */
    swapIns: z.record(z.uuid(), portions).default({}),
  }),
  run: (context, { sessionId, swapIns, ...portionsWanted }) =>
    context.store.transaction(async (db) => {
      const { dishes, session } = await loadBundle(context, sessionId, db);
      const { versions } = session.extras;
      const wanted = { ...portionsWanted, ...(versions ? { versions } : {}) };
      for (const { id } of dishes) await setSwapIn(db, { id, servings: swapIns[id] ?? 0 });
      await update(db, db.models.session, { id: sessionId }, { extras: wanted });
      await logChange(context, db, 'changed what is made beside the kits', 'session', sessionId, {
        ...wanted,
        swapIns,
      });
    }),
});

export const setVersions = service({
  title: 'Say whether those who avoid different things share a version',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), versions: z.enum(VERSION_POLICIES) }),
  run: (context, { sessionId, versions }) =>
    context.store.transaction(async (db) => {
      const { session } = await loadBundle(context, sessionId, db);
      const extras = { ...session.extras, versions };
      await update(db, db.models.session, { id: sessionId }, { extras });
      await logChange(context, db, 'changed how versions are shared', 'session', sessionId, { versions });
    }),
});

export const fillSlot = service({
  title: 'Choose what fills a flexible slot of a dish',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    dishId: z.uuid(),
    written: z.string().min(1).max(80),
    chosen: z.string().min(1).max(80),
  }),
  run: (context, { sessionId, dishId, written, chosen }) =>
    context.store.transaction(async (db) => {
      const bundle = await loadBundle(context, sessionId, db);
      const dish = bundle.dishes.find(({ id }) => id === dishId);
      if (!dish) throw notFound('dish');
      const slot = slotsOf(wholeRecipe(dish.body).lines).find((each) => each.written === written);
      if (!slot?.foods.includes(chosen)) throw new ServiceError('invalid', `${chosen} is not one of what may fill it.`);
      const others = dish.fillings.filter((each) => each.written !== written);
      const fillings = chosen === written ? others : [...others, { written, chosen }];
      await update(db, db.models.dish, { id: dishId }, { fillings });
      await logChange(context, db, 'filled a slot', 'session', sessionId, { dish: dish.title, written, chosen });
      await syncCallBacks(context, db, { sessionId });
    }),
});

export const removeDish = service({
  title: 'Take a dish off a session',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), dishId: z.uuid() }),
  run: (context, { sessionId, dishId }) =>
    context.store.transaction(async (db) => {
      const bundle = await loadBundle(context, sessionId, db);
      const dish = bundle.dishes.find((candidate) => candidate.id === dishId);
      if (!dish) throw notFound('dish');
      await remove(db, db.models.dish, { id: dishId });
      const { id, recipeId, position, fillings, swapIn, ways, serves } = dish;
      const row = { id, sessionId, recipeId, position, fillings, swapIn, ways, serves };
      return logTaken(context, db, 'session', sessionId, dish.title, { dish: [row] });
    }),
});
