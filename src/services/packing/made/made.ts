import { z } from 'zod';
import { endedBatch, newBatch, newTemperature } from '@/contracts/made';
import { batchStanding, keepsDays, limitsFor, type Reading, sayTenths } from '@/core/packing/made/batch';
import { addDays } from '@/core/plan/civil';
import { packedLines, readRecipe } from '@/core/recipes/recipe/recipe';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { aheadTasks } from '@/core/recipes/steps/ahead';
import { inBatches } from '@/core/recipes/steps/step-plan';
import { AVOIDANCES } from '@/core/safety/avoidances';
import { SimulatedInstruments } from '@/devices/instruments';
import { find, findOne, insert, update, updateVersion } from '@/store/query';
import type { SessionBundle } from '@/store/session-bundles';
import type { MadeBatchRow, TemperatureRow } from '@/store/tables/packing';
import { appendMoves, lotsNow, putAway } from '../../buying/stock';
import { notFound, ServiceError, stale } from '../../errors';
import { logChange } from '../../gate/change-log';
import { type Context, nowOf, ROLES, service, todayIn } from '../../gate/gate';
import { loadBundle } from '../../plan/sessions';
import { comingOf } from '../../sheet/coming';
import { loadProgramme, type Programme } from '../../sheet/load-programme';
import { stepsOf } from '../../sheet/steps-of';
import { tenthsIn } from './degrees';

/** Readings of a batch, in minutes after it was begun. */
const readingsOf = (batch: MadeBatchRow, rows: readonly TemperatureRow[]): Reading[] =>
  rows
    .filter(({ batchId }) => batchId === batch.id)
    .map(({ tenths, at }) => ({ tenths, minutes: (at.getTime() - batch.begunAt.getTime()) / 60_000 }));

/** How a batch stands now; what is over stands as it ended. */
export function standingNow(
  batch: MadeBatchRow,
  temperatures: readonly TemperatureRow[],
  profile: 'us' | 'uk',
  now: Date,
) {
  const minutes = ((batch.endedAt ?? now).getTime() - batch.begunAt.getTime()) / 60_000;
  return batchStanding(
    batch.kind,
    limitsFor(profile, batch.kind, batch.food),
    readingsOf(batch, temperatures),
    minutes,
    (tenths) => sayTenths(tenths, profile),
    { least: batch.least ?? 0, most: batch.most },
  );
}

/** Batches as a screen shows them. */
export function shownBatches(
  batches: readonly MadeBatchRow[],
  temperatures: readonly TemperatureRow[],
  profile: 'us' | 'uk',
  now: Date,
  nameOf: (actorId: string) => string,
) {
  return batches.map((batch) => {
    const { nextAt, ...standing } = standingNow(batch, temperatures, profile, now);
    return {
      id: batch.id,
      version: batch.version,
      sessionId: batch.sessionId,
      name: batch.name,
      kind: batch.kind,
      food: batch.food,
      begunAt: batch.begunAt.toISOString(),
      endedAt: batch.endedAt?.toISOString() ?? null,
      outcome: batch.outcome,
      note: batch.note,
      by: nameOf(batch.actorId),
      lookAt: nextAt === undefined ? null : new Date(batch.begunAt.getTime() + nextAt * 60_000).toISOString(),
      standing,
      readings: temperatures
        .filter(({ batchId }) => batchId === batch.id)
        .map(({ id, tenths, source, at, actorId }) => ({
          id,
          tenths,
          say: sayTenths(tenths, profile),
          source,
          at: at.toISOString(),
          by: nameOf(actorId),
        })),
    };
  });
}

/** Who of the programme is who, by id. */
export async function namesOfMembers(context: Context): Promise<(id: string) => string> {
  const { db } = context.store;
  const members = await find(db, db.models.member, { programmeId: context.actor.programmeId });
  const names = new Map(members.map(({ id, name }) => [id, name]));
  return (id) => names.get(id) ?? 'somebody';
}

