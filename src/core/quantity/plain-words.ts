// What the core keeps exact is said as people at work say it.

import pluralize from 'pluralize';

/**
 * What a kit holds, as people at work say it: locked sheets keep other words for it.
 *
 * @example
 * plainSay('2 sealed units of 400 g') //=> '2 whole packs of 400 g'
 * plainSay('6 bunchs') //=> '6 bunches'
 */
export const plainSay = (say: string): string =>
  say.replace(/\bsealed unit(s?)\b/g, 'whole pack$1').replace(/\b(bunch|pinch|dash|batch|box)s\b/g, '$1es');

/**
 * A food that is counted, one or several.
 *
 * @param name with its preparation behind a comma, where it has one
 * @example
 * foodCounted('wheat tortilla', true) //=> 'wheat tortillas'
 * foodCounted('egg, large', true) //=> 'eggs, large'
 */
export function foodCounted(name: string, isSeveral: boolean): string {
  if (!isSeveral) return name;
  const [food = '', ...more] = name.split(', ');
  return [pluralize(food), ...more].join(', ');
}

/**
 * What a kit holds with its food: "2 wheat tortillas", "1 whole pack of 400 g canned chickpeas", "⅓ cup carrot, grated".
 *
 * @example
 * sayNamed('2', 'wheat tortilla') //=> '2 wheat tortillas'
 * sayNamed('½', 'apple, medium') //=> '½ apple, medium'
 */
export const sayNamed = (say: string, name: string): string =>
  `${plainSay(say)} ${foodCounted(name, /^\d+[½⅓⅔¼¾⅛⅜⅝⅞⅙⅚]?$/.test(say) && !/^1$/.test(say))}`;
