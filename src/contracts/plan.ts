import { z } from 'zod';
import { ON_CLOSURE } from '@/core/plan/cadence';
import { readDate, readTime } from '@/core/plan/manner';
import { MODES } from '@/core/plan/mode';
import { EQUIPMENT_KINDS, sameHoursTogether } from '@/core/plan/place';
import { MOST_DAYS_AFTER } from '@/core/plan/sitting';
import { WAITLIST_RULES } from '@/core/roll/waitlist';

const title = (what: string) =>
  z.string().trim().min(1, `The ${what} needs a title.`).max(120, 'At most 120 characters.');

const isCivilDate = (text: string) => {
  const date = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(date.getTime()) && date.toISOString().slice(0, 10) === text;
};

/** A civil date as it is kept, or with its month in letters as a form shows it: "5 Nov 2026", "Nov 5, 2026". */
export const civilDate = z
  .string()
  .overwrite((text) => readDate(text) ?? text)
  .regex(/^\d{4}-\d{2}-\d{2}$/, 'Write the date as YYYY-MM-DD.')
  .refine(isCivilDate, 'There is no such day in the calendar.')
  .refine((date) => date >= '2000-01-01' && date <= '2100-12-31', 'Choose a date from 2000 to 2100.');

/** What somebody wrote as a time, as it is kept where it can be meant in one way only: "4:30 pm". */
const asTime = (text: string) => readTime(text, { clock: 12 }) ?? text;

export const civilTime = z
  .string()
  .overwrite(asTime)
  .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write the time as HH:MM, from 00:00 to 23:59.');

/** An end of opening hours may be the end of the day. */
const closingTime = z
  .string()
  .overwrite(asTime)
  .regex(/^(([01]\d|2[0-3]):[0-5]\d|24:00)$/, 'Write the time as HH:MM, up to 24:00.')
  .overwrite((time) => (time === '00:00' ? '24:00' : time));

/** What a form leaves empty is not given. */
const orNull = <T extends z.ZodType>(schema: T) =>
  z.preprocess((value) => (value === '' || value === undefined ? null : value), schema.nullable());

const count = (most: number) =>
  z.coerce
    .number('Write a number.')
    .int('Whole numbers only.')
    .min(0, 'Not less than 0.')
    .max(most, `At most ${most}.`);

const minutes = z.coerce
  .number('Write the minutes as a number.')
  .int('Whole minutes.')
  .min(15, 'At least 15 minutes.')
  .max(720, 'At most 720 minutes.');

export const mode = z.enum(MODES, `Choose one of: ${MODES.join(', ')}.`);
const place = z.string().trim().min(1, 'Say where it takes place.').max(120);

export const newCourse = z.object({ title: title('course'), audience: z.string().trim().max(120).default('') });

const uses = z.partialRecord(z.enum(EQUIPMENT_KINDS), count(9999)).default({});

export const editedCourse = z.object({
  courseId: z.uuid(),
  version: z.coerce.number().int(),
  title: title('course'),
  audience: z.string().trim().max(120).default(''),
  capacity: orNull(count(100_000)),
  /** In whole coins: 4.50 is 450. */
  budgetCents: orNull(count(100_000_000)),
  waitlistRule: z.enum(WAITLIST_RULES).default('first come'),
  /** Room in each mode; a mode left out has no limit. */
  modePlaces: z.partialRecord(z.enum(MODES), count(100_000)).default({}),
  instructorId: orNull(z.uuid('Choose an instructor.')),
  rollClosesDays: count(60),
  uses,
  notes: z.string().max(4000).default(''),
});

const sessionFields = {
  title: title('session'),
  date: civilDate,
  startsAt: civilTime,
  minutes,
  place,
  mode,
};
const instructorId = orNull(z.uuid('Choose an instructor.'));
const cookBy = orNull(civilDate);

export const newSession = z.object({ courseId: z.uuid(), ...sessionFields, instructorId, cookBy });

/** What is left out stays as it is; what is empty is taken away. */
export const editedSession = z.object({
  sessionId: z.uuid(),
  version: z.coerce.number().int(),
  ...sessionFields,
  instructorId: instructorId.optional(),
  cookBy: cookBy.optional(),
});

const groupName = z.string().trim().max(60, 'At most 60 characters.');

/** When and where a group beside the first usually meets. */
const groupUsual = {
  daysAfter: z.coerce
    .number('Write a number of days.')
    .int('Whole days.')
    .min(0, 'Not before the session’s own day.')
    .max(MOST_DAYS_AFTER, `At most ${MOST_DAYS_AFTER} days after: what is bought once must still be fresh.`),
  startsAt: civilTime,
  place,
  instructorId,
};

export const newGroup = z.object({
  courseId: z.uuid(),
  name: groupName.min(1, 'The group needs a name.'),
  /** What the group that meets now is called; asked for with the second group. */
  firstName: groupName.default(''),
  ...groupUsual,
});

export const editedGroup = z.object({
  groupId: z.uuid(),
  version: z.coerce.number().int(),
  name: groupName.min(1, 'The group needs a name.'),
  /** What is left out stays; the first group meets with the sessions themselves. */
  ...z.object(groupUsual).partial().shape,
});

export const weekday = z.coerce
  .number()
  .int()
  .min(1)
  .max(7)
  .transform((value) => value as 1 | 2 | 3 | 4 | 5 | 6 | 7);

const slot = z.object({ startsAt: civilTime, minutes });

export const cadence = z.object({
  rule: z.string().trim().min(1).max(200).nullable(),
  dates: z.array(civilDate).max(400, 'At most 400 days.').default([]),
  slots: z.array(slot).min(1, 'Say at what time the class starts.').max(6, 'At most six classes a day.'),
});

/** A season as it is to be laid down. */
export const seasonPlan = z.object({
  courseId: z.uuid(),
  cadence,
  from: civilDate,
  to: orNull(civilDate),
  days: orNull(count(400)),
  onClosure: z.enum(ON_CLOSURE),
  /** Sessions are named in order; when there are more sessions than titles, the course's title is taken with a number. */
  titles: z.array(z.string().trim().max(120)).max(400).default([]),
  place,
  /** One, or several in turn: "talk and cooking in turn". */
  modes: z.array(mode).min(1).max(6),
  instructorId: orNull(z.uuid()),
});

const openHours = z
  .object({ weekdays: z.array(weekday).min(1, 'Choose at least one weekday.'), from: civilTime, to: closingTime })
  .refine(({ from, to }) => from < to, {
    message: 'It closes before it opens. Change one of the two times.',
    path: ['to'],
  });

/** Hours of a week; null for what was left empty. */
export const weekHours = z.array(openHours.nullable()).max(20).transform(sameHoursTogether);

export const placeFields = z.object({
  name: z.string().trim().min(1, 'The place needs a name.').max(120, 'At most 120 characters.'),
  seats: orNull(count(100_000)),
  hours: weekHours,
  equipment: uses,
  minutesBefore: count(600),
  minutesAfter: count(600),
  shared: z.boolean().default(false),
  outdoor: z
    .object({
      fuel: z.string().trim().max(120),
      waterLitres: count(100_000),
      lightingMinutes: count(600),
      fallbackPlaceId: orNull(z.uuid()),
      decideHours: count(240),
    })
    .nullable(),
});