export const viewMade = service({
  title: 'See what is made ahead for a session, and its temperatures',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { db } = context.store;
    const bundle = await loadBundle(context, sessionId);
    const { programme } = await loadProgramme(context);
    const servings = Math.max(
      1,
      comingOf(bundle).reduce((sum, row) => sum + row.servings, 0),
    );
    const batches = await find(db, db.models.madeBatch, { sessionId }, [['begunAt', 'ASC']]);
    const temperatures = await find(db, db.models.temperature, { sessionId }, [['at', 'ASC']]);
    const { title, courseTitle, date, startsAt, place } = bundle.session;
    const lots = await lotsNow(context, db, programme.reference);
    const mine = new Set(batches.map(({ lotId }) => lotId));
    const titles = bundle.dishes.map((dish) => dish.title.toLowerCase());
    return {
      /** What was made and is kept, for this session or of one of its dishes. */
      kept: lots
        .filter(
          ({ id, origin, ingredient }) =>
            origin === 'made' && (mine.has(id) || titles.some((dish) => ingredient.toLowerCase().includes(dish))),
        )
        .map(({ id, name, now, lastDay }) => ({ id, name, grams: now.grams, storage: now.storage, lastDay })),
      session: { id: sessionId, title, courseTitle, date, startsAt, place },
      timeZone: programme.timeZone,
      profile: programme.safetyProfile,
      now: nowOf(context).toISOString(),
      batches: shownBatches(
        batches,
        temperatures,
        programme.safetyProfile,
        nowOf(context),
        await namesOfMembers(context),
      ),
      /** What its dishes ask for, by their steps; and what is finished before class. */
      toMake: bundle.dishes.flatMap((dish) => {
        const steps = stepsOf(dish, programme.reference);
        const tasks = aheadTasks(inBatches(steps, servings)).map((task, at) => {
          const step = steps.filter(({ ahead }) => ahead)[at];
          const batches = step?.batchServings ? Math.ceil(servings / step.batchServings) : 1;
          return { dish: dish.title, ...task, batches };
        });
        const swapIn =
          dish.swapIn > 0
            ? [
                {
                  dish: dish.title,
                  kind: 'cook' as const,
                  text: `Finish ${dish.swapIn} servings before class, cool them, and heat them through for class.`,
                  hands: 0,
                  alone: 0,
                  most: null,
                  batches: 1,
                },
              ]
            : [];
        return [...tasks, ...swapIn];
      }),
    };
  },
});

export const beginBatch = service({
  title: 'Begin to watch something that was made: it cools, is kept, is heated again, or stands',
  roles: ROLES,
  input: newBatch,
  run: (context, { sessionId, id, least, most, ...sent }) =>
    context.store.transaction(async (db) => {
      await loadBundle(context, sessionId, db);
      if (await findOne(db, db.models.madeBatch, { id })) return;
      if (sent.kind === 'stand' && least !== null && most !== null && least > most)
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: 'most', message: 'It would be out before it is ready.' },
        ]);
      const row = { id, sessionId, ...sent, least, most, begunAt: nowOf(context), endedAt: null, outcome: '' as const };
      await insert(db, db.models.madeBatch, [{ ...row, note: '', lotId: null, actorId: context.actor.id, version: 1 }]);
      await logChange(context, db, 'began to watch', 'session', sessionId, { name: sent.name, kind: sent.kind });
    }),
});

export const takeTemperature = service({
  title: 'Note a temperature of something that was made',
  roles: ROLES,
  input: newTemperature,
  run: (context, { sessionId, batchId, id, degrees }) =>
    context.store.transaction(async (db) => {
      await loadBundle(context, sessionId, db);
      const batch = await findOne(db, db.models.madeBatch, { id: batchId, sessionId });
      if (!batch) throw notFound('batch');
      if (await findOne(db, db.models.temperature, { id })) return;
      if (batch.endedAt) throw new ServiceError('stale', 'This is over already: nothing more is noted of it.');
      const { programme } = await loadProgramme(context, db);
      const onProbe =
        degrees === '' ? await new SimulatedInstruments(context.store).celsius(context.actor.programmeId) : undefined;
      if (degrees === '' && !onProbe)
        throw new ServiceError('invalid', 'The probe is off: switch it on, or type what a thermometer shows.', [
          { where: 'degrees', message: 'The probe is off.' },
        ]);
      const tenths = onProbe ? Math.round(onProbe.value * 10) : tenthsIn(degrees, programme.safetyProfile);
      const source = onProbe ? ('probe' as const) : ('typed' as const);
      const row = { id, sessionId, batchId, tenths, source, at: nowOf(context), actorId: context.actor.id };
      await insert(db, db.models.temperature, [row]);
    }),
});

