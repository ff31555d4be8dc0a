import { nameKey } from '../../roll/name-key';
import type { SheetVariant } from './sheet-content';

/**
 * The variants that somebody looks for: by letter, by a person's name or part of it, by what they are made without or hold, or
 * by how many they feed ("feeding 4"). All of them where nothing is looked for.
 */
export function findVariants(variants: readonly SheetVariant[], wanted: string): readonly SheetVariant[] {
  const key = nameKey(wanted);
  if (key === '') return variants;
  const byLetter = variants.filter(({ letter }) => letter.toLowerCase() === key);
  if (byLetter.length > 0) return byLetter;
  return variants.filter(({ participants, madeWithout, unknownWishes, servings, components }) => {
    if (key === `feeding ${servings}`) return true;
    const words = [
      ...madeWithout,
      ...unknownWishes,
      ...(components ?? []).flatMap(({ option, name }) => (option > 0 ? [name] : [])),
    ];
    return [...words, ...participants.map(({ name }) => name)].some((text) => nameKey(text).includes(key));
  });
}
