// Words that stand for two foods: which of them is meant, the amount tells, or it is asked.
import { multiply, toDecimal } from '../../quantity/rational';
import type { ReadAmount } from './amount-reader';
import type { Settled } from './line-food';
import type { WrittenUnit } from './unit-words';

/** Roots and leaves that are a spice too, by the spoon: which of them is meant, the one word does not say. */
export const SPICE_TOO: Readonly<Record<string, readonly string[]>> = {
  ginger: ['ground ginger', 'fresh ginger'],
  coriander: ['ground coriander', 'fresh coriander'],
};

/** The foods that the words may stand for, where the amount does not tell which; none where it does. */
export function eitherOf(
  words: string,
  unit: WrittenUnit | undefined,
  { amount, pack }: ReadAmount,
): readonly string[] {
  if (CHOPPED_TOMATOES.test(words) && unit?.unit?.dimension === 'mass' && amount && !pack) {
    const grams = Number(toDecimal(multiply(amount.most, unit.unit.size), 1));
    const cans = CANS_OF_TOMATOES.map((can) => grams / can);
    return cans.some((many) => many > 0.9 && Math.abs(many - Math.round(many)) < 0.04)
      ? []
      : ['tomato', 'canned chopped tomatoes'];
  }
  // A cube of fresh yeast raises what a sachet of dried does.
  if (/^yeast$/i.test(words) && unit?.unit?.dimension === 'mass' && amount)
    return Number(toDecimal(multiply(amount.most, unit.unit.size), 1)) > MOST_DRIED_YEAST
      ? ['fresh yeast', 'dried yeast']
      : [];
  return unit?.unit && /^(?:tsp|Tbsp|pinch|dash)$/.test(unit.key) ? (SPICE_TOO[words.toLowerCase()] ?? []) : [];
}

/** Grams of dried yeast that a recipe for one household takes at most. */
const MOST_DRIED_YEAST = 14;

/** By the piece or the cup they are chopped at home, by the weight of a can they come in one; by another weight nobody can tell. */
const CHOPPED_TOMATOES = /^(?:chopped|diced) tomato(?:e?s)?$/i;
const CANS_OF_TOMATOES = [400, 411];

export const isFreshlyChopped = (
  { words, ingredient, before, after }: Settled,
  { unit, pack, amount }: ReadAmount,
): boolean =>
  ingredient === 'canned chopped tomatoes' &&
  CHOPPED_TOMATOES.test(words) &&
  amount !== undefined &&
  !/drain|juice/i.test(after) &&
  !pack &&
  (unit === undefined || unit.unit?.dimension === 'volume' || /\b(?:ripe|firm|vine)\b/i.test(before));
