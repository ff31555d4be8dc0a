import { AmountError } from '../../quantity/rational';
import { type FoodIndex, type FoundFood, foodsAmong, nearFoods, wordKey } from '../../reference/food-finder';
import { foodNames, type Reference } from '../../reference/reference';
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
  /** What stands in the line and was not understood: another food ("with almonds"), or a word that nothing is known of. */
  readonly unexplained: readonly string[];
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
  const index = foodNames(reference);
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
    .replace(/(\p{L})\/(?=[\d½⅓⅔¼¾⅛])/gu, '$1 / ')
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
  const each = eachOf(line, index);
  if (each.length > 0) return each;
  const second = secondOf(line, index);
  if (second) return [readOne(second.first, index), ...readParts(second.rest, index)];
  return [readOne(line, index)];
}

/** "1 tsp each cumin, coriander and turmeric", "cumin and paprika, 1 tsp each", "a pinch of salt and pepper": as much of each. */
function eachOf(line: string, index: FoodIndex): ReadPart[] {
  const [, amount = '', foods = ''] = EACH.exec(line) ?? PINCH_OF.exec(line) ?? turned(EACH_BEHIND.exec(line));
  const names = foods.split(/, ?(?:and |& )?| and | & /i).filter(Boolean);
  if (names.length < 2 || !names.some((name) => surely(name, index))) return [];
  return names.map((name) => readOne(`${amount} ${name}`, index));
}

const turned = (found: RegExpExecArray | null): string[] => (found ? [found[0], found[2] ?? '', found[1] ?? ''] : []);

/** What joins a second food with an amount of its own to a line: "2 eggs, 100 ml milk", "beaten with 1 tsp oil". */
const JOINED =
  /(?:,? (?:plus|and|with|mixed with|beaten with|whisked with|dissolved in|made with|in)| ?[+&;,]) (?=(?:an? |half |one |two |three )?[\d½⅓⅔¼¾⅛]|an? (?:pinch|dash|handful|knob|few|splash|little) )/giu;

