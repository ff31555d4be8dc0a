// What a dish of a kind cannot do without: the sugar of a cake, the liquid of a batter, what it is called after.
import { amountSlip, FLOUR, sum } from './amount-slip';
import type { Dish, Slip } from './slip';
import { isNamed } from './usual-amounts';

/** Lines that are far less of a dish of this kind than it takes. */
export const needSlips = (dish: Dish): Slip[] => [
  ...LEAST.flatMap((row) => tooLittle(row, dish) ?? []),
  ...calledAfter(dish),
];

/** What a dish of a kind needs: foods that come to at least so much of something, and which of them is asked about. */
interface Least {
  readonly kind: RegExp;
  readonly except?: RegExp;
  readonly foods: RegExp;
  readonly of: RegExp;
  readonly least: number;
  readonly why: string;
}

const ANY = /./;
const SWEETENER =
  / sugar$|^honey$| syrup$|^molasses$|^condensed milk$|^dates$|jam$|chocolate$|banana|^sultanas$|^raisins$/;
const FAT =
  /^(?:butter|margarine|lard|vegetable shortening|ghee|coconut oil|.* oil|vegan butter|suet|mayonnaise|.* cream|cream cheese|mascarpone)$|butter$|cheese$|^(?:almonds|ground almonds|.*nuts|tahini)$|chocolate$/;
const WET_IN_BAKING =
  /milk$|^water$| drink$|juice$|yogurt$|^egg$| oil$|^honey$| syrup$|^molasses$|cream$|^(?:banana|carrot|apple|courgette|pumpkin|canned pumpkin|beetroot|apple sauce|lemon|orange|butter|margarine|beer|cider|quark|kefir|ricotta cheese|cottage cheese|creamed corn|canned sweetcorn|potato|sweet potato|canned pineapple|pear|plum|rhubarb|liquid egg white|cream cheese|lard)$|berries$/;
const FLOURY = new RegExp(
  `${FLOUR.source}|crumbs$|biscuits$|^(?:cornflakes|crisp rice cereal|cornstarch|desiccated coconut|.*nuts|oatmeal|.* oats|couscous|marzipan|sponge cake|bread.*|.* bread)$`,
);
const LEAST: readonly Least[] = [
  {
    kind: /\b(?:cakes?|cupcakes?|traybakes?|brownies|blondies|cookies?|flapjacks?|sponge|shortbread|gingerbread)\b/i,
    except:
      /\b(?:fish|potato|rice|oat|chicken|halloumi|sausage|crab|corn|cheese|savou?ry|sugar[- ]free|salmon|veg\w*|pan)[ -]?(?:cakes?|crumbles?|shortbread|cookies?)?\b/i,
    foods: SWEETENER,
    of: ANY,
    least: 0.045,
    why: 'Something sweet takes a tenth to a third of its weight in sugar.',
  },
  {
    kind: /\b(?:cookies?|flapjacks?|crumbles?|shortbread|brownies|scones?|pastry|biscuits)\b/i,
    foods: FAT,
    of: ANY,
    least: 0.05,
    why: 'It takes a tenth to a third of its weight in butter.',
  },
  {
    kind: /\b(?:muffins?|cupcakes?|cornbread)\b/i,
    foods: WET_IN_BAKING,
    of: FLOUR,
    least: 0.62,
    why: 'A batter takes as much liquid as flour, or nearly.',
  },
  {
    kind: /\b(?:cakes?|bread|loaf|rolls|pizza dough|focaccia|buns|scones?|flatbreads?)\b/i,
    except:
      /\b(?:fish|rice|crab|oat|potato|salmon|fruit)[ -]?cakes?\b|\b(?:spring|sushi|sausage|egg|lettuce|summer|cabbage) rolls\b/i,
    foods: WET_IN_BAKING,
    of: FLOUR,
    least: 0.38,
    why: 'A dough takes half of the weight of its flour in liquid, a batter as much as it.',
  },
  {
    kind: /\b(?:scones?|biscuits?|cookies?|crumbles?|shortbread|muffins?|cakes?|cupcakes?|cornbread|slice|bread|loaf|pizza dough|pastry)\b/i,
    except:
      /\b(?:fish|rice|crab|potato|salmon)[ -]?cakes?\b|\bsummer loaf\b|cheesecake|\bchocolate cake\b|ice cream|fridge|no[- ]bake/i,
    foods: FLOURY,
    of: ANY,
    least: 0.075,
    why: 'It is made of flour: a quarter to a half of its weight.',
  },
  {
    kind: /\b(?:pancakes?|cr[eê]pes?|waffles?|batter pudding|yorkshire)\b/i,
    foods: /milk$|^water$| drink$|yogurt$|cottage cheese|ricotta|^beer$/,
    of: FLOUR,
    least: 0.4,
    why: 'A batter takes as much liquid as flour, and more.',
  },
  {
    kind: /\b(?:pilaf|pilau|risotto|jollof|paella|rice and peas|congee)\b/i,
    foods: /stock$|^water$|milk$|tomato|passata|juice$|wine$/,
    of: / rice$|^(?:bulgur wheat|pearl barley)$/,
    least: 0.8,
    why: 'Rice takes up more than its own weight.',
  },
  {
    kind: ANY,
    foods: / stock$|^water$/,
    of: /^(?:couscous|bulgur wheat)$/,
    least: 0.4,
    why: 'Couscous and bulgur take up their own weight and more.',
  },
  {
    kind: /\brice pudding\b/i,
    foods: /milk$| drink$|cream$/,
    of: / rice$/,
    least: 3,
    why: 'Rice pudding takes eight to ten times the weight of its rice in milk.',
  },
  {
    kind: /\b(?:soup|chowder|broth|bisque|gazpacho|minestrone)\b/i,
    foods: /stock$|^water$|milk$|tomato|passata|juice$|cream$|cucumber|^melon$| soup$| drink$/,
    of: ANY,
    least: 0.16,
    why: 'A soup is half liquid and more.',
  },
  {
    kind: /\b(?:soup|chowder|broth|bisque|minestrone|stew)\b/i,
    foods: / stock$/,
    of: ANY,
    least: 0.06,
    why: 'Less stock than that is a splash: a figure may be missing.',
  },
  {
    kind: /\b(?:mac(?:aroni)? and cheese|mac & cheese|lasagne|pasta bake)\b/i,
    foods: /milk$|passata|tomato|cream$|stock$|cheese$|sauce$|egg/,
    of: /macaroni|penne|pasta|lasagne|fusilli|rigatoni/,
    least: 0.7,
    why: 'The sauce weighs more than the dry pasta.',
  },
];

