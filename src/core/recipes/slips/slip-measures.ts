// Measures that nobody takes for a food: a teaspoon of pasta, a tin of 40 g, 8 g of kale.
import { toDecimal } from '../../quantity/rational';
import { amountSlip, LIQUID, sum } from './amount-slip';
import type { Slip, Weighed } from './slip';

/** Lines measured as their food never is, or that come to a crumb of it. */
export function measureSlips(
  weighed: readonly Weighed[],
  servings: number | undefined,
  title: string,
  steps: readonly string[],
): Slip[] {
  return [
    ...weighed.flatMap((each) => bySpoon(each) ?? tooLittle(each) ?? tinyTin(each) ?? []),
    ...thinBase(weighed, servings, title, steps),
  ];
}

/** Cut, shredded or whole: by the cup, the piece or the gram, never by the teaspoon; some not by the tablespoon either. */
const NO_TEASPOON =
  /pasta|noodles|^(?:spaghetti|penne|macaroni|fusilli|tagliatelle|rigatoni|farfalle|orzo|couscous|bulgur wheat|quinoa|pearl barley|polenta|maize meal|cornflakes|granola|muesli|croutons|salsa|hummus|guacamole|edamame|raisins|sultanas|desiccated coconut|popcorn)$| rice$| lentils$|^split peas$| oats$|^oatmeal$|breadcrumbs$| beans$|chickpeas|(?:cheddar|mozzarella|feta|monterey jack|gruyere|cottage|ricotta|halloumi|shredded) ?(?:cheese)?$|tofu$|yogurt$| cereal$|passata$|canned |frozen |juice$|stock$/;
const NO_TABLESPOON =
  /pasta|noodles|^(?:spaghetti|penne|macaroni|fusilli|tagliatelle|rigatoni|farfalle|cornflakes|granola|muesli)$|lettuce$|leaves$|^(?:spinach|kale|rocket|white cabbage|red cabbage|potato|grapes|broccoli|cauliflower)$/;
/** A teaspoon of it may be meant, a part of one never is. */
const NO_PART_OF_TEASPOON =
  /^(?:butter|.* butter|mayonnaise|tahini|(?:single|double|soured) cream|parmesan cheese|golden syrup|maple syrup|vegetable oil|olive oil|sunflower oil|rapeseed oil|.*nuts|almonds|pecans|dried (?:cranberries|apricots)|.* chocolate|ground flaxseed|sunflower seeds|pumpkin seeds|onion|red onion|.* flour|brown sugar|cocoa powder|pesto|jam|condensed milk|sun-dried tomatoes|milk|buttermilk|coconut milk|water)$/;
/** Fruit and vegetables strong enough, or chopped so fine, that a teaspoon of them is meant. */
const BY_TEASPOON =
  /onion|shallot|garlic|ginger|chill?i|pepper$|horseradish|galangal|turmeric|lemongrass|lemon|lime|orange|grapefruit|flowers|chives|^fresh |celery|radish|beetroot|pickled|gherkin|capers|olives|tomato paste/;

function bySpoon(each: Weighed): Slip | undefined {
  const { name, aisle, plateGroup } = each.item.ingredient;
  const { key } = each.item.unit;
  const isPlant = aisle === 'produce' && /vegetable|fruit/.test(plateGroup) && !BY_TEASPOON.test(name);
  const isOdd =
    (key === 'tsp' && ((NO_TEASPOON.test(name) && !/^bottled|zest/.test(name)) || isPlant || aisle === 'meat')) ||
    (key === 'Tbsp' &&
      (NO_TABLESPOON.test(name) || (aisle === 'meat' && !/^(?:bacon|pancetta|cooked ham)$/.test(name))));
  const amount = Number(toDecimal(each.item.amount, 3));
  const isOddLiquid = key === 'tsp' && amount > 1 && !Number.isInteger(amount) && LIQUID.test(name);
  const part = key === 'tsp' && amount < 1 && NO_PART_OF_TEASPOON.test(name);
  if (part)
    return amountSlip(
      each,
      `Less than a teaspoon of ${name} is unusual: check the unit.`,
      'Parts of a teaspoon are measured of salt, spices, leavening and the like.',
    );
  if (!isOdd && !isOddLiquid) return undefined;
  const spoon = key === 'tsp' ? 'teaspoon' : 'tablespoon';
  return amountSlip(
    each,
    `${name[0]?.toUpperCase()}${name.slice(1)} by the ${spoon} is unusual: check the unit.`,
    'It is measured by the cup, the piece, or weighed.',
  );
}

/** Strong enough that a few grams of it are meant. */
const STRONG =
  /salt|pepper$|yeast|powder$|soda|gelatine|agar|extract|essence|vanilla|saffron|zest|garlic|ginger|chilli|mustard|leaves?$|^fresh |chives|seeds?$|colour|sprinkles|citric|pectin|starch|gum$|cocoa|coffee|tea|sugar$|oil$|honey|syrup|vinegar|sauce|paste|lemon|lime|flowers|nori|miso/;
