import { z } from 'zod';
import { civilDate } from '@/contracts/plan';
import { DATE_KINDS, STORAGES } from '@/core/buying/stock';
import { readDegrees, sayTenths } from '@/core/packing/made/batch';
import { findIngredient } from '@/core/reference/reference';
import { holdTrip } from '@/store/buying';
import { findOne, update } from '@/store/query';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { service, todayIn } from '../gate/gate';
import { syncCallBacks } from '../sheet/call-backs';
import { loadProgramme } from '../sheet/load-programme';
import { type Came, nameProducts } from './label-travels';

import { putAway } from './stock';
import { append, COLD_LIMITS, loadTrip, shortOf, standing } from './trips';

const received = z.object({
  id: z.uuid(),
  lineId: z.uuid(),
  packs: z.coerce.number().int().min(0).max(10_000),
  refused: z.coerce.number().int().min(0).max(10_000),
  reasons: z.array(z.string().max(80)).max(8).default([]),
  lastDay: civilDate.or(z.literal('')),
  lastKind: z.enum(DATE_KINDS),
  storage: z.enum(STORAGES),
  /** As a thermometer of the programme shows it; '' where none was held in. */
  degrees: z.string().trim().max(12).default(''),
});

export const receiveTrip = service({
  title: 'Check in what a trip brought: accept it, or refuse it with the reason',
  roles: ['coordinator', 'crew'],
  input: z.object({
    tripId: z.uuid(),
    placeId: z.uuid().nullable().default(null),
    lines: z.array(received).min(1).max(300),
  }),
  run: (context, { tripId, placeId, lines: sent }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const held = await holdTrip(db, { programmeId, tripId });
      if (!held) throw notFound('trip');
      if (held.state === 'received') return { short: [] };
      const { programme } = await loadProgramme(context, db);
      const profile = programme.safetyProfile;
      const today = todayIn(context, programme.timeZone);
      const { lines, events } = await loadTrip(context, db, tripId);
      const now = standing(lines, events);
      const problems = sent.flatMap(
        ({ lineId, packs: whole, refused, lastDay, lastKind, reasons, degrees, storage }, at) => {
          const own = now.find(({ id }) => id === lineId);
          const where = (field: string, message: string) => [{ where: `lines[${at}].${field}`, message }];
          if (!own) return where('lineId', 'This line is not of this trip.');
          if (whole + refused !== own.now.packs)
            return where(
              'packs',
              `${own.now.name}: ${own.now.packs} were bought; accepted and refused make ${whole + refused}.`,
            );
          if (whole > 0 && lastDay === '') return where('lastDay', `${own.now.name}: write the day on its pack.`);
          if (whole > 0 && lastKind === 'use by' && lastDay < today)
            return where('lastDay', `${own.now.name}: its use-by is over. Refuse it.`);
          const limit = COLD_LIMITS[profile];
          const tenths = degrees ? readDegrees(degrees, profile) : undefined;
          if (degrees && tenths === undefined)
            return where('degrees', `Write what the thermometer shows, such as ${profile === 'us' ? '41' : '5'}.`);
          if (whole > 0 && tenths !== undefined && storage !== 'shelf' && tenths > limit)
            return where(
              'degrees',
              `${own.now.name}: ${sayTenths(tenths, profile)} is too warm, at most ${sayTenths(limit, profile)}. Refuse it.`,
            );
          if (refused > 0 && reasons.length === 0) return where('reasons', `${own.now.name}: say why it is refused.`);
          return [];
        },
      );
      const bought = now.filter(({ now: { packs: whole } }) => whole > 0);
      const unheard = bought.filter(({ id }) => !sent.some(({ lineId }) => lineId === id));
      if (unheard[0])
        problems.push({ where: 'lines', message: `${unheard[0].now.name} was bought and is not checked yet.` });
      if (problems.length > 0)
        throw new ServiceError('invalid', problems[0]?.message ?? 'Nothing was saved yet.', problems);
      const answers = sent.flatMap(
        ({ id, lineId, packs: whole, refused, reasons, lastDay, lastKind, storage, degrees }) => [
          ...(whole > 0
            ? [
                {
                  id,
                  lineId,
                  answer: {
                    kind: 'accepted' as const,
                    packs: whole,
                    lastDay,
                    lastKind,
                    storage,
                    ...(degrees ? { celsius: (readDegrees(degrees, profile) ?? 0) / 10 } : {}),
                  },
                },
              ]
            : []),
          ...(refused > 0
            ? [{ id: context.ids(), lineId, answer: { kind: 'refused' as const, packs: refused, reasons } }]
            : []),
        ],
      );
      await append(context, db, held, answers);
      const came: Came[] = [];
      for (const { lineId, packs: whole, lastDay, lastKind, storage } of sent) {
        const own = now.find(({ id }) => id === lineId);
        if (!own || whole === 0) continue;
        const { body } = own;
        const { name, packGrams, hand: instead, price: each } = own.now;
        const food = findIngredient(programme.reference, body.ingredient);
        const product = instead ? undefined : await findOne(db, db.models.product, { id: body.productId, programmeId });
        const label = instead ? instead.label : (product?.allergens ?? null);
        const isLoose = body.soldBy === 'weight' && !instead;
        await putAway(
          context,
          db,
          {
            id: lineId,
            ingredient: food?.name ?? body.ingredient,
            productId: product?.id ?? null,
            name,
            packGrams: isLoose ? null : Math.round(packGrams),
            packs: isLoose ? 0 : whole,
            grams: isLoose ? whole * packGrams : 0,
            placeId,
            storage,
            lastDay,
            lastKind,
            origin: 'bought',
            allergens: label,
            price: each,
            tripId,
          },
          today,
        );
        for (const { sessionId, eaters } of body.uses) {
          const isAvoided = eaters.some(({ without }) => without.length > 0);
          came.push({ sessionId, ingredient: body.ingredient, product: name, label, isAvoided });
        }
      }
      await nameProducts(context, db, came);
      await update(db, db.models.trip, { id: tripId }, { state: 'received' });
      await logChange(context, db, 'received', 'trip', tripId, { lines: sent.length });
      await syncCallBacks(context, db, 'all');
      const { lines: after, events: heard } = await loadTrip(context, db, tripId);
      return {
        short: after.flatMap((line) => {
          const grams = shortOf(line, heard);
          return grams > 0 ? [{ ingredient: line.body.ingredient, grams }] : [];
        }),
      };
    }),
});
