import words from '../reference/facts/avoidance-words.json';
import facts from '../reference/facts/avoidances.json';
import type { Ingredient } from '../reference/reference';
import { careOf } from './care';

/** Something a kit must not hold: an allergen, or what a diet or faith leaves out. All are handled alike. */
export interface Avoidance {
  readonly code: string;
  /** Care is for an age or a condition: what a preparation may lift. */
  readonly kind: 'allergen' | 'diet' | 'care';
  /** As printed in words: "milk", "tree nuts". */
  readonly label: string;
  /** What holds this also holds these. */
  readonly implies: readonly string[];
  readonly note: string;
}

export const AVOIDANCES: readonly Avoidance[] = facts as readonly Avoidance[];

const BY_CODE = new Map(AVOIDANCES.map((avoidance) => [avoidance.code, avoidance]));

/** A single food can be avoided too: its code is this prefix and the food's name. */
const FOOD = 'food:';

/** The code that stands for avoiding one food of the reference table. */
export const foodCode = (ingredientName: string): string => `${FOOD}${ingredientName}`;

/** True for a known allergen or diet code, and for a code made by `foodCode`. */
export const isAvoidanceCode = (code: string): boolean => BY_CODE.has(code) || code.startsWith(FOOD);

/** True for what an age or a condition asks for, which a preparation may lift. */
export const isCare = (code: string): boolean => BY_CODE.get(code)?.kind === 'care';

/** How a code is said: "milk", "tree nuts", "mushroom". */
export const avoidanceLabel = (code: string): string =>
  BY_CODE.get(code)?.label ?? (code.startsWith(FOOD) ? code.slice(FOOD.length) : code);

/** The codes and everything they imply: what contains wheat contains gluten. */
export function withImplied(codes: Iterable<string>): ReadonlySet<string> {
  const all = new Set<string>();
  const open = [...codes];
  for (let code = open.pop(); code !== undefined; code = open.pop()) {
    if (all.has(code)) continue;
    all.add(code);
    open.push(...(BY_CODE.get(code)?.implies ?? []));
  }
  return all;
}

/** What a food holds and what it may hold; both block. */
export interface Holdings {
  readonly contains: ReadonlySet<string>;
  readonly mayContain: ReadonlySet<string>;
}

/**
 * What a food holds, with everything implied.
 *
 * @param label allergens on the recorded label of the product used; replaces the food's allergens, known and unknown,
 *   never its diet facts
 * @param preparation how it comes: what is cut small enough is no longer a choking risk
 */
export function holdingsOf(ingredient: Ingredient, label?: readonly string[], preparation = ''): Holdings {
  if (label) return readHoldings(ingredient, label, preparation);
  const known = typicalHoldings.get(ingredient) ?? new Map<string, Holdings>();
  typicalHoldings.set(ingredient, known);
  const holdings = known.get(preparation) ?? readHoldings(ingredient, undefined, preparation);
  known.set(preparation, holdings);
  return holdings;
}

/** What foods hold without a label: the same for every line that names them. */
const typicalHoldings = new WeakMap<Ingredient, Map<string, Holdings>>();

function readHoldings(ingredient: Ingredient, label: readonly string[] | undefined, preparation: string): Holdings {
  const care = careOf(ingredient.name, preparation);
  const contains = withImplied([
    ...(label ?? ingredient.contains),
    ...ingredient.diet,
    ...care.contains,
    foodCode(ingredient.name),
  ]);
  const unknown = withImplied([...(label ? [] : ingredient.mayContain), ...ingredient.dietCheck, ...care.check]);
  return { contains, mayContain: new Set([...unknown].filter((code) => !contains.has(code))) };
}

/** The same food, labels and all, in another preparation: what an age or a condition asks for is judged anew. */
export function asPrepared({ contains, mayContain }: Holdings, ingredient: string, preparation: string): Holdings {
  const care = careOf(ingredient, preparation);
  const uncut = careOf(ingredient, '');
  const others = (codes: ReadonlySet<string>) =>
    [...codes].filter((code) => !uncut.contains.includes(code) && !uncut.check.includes(code));
  return {
    contains: new Set([...others(contains), ...care.contains]),
    mayContain: new Set([...others(mayContain), ...care.check]),
  };
}

/** The avoided codes that a food holds or may hold, sorted. Empty when it is safe. */
export function blockersOf(holdings: Holdings, avoids: readonly string[]): string[] {
  const blocked = avoids.filter((code) => holdings.contains.has(code) || holdings.mayContain.has(code));
  return blocked.length > 1 ? [...new Set(blocked)].sort() : blocked;
}

