// The demo's shops, shelves and trips: through the same services as anyone's own.
import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { GIFT_CHECKS, TIN_CHECKS } from '@/contracts/shops';
import { lineNow } from '@/core/buying/trip';
import { makeBuyingPlan, viewBuyingPlan } from '@/services/buying/plan';
import { importPrices } from '@/services/buying/price-file';
import { receiveTrip } from '@/services/buying/receipt';
import { addShop, setPrice, viewPriceBook } from '@/services/buying/shops';
import { addLot, moveLot, takeGift } from '@/services/buying/stock';
import { answerTrip, makeTrip, payTrip, viewTrip } from '@/services/buying/trips';
import type { Context } from '@/services/gate/gate';
import { readLabel } from '@/services/recipes/products';

interface DemoLot {
  readonly ingredient: string;
  readonly name: string;
  readonly packs: number;
  readonly packGrams?: number;
  readonly grams?: number;
  readonly inDays: number;
}

export interface DemoBuying {
  readonly shops: readonly {
    readonly name: string;
    /** Days from today whose weekdays it is visited on. */
    readonly inDays: readonly number[];
    readonly tripCost: string;
    readonly aisles: readonly string[];
  }[];
  readonly offer: { readonly product: string; readonly shop: string; readonly price: string; readonly days: number };
  /** Products whose label somebody has read, with nothing on it that anybody asks about. */
  readonly read: readonly string[];
  readonly shelves: readonly (DemoLot & {
    readonly storage: string;
    readonly lastKind: string;
    readonly origin: string;
    readonly opened?: number;
    readonly used?: number;
  })[];
  readonly gifts: readonly (DemoLot & { readonly taken: boolean; readonly fails?: readonly string[] })[];
  readonly thrownAway: readonly { readonly name: string; readonly grams: number; readonly reason: string }[];
}

/** Days that the demo's plan looks ahead. */
const AHEAD = 21;

export async function loadBuying(
  context: Context,
  demo: DemoBuying,
  today: Temporal.PlainDate,
  folder: string,
): Promise<void> {
  const day = (inDays: number) => today.add({ days: inDays }).toString();
  const shops = new Map<string, string>();
  for (const { inDays, ...shop } of demo.shops)
    shops.set(
      shop.name,
      await addShop(context, { ...shop, weekdays: inDays.map((days) => today.add({ days }).dayOfWeek) }),
    );
  await importPrices(context, { bytes: new Uint8Array(readFileSync(path.join(folder, 'prices.csv'))) });
  const { products } = await viewPriceBook(context, {});
  for (const { id, name } of products)
    if (demo.read.includes(name)) await readLabel(context, { productId: id, allergens: [] });
  const { offer } = demo;
  await setPrice(context, {
    shopId: shops.get(offer.shop),
    productId: products.find(({ name }) => name === offer.product)?.id,
    price: offer.price,
    fromDay: day(0),
    toDay: day(offer.days),
  });
  const lots = new Map<string, string>();
  for (const { inDays, opened, used, ...lot } of demo.shelves) {
    const id = v7();
    lots.set(lot.name, id);
    await addLot(context, { ...lot, id, lastDay: day(inDays) });
    if (opened) await moveLot(context, { id: v7(), lotId: id, kind: 'opened', packs: opened });
    if (used) await moveLot(context, { id: v7(), lotId: id, kind: 'used', grams: used });
  }
  for (const { name, grams, reason } of demo.thrownAway)
    await moveLot(context, { id: v7(), lotId: lots.get(name), kind: 'thrown away', grams, reason });
  for (const { inDays, taken: _, fails = [], ...gift } of demo.gifts)
    await takeGift(context, {
      ...gift,
      id: v7(),
      storage: 'shelf',
      lastDay: day(inDays),
      lastKind: 'best before',
      origin: 'given',
      isTin: true,
      checks: [...GIFT_CHECKS, ...TIN_CHECKS].filter((check) => !fails.includes(check)),
      labelRead: true,
      allergens: [],
    });
  await loadTrips(context, day);
}

/** One trip that came home with something refused, and one that somebody is on. */
async function loadTrips(context: Context, day: (inDays: number) => string): Promise<void> {
  const go = async (part: number, days: number) => {
    await makeBuyingPlan(context, { toDay: day(days) });
    const { plan, trips } = await viewBuyingPlan(context, {});
    const visit = plan?.planned.trips.find(
      (each) => !trips.some(({ shopId, day: on }) => shopId === each.shopId && on === each.day),
    );
    if (!visit) return undefined;
    const tripId = await makeTrip(context, { shopId: visit.shopId, day: visit.day });
    const { lines } = await viewTrip(context, { tripId });
    const answers = lines.slice(0, Math.ceil(lines.length * part)).map(({ id: lineId, body }) => ({
      id: v7(),
      lineId,
      answer: { kind: 'taken' as const, packs: body.packs, price: body.price },
    }));
    await answerTrip(context, { tripId, answers });
    return tripId;
  };
  const first = await go(1, 3);
  if (!first) return;
  const { lines, events, keeping } = await viewTrip(context, { tripId: first });
  await payTrip(context, {
    tripId: first,
    paid: (lines.reduce((sum, { body }) => sum + body.cost, 0) / 100).toFixed(2),
    payer: 'Marit',
  });
  // Of what is kept cold, the first is too warm when it comes.
  const warm = lines.find(({ body }) => body.aisle === 'dairy' || body.aisle === 'meat') ?? lines[0];
  await receiveTrip(context, {
    tripId: first,
    lines: lines.map(({ id: lineId, body }) => {
      const { packs } = lineNow(
        body,
        events.flatMap((event) => (event.lineId === lineId ? [event.answer] : [])),
      );
      const isWarm = lineId === warm?.id;
      const { storage, days } = keeping[lineId] ?? { storage: 'shelf', days: 7 };
      const isCold = storage !== 'shelf';
      return {
        id: v7(),
        lineId,
        packs: isWarm ? 0 : packs,
        refused: isWarm ? packs : 0,
        reasons: isWarm ? ['warm'] : [],
        lastDay: isWarm ? '' : day(Math.min(days, 300)),
        lastKind: isCold ? 'use by' : 'best before',
        storage,
        degrees: isCold && !isWarm ? '39' : '',
      };
    }),
  });
  await go(0.4, AHEAD);
  await makeBuyingPlan(context, { toDay: day(AHEAD) });
}
