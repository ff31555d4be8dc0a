import { compare, ONE } from '../../quantity/rational';
import { type FoodIndex, foodsAmong, wordKey } from '../../reference/food-finder';
import { nearFoods } from '../../reference/near-foods';
import { foodNames, type Reference } from '../../reference/reference';
import { type Measured, readMeasure, type Span, turnedRound } from './amount-reader';
import {
  BETWEEN_KINDS,
  COUNTED,
  isKind,
  isMix,
  isOnlyMeasure,
  isSame,
  KINDS,
  ofKind,
  PART_OF_PACK,
  safely,
} from './line-brackets';
import { eitherOf, isFreshlyChopped, SPICE_TOO } from './line-either';
import { preserved, type Settled, settle, settleDried, settleMeant, surely } from './line-food';
import { spellOut, withoutRemarks } from './line-spelling';
import { unexplainedIn } from './unexplained';
import { isPack, type WrittenUnit } from './unit-words';

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
  /** "1 lb macaroni, cooked": it is cooked once it was measured, or so it is written. */
  readonly cookedAfter?: boolean;
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
  const { text: plain, remarks } = withoutRemarks(spellOut(withoutHead(line, index)));
  const parts = byExample(readParts(plain || line, index), remarks, index);
  if (remarks.length === 0) return { text: line, parts };
  const own = new Set(parts.flatMap(({ ingredient }) => (ingredient ? keysOf(ingredient) : [])));
  // "Plus a handful of almonds to serve": more of another food is no remark.
  const foods = remarks.filter(
    (remark) =>
      MORE_OF.test(remark) && foodsIn(remark, index).some((name) => !keysOf(name).some((key) => own.has(key))),
  );
  const said = (part: ReadPart): ReadPart => ({
    ...part,
    unexplained: [...part.unexplained, ...foods],
    preparation: [part.preparation, ...remarks].filter(Boolean).join(', '),
  });
  return { text: line, parts: [...parts.slice(0, -1), said(parts.at(-1) as ReadPart)] };
}

