import { FORGETFUL, type Memory } from '../../memory';
import { parseAmount, parsePositiveAmount } from '../../quantity/amount';
import type { Precision } from '../../quantity/measure';
import {
  AmountError,
  compare,
  multiply,
  ONE,
  type Rational,
  rational,
  subtract,
  toDecimal,
  toText,
  ZERO,
} from '../../quantity/rational';
import { readUnit, type Unit } from '../../quantity/units';
import { partOf, partPortion } from '../../reference/parts';
import {
  findIngredient,
  type Ingredient,
  pieceOf,
  type Reference,
  readIngredient,
  type UnitWeight,
  weightOf,
  type YieldFact,
  yieldOf,
} from '../../reference/reference';
import { type Holdings, holdingsOf, isAvoidanceCode, isLabelCode } from '../../safety/avoidances';
import { cutForSmall } from '../../safety/care';

/** How a line grows with the servings of a kit. */
export type Scaling = 'linear' | 'whole' | 'damped' | 'per batch' | 'per kit';

export const SCALINGS: readonly Scaling[] = ['linear', 'whole', 'damped', 'per batch', 'per kit'];
export const PRECISIONS: readonly Precision[] = ['tight', 'normal', 'loose'];

/** One ingredient of a recipe as it is written, stored and exchanged: amounts are text such as "1 1/2". */
export interface WrittenItem {
  readonly ingredient: string;
  readonly preparation?: string;
  readonly amount: string;
  readonly unit: string;
  readonly scaling?: Scaling;
  readonly damping?: string;
  readonly batch_servings?: number;
  readonly precision?: Precision;
  readonly sealed_grams?: string;
  readonly yield_preparation?: string;
  readonly spare?: string;
  readonly pack_grams?: string;
  /** Allergens on the recorded label of the product used; an empty list says the label names none. */
  readonly label?: readonly string[];
  /** Both ends of what was written as a range; `amount` is the one that kits use. */
  readonly range?: { readonly least: string; readonly most: string };
  /** Of a range: the most within it that needs no pack more than its least, so that packs come out whole. */
  readonly within?: true;
  /** It is the liquid of a can that another line of the recipe opens: poured off, not bought. */
  readonly reserved?: true;
  /** The line as it was written. */
  readonly written?: string;
}

/** Why something stands in for a line. */
export const SWAP_REASONS = ['allergy or diet', 'price', 'not available', 'at home already', 'less salt'] as const;
export type SwapReason = (typeof SWAP_REASONS)[number];

/** An item that takes a line's place, with what it brings along. */
export interface WrittenSwap extends WrittenItem {
  readonly reason?: SwapReason;
  /** Further items that it needs: more water for a flour that drinks it. */
  readonly also?: readonly WrittenItem[];
  /** How the steps differ with it. */
  readonly step?: string;
  /** Minutes that the cooking takes longer with it, or shorter when negative. */
  readonly minutes?: number;
}

/** What takes a line's place when it is blocked: another item, complete in itself, or nothing. */
export type WrittenAlternative = WrittenSwap | { readonly omit: true };

export interface WrittenLine extends WrittenItem {
  readonly alternatives?: readonly WrittenAlternative[];
  /** A flexible slot, "any of these": its alternatives fill it as well as the item that is written first. */
  readonly slot?: true;
}

export interface WrittenRecipe {
  readonly servings: number;
  readonly lines: readonly WrittenLine[];
}

/** One ingredient of a recipe, read and ready to be computed with. */
export interface Item {
  readonly ingredient: Ingredient;
  readonly preparation: string;
  readonly amount: Rational;
  readonly unit: Unit;
  readonly scaling: Scaling;
  readonly damping: Rational;
  readonly batchServings: number;
  readonly precision: Precision;
  /** Net grams of one sealed unit; undefined when poured from a pool. */
  readonly sealedGrams: Rational | undefined;
  readonly weight: UnitWeight;
  /** Edible part of the as-purchased weight; 1 where no preparation is given. */
  readonly yieldPortion: Rational;
  readonly yieldFrom: YieldFact | undefined;
  /** Bought beyond what is needed, as a part of it. */
  readonly spare: Rational;
  readonly packGrams: Rational | undefined;
  readonly holdings: Holdings;
  /** One whole piece of the food, where its weight is known. */
  readonly piece: { readonly unit: Unit; readonly weight: UnitWeight } | undefined;
  /** The part of its food that it uses, such as "juice"; undefined when it takes the whole. */
  readonly part: string | undefined;
  /** How much of one whole piece that part weighs, 0 to 1; undefined where the table weighs no such piece. */
  readonly partShare: Rational | undefined;
  /** Both ends, where buying chooses within them. */
  readonly within: { readonly least: Rational; readonly most: Rational } | undefined;
  /** For liquid poured off: what of a can's net weight is liquid. */
  readonly liquidPortion: Rational | undefined;
  /** What it brings along, and how cooking differs with it: only where it stands in for a line. */
  readonly also: readonly Item[];
  readonly step: string;
  readonly minutes: number;
}

