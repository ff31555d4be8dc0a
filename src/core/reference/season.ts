import facts from './facts/seasons.json';

/**
 * Months in which a food is harvested or sold from local stores in a temperate northern climate, first to last, across
 * the turn of the year where the first is later. Ours, coarse: local growers and markets know better.
 */
const MONTHS = new Map(facts.map(({ ingredient, from, to }) => [ingredient, { from, to }] as const));

/** Whether a food is in season in a month, and not all the year. */
export const grownOnlyNow = (ingredient: string, month: number): boolean => {
  const months = MONTHS.get(ingredient);
  return months !== undefined && !(months.from === 1 && months.to === 12) && inSeason(ingredient, month) === true;
};

/**
 * Whether a fresh food is in season.
 *
 * @param month 1 to 12
 * @returns undefined for what has no season here: dry goods, cans, what always comes from far away
 */
export function inSeason(ingredient: string, month: number): boolean | undefined {
  const months = MONTHS.get(ingredient);
  if (!months) return undefined;
  const { from, to } = months;
  return from <= to ? month >= from && month <= to : month >= from || month <= to;
}
