import { add, multiply, rational, subtract } from '../../quantity/rational';
import type { Item, Line, Recipe } from '../../recipes/recipe/recipe';
import type { Measurer } from '../portion';
import { totalsOf } from '../purchase/totals';
import type { Ways } from '../supply/supplied';
import { kitCalculator } from './contents';
import type { Group } from './participant';

/** A range is tried in so many equal steps: finer than anybody measures. */
const STEPS = 8;

/**
 * Settles amounts that buying may choose within a range: each becomes the most, in eighths of its range, that needs no
 * pack more than its least, so that packs come out whole and nothing is left over that could have been eaten. Lines are
 * settled one after the other. Where a food comes in no packs, the amount stays as the recipe says.
 */
export function withinRanges(
  dishes: readonly Recipe[],
  groups: readonly Group[],
  measurer: Measurer,
  ways: Ways,
): readonly Recipe[] {
  const places = dishes.flatMap((recipe, dish) =>
    recipe.lines.flatMap((line, index) => (line.written.within ? [{ dish, index, item: line.written }] : [])),
  );
  if (places.length === 0) return dishes;
  const packsOf = (candidate: readonly Recipe[], food: string): number | undefined => {
    const calculator = kitCalculator(candidate, measurer, ways);
    const kits = groups.flatMap(({ servings, avoids, choice, supply, participants }) => {
      const { components } = calculator.contents(servings, avoids, choice, supply);
      return components ? [{ count: participants.length, components }] : [];
    });
    return totalsOf(kits).find(({ ingredient }) => ingredient === food)?.packs;
  };
  return places.reduce<readonly Recipe[]>((settled, { dish, index, item }) => {
    const { least, most } = item.within as NonNullable<Item['within']>;
    const at = (step: number) => {
      const amount = add(least, multiply(subtract(most, least), rational(step, STEPS)));
      return withItem(settled, dish, index, { ...item, amount });
    };
    const fewest = packsOf(at(0), item.ingredient.name);
    if (fewest === undefined) return settled;
    for (let step = STEPS; step > 0; step--) {
      const tried = at(step);
      if (packsOf(tried, item.ingredient.name) === fewest) return tried;
    }
    return at(0);
  }, dishes);
}

/** The dishes with another item written on one of their lines. */
const withItem = (dishes: readonly Recipe[], dish: number, index: number, written: Item): Recipe[] =>
  dishes.map((recipe, place) =>
    place === dish
      ? {
          ...recipe,
          lines: recipe.lines.map((line, at): Line => (at === index ? { ...line, written } : line)),
        }
      : recipe,
  );