export interface Line {
  readonly written: Item;
  /** In order of preference; null leaves the line out. */
  readonly alternatives: readonly (Item | null)[];
}

export interface Recipe {
  readonly servings: number;
  readonly lines: readonly Line[];
}

/** Something in a written recipe that cannot be used: where, and what to do. */
export interface RecipeProblem {
  /** Path in the written recipe: `lines[2].alternatives[0].unit`. */
  readonly path: string;
  readonly message: string;
}

/** Larger written amounts are slips: no kit recipe holds ten thousand of anything. */
const LARGEST_AMOUNT = rational(10_000);
const USUAL_DAMPING = rational(3, 4);

/** Grams in a millilitre of the liquid of a can: close to water. */
const LIQUID_DENSITY = ONE;

/**
 * Reads a written recipe against a reference table: every amount, unit, food, weight and yield, so that computing with
 * it cannot fail later.
 *
 * @param labels labels of the products in hand: they stand before what an item states
 * @param memory keeps what foods hold
 * @returns the recipe, or every problem found with its place
 */
export function readRecipe(
  written: WrittenRecipe,
  reference: Reference,
  labels: ReadonlyMap<string, readonly string[]> = new Map(),
  memory: Memory = FORGETFUL,
): { recipe: Recipe } | { problems: RecipeProblem[] } {
  const problems: RecipeProblem[] = [];
  const against = { reference, labels, memory };
  const lines = written.lines.map((line, index): Line | undefined => {
    const path = `lines[${index}]`;
    const item = readItem(line, path, against, problems);
    const alternatives = (line.alternatives ?? []).map((alternative, k) =>
      'omit' in alternative ? null : readSwap(alternative, `${path}.alternatives[${k}]`, against, problems),
    );
    return item && { written: item, alternatives: [...alternatives.map((a) => a ?? null), ...cutSmall(item)] };
  });
  if (problems.length > 0) return { problems };
  return { recipe: { servings: written.servings, lines: lines as Line[] } };
}

/** The lines that kits are made of: what comes from the tap is neither packed nor bought. */
export const packedLines = (lines: readonly WrittenLine[], reference: Reference): WrittenLine[] =>
  lines.filter(({ ingredient }) => findIngredient(reference, ingredient)?.aisle !== 'tap');

/** What is cut otherwise is no longer whole or diced, and must not be called so. */
const IN_PIECES = /\b(?:whole|chopped|diced|sliced|halved|cubed|chunks|sticks|batons|rounds|wedges)\b/;

/** The same food cut for small children, as the last that may stand in: only where that makes it safe. */
function cutSmall(item: Item): Item[] {
  const { ingredient, preparation, holdings } = item;
  const cut = cutForSmall(ingredient.name, preparation);
  if (!cut) return [];
  const without = (codes: ReadonlySet<string>) => new Set([...codes].filter((code) => code !== 'CHOKING'));
  return [
    {
      ...item,
      preparation: [...preparation.split(', ').filter((part) => part && !IN_PIECES.test(part)), cut].join(', '),
      holdings: { contains: without(holdings.contains), mayContain: without(holdings.mayContain) },
    },
  ];
}

/** What items are read against. */
interface Against {
  readonly reference: Reference;
  readonly labels: ReadonlyMap<string, readonly string[]>;
  readonly memory: Memory;
}

/** An item that stands in, with everything it brings along. */
function readSwap(written: WrittenSwap, path: string, against: Against, problems: RecipeProblem[]): Item | undefined {
  const item = readItem(written, path, against, problems);
  if (!written.also && !written.step && !written.minutes) return item;
  const also = (written.also ?? []).flatMap((each, k) => readItem(each, `${path}.also[${k}]`, against, problems) ?? []);
  return item && { ...item, also, step: written.step ?? '', minutes: written.minutes ?? 0 };
}

/** Where something is read, and the problems found so far. */
interface Place {
  readonly path: string;
  readonly problems: RecipeProblem[];
}

/** Runs one reading; a refusal becomes a problem at that field, and reading goes on to find the others. */
function read<T>({ path, problems }: Place, field: string, reading: () => T): T | undefined {
  try {
    return reading();
  } catch (error) {
    if (!(error instanceof AmountError)) throw error;
    problems.push({ path: `${path}.${field}`, message: error.message });
    return undefined;
  }
}

/** The same for what may be left out. */
const optional = <T>(
  at: Place,
  field: string,
  text: string | undefined,
  reading: (text: string) => T,
): T | undefined => (text === undefined ? undefined : read(at, field, () => reading(text)));