export const endBatch = service({
  title: 'Say what became of something that was made: kept, served, thrown away',
  roles: ROLES,
  input: endedBatch,
  run: (context, { sessionId, batchId, version, outcome, storage, note }) =>
    context.store.transaction(async (db) => {
      await loadBundle(context, sessionId, db);
      const { programme } = await loadProgramme(context, db);
      const batch = await findOne(db, db.models.madeBatch, { id: batchId, sessionId });
      if (!batch) throw notFound('batch');
      if (batch.endedAt) return;
      const temperatures = await find(db, db.models.temperature, { batchId }, [['at', 'ASC']]);
      const now = nowOf(context);
      const { state, say } = standingNow(batch, temperatures, programme.safetyProfile, now);
      if ((outcome === 'kept' || outcome === 'served') && state === 'throw away')
        throw new ServiceError('invalid', say);
      if (
        (outcome === 'kept' || outcome === 'served') &&
        (batch.kind === 'cool' || batch.kind === 'reheat') &&
        state !== 'reached'
      )
        throw new ServiceError(
          'invalid',
          `It was not seen ${batch.kind === 'cool' ? 'cold' : 'hot'} enough yet: take its temperature first. ${say}`,
        );
      if (outcome === 'cooled anew' && (batch.kind !== 'cool' || state !== 'put right' || batch.note === ANEW))
        throw new ServiceError('invalid', `Only what missed its first limit, once, is heated and cooled anew. ${say}`);
      if (!(await updateVersion(db, db.models.madeBatch, batchId, version, { endedAt: now, outcome, note })))
        throw stale(batch.name);
      if (outcome === 'kept' && batch.kind === 'cool') {
        const today = todayIn(context, programme.timeZone);
        const lotId = context.ids();
        const lastDay = addDays(today, storage === 'freezer' ? 90 : keepsDays(batch.food));
        const lot = {
          id: lotId,
          ingredient: batch.name,
          productId: null,
          name: `${batch.name}, made ${today}`,
          packGrams: null,
          placeId: null,
          storage,
          lastDay,
          lastKind: 'use by' as const,
          origin: 'made' as const,
          allergens: holdsOf(await loadBundle(context, sessionId, db), batch.name, programme),
          price: null,
          tripId: null,
        };
        await putAway(context, db, { ...lot, packs: 0, grams: batch.grams ?? 1000 }, today);
        await update(db, db.models.madeBatch, { id: batchId }, { lotId });
      }
      if (outcome === 'cooled anew') {
        const again = { ...batch, id: context.ids(), name: batch.name, begunAt: now, version: 1, lotId: null };
        // Once only: what misses its limit a second time is not given a third chance.
        const anew = { ...again, note: ANEW, actorId: context.actor.id };
        await insert(db, db.models.madeBatch, [anew]);
      }
      await logChange(context, db, outcome, 'session', sessionId, { name: batch.name });
    }),
});

/** Every allergen that the dish a batch is of holds or may hold; null where it is of none, and somebody has to say. */
function holdsOf({ dishes }: SessionBundle, name: string, { reference, labels }: Programme): string[] | null {
  const dish = dishes.find(({ title }) => name.toLowerCase().includes(title.toLowerCase()));
  if (!dish) return null;
  const lines = packedLines(wholeRecipe(dish.body).lines, reference);
  const known = new Map([...labels].map(([food, { allergens }]) => [food, allergens]));
  const reading = readRecipe({ servings: 1, lines }, reference, known);
  if ('problems' in reading) return null;
  const items = reading.recipe.lines.flatMap(({ written, alternatives }) => [written, ...alternatives]);
  const codes = items.flatMap((item) =>
    item ? [item, ...item.also].flatMap(({ holdings }) => [...holdings.contains, ...holdings.mayContain]) : [],
  );
  const allergens = new Set(AVOIDANCES.filter(({ kind }) => kind === 'allergen').map(({ code }) => code));
  return [...new Set(codes)].filter((code) => allergens.has(code)).sort();
}

export const serveMade = service({
  title: 'Serve or pack what was made ahead and kept',
  roles: ROLES,
  input: z.object({
    sessionId: z.uuid(),
    id: z.uuid(),
    lotId: z.uuid(),
    grams: z.coerce.number('Write grams.').int().min(1),
  }),
  run: (context, { sessionId, id, lotId, grams }) =>
    context.store.transaction(async (db) => {
      await loadBundle(context, sessionId, db);
      const move = { id, lotId, kind: 'used' as const, packs: 0, grams, storage: null, placeId: null, reason: '' };
      await appendMoves(context, db, [{ ...move, sessionId }]);
    }),
});

/** Stands at a batch that was heated through and cools for the second time. */
const ANEW = 'heated through, cooled anew';
