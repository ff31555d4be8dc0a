import { z } from 'zod';
import { needsOf } from '@/core/buying/needs';
import { worth } from '@/core/buying/nothing-lost';
import { lessTaken, type Take, takeOut } from '@/core/buying/take-out';
import { labelSaid, lotLabel } from '@/core/packing/label';
import { sayingFacts, sayingOf } from '@/core/plan/saying';
import { findIngredient } from '@/core/reference/reference';
import { avoidanceLabel } from '@/core/safety/avoidances';
import { find, findOne } from '@/store/query';
import { loadSessionBundles } from '@/store/session-bundles';
import type { Db } from '@/store/store';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service, todayIn } from '../gate/gate';
import { logLook } from '../gate/looks';
import { syncCallBacks } from '../sheet/call-backs';
import { loadProgramme } from '../sheet/load-programme';
import { avoidsIn, readSnapshot, sessionSheet } from '../sheet/session-sheet';
import { readFor, takenFor, writeFor } from '../sheet/taken';
import { pooled } from '../work/in-pool';
import { nameProducts } from './label-travels';

import { appendMoves, lotsNow, onShelf } from './stock';

/** What the shelves have for a session, what was taken, and what they lack. */
async function fromShelf(context: Context, db: Db, sessionId: string) {
  const { programme, meanings } = await loadProgramme(context, db);
  const [bundle] = await loadSessionBundles(db, context.actor.programmeId, { ids: [sessionId] });
  if (!bundle) throw notFound('session');
  const sheet = sessionSheet(bundle, programme, meanings);
  const { locked } = sheet;
  const today = todayIn(context, programme.timeZone);
  const lots = await lotsNow(context, db, programme.reference);
  const taken = await takenFor(context, db, [sessionId]);
  if (!locked) return { lots, taken, takes: [], lacking: [], revision: 0, isLocked: false };
  const { date, title } = bundle.session;
  const needs = needsOf(
    { id: sessionId, title, day: date, until: date, isLocked: true },
    locked.content,
    avoidsIn(sheet),
  );
  const open = lessTaken(needs, taken);
  const shared = takeOut(open, lots.map(onShelf), (name) => findIngredient(programme.reference, name), today);
  return { lots, taken, ...shared, revision: bundle.sheet?.revision ?? 0, isLocked: true };
}

export const viewFromShelf = service({
  title: 'See what the shelves have for a session',
  roles: ['coordinator', 'crew'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { db } = context.store;
    const { lots, taken, takes, lacking, isLocked } = await fromShelf(context, db, sessionId);
    const { programmeId } = context.actor;
    const ids = [...new Set([...taken, ...takes].map(({ lotId }) => lotId))];
    const all = await find(db, db.models.stockLot, { programmeId, id: ids });
    const named = (take: Take) => ({
      ...take,
      name: all.find(({ id }) => id === take.lotId)?.name ?? take.ingredient,
      last: lots.find(({ id }) => id === take.lotId)?.now.lastOpen ?? '',
    });
    /** What was taken is worth, as far as anybody wrote a price. */
    const known = taken.flatMap(({ lotId, packs, grams }) => {
      const lot = all.find(({ id }) => id === lotId);
      return lot && lot.price !== null ? [worth(packs * (lot.packGrams ?? 0) + grams, lot)] : [];
    });
    return {
      taken: taken.map(named),
      takes: takes.map(named),
      lacking,
      isLocked,
      worth: known.reduce((sum, each) => sum + each, 0),
      unpriced: taken.length - known.length,
    };
  },
});

export const takeForSession = service({
  title: 'Take off the shelves what a session’s kits are made of',
  roles: ['coordinator', 'crew'],
  input: z.object({ sessionId: z.uuid() }),
  run: (context, { sessionId }) =>
    context.store.transaction(async (db) => {
      const { lots, takes, lacking, revision, isLocked } = await fromShelf(context, db, sessionId);
      if (!isLocked) throw new ServiceError('invalid', 'Lock the kit sheet first: until then amounts may move.');
      if (takes.length > 0)
        await appendMoves(
          context,
          db,
          takes.map(({ lotId, packs, grams, letters }) => ({
            id: context.ids(),
            lotId,
            kind: 'used',
            packs,
            grams,
            storage: null,
            placeId: null,
            reason: writeFor(revision, letters),
            sessionId,
          })),
        );
      await nameProducts(
        context,
        db,
        takes.flatMap(({ lotId, ingredient }) => {
          const lot = lots.find(({ id }) => id === lotId);
          return lot ? [{ sessionId, ingredient, product: lot.name, label: lot.allergens, isAvoided: false }] : [];
        }),
      );
      await syncCallBacks(context, db, 'all');
      await logChange(context, db, 'took off the shelves', 'session', sessionId, { lots: takes.length });
      return { taken: takes.length, lacking: lacking.length };
    }),
});

