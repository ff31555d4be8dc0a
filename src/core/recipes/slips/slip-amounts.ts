import type { Slip, Weighed } from './slip';

/** The most of a food that a serving usually holds, in grams; beyond it one asks. Typical of family recipes, ours. */
const USUAL: readonly (readonly [test: RegExp, grams: number, said: string])[] = [
  [/^(?:kosher |sea )?salt(?: flakes)?$/, 2.5, 'half a teaspoon of salt'],
  [/^(?:cayenne pepper|chilli flakes)$/, 1.5, 'a pinch of hot chilli'],
  [/^garlic$/, 4, 'a good clove of garlic'],
  [/^fresh ginger$/, 10, 'a small piece of ginger'],
  [/^(?:fresh chilli|jalapeno pepper|scotch bonnet|bird's eye chilli|poblano pepper)$/, 15, 'a whole chilli'],
  [/^vanilla extract$/, 4, 'a teaspoon of vanilla'],
  [/ oil$/, 30, 'two spoons of oil'],
  [/^(?:butter|margarine|lard|ghee)$/, 60, 'four spoons of fat'],
  [/ sugar$/, 60, 'five spoons of sugar'],
  [/^(?:honey|.* syrup|molasses)$/, 60, 'three spoons of syrup'],
  [/^(?:lemon|lime)$/, 120, 'a whole one'],
  [/ vinegar$/, 40, 'three spoons of something sour'],
  [/^(?:chilli powder|paprika|smoked paprika|curry powder|taco seasoning)$/, 6, 'two teaspoons of a mild spice'],
  [/^(?:soy sauce|tamari)$/, 25, 'a spoon and a half of soy sauce'],
  [/^(?:fish sauce|worcestershire sauce|hot sauce|mustard)$/, 15, 'a spoon of it'],
  [/^(?:mayonnaise|tahini|pesto)$/, 60, 'four spoons of it'],
  [/^(?:peanut butter|almond butter)$/, 80, 'five spoons of nut butter'],
  [/^(?:double|single|soured|whipping) cream$|^creme fraiche$|^mascarpone$|^cream cheese$/, 150, 'half a cup of cream'],
  [/ cheese$/, 150, 'a whole ball of cheese'],
  [/^(?:dark|milk|white) chocolate$/, 120, 'a bar of chocolate'],
  [/^tomato paste$/, 60, 'four spoons of paste'],
  [/^cocoa powder$/, 30, 'a third of a cup'],
  [/^egg$/, 150, 'three eggs'],
  [/breadcrumbs$/, 70, 'a cup of crumbs'],
  [/ flour$/, 180, 'a cup and a half of flour'],
  [/^fresh (?:parsley|coriander|basil|mint|dill|thyme|sage|rosemary)$/, 20, 'a handful of herbs'],
];
/** Of dry spices and herbs, a teaspoon. */
const SPICE_GRAMS = 2.5;
/** Of anything at all, by where it is bought: a large portion of it as the main thing on a plate. */
const ANY_GRAMS: Readonly<Record<string, number>> = { meat: 450, dry: 220, produce: 550, bakery: 300, dairy: 400 };
const ANY_ELSE = 700;

/** Lines whose amount is far from what a serving, a cup of flour or a cup of grain usually takes. */
export function amountSlips(
  weighed: readonly Weighed[],
  servings: number | undefined,
  steps: readonly string[],
): Slip[] {
  return [
    ...(servings === undefined ? [] : weighed.flatMap((each) => perServing(each, servings, weighed) ?? [])),
    ...weighed.flatMap((each) => tooLittle(each) ?? []),
    ...fatSlips(weighed, steps),
    ...leaveningSlips(weighed),
    ...ofFlour(weighed, steps),
    ...liquidSlips(weighed, servings),
    ...floodSlips(weighed, steps),
    ...littleFlour(weighed, steps),
  ];
}

const slip = (each: Weighed, say: string, why: string): Slip => {
  const repair = otherUnit(each);
  return {
    kind: 'amount',
    line: each.at,
    say,
    why,
    ...(repair ? { repair } : {}),
    key: `amount ${each.written.ingredient} ${each.written.amount} ${each.written.unit}`,
  };
};

function perServing(each: Weighed, servings: number, weighed: readonly Weighed[]): Slip | undefined {
  const { name, aisle } = each.item.ingredient;
  const grams = each.grams / servings;
  const known = USUAL.find(([test]) => test.test(name));
  const [, most, said] =
    known ??
    (aisle === 'spices'
      ? [null, SPICE_GRAMS, 'a teaspoon of a dry spice']
      : [null, ANY_GRAMS[aisle] ?? ANY_ELSE, 'a very large plate']);
  // Whole heads of garlic are meant where they are a main part of it: roasted, or laid in oil.
  const isMain = each.grams > 0.15 * sum(weighed, () => true);
  if (name === 'garlic' && each.item.unit.key === 'head' && isMain && grams < 60) return undefined;
  // A loaf or a cake that makes one is no plate.
  if (/ flour$/.test(name) && servings < 4) return undefined;
  if (grams <= most || aisle === 'tap' || /stock$|milk$/.test(name)) return undefined;
  const shown = grams < 10 ? grams.toFixed(1) : Math.round(grams);
  return slip(
    each,
    `${shown} g of ${name} a serving is far more than usual: check amount and unit.`,
    `A serving usually holds at most ${most} g, ${said}.`,
  );
}

/** Strong enough that a few grams of it are meant. */
const STRONG =
  /salt|pepper$|yeast|powder$|soda|gelatine|agar|extract|essence|vanilla|saffron|zest|garlic|ginger|chilli|mustard|leaves?$|^fresh |chives|seeds?$|colour|sprinkles|citric|pectin|starch|gum$|cocoa|coffee|tea|sugar$|oil$|honey|syrup|vinegar|sauce|paste|lemon|lime|flowers|nori|miso/;
/** Below this nobody weighs anything else. */
const FEW_GRAMS = 5;

/** "2.5 g jam": what is weighed in grams and comes to a crumb. */
function tooLittle(each: Weighed): Slip | undefined {
  const { name, aisle } = each.item.ingredient;
  if (!/^(?:g|ml)$/.test(each.item.unit.key) || each.grams >= FEW_GRAMS || aisle === 'spices' || STRONG.test(name))
    return undefined;
  return slip(
    each,
    `${each.grams.toFixed(1)} g of ${name} is a crumb of it: check amount and unit.`,
    `Less than ${FEW_GRAMS} g are weighed of spices and what is as strong.`,
  );
}

/** More than half of what is baked is never fat. */
const MOST_FAT = 0.5;

function fatSlips(weighed: readonly Weighed[], steps: readonly string[]): Slip[] {
  const total = sum(weighed, () => true);
  const flour = sum(weighed, ({ name }) => FLOUR.test(name));
  if (flour < 0.03 * total || !steps.some((step) => /\bbake\b/i.test(step))) return [];
  return weighed.flatMap((each): Slip[] =>
    /^(?:butter|margarine|lard|vegetable shortening|ghee)$/.test(each.item.ingredient.name) &&
    each.grams > MOST_FAT * total
      ? [
          slip(
            each,
            `${Math.round(each.grams)} g of ${each.item.ingredient.name} is more than half of all that is baked.`,
            'Shortbread is a third butter, pastry less.',
          ),
        ]
      : [],
  );
}

/** Foods that leavening is measured against. */
const FLOUR = / flour$|^(?:maize meal|ground almonds|semolina|rolled oats|quick oats|oat bran|wheat bran)$/;
const CUP_OF_FLOUR = 125;

/** Grams of leavening to a cup of flour beyond which it tastes of it. Usual: 1 to 1½ tsp powder, ¼ to ½ tsp soda. */
const LEAVENING: readonly (readonly [name: string, most: number, usual: string])[] = [
  ['baking powder', 9.2, '1 to 1½ tsp'],
  ['bicarbonate of soda', 4.6, '¼ to ½ tsp'],
];

function leaveningSlips(weighed: readonly Weighed[]): Slip[] {
  const flour = sum(weighed, ({ name }) => FLOUR.test(name));
  return weighed.flatMap((each): Slip[] => {
    const { name } = each.item.ingredient;
    if (flour === 0) return [];
    const perCup = (each.grams * CUP_OF_FLOUR) / flour;
    const [, most, usual] = LEAVENING.find(([leavening]) => leavening === name) ?? [];
    if (most !== undefined && perCup > most)
      return [
        slip(
          each,
          `${perCup.toFixed(1)} g of ${name} to a cup of flour is far more than usual.`,
          `Usual are ${usual} to a cup of flour (125 g); more tastes of it.`,
        ),
      ];
    if (name === 'dried yeast' && each.grams / flour > 0.03)
      return [
        slip(
          each,
          `Yeast is ${((100 * each.grams) / flour).toFixed(1)} % of the flour, far more than usual.`,
          'Dried yeast is usually 1 to 2 % of the flour.',
        ),
      ];
    return [];
  });
}

/** Salt beyond this share of the flour is no dough any more, a starch beyond this share of all is no sauce. */
const MOST_SALT = 0.045;
const MOST_STARCH = 0.1;

/** Salt, liquid and starch held against what they are mixed with: known without the servings. */
function ofFlour(weighed: readonly Weighed[], steps: readonly string[]): Slip[] {
  const total = sum(weighed, () => true);
  const flour = sum(weighed, ({ name }) => FLOUR.test(name));
  const isDough = flour > 0.35 * total && steps.some((step) => /\b(?:bake|knead|dough|batter|roll out)\b/i.test(step));
  const isCrust = steps.some((step) => /\bsalt (?:crust|dough)\b|\bplay ?dough\b/i.test(step));
  const wet = sum(weighed, ({ name }) => LIQUID.test(name) || WET.test(name));
  const isYeasty = weighed.some(({ item }) => / yeast$/.test(item.ingredient.name));
  return weighed.flatMap((each): Slip[] => {
    const { name } = each.item.ingredient;
    if (isDough && !isCrust && /^(?:kosher |sea )?salt(?: flakes)?$/.test(name) && each.grams > MOST_SALT * flour)
      return [
        slip(
          each,
          `Salt is ${((100 * each.grams) / flour).toFixed(0)} % of the flour, far more than usual.`,
          'A dough takes 1 to 2 %.',
        ),
      ];
    if (isDough && isYeasty && /^(?:water|milk)$/.test(name) && wet < 0.35 * flour)
      return [noDough(each, wet, flour, 'A yeast dough takes half of the weight of its flour and more.')];
    if (
      flour === 0 &&
      /^(?:cornstarch|arrowroot|potato starch|tapioca starch)$/.test(name) &&
      each.grams > MOST_STARCH * total
    )
      return [
        slip(
          each,
          `${name[0]?.toUpperCase()}${name.slice(1)} is ${((100 * each.grams) / total).toFixed(0)} % of all of it: that sets like rubber.`,
          'A sauce takes 2 to 5 %, a custard up to 8.',
        ),
      ];
    return [];
  });
}

const noDough = (each: Weighed, wet: number, flour: number, why: string): Slip =>
  slip(each, `${Math.round(wet)} g of liquid to ${Math.round(flour)} g of flour: that makes no dough.`, why);

const LIQUID =
  /^(?:water|.* stock|milk|buttermilk|coconut milk|.* drink|.* juice|tomato passata|canned chopped tomatoes|single cream)$/;
const WET = /^(?:egg|plain yogurt|greek yogurt|honey|.* syrup|banana|carrot|apple|canned pumpkin|.* oil)$/;
const GRAIN = /rice$|^(?:quinoa|couscous|bulgur wheat|pearl barley|millet|buckwheat|.* lentils|split peas|polenta)$/;

/** Too little to cook the grain in, or to make a dough. */
function liquidSlips(weighed: readonly Weighed[], servings: number | undefined): Slip[] {
  const liquids = weighed.filter(({ item }) => LIQUID.test(item.ingredient.name));
  const spoon = liquids
    .filter(({ item }) => item.unit.key === 'tsp' || item.unit.key === 'Tbsp')
    .sort((a, b) => a.grams - b.grams)[0];
  // "1.2 ml stock"
  const drop = liquids.find(
    ({ item, grams }) =>
      item.unit.key === 'ml' &&
      (/ stock$/.test(item.ingredient.name) ? grams < 25 : grams < 5 && /milk$|^water$/.test(item.ingredient.name)),
  );
  if (drop)
    return [
      slip(
        drop,
        `${drop.grams.toFixed(1)} ml of ${drop.item.ingredient.name} is a spoon of it: a cup or litres may be meant.`,
        'A teaspoon holds 5 ml, a tablespoon 15.',
      ),
    ];
  if (!spoon) return [];
  const liquid = liquids.reduce((total, { grams }) => total + grams, 0);
  const grain = sum(weighed, ({ name }, { written }) => GRAIN.test(name) && !isCooked(written));
  const flour = sum(weighed, ({ name }) => FLOUR.test(name));
  const wet = liquid + sum(weighed, ({ name }) => WET.test(name));
  if (grain > 0 && liquid < 0.7 * grain)
    return [
      slip(
        spoon,
        `${Math.round(liquid)} g of liquid to ${Math.round(grain)} g of grain or pulses: it cannot cook in that.`,
        'Grains and pulses take at least as much liquid as they weigh.',
      ),
    ];
  // Without yeast, butter makes a dough of much flour and little liquid.
  if (flour > 60 && wet < 0.15 * flour)
    return [noDough(spoon, wet, flour, 'A dough takes a third of the weight of its flour and more.')];
  // A batter of oil and eggs takes milk by the cup; what is made of butter may do without.
  const isBatter =
    weighed.some(({ item }) => item.ingredient.name === 'baking powder') &&
    !weighed.some(({ item }) => /^(?:butter|margarine)$/.test(item.ingredient.name));
  const withoutOil = wet - sum(weighed, ({ name }) => / oil$/.test(name));
  if (
    isBatter &&
    spoon.item.unit.key === 'tsp' &&
    /milk$|^water$/.test(spoon.item.ingredient.name) &&
    withoutOil < 0.3 * flour
  )
    return [
      slip(
        spoon,
        `${Math.round(withoutOil)} g of liquid to ${Math.round(flour)} g of flour: that makes no batter.`,
        'A batter takes half of the weight of its flour and more: cups may be meant.',
      ),
    ];
  if (
    spoon.item.unit.key === 'tsp' &&
    servings !== undefined &&
    spoon.grams / servings < 15 &&
    (/stock$/.test(spoon.item.ingredient.name) ||
      (/milk$|^water$|drink$|passata/.test(spoon.item.ingredient.name) && spoon.grams > 18))
  )
    return [
      slip(
        spoon,
        `${spoon.item.ingredient.name[0]?.toUpperCase()}${spoon.item.ingredient.name.slice(1)} is measured in teaspoons: cups may be meant.`,
        'A soup or stew takes a cup of stock a serving; more than three teaspoons of milk or water are said in spoons or cups.',
      ),
    ];
  return [];
}

/** So much liquid to its flour nothing baked holds; what is poured into a hot tin, or set with eggs, is another thing. */
const MOST_LIQUID = 1.8;
const POURED =
  /\b(?:pancakes?|cr[eê]pes?|batter pudding|yorkshire|popovers?|waffles?|custard|clafoutis|pudding|cobbler|dumplings?|pie|gratin|sauce|soup|stew|casserole|lasagne|quiche|moussaka|gravy|roux|simmer|drop scones?)\b/i;

/** More liquid than what is baked of the flour can hold. */
function floodSlips(weighed: readonly Weighed[], steps: readonly string[]): Slip[] {
  const whole = steps.join(' ');
  const isRaised = weighed.some(({ item }) =>
    /^(?:baking powder|bicarbonate of soda|.* yeast|self-raising flour)$/.test(item.ingredient.name),
  );
  if (!isRaised || !/\bbake\b/i.test(whole) || POURED.test(whole)) return [];
  const flour = sum(weighed, ({ name }) => FLOUR.test(name));
  const [most] = weighed.filter(({ item }) => LIQUID.test(item.ingredient.name)).sort((a, b) => b.grams - a.grams);
  if (!most || flour < 60 || most.grams <= MOST_LIQUID * flour) return [];
  return [
    slip(
      most,
      `${Math.round(most.grams)} g of ${most.item.ingredient.name} to ${Math.round(flour)} g of flour: that bakes to nothing.`,
      'A dough takes about two thirds of the weight of its flour, a cake batter as much as it.',
    ),
  ];
}

/** A cake whose only flour is a spoon of it: cups may be meant. */
function littleFlour(weighed: readonly Weighed[], steps: readonly string[]): Slip[] {
  const flour = sum(weighed, ({ name }) => FLOUR.test(name));
  const spoon = weighed.find(({ item }) => / flour$/.test(item.ingredient.name) && item.unit.key === 'tsp');
  const isCake =
    steps.some((step) => /\bbake\b/i.test(step)) &&
    steps.some((step) => /\b(?:fold|mix|stir|beat|whisk|sift)\w*\b[^.]*\bflour\b/i.test(step)) &&
    weighed.some(({ item }) => item.ingredient.name === 'egg') &&
    sum(weighed, ({ name }) => / sugar$/.test(name)) > 50;
  if (!spoon || !isCake || flour >= 0.04 * sum(weighed, () => true)) return [];
  return [
    slip(
      spoon,
      `${spoon.grams.toFixed(1)} g of flour is all that this batter holds: cups may be meant.`,
      'A batter with sugar and eggs takes a quarter of its weight in flour.',
    ),
  ];
}

const sum = (
  weighed: readonly Weighed[],
  counts: (food: Weighed['item']['ingredient'], each: Weighed) => boolean,
): number => weighed.reduce((total, each) => total + (counts(each.item.ingredient, each) ? each.grams : 0), 0);

/** The same line by the measure that is most often mistaken for it: spoons for spoons, cups for spoons. */
function otherUnit({ text, item }: Weighed): string | undefined {
  const [from, to] =
    item.unit.key === 'Tbsp'
      ? [/\b(?:Tbsps?|tbsps?|tablespoons?|T)\b\.?/, 'tsp']
      : item.unit.key === 'cup'
        ? [/\bcups?\b/i, 'tsp']
        : item.unit.key === 'tsp' && LIQUID.test(item.ingredient.name)
          ? [/\b(?:tsps?|teaspoons?)\b\.?/i, 'cups']
          : [undefined, ''];
  return from?.test(text) ? text.replace(from, to) : undefined;
}

/** Weighed cooked, or bought dry for a cooked amount. */
const isCooked = ({ preparation, written }: { readonly preparation?: string; readonly written?: string }) =>
  preparation === 'cooked' || /\bcooked\b/i.test(written ?? '');