function readItem(written: WrittenItem, path: string, against: Against, problems: RecipeProblem[]): Item | undefined {
  const { reference, labels, memory } = against;
  const before = problems.length;
  const at: Place = { path, problems };
  const preparation = (written.preparation ?? '').trim();
  const ingredient = read(at, 'ingredient', () => readIngredient(reference, written.ingredient));
  const amount = read(at, 'amount', () => readBoundedAmount(written.amount));
  const unit = read(at, 'unit', () => readUnit(written.unit));
  const damping = optional(at, 'damping', written.damping, readPart) ?? USUAL_DAMPING;
  const spare = optional(at, 'spare', written.spare, readPart) ?? ZERO;
  const sealedGrams = optional(at, 'sealed_grams', written.sealed_grams, parsePositiveAmount);
  const packGrams = optional(at, 'pack_grams', written.pack_grams, parsePositiveAmount);
  if (written.scaling === 'per batch' && written.batch_servings === undefined) {
    problems.push({
      path: `${path}.batch_servings`,
      message: 'A line scaled per batch must say how many servings one batch makes.',
    });
  }
  for (const code of written.label ?? []) {
    if (!isAvoidanceCode(code) && !isLabelCode(code))
      problems.push({ path: `${path}.label`, message: `"${code}" is not an allergen code we know.` });
  }
  const weight =
    ingredient &&
    unit &&
    (written.reserved && unit.dimension === 'volume'
      ? { grams: multiply(unit.size, LIQUID_DENSITY) }
      : read(at, 'unit', () => weightOf(reference, ingredient.name, preparation, unit)));
  const within = written.within && written.range && readRange(written.range, at);
  const liquidPortion = written.reserved && ingredient ? liquidOf(reference, ingredient.name) : undefined;
  if (written.reserved && ingredient && !liquidPortion)
    problems.push({
      path: `${path}.ingredient`,
      message: `How much of ${ingredient.name} is liquid is not known: give it a yield “drained” in the reference table.`,
    });
  const part = ingredient && partOf(ingredient.name, preparation);
  const partShare = part ? partPortion(reference, ingredient.name, part) : undefined;
  const yields =
    ingredient &&
    optional(at, 'yield_preparation', written.yield_preparation, (text) =>
      partShare && text.trim() === part
        ? { portion: partShare, from: pieceYield(ingredient.name, part, partShare, 'from the weights of one piece') }
        : yieldOf(reference, ingredient.name, text.trim()),
    );
  if (problems.length > before || !ingredient || !amount || !unit || !weight) return undefined;
  return {
    ingredient,
    preparation,
    amount,
    unit,
    scaling: written.scaling ?? 'linear',
    damping,
    batchServings: written.batch_servings ?? 1,
    precision: written.precision ?? 'normal',
    sealedGrams,
    weight,
    yieldPortion: liquidPortion ?? yields?.portion ?? ONE,
    yieldFrom: liquidPortion
      ? pieceYield(ingredient.name, 'its liquid', liquidPortion, 'what is not left when it is drained')
      : yields?.from,
    spare,
    packGrams,
    // The pack in hand says more than any pack that somebody once had.
    holdings: holdingsOf(ingredient, labels.get(ingredient.name) ?? written.label, preparation, memory),
    part,
    partShare,
    piece: unit.dimension === 'count' ? { unit, weight } : pieceOf(reference, ingredient.name),
    within,
    liquidPortion,
    also: [],
    step: '',
    minutes: 0,
  };
}

/** A yield that no row of the table states: it follows from other rows. */
const pieceYield = (ingredient: string, preparation: string, portion: Rational, source: string): YieldFact => ({
  ingredient,
  preparation,
  ediblePortion: toDecimal(portion, 3),
  source,
});

/** Both ends of a range, least first; undefined when they cannot be read, which is then said. */
function readRange(
  { least, most }: { readonly least: string; readonly most: string },
  at: Place,
): { least: Rational; most: Rational } | undefined {
  const from = read(at, 'range', () => readBoundedAmount(least));
  const to = read(at, 'range', () => readBoundedAmount(most));
  return from && to && compare(from, to) <= 0 ? { least: from, most: to } : undefined;
}

/** The liquid in a can: what is not left when it is drained; undefined where the table does not say. */
function liquidOf(reference: Reference, ingredient: string): Rational | undefined {
  const drained = reference.yields.find((row) => row.ingredient === ingredient && row.preparation === 'drained');
  return drained && subtract(ONE, parseAmount(drained.ediblePortion));
}

function readBoundedAmount(text: string): Rational {
  const amount = parsePositiveAmount(text);
  if (compare(amount, LARGEST_AMOUNT) > 0) {
    throw new AmountError(`${toText(amount)} is more than ${toText(LARGEST_AMOUNT)}: check the amount and its unit.`);
  }
  return amount;
}

/** A part from 0 to 1, such as a spare of 1/20. */
function readPart(text: string): Rational {
  const part = parseAmount(text);
  if (compare(part, ONE) > 0) throw new AmountError(`${toText(part)} is more than 1: write a part such as 1/10.`);
  return part;
}
