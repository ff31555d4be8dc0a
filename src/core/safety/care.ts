import facts from '../reference/facts/care.json';

/** Foods that somebody of an age or in a condition avoids, and the preparations that lift it. */
interface CareFact {
  readonly code: string;
  readonly ingredients: readonly string[];
  /** Only some of it is: to be checked. */
  readonly check?: boolean;
  /** How it is cut so that it may be eaten; left out where cutting does not help. */
  readonly cut?: string;
  readonly lifted: readonly string[];
}

const BY_FOOD = new Map<string, CareFact[]>();
for (const fact of facts as readonly CareFact[])
  for (const name of fact.ingredients) BY_FOOD.set(name, [...(BY_FOOD.get(name) ?? []), fact]);

/** The codes of care that a food carries as it is prepared. */
export function careOf(ingredient: string, preparation: string): { contains: string[]; check: string[] } {
  const said = preparation.toLowerCase();
  const own = (BY_FOOD.get(ingredient) ?? []).filter(({ lifted }) => !lifted.some((word) => said.includes(word)));
  return {
    contains: own.filter(({ check }) => !check).map(({ code }) => code),
    check: own.filter(({ check }) => check).map(({ code }) => code),
  };
}

/** How a food is cut for small children; undefined where it needs no cutting, or cutting does not help. */
export const cutForSmall = (ingredient: string, preparation: string): string | undefined =>
  careOf(ingredient, preparation).contains.includes('CHOKING')
    ? BY_FOOD.get(ingredient)?.find(({ code, cut }) => code === 'CHOKING' && cut)?.cut
    : undefined;

/** Honey is not for the first year; round and hard food waits until five. FDA, NHS. */
const AGES = [
  { under: 1, code: 'HONEY' },
  { under: 5, code: 'CHOKING' },
] as const;

/** What somebody avoids by their age alone; nothing where it is not known. @param age whole years */
export const avoidedByAge = (age: number | null): string[] =>
  age === null ? [] : AGES.flatMap(({ under, code }) => (age < under ? [code] : []));
