import type { DraftItem } from '../reading/draft';
import type { Item, WrittenLine } from '../recipe/recipe';

export const SLIP_KINDS = {
  amount: 'Amount far from usual',
  fraction: 'A whole number slipped before a fraction',
  range: 'A range that runs backwards',
  unit: 'A unit that cannot belong to the food',
  'not listed': 'Used in a step, but not listed',
  'not used': 'Listed, but never used',
  yield: 'Servings against weight',
  pan: 'More than the pan holds',
  temperature: 'A temperature that is none',
  time: 'A time that cannot be',
  fails: 'It cannot come out so',
  unsafe: 'A step that is not safe',
} as const;

export type SlipKind = keyof typeof SLIP_KINDS;

/** Something that looks like a slip: where, what, why, and what may have been meant. */
export interface Slip {
  readonly kind: SlipKind;
  /** Index of the line, or of the step; both left out where the recipe as a whole is meant. */
  readonly line?: number;
  readonly step?: number;
  readonly say: string;
  /** Why it is thought to be one: the threshold, and what it comes from. */
  readonly why: string;
  /** The line as it may have been meant. */
  readonly repair?: string;
  /** Stays the same while what it is about does: "it is right as it is" is remembered by it. */
  readonly key: string;
}

/** A recipe as it is checked: its lines as written and as understood. */
export interface CheckedRecipe {
  /** What it is called: a dish named after a food may hold more of it. */
  readonly title?: string;
  readonly servings: number | undefined;
  readonly lines: readonly CheckedLine[];
  readonly steps: readonly string[];
}

export interface CheckedLine {
  readonly text: string;
  readonly items: readonly Pick<DraftItem, 'line' | 'open' | 'food'>[];
}

/** One ingredient of a checked recipe with its edible weight. */
export interface Weighed {
  readonly at: number;
  readonly text: string;
  readonly written: WrittenLine;
  readonly item: Item;
  readonly grams: number;
}

/** A dish as its kind is told: what it is called, what is done, what is in it. */
export interface Dish {
  readonly title: string;
  readonly steps: string;
  readonly weighed: readonly Weighed[];
}
