import facts from '../reference/facts/cautions.json';

/** A usual caution that goes with a dish: who is at risk, from what, and what to do. */
export interface RecipeCaution {
  readonly who: string;
  readonly hazard: string;
  readonly caution: string;
  readonly source: string;
}

/** Which foods, by name, and which steps bring which caution of the table along. */
const BRINGS: readonly (readonly [hazard: string, foods: RegExp | undefined, steps: RegExp | undefined])[] = [
  ['honey and foods made with it', /\bhoney\b/, undefined],
  [
    'whole grapes cherry tomatoes olives and large berries',
    /\b(?:grapes|cherry tomato|olives|blueberries|cherries)\b/,
    undefined,
  ],
  [
    'whole and chopped nuts and lumps of nut butter',
    /\b(?:walnuts|almonds|hazelnuts|pecans|cashews|pistachios|peanuts|peanut butter|almond butter)\b/,
    undefined,
  ],
  [
    'sausages hard cheese chunks raw apple raw carrot popcorn marshmallows hard sweets fish bones',
    /\b(?:sausage|fish fillet|salmon)\b/,
    undefined,
  ],
  ['raw poultry rinsed under the tap', /\b(?:chicken|turkey)\b/, undefined],
  ['raw flour dough and batter', / flour$/, undefined],
  ['raw or runny egg', /^egg$/, undefined],
  ['raw meat juices', /\b(?:chicken|turkey|minced|beef|pork|lamb|bacon)\b/, undefined],
  [
    'cooked rice pasta potatoes and pulses',
    /\b(?:rice|macaroni|spaghetti|penne|fusilli|pasta|potato|lentils|dried \w+)\b/,
    undefined,
  ],
  ['dried kidney beans', /^dried kidney beans$/, undefined],
  ['chilli peppers', /\b(?:fresh chilli|chilli flakes|cayenne)\b/, undefined],
  ['hot liquid in a closed blender', undefined, /\bblend/i],
  ['ovens hobs and hot oil', undefined, /\b(?:oven|bake|roast|fry|fries|boil|simmer|grill)/i],
  ['graters and peelers', undefined, /\b(?:grate|peel)/i],
];

/** The cautions that a dish brings along, in the order of the table above. */
export function cautionsOf(ingredients: readonly string[], steps: readonly string[]): RecipeCaution[] {
  return BRINGS.flatMap(([hazard, foods, doing]) => {
    const isBrought =
      (foods !== undefined && ingredients.some((name) => foods.test(name))) ||
      (doing !== undefined && steps.some((step) => doing.test(step)));
    const fact = isBrought ? facts.find((row) => row.hazard === hazard) : undefined;
    return fact ? [fact] : [];
  });
}
