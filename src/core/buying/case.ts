// Buying for a whole course, said exactly: what is needed when, what the shops have, what is there. Whole numbers throughout:
// grams, days from 0, money in the smallest coin.

/** A day on which the shop is visited; its cost is paid once where anything is bought. */
export interface Trip {
  readonly day: number;
  readonly cost: number;
}

/** A pack that can be bought. */
export interface BuyingProduct {
  readonly id: string;
  readonly food: string;
  /** Grams in a pack. */
  readonly pack: number;
  readonly price: number;
  /** Days that it keeps unopened, and once opened; the second left out: as long as unopened. */
  readonly keeps: number;
  readonly opened?: number;
  /** Allergens of its label. */
  readonly holds?: readonly string[];
  /** It can be had only on these trips' days. */
  readonly days?: readonly number[];
  /** So many packs at most on one trip; and at least, where any are bought on it. */
  readonly most?: number;
  readonly least?: number;
  /** Days after which it can be used first: it ripens. */
  readonly ready?: number;
}

/** What is there already: loose, or in unopened packs. */
export interface StockLot {
  readonly id: string;
  readonly food: string;
  /** The last day on which it may be used. */
  readonly last: number;
  readonly holds?: readonly string[];
  /** Loose, in grams; or `count` packs of `pack` grams. */
  readonly grams?: number;
  readonly pack?: number;
  readonly count?: number;
  readonly opened?: number;
}

/** What is needed on a day: grams, or whole unopened packs of a size. */
export interface Need {
  readonly id: string;
  readonly food: string;
  readonly day: number;
  /** What is opened or handed over on that day must still be good on this one, when it is eaten; left out: the same day. */
  readonly until?: number;
  readonly grams?: number;
  readonly units?: number;
  /** Least and most grams of such a pack. */
  readonly pack?: readonly [least: number, most: number];
  /** Allergens that what serves it must not hold. */
  readonly without?: readonly string[];
}

export interface BuyingCase {
  /** Length of the plan. */
  readonly days: number;
  readonly trips?: readonly Trip[];
  readonly products?: readonly BuyingProduct[];
  readonly stock?: readonly StockLot[];
  readonly needs?: readonly Need[];
  /** Seconds that may be spent on it. */
  readonly seconds?: number;
}

/** What serves a need. */
export interface Use {
  readonly need: string;
  /** A product or a lot of the stock. */
  readonly from: string;
  /** The day on which it was bought; absent for stock. */
  readonly bought?: number;
  /** The day on which its pack was opened; absent for what is loose, and for whole packs. */
  readonly opened?: number;
  readonly grams?: number;
  readonly units?: number;
}

/** A plan, and which of its figures are proven the best. */
export interface BuyingPlan {
  readonly cost: number;
  readonly waste: number;
  readonly proven: { readonly cost: boolean; readonly waste: boolean };
  /** Of the first figure that is not proven: no plan comes to less. */
  readonly bound?: { readonly cost?: number; readonly waste?: number };
  readonly buy: readonly { readonly product: string; readonly day: number; readonly packs: number }[];
  readonly use: readonly Use[];
}

/** A need that cannot be met, and by how much. */
export interface Unmet {
  readonly need: string;
  readonly because: { readonly food: string; readonly day: number; readonly missing: number };
}

export type BuyingAnswer = BuyingPlan | { readonly unmet: readonly Unmet[] };

/** Whether something with this label may serve a need. */
export const suits = (holds: readonly string[] = [], { without = [] }: Need): boolean =>
  !without.some((code) => holds.includes(code));
