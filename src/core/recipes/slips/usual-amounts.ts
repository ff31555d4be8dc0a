// What a serving usually holds at most, food by food: the figures a cook has in their head.
// Typical of family recipes, ours: about twice the most that two hundred sound recipes hold.
import { wordKey } from '../../reference/food-finder';
import type { Item } from '../recipe/recipe';

type Food = Item['ingredient'];

/** The most of a food that a serving usually holds, and how that is said; the first that fits counts. */
const USUAL: readonly (readonly [test: RegExp, grams: number, said: string])[] = [
  [/^(?:kosher |sea )?salt(?: flakes)?$/, 2.5, 'half a teaspoon of salt'],
  [/^(?:cayenne pepper|chilli flakes)$/, 1.5, 'a pinch of hot chilli'],
  [/^garlic$/, 5, 'a large clove of garlic'],
  [/^(?:baking powder|bicarbonate of soda|cream of tartar)$/, 5, 'a teaspoon of leavening'],
  [/^(?:fresh ginger|galangal|fresh turmeric|lemongrass)$/, 10, 'a small piece of it'],
  [/^(?:fresh chilli|jalapeno pepper|scotch bonnet|bird's eye chilli|poblano pepper)$/, 15, 'a whole chilli'],
  [/(?:extract|rose water|orange blossom water|vanilla paste)$/, 4, 'a teaspoon of it'],
  [/ oil$/, 30, 'two spoons of oil'],
  [/^(?:butter|margarine|lard|ghee|vegan butter)$/, 50, 'three spoons of fat'],
  [/ sugar$/, 60, 'five spoons of sugar'],
  [/^(?:honey|.* syrup|molasses)$/, 50, 'two spoons of syrup'],
  [/ jam$|^marmalade$|^lemon curd$|chutney$|^caramel sauce$|^chocolate spread$/, 50, 'two spoons of it'],
  [/^(?:lemon|lime)$/, 80, 'a whole one'],
  [/ vinegar$|^(?:bottled lemon|bottled lime) juice$/, 40, 'three spoons of something sour'],
  [/^(?:chilli powder|paprika|smoked paprika|curry powder|taco seasoning)$/, 5, 'two teaspoons of a mild spice'],
  [
    /^(?:dried (?:basil|chives|coriander leaf|dill|marjoram|mint|oregano|parsley|rosemary|sage|tarragon|thyme)|mixed dried herbs)$/,
    1.5,
    'a teaspoon of dried herbs',
  ],
  [/^nori$/, 8, 'three sheets'],
  [/^sesame oil$/, 10, 'two teaspoons of it'],
  [/^(?:soy sauce|tamari|coconut aminos|kecap manis)$/, 25, 'a spoon and a half of soy sauce'],
  [/^(?:fish sauce|worcestershire sauce|hot sauce|sriracha|horseradish sauce|harissa paste)$/, 15, 'a spoon of it'],
  [/mustard$/, 12, 'two teaspoons of mustard'],
  [/^(?:miso paste|gochujang|tamarind paste|chipotle paste|.*curry paste|sambal oelek)$/, 25, 'a good spoon of paste'],
  [/^(?:oyster|hoisin|teriyaki|black bean|sweet chilli|barbecue|brown) sauce$|ketchup$/, 45, 'three spoons of sauce'],
  [
    /^(?:mayonnaise|vegan mayonnaise|tahini|pesto|ranch dressing|caesar dressing|vinaigrette)$/,
    50,
    'three spoons of it',
  ],
  [/^(?:peanut|almond|cashew|sunflower seed) butter$/, 60, 'four spoons of nut butter'],
  [/ cream$|^creme fraiche$|^mascarpone$|^cream cheese$/, 150, 'half a cup of cream'],
  [/^(?:halloumi|goat|ricotta|cottage) cheese$|mozzarella|^paneer$|^quark$/, 160, 'a whole ball of cheese'],
  [/^(?:parmesan|pecorino) cheese$/, 60, 'half a cup, grated'],
  [/ cheese(?: slices)?$/, 100, 'a cup of grated cheese'],
  [/chocolate$|chips$/, 120, 'a bar of chocolate'],
  [/^tomato paste$/, 30, 'two spoons of paste'],
  [/^cocoa powder$/, 20, 'three spoons of it'],
  [/^(?:cornstarch|arrowroot|potato starch|tapioca starch|custard powder)$/, 15, 'two spoons of it'],
  [/^(?:quail eggs|egg|hard-boiled egg|liquid egg white)$/, 150, 'three eggs'],
  [/breadcrumbs$|^stuffing mix$|^croutons$/, 60, 'a cup of crumbs'],
  [/ flour$/, 180, 'a cup and a half of flour'],
  [
    /pasta|^(?:spaghetti|penne|macaroni|fusilli|tagliatelle|rigatoni|farfalle|orzo)$| noodles$/,
    160,
    'a heaped plate of pasta',
  ],
  [/ rice$/, 150, 'a cup of dry rice'],
  [
    /^(?:couscous|giant couscous|bulgur wheat|quinoa|pearl barley|polenta|farro|freekeh|millet)$/,
    150,
    'a cup of it, dry',
  ],
  [/oats$|^(?:oatmeal|granola|muesli)$/, 130, 'a bowl of oats'],
  [
    /^fresh (?:parsley|coriander|basil|mint|dill|thyme|sage|rosemary|oregano|tarragon)$|^chives$/,
    30,
    'a bunch of herbs for three',
  ],
  [/^(?:poppy|sesame|black sesame|chia|hemp|mixed) seeds$|flaxseed$/, 25, 'two spoons of seeds'],
  [
    /^(?:pumpkin|sunflower) seeds$|^(?:.*nuts|almonds|pecans|cashews|pistachios|ground almonds)$/,
    70,
    'half a cup of nuts',
  ],
  [
    /^(?:raisins|sultanas|currants|candied peel|glace cherries|dates|prunes|mixed dried fruit|dried (?:apricots|apple|mango|cherries|blueberries|cranberries|figs))$/,
    80,
    'half a cup of dried fruit',
  ],
  [/^(?:bacon|back bacon|pancetta|chorizo|salami|pepperoni|cured ham|smoked salmon)$/, 120, 'four slices of it'],
  [/^(?:onion|red onion|shallot|leek)$/, 150, 'a whole large onion'],
  [/^spring onion$/, 45, 'three spring onions'],
  [/^(?:celery|radish)$/, 80, 'two sticks of it'],
  [/^(?:capers|olives|sun-dried tomatoes|gherkins|pickled .*)$/, 60, 'a handful of it'],
  [/^(?:carrot|parsnip|turnip|swede|beetroot|fennel bulb)$/, 200, 'two of them'],
  [/^(?:sweet pepper|avocado|cucumber|tomato|cherry tomato|mushroom|frozen .*)$/, 300, 'a whole plate of it'],
  [
    /^(?:lettuce|.* lettuce|rocket|mixed salad leaves|watercress|bean sprouts|spinach|kale|chard)$/,
    150,
    'a large bowl of leaves',
  ],
  [/^(?:canned tomato.*|tomato passata|salsa|marinara sauce|.* sweetcorn)$/, 300, 'a whole can of it'],
  [/^hummus$|^guacamole$|^tzatziki$/, 120, 'a tub for two'],
];
/** Of dry spices and herbs, a teaspoon. */
const SPICE: readonly [grams: number, said: string] = [2.5, 'a teaspoon of a dry spice'];
/** Of anything else, by where it is bought: a large portion of it as the main thing on a plate. */
const BY_AISLE: Readonly<Record<string, number>> = {
  meat: 450,
  dry: 220,
  produce: 450,
  bakery: 250,
  dairy: 400,
  frozen: 350,
  cans: 400,
};
const ANY_ELSE = 700;

/** The most of a food, in grams, that a serving usually holds, and what that is. @example usualMost(garlic) // [4, 'a good clove of garlic'] */
export function usualMost({ name, aisle }: Food): readonly [grams: number, said: string] {
  const [, grams, said] = USUAL.find(([test]) => test.test(name)) ?? [];
  if (grams !== undefined && said !== undefined) return [grams, said];
  return aisle === 'spices' ? SPICE : [BY_AISLE[aisle] ?? ANY_ELSE, 'a very large plate'];
}

/** A dish that is named after a food may hold more of it; a plate of pasta or meat is one already. */
export const namedMost = (usual: number, { aisle }: Food): number =>
  usual > 100 && /^(?:dry|meat)$/.test(aisle) ? usual : 2 * usual;

/** Whether a dish is named after a food: "Carrot soup" after carrots. @example isNamed('butternut squash', 'Squash soup') // true */
export function isNamed(name: string, title: string): boolean {
  const noun = wordKey(name.split(' ').at(-1) ?? '');
  return !ANY_FOOD.test(noun) && titleWords(title).has(noun);
}

/** Words of a title, each in one form. */
const titleWords = (title: string): ReadonlySet<string> =>
  new Set(
    title
      .toLowerCase()
      .split(/[^\p{L}]+/u)
      .map(wordKey),
  );

/** Last words of names that many foods share: no dish is named after one of them alone. */
const ANY_FOOD = /^(?:egg|sauce|paste|powder|sugar|cream|oil|bun|roll|stock|leaf|seed)$/;
