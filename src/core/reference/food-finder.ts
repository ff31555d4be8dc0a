import names from './facts/names.json';

/** Other words for the foods of the reference table, on both sides of the Atlantic. */
const OTHER_NAMES: Readonly<Record<string, readonly string[]>> = names;

/** The longest name of a food has so many words. */
const LONGEST_NAME = 5;

/** A food found among words. */
export interface FoundFood {
  /** Its name in the reference table. */
  readonly name: string;
  /** First word of it, and the word after its last. */
  readonly from: number;
  readonly to: number;
}

/** The names of a reference table, ready to be looked up. */
export interface FoodIndex {
  readonly byKey: ReadonlyMap<string, string>;
  /** Every name, in words of one form, for finding what was nearly written. */
  /** Foods that are weighed raw: grains, pulses, pasta. */
  readonly raw: ReadonlySet<string>;
  readonly entries: readonly { readonly name: string; readonly words: readonly string[] }[];
  /** Places in `entries` by each word that occurs, under the word's first letter. */
  readonly vocabulary: ReadonlyMap<string, ReadonlyMap<string, readonly number[]>>;
}

/** As much of a reference table as names need. */
interface Names {
  readonly ingredients: readonly { readonly name: string }[];
  readonly measures: readonly { readonly ingredient: string; readonly preparation: string }[];
}

/** The foods of a table by their names and their other words; see `foodNames` for one that is ready. */
export function indexFoods(reference: Names): FoodIndex {
  const byKey = new Map<string, string>();
  const entries: { name: string; words: readonly string[] }[] = [];
  const put = (written: string, name: string) => {
    const words = written.split(' ').map(wordKey);
    if (!byKey.has(words.join(' '))) byKey.set(words.join(' '), name);
    entries.push({ name, words });
  };
  // A food's own name wins over another's nickname.
  for (const { name } of reference.ingredients) put(name, name);
  for (const { name } of reference.ingredients) for (const other of OTHER_NAMES[name] ?? []) put(other, name);
  const raw = new Set(
    reference.measures.flatMap(({ ingredient, preparation }) => (preparation === 'raw' ? [ingredient] : [])),
  );
  return { byKey, entries, raw, vocabulary: vocabularyOf(entries) };
}

function vocabularyOf(entries: FoodIndex['entries']): FoodIndex['vocabulary'] {
  const vocabulary = new Map<string, Map<string, number[]>>();
  for (const [at, { words }] of entries.entries()) {
    for (const word of words) {
      const letter = word[0] ?? '';
      const own = vocabulary.get(letter) ?? new Map<string, number[]>();
      vocabulary.set(letter, own);
      const places = own.get(word);
      if (places) places.push(at);
      else own.set(word, [at]);
    }
  }
  return vocabulary;
}

/**
 * One form for a word however it is capitalised, accented, or whether it is one or many: "Tomatoes" is "tomato".
 *
 * @example
 * wordKey('Tomatoes,') //=> 'tomato'
 */
export function wordKey(word: string): string {
  const plain = word
    .toLowerCase()
    .replace(/’/g, "'")
    .replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}'&]+$/gu, '');
  if (plain.length <= 3) return plain;
  if (plain.endsWith('leaves')) return `${plain.slice(0, -6)}leaf`;
  if (plain.endsWith('halves')) return `${plain.slice(0, -6)}half`;
  if (plain.endsWith('loaves')) return `${plain.slice(0, -6)}loaf`;
  if (/(?:[bcdfghjklmnpqrstvwxz])ies$/.test(plain)) return `${plain.slice(0, -3)}y`;
  if (/(?:tomato|potato|mango|ch|sh|x|ss)es$/.test(plain)) return plain.slice(0, -2);
  if (/s$/.test(plain) && !/(?:ss|us|is)$/.test(plain)) return plain.slice(0, -1);
  return plain;
}

/** Every food named among words, longest first; of the same length the later one, which is the head of its noun. */
export function foodsAmong(words: readonly string[], index: FoodIndex): FoundFood[] {
  const keys = words.map(wordKey);
  const found: FoundFood[] = [];
  for (let length = Math.min(LONGEST_NAME, keys.length); length > 0; length--) {
    for (let from = keys.length - length; from >= 0; from--) {
      const name = index.byKey.get(keys.slice(from, from + length).join(' '));
      if (name) found.push({ name, from, to: from + length });
    }
  }
  return found;
}

