import { z } from 'zod';
import { usageIn } from '@/core/plan/countries';
import { FIRST_STEPS, type FirstStep, stepsNow } from '@/core/plan/first-run';
import { whileErasing } from '@/store/erasing';
import { removeWhole, setUpNow, usedElsewhere, whereToGoOn } from '@/store/first-run';
import { findOne, update, updateVersion } from '@/store/query';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service, todayIn } from '../gate/gate';
import { bringPublicHolidays } from '../plan/closures';
import { holidayCountries, holidayRegions, zonesIn } from '../plan/public-holidays';
import { makeSample } from './sample';

const firstRunOf = async (context: Context, db = context.store.db) => {
  const programme = await findOne(db, db.models.programme, { id: context.actor.programmeId });
  if (!programme) throw notFound('programme');
  return programme;
};

export const viewFirstRun = service({
  title: 'See how far setting up has come, and what a country proposes',
  roles: ['coordinator'],
  input: z.object({ country: z.string().max(2).default('') }),
  run: async (context, { country: asked }) => {
    const { programmeId } = context.actor;
    const { has, firstRun } = await setUpNow(context.store.db, { programmeId });
    const { country, version, timeZone } = await firstRunOf(context);
    const chosen = asked || country;
    const today = todayIn(context, timeZone);
    return {
      version,
      ...(await whereToGoOn(context.store.db, { programmeId, today })),
      steps: stepsNow(has, firstRun),
      hasSample: firstRun.sample !== undefined,
      isEmpty: !has.course && !has.recipes,
      country: chosen,
      timeZone,
      countries: holidayCountries(),
      /** Of the country that is asked about; none while nobody chose one. */
      proposal: chosen ? { ...usageIn(chosen), regions: holidayRegions(chosen), timeZones: zonesIn(chosen) } : null,
    };
  },
});

export const stillToSetUp = service({
  title: 'See which steps of setting up are still open',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context): Promise<FirstStep[]> => {
    const { has, firstRun } = await setUpNow(context.store.db, { programmeId: context.actor.programmeId });
    // Whoever locked a kit sheet has found the way.
    return has.kits ? [] : stepsNow(has, firstRun).flatMap(({ step, state }) => (state === 'open' ? [step] : []));
  },
});

const knownTimeZones = new Set([...Intl.supportedValuesOf('timeZone'), 'UTC']);

export const settleCountry = service({
  title: 'Say in which country the programme is: measures, money, dates and holidays follow',
  roles: ['coordinator'],
  input: z.object({
    version: z.coerce.number().int(),
    country: z.string().length(2, 'Choose a country.'),
    region: z.string().max(20).default(''),
    timeZone: z.string().refine((zone) => knownTimeZones.has(zone), 'Choose a time zone.'),
    currency: z
      .string()
      .trim()
      .toUpperCase()
      .regex(/^[A-Z]{3}$/, 'Three letters, such as EUR.'),
    measureSystem: z.enum(['us', 'metric']),
    holidays: z.coerce.boolean().default(false),
  }),
  run: async (context, { version, region, holidays, ...given }) => {
    if (!holidayCountries().some(({ code }) => code === given.country))
      throw new ServiceError('invalid', 'Nothing was saved yet.', [
        { where: 'country', message: 'No country is known by these letters.' },
      ]);
    const { safetyProfile, manner } = usageIn(given.country);
    const values = { ...given, safetyProfile, manner };
    await context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      if (!(await updateVersion(db, db.models.programme, programmeId, version, values))) throw stale('The programme');
      await logChange(context, db, 'changed', 'programme', programmeId, values);
    });
    return holidays ? (await bringPublicHolidays(context, { country: given.country, region })).closures : 0;
  },
});

export const leaveOutStep = service({
  title: 'Leave out a step of setting up, or take it up again',
  roles: ['coordinator'],
  input: z.object({ step: z.enum(FIRST_STEPS), leftOut: z.coerce.boolean() }),
  run: async (context, { step, leftOut }) => {
    const { db } = context.store;
    const { firstRun } = await firstRunOf(context);
    const others = (firstRun.skipped ?? []).filter((each) => each !== step);
    const skipped = leftOut ? [...others, step] : others;
    await update(db, db.models.programme, { id: context.actor.programmeId }, { firstRun: { ...firstRun, skipped } });
  },
});

export const trySample = service({
  title: 'Try the program with a sample course',
  roles: ['coordinator'],
  costly: true,
  input: z.object({}),
  run: async (context) => {
    const before = await firstRunOf(context);
    if (before.firstRun.sample) throw new ServiceError('stale', 'The sample is there already.');
    const sample = await makeSample(context, before.timeZone);
    const { db } = context.store;
    await update(db, db.models.programme, { id: before.id }, { firstRun: { ...before.firstRun, sample } });
    return sample.courses[0] ?? '';
  },
});

export const takeSampleAway = service({
  title: 'Take the sample away, with all that was done with it',
  roles: ['coordinator'],
  input: z.object({}),
  run: (context) =>
    context.store.transaction(async (db) => {
      const { firstRun, id } = await firstRunOf(context, db);
      const { sample, ...rest } = firstRun;
      if (!sample) throw new ServiceError('stale', 'There is no sample.');
      let kept = 0;
      await whileErasing(db, async () => {
        await removeWhole(db, 'course', sample.courses);
        // What somebody took into work of their own by now is theirs, and stays: a place, a dish, a family.
        for (const [table, ids] of [
          ['recipe', sample.recipes],
          ['household', sample.households],
          ['place', sample.places],
        ] as const) {
          const used = await usedElsewhere(db, table, ids);
          kept += used.size;
          await removeWhole(
            db,
            table,
            ids.filter((each) => !used.has(each)),
          );
        }
      });
      await update(db, db.models.programme, { id }, { firstRun: rest });
      await logChange(context, db, 'took away', 'sample', id, { kept });
      return kept;
    }),
});
