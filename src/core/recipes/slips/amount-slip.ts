import type { Slip, Weighed } from './slip';

/** A line whose amount cannot be meant, with the measure that may be. */
export const amountSlip = (each: Weighed, say: string, why: string): Slip => {
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

/** Grams of all that count. */
export const sum = (
  weighed: readonly Weighed[],
  counts: (food: Weighed['item']['ingredient'], each: Weighed) => boolean,
): number => weighed.reduce((total, each) => total + (counts(each.item.ingredient, each) ? each.grams : 0), 0);

/** What leavening, liquid and salt are measured against. */
export const FLOUR = / flour$|^(?:maize meal|ground almonds|semolina|rolled oats|quick oats|oat bran|wheat bran)$/;

/** What counts as the liquid of a dough, a batter or a pot. */
export const LIQUID =
  /^(?:water|.* stock|milk|buttermilk|coconut milk|.* drink|.* juice|tomato passata|canned chopped tomatoes|single cream)$/;

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
