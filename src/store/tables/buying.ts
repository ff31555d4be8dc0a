import type { BuyingSession, FoodNeed } from '@/core/buying/needs';
import type { Planned } from '@/core/buying/plan';
import type { BuyingWishes, SoldBy } from '@/core/buying/plan-case';
import type { DateKind, MoveKind, Origin, Storage } from '@/core/buying/stock';
import type { TripAnswer, TripLineBody } from '@/core/buying/trip';
import type { Weekday } from '@/core/plan/civil';
import { bytes, day, json, key, maybe, moment, notes, plain, type RowOf, ref, table, whole } from './table';

/** A shop, the days on which it is visited, and what going there costs. */
export const shop = table(
  'shop',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    name: notes(),
    /** Aisles in the order of a walk through it; those it does not name come last. */
    aisles: json<readonly string[]>(),
    weekdays: json<readonly Weekday[]>(),
    /** Minor units, the way and the time. */
    tripCost: whole(),
    version: whole(),
  },
);
export type ShopRow = RowOf<typeof shop>;

/** What a product cost in a shop once; append-only. The newest of a kind counts; without a price it is no longer had there. */
export const shelfPrice = table(
  'shelf_price',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    shopId: ref(),
    productId: ref(),
    soldBy: plain<SoldBy>(),
    price: maybe(whole()),
    /** An offer, from and to which day, and how many packs it asks for; both null for the usual price. */
    fromDay: maybe(day()),
    toDay: maybe(day()),
    least: whole(),
    source: plain<'typed' | 'file' | 'receipt'>(),
    at: moment(),
    actorId: ref(),
  },
);
export type ShelfPriceRow = RowOf<typeof shelfPrice>;

/** Something that came in together: one pack size, one day, one label. What there is of it is worked out of its movements. */
export const stockLot = table(
  'stock_lot',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    ingredient: plain(),
    productId: maybe(ref()),
    /** What it is called on the shelf. */
    name: notes(),
    packGrams: maybe(whole()),
    placeId: maybe(ref()),
    storage: plain<Storage>(),
    lastDay: day(),
    lastKind: plain<DateKind>(),
    origin: plain<Origin>(),
    /** Codes of its own label; null while nobody has read it. */
    allergens: maybe(json<readonly string[]>()),
    /** Minor units, of one pack; of a kilogram where it is loose. */
    price: maybe(whole()),
    tripId: maybe(ref()),
    at: moment(),
    actorId: ref(),
  },
);
export type StockLotRow = RowOf<typeof stockLot>;

/** One thing that happened to a lot; append-only, in an order of its lot. Its id is made by the screen that sends it. */
export const stockMove = table(
  'stock_move',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    lotId: ref(),
    seq: whole(),
    kind: plain<MoveKind>(),
    packs: whole(),
    grams: whole(),
    day: day(),
    storage: maybe(plain<Storage>()),
    placeId: maybe(ref()),
    /** Why it was thrown away; for which kits it was taken. */
    reason: plain(),
    sessionId: maybe(ref()),
    at: moment(),
    actorId: ref(),
  },
);
export type StockMoveRow = RowOf<typeof stockMove>;

/** Something that was offered and not taken. */
export const refusedGift = table(
  'refused_gift',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    name: notes(),
    reasons: json<readonly string[]>(),
    at: moment(),
    actorId: ref(),
  },
);
export type RefusedGiftRow = RowOf<typeof refusedGift>;

/** What is to be bought in a span, as it was worked out last. */
export const buyingPlan = table(
  'buying_plan',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    toDay: day(),
    wishes: json<BuyingWishes>(),
    sessions: json<readonly BuyingSession[]>(),
    needs: json<readonly FoodNeed[]>(),
    planned: json<Planned>(),
    at: moment(),
    actorId: ref(),
    version: whole(),
  },
);
export type BuyingPlanRow = RowOf<typeof buyingPlan>;

/** A visit to a shop that somebody makes. */
export const trip = table(
  'trip',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    shopId: ref(),
    day: day(),
    state: plain<'to do' | 'paid' | 'received'>(),
    /** Minor units. */
    paid: maybe(whole()),
    payer: notes(),
    /** The number of the last thing that happened on it. */
    seq: whole(),
    at: moment(),
    actorId: ref(),
  },
);
export type TripRow = RowOf<typeof trip>;

export const tripLine = table(
  'trip_line',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    tripId: ref(),
    productId: ref(),
    position: whole(),
    body: json<TripLineBody>(),
  },
);
export type TripLineRow = RowOf<typeof tripLine>;

/** What somebody said at the shelf or on receipt; append-only. Its id is made by the screen that sends it. */
export const tripEvent = table(
  'trip_event',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    tripId: ref(),
    lineId: ref(),
    seq: whole(),
    answer: json<TripAnswer>(),
    at: moment(),
    actorId: ref(),
  },
);
export type TripEventRow = RowOf<typeof tripEvent>;

/** A photograph of the receipt of a trip, one each: for the book-keeper. */
export const tripReceipt = table(
  'trip_receipt',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    tripId: ref(),
    kind: plain<'image/jpeg' | 'image/png' | 'image/webp'>(),
    picture: bytes(),
    at: moment(),
    actorId: ref(),
  },
);
export type TripReceiptRow = RowOf<typeof tripReceipt>;
