import { foodsAmong, kindsOf, wordKey } from '../../reference/food-finder';
import { foodNames, type Reference } from '../../reference/reference';
import { temperatureDoubts } from '../steps/safe-temperatures';
import type { CheckedRecipe, Slip, Weighed } from './slip';

/** What the steps say that cannot be, that does not fit the list, or that is not safe. */
export function stepSlips(
  recipe: CheckedRecipe,
  weighed: readonly Weighed[],
  reference: Reference,
  profile: 'us' | 'uk',
): Slip[] {
  return [
    ...useSlips(recipe, reference),
    ...recipe.steps.flatMap((step, at) => [...unsafeSlips(step, at, weighed, profile)]),
  ];
}

/** Words of a food's name that tell it from nothing: "red" and "dried" stand before many. */
const WEAK = new Set(
  'canned dried fresh frozen ground plain white red green brown black yellow sweet small large cooked raw long-grain short-grain firm sliced minced mixed whole single double dry wheat'.split(
    ' ',
  ),
);

/** Steps that mean several ingredients at once. */
const TOGETHER =
  /\b(?:all|everything|ingred(?:ients?)?|(?:dry|wet) (?:things|stuff|bits|goods)|mix(?:ing)? (?:the )?(?:dry|wet)|rest|remaining|mixture|vegetables|veg|veggies|fruit|dough|batter|spices|herbs|filling|sauce|topping|dressing)\b/i;

/** "Toss and leave", "Stir well": without saying what, all of it. */
const ALL_OF_IT =
  /(?:^|[.;] )(?:toss|mix|stir|blend|blitz|combine|layer|whisk|shake)(?: (?:well|gently|together|up|until \w+))?(?:[.,]|$| and\b)/i;

/** Said with an ingredient that goes on top, or beside. */
const GARNISH = /\b(?:garnish|to serve|for serving|to top|for topping|to decorate|to finish|optional)\b/i;

/** Pastry that is laid in a tin has no other name there. */
const LINED = /\b(?:line|blind|crust|lid|base|case|shell|roll out)\b/i;

/** Foods that stand in every kitchen and are seldom listed, or whose name is also something one does. */
const AT_HAND =
  /^(?:water|salt|ground black pepper|ground white pepper|vegetable oil|butter|plain wheat flour|granulated sugar|vegetable stock|mixed salad leaves|small pasta|sliced bread|bread roll)$/;

/** Kinds of food that steps name for one of them. */
const KINDS_TOLD = ['cheese', 'nuts', 'yeast', 'cream'] as const;

/** Nouns of foods that have nothing else in common. */
const OF_MANY_KINDS = /^(?:cheese|sauce|milk|butter|vinegar|seed|powder|paste|syrup|jam)$/;

/** What is often eaten beside a dish. */
const BESIDE =
  /rice$|bread$|bread roll|naan|chapati|pitta|couscous|pasta$|spaghetti|noodles$|salad leaves|potato(?:es)?$|tortilla(?: chips)?$|green beans|broccoli|vegetables|^lettuce|iceberg|(?:single|double|soured) cream$|^(?:lemon|lime)$|ice cream$/;

/** What one does, and the name of a food as well. */
const DONE_TOO = /^(?:sprinkles?|rolls?|wraps?|crisps?|fries|spreads?|toasts?|dress(?:es)?|seasons?|ices?|creams?)$/i;

/** "Cream the butter" uses no cream. */
const DONE_WITH = ' (?:the|butter|sugar|together|until|them|it)\\b';