export const viewLot = service({
  title: 'See where a lot went: its kits, families and dates',
  roles: ['coordinator'],
  input: z.object({ lotId: z.uuid() }),
  run: async (context, { lotId }) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const lot = await findOne(db, db.models.stockLot, { id: lotId, programmeId });
    if (!lot) throw notFound('lot');
    const moves = await find(db, db.models.stockMove, { programmeId, lotId }, [['seq', 'ASC']]);
    const atBenches = await find(db, db.models.benchLot, { lotId });
    const ids = [...new Set([...moves, ...atBenches].flatMap(({ sessionId }) => sessionId ?? []))];
    const bundles = await loadSessionBundles(db, programmeId, { ids });
    const sheets = await find(db, db.models.kitSheet, { sessionId: ids });
    const scanned = await find(db, db.models.benchLot, { sessionId: ids, ingredient: lot.ingredient }, [
      ['fromSeq', 'ASC'],
    ]);
    /** Kits that were filled while this lot was the one packed from; undefined where nobody scanned any. */
    const packedFrom = (id: string, sessionId: string): ReadonlySet<string> | undefined => {
      const own = scanned.filter((row) => row.sessionId === sessionId);
      const bundle = bundles.find(({ session }) => session.id === sessionId);
      if (own.length === 0 || !bundle?.sheet) return undefined;
      const locked = readSnapshot(bundle.sheet);
      const keys = new Set(
        locked.content.variants.flatMap(({ components }) =>
          (components ?? []).flatMap(({ key, ingredient }) => (ingredient === lot.ingredient ? [key] : [])),
        ),
      );
      return new Set(
        bundle.events.flatMap(({ action, component, kitId, seq }) => {
          if (action !== 'packed' || !keys.has(component)) return [];
          const from = own.findLast((row) => row.fromSeq < seq);
          // What was filled before the first scan may be of any.
          return from === undefined || from.lotId === id ? [kitId] : [];
        }),
      );
    };
    const sessions = bundles.map(({ session }) => {
      const kits = moves
        .filter(({ sessionId, kind }) => sessionId === session.id && kind === 'used')
        .flatMap(({ reason }) => {
          const { revision, letters } = readFor(reason);
          const sheet = sheets.find((row) => row.sessionId === session.id && row.revision === revision);
          return (sheet ? readSnapshot(sheet).kits : []).filter(({ variant }) => letters.includes(variant));
        });
      const scannedHere = atBenches.some(({ sessionId }) => sessionId === session.id);
      const newest = sheets.filter((row) => row.sessionId === session.id).sort((a, b) => b.revision - a.revision)[0];
      if (scannedHere && newest) kits.push(...readSnapshot(newest).kits);
      const atBench = packedFrom(lotId, session.id);
      return {
        id: session.id,
        title: `${session.courseTitle}: ${session.title}`,
        date: session.date,
        // Where the bench scanned what it packed from, it is known to the kit.
        kits: [
          ...new Map(
            kits
              .filter(({ id }) => atBench === undefined || atBench.has(id))
              .map(({ id, number, name, variant }) => [id, { number, name, variant }]),
          ).values(),
        ],
      };
    });
    await logLook(
      context,
      'kits of a lot',
      lotId,
      sessions.reduce((sum, { kits }) => sum + kits.length, 0),
    );
    return {
      name: lot.name,
      ingredient: lot.ingredient,
      lastDay: lot.lastDay,
      moves: moves.map(({ id, kind, packs, grams, day, reason, sessionId }) => ({
        id,
        kind,
        packs,
        grams,
        day,
        reason,
        sessionId,
      })),
      sessions,
    };
  },
});

export const printLotLabel = service({
  title: 'Print the label of something on a shelf',
  roles: ['coordinator', 'crew'],
  costly: true,
  input: z.object({ lotId: z.uuid(), paper: z.enum(['a4', 'letter'], 'Choose a4 or letter.').default('a4') }),
  run: async (context, { lotId, paper }) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const lot = await findOne(db, db.models.stockLot, { id: lotId, programmeId });
    if (!lot) throw notFound('lot');
    const say = sayingOf(sayingFacts((await loadProgramme(context)).programme));
    const label = lotLabel(lot, lot.storage, lot.allergens?.map(avoidanceLabel));
    return pooled('labelsPdf', { labels: [labelSaid(label, say)], paper });
  },
});