/** Below this nobody weighs anything else; of fruit and vegetables, below the second. */
const FEW_GRAMS = 5;
const FEW_GRAMS_OF_PLANTS = 12;

/** "2.5 g jam": what is weighed in grams and comes to a crumb. */
function tooLittle(each: Weighed): Slip | undefined {
  const { name, aisle } = each.item.ingredient;
  const isPlant = /^(?:produce|frozen)$/.test(aisle) && !/rocket|watercress/.test(name);
  const least = isPlant ? FEW_GRAMS_OF_PLANTS : FEW_GRAMS;
  if (!/^(?:g|ml)$/.test(each.item.unit.key) || each.grams >= least || aisle === 'spices' || STRONG.test(name))
    return undefined;
  return amountSlip(
    each,
    `${each.grams.toFixed(1)} g of ${name} is a crumb of it: check amount and unit.`,
    `Less than ${least} g are weighed of spices and what is as strong.`,
  );
}

/** The smallest tin or can of anything but paste and fish. */
const LEAST_TIN = 60;

/** "40 g tin kidney beans". */
function tinyTin(each: Weighed): Slip | undefined {
  const { name } = each.item.ingredient;
  const isTin =
    !/mayonnaise|oil$|water$/.test(name) &&
    /\b(?:tins?|cans?)\b/i.test(each.text) &&
    each.item.unit.dimension !== 'count';
  if (!isTin || each.grams >= LEAST_TIN || /paste|anchov|sardines|tuna|capers|olives|chill|jalapeno/.test(name))
    return undefined;
  return amountSlip(
    each,
    `A tin of ${Math.round(each.grams)} g of ${name}: check the figure.`,
    'Tins hold 145 g and more.',
  );
}

/** What fills the plate: less than this a serving, in grams, is none. */
const BASES: readonly (readonly [test: RegExp, least: number, said: string])[] = [
  [/ rice$|^(?:couscous|giant couscous|bulgur wheat|quinoa|pearl barley|farro|freekeh)$/, 7, 'rice or grain'],
  [/pasta|noodles|^(?:spaghetti|penne|macaroni|fusilli|tagliatelle|rigatoni|farfalle)$/, 9, 'pasta'],
  [/ lentils$|^split peas$|^dried (?:chickpeas|.* beans)$/, 7, 'pulses'],
  [
    /^(?:minced .*|chicken .*|turkey breast|white fish fillet|salmon fillet|stewing beef|beef .*|pork .*|diced .*|lamb .*|tuna steak)$/,
    18,
    'meat or fish',
  ],
  [/^(?:firm tofu|halloumi cheese|paneer|puff pastry|shortcrust pastry|prawns|tempeh)$/, 13, 'it'],
  [/^(?:potato|new potatoes|sweet potato|butternut squash|pumpkin)$/, 13, 'it'],
];
/** Where it goes into something, a little of it is meant. */
const A_LITTLE =
  /\b(?:dumplings?|samosas?|rolls?|pasties|wontons?|gyoza|baby|scones?|muffins?|cakes?|bread|loaf|pot stickers|canap\w*|wraps?|lunchbox)\b/i;
const THICKENS = /\b(?:wontons?|gyoza|samosas?|pasties|dumplings?|thicken\w* with the rice)\b/i;

/** Less than this a serving is no dish. */
const FEW_BITES = 75;

/** A dish whose rice, pasta, pulses or meat come to a spoon a serving. */
function thinBase(
  weighed: readonly Weighed[],
  servings: number | undefined,
  title: string,
  steps: readonly string[],
): Slip[] {
  if (servings === undefined || servings < 2 || A_LITTLE.test(title) || THICKENS.test(steps.join(' '))) return [];
  const slips = BASES.flatMap(([test, least, said]): Slip[] => {
    const [each, ...others] = weighed.filter(({ item }) => test.test(item.ingredient.name));
    if (!each || others.length > 0 || each.grams / servings >= least) return [];
    return [
      amountSlip(
        each,
        `${(each.grams / servings).toFixed(0)} g of ${each.item.ingredient.name} a serving: check amount and unit.`,
        `Less than ${least} g of ${said} a serving is not tasted.`,
      ),
    ];
  });
  // Where all of it comes to a few bites, it is the servings that slipped.
  const total = sum(weighed, () => true);
  if (slips.length === 0 || total / servings >= FEW_BITES) return slips;
  return [
    {
      kind: 'yield',
      say: `${servings} servings of ${Math.round(total / servings)} g each: check how many it serves.`,
      why: `A dish of grain, pasta, pulses, meat or potatoes weighs ${FEW_BITES} g a serving and more.`,
      key: `yield ${servings} ${Math.round(total)}`,
    },
  ];
}
