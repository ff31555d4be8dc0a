import type { Ingredient, MeasureFact, Reference, YieldFact } from './reference';

/** A food of the programme's own, with what it weighs. */
export interface OwnFood {
  readonly ingredient: Ingredient;
  readonly measures: readonly MeasureFact[];
  readonly yields: readonly YieldFact[];
}

/** A reference table with a programme's own foods added, and its own weighings in place of the typical figures. */
export function ownReference(
  typical: Reference,
  foods: readonly OwnFood[],
  weighings: readonly MeasureFact[],
): Reference {
  if (foods.length === 0 && weighings.length === 0) return typical;
  const same = (a: MeasureFact, b: MeasureFact) =>
    a.ingredient === b.ingredient && a.preparation === b.preparation && a.measure === b.measure;
  const measures = [...typical.measures, ...foods.flatMap((food) => food.measures)];
  return {
    ingredients: [...typical.ingredients, ...foods.map(({ ingredient }) => ingredient)],
    measures: [
      ...measures.map((row) => weighings.find((own) => same(own, row)) ?? row),
      ...weighings.filter((own) => !measures.some((row) => same(own, row))),
    ],
    yields: [...typical.yields, ...foods.flatMap((food) => food.yields)],
  };
}

/** No spoon, cup or piece of food weighs more than 3 kg. */
const HEAVIEST = 3000;
/** Beyond three times the known weight, or below a third of it, something else was on the scale. */
const FAR = 3;

/**
 * Why a weighing cannot be taken: undefined when it can.
 *
 * @param grams of one measure, as a decimal
 * @param before what was known of it; undefined when nothing was
 */
export function weighingDoubt(grams: string, before: string | undefined): string | undefined {
  const [now, known] = [Number(grams), Number(before)];
  if (!(now > 0 && now <= HEAVIEST)) return 'One measure weighs more than nothing and at most 3 kg: weigh again.';
  if (before === undefined || (now <= known * FAR && now >= known / FAR)) return undefined;
  return `${grams} g is far from the ${before} g known so far: weigh again, with the empty bowl taken off.`;
}
