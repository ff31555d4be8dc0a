/** What a dish is at the table. */
export const ROLES_OF_DISH = ['taste', 'side', 'main'] as const;
export type RoleOfDish = (typeof ROLES_OF_DISH)[number];

/** Who eats it, by age. */
export const EATERS = ['small children', 'children', 'teenagers', 'adults'] as const;
export type Eater = (typeof EATERS)[number];

/**
 * Grams of edible food in a serving for an adult: a spoon to try, a side dish, a plate that is the meal. Typical of family
 * tables, ours, not a dietary guideline; corrected by weighing a finished batch.
 */
const GRAMS: Readonly<Record<RoleOfDish, number>> = { taste: 40, side: 120, main: 350 };

/** What others eat of an adult's serving: up to 5 years, 6 to 12, 13 to 17. */
const PART: Readonly<Record<Eater, number>> = { 'small children': 0.5, children: 0.7, teenagers: 1.1, adults: 1 };

/**
 * Grams of a serving of a dish for those who eat it.
 *
 * @example
 * servingGrams('main', 'children') //=> 244.99999999999997
 */
export const servingGrams = (role: RoleOfDish, eater: Eater): number => GRAMS[role] * PART[eater];

/**
 * How many servings a batch makes, estimated from its edible weight.
 *
 * @param grams edible weight of the whole, > 0
 * @returns at least 1, at most 500
 * @example
 * estimateServings(2450, 'main', 'children') //=> 10
 */
export const estimateServings = (grams: number, role: RoleOfDish, eater: Eater): number =>
  Math.min(500, Math.max(1, Math.round(grams / servingGrams(role, eater))));
