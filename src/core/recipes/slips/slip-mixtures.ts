// Amounts held against what they are mixed with: known without the servings.
import { amountSlip, FLOUR, LIQUID, sum } from './amount-slip';
import type { Slip, Weighed } from './slip';

/** Lines of which there is far more or less than what they are mixed with takes: flour and its liquid, fat, leavening, eggs, salt. */
export function mixtureSlips(
  weighed: readonly Weighed[],
  servings: number | undefined,
  steps: readonly string[],
): Slip[] {
  return [
    ...fatSlips(weighed, steps),
    ...leaveningSlips(weighed),
    ...ofFlour(weighed, steps),
    ...liquidSlips(weighed, servings),
    ...floodSlips(weighed, steps),
    ...littleFlour(weighed, steps),
    ...eggSlips(weighed, steps),
    ...binderSlips(weighed, steps),
    ...sauceSlips(weighed, steps),
  ];
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
          amountSlip(
            each,
            `${Math.round(each.grams)} g of ${each.item.ingredient.name} is more than half of all that is baked.`,
            'Shortbread is a third butter, pastry less.',
          ),
        ]
      : [],
  );
}

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
        amountSlip(
          each,
          `${perCup.toFixed(1)} g of ${name} to a cup of flour is far more than usual.`,
          `Usual are ${usual} to a cup of flour (125 g); more tastes of it.`,
        ),
      ];
    if (name === 'dried yeast' && each.grams / flour > 0.03)
      return [
        amountSlip(
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

/** Sweeter than this no yeast dough rises. */
const MOST_SWEET = 0.5;
const SWEET = / sugar$|^honey$| syrup$|^molasses$/;

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
        amountSlip(
          each,
          `Salt is ${((100 * each.grams) / flour).toFixed(0)} % of the flour, far more than usual.`,
          'A dough takes 1 to 2 %.',
        ),
      ];
    if (isYeasty && flour > 100 && SWEET.test(name) && each.grams > MOST_SWEET * flour)
      return [
        amountSlip(
          each,
          `${Math.round(each.grams)} g of ${name} to ${Math.round(flour)} g of flour: yeast hardly rises in so much.`,
          'A sweet yeast dough takes a tenth to a fifth of its flour.',
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
        amountSlip(
          each,
          `${name[0]?.toUpperCase()}${name.slice(1)} is ${((100 * each.grams) / total).toFixed(0)} % of all of it: that sets like rubber.`,
          'A sauce takes 2 to 5 %, a custard up to 8.',
        ),
      ];
    return [];
  });
}

