import { AmountError } from '../quantity/rational';
import type { Reference } from '../reference/reference';
import {
  isPack,
  type Measured,
  type ReadAmount,
  readAmount,
  readMeasure,
  type Span,
  turnedRound,
  type WrittenUnit,
} from './amount-reader';
import { type FoodIndex, type FoundFood, foodIndex, foodsAmong, nearFoods, wordKey } from './food-finder';

/** What was understood of one ingredient: all of it is shown, none of it is guessed silently. */
export interface ReadPart {
  /** Undefined where the line leaves it open: "to taste", "some". */
  readonly amount: Span | undefined;
  readonly unit: WrittenUnit | undefined;
  /** "few" or "to taste" where no amount is written. */
  readonly vague: '' | 'few' | 'to taste';
  /** What one pack holds. */
  readonly pack: Measured | undefined;
  /** The same amount in other words: "(240 ml)". */
  readonly also: readonly Measured[];
  /** That amount is of each piece, not of all of them: "(125 g each)". */
  readonly alsoEach?: boolean;
  /** The words taken for the food. */
  readonly food: string;
  /** The food of the reference table; undefined when none is surely meant. */
  readonly ingredient: string | undefined;
  /** Foods that may be meant, the likeliest first; empty when one was found. */
  readonly suggestions: readonly string[];
  readonly preparation: string;
  readonly size: string;
  readonly optional: boolean;
  readonly divided: boolean;
  /** What could stand in its place, as written: "soy milk". */
  readonly alternatives: readonly string[];
  /** "Any of these": what could stand in its place fills it as well. */
  readonly isSlot?: boolean;
  /** It is the liquid of a can of the food. */
  readonly isReserved?: boolean;
  readonly assumed: readonly string[];
  /** What is wrong with the amount: "1/0" divides by 0; '' when nothing is. */
  readonly problem: string;
}

/** One ingredient line, read. Most have one part; "salt and pepper" has two. */
export interface ReadLine {
  /** As written, without bullets and odd spaces. */
  readonly text: string;
  readonly parts: readonly ReadPart[];
}

/** A line longer than this is a paragraph. */
export const LONGEST_LINE = 500;

/**
 * Reads an ingredient line as it comes from anywhere.
 *
 * @example readLine('1 (15 oz) can black beans, drained', TYPICAL).parts[0]
 * //=> amount 1, unit can, pack 15 oz, ingredient "canned black beans", preparation "drained"
 * @returns at least one part; an ingredient that is not surely known is left undefined, with suggestions
 */
export function readLine(text: string, reference: Reference): ReadLine {
  const index = foodIndex(reference);
  const line = tidyLine(text.slice(0, 2 * LONGEST_LINE)).slice(0, LONGEST_LINE);
  return { text: line, parts: readParts(line, index) };
}

const BULLET = /^(?:[-•*–—·▪◦‣✓✔☐☑□○●◆▢♦]+|\[[ xX]?\]|\d{1,2}[.)])\s+(?=\S)/u;

/** Odd spaces, marks of direction, emoji and bullets taken away; fractions and dashes in one form. */
export function tidyLine(text: string): string {
  let line = text
    .normalize('NFC')
    .replace(/[\u200b-\u200f\u202a-\u202e\u2060-\u2069\ufeff\u00ad]/g, '')
    .replace(/[\u2044\u2215]/g, '/')
    .replace(/[\u2010-\u2012]/g, '-')
    .replace(/\p{Extended_Pictographic}\ufe0f?/gu, (sign) => (/[✓✔☑]/u.test(sign) ? '•' : ''))
    // "1 cup/240 ml": two measures.
    .replace(/(\p{L})\/(?=\d)/gu, '$1 / ')
    .replace(/\s+/g, ' ')
    .trim();
  for (let bullet = BULLET.exec(line); bullet; bullet = BULLET.exec(line)) line = line.slice(bullet[0].length);
  return line;
}

