// The food in what is left of a line when its amount was read, and the words around it.
import { type FoodIndex, type FoundFood, foodsAmong, wordKey, wordsKey } from '../../reference/food-finder';
import { meantWord } from '../../reference/near-foods';
import { FORMS, isColour, isPartOf, isQualifier, isSaid, PARTS, PIECE_WORDS, QUALIFIERS, SIZES } from './line-words';
import type { WrittenUnit } from './unit-words';

/** The food of a line, and the words around it, sorted. */
export interface Settled {
  readonly words: string;
  readonly ingredient: string | undefined;
  /** "juice", "zest", "whites": the part of the food that is used. */
  readonly part: string;
  readonly before: string;
  readonly after: string;
  readonly size: string;
  readonly alternatives: readonly string[];
  /** The piece it is counted in, when that stands behind it: the cloves of "garlic cloves". */
  readonly piece: WrittenUnit | undefined;
}

/** Where what a food is made with or meant for begins. */
const PREPOSITION = /^(?:in|for|with|from|at|to|without|on|into|cut|torn|plus|about|such|like|per|dissolved)$/i;

/** "vanila", "tumeric": a letter off, and only one food's word is that near. */
export function settleMeant(text: string, index: FoodIndex): { settled: Settled; read: string } | undefined {
  const meant = text
    .split(' ')
    .map((word) => (isQualifier(word) || isSaid(word) ? word : (meantWord(word, index) ?? word)));
  const said = meant.join(' ');
  if (said === text) return undefined;
  const settled = settle(said, index);
  return settled.ingredient ? { settled, read: said } : undefined;
}

/** What was soaked was dried: "kidney beans, soaked" come in no can. */
export function settleDried(text: string, index: FoodIndex): Settled {
  const dried = /\bsoaked\b/i.test(text) ? settle(`dried ${text}`, index) : undefined;
  return dried?.ingredient?.startsWith('dried ') ? dried : settle(text, index);
}

const CUT = /^(?:chopped|diced|sliced|shredded|grated|cubed|minced|halved|quartered|torn|crumbled|flaked)$/i;

const KEPT_AS = /^(?:freshly )?(fresh|ground|dried|frozen|canned|tinned|smoked|pickled)$/i;

/** "Thyme, dried", "apricots dried": written as in an index, it is the dried food where the table has one. */
function turned(segments: readonly string[], index: FoodIndex): readonly string[] {
  const [first = '', second = '', ...rest] = segments;
  const behind = KEPT_AS.exec(second)?.[1];
  const end = first.split(' ').at(-1) ?? '';
  const [food, state, after] = behind
    ? [first, behind, rest]
    : KEPT_AS.test(end)
      ? [first.slice(0, -end.length - 1), end, segments.slice(1)]
      : ['', '', []];
  if (!food || !state) return segments;
  const whole = `${state} ${food}`;
  const key = whole.split(' ').map(wordKey).join(' ');
  return index.byKey.has(key) ? [whole, ...after] : segments;
}

/** Finds the food in what is left of a line, and sorts the words around it. */
export function settle(text: string, index: FoodIndex): Settled {
  const segments = turned(text.split(/, ?|; ?/).filter(Boolean), index);
  const behind: string[] = [];
  for (const [at, segment] of segments.entries()) {
    const settled = settleSegment(segment, index);
    if (!settled) {
      behind.push(segment);
      continue;
    }
    const before = [...behind, settled.before].filter(Boolean).join(', ');
    const rest = segments.slice(at + 1);
    const after = [settled.after, ...rest.filter((each) => !/^or /i.test(each))].filter(Boolean).join(', ');
    const others = rest.flatMap((each) => (/^or /i.test(each) ? [each.slice(3)] : []));
    return { ...settled, before, after, alternatives: [...settled.alternatives, ...others] };
  }
  // "Cooked, diced chicken", "frozen chopped spinach": cut or not, it is the cooked, the frozen food.
  const uncut = text.split(/[ ,;]+/).filter((word) => !CUT.test(word));
  if (uncut.length < text.split(/[ ,;]+/).length) {
    const found = foodsAmong(uncut, index).find(({ from, to }) => from === 0 && to === uncut.length);
    if (found)
      return {
        words: uncut.join(' '),
        ingredient: found.name,
        part: '',
        before: '',
        after: text
          .split(/[ ,;]+/)
          .filter((word) => CUT.test(word))
          .join(', '),
        size: '',
        alternatives: [],
        piece: undefined,
      };
  }
  // "Dried mixed herbs", "dark brown soft sugar": the words of one food, in another order or with one between them.
  const [whole = '', ...how] = segments;
  const loose = namedLoosely(whole, index);
  if (loose)
    return {
      words: whole,
      ingredient: loose,
      part: '',
      before: '',
      after: how.join(', '),
      size: '',
      alternatives: [],
      piece: undefined,
    };
  const [first = '', ...others] = segments;
  const words = first.split(' ').filter((word) => !QUALIFIERS.has(wordKey(word)));
  return {
    words: words.join(' '),
    ingredient: undefined,
    part: '',
    before: '',
    after: others.join(', '),
    size: '',
    alternatives: [],
    piece: undefined,
  };
}

