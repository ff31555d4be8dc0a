import type { SheetComponent, SheetContent } from '../../kits/record/sheet-content';
import { add, equals, fromText, multiply, ONE, type Rational, rational, ZERO } from '../../quantity/rational';
import { sayGrams, sayPieces } from '../../quantity/say';
import { findUnit } from '../../quantity/units';
import { findIngredient } from '../../reference/reference';

/** A sheet whose food is prepared on the day. */
export interface PrepSheet {
  readonly session: string;
  readonly content: SheetContent;
}

/** One motion: a food in one cut, for everything that needs it. */
export interface PrepCut {
  /** "chopped"; '' where it is only measured out. */
  readonly cut: string;
  /** The one product it is taken of; '' where any will do. */
  readonly product: string;
  readonly sayTotal: string;
  /** Where it goes, dish by dish: what each kit gets, and which kits. */
  readonly goesTo: readonly PrepTarget[];
}

/** What of a cut goes into kits of one dish. */
export interface PrepTarget {
  readonly session: string;
  readonly dish: string;
  /** Kits that get the same: "2 stalks", 7 kits, of variants A and C. */
  readonly kits: readonly { readonly say: string; readonly count: number; readonly letters: readonly string[] }[];
  /** Variants made without something, where others are not: done first, with clean tools. */
  readonly first: readonly string[];
}

export interface PrepFood {
  readonly ingredient: string;
  readonly cuts: readonly PrepCut[];
}

/** Foods that are prepared together, and why in this order. */
export interface PrepPart {
  readonly title: string;
  readonly because: string;
  readonly foods: readonly PrepFood[];
}

/** Order protects: what is eaten as it is comes before raw meat, on its own board with its own knife. */
const PARTS = [
  { title: 'Vegetables and fruit', because: 'First: much of it is eaten as it is.', aisles: ['produce'] },
  { title: 'Dry goods, bread, dairy and cans', because: 'Weighed and poured dry before wet.', aisles: [] },
  {
    title: 'Meat and fish',
    because: 'Last, raw ones on another board with another knife; then wash hands, wipe and sanitise.',
    aisles: ['meat'],
  },
] as const;

/** The part a food belongs to. */
export const partOf = (aisle: string) => {
  const own = PARTS.findIndex(({ aisles }) => (aisles as readonly string[]).includes(aisle));
  return own < 0 ? 1 : own;
};

/** What is fetched, trimmed and cut: not what is sealed, comes inside something else, or is no food. */
export const isPrepared = ({ sealedUnits, from, isInside, isShared }: SheetComponent) =>
  sealedUnits === undefined && !from && (!isInside || Boolean(isShared));

/**
 * Everything that is prepared for the sessions of a day, by food and cut: the same motion for everything, then the next.
 * Cuts come before what is only measured out.
 */
export function prepList(sheets: readonly PrepSheet[]): PrepPart[] {
  type Into = { say: string; count: number; letters: string[] };
  type Target = { session: string; dish: string; kits: Map<string, Into>; first: string[]; others: boolean };
  type Entry = {
    cut: string;
    product: string;
    goesTo: Map<string, Target>;
    grams: Rational;
    pieces: Rational;
    unit: string;
  };
  const foods = new Map<string, { aisle: string; cuts: Map<string, Entry> }>();
  for (const { session, content } of sheets) {
    for (const variant of content.variants) {
      const kits = variant.participants.length;
      for (const component of (variant.components ?? []).filter(isPrepared)) {
        const food = findIngredient(content.input.reference, component.ingredient);
        if (!food) continue;
        const cut = component.name.slice(component.ingredient.length).replace(/^, /, '');
        const own = foods.get(food.name) ?? { aisle: food.aisle, cuts: new Map<string, Entry>() };
        foods.set(food.name, own);
        const isPiece = findUnit(component.unit)?.dimension === 'count';
        const { product = '' } = component;
        const key = `${cut}|${isPiece ? component.unit : ''}|${product}`;
        const entry: Entry = own.cuts.get(key) ?? {
          cut,
          product,
          goesTo: new Map(),
          grams: ZERO,
          pieces: ZERO,
          unit: isPiece ? component.unit : '',
        };
        own.cuts.set(key, entry);
        entry.grams = add(entry.grams, multiply(fromText(component.grams), rational(kits)));
        if (isPiece) entry.pieces = add(entry.pieces, multiply(fromText(component.packed), rational(kits)));
        const dish = content.input.dishes[content.rows[component.row]?.dish ?? -1]?.title ?? '';
        const place = `${session}|${dish}`;
        const target: Target = entry.goesTo.get(place) ?? { session, dish, kits: new Map(), first: [], others: false };
        entry.goesTo.set(place, target);
        if (variant.madeWithout.length > 0) target.first.push(variant.letter);
        else target.others = true;
        const say = component.isShared ? `${component.say} at the station` : component.say;
        const into = target.kits.get(say) ?? { say, count: 0, letters: [] };
        target.kits.set(say, { say, count: into.count + kits, letters: [...into.letters, variant.letter] });
      }
    }
  }
  const sayTotal = ({ grams, pieces, unit }: Entry): string => {
    const known = unit === '' ? undefined : findUnit(unit);
    if (!known) return sayGrams(grams);
    const isOne = equals(pieces, ONE);
    const said =
      unit === 'each' ? `${sayPieces(pieces, known)} ${isOne ? 'piece' : 'pieces'}` : sayPieces(pieces, known);
    return `${said}, ${sayGrams(grams)}`;
  };
  return PARTS.map(({ title, because }, at) => ({
    title,
    because,
    foods: [...foods]
      .filter(([, { aisle }]) => partOf(aisle) === at)
      .map(([ingredient, { cuts }]) => ({
        ingredient,
        cuts: [...cuts.values()]
          .map((entry) => ({
            cut: entry.cut,
            product: entry.product,
            sayTotal: sayTotal(entry),
            goesTo: [...entry.goesTo.values()].map(({ kits, first, others, ...place }) => ({
              ...place,
              kits: [...kits.values()],
              first: others ? first : [],
            })),
          }))
          .sort((a, b) => Number(a.cut === '') - Number(b.cut === '') || (a.cut < b.cut ? -1 : 1)),
      }))
      .sort((a, b) => Number(isCut(b)) - Number(isCut(a)) || (a.ingredient < b.ingredient ? -1 : 1)),
  })).filter(({ foods: own }) => own.length > 0);
}

const isCut = ({ cuts }: PrepFood) => cuts.some(({ cut }) => cut !== '');
