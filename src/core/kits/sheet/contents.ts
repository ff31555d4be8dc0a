import type { Rational } from '../../quantity/rational';
import { type Choice, itemAt } from '../../recipes/recipe/choice';
import type { Item, Line, Recipe } from '../../recipes/recipe/recipe';
import { blockersOf } from '../../safety/avoidances';
import type { Component } from '../component';
import { type Measurer, portionOf } from '../portion';
import { fromOnePurchase } from '../purchase/one-purchase';
import { type TopUp, withPouredLiquid } from '../purchase/poured-liquid';
import { noItemsYet, type Supply, supplied, type Ways, waysOf } from '../supply/supplied';

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

/** Computes contents by variant, each line once per servings and option. */
export interface KitCalculator {
  /** The contents of a kit of `servings` made by this choice, and filled as its supply says. */
  contents(servings: number, avoids: readonly string[], choice: Choice, supply?: Supply): Contents;
}

/** A calculator over the dishes of one session. @param ways how their lines travel; measured where left out */
export function kitCalculator(dishes: readonly Recipe[], measurer: Measurer, ways: Ways = waysOf([])): KitCalculator {
  // An item stands in one place of one dish: its component is made once for each size of kit.
  const known = new Map<Item, { readonly sizes: number[]; readonly made: Component[] }>();
  const brought = noItemsYet();
  /** A choice is made for certain avoidances: with its size and supply it says everything. */
  const made = new Map<Choice, Map<string, Contents>>();
  const isSimple = dishes.map(({ lines }) => lines.every(isSimpleLine));
  const add = (to: Component[], dish: number, line: number, option: number, servings: number) => {
    const recipe = dishes[dish] as Recipe;
    const item = itemAt(recipe.lines[line] as Line, option) as Item;
    for (let beside = 0; beside <= item.also.length; beside++) {
      const each = beside === 0 ? item : (item.also[beside - 1] as Item);
      let own = known.get(each);
      if (!own) {
        own = { sizes: [], made: [] };
        known.set(each, own);
      }
      // Kits come in a few sizes: a short list is looked through sooner than a table is made.
      const at = own.sizes.indexOf(servings);
      if (at >= 0) {
        to.push(own.made[at] as Component);
        continue;
      }
      const portion = portionOf(each, recipe.servings, servings, measurer);
      const component = { dish, line, option, beside, item: each, portion };
      own.made.push(component);
      own.sizes.push(servings);
      to.push(component);
    }
  };
  /** The components of one dish where one is poured off another, or bought with it. */
  const entwined = (own: readonly Component[], recipe: Recipe, dish: number, servings: number, choice: Choice) => {
    const topUp = ({ line }: Component): TopUp | undefined => {
      const option = choice.topUps[dish]?.[line];
      const item = option === undefined ? undefined : itemAt(recipe.lines[line] as Line, option);
      return item ? { option: option as number, item } : undefined;
    };
    const part = (item: Item, share: Rational) => portionOf(item, recipe.servings, servings, measurer, share);
    return fromOnePurchase(withPouredLiquid(own, topUp, part));
  };
  return {
    contents(servings, avoids, choice, supply) {
      const key = supply ? `${servings}|${JSON.stringify(supply)}` : String(servings);
      const before = made.get(choice) ?? new Map<string, Contents>();
      made.set(choice, before);
      const same = before.get(key) ?? fill(servings, avoids, choice, supply);
      before.set(key, same);
      return same;
    },
  };
  function fill(servings: number, avoids: readonly string[], choice: Choice, supply: Supply | undefined): Contents {
    const components: Component[] = [];
    const refusals: Refusal[] = [];
    for (const [dish, recipe] of dishes.entries()) {
      const own: Component[] = isSimple[dish] ? components : [];
      for (let index = 0; index < recipe.lines.length; index++) {
        const option = choice.options[dish]?.[index];
        if (option === 'omit') continue;
        if (option === 'refused' || option === undefined) {
          const { written } = recipe.lines[index] as Line;
          const blocked = blockersOf(written.holdings, avoids);
          refusals.push({ dish, line: index, ingredient: written.ingredient.name, blockedBy: blocked });
        } else add(own, dish, index, option, servings);
      }
      if (own !== components) components.push(...entwined(own, recipe, dish, servings, choice));
    }
    if (refusals.length > 0) return { refusals };
    if (!supply) return { components };
    const part = ({ item, dish }: Component, share: Rational) =>
      portionOf(item, dishes[dish]?.servings ?? 1, servings, measurer, share);
    return { components: supplied(components, supply, ways, dishes, part, brought) };
  }
}

/** Whether nothing of a line is poured off a can or bought with another. */
const isSimpleLine = ({ written, alternatives }: Line): boolean =>
  isSimpleItem(written) && alternatives.every(isSimpleItem);

const isSimpleItem = (item: Item | null): boolean =>
  item === null || (!item.liquidPortion && !item.part && item.also.every(isSimpleItem));