const noDough = (each: Weighed, wet: number, flour: number, why: string): Slip =>
  amountSlip(each, `${Math.round(wet)} g of liquid to ${Math.round(flour)} g of flour: that makes no dough.`, why);

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
      (/ stock$/.test(item.ingredient.name) ? grams < 25 : grams < 12 && /milk$/.test(item.ingredient.name)),
  );
  if (drop)
    return [
      amountSlip(
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
      amountSlip(
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
      amountSlip(
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
      amountSlip(
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
    amountSlip(
      most,
      `${Math.round(most.grams)} g of ${most.item.ingredient.name} to ${Math.round(flour)} g of flour: that bakes to nothing.`,
      'A dough takes about two thirds of the weight of its flour, a cake batter as much as it.',
    ),
  ];
}

/** A cake whose only flour is a spoon of it: cups may be meant. */
function littleFlour(weighed: readonly Weighed[], steps: readonly string[]): Slip[] {
  const flour = sum(weighed, ({ name }) => FLOUR.test(name));
  // A cake of chocolate or nuts is set by them.
  const isRich = sum(weighed, ({ name }) => / chocolate$|nuts$|almonds$|cheese$/.test(name)) > 100;
  const spoon = weighed.find(
    ({ item }) => / flour$/.test(item.ingredient.name) && /^(?:tsp|g)$/.test(item.unit.key) && !isRich,
  );
  const isCake =
    steps.some((step) => /\bbake\b/i.test(step)) &&
    steps.some((step) => /\b(?:fold|mix|stir|beat|whisk|sift)\w*\b[^.]*\bflour\b/i.test(step)) &&
    weighed.some(({ item }) => item.ingredient.name === 'egg') &&
    sum(weighed, ({ name }) => / sugar$/.test(name)) > 50;
  if (!spoon || !isCake || flour >= 0.04 * sum(weighed, () => true)) return [];
  return [
    amountSlip(
      spoon,
      `${spoon.grams.toFixed(1)} g of flour is all that this batter holds: cups may be meant.`,
      'A batter with sugar and eggs takes a quarter of its weight in flour.',
    ),
  ];
}

/** More egg than this to the flour of a cake is an omelette, or a dish that is set with eggs. */
const MOST_EGG = 2.2;
const SET_WITH_EGGS =
  /\b(?:custard|clafoutis|souffl[eé]|quiche|frittata|omelette|cr[eê]pes?|pancakes?|angel|meringue|flan|tart|egg whites|roulade|cr[eè]me)\b/i;

function eggSlips(weighed: readonly Weighed[], steps: readonly string[]): Slip[] {
  const whole = steps.join(' ');
  const flour = sum(weighed, ({ name }) => FLOUR.test(name) || / crumbs$|breadcrumbs$|cocoa powder/.test(name));
  const egg = weighed.find(({ item }) => item.ingredient.name === 'egg');
  const isCake = /\bbake\b/i.test(whole) && sum(weighed, ({ name }) => / sugar$/.test(name)) > 0.3 * flour;
  if (!egg || !isCake || flour < 100 || egg.grams < 300 || egg.grams <= MOST_EGG * flour || SET_WITH_EGGS.test(whole))
    return [];
  return [
    amountSlip(
      egg,
      `${Math.round(egg.grams)} g of egg to ${Math.round(flour)} g of flour: check how many.`,
      'A cake takes about as much egg as flour, a sponge half as much again.',
    ),
  ];
}

/** A sauce of butter, flour and milk: more flour than this to its liquid is a paste. */
const MOST_ROUX = 0.3;

function sauceSlips(weighed: readonly Weighed[], steps: readonly string[]): Slip[] {
  if (!steps.some((step) => /\bmelt\b[^.]*\bbutter\b[^.]*\bflour\b[^.]*\b(?:milk|stock)\b/i.test(step))) return [];
  const flour = weighed.find(({ item }) => / flour$|^cornstarch$/.test(item.ingredient.name));
  const [liquid] = weighed
    .filter(({ item }) => /milk$| stock$/.test(item.ingredient.name))
    .sort((a, b) => b.grams - a.grams);
  if (
    !flour ||
    !liquid ||
    flour.grams <= MOST_ROUX * liquid.grams ||
    steps.some((step) => /\b(?:dough|knead|choux|pastry|batter)\b/i.test(step))
  )
    return [];
  return [
    amountSlip(
      flour.grams > 150 ? flour : liquid,
      `${Math.round(flour.grams)} g of flour to ${Math.round(liquid.grams)} g of ${liquid.item.ingredient.name}: that is a paste, and no sauce.`,
      'A sauce takes a tenth of its milk or stock in flour.',
    ),
  ];
}

/** What binds a burger, or coats a piece of fish, is a small part of it. */
const MOST_BINDER = 0.45;

const BOUND = /\b(?:burgers?|patt(?:y|ies)|meatballs?|koftas?|falafels?|meatloaf|nuggets)\b/i;
const COATED = /\b(?:dip|coat|dredge|dust)\w*\b[^.]*\b(?:flour|crumbs)/i;

function binderSlips(weighed: readonly Weighed[], steps: readonly string[]): Slip[] {
  if (!steps.some((step) => BOUND.test(step) || COATED.test(step))) return [];
  const isBinder = (name: string) => / flour$|breadcrumbs$/.test(name);
  const main = sum(
    weighed,
    ({ name, aisle }) =>
      /minced|chickpeas|beans|lentils|tofu|sausage|potato|fish|salmon|cauliflower|halloumi/.test(name) ||
      aisle === 'meat',
  );
  return weighed.flatMap((each): Slip[] =>
    isBinder(each.item.ingredient.name) && main > 150 && each.grams > MOST_BINDER * main
      ? [
          amountSlip(
            each,
            `${Math.round(each.grams)} g of ${each.item.ingredient.name} to ${Math.round(main)} g of what it binds is far more than usual.`,
            'A tenth to a quarter of it binds; more is bread.',
          ),
        ]
      : [],
  );
}

/** Weighed cooked, or bought dry for a cooked amount. */
const isCooked = ({ preparation, written }: { readonly preparation?: string; readonly written?: string }) =>
  preparation === 'cooked' || /\bcooked\b/i.test(written ?? '');
