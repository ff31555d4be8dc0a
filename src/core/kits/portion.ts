import { FORGETFUL, type Memory } from '../memory';
import { type Measured, measure, type Tools } from '../quantity/measure';
import {
  AmountError,
  add,
  ceil,
  compare,
  divide,
  max,
  multiply,
  ONE,
  type Rational,
  rational,
  subtract,
  toInteger,
  toText,
} from '../quantity/rational';
import type { Item } from '../recipes/recipe/recipe';

/** What one kit gets of one item. */
export interface Portion {
  /** The exact scaled amount, in the item's unit. */
  readonly exact: Rational;
  /** The scoops that measure it, in US teaspoons; only for pooled amounts by volume. */
  readonly scoops: readonly Rational[] | undefined;
  /** Whole sealed units; only for sealed items. */
  readonly sealedUnits: number | undefined;
  /** What the kit really holds: in the item's unit, or in grams when sealed. */
  readonly packed: Rational;
  /** Edible grams packed. */
  readonly grams: Rational;
  /** How much of what is packed the recipe asks for, in whole units: where it comes whole, and at least a third of it too much. */
  readonly used?: Rational;
}

/** Above this part of it, somebody who uses the whole unit does no harm. */
const NEARLY_ALL = rational(3, 4);

/** What the recipe asks for of so many whole units, where that must be said. */
export const usedOf = (asked: Rational, units: Rational): { readonly used?: Rational } =>
  compare(asked, multiply(units, NEARLY_ALL)) <= 0 ? { used: asked } : {};

/** Millilitres in one US teaspoon: tools are counted in it. */
const TEASPOON_ML = rational(492892159375n, 100000000000n);

/** A sealed unit may fall short of the exact amount by this much: 10/11 of it is enough. */
export const SEALED_ENOUGH = rational(10, 11);

/** More than this in one kit is not measured by hand: 5,000 cups, in US teaspoons. */
const LARGEST_MEASURED = rational(240_000);

/** Measures amounts in US teaspoons, remembering what it has measured. */
export type Measurer = (exact: Rational, precision: Item['precision']) => Measured;

/** Amounts that are remembered: kitchens say few different ones, and every session says them again. */
const MOST_REMEMBERED = 20_000;

/** A measurer over these tools; each amount is searched for once. @param memory keeps what was found for these tools */
export function measurerOf(tools: Tools, memory: Memory = FORGETFUL): Measurer {
  const known = memory.of('measured', tools, () => new Map<string, Measured>());
  return (exact, precision) => {
    const key = `${precision}${exact.n}/${exact.d}`;
    const found = known.get(key);
    if (found) return found;
    if (compare(exact, LARGEST_MEASURED) > 0) {
      throw new AmountError(
        'More than 5,000 cups in one kit cannot be measured by hand: check the amount, unit and servings.',
      );
    }
    const measured = measure(exact, precision, tools);
    if (known.size >= MOST_REMEMBERED) known.clear();
    known.set(key, measured);
    return measured;
  };
}

/**
 * Scales an item to the servings of a kit, exactly.
 *
 * - linear: a·f, where f = servings ÷ recipe servings
 * - whole: a·f, rounded up to whole pieces
 * - damped: a·f up to the written size, above it a·(1 + (f − 1)·damping)
 * - per batch: a × batches begun
 * - per kit: a
 */
export function scale(
  item: Pick<Item, 'amount' | 'scaling' | 'damping' | 'batchServings'>,
  recipeServings: number,
  servings: number,
): Rational {
  const factor = rational(servings, recipeServings);
  switch (item.scaling) {
    case 'linear':
      return multiply(item.amount, factor);
    case 'whole':
      return ceil(multiply(item.amount, factor));
    case 'damped':
      return compare(factor, ONE) <= 0
        ? multiply(item.amount, factor)
        : multiply(item.amount, add(ONE, multiply(subtract(factor, ONE), item.damping)));
    case 'per batch':
      return multiply(item.amount, rational(Math.ceil(servings / item.batchServings)));
    case 'per kit':
      return item.amount;
  }
}

/**
 * What a kit of `servings` gets of an item: scaled exactly, then measured with the tools, counted in sealed units, or
 * left as it is (weights and pieces).
 *
 * @param share only this part of it, where something else makes up the rest
 * @throws AmountError when the amount is beyond what can be measured or counted
 */
export function portionOf(
  item: Item,
  recipeServings: number,
  servings: number,
  measurer: Measurer,
  share: Rational = ONE,
): Portion {
  const exact = multiply(scale(item, recipeServings, servings), share);
  if (item.sealedGrams) {
    const enough = multiply(multiply(exact, item.weight.grams), SEALED_ENOUGH);
    const units = max(ONE, ceil(divide(enough, item.sealedGrams)));
    const grams = multiply(units, item.sealedGrams);
    const asked = divide(multiply(exact, item.weight.grams), item.sealedGrams);
    return { exact, scoops: undefined, sealedUnits: toInteger(units), packed: grams, grams, ...usedOf(asked, units) };
  }
  if (item.unit.dimension !== 'volume') {
    return {
      exact,
      scoops: undefined,
      sealedUnits: undefined,
      packed: exact,
      grams: multiply(exact, item.weight.grams),
      ...(item.scaling === 'whole'
        ? usedOf(multiply(multiply(item.amount, rational(servings, recipeServings)), share), exact)
        : {}),
    };
  }
  const perUnit = teaspoonsIn(item);
  const { scoops, total } = measurer(multiply(exact, perUnit), item.precision);
  const packed = divide(total, perUnit);
  return { exact, scoops, sealedUnits: undefined, packed, grams: multiply(packed, item.weight.grams) };
}

/** US teaspoons in one of the item's unit. */
export const teaspoonsIn = (item: Item): Rational => divide(item.unit.size, TEASPOON_ML);

/** How a scaling rule is said, with its figures. */
export function sayScaling(item: Item, recipeServings: number, servings: number): string {
  const factor = `${servings} ÷ ${recipeServings} servings`;
  switch (item.scaling) {
    case 'linear':
      return `× ${factor}`;
    case 'whole':
      return `× ${factor}, up to whole pieces`;
    case 'damped':
      return `× ${factor}; above the written size only ${toText(item.damping)} of the growth`;
    case 'per batch':
      return `× batches of ${item.batchServings} servings begun for ${servings}`;
    case 'per kit':
      return 'the same in every kit';
  }
}
