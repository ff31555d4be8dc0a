import facts from './facts/waiting.json';

/** Foods that lie before they can be used: days that they ripen at room temperature, or hours that they thaw in a fridge. */
export interface Waiting {
  readonly ripens: readonly { readonly food: string; readonly days: number }[];
  readonly thaws: readonly { readonly food: string; readonly hours: number }[];
}

const RIPENS = new Map(facts.flatMap(({ ingredient, ripens }) => (ripens ? [[ingredient, ripens] as const] : [])));
const THAWS = new Map(facts.flatMap(({ ingredient, thaws }) => (thaws ? [[ingredient, thaws] as const] : [])));

/** Days that a food which is bought hard lies until it is ripe; 0 for what is not bought so. Typical: somebody looks each day. */
export const ripeningDays = (food: string): number => RIPENS.get(food) ?? 0;

/**
 * What of some foods ripens and thaws; frozen vegetables and berries are cooked as they are.
 *
 * @example
 * waitingIn(['avocado', 'frozen peas']) //=> { ripens: [{ food: 'avocado', days: 4 }], thaws: [] }
 */
export const waitingIn = (foods: readonly string[]): Waiting => ({
  ripens: foods.flatMap((food) => (RIPENS.has(food) ? [{ food, days: ripeningDays(food) }] : [])),
  thaws: foods.flatMap((food) => (THAWS.has(food) ? [{ food, hours: THAWS.get(food) as number }] : [])),
});
