import { parseAmount } from '../quantity/amount';
import { AmountError, divide, multiply, type Rational } from '../quantity/rational';
import { findUnit, type Unit } from '../quantity/units';
import avoidanceFacts from './facts/avoidances.json';
import holdingFacts from './facts/holdings.json';
import ingredientFacts from './facts/ingredients.json';
import measureFacts from './facts/measures.json';
import yieldFacts from './facts/yields.json';
import { type FoodIndex, indexFoods } from './food-finder';

/** One food of the reference table. Allergen and diet codes are those of `facts/avoidances.json`. */
export interface Ingredient {
  readonly name: string;
  readonly aisle: string;
  /** Allergens it always contains. */
  readonly contains: readonly string[];
  /** Allergens that many brands add: unknown, and therefore blocking, until a label is recorded. */
  readonly mayContain: readonly string[];
  /** Diet codes that hold for it by nature, and those to be checked. No allergen label changes them. */
  readonly diet: readonly string[];
  readonly dietCheck: readonly string[];
  readonly plateGroup: string;
  readonly vegetableFamily: string;
  /** 'ambient', 'cold' or 'frozen' */
  readonly storage: string;
  /** Days it keeps as bought, and once cut or opened. */
  readonly daysWhole: number;
  readonly daysOpened: number;
  /** 'never', 'always', or what makes it perishable: 'when cut', 'when opened', 'when thawed', 'when cooked' */
  readonly perishable: string;
  readonly source: string;
  /** The last avoidances that it was looked at for, by their `since`; what came later is unknown of it. 1 where it says none. */
  readonly edition?: number;
  /** Added by the programme: what it holds was read from the one pack that it uses. */
  readonly isOwn?: true;
}

/** Edible grams in one measure of a food, prepared in a certain way. */
export interface MeasureFact {
  readonly ingredient: string;
  readonly preparation: string;
  /** A spoon, a cup or a piece, by its unit key. */
  readonly measure: string;
  /** Grams as an exact decimal. */
  readonly grams: string;
  readonly source: string;
}

/** The part of the as-purchased weight that can be eaten. */
export interface YieldFact {
  readonly ingredient: string;
  readonly preparation: string;
  /** 0 to 1 as an exact decimal. */
  readonly ediblePortion: string;
  readonly source: string;
}

/** The figures kits are computed from: plain data, so that a programme's own table or a snapshot can stand in. */
export interface Reference {
  readonly ingredients: readonly Ingredient[];
  readonly measures: readonly MeasureFact[];
  readonly yields: readonly YieldFact[];
  /** Names of foods that a programme answered once, by their words in one form. */
  readonly words?: Readonly<Record<string, string>>;
  /** Its rows by food, where somebody made them ready (see `indexed`): neither written down nor sent anywhere. */
  readonly index?: ReferenceIndex;
}

/**
 * Why foods hold something, may hold it by brand, or do not hold what some think they do: one reason for a group of foods.
 * What is not named here is not in a food.
 */
export interface HoldingFact {
  readonly codes: readonly string[];
  readonly state: 'contains' | 'may' | 'no';
  readonly why: string;
  /** "unsourced: …" where nobody could name one. */
  readonly source: string;
  readonly foods: readonly string[];
}

const HOLDINGS = holdingFacts as readonly HoldingFact[];

/** Allergens are read from labels; diets are not on every label. */
const IS_ALLERGEN = new Map(avoidanceFacts.map(({ code, kind }) => [code, kind === 'allergen']));

/** The reasons that concern one food of the typical table. */
export const holdingFactsOf = (ingredient: string): readonly HoldingFact[] =>
  HOLDINGS.filter(({ foods }) => foods.includes(ingredient));

/** The foods that ship, each with what it holds. */
function withHoldings(): Ingredient[] {
  const of = new Map(
    ingredientFacts.map(({ name }) => [
      name,
      { contains: [] as string[], mayContain: [] as string[], diet: [] as string[], dietCheck: [] as string[] },
    ]),
  );
  for (const { codes, state, foods } of HOLDINGS) {
    if (state === 'no') continue;
    for (const code of codes) {
      const sure = IS_ALLERGEN.get(code) ? 'contains' : 'diet';
      const perhaps = IS_ALLERGEN.get(code) ? 'mayContain' : 'dietCheck';
      for (const food of foods) of.get(food)?.[state === 'contains' ? sure : perhaps].push(code);
    }
  }
  return ingredientFacts.map((food) => ({ ...food, ...(of.get(food.name) as NonNullable<ReturnType<typeof of.get>>) }));
}

