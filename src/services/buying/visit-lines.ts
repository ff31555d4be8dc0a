import type { Visit } from '@/core/buying/plan-case';
import { visitKey } from '@/core/buying/plan-case';
import { sayingFacts, sayingOf } from '@/core/plan/saying';
import { findIngredient } from '@/core/reference/reference';
import { pricesNow } from '@/store/buying';
import { find } from '@/store/query';
import type { Db } from '@/store/store';
import type { BuyingPlanRow } from '@/store/tables/buying';
import { notFound } from '../errors';
import { type Context, todayIn } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';

import { lotsNow } from './stock';
import { visitsBetween } from './world';

/** Lines of a planned trip, with what a phone must know of them. */
export async function linesOfVisit(
  context: Context,
  db: Db,
  plan: BuyingPlanRow,
  visit: Pick<Visit, 'shopId' | 'day'>,
) {
  const { programme } = await loadProgramme(context, db);
  const planned = plan.planned.trips.find((trip) => visitKey(trip) === visitKey(visit));
  if (!planned) throw notFound('trip');
  const { programmeId } = context.actor;
  const say = sayingOf(sayingFacts(programme));
  const products = await find(db, db.models.product, { programmeId });
  const shops = new Map((await find(db, db.models.shop, { programmeId })).map((shop) => [shop.id, shop]));
  const prices = await pricesNow(db, programmeId);
  const lots = await lotsNow(context, db, programme.reference);
  const taken = new Set(plan.planned.shelf.map(({ lotId }) => lotId));
  const today = todayIn(context, programme.timeZone);
  const holds = ({ fromDay, toDay, least }: (typeof prices)[number], day: string) =>
    (fromDay ?? '') <= day && day <= (toDay ?? '9999') && least === 1;
  const had = (ingredient: string) =>
    prices.flatMap((row) => {
      const product = products.find(({ id }) => id === row.productId);
      return product?.ingredient === ingredient && row.price !== null ? [{ ...row, product, price: row.price }] : [];
    });
  const titles = new Map(plan.sessions.map(({ id, title }) => [id, title]));
  const only = new Map(plan.planned.needs.flatMap(({ id, product }) => (product ? [[id, product] as const] : [])));
  return planned.lines.map((line) => {
    const food = findIngredient(programme.reference, line.ingredient);
    const pinned = line.uses.flatMap(({ needId }) => only.get(needId) ?? [])[0];
    return {
      ...line,
      contains: food?.contains ?? [],
      mayContain: food?.mayContain ?? [],
      ...(pinned ? { only: pinned } : {}),
      others: had(line.ingredient).flatMap((row) =>
        row.shopId === visit.shopId &&
        row.productId !== line.productId &&
        row.soldBy !== 'weight' &&
        holds(row, visit.day)
          ? [
              {
                name: row.product.name,
                packGrams: Number(row.product.packGrams),
                price: row.price,
                label: row.product.allergens,
              },
            ]
          : [],
      ),
      elsewhere: [
        ...lots
          .filter(
            ({ id, ingredient, now }) => ingredient === line.ingredient && !taken.has(id) && now.lastOpen >= today,
          )
          .map(({ name, now }) => `On a shelf: ${name}, ${now.grams} g, good until ${say.shortDate(now.lastOpen)}`),
        ...visitsBetween([...shops.values()], visit.day, line.uses[0]?.day ?? visit.day).flatMap((other) =>
          visitKey(other) === visitKey(visit)
            ? []
            : had(line.ingredient)
                .filter((row) => row.shopId === other.shopId && holds(row, other.day))
                .map(
                  (row) =>
                    `${shops.get(other.shopId)?.name}, ${say.shortDate(other.day)}: ${row.product.name} at ${say.money(row.price)}`,
                ),
        ),
      ].slice(0, 6),
      sessions: Object.fromEntries(line.uses.map(({ sessionId }) => [sessionId, titles.get(sessionId) ?? ''])),
    };
  });
}
