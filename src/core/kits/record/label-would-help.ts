import { findIngredient } from '../../reference/reference';
import { AVOIDANCES, blockersOf, holdingsOf } from '../../safety/avoidances';
import type { SheetContent } from './sheet-content';

const LABELLED = new Set(AVOIDANCES.filter(({ kind }) => kind !== 'care').map(({ code }) => code));

/**
 * Foods whose label, once read, could make a refused kit possible: what is written or may stand in, where all that blocks it
 * is what only some brands hold. A food that holds it by nature is not among them: no label helps there.
 *
 * @returns names of foods, in the order of the sheet
 * @example labelsThatWouldHelp(draft) //=> ['tamari']  // not the soy sauce that it stands in for
 */
export function labelsThatWouldHelp({ input, rows, variants }: SheetContent): string[] {
  const foods = variants.flatMap(({ refusals, avoids }) =>
    refusals.flatMap(({ row }) => {
      const place = rows[row];
      const line = place && input.dishes[place.dish]?.recipe.lines[place.line];
      if (!line) return [];
      const options = [
        [line],
        ...(line.alternatives ?? []).flatMap((each) => ('omit' in each ? [] : [[each, ...(each.also ?? [])]])),
      ];
      return options.flatMap((items) => {
        const unread = items.map(({ ingredient, preparation, label }) => {
          const food = findIngredient(input.reference, ingredient);
          if (!food) return { ingredient, blocked: false, helps: false };
          const holdings = holdingsOf(food, input.labels[food.name] ?? label, preparation);
          const blockers = blockersOf(holdings, avoids);
          const helps = blockers.every((code) => holdings.mayContain.has(code) && LABELLED.has(code));
          return { ingredient: food.name, blocked: blockers.length > 0, helps };
        });
        const blocking = unread.filter(({ blocked }) => blocked);
        return blocking.every(({ helps }) => helps) ? blocking.map(({ ingredient }) => ingredient) : [];
      });
    }),
  );
  return [...new Set(foods)];
}
