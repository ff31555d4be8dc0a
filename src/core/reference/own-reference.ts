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
