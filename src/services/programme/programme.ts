import { z } from 'zod';
import { civilTime, weekHours } from '@/contracts/plan';
import { RHYTHM_JOBS } from '@/core/countdown/rhythm';
import type { Weekday } from '@/core/plan/civil';
import { findIngredient } from '@/core/reference/reference';
import { NOT_ASKED } from '@/core/roll/roll-row';
import { AVOIDANCES, foodCode, normaliseNeed } from '@/core/safety/avoidances';
import type { Rhythm } from '@/core/stages/facts';
import { find, findOne, insert, remove, updateVersion } from '@/store/query';
import { ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { service } from '../gate/gate';
import { syncCallBacks } from '../sheet/call-backs';
import { loadProgramme } from '../sheet/load-programme';

const knownTimeZones = new Set(Intl.supportedValuesOf('timeZone'));

export const editProgramme = service({
  title: 'Change the programme’s settings',
  roles: ['coordinator'],
  input: z.object({
    version: z.coerce.number().int(),
    name: z.string().trim().min(1, 'The programme needs a name.').max(120),
    measureSystem: z.enum(['us', 'metric']),
    safetyProfile: z.enum(['us', 'uk']),
    /** ISO 4217; '' for what is usual where its profile holds; left out, it stays as it is. */
    currency: z
      .string()
      .trim()
      .toUpperCase()
      .regex(/^(?:[A-Z]{3})?$/, 'Three letters, such as EUR.')
      .optional(),
    retentionMonths: z.coerce
      .number('Write the months as a number.')
      .int('Whole months.')
      .min(1, 'At least a month.')
      .max(120, 'At most 120 months.'),
    /** Left out, it stays as it is; null: as is usual where the safety profile holds. */
    manner: z
      .object({
        dateOrder: z.enum(['day first', 'month first']),
        clock: z.coerce.number().pipe(z.union([z.literal(12), z.literal(24)])),
        firstWeekday: z.coerce.number().pipe(z.union([z.literal(1), z.literal(7)])),
      })
      .nullable()
      .optional(),
    timeZone: z
      .string()
      .refine((zone) => knownTimeZones.has(zone) || zone === 'UTC', 'Not a time zone we know, such as Europe/London.'),
  }),
  run: (context, { version, ...values }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const saved = await updateVersion(db, db.models.programme, programmeId, version, values);
      if (!saved) throw stale('The programme');
      await logChange(context, db, 'changed', 'programme', programmeId, values);
    }),
});

/** The programme's own meanings, for the settings page. */
export const setWorkHours = service({
  title: 'Say when the shops are open and the crew works',
  roles: ['coordinator'],
  input: z.object({
    version: z.coerce.number().int(),
    shop: weekHours,
    crew: weekHours,
  }),
  run: (context, { version, ...hours }) =>
    context.store.transaction(async (db) => {
      const id = context.actor.programmeId;
      const before = await findOne(db, db.models.programme, { id });
      const { rhythm } = before?.workHours ?? {};
      const workHours = { ...hours, ...(rhythm ? { rhythm } : {}) };
      if (!(await updateVersion(db, db.models.programme, id, version, { workHours }))) throw stale('The programme');
      await logChange(context, db, 'said when', 'work hours', id, hours);
    }),
});

const habit = z.object({
  job: z.enum(RHYTHM_JOBS),
  /** "w6": on Saturdays; "d2": two days before the session; empty: no habit. */
  on: z.string().regex(/^(?:|w[1-7]|d[0-9]|d1[0-4])$/, 'Choose a day.'),
  time: civilTime.or(z.literal('')),
});

const orNothing = (value: unknown) => (value === '' ? undefined : value);

export const setAdultRatios = service({
  title: 'Ask for more adults in a class than the table does',
  roles: ['coordinator'],
  input: z.object({
    version: z.coerce.number().int(),
    /** Children to one adult at the most; empty: as the table has it. It makes it stricter, never laxer. */
    children: z.preprocess(orNothing, z.coerce.number().int('Whole numbers only.').min(1).max(30).optional()),
    adults: z.preprocess(orNothing, z.coerce.number().int('Whole numbers only.').min(2).max(30).optional()),
  }),
  run: (context, { version, children, adults }) =>
    context.store.transaction(async (db) => {
      const id = context.actor.programmeId;
      const adultRatios = { ...(children ? { children } : {}), ...(adults ? { adults } : {}) };
      if (!(await updateVersion(db, db.models.programme, id, version, { adultRatios }))) throw stale('The programme');
      await logChange(context, db, 'said how many', 'adults', id, adultRatios);
    }),
});

