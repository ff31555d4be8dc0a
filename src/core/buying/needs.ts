import type { SheetComponent, SheetContent, SheetTotal } from '../kits/record/sheet-content';
import { parseAmount } from '../quantity/amount';
import {
  add,
  ceil,
  divide,
  fromText,
  multiply,
  type Rational,
  rational,
  sign,
  toInteger,
  toNumber,
  ZERO,
} from '../quantity/rational';

/** A session as buying sees it. */
export interface BuyingSession {
  readonly id: string;
  readonly title: string;
  /** The day on which its food is taken up: packed, else cooked. YYYY-MM-DD. */
  readonly day: string;
  /** The day on which the last of it is eaten. */
  readonly until: string;
  readonly isLocked: boolean;
}

/** What a session needs of a food, for kits that must all be without the same. */
export interface FoodNeed {
  readonly id: string;
  readonly sessionId: string;
  readonly ingredient: string;
  readonly aisle: string;
  readonly day: string;
  readonly until: string;
  /** As bought: trimmings and spare with it. */
  readonly grams?: number;
  /** Whole sealed units, each of so many grams. */
  readonly units?: number;
  readonly sealedGrams?: number;
  /** What the label of what serves it must not name. */
  readonly without: readonly string[];
  /** Letters of the variants that it is for. */
  readonly letters: readonly string[];
  /** The same letters with all that each must be without, whatever the products that are known hold. */
  readonly eaters: readonly Eaters[];
  /** The one product whose label was read for this session. */
  readonly product?: string;
}

/** Variants that must be without the same. */
export interface Eaters {
  readonly letters: readonly string[];
  readonly without: readonly string[];
}

interface Share {
  readonly without: readonly string[];
  readonly letters: string[];
  edible: Rational;
  units: number;
}

/** Codes that people must avoid, by the id of the person. */
export type Avoids = ReadonlyMap<string, readonly string[]>;

const isBought = ({ from }: SheetComponent) => !from;

/** What is packed of a food, by what it must be without. */
function sharesOf({ variants }: SheetContent, ingredient: string, avoids: Avoids): Share[] {
  const shares = new Map<string, Share>();
  for (const { components, avoids: differs, participants, letter } of variants) {
    const count = participants.length;
    for (const component of components ?? []) {
      if (component.ingredient !== ingredient || !isBought(component) || count === 0) continue;
      // Kits of a letter are alike: what serves them is right for everybody of it, whatever made no difference so far.
      const all = participants.flatMap(({ id }) => avoids.get(id) ?? []);
      const without = [...new Set([...differs, ...all])].sort();
      const key = without.join(' ');
      const share = shares.get(key) ?? { without, letters: [], edible: ZERO, units: 0 };
      shares.set(key, share);
      if (!share.letters.includes(letter)) share.letters.push(letter);
      if (component.sealedUnits === undefined)
        share.edible = add(share.edible, multiply(fromText(component.grams), rational(count)));
      else share.units += component.sealedUnits * count;
    }
  }
  // Those who avoid most come first: what is rounded up is rounded up for them.
  return [...shares.values()].sort(
    (a, b) => b.without.length - a.without.length || (a.letters[0] ?? '').localeCompare(b.letters[0] ?? ''),
  );
}

/** Sealed units among the packs of a total. */
function sealedOf({ packs = 0, packGrams, purchaseGrams, sealedGrams }: SheetTotal): number {
  if (!sealedGrams) return 0;
  const pooled =
    purchaseGrams && packGrams ? toInteger(ceil(divide(fromText(purchaseGrams), parseAmount(packGrams)))) : 0;
  return packs - pooled;
}

/**
 * What a session needs to be bought or taken from the shelf: by food, and by what the label of it must be without. Whole grams,
 * rounded up; spare units fall to those who may eat anything.
 *
 * @param avoids what each person of the roll must avoid now, by id: a product may hold what no food of the dish usually does
 */
export function needsOf(session: BuyingSession, content: SheetContent, avoids: Avoids): FoodNeed[] {
  const { id: sessionId, day, until } = session;
  return content.totals.flatMap((total): FoodNeed[] => {
    const { ingredient, aisle } = total;
    const shares = sharesOf(content, ingredient, avoids);
    const product = content.input.products?.[ingredient];
    const about = { sessionId, ingredient, aisle, day, until, ...(product ? { product } : {}) };
    const edible = shares.map((share) => share.edible).reduce(add, ZERO);
    const purchase = total.purchaseGrams ? fromText(total.purchaseGrams) : undefined;
    let sealed = sealedOf(total);
    const units = shares.reduce((sum, share) => sum + share.units, 0);
    return shares.flatMap((share, at): FoodNeed[] => {
      const { without, letters } = share;
      const id = (kind: string) => `${sessionId} ${ingredient} ${kind} ${without.join(' ')}`.trim();
      const rows: FoodNeed[] = [];
      if (purchase && sign(share.edible) > 0)
        rows.push({
          ...about,
          id: id('g'),
          without,
          letters,
          eaters: [{ letters, without }],
          grams: toInteger(ceil(divide(multiply(purchase, share.edible), edible))),
        });
      if (share.units > 0 && sealed > 0) {
        const isLast = shares.slice(at + 1).every((other) => other.units === 0);
        const own = isLast ? sealed : Math.min(sealed, Math.ceil((share.units * sealedOf(total)) / units));
        sealed -= own;
        rows.push({
          ...about,
          id: id('u'),
          without,
          letters,
          eaters: [{ letters, without }],
          units: own,
          sealedGrams: Math.round(toNumber(parseAmount(total.sealedGrams ?? '1'))),
        });
      }
      return rows;
    });
  });
}