function useSlips({ lines, steps }: CheckedRecipe, reference: Reference): Slip[] {
  if (steps.length === 0) return [];
  const index = foodNames(reference);
  const words = steps
    .join(' . ')
    .split(/[^\p{L}\p{N}'’.-]+/u)
    .filter(Boolean);
  const said = new Set(words.map(wordKey));
  // "The crumbs" are the breadcrumbs, "chocolatey" things the chocolate.
  const isSaid = (word: string) =>
    said.has(word) || (word.length > 6 && [...said].some((each) => each.length > 4 && word.endsWith(each)));
  const listed = lines.flatMap(({ items }, at) =>
    items.map(({ line, food }) => ({
      at,
      name: line?.ingredient ?? food,
      words: [
        ...keysOf(`${line?.ingredient ?? ''} ${food}`),
        ...kindsOf(line?.ingredient ?? food),
        // "The zest" is the orange's, "the yolks" are the egg's.
        ...((line?.ingredient ?? food) === 'egg' ? ['yolk', 'white'] : []),
        ...(/^(?:lemon|lime|orange|grapefruit|clementine)$/.test(line?.ingredient ?? food) ? ['zest', 'juice'] : []),
        ...(/\b(?:zest|juice|yolk|white|rind|peel)s?\b/
          .exec(line?.preparation ?? '')
          ?.slice(0, 1)
          .map(wordKey) ?? []),
      ],
    })),
  );
  const slips: Slip[] = [];
  // "The spuds" are the potatoes.
  const told = steps.map((step) => {
    const parts = step.split(/[^\p{L}'’-]+/u).filter(Boolean);
    return { step, parts, foods: foodsAmong(parts, index) };
  });
  const named = new Set(told.flatMap(({ foods }) => foods.map(({ name }) => name)));
  const isTogether = steps.some((step) => TOGETHER.test(step) || ALL_OF_IT.test(step));
  const isSeasoned = steps.some((step) => /\bseason/i.test(step));
  const isLined = steps.some((step) => LINED.test(step));
  // "Brown the chicken": in the oil that is listed.
  const isFried = steps.some((step) => /\b(?:fr(?:y|ied)|brown|sear|saut[eé]|soften|sweat|roast|grill)/i.test(step));
  for (const { at, name, words: own } of listed) {
    if (isTogether || own.length === 0 || AT_HAND.test(name) || named.has(name) || own.some((word) => isSaid(word)))
      continue;
    if (GARNISH.test(lines[at]?.text ?? '')) continue;
    if (isSeasoned && /pepper$|nutmeg$|paprika$|herbs$|^ground mace$/.test(name)) continue;
    if ((isLined && / pastry$|pie crust/.test(name)) || (isFried && / oil$|^ghee$|^margarine$/.test(name))) continue;
    slips.push({
      kind: 'not used',
      line: at,
      say: `${name} is listed, but no step uses it.`,
      why: 'An ingredient that no step names is bought and packed for nothing, or its step is missing.',
      key: `not used ${name}`,
    });
  }
  const known = new Set(listed.flatMap((each) => each.words));
  const missing = new Map<string, number>();
  for (const [at, { step, parts, foods }] of told.entries()) {
    for (const { name, from, to } of foods) {
      // "Butter a tin", "Flour the board", "Oil the pan": the first word of a sentence is what one does.
      const isNoun = /^(?:the|some|a|little|with|of|more|whipped)$/i.test(parts[from - 1] ?? '');
      // "Peel and rice": through a press.
      const isPressed =
        parts[from] === 'rice' &&
        /^(?:and|then)$/.test(parts[from - 1] ?? '') &&
        /\brice(?:[.,;]|$| the| them)/.test(step);
      const isVerb =
        isPressed || (from === 0 && to === 1) || (to - from === 1 && !isNoun && DONE_TOO.test(parts[from] ?? ''));
      const own = [...keysOf(name), ...parts.slice(from, to).map(wordKey)];
      // "Rub until it looks like breadcrumbs": only likened to it.
      const isLikened =
        /^(?:like|resembles?|resembling|than|of)$/i.test(parts[from - 1] ?? '') &&
        /\b(?:look|resembl|like|size|texture|consistency|thick)/i.test(step);
      // "Cream cheese" beside a cheddar that is listed: the noun is the same, the food is not.
      const noun = wordKey(parts[to - 1] ?? '');
      const kind = keysOf(name).filter((word) => word !== noun);
      const isOther = to - from > 1 && OF_MANY_KINDS.test(noun) && kind.length > 0;
      const isKnown = (isOther ? kind : own).some((word) => known.has(word));
      if (isVerb || isLikened || isKnown || listed.some((each) => each.name === name)) continue;
      // "Serve with rice": what stands beside a dish is nobody's ingredient.
      const isBeside =
        BESIDE.test(name) &&
        /\b(?:serve\w*|good|great|nice|lovely|delicious)\b[^.]*\b(?:with|w\/|over|on|alongside|beside)(?:\b|\s)[^.]*$/i.test(
          step.slice(0, step.toLowerCase().indexOf(parts[from]?.toLowerCase() ?? '')),
        );
      if (isBeside) continue;
      const isOften = AT_HAND.test(name) && name !== 'butter';
      if (!isOften && !missing.has(name)) missing.set(name, at);
    }
  }
  // "The cheese" of no cheese that is listed: a kind of food, and what a family must avoid.
  for (const kind of KINDS_TOLD) {
    const key = wordKey(kind);
    if ([...known, ...missing.keys()].some((word) => word.includes(key))) continue;
    const at = steps.findIndex(
      (step) =>
        new RegExp(`\\b(?:the|some|with|and|add|,) ?${kind}\\b(?!${DONE_WITH})`, 'i').test(step) &&
        !/\bserve/i.test(step),
    );
    if (at >= 0) missing.set(kind, at);
  }
  for (const [name, at] of missing)
    slips.push({
      kind: 'not listed',
      step: at,
      say: `A step uses ${name}, which is not listed.`,
      why: 'What is not listed is neither calculated, bought nor packed, nor checked for allergens.',
      key: `not listed ${name}`,
    });
  return slips;
}

const keysOf = (text: string): string[] =>
  text
    .split(/[\s,]+/)
    .map(wordKey)
    .filter((word) => word.length > 2 && !WEAK.has(word));

/** Steps that break a usual caution; each with the caution, and whose it is. */
const UNSAFE: readonly (readonly [test: RegExp, unless: RegExp | undefined, why: string])[] = [
  [
    /\b(?:rins|wash)\w*\b[^.]{0,40}\b(?:chicken|poultry|turkey|duck|thighs?|breasts?|meat|mince)\b/i,
    /\b(?:hands|board|knife|surface)/i,
    'Raw poultry and meat are never rinsed: splashes spread bacteria. Cook to a safe temperature instead (USDA FSIS, NHS).',
  ],
  [
    /\b(?:leave|keep|stand|sit|rest|cool|marinate|thaw|defrost)\w*\b[^.]{0,60}\b(?:counter|worktop|room temperature|on the side)\b[^.]{0,40}\b(?:overnight|all day|[3-9] hours|1\d hours)/i,
    /\bdough\b|\bsponge\b|\bstarter\b/i,
    'Perishable food is at most two hours out of the cold (USDA FSIS two-hour rule); cooked rice less.',
  ],
  [
    /\b(?:thaw|defrost|marinat)\w*\b[^.]{0,50}\b(?:counter|worktop|room temperature|in warm water|on the side)\b/i,
    /\bdough\b|\bpastry\b/i,
    'Meat, poultry and fish thaw and marinate in the fridge, at or below 5 °C (USDA FSIS).',
  ],
  [
    /\bblend\w*\b[^.]{0,60}\b(?:boiling|hot|at once)\b|\b(?:boiling|hot)\b[^.]{0,40}\bblend/i,
    /\b(?:cool|vent|third|stick blender|hand blender|immersion)/i,
    'Hot liquid in a closed blender bursts out: cool first, fill a third, vent the lid, adults only.',
  ],
  [
    /\b(?:taste|lick|eat|nibble)\w*\b[^.]{0,30}\b(?:raw|uncooked)?\s*(?:dough|batter)\b/i,
    undefined,
    'Raw flour, dough and batter are not tasted before they are cooked (FDA, FSA).',
  ],
  [
    /\b(?:runny|soft|liquid) (?:yolks?|eggs?)\b/i,
    /\b(?:no|not|never|without)\b/i,
    'For children, pregnant and older people eggs are cooked through (FSA, USDA).',
  ],
  [
    /\b(?:reserved|leftover|remaining|rest of the) marinade\b/i,
    /\bboil/i,
    'A marinade that raw meat lay in is thrown away, or boiled before it is used (USDA FSIS).',
  ],
  [
    /\b(?:chicken|poultry|turkey|mince|burgers?)\b[^.]{0,40}\b(?:still )?pink\b/i,
    /\b(?:no|not|never|longer)\b/i,
    'Poultry and mince are done by a thermometer, not while they are pink.',
  ],
  [
    /\bgarlic\b[^.]{0,40}\bin oil\b[^.]{0,60}\b(?:weeks?|months?|cupboard)/i,
    undefined,
    'Garlic in oil keeps at most four days at or below 5 °C, dated (USDA extension guidance).',
  ],
];

function unsafeSlips(step: string, at: number, weighed: readonly Weighed[], profile: 'us' | 'uk'): Slip[] {
  const slips = UNSAFE.flatMap(([test, unless, why]): Slip[] =>
    test.test(step) && !unless?.test(step)
      ? [{ kind: 'unsafe', step: at, say: `“${shorten(step)}” is not safe.`, why, key: `unsafe ${step.slice(0, 80)}` }]
      : [],
  ).slice(0, 1);
  const foods = weighed.map(({ item }) => item.ingredient.name);
  for (const { say, why } of temperatureDoubts(step, foods, profile))
    slips.push({
      kind: 'unsafe',
      step: at,
      say,
      why: `${why}. A stricter house rule may be set, never a laxer one.`,
      key: `unsafe ${say} ${at}`,
    });
  return slips;
}

const shorten = (text: string) => (text.length > 90 ? `${text.slice(0, 90)}…` : text);
