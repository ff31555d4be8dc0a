import { addDays } from '../plan/civil';

export const STORAGES = ['shelf', 'fridge', 'freezer'] as const;
export type Storage = (typeof STORAGES)[number];

export const ORIGINS = ['bought', 'given', 'left over', 'garden', 'made'] as const;
export type Origin = (typeof ORIGINS)[number];

/** After a use-by nothing is eaten; after a best-before it is looked at first. */
export const DATE_KINDS = ['use by', 'best before'] as const;
export type DateKind = (typeof DATE_KINDS)[number];

/** What can happen to a lot. */
export const MOVES = [
  'received',
  'counted',
  'opened',
  'used',
  'moved',
  'frozen',
  'thawed',
  'thrown away',
  'given away',
] as const;
export type MoveKind = (typeof MOVES)[number];

/** Why food is lost. */
export const LOSS_REASONS = [
  'past its day',
  'spoilt',
  'dropped or spilt',
  'left over, not kept',
  'refused on receipt',
] as const;

/** Something that came in together and goes off together: one pack size, one day, one label. */
export interface Lot {
  readonly id: string;
  readonly ingredient: string;
  /** Grams of one pack; null where it is loose. */
  readonly packGrams: number | null;
  /** The last day on its label, YYYY-MM-DD. */
  readonly lastDay: string;
  readonly storage: Storage;
  readonly placeId: string | null;
}

/** One thing that happened to a lot, in the order in which the server heard of it. */
export interface Move {
  readonly kind: MoveKind;
  /** Whole unopened packs, and grams out of opened ones or loose; of a count: what is there. */
  readonly packs: number;
  readonly grams: number;
  /** The civil day on which it happened. */
  readonly day: string;
  /** Where it went. */
  readonly storage?: Storage;
  readonly placeId?: string | null;
}

/** How long a food keeps, in days: as the table says, or fewer where the programme says so. */
export interface Keeping {
  readonly opened: number;
  /** Frozen at home: best within so many days. */
  readonly frozen: number;
  /** Thawed in a fridge. */
  readonly thawed: number;
}

/** What there is of a lot now. */
export interface Balance {
  readonly packs: number;
  /** Grams loose or in opened packs. */
  readonly loose: number;
  /** Last day of what is unopened, and of what is open. */
  readonly last: string;
  readonly lastOpen: string;
  readonly storage: Storage;
  readonly placeId: string | null;
  readonly grams: number;
}

/**
 * Days that food keeps frozen at 0 °F and, once thawed in a fridge, until it is used: typical, and short on purpose
 * (USDA FoodKeeper: 3 to 4 months for most, 1 to 2 days once thawed).
 */
export const FROZEN_DAYS = 90;
export const THAWED_DAYS = 1;

const earlier = (a: string, b: string): string => (a < b ? a : b);

/**
 * What is left of a lot after all that happened to it: worked out anew each time, kept nowhere.
 *
 * @param moves in the order of the server
 * @example
 * balanceOf(flour, [{ kind: 'received', packs: 2, grams: 0, day: '2026-11-20' }, { kind: 'used', packs: 0, grams: 300, day: '2026-11-21' }], keeping)
 * // of packs of 1000 g: { packs: 1, loose: 700, … }
 */
export function balanceOf(lot: Lot, moves: readonly Move[], keeping: Keeping): Balance {
  const pack = lot.packGrams ?? 0;
  let { storage, placeId, lastDay: last } = lot;
  let packs = 0;
  let loose = 0;
  let openUntil: string | undefined;
  const open = (count: number, day: string) => {
    packs -= count;
    loose += count * pack;
    const end = earlier(addDays(day, keeping.opened), last);
    openUntil = openUntil === undefined ? end : earlier(openUntil, end);
  };
  const take = (move: Move) => {
    packs -= move.packs;
    // Grams come out of what is open; where that is too little, a pack is opened for them.
    while (pack > 0 && loose < move.grams && packs > 0) open(1, move.day);
    loose -= move.grams;
  };
  for (const move of moves) {
    switch (move.kind) {
      case 'received':
        packs += move.packs;
        loose += move.grams;
        break;
      case 'counted':
        packs = move.packs;
        // More open than was known: something was opened that nobody noted, at the latest today.
        if (pack > 0 && move.grams > 0 && openUntil === undefined)
          openUntil = earlier(addDays(move.day, keeping.opened), last);
        loose = move.grams;
        break;
      case 'opened':
        open(move.packs, move.day);
        break;
      case 'used':
      case 'thrown away':
      case 'given away':
        take(move);
        break;
      case 'moved':
        storage = move.storage ?? storage;
        placeId = move.placeId === undefined ? placeId : move.placeId;
        break;
      case 'frozen':
        storage = 'freezer';
        last = addDays(move.day, keeping.frozen);
        if (openUntil !== undefined) openUntil = last;
        break;
      case 'thawed':
        storage = 'fridge';
        last = earlier(last, addDays(move.day, keeping.thawed));
        if (openUntil !== undefined) openUntil = earlier(openUntil, last);
        break;
    }
    if (loose === 0) openUntil = undefined;
  }
  return { packs, loose, last, lastOpen: openUntil ?? last, storage, placeId, grams: packs * pack + loose };
}

/** Why something cannot happen to a lot as it stands; undefined where it can. */
export function whyNot(lot: Lot, now: Balance, move: Move, lastKind: DateKind): string | undefined {
  const takes = move.kind === 'used' || move.kind === 'thrown away' || move.kind === 'given away';
  const past = move.day > now.last && lastKind === 'use by';
  if ((takes || move.kind === 'opened') && move.packs > now.packs)
    return `Only ${now.packs} unopened ${now.packs === 1 ? 'pack is' : 'packs are'} there. Count the shelf if there are more.`;
  if (takes && move.packs * (lot.packGrams ?? 0) + move.grams > now.grams)
    return `Only ${now.grams} g are there. Count the shelf if there is more.`;
  if (takes && move.packs === 0 && move.grams === 0) return 'Say how much: packs, grams, or both.';
  if (move.kind === 'opened' && (lot.packGrams === null || move.packs === 0)) return 'There is no pack of it to open.';
  if (past && (move.kind === 'used' || move.kind === 'given away' || move.kind === 'frozen'))
    return `Its use-by was ${now.last}: it can only be thrown away.`;
  if (move.kind === 'frozen' && now.storage === 'freezer') return 'It is frozen already.';
  if (move.kind === 'thawed' && now.storage !== 'freezer') return 'It is not in a freezer.';
  if (lot.packGrams === null && move.packs > 0) return 'It is loose: say grams.';
  return undefined;
}
