import proposals from '../reference/facts/avoidance-proposals.json';
import names from '../reference/facts/names.json';
import { findIngredient, type Reference } from '../reference/reference';
import { normaliseNeed, understandNeed } from './avoidances';

/** What a need without a meaning may stand for: to be confirmed by a person, never taken for granted. */
export interface ProposedMeaning {
  /** Avoidance codes. */
  readonly codes: readonly string[];
  /** Foods of the table that are called so, in part or by another name. */
  readonly foods: readonly string[];
  /** What to ask the family; '' where there is nothing. */
  readonly note: string;
}

/** What some words usually ask for: by the name of a custom, or of a food that others are made of. */
interface Custom {
  readonly words: readonly string[];
  readonly codes: readonly string[];
  readonly foods?: readonly string[];
  readonly note: string;
}

const NO_MEANINGS = new Map<string, readonly string[]>();
const OTHER_NAMES = names as Readonly<Record<string, readonly string[]>>;
/** Words that name no food. */
const SMALL =
  /^(?:and|any|anything|with|the|for|not|raw|cooked|fresh|red|green|white|black|foods?|fruits?|products?|only)$/;

/** What a need may stand for: by a custom that is known, by a word in it that is understood, by foods that are called so. */
export function proposeMeaning(need: string, reference: Reference): ProposedMeaning {
  const key = normaliseNeed(need);
  const custom = (proposals as readonly Custom[]).find(({ words }) => words.some((word) => holdsWord(key, word)));
  const parts = key.split(' ').filter((part) => part.length > 2 && !SMALL.test(part));
  const inside = parts.flatMap((part) => understandNeed(part, NO_MEANINGS).codes ?? []);
  const stems = parts.map((part) => part.replace(/(?<=[^s])(?:es|s)$/, '')).filter((stem) => stem.length > 2);
  const isCalled = (name: string) => stems.some((stem) => holdsWord(name, stem));
  const foods = reference.ingredients
    .filter(({ name }) => [name, ...(OTHER_NAMES[name] ?? [])].some((each) => isCalled(each.toLowerCase())))
    .map(({ name }) => name);
  const made = (custom?.foods ?? []).filter((food) => findIngredient(reference, food));
  return {
    codes: [...new Set([...(custom?.codes ?? []), ...inside])],
    foods: [...new Set([...foods, ...made])],
    note: custom?.note ?? '',
  };
}

/** Whether a word stands in a text, alone or in the plural. */
const holdsWord = (text: string, word: string) => new RegExp(`\\b${literally(word)}(?:s|es)?\\b`).test(text);

const literally = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