/** A table's rows by food: looked up thousands of times for one kit sheet. */
export interface ReferenceIndex {
  readonly foods: ReadonlyMap<string, Ingredient>;
  readonly measures: ReadonlyMap<string, readonly MeasureFact[]>;
  readonly yields: ReadonlyMap<string, readonly YieldFact[]>;
  /** Its foods by every name they have, ready to be found among words. */
  readonly names: FoodIndex;
  /** Weights looked up before, by food, preparation and unit; and whole pieces, by food. */
  readonly weights: Map<string, UnitWeight>;
  readonly pieces: Map<string, Piece | undefined>;
}

/**
 * A table made ready to be looked up; the very same where it is. Its index goes along with the object itself, and with nothing
 * that is made of it: what comes out of JSON, or from another thread, is made ready anew.
 *
 * @example
 * const table = indexed({ ingredients, measures, yields });
 * JSON.stringify(table) //=> without the index
 */
export function indexed(reference: Reference): Reference {
  if (reference.index) return reference;
  const { ingredients, measures, yields, words } = reference;
  const table: Reference = { ingredients, measures, yields, ...(words ? { words } : {}) };
  return Object.defineProperty(table, 'index', { value: makeIndex(table), enumerable: false });
}

const indexOf = (reference: Reference): ReferenceIndex => reference.index ?? makeIndex(reference);

function makeIndex(reference: Reference): ReferenceIndex {
  const byFood = <T extends { readonly ingredient: string }>(facts: readonly T[]) => {
    const own = new Map<string, T[]>();
    for (const row of facts) {
      const same = own.get(row.ingredient);
      if (same) same.push(row);
      else own.set(row.ingredient, [row]);
    }
    return own;
  };
  const foods = new Map<string, Ingredient>();
  for (const food of reference.ingredients) if (!foods.has(food.name)) foods.set(food.name, food);
  let names: FoodIndex | undefined;
  return {
    foods,
    measures: byFood(reference.measures),
    yields: byFood(reference.yields),
    get names() {
      names ??= indexFoods(reference);
      return names;
    },
    weights: new Map<string, UnitWeight>(),
    pieces: new Map<string, Piece | undefined>(),
  };
}

const YIELDS = yieldFacts as readonly (YieldFact & { readonly only?: 'us' | 'uk' })[];

/** The figures the product ships: typical ones, each with its source. */
export const TYPICAL: Reference = indexed({
  ingredients: withHoldings(),
  measures: measureFacts,
  yields: YIELDS.filter(({ only }) => only !== 'us'),
});

/** The same in the US, where cans are filled otherwise: of canned sweetcorn two thirds are left when it is drained. */
const TYPICAL_US: Reference = indexed({ ...TYPICAL, yields: YIELDS.filter(({ only }) => only !== 'uk') });

/**
 * The typical figures of a country's food.
 *
 * @example toText(yieldOf(typicalIn('us'), 'canned sweetcorn', 'drained').portion) //=> '67/100'
 */
export const typicalIn = (profile: 'us' | 'uk'): Reference => (profile === 'us' ? TYPICAL_US : TYPICAL);

/** The foods of a table by every name they have. */
export const foodNames = (reference: Reference): FoodIndex => indexOf(reference).names;

/**
 * The food with exactly this name (capitals aside), or undefined.
 *
 * @example
 * findIngredient(TYPICAL, 'Carrot')?.aisle //=> 'produce'
 * findIngredient(TYPICAL, 'moonroot') //=> undefined
 */
export const findIngredient = (reference: Reference, name: string): Ingredient | undefined =>
  indexOf(reference).foods.get(name.trim().toLowerCase());

/** What is known of the weight of a food, row by row. */
export const measuresOf = (reference: Reference, ingredient: string): readonly MeasureFact[] =>
  indexOf(reference).measures.get(ingredient) ?? [];

/**
 * The food with this name.
 *
 * @throws AmountError naming near matches
 * @example
 * readIngredient(TYPICAL, 'carrot').name //=> 'carrot'
 */
export function readIngredient(reference: Reference, name: string): Ingredient {
  const found = findIngredient(reference, name);
  if (found) return found;
  const near = nearIngredients(reference, name).slice(0, 3);
  throw new AmountError(
    `"${name.slice(0, 60)}" is not in the reference table.${near.length > 0 ? ` Did you mean ${near.map((n) => `"${n}"`).join(' or ')}?` : ' Use the name of a food that is.'}`,
  );
}

