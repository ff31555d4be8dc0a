import { type Ingredient, indexed, type MeasureFact, type Reference, type YieldFact } from './reference';

/** A food of the programme's own, with what it weighs. */
export interface OwnFood {
  readonly ingredient: Ingredient;
  readonly measures: readonly MeasureFact[];
  readonly yields: readonly YieldFact[];
}

/** Days that a food keeps in a programme: null where the table's stand. */
export interface KeepingLimit {
  readonly ingredient: string;
  readonly daysWhole: number | null;
  readonly daysOpened: number | null;
}

/**
 * A reference table with a programme's own foods added, its own weighings and edible shares in place of the typical figures, and its own
 * keeping days where they are fewer: a limit is only ever made stricter.
 */
export function ownReference(
  typical: Reference,
  foods: readonly OwnFood[],
  weighings: readonly MeasureFact[],
  limits: readonly KeepingLimit[] = [],
  trimmed: readonly YieldFact[] = [],
  words: Readonly<Record<string, string>> = {},
): Reference {
  if ([foods, weighings, limits, trimmed, Object.keys(words)].every(({ length }) => length === 0)) return typical;
  const same = (a: MeasureFact, b: MeasureFact) =>
    a.ingredient === b.ingredient && a.preparation === b.preparation && a.measure === b.measure;
  const measures = [...typical.measures, ...foods.flatMap((food) => food.measures)];
  return indexed({
    ...(Object.keys(words).length > 0 ? { words } : {}),
    ingredients: [
      ...typical.ingredients,
      ...foods.map(({ ingredient }) => ({ ...ingredient, isOwn: true as const })),
    ].map((food) => {
      const limit = limits.find(({ ingredient }) => ingredient === food.name);
      if (!limit) return food;
      const fewer = (days: number, own: number | null) => (own === null ? days : Math.min(days, own));
      return {
        ...food,
        daysWhole: fewer(food.daysWhole, limit.daysWhole),
        daysOpened: fewer(food.daysOpened, limit.daysOpened),
      };
    }),
    measures: [
      ...measures.map((row) => weighings.find((own) => same(own, row)) ?? row),
      ...weighings.filter((own) => !measures.some((row) => same(own, row))),
    ],
    yields: [...typical.yields, ...foods.flatMap((food) => food.yields)].map(
      (row) => trimmed.find((own) => own.ingredient === row.ingredient && own.preparation === row.preparation) ?? row,
    ),
  });
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
 * @example
 * weighingDoubt('130', '120') //=> undefined
 * weighingDoubt('9000', '120') //=> 'One measure weighs more than nothing and at most 3 kg: weigh again.'
 */
export function weighingDoubt(grams: string, before: string | undefined): string | undefined {
  const [now, known] = [Number(grams), Number(before)];
  if (!(now > 0 && now <= HEAVIEST)) return 'One measure weighs more than nothing and at most 3 kg: weigh again.';
  if (before === undefined || (now <= known * FAR && now >= known / FAR)) return undefined;
  return `${grams} g is far from the ${before} g known so far: weigh again, with the empty bowl taken off.`;
}
