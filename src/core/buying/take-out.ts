import type { Ingredient } from '../reference/reference';
import { AVOIDANCES, blockersOf, holdingsOf } from '../safety/avoidances';
import { isNamed } from '../safety/products-named';
import type { FoodNeed } from './needs';
import { isAround, type OnShelf } from './plan-case';

/** What is taken off a shelf for some kits of a session. */
export interface Take {
  readonly lotId: string;
  readonly ingredient: string;
  readonly letters: readonly string[];
  readonly packs: number;
  readonly grams: number;
}

/** What the shelves do not have for some kits, or not with a label that suits them. */
export interface Lacking {
  readonly ingredient: string;
  readonly letters: readonly string[];
  readonly grams: number;
  readonly units: number;
}

const ALLERGENS = AVOIDANCES.filter(({ kind }) => kind === 'allergen').map(({ code }) => code);

/** Whether what a lot's label says, or may say, suits those who avoid something; a label that nobody has read holds what brands may. */
export const labelledFor = (food: Ingredient, label: readonly string[] | null, avoided: readonly string[]): boolean =>
  blockersOf(
    holdingsOf(food, label ?? undefined),
    avoided.filter((code) => ALLERGENS.includes(code)),
  ).length === 0;

/** What is still there of a lot while it is shared out. */
interface Rest {
  readonly lot: OnShelf;
  packs: number;
  loose: number;
}

const gramsIn = ({ lot, packs, loose }: Rest) => packs * (lot.packGrams ?? 0) + loose;

/**
 * What is still needed where some was taken out before: first what was taken for the same kits; what was taken for letters of a
 * revision that is no longer counts for whoever needs the food now.
 *
 * @param needs of one session
 */
export function lessTaken(needs: readonly FoodNeed[], taken: readonly Take[]): FoodNeed[] {
  if (taken.length === 0) return [...needs];
  const said = (each: Pick<Take, 'letters'>) => each.letters.join();
  const isOfNow = (take: Take) =>
    needs.some((need) => need.ingredient === take.ingredient && said(need) === said(take));
  const before = taken.map((take) => ({ ...take }));
  return needs.flatMap((need): FoodNeed[] => {
    let grams = need.grams ?? 0;
    let units = need.units ?? 0;
    for (const take of before) {
      if (take.ingredient !== need.ingredient || (said(take) !== said(need) && isOfNow(take))) continue;
      const weight = Math.min(grams, take.grams);
      const whole = Math.min(units, take.packs);
      grams -= weight;
      take.grams -= weight;
      units -= whole;
      take.packs -= whole;
    }
    if (grams + units === 0) return [];
    return [
      { ...need, ...(need.grams === undefined ? {} : { grams }), ...(need.units === undefined ? {} : { units }) },
    ];
  });
}

/**
 * Which lots a session's kits are made of: what is open and ends first before the rest, for those who avoid most first, each only
 * from what its label allows, and where a product was named only from that.
 *
 * @param needs of the session, as they come from its sheet, less what was taken before
 */
export function takeOut(
  needs: readonly FoodNeed[],
  stock: readonly OnShelf[],
  foodOf: (name: string) => Ingredient | undefined,
  today: string,
): { takes: Take[]; lacking: Lacking[] } {
  const rests: Rest[] = [...stock]
    .filter(({ last, lastOpen }) => last >= today && lastOpen >= today)
    .sort((x, y) => Number(y.loose > 0) - Number(x.loose > 0) || x.lastOpen.localeCompare(y.lastOpen))
    .map((lot) => ({ lot, packs: lot.packs, loose: lot.loose }));
  const takes: Take[] = [];
  const lacking: Lacking[] = [];
  for (const need of [...needs].sort((a, b) => b.without.length - a.without.length)) {
    const { ingredient, letters, product } = need;
    const food = foodOf(ingredient);
    const suits = ({ lot }: Rest) =>
      lot.ingredient === ingredient &&
      isNamed(product, lot.product) &&
      food !== undefined &&
      labelledFor(food, lot.label, need.without);
    let grams = need.grams ?? 0;
    let units = need.units ?? 0;
    for (const rest of rests.filter(suits)) {
      if (units > 0 && rest.lot.packGrams !== null && isAround(rest.lot.packGrams, need.sealedGrams ?? 1)) {
        const packs = Math.min(units, rest.packs);
        rest.packs -= packs;
        units -= packs;
        if (packs > 0) takes.push({ lotId: rest.lot.lotId, ingredient, letters, packs, grams: 0 });
      }
      const weight = Math.min(grams, gramsIn(rest));
      if (weight <= 0) continue;
      while (rest.loose < weight && rest.packs > 0) {
        rest.packs--;
        rest.loose += rest.lot.packGrams ?? 0;
      }
      rest.loose -= weight;
      grams -= weight;
      takes.push({ lotId: rest.lot.lotId, ingredient, letters, packs: 0, grams: weight });
    }
    if (grams > 0 || units > 0) lacking.push({ ingredient, letters, grams, units });
  }
  return { takes, lacking };
}