/** A line that names a second food with an amount of its own, parted before it; undefined for any other line. */
function secondOf(line: string, index: FoodIndex): { first: string; rest: string } | undefined {
  for (const joined of line.matchAll(JOINED)) {
    const first = line.slice(0, joined.index);
    const rest = line.slice(joined.index + joined[0].length);
    const own = safely(first).found;
    const other = safely(rest).found;
    if (!own.amount || (!other.amount && !other.vague)) continue;
    const [one, two] = [settle(own.rest, index).ingredient, settle(other.rest, index).ingredient];
    if (one && two && one !== two) return { first, rest };
  }
  return undefined;
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
const PINCH_OF =
  /^((?:an? |1 )?(?:generous |good |small )?(?:pinch|dash)) (?:each )?of (\p{L}[\p{L}, ]*? (?:and|&) \p{L}[\p{L} ]*)$/iu;
const EACH = /^(\S+(?: \S+){0,2}?) each (?:of )?(\p{L}[\p{L}, &]*)$/u;
const EACH_BEHIND = /^(\p{L}[\p{L}, &]*?),? ([\d½⅓⅔¼¾⅛]\S*(?: \S+){0,2}) each$/u;
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
  const food = settleDried(orElse ? (orElse[1] as string) : rest, index);
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
    unexplained: food.ingredient
      ? unexplainedIn([partOf, food.before, food.after].join(', '), food.ingredient, index)
      : [],
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

/** What was soaked was dried: "kidney beans, soaked" come in no can. */
function settleDried(text: string, index: FoodIndex): Settled {
  const dried = /\bsoaked\b/i.test(text) ? settle(`dried ${text}`, index) : undefined;
  return dried?.ingredient?.startsWith('dried ') ? dried : settle(text, index);
}

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
    const rest = segments.slice(at + 1);
    const after = [settled.after, ...rest.filter((each) => !/^or /i.test(each))].filter(Boolean).join(', ');
    const others = rest.flatMap((each) => (/^or /i.test(each) ? [each.slice(3)] : []));
    return { ...settled, before, after, alternatives: [...settled.alternatives, ...others] };
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
  // "Fresh tuna" comes in no can: which food is meant is asked.
  if (before.some((word) => /^fresh$/i.test(word)) && isPreserved(found.name, written)) return undefined;
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
  cooled chopped diced cubed sliced grated shredded minced mashed halved quartered crumbled drained rinsed peeled trimmed cored seeded
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

/** What a food lies in when it is bought: said of it, and no second food. */
const PACKED_IN =
  /\b(?:in|with) (?:(?:its|their|own|spring|salted|natural|light|heavy|unsweetened|tomato|extra virgin|olive|sunflower|vegetable|rapeseed) )*(?:water|brine|oil|juices?|syrup|skins?|stones?|bones?|shells?|stems?|leaves|tops?|stalks?)\b/giu;

/** "70% cocoa", "5% fat": how strong it is. */
const SHARE = /\b\d{1,3} ?% (?:cocoa|cacao|fat|meat|fruit)(?: solids)?\b/giu;

/** What stands in a line beside its food and says neither how it is prepared nor what for: each must be asked about. */
function unexplainedIn(text: string, ingredient: string, index: FoodIndex): string[] {
  const parts = text
    .replace(PACKED_IN, ' ')
    .replace(SHARE, ' ')
    .split(/[,;()]/);
  return parts.flatMap((part) => {
    const words = part.match(/[\p{L}\p{M}][\p{L}\p{M}'’-]*/gu) ?? [];
    const own = new Set(ingredient.split(' ').map(wordKey));
    const isSaid = (word: string) =>
      isQualifier(word) || PARTS.has(wordKey(word)) || SAID.has(wordKey(word)) || own.has(wordKey(word));
    const foods = foodsAmong(words, index).filter(
      ({ name, from, to }) => name !== ingredient && !words.slice(from, to).every(isSaid),
    );
    const [food] = foods;
    if (food) return [words.join(' ')];
    return words.filter(
      (word) => !isSaid(word) && !word.split(/[-’']/).every((piece) => piece === '' || isSaid(piece)),
    );
  });
}

/** Words that say how, how much, where and what for; they name no food and none of them adds one. */
const SAID = list(`
  a an the of or and with without in into to for from at on as by until about approximately roughly around plus per if it its
  their each any some more extra optional divided needed desired required serve serving served garnish garnishing decorate
  decoration decorating finish finishing dusting dust drizzle drizzling greasing grease frying fry brushing brush rolling roll
  sprinkling sprinkle cooking baking topping dipping coating tossing use using used see note recipe below above method tip such
  like your own choice favourite favorite preferably ideally well very just only not too you can be have has been that which is
  are was were lot lots little bit few piece pieces chunk chunks strip strips ring rings round rounds wedge wedges cube cubes
  stick sticks matchstick matchsticks baton batons ribbon ribbons half halves quarter quarters third thirds dice slice slices
  bite-sized bite sized size inch inches cm mm thick thickness long length lengthways lengthwise crosswise crossways across
  diagonal diagonally side sides end ends top tail tailed topped root trim skin skins skin-on bone bones bone-in stone stones pit
  pits seed seeds core cores stalk stalks stem stems shell shells fat rind crust crusts crustless outer inner tough woody hard
  leaf leaves picked pulled stripped separated separate discarded discard removed remove reserved reserve saved save kept keep
  taste temperature room room-temperature overnight hour hours minute minutes min mins day days night time ahead advance
  overripe ripe under underripe green red yellow orange white black brown purple dark light pale golden mixed assorted
  g kg mg ml l dl oz lb lbs cup cups tbsp tsp tablespoon tablespoons teaspoon teaspoons pint pints litre litres liter liters
  total weight net gross dry wet raw cooked cooled cool cold hot warm warmed heated reheated fridge freezer frozen thawed
  box pack packet can tin jar bag tub bunch handful pinch dash knob sprig head bulb clove cloves ear ears
  strained pressed squeezed pureed puréed blended whizzed processed pulsed ground milled freshly finely coarsely roughly thinly
  thickly lightly firmly loosely tightly evenly gently quickly rubbed bruised smashed bashed cracked broken snapped scored pricked
  pierced butterflied flattened pounded tenderised tenderized sliced shaved julienned spiralised spiralized riced diced slivered
  flaked toasted roasted charred grilled barbecued fried boiled parboiled par-boiled blanched steamed poached braised stewed
  simmered caramelised caramelized softened melted browned dry-roasted dry-fried soaked steeped rehydrated reconstituted
  sprouted hulled husked dehusked shelled podded topped-and-tailed hulls washed dried patted wiped rinsed drained scrubbed
  scalded salted unsalted sweetened unsweetened sifted sieved whisked beaten whipped separated yolk yolks white whites
  lightly-beaten stiff peaks soft firm set chilled freeze-dried vacuum-packed ready-cooked ready-made ready-to-eat ready shop-bought
  store-bought homemade home-made good best quality good-quality best-quality high low fat-free full-fat low-fat reduced-fat
  semi-skimmed skimmed whole wholegrain wholewheat wholemeal organic free-range local seasonal fresh grass-fed lean rindless
  boned deboned de-boned boneless skinless filleted gutted scaled cleaned deveined de-veined peeled unpeeled trimmed cored
  deseeded de-seeded seeded unseeded seedless pitted destoned de-stoned stoned zested juiced hollowed scooped opened unwrapped
  cut chopped torn shredded grated crumbled crushed mashed minced cubed halved quartered split left wholes large-ish medium-sized
  heaped heaping level rounded scant generous good full packed loosely-packed firmly-packed standard regular
  zest juice peel flesh floret florets heart hearts tender young old baby
  straight standing rested resting proved risen dissolved stirred shaken tossed folded mixed combined together separately
  first second third last one two three four five six eight ten twelve dozen couple several
  slow quick quick-cook easy-cook instant fast-action fast easy-blend active strong mild medium-hot sweet sour tart bitter
  smooth crunchy chunky coarse fine extra-fine superfine natural pure plain neutral flavourless flavorless
  please thanks ok fine-grained type variety kind brand similar equivalent alternatively else maybe more-or-less
  according packet instructions directions label stated
  crosswise-cut sun-dried air-dried oven-dried day-old stale leftover
  juices also then
  fillet fillets breast breasts thigh thighs rasher rashers loin leg shoulder mince
  edible waxy floury all-purpose glaze glazing moon moons half-moons triangle triangles pan tray bowl mug plate julienned coins
  spears ribboned fork knife spoon hand hands dissolving soften melting marinate marinating stirring scattering scatter sprinkled
`);
