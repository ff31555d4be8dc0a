import { z } from 'zod';
import { leastOfKilogram, lossesBy, nothingLost, worth } from '@/core/buying/nothing-lost';
import { findIngredient } from '@/core/reference/reference';
import { pricesNow } from '@/store/buying';
import { find, findOne } from '@/store/query';
import { service, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';

import { pricesOfFoods } from './food-prices';
import { lotsNow } from './stock';

/** Aisles whose food is commonly frozen as it is: meat and fish, bread. */
const FREEZES = new Set(['meat', 'bakery']);

export const viewLost = service({
  title: 'See what must be used up, by what, and what was lost',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const { programme } = await loadProgramme(context);
    const today = todayIn(context, programme.timeZone);
    const plan = await findOne(db, db.models.buyingPlan, { programmeId });
    const lots = await lotsNow(context, db, programme.reference);
    const recipes = await find(db, db.models.recipe, { programmeId }, [['title', 'ASC']]);
    const all = await find(db, db.models.stockLot, { programmeId });
    const moves = await find(db, db.models.stockMove, { programmeId, kind: ['thrown away', 'received'] }, [
      ['seq', 'ASC'],
    ]);
    const prices = await pricesNow(db, programmeId);
    const products = await find(db, db.models.product, { programmeId });
    const byId = new Map(all.map((lot) => [lot.id, lot]));
    const unused = nothingLost(
      lots.map(({ id, name, ingredient, lastKind, now }) => ({
        lotId: id,
        name,
        ingredient,
        lastKind,
        grams: now.grams,
        loose: now.loose,
        lastOpen: now.lastOpen,
        last: now.last,
        storage: now.storage,
        freezes: FREEZES.has(findIngredient(programme.reference, ingredient)?.aisle ?? ''),
      })),
      plan?.planned.shelf ?? [],
      plan?.planned.needs ?? [],
      recipes.map(({ id, title, body }) => ({ id, title, foods: body.lines.map(({ ingredient }) => ingredient) })),
      today,
    );
    const losses = lossesBy(
      moves.flatMap(({ lotId, kind, packs, grams, day, reason }) => {
        const lot = byId.get(lotId);
        if (!lot || kind !== 'thrown away') return [];
        const lost = packs * (lot.packGrams ?? 0) + grams;
        return [{ month: day.slice(0, 7), reason, grams: lost, money: lot.price === null ? null : worth(lost, lot) }];
      }),
    );
    // What was given is worth what it saves: the least that the food costs anywhere.
    const kilograms = leastOfKilogram(pricesOfFoods(prices, products));
    const given = all
      .filter(({ origin }) => origin === 'given')
      .map(({ id, name, ingredient, packGrams, at }) => {
        const [first] = moves.filter(({ lotId }) => lotId === id);
        const grams = (first?.packs ?? 0) * (packGrams ?? 0) + (first?.grams ?? 0);
        const kilogram = kilograms.get(ingredient);
        return {
          id,
          name,
          grams,
          saves: kilogram === undefined ? null : Math.round((grams * kilogram) / 1000),
          at: at.toISOString(),
        };
      });
    return { today, unused, losses, given, sessions: plan?.sessions ?? [] };
  },
});