/** The food whose name has just these words, in whatever order; words that only say how it comes may stand among them. */
function namedLoosely(segment: string, index: FoodIndex): string | undefined {
  const words = segment.split(' ').filter(Boolean);
  if (words.length < 2 || words.length > 5) return undefined;
  // The last word is the noun: chocolate milk is no milk chocolate, and crisps are no ketchup.
  const plain = words.filter((word, at) => at === words.length - 1 || !QUALIFIERS.has(wordKey(word)));
  for (const some of [words, plain]) {
    const named =
      some.length > 1 ? (index.byKey.get(some.map(wordKey).join(' ')) ?? index.byWords.get(wordsKey(some))) : undefined;
    if (named) return named;
  }
  return undefined;
}

function settleSegment(segment: string, index: FoodIndex): Settled | undefined {
  const words = segment.split(/\s+/).filter((word) => word !== '');
  const or = words.findIndex((word) => /^or$/i.test(word));
  if (or > 0) return settleEither(words, or, index);
  return settleWords(words, index);
}

/** "milk or soy milk", "vegetable or chicken stock": the first is taken, the other can stand in its place. */
function settleEither(words: readonly string[], or: number, index: FoodIndex): Settled | undefined {
  const left = words.slice(0, or);
  const right = words.slice(or + 1);
  // "vegetable or chicken stock": the noun of the second belongs to both, where it is near.
  for (let from = 1; from < Math.min(right.length, 8); from++) {
    const shared = [...left, ...right.slice(from)];
    const settled = settleWords(shared, index);
    // "Pumpkin or sunflower seeds": a food of its own, though the first word alone is one too.
    const isOwn = index.byKey.has(shared.map(wordKey).join(' ')) && settleWords(right, index);
    if (settled && (isOwn || !settleWords(left, index)) && foodsAmong(right, index)[0])
      return { ...settled, alternatives: [right.join(' ')] };
  }
  const own = settleWords(left, index);
  if (own) return settleWords(right, index) || right.length > 0 ? { ...own, alternatives: [right.join(' ')] } : own;
  return settleWords(words, index);
}

function settleWords(words: readonly string[], index: FoodIndex): Settled | undefined {
  const end = words.findIndex((word, at) => at > 0 && PREPOSITION.test(word));
  const main = end < 0 ? words : words.slice(0, end);
  const rest = end < 0 ? [] : words.slice(end);
  const whole = foodsAmong(words, index).find(({ from, to }) => to - from >= 3);
  const tries = whole ? [whole, ...foodsAmong(main, index)] : foodsAmong(main, index);
  for (const found of tries) {
    const settled = around(found, found === whole ? words : main, found === whole ? [] : rest, index);
    if (settled) return settled;
  }
  return undefined;
}

/** The words before and behind a food, if all of them only say how it is prepared; undefined when one may change the food. */
function around(
  found: FoundFood,
  words: readonly string[],
  rest: readonly string[],
  index: FoodIndex,
): Settled | undefined {
  const before = words.slice(0, found.from);
  const behind = words.slice(found.to);
  if (
    !before.every(
      (word) =>
        isQualifier(word) || belongs(word, found.name, index) || (index.produce.has(found.name) && isColour(word)),
    ) ||
    !behind.every(
      (word) =>
        isQualifier(word) ||
        isPartOf(word, found.name) ||
        PIECE_WORDS.has(wordKey(word)) ||
        FORMS.has(wordKey(word)) ||
        // "mozarella cheese": the food by a short name of it, and the noun of its whole one.
        wordKey(word) === wordKey(found.name.split(' ').at(-1) ?? ''),
    )
  )
    return undefined;
  const parts = behind.filter((word) => PARTS.has(wordKey(word)) && !/^lea(?:f|ves)$/i.test(word));
  const piece = behind.map(wordKey).find((word) => PIECE_WORDS.has(word));
  const size = before.find((word) => SIZES.test(word)) ?? '';
  const said = before.filter((word) => !SIZES.test(word) && !/^fresh$/i.test(word));
  const written = words.slice(found.from, found.to);
  if (
    [...before, ...behind].some((word) => isOtherFood(word, found.name, index)) ||
    /^(?:crisps|fat)$/i.test(behind.at(-1) ?? '')
  )
    return undefined;
  // "Fresh tuna" comes in no can: which food is meant is asked.
  if (before.some((word) => /^fresh$/i.test(word)) && isPreserved(found.name, written)) return undefined;
  // "freshly ground black pepper": how it is ground is part of the food's name, that it is fresh is not.
  if (/ly$/.test(said.at(-1) ?? '') && /ed$|^ground$/i.test(written[0] ?? '')) said.push(written[0] as string);
  const state = stateOf(said, frozenOf(found.name, before, index), index);
  return {
    words: written.join(' '),
    // The plural is the vegetable: nobody grinds two of the spice.
    ingredient:
      state.name === 'ground black pepper' && /^peppers$/i.test(written.join(' ')) ? 'sweet pepper' : state.name,
    part: parts.join(' '),
    before: state.before.join(' ').replace(/^and /i, ''),
    after: [
      behind.filter((word) => !PARTS.has(wordKey(word)) && !PIECE_WORDS.has(wordKey(word))).join(' '),
      rest.join(' '),
    ]
      .filter(Boolean)
      .join(' '),
    size: size.replace(/[- ]?sized?$/i, ''),
    alternatives: [],
    piece: piece ? { key: PIECE_WORDS.get(piece) as string, unit: undefined } : undefined,
  };
}

