import { z } from 'zod';
import { civilDate, civilTime } from '@/contracts/plan';
import { addDays } from '@/core/plan/civil';
import { closureCalendarsOf } from '@/store/plan';
import { find, findOne, insert, remove } from '@/store/query';
import { type Db, isDuplicate } from '@/store/store';
import type { ClosureRow } from '@/store/tables/plan';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service, todayIn } from '../gate/gate';
import { logTaken } from '../gate/taken';
import { loadProgramme } from '../sheet/load-programme';
import { pooled } from '../work/in-pool';
import { holidayCountries, publicHolidays } from './public-holidays';

/** A calendar of closures with how much is in it. */
export interface ClosureCalendar {
  readonly id: string;
  readonly name: string;
  readonly kind: 'public' | 'imported' | 'own';
  readonly region: string;
  readonly placeId: string | null;
  readonly placeName: string | null;
  readonly closures: readonly ClosureRow[];
}

export const listClosures = service({
  title: 'See all closures',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context): Promise<{ calendars: ClosureCalendar[]; countries: { code: string; name: string }[] }> => {
    const { db } = context.store;
    const calendars = await closureCalendarsOf(db, { programmeId: context.actor.programmeId });
    const ids = calendars.map(({ id }) => id);
    const closures =
      ids.length === 0 ? [] : await find(db, db.models.closure, { calendarId: ids }, [['fromDate', 'ASC']]);
    return {
      calendars: calendars.map((calendar) => ({
        ...calendar,
        closures: closures.filter(({ calendarId }) => calendarId === calendar.id),
      })),
      countries: holidayCountries(),
    };
  },
});

const closure = z
  .object({
    title: z.string().trim().max(190),
    from: civilDate,
    to: civilDate,
    hours: z
      .object({ from: civilTime, to: civilTime })
      .refine(({ from, to }) => from < to, {
        message: 'It ends before it begins. Change one of the two times.',
        path: ['to'],
      })
      .optional(),
  })
  .refine(({ from, to }) => from <= to, {
    message: 'It ends before it begins. Change one of the two days.',
    path: ['to'],
  });

type GivenClosure = z.output<typeof closure>;

/** Makes a calendar, or fills one anew, all or nothing. */
async function fillCalendar(
  context: Context,
  db: Db,
  calendar: { name: string; kind: 'public' | 'imported' | 'own'; region: string; placeId: string | null },
  closures: readonly GivenClosure[],
): Promise<string> {
  const { programmeId } = context.actor;
  const same = await findOne(db, db.models.closureCalendar, { programmeId, name: calendar.name });
  const id = same?.id ?? context.ids();
  if (same && same.kind !== calendar.kind)
    throw new ServiceError('invalid', `There is a calendar called ${calendar.name} already. Choose another name.`);
  if (same) await db.models.closureCalendar.update(calendar, { where: { id }, transaction: db.transaction });
  else await insert(db, db.models.closureCalendar, [{ id, programmeId, ...calendar }]);
  await remove(db, db.models.closure, { calendarId: id });
  await insert(
    db,
    db.models.closure,
    closures.map((each) => rowOf(context, id, each)),
  );
  await logChange(context, db, same ? 'brought in again' : 'brought in', 'closures', id, {
    name: calendar.name,
    closures: closures.length,
  });
  return id;
}

/** @throws ServiceError where a calendar of this name would be replaced unasked, or the very same closures are there under another name */
async function refuseAgain(
  context: Context,
  db: Db,
  name: string,
  closures: readonly GivenClosure[],
  replaces: boolean,
): Promise<void> {
  const { programmeId } = context.actor;
  const calendars = await find(db, db.models.closureCalendar, { programmeId, kind: 'imported' });
  const same = calendars.find((each) => each.name === name);
  if (same && !replaces)
    throw new ServiceError('invalid', 'Nothing was saved yet.', [
      {
        where: 'name',
        message: `There is a calendar called ${name} already: say that this one replaces it, or give it another name.`,
      },
    ]);
  if (same) return;
  for (const each of calendars) {
    const rows = await find(db, db.models.closure, { calendarId: each.id });
    const known = new Set(rows.map(({ title, fromDate, toDate }) => `${fromDate} ${toDate} ${title}`));
    if (closures.every(({ title, from, to }) => known.has(`${from} ${to} ${title}`)))
      throw new ServiceError('invalid', 'Nothing was saved yet.', [
        {
          where: 'name',
          message: `All of these closures stand in the calendar ${each.name} already: they would be there twice. Use its name to bring it in again.`,
        },
      ]);
  }
}

const rowOf = (context: Context, calendarId: string, { title, from, to, hours }: GivenClosure): ClosureRow => ({
  id: context.ids(),
  calendarId,
  title,
  fromDate: from,
  toDate: to,
  fromTime: hours?.from ?? null,
  toTime: hours?.to ?? null,
});

async function checkPlace(context: Context, db: Db, placeId: string | null): Promise<void> {
  if (placeId && !(await findOne(db, db.models.place, { id: placeId, programmeId: context.actor.programmeId })))
    throw notFound('place');
}