/** Names that share a word with what was written, most shared letters first. */
function nearIngredients(reference: Reference, name: string): string[] {
  const words = name
    .toLowerCase()
    .split(/[^\p{L}]+/u)
    .filter((word) => word.length > 2);
  const stem = (word: string) => word.replace(/(es|s)$/, '');
  const score = (candidate: string) =>
    words.reduce(
      (sum, word) => sum + (candidate.split(/[^a-z]+/).some((c) => stem(c) === stem(word)) ? word.length : 0),
      0,
    );
  return reference.ingredients
    .map((ingredient) => ({ name: ingredient.name, score: score(ingredient.name) }))
    .filter((entry) => entry.score > 0)
    .sort((a, b) => b.score - a.score || a.name.localeCompare(b.name))
    .map((entry) => entry.name);
}

/** Grams in one unit of a food, with the figure they come from. */
export interface UnitWeight {
  readonly grams: Rational;
  /** Said in the working: "1 cup weighs 110 g (source)". Undefined when the unit is a weight itself. */
  readonly from?: MeasureFact;
}

/**
 * Grams in one `unit` of a food prepared in a certain way: the row with that very measure, else the first spoon or cup
 * row, converted by volume. A unit of weight needs no row.
 *
 * @throws AmountError when no row fits, naming the preparations that have one
 * @example
 * toText(weightOf(TYPICAL, 'carrot', 'grated', readUnit('cup')).grams) //=> '110'
 */
export function weightOf(reference: Reference, ingredient: string, preparation: string, unit: Unit): UnitWeight {
  if (unit.dimension === 'mass') return { grams: unit.size };
  const { weights } = indexOf(reference);
  const key = `${ingredient}|${preparation}|${unit.key}`;
  const known = weights.get(key) ?? readWeight(reference, ingredient, preparation, unit);
  weights.set(key, known);
  return known;
}

function readWeight(reference: Reference, ingredient: string, preparation: string, unit: Unit): UnitWeight {
  const ofFood = measuresOf(reference, ingredient);
  const rows = ofFood.filter((row) => row.preparation === preparation);
  const very = rows.find((row) => row.measure === unit.key);
  if (very) return { grams: parseAmount(very.grams), from: very };
  if (unit.dimension === 'volume') {
    for (const row of rows) {
      const measure = findUnit(row.measure);
      if (measure?.dimension !== 'volume') continue;
      return { grams: divide(multiply(parseAmount(row.grams), unit.size), measure.size), from: row };
    }
  }
  const known = ofFood.map((row) => `${row.measure}${row.preparation ? ` ${row.preparation}` : ''}`);
  const described = preparation ? `${ingredient}, ${preparation}` : ingredient;
  throw new AmountError(
    `No weight is known for one ${unit.key} of ${described}. ${
      known.length > 0
        ? `Known are: ${known.join('; ')}. Use one of these, or give the amount in g.`
        : 'Give the amount in g.'
    }`,
  );
}

/** One whole piece of a food. */
export interface Piece {
  readonly unit: Unit;
  readonly weight: UnitWeight;
}

/** One whole piece of a food: its medium one, where the table tells sizes apart; undefined where it knows of none. */
export function pieceOf(reference: Reference, ingredient: string): Piece | undefined {
  const { pieces } = indexOf(reference);
  if (pieces.has(ingredient)) return pieces.get(ingredient);
  const known = measuresOf(reference, ingredient).flatMap((row) => {
    const unit = row.measure === 'each' ? findUnit(row.measure) : undefined;
    return unit ? [{ unit, weight: { grams: parseAmount(row.grams), from: row } }] : [];
  });
  const found = known.find(({ weight }) => /^$|medium/.test(weight.from.preparation)) ?? known[0];
  pieces.set(ingredient, found);
  return found;
}

/**
 * Edible portion of the as-purchased weight, 0 to 1.
 *
 * @throws AmountError when the preparation has no figure, naming those that have
 * @example
 * toText(yieldOf(TYPICAL, 'carrot', 'peeled and trimmed').portion) //=> '7/10'
 */
export function yieldOf(
  reference: Reference,
  ingredient: string,
  preparation: string,
): { portion: Rational; from: YieldFact } {
  const ofFood = indexOf(reference).yields.get(ingredient) ?? [];
  const row = ofFood.find((candidate) => candidate.preparation === preparation);
  if (row) return { portion: parseAmount(row.ediblePortion), from: row };
  throw new AmountError(
    `No yield is known for ${ingredient}, ${preparation}. ${
      ofFood.length > 0
        ? `Known are: ${ofFood.map((r) => r.preparation).join('; ')}.`
        : 'Leave the yield preparation out.'
    }`,
  );
}

/** The part of a table that concerns these foods: what a locked kit sheet keeps of it. */
export function excerpt(reference: Reference, names: ReadonlySet<string>): Reference {
  return indexed({
    ingredients: reference.ingredients.filter((row) => names.has(row.name)),
    measures: reference.measures.filter((row) => names.has(row.ingredient)),
    yields: reference.yields.filter((row) => names.has(row.ingredient)),
  });
}
