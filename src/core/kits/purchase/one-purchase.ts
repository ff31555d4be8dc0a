import { add, compare, divide, type Rational, ZERO } from '../../quantity/rational';
import type { Component } from '../component';

/**
 * The components of one dish, where several parts of one food come of one purchase: juice and zest of the same lemon,
 * whites and yolks of the same eggs. The part that needs most is bought; the others are told to come from it.
 */
export function fromOnePurchase(components: readonly Component[]): readonly Component[] {
  if (components.every(({ item }) => item.part === undefined)) return components;
  const byFood = new Map<string, Map<string, Rational>>();
  for (const { item, portion, from } of components) {
    if (!item.part || from) continue;
    const parts = byFood.get(item.ingredient.name) ?? new Map<string, Rational>();
    const bought = divide(portion.grams, item.partShare ?? item.yieldPortion);
    parts.set(item.part, add(parts.get(item.part) ?? ZERO, bought));
    byFood.set(item.ingredient.name, parts);
  }
  const most = new Map<string, string>();
  for (const [food, parts] of byFood) {
    if (parts.size < 2) continue;
    const [[largest] = ['']] = [...parts].sort(([, a], [, b]) => compare(b, a));
    most.set(food, largest);
  }
  if (most.size === 0) return components;
  return components.map((component) => {
    const { item, from } = component;
    const largest = most.get(item.ingredient.name);
    if (!largest || !item.part || from || item.part === largest) return component;
    const bought = components.filter((each) => each.item.ingredient === item.ingredient && each.item.part === largest);
    const isInside = bought.every((each) => each.item.unit.dimension === 'count');
    return { ...component, from: `of the same ${item.ingredient.name}`, isInside };
  });
}
