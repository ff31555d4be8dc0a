import MiniSearch from 'minisearch';

export const FOUND_KINDS = ['screen', 'action', 'course', 'session', 'person', 'recipe', 'food', 'crew'] as const;
export type FoundKind = (typeof FOUND_KINDS)[number];

/** Something that can be gone to. */
export interface Findable {
  readonly kind: FoundKind;
  readonly title: string;
  /** What tells it from others of its name: a course, a date. */
  readonly beside: string;
  readonly href: string;
  /** Other words by which it is looked for. */
  readonly words?: string;
}

/** So many are shown. */
const MOST = 30;
/** Screens and actions come first among what fits as well: they are few, and meant. */
const WEIGHT: Readonly<Partial<Record<FoundKind, number>>> = { screen: 1.7, action: 1.4, course: 1.3, food: 0.8 };

/** Letters with their marks taken off, small: "Łucja" is found by "lucja". */
const plain = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replaceAll('ł', 'l')
    .replaceAll('ø', 'o')
    .replaceAll('ß', 'ss');

/**
 * Finds by the beginnings of words, with a typing mistake in longer ones forgiven.
 *
 * @returns a search: the best first, at most thirty; nothing for an empty text
 * @example
 * makeFinder([{ kind: 'recipe', title: 'Slipway slaw', beside: '', href: '/recipes/1' }])('slipwya').map(({ title }) => title) //=> ['Slipway slaw']
 */
export function makeFinder(all: readonly Findable[]): (text: string) => Findable[] {
  const index = new MiniSearch<Findable & { id: number }>({
    fields: ['title', 'beside', 'words'],
    storeFields: [],
    processTerm: (term) => plain(term) || null,
    searchOptions: {
      boost: { title: 3, words: 2 },
      prefix: true,
      // One letter wrong in four or five, two in longer words (two that changed places are two); none where there is little to go by.
      fuzzy: (term) => (term.length < 4 ? false : term.length < 6 ? 1 : 2),
      combineWith: 'AND',
      boostDocument: (id) => WEIGHT[all[id as number]?.kind ?? 'food'] ?? 1,
    },
  });
  index.addAll(all.map((one, id) => ({ ...one, id })));
  return (text) =>
    index
      .search(text.trim())
      .slice(0, MOST)
      .flatMap(({ id }) => all[id as number] ?? []);
}
