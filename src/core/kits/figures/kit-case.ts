import { US_TOOLS } from '../../quantity/measure';
import { type Rational, toDecimal, toText } from '../../quantity/rational';
import { choose } from '../../recipes/recipe/choice';
import { type RecipeProblem, readRecipe, type WrittenRecipe } from '../../recipes/recipe/recipe';
import type { Reference } from '../../reference/reference';
import { isAvoidanceCode } from '../../safety/avoidances';
import type { Component } from '../component';
import { measurerOf } from '../portion';
import { totalsOf } from '../purchase/totals';
import { kitCalculator } from '../sheet/contents';
import { componentWorking, totalWorking, type Working } from './working';

/** A recipe and kits to be made of it: what the stateless calculation takes. */
export interface KitCase {
  readonly recipe: WrittenRecipe;
  readonly kits: readonly { readonly count: number; readonly servings: number; readonly avoids?: readonly string[] }[];
}

export interface CaseComponent {
  readonly ingredient: string;
  readonly exact: string;
  readonly unit: string;
  readonly scoops_tsp?: readonly string[];
  readonly packed?: string;
  readonly sealed_units?: number;
  readonly grams: number;
  readonly working?: Working;
}

export interface CaseVariant {
  readonly servings: number;
  readonly count: number;
  readonly avoids?: readonly string[];
  readonly components?: readonly CaseComponent[];
  /** Present instead of components when the kit cannot be made: each written line that blocks it, and what blocks. */
  readonly refused?: readonly {
    readonly line: number;
    readonly ingredient: string;
    readonly blocked_by: readonly string[];
  }[];
}

export interface CaseTotal {
  readonly edible_grams: number;
  readonly purchase_grams?: number;
  readonly packs?: number;
  readonly working?: Working;
}

export interface CaseResult {
  readonly variants: readonly CaseVariant[];
  readonly totals: Readonly<Record<string, CaseTotal>>;
}

/** Grams as shown: rounded to 0.001 g, half to even. */
const grams = (amount: Rational): number => Number(toDecimal(amount, 3));

/**
 * Computes a case: each kind of kit with its components, and the totals.
 *
 * @param withWorking also give the working of each number
 * @returns the result, or every problem with its path in the case
 * @throws AmountError when an amount is beyond what can be measured or counted
 */
export function computeCase(
  input: KitCase,
  reference: Reference,
  withWorking = false,
): { result: CaseResult } | { problems: RecipeProblem[] } {
  const reading = readRecipe(input.recipe, reference);
  const problems: RecipeProblem[] =
    'problems' in reading ? reading.problems.map((p) => ({ ...p, path: `recipe.${p.path}` })) : [];
  input.kits.forEach((kit, k) => {
    kit.avoids?.forEach((code, a) => {
      if (isAvoidanceCode(code)) return;
      problems.push({
        path: `kits[${k}].avoids[${a}]`,
        message: `"${code}" is not an avoidance we know: use an allergen code such as MILK.`,
      });
    });
  });
  if ('problems' in reading || problems.length > 0) return { problems };

  const dishes = [reading.recipe];
  const calculator = kitCalculator(dishes, measurerOf(US_TOOLS));
  const made: { name: string; count: number; components: readonly Component[] }[] = [];
  const variants = input.kits.map((kit, index): CaseVariant => {
    const avoids = kit.avoids ?? [];
    const contents = calculator.contents(kit.servings, avoids, choose(dishes, avoids));
    const head = { servings: kit.servings, count: kit.count, ...(kit.avoids ? { avoids: kit.avoids } : {}) };
    if (contents.refusals) {
      return {
        ...head,
        refused: contents.refusals.map(({ line, ingredient, blockedBy }) => ({
          line,
          ingredient,
          blocked_by: blockedBy,
        })),
      };
    }
    made.push({ name: `kits[${index}]`, count: kit.count, components: contents.components });
    return {
      ...head,
      components: contents.components.map((component) => {
        const replaced = component.option > 0 ? avoids : undefined;
        const working = withWorking
          ? { working: componentWorking(component, input.recipe.servings, kit.servings, 'us', replaced) }
          : {};
        return { ...caseComponent(component), ...working };
      }),
    };
  });

  const totals: Record<string, CaseTotal> = {};
  for (const total of totalsOf(made)) {
    const shares = made.flatMap(({ name, count, components }) =>
      components
        .filter((component) => component.item.ingredient.name === total.ingredient)
        .map((component) => ({ name, count, component })),
    );
    totals[total.ingredient] = {
      edible_grams: grams(total.edible),
      ...(total.purchase ? { purchase_grams: grams(total.purchase) } : {}),
      ...(total.packs === undefined ? {} : { packs: total.packs }),
      ...(withWorking ? { working: totalWorking(total, shares) } : {}),
    };
  }
  return { result: { variants, totals } };
}

function caseComponent({ item, portion }: Component): CaseComponent {
  const head = { ingredient: item.ingredient.name, exact: toText(portion.exact), unit: item.unit.key };
  if (portion.sealedUnits !== undefined)
    return { ...head, sealed_units: portion.sealedUnits, grams: grams(portion.grams) };
  return {
    ...head,
    ...(portion.scoops ? { scoops_tsp: portion.scoops.map(toText) } : {}),
    packed: toText(portion.packed),
    grams: grams(portion.grams),
  };
}

/** One whole serving more than any household or class table needs: beyond it a kit is a slip. */
export const MOST_SERVINGS = 500;