function readParts(line: string, index: FoodIndex): ReadPart[] {
  const slot = slotOf(line, index) ?? reservedLiquid(line, index);
  if (slot) return [slot];
  const part = PART_OF.exec(line);
  if (part) {
    const [, what = '', rest = ''] = part;
    return [readOne(rest, index, what.toLowerCase().replace(/\brind\b|\bpeel\b/, 'zest'))];
  }
  const two = BOTH.exec(line.replace(TO_TASTE, ''));
  if (two) {
    const sides = [two[1] as string, two[2] as string];
    // "Salt and pepper": two foods, when both are.
    if (sides.every((side) => surely(side, index)))
      return sides.map((side) => ({ ...readOne(side, index), vague: 'to taste' }));
  }
  const each = EACH.exec(line) ?? PINCH_OF.exec(line);
  if (each) {
    const [, amount = '', first = '', second = ''] = each;
    if (surely(first, index)) return [readOne(`${amount} ${first}`, index), readOne(`${amount} ${second}`, index)];
  }
  return [readOne(line, index)];
}

/** "500 g any of carrots, courgettes or peppers": the first fills it, the others as well. */
const ANY_OF =
  /^(.*?)(?:of )?any (?:(?:one|two|three|mix(?:ture)?|combination) )?of (?:(?:these|those|the following)(?: \p{L}+)*:? ?)?(.+)$/iu;

function slotOf(line: string, index: FoodIndex): ReadPart | undefined {
  const [, amount = '', foods = ''] = ANY_OF.exec(line) ?? [];
  const fillings = foods
    .replace(/^\((.*)\)$/, '$1')
    .split(/, ?(?:or |and )?| or | and |; ?/i)
    .filter(Boolean);
  const [first, ...others] = fillings.filter((food) => surely(food, index));
  if (first === undefined || others.length === 0) return undefined;
  const unknown = fillings.filter((food) => !surely(food, index));
  const part = readOne(`${amount} ${first}`, index);
  return {
    ...part,
    alternatives: others,
    isSlot: true,
    assumed: [
      ...part.assumed,
      `filled with ${first}; ${others.join(', ')} fill it as well`,
      ...unknown.map((food) => `“${food}” is not known and does not fill it`),
    ],
  };
}

/** "100 ml reserved chickpea liquid", "the liquid from the canned chickpeas": poured off, where the table has such a can. */
const LIQUID =
  /^(.*?)(?:(?:the )?(?:liquid|liquor|brine|juice|water) (?:from|out of|of) (?:the |a )?(?:(?:can|tin|jar)s? of )?(.+)|(?:reserved|saved) (.+?) (?:can )?(?:liquid|liquor|brine|juice|water))$/i;

function reservedLiquid(line: string, index: FoodIndex): ReadPart | undefined {
  const found = LIQUID.exec(line);
  const food = (found?.[2] ?? found?.[3] ?? '').replace(/^(?:canned|tinned) /i, '');
  if (!found || !food) return undefined;
  const canned = settle(`canned ${food}`, index).ingredient;
  if (!canned?.startsWith('canned ')) return undefined;
  const amount = (found[1] ?? '').replace(/\b(?:of|reserved|saved)\b/gi, '').trim();
  return { ...readOne(`${amount} ${canned}`, index), preparation: 'liquid', isReserved: true };
}

const PART_OF =
  /^(?:the )?(?:(?:finely|coarsely|freshly|grated|pared|squeezed|strained|fresh) )*((?:juice|zest|rind|peel)(?: (?:and|&) (?:juice|zest|rind))?) of (.+)$/i;
const BOTH = /^(\p{L}[\p{L} ]*?) (?:and|&) (\p{L}[\p{L} ]*)$/u;
/** "Pinch of salt and pepper": as much of each. */
const PINCH_OF =
  /^((?:an? |1 )?(?:generous |good |small )?(?:pinch|dash)) (?:each )?of (\p{L}[\p{L} ]*?) (?:and|&) (\p{L}[\p{L} ]*)$/iu;
