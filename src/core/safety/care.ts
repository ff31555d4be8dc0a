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

/** Words that may stand beside a cut and change nothing about it. */
const BESIDE = new Set(
  'finely very roughly coarsely thinly small into in pieces and well lengthways lengthwise'.split(' '),
);

/**
 * Whether a preparation is one of those that lift a care. Only what is understood whole counts: each word of one of its parts
 * has to be that preparation or stand beside it. "Uncooked", "not chopped", "whole, cut at class" lift nothing.
 */
function isLifted(preparation: string, lifted: readonly string[]): boolean {
  const parts = preparation
    .toLowerCase()
    .split(/[,;(]/)
    .map((part) => part.match(/\p{L}+/gu) ?? []);
  // "Whole, quartered" may be quartered by the child who eats it.
  if (parts.flat().includes('whole')) return false;
  return parts.some((said) => {
    return lifted.some((words) => {
      const wanted = words.split(' ');
      const at = said.findIndex((_, from) => wanted.every((word, n) => said[from + n] === word));
      return (
        at >= 0 &&
        said.every((word, n) => (n >= at && n < at + wanted.length) || BESIDE.has(word) || lifted.includes(word))
      );
    });
  });
}

/** The codes of care that a food carries as it is prepared. */
export function careOf(ingredient: string, preparation: string): { contains: string[]; check: string[] } {
  const own = (BY_FOOD.get(ingredient) ?? []).filter(({ lifted }) => !isLifted(preparation, lifted));
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

/**
 * What somebody avoids by their age alone; nothing where it is not known. @param age whole years
 *
 * @example
 * avoidedByAge(3) //=> ['CHOKING']
 */
export const avoidedByAge = (age: number | null): string[] =>
  age === null ? [] : AGES.flatMap(({ under, code }) => (age < under ? [code] : []));