/** Words that make another food of one: from another part, or kept another way. */
const OTHER_FOODS: readonly (readonly [foods: RegExp, words: RegExp])[] = [
  [/^(?!.*corn)/, /^kernels?$/i],
  [/onion/, /^rings$/i],
  [/corn/, /^baby$/i],
  [/^garlic$/, /^black$/i],
  [/^egg$/, /^(?:salted|powdered)$/i],
];

/** "Lentil crisps", "apricot kernels", "ground cherries": no longer the food they are named for. */
const isOtherFood = (word: string, name: string, { produce }: FoodIndex) =>
  (produce.has(name) && /^ground$/i.test(word)) ||
  OTHER_FOODS.some(([foods, words]) => foods.test(name) && words.test(word));

/** Whether the table's food is a preserved form that the written words do not name. */
const isPreserved = (name: string, written: readonly string[]) => {
  const [state] =
    /^(?:dried|dry|canned|frozen|ground|smoked|roasted|sun-dried)(?= )|macaroni|spaghetti|penne|fusilli|lasagne|pasta|noodles/.exec(
      name,
    ) ?? [];
  return (
    state !== undefined &&
    !written.some(
      (word) =>
        word.toLowerCase() === state && /^(?:dried|dry|canned|frozen|ground|smoked|roasted|sun-dried)$/.test(state),
    )
  );
};

/** "Frozen chopped spinach" is the frozen food, where the table has one. */
const frozenOf = (name: string, before: readonly string[], { byKey }: FoodIndex): string =>
  (before.some((word) => /^frozen$/i.test(word)) &&
    byKey.get(
      `frozen ${name
        .replace(/^fresh /, '')
        .split(' ')
        .map(wordKey)
        .join(' ')}`,
    )) ||
  name;

/** Breads and pasta of the whole grain, where the table has none of their own, weigh the same. */
const WHOLEMEAL = /^(?:whole-?wheat|whole-?grain|wholemeal|multi-?grain|seeded)$/i;
const OF_GRAIN =
  /bread|chapati|wrap|crackers|pitta|tortilla|bun$|roll$|bagel|muffin|naan|macaroni|spaghetti|penne|fusilli|tagliatelle|lasagne/;

/** "Dried" is the same food only where it is weighed raw; "canned" only where the food of the table is. */
function belongs(word: string, name: string, { raw }: FoodIndex): boolean {
  if (WHOLEMEAL.test(word)) return OF_GRAIN.test(name);
  if (/^(?:dry|(?:\w+-)?dried)$/i.test(word)) return raw.has(name) || /pasta|noodles|spaghetti/.test(name);
  return /^(?:canned|tinned)$/i.test(word) && name.startsWith('canned ');
}

/** Foods that are weighed raw and cooked differently; a cooked amount of canned beans is one of dried beans, cooked. */
function stateOf(before: readonly string[], name: string, index: FoodIndex): { name: string; before: string[] } {
  const isCooked = before.some((word) => /^cooked$/i.test(word));
  const dried = name.replace(/^canned /, 'dried ');
  const swapped = isCooked && dried !== name && index.byKey.has(dried.split(' ').map(wordKey).join(' ')) ? dried : name;
  return {
    name: swapped,
    before: before
      .filter((word) => !/^(?:canned|tinned)$/i.test(word))
      .map((word) => (/^(?:dry|dried|uncooked)$/i.test(word) ? 'raw' : word)),
  };
}

/** Whether words name a food of the table, and nothing that nothing is known of. */
export const surely = (words: string, index: FoodIndex) => settle(words, index).ingredient !== undefined;

/** A can holds the canned food, whatever the line calls it: "1 can of lentils". Fruit and vegetables that the table has only fresh are asked about. */
export function preserved(food: Settled, unit: WrittenUnit | undefined, index: FoodIndex): Settled {
  if (unit?.key !== 'can' || food.ingredient?.startsWith('canned ')) return food;
  for (const words of [food.words, food.ingredient ?? food.words]) {
    const canned = index.byKey.get(`canned ${words.split(' ').map(wordKey).join(' ')}`);
    if (canned) return { ...food, ingredient: canned };
  }
  return food.ingredient && index.produce.has(food.ingredient)
    ? { ...food, words: `canned ${food.words}`, ingredient: undefined }
    : food;
}
