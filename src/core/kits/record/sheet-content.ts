import type { MeasureSystem } from '../../quantity/say';
import type { WrittenRecipe } from '../../recipes/recipe/recipe';
import type { Reference } from '../../reference/reference';
import type { ExtraKind, Extras } from '../sheet/extras';
import type { VersionPolicy } from '../sheet/fewest-variants';
import type { LineWay, Supply } from '../supply/supplied';

/** One dish of a session: a recipe as it was written when the sheet was made. */
export interface SheetDish {
  readonly id: string;
  readonly title: string;
  readonly recipe: WrittenRecipe;
  /** How its lines travel, where they are not measured into kits. */
  readonly ways?: readonly LineWay[];
}

/** Everything a kit sheet is computed from. Plain data. */
export interface SheetInput {
  readonly system: MeasureSystem;
  readonly dishes: readonly SheetDish[];
  /** Product labels recorded for this session: allergen codes by food. */
  readonly labels: Readonly<Record<string, readonly string[]>>;
  /** What the products are called whose labels these are, by food: this one, and no other, goes into the kits. */
  readonly products?: Readonly<Record<string, string>>;
  readonly reference: Reference;
  /** What is made beside the kits of the roll. */
  readonly extras?: Extras;
  /** Whether those who avoid different things share a version; each has their own when left out. */
  readonly versions?: VersionPolicy;
}

/** One person's kit. Its id and number stay the same from revision to revision. */
export interface SheetKit {
  readonly id: string;
  readonly number: number;
  readonly enrolmentId: string;
  readonly name: string;
  readonly variant: string;
  /** The group it goes to, where a session is given to several. */
  readonly group?: string;
}

export interface SheetComponent {
  /** Stays the same exactly while what is packed stays the same. */
  readonly key: string;
  /** Index of the row it belongs to. */
  readonly row: number;
  readonly option: number;
  readonly ingredient: string;
  /** "carrot, grated" */
  readonly name: string;
  /** How it comes: "grated". */
  readonly preparation?: string;
  /** As a cook says it: "1⅓ cups". */
  readonly say: string;
  readonly unit: string;
  readonly exact: string;
  readonly packed: string;
  /** Exact grams, and as they are shown. */
  readonly grams: string;
  readonly sayGrams: string;
  readonly sealedUnits?: number;
  /** It comes whole, and the recipe asks for less: "use a quarter of it". */
  readonly use?: string;
  /** Where it comes from when it is not bought by itself: "out of the canned chickpeas", "of the same lemon". */
  readonly from?: string;
  /** Nothing is packed for it: it is in the kit inside something else. */
  readonly isInside?: boolean;
  /** It stands at the station for all: bought, but not packed. */
  readonly isShared?: boolean;
  /** Others have had it with an earlier kit. */
  readonly isCatchUp?: boolean;
  /** The product whose label was read: what the kit is said to hold is true of no other. */
  readonly product?: string;
}

export interface SheetVariant {
  readonly key: string;
  readonly letter: string;
  readonly servings: number;
  /** Avoidance codes that made a difference, and the same in words. */
  readonly avoids: readonly string[];
  readonly madeWithout: readonly string[];
  /** Needs that have no meaning yet. Locked sheets are known by their fingerprint: the name they were first kept under stays. */
  readonly unknownWishes: readonly string[];
  readonly refusals: readonly {
    readonly row: number;
    readonly ingredient: string;
    readonly blockedBy: readonly string[];
  }[];
  /** Null when refused. */
  readonly components: readonly SheetComponent[] | null;
  readonly sayGrams: string;
  /** Allergens in words: what the kit contains, and what brands may add. */
  readonly contains: readonly string[];
  readonly mayContain: readonly string[];
  readonly participants: readonly SheetPerson[];
  /** How the steps differ with what stands in: "Let the dough rest (10 min longer)". */
  readonly steps?: readonly string[];
  /** What it is, when it is not for people of the roll; and in words, whom of the roll it is not for. */
  readonly extra?: ExtraKind;
  readonly notFor?: readonly string[];
  /** How it is filled, where not everything is measured into it. */
  readonly supply?: Supply;
}

/**
 * Why kits of a variant cannot be made yet, each reason in words; none where they can.
 *
 * @example
 * whyRefused({ refusals: [{ row: 0, ingredient: 'butter', blockedBy: ['milk'] }], unknownWishes: [] }) //=> ['butter: holds or may hold milk']
 */
export const whyRefused = ({ refusals, unknownWishes }: Pick<SheetVariant, 'refusals' | 'unknownWishes'>): string[] => [
  ...refusals.map(({ ingredient, blockedBy }) => `${ingredient}: holds or may hold ${blockedBy.join(', ')}`),
  ...unknownWishes.map((need) => `“${need}” has no meaning yet`),
];

/** Who a kit is for. */
export interface SheetPerson {
  readonly id: string;
  readonly name: string;
  readonly group?: string;
}

/** What stands over the rows of supplies for the whole course; their dish is the one after the last. */
export const COURSE_SUPPLIES = 'For the whole course';

/** One line of a dish, what an item of it brings along, or a supply of the course: a row of the sheet. */
export interface SheetRow {
  readonly dish: number;
  readonly line: number;
  /** Beside the line's own item: with which option it comes, and which of those that come with it. */
  readonly option?: number;
  readonly beside?: number;
  readonly ingredient: string;
  readonly name: string;
  readonly aisle: string;
}

export interface SheetTotal {
  readonly ingredient: string;
  readonly aisle: string;
  readonly edibleGrams: string;
  readonly sayEdible: string;
  readonly purchaseGrams?: string;
  readonly sayPurchase?: string;
  readonly packs?: number;
  readonly packGrams?: string;
  readonly sealedGrams?: string;
  /** Whole pieces to buy, with spare, where the food is counted. */
  readonly pieces?: number;
  readonly pieceUnit?: string;
}

/** A kit sheet as it crosses the wire, is locked, and is drawn: its inputs and its results, all plain. */
export interface SheetContent {
  readonly input: SheetInput;
  readonly rows: readonly SheetRow[];
  readonly variants: readonly SheetVariant[];
  readonly totals: readonly SheetTotal[];
  readonly refusedKits: number;
}
