import { z } from 'zod';
import { DUTY_KINDS, SKILLS } from '@/core/crew/duties';
import { readFree } from '@/core/crew/free-text';
import { minutesOf } from '@/core/plan/civil';
import { readTime } from '@/core/plan/manner';
import { civilDate } from './plan';

const empty = (value: unknown) => (value === '' || value === undefined ? null : value);
const maybeDay = z.preprocess(empty, civilDate.nullable());
const maybeCount = (most: number) =>
  z.preprocess(
    empty,
    z.coerce
      .number('Write a number.')
      .int('Whole numbers only.')
      .min(1, 'At least 1.')
      .max(most, `At most ${most}.`)
      .nullable(),
  );

/** Free times as somebody wrote them, read. */
export const freeTimes = z
  .string()
  .max(2000, 'At most 2,000 characters.')
  .transform((text, context) => {
    const read = readFree(text);
    if ('free' in read) return read.free;
    context.addIssue({
      code: 'custom',
      message: `“${read.unclear.slice(0, 60)}” is no time that can be read. Write it as “Thu 14:00-18:00” or “not on 3 Dec 2026”.`,
    });
    return z.NEVER;
  });

export const heldSkill = z.object({
  skill: z.enum(SKILLS),
  until: maybeDay.default(null),
  seen: z.string().trim().max(120).default(''),
});

/** Somebody of the crew, as a form or a file has them. */
export const crewFields = z.object({
  name: z.string().trim().min(1, 'They need a name.').max(120, 'At most 120 characters.'),
  contact: z.string().trim().max(255, 'At most 255 characters.').default(''),
  languages: z.string().trim().max(255).default(''),
  /** Their sign-in, where they have one. */
  memberId: z.preprocess(empty, z.uuid().nullable()).default(null),
  isAdult: z.boolean().default(false),
  skills: z
    .array(heldSkill)
    .max(SKILLS.length)
    .refine((all) => new Set(all.map(({ skill }) => skill)).size === all.length, 'A skill stands there twice.')
    .default([]),
  free: freeTimes.prefault(''),
  mostDuties: maybeCount(200).default(null),
  mostHours: maybeCount(1000).default(null),
  noLifting: z.boolean().default(false),
  likes: z.array(z.enum(DUTY_KINDS)).max(DUTY_KINDS.length).default([]),
  ratherNot: z.array(z.enum(DUTY_KINDS)).max(DUTY_KINDS.length).default([]),
  withWhom: z.array(z.uuid()).max(50).default([]),
  apart: z.array(z.uuid()).max(50).default([]),
  /** Names of places that they go to; none: to any. */
  goesTo: z.array(z.string().trim().min(1).max(120)).max(50).default([]),
  endsOn: maybeDay.default(null),
});
export type CrewFields = z.output<typeof crewFields>;

const minutesIn = (text: string) => {
  const time = readTime(text);
  return time === undefined ? Number.NaN : minutesOf(time);
};

const reason = z.string().trim().min(1, 'Say why: whoever looks at it later wants to know.').max(255);
const minuteOfDay = z.preprocess(
  (value) => (value === '' ? undefined : typeof value === 'string' ? minutesIn(value) : value),
  z.number('Write a time, such as 14:30.').int().min(0).max(1440).optional(),
);

/** What is otherwise about a duty, by hand. */
export const dutyChangeFields = z.object({
  isLeftOut: z.boolean().default(false),
  title: z
    .string()
    .trim()
    .max(120)
    .transform((text) => text || undefined)
    .optional(),
  date: z.preprocess((value) => value || undefined, civilDate.optional()),
  from: minuteOfDay,
  to: minuteOfDay,
  place: z
    .string()
    .trim()
    .max(120)
    .transform((text) => text || undefined)
    .optional(),
  people: z.preprocess(
    (value) => (value === '' ? undefined : value),
    z.coerce
      .number('Write a number.')
      .int('Whole numbers only.')
      .min(1, 'At least 1.')
      .max(60, 'At most 60.')
      .optional(),
  ),
  skills: z.array(z.enum(SKILLS)).optional(),
  isAdult: z.boolean().optional(),
  reason,
});
