import {
  add,
  ceil,
  divide,
  multiply,
  ONE,
  type Rational,
  rational,
  toInteger,
  toNumber,
  ZERO,
} from '../../quantity/rational';
import { bestOf, type Product, priceOfGram } from '../../recipes/recipe/cost';
import type { Component } from '../component';
import type { KitSheet } from '../sheet/sheet';

/** What one kit of a variant costs, and what it holds for a serving, as far as prices and labels are known. */
export interface KitFigures {
  readonly letter: string;
  readonly kits: number;
  /** Minor units of money, trimmings and spare with it, packs by the part that is used. */
  readonly cost: number;
  /** For one serving. */
  readonly saltMg: number;
  readonly energyKj: number;
}

/** What a food costs for all kits. */
export interface FoodCost {
  readonly ingredient: string;
  /** Minor units: of what is used, and of the whole packs that it must be bought in. */
  readonly used: number;
  readonly bought: number;
  /** Part of all that is used, 0 to 1. */
  readonly share: number;
}

export interface SheetCost {
  readonly kits: readonly KitFigures[];
  /** Dearest first. */
  readonly foods: readonly FoodCost[];
  readonly used: number;
  readonly bought: number;
  /** Minor units for an average kit of the roll, and for each serving of it; whole packs bought. */
  readonly perKit: number;
  readonly perServing: number;
  /** Foods without a price, and without salt or energy on a label. */
  readonly unpriced: readonly string[];
  readonly unlabelled: readonly string[];
}

/**
 * What draining and rinsing leave of the salt of canned food, where the label is of the whole can: typical, of canned beans
 * (Duyff and others, Journal of Culinary Science and Technology, 2011: 36 % goes with draining, 41 % with rinsing too).
 */
const SALT_LEFT: readonly (readonly [RegExp, Rational])[] = [
  [/rinsed/, rational(59, 100)],
  [/drained/, rational(64, 100)],
];

/** The part of its salt that an item keeps when it is prepared so. */
export const saltLeft = (preparation: string): Rational =>
  SALT_LEFT.find(([words]) => words.test(preparation))?.[1] ?? ONE;

const round = (amount: Rational) => Math.round(toNumber(amount));

/**
 * What a sheet costs, kit by kit and food by food, with salt and energy for a serving. Of each food the product that is
 * cheapest by weight counts. A food without a price or label is told to be missing, never taken for nothing.
 */
export function sheetCost(sheet: KitSheet, products: readonly Product[]): SheetCost {
  const productOf = new Map(
    sheet.totals.map(({ ingredient }) => [
      ingredient,
      bestOf(products.filter((each) => each.ingredient === ingredient)),
    ]),
  );
  /** Grams bought for a gram packed, over all kits: trimmings and spare. */
  const boughtFor = new Map(
    sheet.totals.map(({ ingredient, edible, purchase }) => [
      ingredient,
      purchase && edible.n > 0 ? divide(purchase, edible) : ONE,
    ]),
  );
  const priceOf = (food: string) => {
    const product = productOf.get(food);
    return product && priceOfGram(product);
  };
  const counted = ({ from, item }: Component) => !from && productOf.has(item.ingredient.name);
  const sum = (components: readonly Component[], each: (component: Component) => Rational | undefined) =>
    components.filter(counted).reduce((total, component) => add(total, each(component) ?? ZERO), ZERO);
  const per100 = (value: number | undefined, grams: Rational) =>
    value === undefined ? undefined : multiply(rational(value, 100), grams);

  const kits = sheet.variants.flatMap(({ letter, participants, components, servings, extra }): KitFigures[] => {
    if (!components || extra === 'swap-in') return [];
    const cost = sum(components, ({ item, portion }) => {
      const price = priceOf(item.ingredient.name);
      return price && multiply(multiply(portion.grams, boughtFor.get(item.ingredient.name) ?? ONE), price);
    });
    // What comes from home or out of a jar is eaten too.
    const eaten = (each: (component: Component) => Rational | undefined) =>
      round(
        divide(
          components
            // A jar is eaten as it is drawn.
            .filter(({ isOfCourse }) => !isOfCourse)
            .reduce((total, component) => add(total, each(component) ?? ZERO), ZERO),
          rational(servings),
        ),
      );
    const labelOf = ({ item }: Component) =>
      products.find((each) => each.ingredient === item.ingredient.name && each.saltMg !== undefined);
    return [
      {
        letter,
        kits: participants.length,
        cost: round(cost),
        saltMg: eaten((component) => {
          const salt = per100(labelOf(component)?.saltMg, component.portion.grams);
          return salt && multiply(salt, saltLeft(component.item.preparation));
        }),
        energyKj: eaten((component) =>
          per100(
            products.find((each) => each.ingredient === component.item.ingredient.name && each.energyKj !== undefined)
              ?.energyKj,
            component.portion.grams,
          ),
        ),
      },
    ];
  });

  const foods = sheet.totals.flatMap(({ ingredient, edible, purchase }): Omit<FoodCost, 'share'>[] => {
    const product = productOf.get(ingredient);
    const price = product && priceOfGram(product);
    if (!product || !price || product.price === undefined) return [];
    const grams = purchase ?? edible;
    const packs = toInteger(ceil(divide(grams, product.packGrams)));
    return [{ ingredient, used: round(multiply(grams, price)), bought: packs * product.price }];
  });
  const used = foods.reduce((total, each) => total + each.used, 0);
  const bought = foods.reduce((total, each) => total + each.bought, 0);
  const roll = sheet.variants.filter(({ components, extra }) => components && !extra);
  const count = roll.reduce((total, { participants }) => total + participants.length, 0);
  const servings = roll.reduce((total, variant) => total + variant.participants.length * variant.servings, 0);
  return {
    kits,
    foods: foods
      .map((food) => ({ ...food, share: used > 0 ? food.used / used : 0 }))
      .sort((a, b) => b.used - a.used || (a.ingredient < b.ingredient ? -1 : 1)),
    used,
    bought,
    perKit: count > 0 ? Math.round(bought / count) : 0,
    perServing: servings > 0 ? Math.round(bought / servings) : 0,
    unpriced: sheet.totals.map(({ ingredient }) => ingredient).filter((food) => !priceOf(food)),
    unlabelled: sheet.totals
      .map(({ ingredient }) => ingredient)
      .filter((food) => !products.some((each) => each.ingredient === food && each.saltMg !== undefined)),
  };
}

/** The two foods that drive the cost, in words: "grated cheddar 38 %, chickpeas 21 %". */
export const sayDrivers = ({ foods }: SheetCost): string =>
  foods
    .slice(0, 3)
    .map(({ ingredient, share }) => `${ingredient} ${Math.round(share * 100)} %`)
    .join(', ');
