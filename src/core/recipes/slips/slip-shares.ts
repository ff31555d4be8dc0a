// Usual shares by the kind of dish: what a batter, a burger or a salad holds of a food, known without the servings.
import { amountSlip, FLOUR, sum } from './amount-slip';
import type { Dish, Slip, Weighed } from './slip';
import { isNamed } from './usual-amounts';

type Kind = (dish: Dish, each: Weighed) => boolean;

/** A food that is more than so many times the rest of it, in a dish of a kind. */
interface Share {
  readonly kind: Kind;
  readonly foods: RegExp;
  readonly most: number;
  readonly usual: string;
}

/** Weight of all but one line. */
const restOf = (weighed: readonly Weighed[], each: Weighed): number => sum(weighed, () => true) - each.grams;

const BAKED = /\bbaked?\b|\bin the oven\b|\boven\b/i;
const NO_BAKING =
  /\b(?:pie|crumble|cobbler|tart|crisp|strudel|gratin|lasagne|casserole|traybake|stuffed|bake|pasties|samosas?|pizzas?|quiche|moussaka|frittata|slice|nuggets|fingers|goujons|parcels|fish ?cakes|burgers?|patties|meatballs?|falafels?)\b/i;

/** Baked of flour: at least a sixth of the rest of it. */
const isBaking: Kind = ({ title, steps, weighed }, each) =>
  BAKED.test(steps) &&
  !NO_BAKING.test(title) &&
  sum(weighed, ({ name }, other) => other !== each && FLOUR.test(name)) > 0.16 * restOf(weighed, each);

const isPlainBaking: Kind = (dish, each) =>
  isBaking(dish, each) &&
  /\b(?:scones?|bread|rolls|loaf|dough|buns|focaccia|cornbread|flatbreads?)\b/i.test(dish.title) &&
  !/\b(?:banana|tea|sweet|cinnamon|drizzle|ginger|malt|pumpkin|courgette|zucchini)\b.*\b(?:bread|loaf|rolls|buns)\b/i.test(
    dish.title,
  );

/** Bread that is eaten with something: next to no sugar, a spoon of oil. */
const isLeanBread: Kind = (dish, each) =>
  isPlainBaking(dish, each) &&
  /\b(?:pizza|focaccia|flatbreads?|pitta|(?:white|wholemeal|rye|soda|brown|seed\w*) (?:bread|loaf))\b/i.test(
    dish.title,
  );

const EGG_DISH =
  /\b(?:omelettes?|frittata|tortilla|quiche|scrambled?|shakshuka|custard|meringues?|pavlova|flan|souffl[eé]|curd|mousse|carbonara|kedgeree|ramen|(?:boil|poach|fry|fried|hard-boiled|devill?ed|crack)\w*\b[^.]*\beggs?|egg\w* (?:salad|fried rice|mayo\w*|curry|noodles|dough)|pasta dough|strata|french toast|eggy|crème|ice cream|cr[eê]pes?|batter)\b/i;
/** Seven eggs, in grams. */
const MANY_EGGS = 350;
const isNoEggDish: Kind = (dish, each) =>
  each.grams > MANY_EGGS &&
  restOf(dish.weighed, each) > MANY_EGGS &&
  !isBaking(dish, each) &&
  !EGG_DISH.test(`${dish.title} ${dish.steps}`);

const isBiscuit: Kind = (dish, each) =>
  isBaking(dish, each) && /\b(?:biscuits?|cookies?|shortbread)\b/i.test(dish.title);

const isBound: Kind = ({ title, steps }) =>
  /\b(?:burgers?|patt(?:y|ies)|meatballs?|koftas?|falafels?|fish ?cakes?|nuggets)\b/i.test(`${title} ${steps}`);

const isBatter: Kind = ({ title, steps }) =>
  /\b(?:pancakes?|cr[eê]pes?|waffles?|fritters?|drop scones?)\b/i.test(`${title} ${steps}`);

const SAVOURY =
  /^(?:garlic|onion|red onion|shallot|spring onion|leek|.* stock|soy sauce|fish sauce|tomato paste|ground cumin|minced .*|chicken .*)$/;
