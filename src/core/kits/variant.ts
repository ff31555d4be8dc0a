import { type Rational, toText } from '../quantity/rational';
import type { Item, Line, Recipe } from '../recipes/recipe';
import { blockersOf } from '../safety/avoidances';
import { fromOnePurchase } from './one-purchase';
import { type Measurer, type Portion, portionOf } from './portion';
import { type TopUp, withPouredLiquid } from './poured-liquid';
import { type Supply, supplied, type Ways, waysOf } from './supplied';

/** One component of a kit: which item of which line, and how much. */
export interface Component {
  /** Index of the dish among the session's dishes, and of the line in its recipe. */
  readonly dish: number;
  readonly line: number;
  /** 0 for the item as written, n for its n-th alternative. */
  readonly option: number;
  /** 0 for the item itself; above it what the item brings along, and at last what tops up a can's liquid. */
  readonly beside: number;
  readonly item: Item;
  readonly portion: Portion;
  /** Where it comes from when it is not bought by itself: out of a can, or of the same lemon. */
  readonly from?: string;
  /** It comes into the kit inside something else: a sealed can, a whole lemon. Nothing is packed for it. */
  readonly isInside?: boolean;
  /** What a can's liquid or a family's own box lacks: a share of it, or of what stands in. */
  readonly isTopUp?: boolean;
  /** It stands at the station for all: bought, but not packed. */
  readonly isShared?: boolean;
  /** What it would be if it came cut, where it comes whole. */
  readonly insteadOfCut?: Component;
  /** It is for the whole course: a jar, or equipment. */
  readonly isOfCourse?: boolean;
  /** Others have had it with an earlier kit. */
  readonly isCatchUp?: boolean;
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
  /** By dish and line: what tops up the liquid of a can where it does not suffice, as an option. */
  readonly topUps: readonly (readonly (number | undefined)[])[];
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
  /** The first safe option of a line from one on. */
  const firstSafe = (line: Line, from: number): number | 'omit' | 'refused' => {
    for (let option = from; option <= line.alternatives.length; option++) {
      const item = itemAt(line, option);
      if (!item) return 'omit';
      if (avoids.length === 0) return option;
      const blockers = blockedBy(item, avoids);
      if (blockers.length === 0) return option;
      for (const code of blockers) effective.add(code);
    }
    return 'refused';
  };
  const options = dishes.map((recipe) => recipe.lines.map((line) => firstSafe(line, 0)));
  const topUps = dishes.map((recipe, dish) =>
    recipe.lines.map((line, index) => {
      const option = options[dish]?.[index];
      if (typeof option !== 'number' || !itemAt(line, option)?.liquidPortion) return undefined;
      const next = firstSafe(line, option + 1);
      return typeof next === 'number' ? next : undefined;
    }),
  );
  return { options, topUps, effective: [...effective].sort() };
}

/** The item of an option of a line; null leaves the line out. */
const itemAt = (line: Line, option: number): Item | null =>
  option === 0 ? line.written : (line.alternatives[option - 1] ?? null);

/** Everything that a choice may put into a kit: items, what they bring along, and what tops up a can's liquid. */
export const chosenItems = ({ options, topUps }: Choice, dishes: readonly Recipe[]): Item[] =>
  dishes.flatMap((recipe, dish) =>
    recipe.lines.flatMap((line, index) => {
      const chosen = [options[dish]?.[index], options[dish]?.[index] === 'omit' ? undefined : topUps[dish]?.[index]];
      return chosen.flatMap((option) => {
        const item = typeof option === 'number' ? itemAt(line, option) : undefined;
        return item ? [item, ...item.also] : [];
      });
    }),
  );

/** The avoided codes that an item, or what it brings along, holds or may hold, sorted. */
const blockedBy = (item: Item, avoids: readonly string[]): string[] =>
  item.also.length === 0
    ? blockersOf(item.holdings, avoids)
    : [...new Set([item, ...item.also].flatMap(({ holdings }) => blockersOf(holdings, avoids)))].sort();

/** Computes contents by variant, each line once per servings and option. */
export interface KitCalculator {
  /** The contents of a kit of `servings` made by this choice, and filled as its supply says. */
  contents(servings: number, avoids: readonly string[], choice: Choice, supply?: Supply): Contents;
}

/** A calculator over the dishes of one session. @param ways how their lines travel; measured where left out */
export function kitCalculator(dishes: readonly Recipe[], measurer: Measurer, ways: Ways = waysOf([])): KitCalculator {
  // An item stands in one place of one dish: its component is made once for each size of kit.
  const known = new Map<Item, { readonly sizes: number[]; readonly made: Component[] }>();
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
    return { components: supplied(components, supply, ways, dishes, part) };
  }
}

/** Whether nothing of a line is poured off a can or bought with another. */
const isSimpleLine = ({ written, alternatives }: Line): boolean =>
  isSimpleItem(written) && alternatives.every(isSimpleItem);

const isSimpleItem = (item: Item | null): boolean =>
  item === null || (!item.liquidPortion && !item.part && item.also.every(isSimpleItem));

/** The food and preparation in a component's key. */
export function foodOfKey(key: string): { ingredient: string; preparation: string } {
  const [, ingredient = '', preparation = ''] = key.split('|');
  return { ingredient, preparation };
}

/**
 * Identifies what is packed, so that a tick stays valid exactly while the component stays the same: the same amount of the same
 * product, where one is named.
 */
export function componentKey(component: Component, dishKey: string, product?: string): string {
  const { item, portion, line, beside, from = component.isShared ? 'station' : undefined } = component;
  const amount: Rational = portion.packed;
  const kind = portion.sealedUnits === undefined ? item.unit.key : `sealed ${portion.sealedUnits}`;
  const place = beside === 0 ? line : `${line}+${beside}`;
  return `${dishKey}#${place}|${item.ingredient.name}|${item.preparation}|${toText(amount)}|${kind}${from ? `|${from}` : ''}${product ? `|of ${product.slice(0, 40)}` : ''}`;
}
