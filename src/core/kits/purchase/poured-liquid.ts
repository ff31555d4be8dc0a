import { add, compare, divide, multiply, ONE, type Rational, sign, subtract, ZERO } from '../../quantity/rational';
import type { Item } from '../../recipes/recipe/recipe';
import type { Component } from '../component';
import type { Portion } from '../portion';

/** What makes up for liquid that the cans do not give: an alternative of its line. */
export interface TopUp {
  readonly option: number;
  readonly item: Item;
}

/**
 * The components of one dish, with liquid poured off its cans as far as they go. The rest comes from what tops it up;
 * where nothing does, it is left to be bought, a can for its liquid.
 *
 * @param topUp the safe alternative of a liquid's line
 * @param portion what a kit gets of a share, 0 to 1, of an item
 */
export function withPouredLiquid(
  components: readonly Component[],
  topUp: (component: Component) => TopUp | undefined,
  portion: (item: Item, share: Rational) => Portion,
): readonly Component[] {
  if (components.every(({ item }) => !item.liquidPortion)) return components;
  const left = new Map<string, Rational>();
  return components.flatMap((component) => {
    const { item } = component;
    if (!item.liquidPortion) return [component];
    const food = item.ingredient.name;
    const there = left.get(food) ?? liquidIn(components, food, item.liquidPortion);
    const wanted = component.portion.grams;
    const poured = compare(there, wanted) < 0 ? there : wanted;
    left.set(food, subtract(there, poured));
    const cans = cansOf(components, food);
    const from = `out of the ${food}`;
    const isInside = cans.length > 0 && cans.every((can) => can.item.sealedGrams !== undefined);
    if (compare(there, wanted) >= 0) return [{ ...component, from, isInside }];
    const share = divide(poured, wanted);
    const rest = subtract(ONE, share);
    const more = topUp(component);
    const beside = item.also.length + 1;
    return [
      ...(sign(poured) > 0 ? [{ ...component, from, isInside, portion: portion(item, share) }] : []),
      ...(more ? [more.item, ...more.item.also] : [item]).map((each, at) => ({
        ...component,
        option: more?.option ?? component.option,
        beside: beside + at,
        item: each,
        portion: portion(each, rest),
        isTopUp: true,
      })),
    ];
  });
}

const cansOf = (components: readonly Component[], food: string) =>
  components.filter(({ item }) => item.ingredient.name === food && !item.liquidPortion);

/** Grams of liquid in the cans of a food among these components. */
function liquidIn(components: readonly Component[], food: string, liquidPortion: Rational): Rational {
  return cansOf(components, food)
    .map(({ item, portion }) => {
      const isDrained = !item.sealedGrams && item.yieldFrom?.preparation === 'drained';
      const net = isDrained ? divide(portion.grams, item.yieldPortion) : portion.grams;
      return multiply(net, liquidPortion);
    })
    .reduce(add, ZERO);
}
