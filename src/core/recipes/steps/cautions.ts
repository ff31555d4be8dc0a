import facts from '../../reference/facts/cautions.json';

/** A usual caution: who is at risk, from what, and what to do. */
export interface RecipeCaution {
  readonly who: string;
  readonly hazard: string;
  readonly caution: string;
  readonly source: string;
  /** The foods of the dish that bring it; none where a step does. */
  readonly foods?: readonly string[];
}

/** What brings a caution along: foods by name, steps, or that it is cooked over a fire. */
interface Brings {
  readonly foods?: RegExp;
  readonly steps?: RegExp;
  readonly fire?: true;
}

const HOT = /\b(?:oven|bake|roast|fry|fries|boil|simmer|grill|saut[eé]|toast)/i;

/** Which foods and which steps bring which caution of the table along, in its order. */
const BRINGS: readonly (readonly [hazard: string, brings: Brings])[] = [
  ['honey and foods made with it', { foods: /\bhoney\b/ }],
  [
    'whole grapes, cherry tomatoes, olives and large berries',
    { foods: /\b(?:grapes|cherry tomato|olives|blueberries|cherries)\b/ },
  ],
  [
    'whole and chopped nuts and lumps of nut butter',
    {
      foods:
        /\b(?:walnuts|almonds|hazelnuts|pecans|cashews|pistachios|pine nuts|peanuts|peanut butter|almond butter)\b/,
    },
  ],
  [
    'sausages, hard cheese in chunks, raw apple, raw carrot, popcorn, marshmallows, hard sweets and fish bones',
    {
      foods: /\b(?:sausage|cheddar|parmesan|popcorn|marshmallows|fish fillet|salmon|tuna steak)\b|^(?:apple|carrot)$/,
    },
  ],
  ['raw poultry rinsed under the tap', { foods: /\b(?:chicken|turkey)\b(?! (?:stock|broth|gravy|ham|sausage))/ }],
  ['raw flour, dough and batter', { foods: / flour$/ }],
  ['raw or runny egg', { foods: /^(?:egg|mayonnaise)$/ }],
  [
    'mould-ripened cheese, unpasteurised milk or juice, smoked fish, deli meat, liver and high-mercury fish',
    {
      foods: /\b(?:blue|brie|goat|feta) cheese|smoked salmon|salami|cured ham|cooked ham|\bpate\b|\btuna\b/,
      steps: /\bunpasteuri[sz]ed\b|\braw milk\b/i,
    },
  ],
  [
    'chopped garlic or herbs in oil',
    {
      steps:
        /\binfus\w+|\b(?:garlic|herbs?|basil|rosemary|thyme|chilli)\b[^.]{0,40}\b(?:in|under|with)\b[^.]{0,20}\boil\b[^.]{0,60}\b(?:keep|store|jar|steep|overnight|days?|weeks?)\b/i,
    },
  ],
  [
    'cooked rice, pasta, potatoes and pulses',
    {
      foods: /\b(?:rice|macaroni|spaghetti|penne|fusilli|pasta|potato|lentils|dried \w+ ?beans|chickpeas|split peas)\b/,
    },
  ],
  [
    'cut tomatoes, melon and leafy greens',
    { foods: /^(?:cherry )?tomato$|melon$|lettuce|spinach|salad leaves|rocket|^kale$|chard|pak choi/ },
  ],
  ['raw sprouts', { foods: /sprouts$/ }],
  ['dried kidney beans', { foods: /^dried kidney beans$/ }],
  ['green or sprouting potatoes and bitter courgettes', { foods: /^(?:potato|courgette)$/ }],
  ['raw meat juices', { foods: /\b(?:chicken|turkey|minced|beef|pork|lamb|bacon)\b(?! (?:stock|broth|gravy|ham))/ }],
  ['hot liquid in a closed blender', { steps: /\bblend/i }],
  ['chilli peppers', { foods: /\b(?:fresh chilli|chilli flakes|cayenne)\b/ }],
  [
    'stones and hard squash',
    { foods: /^(?:avocado|mango|peach|plum|apricot|cherries|swede|celeriac)$|squash|^pumpkin$/ },
  ],
  ['sharp knives', { steps: /\b(?:cut|chop|slic|dic|minc|trim|halv|quarter)(?:e|es|ed|ing|s)?\b/i }],
  ['graters and peelers', { steps: /\b(?:grate|peel)/i }],
  ['ovens, hobs and hot oil', { steps: HOT }],
  ['burns', { steps: HOT, fire: true }],
  ['open fire and barbecue', { steps: /\b(?:barbecue|camp ?fire|open fire|embers|charcoal)\b/i, fire: true }],
  [
    'swollen, leaking, rusted or sharply dented cans and broken seals',
    { foods: /^canned |passata|coconut (?:milk|cream)|(?:evaporated|condensed) milk|baked beans/ },
  ],
  ['tasting', { steps: /\btast(?:e|ing)\b/i }],
];

/** Cautions that belong to a place of work, not to a dish. */
const AT = {
  shopping: [
    'swollen, leaking, rusted or sharply dented cans and broken seals',
    'donations that are home-canned, unlabelled, past use-by or foraged',
    'green or sprouting potatoes and bitter courgettes',
  ],
  packing: [
    'sachets filled from packs',
    'ready-to-eat food',
    'raw meat juices',
    'illness of helpers',
    'hand gel',
    'cold kits on the way',
  ],
  room: ['severe allergic reaction', 'altered-texture diets', 'hand gel', 'tasting', 'burns', 'illness of helpers'],
} as const;

/** Where cautions belong to the work itself. */
export type CautionPlace = keyof typeof AT;

const factOf = (hazard: string): RecipeCaution[] => facts.filter((row) => row.hazard === hazard);

/** The cautions that a dish brings along, in the order of the table above. @param isFire it is cooked over an open fire */
export const cautionsOf = (ingredients: readonly string[], steps: readonly string[], isFire = false): RecipeCaution[] =>
  BRINGS.flatMap(([hazard, { foods, steps: doing, fire }]) => {
    const bringing = foods ? [...new Set(ingredients.filter((name) => foods.test(name)))] : [];
    const isBrought =
      bringing.length > 0 ||
      (doing !== undefined && steps.some((step) => doing.test(step))) ||
      (isFire && Boolean(fire));
    return isBrought ? factOf(hazard).map((fact) => ({ ...fact, foods: bringing })) : [];
  });

/** The usual cautions of a place of work. */
export const cautionsAt = (place: CautionPlace): RecipeCaution[] => AT[place].flatMap(factOf);