/** A savoury dish that is not kept by its sugar or its vinegar. */
const isSavoury: Kind = ({ title, steps, weighed }) =>
  !/\b(?:glaze|sticky|caramelis|carameliz)/i.test(steps) &&
  weighed.some(({ item }) => SAVOURY.test(item.ingredient.name)) &&
  sum(weighed, ({ name }) => / vinegar$/.test(name)) < 0.06 * sum(weighed, () => true) &&
  !/\b(?:chutney|relish|jam|marmalade|pickle[ds]?|glaze|sauce|dressing|marinade|sticky|sweet)\b/i.test(title);

const isSour: Kind = ({ title, weighed }) =>
  sum(weighed, ({ plateGroup }) => plateGroup === 'sugar') < 0.04 * sum(weighed, () => true) &&
  !/\b(?:dressing|vinaigrette|marinade|drink|lemonade|pickle[ds]?|ceviche|lemons?|limes?|sauce|escabeche)\b/i.test(
    title,
  );

/** Neither baked, nor a dough, nor coated: flour and butter only thicken and fry. */
const isPot: Kind = (dish, each) =>
  isSavoury(dish, each) &&
  !/\bbutter\b/i.test(dish.title) &&
  !/\b(?:bake[sd]?|oven|dough|pastry|batter|coat|dust|dredge|knead|dumplings?|patt(?:y|ies)|burgers?|fritters?|cakes?|balls?|mash\w*)\b/i.test(
    `${dish.title} ${dish.steps}`,
  );

const SHARES: readonly Share[] = [
  { kind: isPot, foods: / flour$|^cornstarch$/, most: 0.05, usual: 'a spoon or two of flour' },
  { kind: isPot, foods: /^(?:butter|ghee|margarine)$/, most: 0.12, usual: 'a spoon or two of butter' },
  { kind: isBaking, foods: /(?:extract|vanilla paste|rose water)$/, most: 0.025, usual: 'a teaspoon to a cake' },
  {
    kind: isBaking,
    foods: /^(?:ground .*|mixed spice|pumpkin pie spice|mustard powder)$/,
    most: 0.03,
    usual: '1 to 2 teaspoons of spice to a cake',
  },
  { kind: isBaking, foods: / oil$/, most: 0.45, usual: 'a fifth of the rest in oil' },
  { kind: isBiscuit, foods: /^egg$/, most: 0.35, usual: 'one egg to a tray of biscuits' },
  { kind: isBaking, foods: /^egg$/, most: 0.7, usual: 'a fifth to a third of the rest in eggs' },
  { kind: isNoEggDish, foods: /^egg$/, most: 0.23, usual: 'an egg or two' },
  { kind: isLeanBread, foods: / sugar$|^honey$| syrup$|^molasses$/, most: 0.1, usual: 'a spoon of sugar' },
  { kind: isLeanBread, foods: /^butter$| oil$/, most: 0.18, usual: 'a spoon or two of fat' },
  { kind: isPlainBaking, foods: / sugar$|^honey$| syrup$|^molasses$/, most: 0.22, usual: 'a spoon or two of sugar' },
  { kind: isBaking, foods: / sugar$|^honey$| syrup$|^molasses$/, most: 0.9, usual: 'a quarter of the rest in sugar' },
  { kind: isPlainBaking, foods: /^(?:butter|margarine|olive oil|vegetable oil)$/, most: 0.35, usual: 'a tenth of fat' },
  {
    kind: isBaking,
    foods:
      /^(?:raisins|sultanas|currants|desiccated coconut|dates|dried .*|.* seeds|walnuts|pecans|almonds|hazelnuts|.* chocolate)$/,
    most: 1.3,
    usual: 'half of the rest at most',
  },
  {
    kind: isBaking,
    foods: /^(?:carrot|courgette|banana|pumpkin|canned pumpkin|apple|.*berries|beetroot|rhubarb|pear|plum)$/,
    most: 1.4,
    usual: 'as much as the rest at most',
  },
  { kind: isBaking, foods: /flour$| oats$|^maize meal$/, most: 2.2, usual: 'about as much as all the rest' },
  { kind: isBound, foods: /^egg$/, most: 0.3, usual: 'one egg to a pound of mince' },
  { kind: isBatter, foods: / sugar$|^honey$| syrup$/, most: 0.3, usual: 'a spoon or two of sugar' },
  {
    kind: isBatter,
    foods: /milk$|^water$| drink$/,
    most: 3,
    usual: 'as much milk as flour, twice as much for thin ones',
  },
  { kind: isBatter, foods: /^egg$/, most: 0.8, usual: 'a quarter of the rest in eggs' },
  { kind: isSavoury, foods: / sugar$|^honey$| syrup$/, most: 0.07, usual: 'a spoon of sugar' },
  {
    kind: isSour,
    foods: /^(?:lemon|lime|.* vinegar|bottled .* juice)$/,
    most: 0.28,
    usual: 'a few spoons of something sour',
  },
];