/** Years of public holidays that are brought in at once: this one and the next two. */
const YEARS = 3;

export const bringPublicHolidays = service({
  title: 'Bring in the public holidays of a country or region',
  roles: ['coordinator'],
  input: z.object({ country: z.string().length(2, 'Choose a country.'), region: z.string().max(20).default('') }),
  run: (context, { country, region }) => {
    const year = context.clock().toZonedDateTimeISO('UTC').year;
    const found = publicHolidays(
      country,
      region,
      Array.from({ length: YEARS }, (_, n) => year + n),
    );
    if (!found)
      throw new ServiceError(
        'invalid',
        'There are no holidays on record for this country or region. Bring in an .ics file, or add the days by hand.',
        [{ where: 'country', message: 'Not on record.' }],
      );
    return context.store.transaction(async (db) => {
      const calendar = {
        name: `Public holidays, ${found.name}`,
        kind: 'public' as const,
        region: found.code,
        placeId: null,
      };
      const id = await fillCalendar(
        context,
        db,
        calendar,
        found.days.map(({ date, title }) => ({ title, from: date, to: date })),
      );
      return { id, closures: found.days.length };
    });
  },
});

export const addClosure = service({
  title: 'Add a closure of one’s own',
  roles: ['coordinator'],
  input: z.intersection(closure, z.object({ placeId: z.preprocess((value) => value || null, z.uuid().nullable()) })),
  run: (context, { placeId, ...given }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      await checkPlace(context, db, placeId);
      const place = placeId ? await findOne(db, db.models.place, { id: placeId }) : undefined;
      const name = place ? `Closures of ${place.name}` : 'Own closures';
      const same = await findOne(db, db.models.closureCalendar, { programmeId, name });
      const calendarId = same?.id ?? context.ids();
      if (!same)
        await insert(db, db.models.closureCalendar, [
          { id: calendarId, programmeId, name, kind: 'own', region: '', placeId },
        ]);
      const row = rowOf(context, calendarId, given);
      await insert(db, db.models.closure, [row]);
      await logChange(context, db, 'added', 'closure', row.id, given);
      return row.id;
    }),
});

export const removeClosure = service({
  title: 'Take a closure away',
  roles: ['coordinator'],
  input: z.object({ closureId: z.uuid() }),
  run: (context, { closureId }) =>
    context.store.transaction(async (db) => {
      const row = await findOne(db, db.models.closure, { id: closureId });
      const calendar =
        row &&
        (await findOne(db, db.models.closureCalendar, { id: row.calendarId, programmeId: context.actor.programmeId }));
      if (!row || !calendar) throw notFound('closure');
      await remove(db, db.models.closure, { id: closureId });
      const called = `${row.title || 'Closed'}, ${row.fromDate}`;
      return logTaken(context, db, 'closure', closureId, called, { closure: [row] });
    }),
});

export const removeCalendar = service({
  title: 'Take a calendar of closures away',
  roles: ['coordinator'],
  input: z.object({ calendarId: z.uuid() }),
  run: (context, { calendarId }) =>
    context.store.transaction(async (db) => {
      const calendar = await findOne(db, db.models.closureCalendar, {
        id: calendarId,
        programmeId: context.actor.programmeId,
      });
      if (!calendar) throw notFound('calendar');
      const closure = await find(db, db.models.closure, { calendarId });
      await remove(db, db.models.closure, { calendarId });
      await remove(db, db.models.closureCalendar, { id: calendarId });
      return logTaken(context, db, 'closures', calendarId, calendar.name, { closureCalendar: [calendar], closure });
    }),
});

/** Closures are read from a month back to three years ahead. */
export const previewCalendarFile = service({
  title: 'Look into a calendar file before bringing it in',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ bytes: z.instanceof(Uint8Array) }),
  run: async (context, { bytes }) => {
    const { programme } = await loadProgramme(context);
    const today = todayIn(context, programme.timeZone);
    const window = { from: addDays(today, -31), to: addDays(today, 3 * 366) };
    return pooled('readCalendar', { bytes, window, timeZone: programme.timeZone });
  },
});

export const saveCalendar = service({
  title: 'Bring in the closures of a calendar file',
  roles: ['coordinator'],
  input: z.object({
    name: z.string().trim().min(1, 'The calendar needs a name.').max(120, 'At most 120 characters.'),
    placeId: z.preprocess((value) => value || null, z.uuid().nullable()),
    closures: z.array(closure).min(1, 'Choose at least one closure.').max(5000),
    /** A calendar of this name is there: its closures are replaced. */
    replaces: z.boolean().default(false),
  }),
  run: async (context, { name, placeId, closures, replaces }) => {
    try {
      return await context.store.transaction(async (db) => {
        await checkPlace(context, db, placeId);
        await refuseAgain(context, db, name, closures, replaces);
        return fillCalendar(context, db, { name, kind: 'imported', region: '', placeId }, closures);
      });
    } catch (error) {
      if (isDuplicate(error))
        throw new ServiceError('invalid', 'Somebody brought in a calendar of this name just now. Look at it first.');
      throw error;
    }
  },
});
