import { FORGETFUL, type Memory } from '../memory';
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
  /** The edition of this list that it came with: what was recorded of a food before says nothing of it. */
  readonly since: number;
}

export const AVOIDANCES: readonly Avoidance[] = facts as readonly Avoidance[];

const BY_CODE = new Map(AVOIDANCES.map((avoidance) => [avoidance.code, avoidance]));

/** A single food can be avoided too: its code is this prefix and the food's name. */
const FOOD = 'food:';

/**
 * The code that stands for avoiding one food of the reference table.
 *
 * @example
 * foodCode('banana') //=> 'food:banana'
 */
export const foodCode = (ingredientName: string): string => `${FOOD}${ingredientName}`;

/**
 * True for a known allergen or diet code, and for a code made by `foodCode`.
 *
 * @example
 * isAvoidanceCode('EGG') //=> true
 * isAvoidanceCode('GHOSTS') //=> false
 */
export const isAvoidanceCode = (code: string): boolean => BY_CODE.has(code) || code.startsWith(FOOD);

/** The edition of the list of avoidances: what is recorded today was asked about all of them. */
export const EDITION: number = Math.max(...AVOIDANCES.map(({ since }) => since));

/** A label names what is in the product; with this before a code it was read for it, and the product is without it. */
const WITHOUT = 'no:';

/**
 * What a label says of a product that was looked at for a code and is without it: 'no:MEAT'.
 *
 * @example
 * withoutCode('MEAT') //=> 'no:MEAT'
 */
export const withoutCode = (code: string): string => `${WITHOUT}${code}`;

/** True for what may stand on a recorded label: a code, or that the product is without it. */
export const isLabelCode = (code: string): boolean =>
  BY_CODE.has(code) || (code.startsWith(WITHOUT) && BY_CODE.has(code.slice(WITHOUT.length)));

/**
 * The codes that a recorded label names as in the product.
 *
 * @example
 * namedOn(['MILK', 'no:MEAT']) //=> ['MILK']
 */
export const namedOn = (label: readonly string[]): string[] => label.filter((code) => !code.startsWith(WITHOUT));

/**
 * Allergens that a food is made of and a label neither names nor denies: tofu without soya is asked about before it is taken.
 */
export const labelGaps = (food: Ingredient, label: readonly string[]): string[] =>
  food.contains.filter((code) => !label.includes(code) && !label.includes(withoutCode(code)));

/**
 * What is known of a product that may be either of two: what one of them names is in it, what both are without is not.
 *
 * @example
 * eitherHolds(['MILK', 'no:MEAT'], ['SOY']) //=> ['MILK', 'SOY']
 */
export const eitherHolds = (one: readonly string[], other: readonly string[]): string[] => [
  ...new Set([...namedOn(one), ...namedOn(other)]),
  ...one.filter((code) => code.startsWith(WITHOUT) && other.includes(code)),
];

/** Allergens that came after the first edition: a form that asks about them says so, since older labels say nothing of them. */
export const LATER_ALLERGENS: readonly string[] = AVOIDANCES.filter(
  ({ kind, since }) => kind === 'allergen' && since > 1,
).map(({ code }) => code);

/** Avoidances that came after a record was made: nobody asked about them. */
const laterThan = (edition: number) => AVOIDANCES.filter(({ kind, since }) => kind !== 'care' && since > edition);

/** True for what an age or a condition asks for, which a preparation may lift. */
export const isCare = (code: string): boolean => BY_CODE.get(code)?.kind === 'care';

/**
 * How a code is said: "milk", "tree nuts", "mushroom", "no meat".
 *
 * @example
 * avoidanceLabel('MILK') //=> 'milk'
 * avoidanceLabel('food:banana') //=> 'banana'
 */
export const avoidanceLabel = (code: string): string =>
  code.startsWith(WITHOUT)
    ? `no ${avoidanceLabel(code.slice(WITHOUT.length))}`
    : (BY_CODE.get(code)?.label ?? (code.startsWith(FOOD) ? code.slice(FOOD.length) : code));

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
 * @param label what the recorded label of the product used says; replaces the food's allergens, known and unknown, and settles
 *   a diet only where the product was looked at for it. An avoidance that came after the record blocks until it is asked about.
 * @param preparation how it comes: what is cut small enough is no longer a choking risk
 */
export function holdingsOf(
  ingredient: Ingredient,
  label?: readonly string[],
  preparation = '',
  memory: Memory = FORGETFUL,
): Holdings {
  if (label) return readHoldings(ingredient, label, preparation);
  const typical = memory.of('typical holdings', ingredient, () => new Map<string, Holdings>());
  const holdings = typical.get(preparation) ?? readHoldings(ingredient, undefined, preparation);
  typical.set(preparation, holdings);
  return holdings;
}

function readHoldings(ingredient: Ingredient, label: readonly string[] | undefined, preparation: string): Holdings {
  const care = careOf(ingredient.name, preparation);
  const contains = withImplied([
    ...(label ? namedOn(label) : ingredient.contains),
    ...ingredient.diet,
    ...care.contains,
    foodCode(ingredient.name),
  ]);
  const isDenied = (code: string) => label?.includes(withoutCode(code)) ?? false;
  const unknown = withImplied([
    ...(label ? [] : ingredient.mayContain),
    ...ingredient.dietCheck.filter((code) => !isDenied(code)),
    ...care.check,
    ...laterThan(label ? 1 : (ingredient.edition ?? 1)).flatMap(({ code }) => (isDenied(code) ? [] : [code])),
  ]);
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
 * Splits what a family wrote about avoidances into single needs.
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

/** A need with what stands around the food taken off step by step: the last form is the plainest. */
function formsOf(need: string): readonly string[] {
  const forms = [
    need
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

/**
 * One form for every way of writing the same need: "No Nuts", "severe nut allergy" and "nuts" are alike.
 *
 * @example
 * normaliseNeed('Allergic to  EGGS!') //=> 'eggs'
 */
export const normaliseNeed = (need: string): string => formsOf(need).at(-1) as string;

/** A family's need and the codes it stands for; undefined codes mean that nobody has said yet what it means. */
export interface Need {
  readonly asWritten: string;
  readonly codes: readonly string[] | undefined;
}

/**
 * Finds what a need stands for: the programme's own meaning of its words first, the fullest form of them, then
 * the shipped words, then a code itself, in capitals as codes are written: "crust" and "heat" are words. A need that is not
 * known is never guessed.
 *
 * @param own the programme's meanings, by `normaliseNeed`
 * @example
 * understandNeed('eggs', new Map()) //=> { asWritten: 'eggs', codes: ['EGG'] }
 * understandNeed('moonroot', new Map()) //=> { asWritten: 'moonroot', codes: undefined }
 */
export function understandNeed(asWritten: string, own: ReadonlyMap<string, readonly string[]>): Need {
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
