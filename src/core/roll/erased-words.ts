import { nameKey } from './name-key';

/** What stands in the place of a person's name after erasing. */
export const ERASED = 'Erased';

/** What a family is known by, in words. */
export interface FamilyWords {
  /** Names of its people and its own, now and before. */
  readonly names: readonly string[];
  /** How it is reached, where it lives, and what it wrote down for an emergency. */
  readonly others: readonly string[];
}

/** Words to be taken out of texts. */
export interface WordsToErase {
  /** Sure to be theirs wherever they stand: whole names, addresses. */
  readonly sure: readonly string[];
  /** Theirs in what the program wrote of them; in free text they may be anybody's: "Mira". */
  readonly likely: readonly string[];
}

/**
 * The words by which a family is known.
 *
 * @param taken names of other people of the programme: a name that somebody else has as well is left to them
 * @example wordsToErase({ names: ['Ivo Castellan', 'Mira'], others: ['ivo@quay.example'] }, [])
 * //=> { sure: ['ivo@quay.example', 'Ivo Castellan'], likely: ['Mira'] }
 */
export function wordsToErase({ names, others }: FamilyWords, taken: readonly string[]): WordsToErase {
  const theirs = new Set(taken.map(nameKey));
  const own = [...new Set(names.map((name) => name.trim()))].filter(
    (name) => name.length > 2 && name !== ERASED && !theirs.has(nameKey(name)),
  );
  const isWhole = (name: string) => /\S\s+\S/.test(name);
  const sure = [
    ...others
      .flatMap((text) => [text, ...text.split(/[;,\n]/)])
      .map((text) => text.trim())
      .filter((text) => text.length > 5),
    ...own.filter(isWhole),
  ];
  // The longest first: what holds another goes before it.
  const longestFirst = (a: string, b: string) => b.length - a.length;
  return {
    sure: [...new Set(sure)].sort(longestFirst),
    likely: own.filter((name) => !isWhole(name)).sort(longestFirst),
  };
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+');

/**
 * A text without these words, each as a word of its own, however it is capitalised; also as JSON writes them.
 *
 * @example withoutWords('Call Mira, not Miranda.', ['Mira']) //=> 'Call Erased, not Miranda.'
 */
export function withoutWords(text: string, words: readonly string[]): string {
  const forms = words.flatMap((word) => [word, JSON.stringify(word).slice(1, -1)]);
  if (forms.length === 0) return text;
  const any = [...new Set(forms)].map(escaped).join('|');
  return text.replace(new RegExp(`(?<![\\p{L}\\p{N}])(?:${any})(?![\\p{L}\\p{N}])`, 'giu'), ERASED);
}