export const setRhythm = service({
  title: 'Say when the programme usually does a job',
  roles: ['coordinator'],
  input: z.object({ version: z.coerce.number().int(), habits: z.array(habit).max(RHYTHM_JOBS.length) }),
  run: (context, { version, habits }) =>
    context.store.transaction(async (db) => {
      const id = context.actor.programmeId;
      const untimed = habits.findIndex(({ on, time }) => on !== '' && time === '');
      if (untimed >= 0)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: `habits[${untimed}].time`, message: 'At what time?' },
        ]);
      const before = await findOne(db, db.models.programme, { id });
      const rhythm: Rhythm = Object.fromEntries(
        habits.flatMap(({ job, on, time }) => {
          const number = Number(on.slice(1));
          if (on === '') return [];
          return [[job, on[0] === 'w' ? { weekday: number as Weekday, time } : { daysBefore: number, time }]];
        }),
      );
      const { rhythm: _, ...hours } = before?.workHours ?? {};
      const workHours = { ...hours, ...(Object.keys(rhythm).length > 0 ? { rhythm } : {}) };
      if (!(await updateVersion(db, db.models.programme, id, version, { workHours }))) throw stale('The programme');
      await logChange(context, db, 'said when', 'rhythm', id, rhythm);
    }),
});

export const listMeanings = service({
  title: 'See what families’ words mean',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const rows = await find(db, db.models.avoidanceMeaning, { programmeId: context.actor.programmeId }, [
      ['word', 'ASC'],
    ]);
    return rows.map(({ word, codes, giverName }) => ({ word, codes, giverName }));
  },
});

export const giveMeaning = service({
  title: 'Say what a family’s words mean',
  roles: ['coordinator'],
  input: z.object({
    word: z.string().trim().min(1).max(400),
    codes: z.array(z.string().max(40)).max(40).default([]),
    foods: z.array(z.string().max(80)).max(120).default([]),
    /** The words name nothing that is avoided: said by a person, whose name is kept. */
    nothing: z.boolean().default(false),
    /** Whoever answers has seen that the words had no meaning yet. */
    isFirst: z.boolean().default(false),
  }),
  run: async (context, { word, codes, foods, nothing, isFirst }) => {
    if (normaliseNeed(word) === NOT_ASKED)
      throw new ServiceError(
        'invalid',
        'Nobody asked these people: say on the roll for each of them what they must not eat, or that they were asked and avoid nothing.',
      );
    const { reference } = (await loadProgramme(context)).programme;
    const unknown = [
      ...codes.filter((code) => !AVOIDANCES.some((avoidance) => avoidance.code === code)),
      ...foods.filter((food) => !findIngredient(reference, food)),
    ];
    if (unknown.length > 0)
      throw new ServiceError('invalid', `Not something that can be avoided: ${unknown.join(', ')}.`);
    const all = [...codes, ...foods.map(foodCode)];
    if (nothing && all.length > 0)
      throw new ServiceError('invalid', `"${word}" either stands for something or for nothing: choose one.`);
    if (all.length === 0 && !nothing) {
      throw new ServiceError(
        'invalid',
        `Choose at least one allergen, diet or food that "${word}" stands for, or say that it stands for nothing.`,
      );
    }
    const key = normaliseNeed(word).slice(0, 190);
    await context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const before = await findOne(db, db.models.avoidanceMeaning, { programmeId, word: key });
      if (before && isFirst && before.codes.join() !== all.join())
        throw new ServiceError(
          'stale',
          `${before.giverName || 'Somebody else'} gave “${word}” a meaning while you were looking. Nothing was changed: look at it again.`,
        );
      await remove(db, db.models.avoidanceMeaning, { programmeId, word: key });
      const id = context.ids();
      await insert(db, db.models.avoidanceMeaning, [
        { id, programmeId, word: key, codes: all, giverName: context.actor.name },
      ]);
      await logChange(context, db, 'gave a meaning', 'avoidance', id, { word: key, codes: all });
      await syncCallBacks(context, db, 'all');
    });
  },
});

export const forgetMeaning = service({
  title: 'Take back a meaning',
  roles: ['coordinator'],
  input: z.object({
    word: z.string().max(400),
    /** The meaning that the screen showed; left out where nothing was shown. */
    shown: z.array(z.string().max(90)).optional(),
  }),
  run: (context, { word, shown }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const row = await findOne(db, db.models.avoidanceMeaning, { programmeId, word });
      if (!row) return;
      if (shown && shown.join() !== row.codes.join())
        throw new ServiceError(
          'stale',
          `“${word}” was given another meaning while you were looking: look at it again.`,
        );
      await remove(db, db.models.avoidanceMeaning, { id: row.id });
      await logChange(context, db, 'took back a meaning', 'avoidance', row.id, { word, codes: row.codes });
      await syncCallBacks(context, db, 'all');
    }),
});
