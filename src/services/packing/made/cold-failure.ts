import { z } from 'zod';
import { handedNow, STILL_HERE } from '@/core/handout/handing';
import { leftKit } from '@/core/handout/not-fetched';
import { sayTenths } from '@/core/packing/made/batch';
import { afterColdFailure } from '@/core/packing/made/cold-failure';
import { packedNow } from '@/core/packing/progress';
import { addDays } from '@/core/plan/civil';
import { findIngredient } from '@/core/reference/reference';
import { handedSince } from '@/store/handout';
import { find } from '@/store/query';
import { loadSessionBundles } from '@/store/session-bundles';
import { appendMoves, lotsNow } from '../../buying/stock';
import { type Context, service, todayIn } from '../../gate/gate';
import { loadProgramme } from '../../sheet/load-programme';
import { readSnapshot } from '../../sheet/session-sheet';
import { saveTicks } from '../tick-writer';
import { tenthsIn } from './degrees';

/** Kits of the coming days may stand in a fridge. */
const KIT_DAYS = 2;

const failure = z.object({
  storage: z.enum(['fridge', 'freezer']),
  /** '' for all places. */
  placeId: z.uuid().or(z.literal('')).default(''),
  hours: z.preprocess(
    (sent) => (typeof sent === 'string' && sent.trim() === '' ? undefined : sent),
    z.coerce.number('For how many hours?').min(0, 'For how many hours?').max(240, 'At most ten days.'),
  ),
  /** What food in it reads now, as a thermometer of the programme shows it. */
  degrees: z.string().trim().min(1, 'What does a thermometer in it show?').max(8),
});
type Failure = z.output<typeof failure>;
/** Nothing is asked yet where hours or degrees are not said. */
const asked = failure.extend({
  storage: failure.shape.storage.default('fridge'),
  hours: failure.shape.hours.optional(),
  degrees: failure.shape.degrees.optional(),
});

/** Which lots and which kits a failed fridge or freezer touches, and what now. */
async function whatItTouches(context: Context, { storage, placeId, hours, degrees }: Failure) {
  const { db } = context.store;
  const { programme } = await loadProgramme(context);
  const { safetyProfile, reference, timeZone } = programme;
  const happened = { storage, hours, tenths: tenthsIn(degrees, safetyProfile) };
  // What has no place noted may stand there.
  const isThere = (at: string | null | undefined) => placeId === '' || !at || at === placeId;
  const lots = (await lotsNow(context, db, reference))
    .filter(({ now }) => now.storage === storage && isThere(now.placeId))
    .map(({ id, name, now, ingredient, origin }) => {
      const food = origin === 'made' ? undefined : findIngredient(reference, ingredient);
      const { packs, loose } = now;
      const stored = food && { ...food, isOpened: loose > 0 };
      return { id, name, packs, loose, grams: now.grams, ...afterColdFailure(safetyProfile, happened, stored) };
    });
  const today = todayIn(context, timeZone);
  const bundles =
    storage === 'fridge'
      ? await loadSessionBundles(db, context.actor.programmeId, { from: today, to: addDays(today, KIT_DAYS) })
      : [];
  const kits = [];
  for (const { session, sheet, events } of bundles) {
    if (!sheet || !isThere(session.placeId)) continue;
    const locked = readSnapshot(sheet);
    const now = handedNow(await handedSince(db, session.id, 0));
    const packed = packedNow(events);
    for (const kit of locked.kits) {
      if ((now.get(kit.id) ?? STILL_HERE).state !== 'here') continue;
      const cold = leftKit(locked.content, kit.variant).cold.filter(({ key }) => packed.get(kit.id)?.has(key));
      if (cold.length === 0) continue;
      kits.push({
        id: kit.id,
        number: kit.number,
        sessionId: session.id,
        session: session.title,
        cold: cold.map(({ key, name }) => ({ key, name })),
        ...afterColdFailure(safetyProfile, happened, undefined),
      });
    }
  }
  return { lots, kits, say: sayTenths(happened.tenths, safetyProfile) };
}

export const viewColdFailure = service({
  title: 'See what a failed fridge or freezer touches, and what becomes of it',
  roles: ['coordinator', 'crew'],
  input: asked,
  run: async (context, { hours, degrees, ...sent }) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const places = await find(db, db.models.place, { programmeId }, [['name', 'ASC']]);
    const found =
      hours === undefined || degrees === undefined
        ? undefined
        : await whatItTouches(context, { ...sent, hours, degrees });
    const { programme } = await loadProgramme(context);
    return { profile: programme.safetyProfile, places: places.map(({ id, name }) => ({ id, name })), found };
  },
});

export const clearAfterFailure = service({
  title: 'Throw away what a failed fridge or freezer spoilt, and pack the kits’ cold parts anew',
  roles: ['coordinator'],
  input: failure,
  run: async (context, sent) => {
    const { lots, kits } = await whatItTouches(context, sent);
    const spoilt = lots.filter(({ verdict }) => verdict === 'throw away');
    if (spoilt.length > 0)
      await context.store.transaction((db) =>
        appendMoves(
          context,
          db,
          spoilt.map(({ id, packs, loose }) => ({
            id: context.ids(),
            lotId: id,
            kind: 'thrown away' as const,
            packs,
            grams: loose,
            storage: null,
            placeId: null,
            reason: 'spoilt',
          })),
        ),
      );
    const out = kits.filter(({ verdict }) => verdict === 'throw away');
    for (const sessionId of new Set(out.map((kit) => kit.sessionId)))
      await saveTicks(
        context,
        sessionId,
        out
          .filter((kit) => kit.sessionId === sessionId)
          .flatMap(({ id, cold }) =>
            cold.map(({ key }) => ({ id: context.ids(), kitId: id, component: key, action: 'undone' as const })),
          ),
      );
    return { lots: spoilt.length, kits: out.length };
  },
});
