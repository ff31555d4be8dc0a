import { z } from 'zod';
import { CLASS_WORDS } from '@/core/classday/live/class-events';

const minutes = z.number().int().min(0).max(2880);
const counts = z.record(z.string().max(120), z.number().int().min(0).max(1000));
const inside = z.object({
  kind: z.string().max(60),
  tenths: z.number(),
  seconds: z.number(),
  leastTenths: z.number(),
  leastMinutes: z.number(),
  said: z.string().max(60),
  rule: z.string().max(200),
  source: z.string().max(200),
});

/** The plan that a class follows, as a screen sends it when the cooking begins. */
export const classPlan = z.object({
  minutes,
  cooking: minutes,
  hands: z
    .array(
      z.object({ id: z.string().max(120), age: z.number().int().min(0).max(130), at: z.string().max(40).optional() }),
    )
    .max(80),
  heat: counts,
  tools: counts,
  stations: z.array(z.object({ number: z.number().int().min(1).max(99), people: z.array(z.uuid()).max(500) })).max(99),
  standIns: z.array(z.string().max(600)).max(1000),
  tasks: z
    .array(
      z.object({
        id: z.string().min(1).max(120),
        dish: z.string().max(190),
        text: z.string().max(2000),
        notes: z.string().max(2000),
        station: z.number().int().min(1).max(99).nullable(),
        on: minutes,
        off: minutes,
        heat: z.string().max(40),
        celsius: z.number().int().min(-50).max(600).nullable(),
        tools: z.array(z.string().max(60)).max(20),
        part: z.tuple([z.number().int(), z.number().int()]).nullable(),
        after: z.array(z.string().max(120)).max(120),
        age: z.number().int().min(0).max(130),
        wait: minutes.nullable(),
        start: minutes,
        hands: z.string().max(120),
        wash: z.string().max(120),
        inside: inside.nullable(),
      }),
    )
    .max(200, 'At most 200 tasks.'),
});

/** What only the server says. */
const SERVER = ['planned again', 'swapped'] as const;
export const sentWords = CLASS_WORDS.filter(
  (word): word is Exclude<(typeof CLASS_WORDS)[number], (typeof SERVER)[number]> =>
    !(SERVER as readonly string[]).includes(word),
);

const value = z.object({
  text: z.string().trim().max(300, 'At most 300 characters.').optional(),
  who: z.string().trim().max(120, 'At most 120 characters.').optional(),
  minutes: z
    .number()
    .int('Whole minutes.')
    .min(1, 'A timer runs for a minute at least.')
    .max(240, 'A timer runs for four hours at most.')
    .optional(),
  tenths: z.number().int().min(-500, 'Not below −50 °C.').max(3000, 'Not above 300 °C.').optional(),
  source: z.enum(['typed', 'probe']).optional(),
  station: z.number().int().min(1).max(99).optional(),
  percent: z.number().int().min(1).max(200, 'At most twice as much.').optional(),
  plan: classPlan.optional(),
});

/** What must come with a word. */
const NEEDS: Readonly<Partial<Record<(typeof sentWords)[number], keyof z.output<typeof value>>>> = {
  begun: 'plan',
  timer: 'minutes',
  temperature: 'tenths',
  question: 'text',
  answered: 'text',
  asked: 'text',
};

/** '' for the first group, or the only one. */
export const sittingId = z.union([z.literal(''), z.uuid()]).default('');

/** What a screen says of a class: each with an id and an hour of its own. */
export const sentClass = z.object({
  sessionId: z.uuid(),
  sitting: sittingId,
  /** What the clock of the screen says as it sends: clocks differ. */
  now: z.iso.datetime(),
  events: z
    .array(
      z
        .object({
          id: z.uuid(),
          what: z.enum(sentWords as [(typeof sentWords)[number], ...(typeof sentWords)[number][]]),
          item: z.string().max(190).default(''),
          enrolmentId: z.uuid().nullable().default(null),
          value: value.default({}),
          at: z.iso.datetime(),
        })
        .superRefine(({ what, value: own }, context) => {
          const needed = NEEDS[what];
          if (needed && (own[needed] === undefined || own[needed] === ''))
            context.addIssue({ code: 'custom', path: ['value', needed], message: `“${what}” says more: ${needed}.` });
        }),
    )
    .min(1)
    .max(200),
});
export type SentClassEvent = z.output<typeof sentClass>['events'][number];
