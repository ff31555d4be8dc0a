import { z } from 'zod';
import { MODES } from '@/core/plan/mode';

const title = (what: string) =>
  z.string().trim().min(1, `The ${what} needs a title.`).max(120, 'At most 120 characters.');

export const newCourse = z.object({ title: title('course'), audience: z.string().trim().max(120).default('') });

const isCivilDate = (text: string) => {
  const date = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(date.getTime()) && date.toISOString().slice(0, 10) === text;
};

const sessionFields = {
  title: title('session'),
  date: z
    .string()
    .regex(/^\d{4}-\d{2}-\d{2}$/, 'Write the date as YYYY-MM-DD.')
    .refine(isCivilDate, 'There is no such day in the calendar.')
    .refine((date) => date >= '2000-01-01' && date <= '2100-12-31', 'Choose a date from 2000 to 2100.'),
  startsAt: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write the time as HH:MM, from 00:00 to 23:59.'),
  minutes: z.coerce
    .number('Write the minutes as a number.')
    .int('Whole minutes.')
    .min(15, 'At least 15 minutes.')
    .max(720, 'At most 720 minutes.'),
  place: z.string().trim().min(1, 'Say where it takes place.').max(120),
  mode: z.enum(MODES, `Choose one of: ${MODES.join(', ')}.`),
};

export const newSession = z.object({ courseId: z.uuid(), ...sessionFields });

export const editedSession = z.object({ sessionId: z.uuid(), version: z.coerce.number().int(), ...sessionFields });