/** "1 teaspoon each cumin and paprika" */
const EACH = /^(\S+ ?\S* \S+?) each (?:of )?(\p{L}[\p{L} ]*?),? (?:and|&) (\p{L}[\p{L} ]*)$/u;
const TO_TASTE = /,? ?(?:or )?(?:to|for) taste$/i;

const surely = (words: string, index: FoodIndex) => settle(words, index).ingredient !== undefined;

function readOne(written: string, index: FoodIndex, partOf = ''): ReadPart {
  const measures: Measured[] = [];
  const alternatives: string[] = [];
  let optional = false;
  let alsoEach = false;
  // What stands in brackets: a measure, "optional", an alternative, or how it is prepared.
  let line = written.replace(/ ?[([]([^()[\]]*)[)\]]/g, (_, inside: string) => {
    const text = inside.trim();
    if (/^optional$/i.test(text)) optional = true;
    else if (/^or /i.test(text)) alternatives.push(text.slice(3));
    else {
      const each = / ?\b(?:each|apiece)$/i;
      if (each.test(text)) alsoEach = true;
      const found = text
        .replace(each, '')
        .split(/[;,]| \/ | or /)
        .map(readMeasure);
      if (found[0]) measures.push(...found.flatMap((each) => each ?? []));
      else if (/\p{L}{3}/u.test(text)) return `, ${text} `;
    }
    return ' ';
  });
  line = line
    .replace(/\s+/g, ' ')
    .replace(/ +,/g, ',')
    .replace(/,(?: ?,)+/g, ',')
    .replace(/^, |, $/g, '')
    .trim();
  if (/^optional:? /i.test(line) || /, ?optional$/i.test(line)) {
    optional = true;
    line = line.replace(/^optional:? |, ?optional$/gi, '');
  }
  const isToTaste = TO_TASTE.test(line);
  if (isToTaste) line = line.replace(TO_TASTE, '');
  const { found, problem } = safely(/^[\p{L}]/u.test(line) ? (turnedRound(line) ?? line) : line);
  const rest = found.rest.replace(/^[,;:] ?/, '');
  const orElse = /^(.+?) or ((?:\d|[½⅓⅔¼¾⅛]).+)$/u.exec(rest);
  if (orElse) alternatives.push(orElse[2] as string);
  const food = settle(orElse ? (orElse[1] as string) : rest, index);
  let unit = found.unit;
  if (food.piece && (unit === undefined || unit.key === 'pack')) unit = food.piece;
  if (unit?.key === 'stick' && food.ingredient && !/butter|margarine|lard/.test(food.ingredient))
    unit = { key: 'stalk', unit: undefined };
  if (unit === undefined && found.amount) unit = { key: 'each', unit: undefined };
  const pack = found.pack ?? (isPack(unit) ? measures[0] : undefined);
  const preparation = [partOf, food.part, found.fill, food.before, food.after].filter(Boolean);
  const vague = found.amount ? '' : found.vague || 'to taste';
  return {
    amount: found.amount,
    unit: vague ? undefined : unit,
    vague,
    pack,
    also: [...found.also, ...(pack === measures[0] ? measures.slice(1) : measures)],
    ...(alsoEach ? { alsoEach } : {}),
    food: food.words,
    ingredient: food.ingredient,
    suggestions: food.ingredient ? [] : nearFoods(food.words || rest, index),
    preparation: preparation.join(', '),
    size: found.size || food.size,
    optional,
    divided: /\bdivided\b/i.test(food.after),
    alternatives: [...food.alternatives, ...alternatives],
    assumed: found.assumed,
    problem,
  };
}

/** An amount that is none ("1/0") is said, and the rest of the line is read all the same. */
function safely(line: string): { found: ReadAmount; problem: string } {
  try {
    return { found: readAmount(line), problem: '' };
  } catch (error) {
    if (!(error instanceof AmountError)) throw error;
    return { found: readAmount(line.replace(/^\S+ ?/, 'some ')), problem: error.message };
  }
}