/**
 * Splits what a family wrote about avoidances into single wishes.
 *
 * @example splitAvoidances('eggs; tree nuts and milk') //=> ['eggs', 'tree nuts', 'milk']
 */
export function splitAvoidances(text: string): string[] {
  if (saysNothing(text)) return [];
  const parts = text
    .split(/[;,/&+\n]|\band\b/iu)
    .map((part) => part.trim().replace(/\s+/g, ' '))
    .filter((part) => part !== '' && !saysNothing(part));
  return [...new Set(parts)];
}

/** What is said out of courtesy. */
const COURTESY = /(?:^|[ ,.!])(?:please|pls|plz|thanks|thank you)$/i;

/** Without courtesies and the end of the sentence; looks at the end alone, as long as the text may be. */
function withoutClosing(text: string): string {
  let end = text.length;
  for (;;) {
    while (end > 0 && ' ,.!'.includes(text.charAt(end - 1))) end--;
    const closing = COURTESY.exec(text.slice(Math.max(0, end - 12), end));
    if (!closing) return text.slice(0, end);
    end -= closing[0].length;
  }
}

/** Ways of writing that there is nothing to avoid. "NKDA" is not among them: it speaks of drugs. */
const NOTHING =
  /^(?:[-–—]*|no|nope|nil|none|nothing|n\/?\.?a|nka|nkfa|not applicable|(?:none|nothing)(?: known| reported| at all)+|no(?: known| food| special| other| any)*(?: allerg(?:y|ies|ens?)| intolerances?| restrictions| diets?| dietary (?:needs|requirements|restrictions))(?: known| reported)?)$/i;

function saysNothing(text: string): boolean {
  return NOTHING.test(withoutClosing(text.trim().replace(/\s+/g, ' ')));
}

/** What stands before the food, and after it; how bad it is changes nothing. */
const BEFORE =
  /^(?:no|any|all|avoids?|(?:can ?not|cant|does not|doesnt|must not|may not) (?:eat|have)|allergic to|allergy to|allergy|anaphylaxis to|anaphylactic to|intolerant to|intolerance to|sensitive to|reacts to|severe(?:ly)?|serious(?:ly)?|mild(?:ly)?|slight(?:ly)?|strong(?:ly)?)\s*:?\s+/;
const AFTER = /\s+(?:allergy|allergies|allergic|intolerance|intolerant|sensitivity|anaphylaxis|free)$/;

/** A wish with what stands around the food taken off step by step: the last form is the plainest. */
function formsOf(wish: string): readonly string[] {
  const forms = [
    wish
      .toLowerCase()
      .replace(/[’']/g, '')
      .replace(/[-\s]+/g, ' ')
      .trim(),
  ];
  for (;;) {
    const last = forms.at(-1) as string;
    const plain = withoutClosing(last);
    const plainer = plain !== last ? plain : last.replace(AFTER.test(last) ? AFTER : BEFORE, '');
    if (plainer === last) return forms;
    forms.push(plainer);
  }
}

/** One form for every way of writing the same wish: "No Nuts", "severe nut allergy" and "nuts" are alike. */
export const normaliseWish = (wish: string): string => formsOf(wish).at(-1) as string;

/** A family's wish and the codes it stands for; undefined codes mean that nobody has said yet what it means. */
export interface Wish {
  readonly asWritten: string;
  readonly codes: readonly string[] | undefined;
}

/**
 * Finds what a wish stands for: the programme's own meaning of its words first, the fullest form of them, then
 * the shipped words, then a code itself, in capitals as codes are written: "crust" and "heat" are words. A wish that is not
 * known is never guessed.
 *
 * @param own the programme's meanings, by `normaliseWish`
 */
export function understandWish(asWritten: string, own: ReadonlyMap<string, readonly string[]>): Wish {
  const forms = formsOf(asWritten);
  const key = forms.at(-1) as string;
  // What the programme said of "severe nut" itself stands before what it said of "nut".
  const said = forms.find((form) => own.has(form)) ?? key;
  const shipped = (words as Readonly<Record<string, readonly string[]>>)[key];
  const code = asWritten.trim();
  const codes =
    own.get(said) ?? (Object.hasOwn(words, key) ? shipped : undefined) ?? (BY_CODE.has(code) ? [code] : undefined);
  return { asWritten, codes };
}