/**
 * Foods that may be meant by words that name none: those that share words, or are a letter or two away.
 *
 * @returns names of the reference table, the likeliest first
 * @example
 * nearFoods('carrott', foodNames(TYPICAL), 1) //=> ['carrot']
 */
export function nearFoods(text: string, index: FoodIndex, most = 5): string[] {
  const words = text
    .split(/[\s,]+/)
    .map(wordKey)
    .filter((word) => word.length > 2);
  if (words.length === 0) return [];
  // The first letter is seldom wrong, unless it has changed places with the second.
  const sums = new Map<number, number>();
  for (const word of words) {
    const best = new Map<number, number>();
    for (const letter of new Set([word[0], word[1]]))
      for (const [other, places] of index.vocabulary.get(letter ?? '') ?? []) {
        const like = likeness(word, other);
        if (like > 0) for (const place of places) best.set(place, Math.max(like, best.get(place) ?? 0));
      }
    for (const [place, like] of best) sums.set(place, (sums.get(place) ?? 0) + like);
  }
  const scores = new Map<string, number>();
  for (const [place, score] of sums) {
    const { name, words: own } = index.entries[place] as FoodIndex['entries'][number];
    // Words of the name that were not written speak against it.
    const whole = score / (words.length + 0.3 * Math.max(0, own.length - words.length));
    if (whole > (scores.get(name) ?? 0)) scores.set(name, whole);
  }
  return [...scores]
    .filter(([, score]) => score > 0.3)
    .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
    .slice(0, most)
    .map(([name]) => name);
}

/** 1 for the same word, less for one a letter or two away, 0 for another. */
function likeness(a: string, b: string): number {
  if (a === b) return 1;
  if (Math.abs(a.length - b.length) > 2 || a.length < 4 || b.length < 4) return 0;
  const distance = editDistance(a, b, 2);
  const allowed = Math.min(a.length, b.length) >= 7 ? 2 : 1;
  return distance <= allowed ? 0.9 - 0.2 * distance : 0;
}

/** Letters to change, add, take away or swap with their neighbour (Damerau and Levenshtein), up to a limit. */
function editDistance(a: string, b: string, limit: number): number {
  let [before, above] = [[] as number[], Array.from({ length: b.length + 1 }, (_, n) => n)];
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    let least = i;
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1];
      let cost = Math.min(
        (above[j] as number) + 1,
        (row[j - 1] as number) + 1,
        (above[j - 1] as number) + (same ? 0 : 1),
      );
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        cost = Math.min(cost, (before[j - 2] as number) + 1);
      row.push(cost);
      least = Math.min(least, cost);
    }
    if (least > limit) return limit + 1;
    [before, above] = [above, row];
  }
  return above[b.length] as number;
}

/** Words that steps use for a kind of food, whatever its name: "the pasta" for macaroni. */
const KINDS: readonly (readonly [word: string, foods: RegExp])[] = [
  ['pasta', /macaroni|spaghetti|penne|fusilli|lasagne|pasta/],
  ['noodles', /noodles/],
  ['wraps', /tortilla/],
  ['corn', /sweetcorn|^corn on/],
  ['meat', /beef|pork|lamb|minced|bacon|ham$/],
  ['mince', /minced/],
  ['chicken', /chicken/],
  ['fish', /fish|salmon|tuna|anchovies/],
  ['greens', /spinach|kale|chard|pak choi|rocket|lettuce|salad leaves/],
  ['herbs', /^fresh |^dried (?:oregano|thyme|basil|rosemary|sage|dill|parsley|mint)|chives|mixed dried herbs/],
  ['spices', /^ground |paprika|curry powder|garam masala|mixed spice|chilli|seeds$/],
  ['berries', /berries/],
  ['nuts', /walnuts|almonds|hazelnuts|pecans|cashews|pistachios|peanuts/],
  ['oil', / oil$/],
  ['yeast', /yeast/],
  ['stock', /stock/],
  ['sugar', /sugar/],
];

/** The kinds that a food is one of, in the form that words are compared in. */
export const kindsOf = (name: string): string[] =>
  KINDS.flatMap(([word, foods]) => (foods.test(name) ? [wordKey(word)] : []));