interface Settled {
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

/** Finds the food in what is left of a line, and sorts the words around it. */
function settle(text: string, index: FoodIndex): Settled {
  const segments = text.split(/, ?|; ?/).filter(Boolean);
  const behind: string[] = [];
  for (const [at, segment] of segments.entries()) {
    const settled = settleSegment(segment, index);
    if (!settled) {
      behind.push(segment);
      continue;
    }
    const before = [...behind, settled.before].filter(Boolean).join(', ');
    const after = [settled.after, ...segments.slice(at + 1)].filter(Boolean).join(', ');
    return { ...settled, before, after };
  }
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
  // "vegetable or chicken stock": the noun of the second belongs to both.
  for (let from = 1; from < right.length; from++) {
    const shared = [...left, ...right.slice(from)];
    const settled = settleWords(shared, index);
    if (settled && !settleWords(left, index) && foodsAmong(right, index)[0])
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
    !before.every((word) => isQualifier(word) || belongs(word, found.name, index)) ||
    !behind.every((word) => isQualifier(word) || PARTS.has(wordKey(word)) || PIECE_WORDS.has(wordKey(word)))
  )
    return undefined;
  const parts = behind.filter((word) => PARTS.has(wordKey(word)) && !/^lea(?:f|ves)$/i.test(word));
  const piece = behind.map(wordKey).find((word) => PIECE_WORDS.has(word));
  const size = before.find((word) => SIZES.test(word)) ?? '';
  const said = before.filter((word) => !SIZES.test(word) && !/^fresh$/i.test(word));
  const written = words.slice(found.from, found.to);
  // "freshly ground black pepper": how it is ground is part of the food's name, that it is fresh is not.
  if (/ly$/.test(said.at(-1) ?? '') && /ed$|^ground$/i.test(written[0] ?? '')) said.push(written[0] as string);
  const state = stateOf(said, found.name, index);
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

/** "Dried" is the same food only where it is weighed raw; "canned" only where the food of the table is. */
function belongs(word: string, name: string, { raw }: FoodIndex): boolean {
  if (/^(?:dry|dried)$/i.test(word)) return raw.has(name) || /pasta|noodles|spaghetti/.test(name);
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

const SIZES = /^(?:extra-?large|large|medium|small|big|medium-?sized?|large-?sized?|small-?sized?|baby)$/i;
const isQualifier = (word: string) =>
  QUALIFIERS.has(wordKey(word)) || SIZES.test(word) || /^(?:and|&|very)$/i.test(word) || /ly$/.test(word);

const list = (words: string) => new Set(words.trim().split(/\s+/).map(wordKey));

/** Words that say how a food is prepared or what it is like, and leave it the same food. */
const QUALIFIERS = list(`
  small medium large fresh ripe overripe raw cooked uncooked boneless skinless lean organic plain unsweetened sweetened
  chopped diced cubed sliced grated shredded minced mashed halved quartered crumbled drained rinsed peeled trimmed cored seeded
  deseeded pitted stoned hulled husked shelled crushed ground toasted roasted melted softened sifted packed beaten whisked
  squeezed zested juiced torn flaked blanched steamed boiled poached fried grilled baked thawed defrosted frozen chilled cold
  warm hot boiling lukewarm iced tepid heaped level rounded scant whole split cut scrubbed washed cleaned thin thick fine coarse
  best-quality unpeeled unsalted salted skinned filleted smoked cured pressed soaked
  fast-action easy-blend easy-bake quick instant active
  leftover stale day-old young tender firm soft crisp crunchy smooth free-range reduced-fat low-fat low-sodium
  firmly-packed lightly-beaten white-part-only natural pure
`);

/** Parts of a food that are used, said behind it. */
const PARTS = list(
  'juice zest peel rind whites white yolks yolk leaves leaf florets floret wedges flesh tops stems stem hearts',
);

/** Pieces that stand behind the food they count. */
const PIECE_WORDS: ReadonlyMap<string, string> = new Map(
  Object.entries({
    clove: 'clove',
    stalk: 'stalk',
    stick: 'stalk',
    rib: 'stalk',
    slice: 'slice',
    sprig: 'sprig',
    fillet: 'each',
    breast: 'each',
  }),
);