const MORE_OF =
  /^(?:(?:\+|plus|and|with|\(note:) |depending on (?!how|what|the|your|whether|if)|(?:until|till)\b.*\b(?:with|in) )/i;
const keysOf = (name: string): string[] => name.split(' ').map(wordKey);
const foodsIn = (text: string, index: FoodIndex): string[] =>
  foodsAmong(text.match(/[\p{L}'’-]+/gu) ?? [], index).map(({ name }) => name);

/** "Fresh herbs such as parsley or chives": a kind that is no food of the table is the first of those that are named for it. */
function byExample(parts: readonly ReadPart[], remarks: readonly string[], index: FoodIndex): readonly ReadPart[] {
  const [part] = parts;
  const said = remarks.flatMap((remark) => /^(?:such as|like|e\.?g\.?),? (.+)$/i.exec(remark)?.[1] ?? [])[0];
  if (!part || parts.length > 1 || part.ingredient || said === undefined) return parts;
  const named = said
    .split(/, ?(?:or |and )?| or | and /i)
    .map((name) => (/^fresh /.test(part.food) ? `fresh ${name}` : name));
  const [first, ...others] = named.filter((name) => surely(name, index));
  if (first === undefined) return parts;
  const settled = settle(first, index);
  return [
    {
      ...part,
      food: settled.words,
      ingredient: settled.ingredient,
      suggestions: [],
      alternatives: [...part.alternatives, ...others],
      assumed: [...part.assumed, `“${part.food}” is read as ${first}, which the line names for it`],
    },
  ];
}

/** "For the dressing: 3 tbsp oil", "Topping - 50 g oats": what is made of it is said before it, and is no food of the line. */
const HEAD = /^(\p{L}[\p{L} ]{1,30}?) ?(?::|[-–—](?= )) ?(?=\S)/u;

function withoutHead(line: string, index: FoodIndex): string {
  const [whole = '', head = ''] = HEAD.exec(line) ?? [];
  if (head === '' || /^optional$/i.test(head) || foodsAmong(spellOut(head).split(' '), index).length > 0) return line;
  return line.slice(whole.length);
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
  const listed = foods.split(/, ?(?:and |& )?| and | & /i).filter(Boolean);
  // "1 cup each diced carrot, celery and onion", "carrot and onion, chopped": how the first or the last comes is said of all.
  const [, cut = '', first = ''] = CUT_FIRST.exec(listed[0] ?? '') ?? [];
  const last = listed.length > 2 && CUT_ALONE.test(listed.at(-1) ?? '') ? (listed.at(-1) as string) : '';
  const names = [first || (listed[0] ?? ''), ...listed.slice(1, last ? -1 : undefined)];
  const how = [cut.trim(), last].filter(Boolean).join(', ');
  if (names.length < 2 || !names.some((name) => surely(name, index))) return [];
  // "garlic and onion powder": the last noun belongs to both, where that is a food.
  const noun = names.at(-1)?.split(' ').slice(1).join(' ') ?? '';
  const whole = (name: string) =>
    noun !== '' && !name.includes(' ') && surely(`${name} ${noun}`, index) ? `${name} ${noun}` : name;
  // Among spices, the root or the leaf is its spice.
  const isSpices = names.some((name) =>
    /^ground |paprika|turmeric|cinnamon/.test(settle(name, index).ingredient ?? ''),
  );
  const spice = (name: string) => (isSpices && Object.hasOwn(SPICE_TOO, name.toLowerCase()) ? `ground ${name}` : name);
  return names.map((name, at) =>
    readOne(`${amount} ${spice(at < names.length - 1 ? whole(name) : name)}${how && `, ${how}`}`, index),
  );
}

const turned = (found: RegExpExecArray | null): string[] => (found ? [found[0], found[2] ?? '', found[1] ?? ''] : []);

/** What joins a second food with an amount of its own to a line: "2 eggs, 100 ml milk", "beaten with 1 tsp oil". */
const JOINED =
  /(?:,? (?:plus|and|with|mixed with|beaten with|whisked with|blended with|loosened with|slaked (?:in|with)|stirred into|mixed (?:in|into)|dissolved in|in)| ?[+&;,]) (?=(?:an? |half |one |two |three )?[\d½⅓⅔¼¾⅛]|an? (?:pinch|dash|handful|knob|few|splash|little) )/giu;

const JOINS = new RegExp(JOINED.source, 'iu');

/** No line names more foods than this; a row of joining words is read no further. */
const MOST_FOODS = 12;

/** A line that names a second food with an amount of its own, parted before it; undefined for any other line. */
function secondOf(line: string, index: FoodIndex): { first: string; rest: string } | undefined {
  for (const joined of [...line.matchAll(JOINED)].slice(0, MOST_FOODS)) {
    const first = line.slice(0, joined.index);
    const rest = line.slice(joined.index + joined[0].length);
    const own = safely(first).found;
    const other = safely(rest).found;
    if (!own.amount || (!other.amount && !other.vague)) continue;
    const [one, two] = [own, other].map(({ rest: words }) =>
      settle(words.replace(/ ?\([^()]*\) ?/g, ' ').trim(), index),
    ) as [Settled, Settled];
    // "1 onion, 1 carrot and 1 celery stick": each further one with an amount of its own.
    if (one.ingredient && !two.ingredient && JOINS.test(rest)) {
      const others = readParts(rest, index);
      if (others.length > 1 && others.every(({ ingredient, amount }) => ingredient && amount)) return { first, rest };
    }
    if (one.ingredient && two.ingredient && (one.ingredient !== two.ingredient || one.part !== two.part))
      return { first, rest };
    // "100 g sugar + 1 tbsp": more of the same, in another measure.
    if (one.ingredient && readMeasure(rest)) return { first, rest: `${rest} ${one.words}` };
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

const CUTS =
  '(?:(?:finely|coarsely|roughly|thinly|freshly) )?(?:chopped|diced|sliced|grated|shredded|cubed|minced|crushed)';
const CUT_FIRST = new RegExp(`^(${CUTS} )(.+)$`, 'i');
const CUT_ALONE = new RegExp(`^${CUTS}$`, 'i');
const PART_OF =
  /^(?:the )?(?:(?:finely|coarsely|freshly|grated|pared|squeezed|strained|fresh) )*((?:juice|zest|rind|peel)(?: (?:and|&) (?:juice|zest|rind))?) (?:of|from) (.+)$/i;
const BOTH = /^(\p{L}[\p{L} ]*?) (?:and|&|\+) (\p{L}[\p{L} ]*)$/u;
const PINCH_OF =
  /^((?:an? |1 )?(?:generous |good |small )?(?:pinch|dash)) (?:each )?of (\p{L}[\p{L}, ]*? (?:and|&) \p{L}[\p{L} ]*)$/iu;
const EACH = /^(\S+(?: \S+){0,2}?) each:? (?:of )?(\p{L}[\p{L}, &]*)$/u;
const EACH_BEHIND = /^(\p{L}[\p{L}, &]*?),? ([\d½⅓⅔¼¾⅛]\S*(?: \S+){0,2}) each$/u;
const COOKED = /(?<![-\p{L}])cooked\b/iu;
const TO_TASTE = /,? ?(?:or )?(?:to|for) taste$/i;

function readOne(written: string, index: FoodIndex, partOf = ''): ReadPart {
  // "4 tomatoes or 1 can (14 oz) diced tomatoes": what stands behind "or" is said of the other alone.
  const either = /^([^()]+?) or ((?:\d|[½⅓⅔¼¾⅛]|an? )[^()]*\(.+)$/u.exec(written);
  if (either) {
    const first = readOne(either[1] as string, index, partOf);
    return { ...first, alternatives: [...first.alternatives, either[2] as string] };
  }
  const measures: Measured[] = [];
  const alternatives: string[] = [];
  /** "broth (chicken or vegetable)": which of a kind it may be. */
  const kinds: string[] = [];
  let optional = false;
  let alsoEach = false;
  // What stands in brackets: a measure, "optional", an alternative, or how it is prepared.
  let line = written.replace(/ ?[([]([^()[\]]*)[)\]]/g, (_, inside: string, at: number) => {
    const text = inside
      .trim()
      .replace(/^the (\p{L}+) (?:kind|sort|type|ones?)$/iu, '$1')
      .replace(/^(?:flax|chia) eggs?$/i, '');
    const isOfEach = /^[\d½⅓⅔¼¾⅛ /.]+$/u.test(written.slice(0, at));
    if (/^optional$/i.test(text)) optional = true;
    else if (/^or /i.test(text)) alternatives.push(text.slice(3));
    else {
      const each = / ?\b(?:each|apiece)$/i;
      if (each.test(text)) alsoEach = true;
      const found = text
        .replace(each, '')
        .split(/[;,]| \/ | or /)
        .map(readMeasure);
      if (found[0]) {
        measures.push(...found.flatMap((each) => each ?? []));
        if (
          isOfEach &&
          !/^ ?(?:can|tin|jar|pack|pkg|bag|box|carton|tub|bottle)/i.test(written.slice(at + inside.length + 3))
        )
          alsoEach = true;
      } else if (COUNTED.test(text) || PART_OF_PACK.test(text)) return ' ';
      else if (KINDS.test(text) && text.split(BETWEEN_KINDS).some((kind) => surely(kind, index) || !kind.includes(' ')))
        kinds.push(...text.split(BETWEEN_KINDS).map((kind) => kind.trim()));
      else if (isKind(written.slice(0, at), text, index)) kinds.push(text);
      else if (isMix(written.slice(0, at), text, index) || isSame(written.slice(0, at), text, index)) return ' ';
      else if (/\p{L}{3}/u.test(text)) return isOnlyMeasure(written.slice(0, at)) ? ` ${text} ` : `, ${text} `;
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
  const own = found.amount ? undefined : measures[0];
  const orElse = /^(.+?) or ((?:\d|[½⅓⅔¼¾⅛]).+)$/u.exec(rest);
  if (orElse) alternatives.push(orElse[2] as string);
  const named = withoutStroke(orElse ? (orElse[1] as string) : rest, alternatives, index);
  // "150 g small pasta": a size that is part of the food's name.
  const sizedWords = found.size === '' ? [] : [found.size, ...named.split(' ')];
  const isNamedBySize = foodsAmong(sizedWords.slice(0, 5), index).some(({ from, to }) => from === 0 && to > 1);
  const spelt = isNamedBySize ? settle(sizedWords.join(' '), index) : settleDried(named, index);
  const meant = spelt.ingredient || kinds.length > 0 ? undefined : settleMeant(named, index);
  // "Lamb or beef stock": of two that the line offers, the one that the table knows.
  const offered = spelt.ingredient || meant ? undefined : / or ([^,;]+.*)$/i.exec(named)?.[1];
  const other = offered ? settle(offered, index) : undefined;
  const plainly = meant?.settled ?? (other?.ingredient ? other : spelt);
  const settled = preserved(ofKind(plainly, kinds, alternatives, index), found.unit, index);
  const food = isFreshlyChopped(settled, found) ? { ...settled, ingredient: 'tomato', before: 'chopped' } : settled;
  let unit = found.unit;
  if (food.piece && (unit === undefined || unit.key === 'pack')) unit = food.piece;
  if (unit?.key === 'stick' && food.ingredient && !/butter|margarine|lard/.test(food.ingredient))
    unit = { key: 'stalk', unit: undefined };
  // "Sugar (100 grams)"
  if (own) unit = { key: own.unit.key, unit: own.unit };
  if (unit === undefined && found.amount) unit = { key: 'each', unit: undefined };
  // "½ a block (125 g)": of the half, or of the whole, it does not say.
  const isPartOfOne = found.amount !== undefined && compare(found.amount.most, ONE) < 0;
  const pack = found.pack ?? (isPack(unit) && !isPartOfOne ? measures[0] : undefined);
  const preparation = [partOf, food.part, found.fill, food.before, food.after].filter(Boolean);
  const vague = found.amount || own ? '' : found.vague || 'to taste';
  const isHot = food.ingredient === 'sweet pepper' && preparation.some((how) => /\b(?:hot|spicy)\b/i.test(how));
  const unsure = isHot
    ? ['fresh chilli', 'sweet pepper']
    : food.ingredient && preparation.length === 0
      ? eitherOf(food.words, unit, found)
      : [];
  return {
    amount: found.amount ?? own?.amount,
    unit: vague ? undefined : unit,
    vague,
    pack,
    also: [...found.also, ...(pack === measures[0] ? measures.slice(1) : measures)],
    ...(alsoEach ? { alsoEach } : {}),
    ...(COOKED.test(food.after) && !COOKED.test(food.before) ? { cookedAfter: true } : {}),
    food: food.words,
    ingredient: unsure && unsure.length > 0 ? undefined : food.ingredient,
    suggestions:
      unsure && unsure.length > 0
        ? unsure
        : food.ingredient
          ? []
          : nearFoods(`${kinds[0] ?? ''} ${saidOf(rest, food.words)}`.trim(), index),
    preparation: preparation.join(', '),
    size: found.size || food.size,
    optional,
    divided: /\bdivided\b/i.test(food.after),
    unexplained: food.ingredient
      ? unexplainedIn([partOf, food.before, food.after].join(', '), food.ingredient, index)
      : [],
    alternatives: [...food.alternatives, ...alternatives],
    assumed: [
      ...found.assumed,
      ...(meant ? [`“${named}” is read as ${meant.read}`] : []),
      ...(other?.ingredient ? [`of “${named}”, ${other.ingredient} is in the table`] : []),
    ],
    problem:
      problem ||
      (isPartOfOne && isPack(unit) && measures[0] && !found.pack
        ? 'Is that what the part of it weighs, or a whole one? Write the weight that goes in.'
        : ''),
  };
}

/** "spring onions / scallions", "cream cheese/quark": two names of one food, or one that stands in for the other. */
function withoutStroke(named: string, alternatives: string[], index: FoodIndex): string {
  const [, one = '', other = '', how = ''] = /^(\p{L}[^/,;]*?) ?\/ ?(\p{L}[^/,;]*)(.*)$/u.exec(named) ?? [];
  const [first, second] = [settle(one, index).ingredient, settle(other, index).ingredient];
  if (!first) return named;
  if (first !== second) alternatives.push(other);
  return one + how;
}

/** What is said of a food that is not known, with how it comes: "minced beaf" is near the minced, not any beef. */
const saidOf = (rest: string, words: string): string => {
  const [first = ''] = rest.split(/[,;]/);
  return first.includes(words) ? first : words;
};
