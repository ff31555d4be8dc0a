import { type Rational, toText } from '../quantity/rational';
import type { Item, Recipe } from '../recipes/recipe';
import { blockersOf } from '../safety/avoidances';
import { type Measurer, type Portion, portionOf } from './portion';

/** One component of a kit: which item of which line, and how much. */
export interface Component {
  /** Index of the dish among the session's dishes, and of the line in its recipe. */
  readonly dish: number;
  readonly line: number;
  /** 0 for the item as written, n for its n-th alternative. */
  readonly option: number;
  readonly item: Item;
  readonly portion: Portion;
}

/** A written line for which nothing safe can be packed. */
export interface Refusal {
  readonly dish: number;
  readonly line: number;
  /** The written item's food. */
  readonly ingredient: string;
  /** Avoided codes that the written item holds or may hold, sorted. */
  readonly blockedBy: readonly string[];
}

/** The contents of every kit of one size and one set of avoidances, or why there can be none. */
export type Contents =
  | { readonly components: readonly Component[]; readonly refusals?: undefined }
  | { readonly components?: undefined; readonly refusals: readonly Refusal[] };

/** Which option each line takes for a set of avoidances: the line's option, or undefined when nothing passes. */
export interface Choice {
  /** By dish and line: 0 written, n the n-th alternative, 'omit', or 'refused'. */
  readonly options: readonly (readonly (number | 'omit' | 'refused')[])[];
  /** The avoided codes that made a difference on the way, sorted: what the kit is "made without". */
  readonly effective: readonly string[];
}

/**
 * Chooses for each line the first item that is safe: the written one, else the first alternative that holds nothing
 * avoided and nothing unknown.
 *
 * @param avoids avoidance codes, in any order
 */
export function choose(dishes: readonly Recipe[], avoids: readonly string[]): Choice {
  const effective = new Set<string>();
  const options = dishes.map((recipe) =>
    recipe.lines.map((line) => {
      if (avoids.length === 0) return 0;
      const tried = [line.written, ...line.alternatives];
      for (let option = 0; option < tried.length; option++) {
        const item = tried[option];
        if (!item) return 'omit';
        const blockers = blockersOf(item.holdings, avoids);
        if (blockers.length === 0) return option;
        for (const code of blockers) effective.add(code);
      }
      return 'refused';
    }),
  );
  return { options, effective: [...effective].sort() };
}

/** Computes contents by variant, each line once per servings and option. */
export interface KitCalculator {
  /** The contents of a kit of `servings` made by this choice. */
  contents(servings: number, avoids: readonly string[], choice: Choice): Contents;
}

/** A calculator over the dishes of one session. */
export function kitCalculator(dishes: readonly Recipe[], measurer: Measurer): KitCalculator {
  const known = new Map<Item, Map<number, Portion>>();
  const portion = (item: Item, recipeServings: number, servings: number): Portion => {
    let byServings = known.get(item);
    if (!byServings) {
      byServings = new Map();
      known.set(item, byServings);
    }
    let found = byServings.get(servings);
    if (!found) {
      found = portionOf(item, recipeServings, servings, measurer);
      byServings.set(servings, found);
    }
    return found;
  };
  return {
    contents(servings, avoids, choice) {
      const components: Component[] = [];
      const refusals: Refusal[] = [];
      dishes.forEach((recipe, dish) => {
        recipe.lines.forEach((line, index) => {
          const option = choice.options[dish]?.[index];
          if (option === 'omit') return;
          if (option === 'refused' || option === undefined) {
            const blockedBy = blockersOf(line.written.holdings, avoids);
            refusals.push({ dish, line: index, ingredient: line.written.ingredient.name, blockedBy });
            return;
          }
          const item = option === 0 ? line.written : (line.alternatives[option - 1] as Item);
          components.push({ dish, line: index, option, item, portion: portion(item, recipe.servings, servings) });
        });
      });
      return refusals.length > 0 ? { refusals } : { components };
    },
  };
}

/** Identifies what is packed, so that a tick stays valid exactly while the component stays the same. */
export function componentKey(component: Component, dishKey: string): string {
  const { item, portion, line } = component;
  const amount: Rational = portion.packed;
  const kind = portion.sealedUnits === undefined ? item.unit.key : `sealed ${portion.sealedUnits}`;
  return `${dishKey}#${line}|${item.ingredient.name}|${item.preparation}|${toText(amount)}|${kind}`;
}