function tooLittle({ kind, except, foods, of, least, why }: Least, { title, weighed }: Dish): Slip | undefined {
  if (!kind.test(title) || except?.test(title)) return undefined;
  const [most] = weighed.filter(({ item }) => foods.test(item.ingredient.name)).sort((a, b) => a.grams - b.grams);
  const base = sum(weighed, ({ name }) => of.test(name));
  const there = sum(weighed, ({ name }) => foods.test(name));
  if (!most || base < 60 || there >= least * base) return undefined;
  return amountSlip(
    most,
    `${Math.round(there)} g of ${most.item.ingredient.name} and the like to ${Math.round(base)} g is too little for this.`,
    why,
  );
}

/** A food the dish is called after is more than this share of it, unless it is strong. */
const LEAST_NAMED = 0.03;
const STRONG =
  /garlic|ginger|lemon|lime|orange|mint|chilli|basil|herb|vanilla|cinnamon|pepper$|mustard|honey|sesame|seeds$|nuts$|almonds|syrup|vinegar|soy|miso|coffee|cocoa|parsley|coriander|dill|rosemary|thyme|sage|chives|salt|oil$|spice|powder|stock|butter$|cheese$|jam$|sugar|flour|oats|egg|milk$|cream$|bacon|sauce|paste|curry|cumin|caraway|saffron|paprika|turmeric|anchov|coconut|chocolate|bread|tortilla|bun|roll|pitta|tea|flower|soda|yeast/;

function calledAfter({ title, weighed }: Dish): Slip[] {
  const total = sum(weighed, () => true);
  // "Bowl with tahini dressing" is called after the bowl.
  const main = title.split(/ (?:with|in|on|and|&|w\/) |[,(–-] /i)[0] ?? title;
  return weighed.flatMap((each): Slip[] => {
    const { name, aisle } = each.item.ingredient;
    if (STRONG.test(name) || aisle === 'spices' || !isNamed(name, main)) return [];
    const share = sum(weighed, (other) => other.name.split(' ').at(-1) === name.split(' ').at(-1)) / total;
    if (share >= LEAST_NAMED) return [];
    return [
      amountSlip(
        each,
        `“${title}” holds only ${Math.round(each.grams)} g of ${name}.`,
        'A dish is called after what it holds most of, or nearly.',
      ),
    ];
  });
}