/** Lines that are far more of a dish of this kind than is usual. */
export function shareSlips(dish: Dish, servings: number | undefined): Slip[] {
  const { weighed } = dish;
  return [
    ...weighed.flatMap((each) => {
      const { name } = each.item.ingredient;
      const share = each.grams / restOf(weighed, each);
      const row = SHARES.find(({ kind, foods, most }) => foods.test(name) && share > most && kind(dish, each));
      return row ? [tooMuch(each, share, `Usual ${/^\d|s\b.* to /.test(row.usual) ? 'are' : 'is'} ${row.usual}.`)] : [];
    }),
    ...weighed.flatMap((each) => dominant(each, dish, servings) ?? []),
    ...soaked(dish),
  ];
}

const tooMuch = (each: Weighed, share: number, why: string): Slip =>
  amountSlip(
    each,
    `${Math.round(each.grams)} g of ${each.item.ingredient.name} to ${Math.round(each.grams / share)} g of all the rest is far more than usual.`,
    why,
  );

/** A vegetable that the dish is not called after is less than this share of the rest. */
const MOST_BESIDE = 0.7;
/** Grams a serving that are much of one vegetable. */
const PLENTY = 150;

function dominant(each: Weighed, { title, weighed }: Dish, servings = Number.POSITIVE_INFINITY): Slip | undefined {
  const { name, aisle, plateGroup } = each.item.ingredient;
  const isBeside =
    /^(?:produce|frozen)$/.test(aisle) && plateGroup === 'vegetable' && !/potato/.test(name) && !isNamed(name, title);
  const isCalledAfter = weighed.some(({ item }) => isNamed(item.ingredient.name, title));
  const share = each.grams / restOf(weighed, each);
  const isAny = /\b(?:vegetables?|veg|pickle[ds]?|ferment\w*|salad|slaw)\b/i.test(title);
  if (!isBeside || !isCalledAfter || share <= MOST_BESIDE || each.grams / servings < PLENTY || isAny) return undefined;
  return tooMuch(each, share, `“${title}” is called after something else: check amount and unit.`);
}

/** Oats that stand or simmer take up at least so much of their weight. */
const LEAST_OF_OATS = 0.9;

function soaked({ weighed, steps, title }: Dish): Slip[] {
  const oats = weighed.find(({ item }) => / oats$|^oatmeal$/.test(item.ingredient.name));
  const [wet] = weighed
    .filter(({ item }) => /milk$|^water$| drink$|yogurt$|juice$/.test(item.ingredient.name))
    .sort((a, b) => b.grams - a.grams);
  const isPot = /\b(?:overnight|porridge|bircher|oat pots)\b/i.test(`${title} ${steps}`) && !BAKED.test(steps);
  if (!oats || !wet || !isPot) return [];
  const liquid = sum(weighed, ({ name }) => /milk$|^water$| drink$|yogurt$|juice$/.test(name));
  if (liquid >= LEAST_OF_OATS * oats.grams && liquid <= 15 * oats.grams) return [];
  return [
    amountSlip(
      liquid < oats.grams ? wet : oats,
      `${Math.round(liquid)} g of liquid to ${Math.round(oats.grams)} g of oats: check both.`,
      'Oats take two to three times their weight.',
    ),
  ];
}
