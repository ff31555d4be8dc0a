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
  /** By the words of its name, those before its noun in order of the alphabet; a name whose words another food has too is not among them. */
  readonly byWords: ReadonlyMap<string, string>;
  /** Fruit and vegetables: a colour or the name of a sort leaves them the same food. */
  readonly produce: ReadonlySet<string>;
  /** Foods that are weighed raw: grains, pulses, pasta. */
  readonly raw: ReadonlySet<string>;
  /** Every name, in words of one form, for finding what was nearly written. */
  readonly entries: readonly { readonly name: string; readonly words: readonly string[] }[];
  /** Places in `entries` by each word that occurs, under the word's first letter. */
  readonly vocabulary: ReadonlyMap<string, ReadonlyMap<string, readonly number[]>>;
}

/** As much of a reference table as names need. */
interface Names {
  readonly ingredients: readonly { readonly name: string; readonly aisle?: string }[];
  readonly measures: readonly { readonly ingredient: string; readonly preparation: string }[];
  readonly words?: Readonly<Record<string, string>>;
}

/** The foods of a table by their names and their other words; see `foodNames` for one that is ready. */
export function indexFoods(reference: Names): FoodIndex {
  const byKey = new Map<string, string>();
  const byWords = new Map<string, string>();
  const entries: { name: string; words: readonly string[] }[] = [];
  const put = (written: string, name: string) => {
    const words = written.split(' ').map(wordKey);
    if (!byKey.has(words.join(' '))) byKey.set(words.join(' '), name);
    entries.push({ name, words });
    if (words.length > 1) {
      const key = wordsKey(words);
      byWords.set(key, (byWords.get(key) ?? name) === name ? name : '');
    }
    // "Self raising flour" for "self-raising flour".
    if (!written.includes('-')) return;
    const parted = written.replaceAll('-', ' ').split(' ').map(wordKey).join(' ');
    if (!byKey.has(parted)) byKey.set(parted, name);
  };
  // A food's own name wins over another's nickname.
  for (const { name } of reference.ingredients) put(name, name);
  for (const { name } of reference.ingredients) for (const other of OTHER_NAMES[name] ?? []) put(other, name);
  // What a coordinator answered goes behind what the table says.
  for (const [word, name] of Object.entries(reference.words ?? {})) put(word, name);
  const raw = new Set(
    reference.measures.flatMap(({ ingredient, preparation }) => (preparation === 'raw' ? [ingredient] : [])),
  );
  const produce = new Set(
    reference.ingredients.flatMap(({ name, aisle }) => (aisle === 'produce' || name === 'olives' ? [name] : [])),
  );
  return { byKey, byWords, entries, raw, produce, vocabulary: vocabularyOf(entries) };
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
  if (/(?:ini|iwi|ati|oli|chi|zzi|ami)s$/.test(plain)) return plain.slice(0, -1);
  if (/s$/.test(plain) && !/(?:ss|us|is)$/.test(plain)) return plain.slice(0, -1);
  return plain;
}

/** Words each in one form, all but the last, which is the noun, in order of the alphabet. */
export function wordsKey(words: readonly string[]): string {
  const keys = words.map(wordKey);
  return [...keys.slice(0, -1).sort(), keys.at(-1)].join(' ');
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

/** Words that steps use for a kind of food, whatever its name: "the pasta" for macaroni. */
const KINDS: readonly (readonly [word: string, foods: RegExp])[] = [
  ['pasta', /macaroni|spaghetti|penne|fusilli|lasagne|pasta|orzo|tagliatelle|rigatoni|farfalle|gnocchi/],
  ['noodles', /noodles/],
  ['wraps', /tortilla/],
  ['corn', /sweetcorn|^corn on/],
  ['meat', /beef|pork|lamb|minced|bacon|ham$|sausage|gammon|chorizo/],
  ['bread', /bread|bun$|roll$|bagel|ciabatta|focaccia|brioche|baguette|muffin|tortilla|chapati/],
  ['cheese', /paneer|mascarpone|quark|queso|mozzarella/],
  ['peas', /mangetout|sugar snap/],
  ['mince', /minced/],
  ['chicken', /chicken/],
  ['fish', /fish|salmon|tuna|anchovies|mackerel|trout|sardines|haddock|bass|tilapia/],
  ['greens', /spinach|kale|chard|pak choi|rocket|lettuce|salad leaves|cavolo nero|greens|watercress/],
  ['herbs', /^fresh |^dried (?:oregano|thyme|basil|rosemary|sage|dill|parsley|mint)|chives|mixed dried herbs/],
  ['spices', /^ground |paprika|curry powder|garam masala|mixed spice|chilli|seeds$/],
  ['berries', /berries|currants$/],
  ['nuts', /walnuts|almonds|hazelnuts|pecans|cashews|pistachios|peanuts/],
  ['oil', / oil$/],
  ['yeast', /yeast/],
  ['stock', /stock/],
  ['sugar', /sugar/],
];

/** The kinds that a food is one of, in the form that words are compared in. */
export const kindsOf = (name: string): string[] =>
  KINDS.flatMap(([word, foods]) => (foods.test(name) ? [wordKey(word)] : []));
