import type { SheetComponent, SheetContent } from '../kits/snapshot';
import { add, fromText, multiply, type Rational, rational, ZERO } from '../quantity/rational';
import { sayGrams, sayPieces } from '../quantity/say';
import { findUnit } from '../quantity/units';
import { findIngredient } from '../reference/reference';

/** A sheet whose food is prepared on the day. */
export interface PrepSheet {
  readonly session: string;
  readonly content: SheetContent;
}

/** One motion: a food in one cut, for everything that needs it. */
export interface PrepCut {
  /** "chopped"; '' where it is only measured out. */
  readonly cut: string;
  readonly sayTotal: string;
  /** Where it goes: dish, variant, and what each kit gets. */
  readonly goesTo: readonly { readonly session: string; readonly dish: string; readonly say: string }[];
  /** Kits made without something among them: done first, with clean tools. */
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
    title: 'Raw meat and fish',
    because: 'Last, on another board with another knife; then wash hands, wipe and sanitise.',
    aisles: ['meat'],
  },
] as const;

/** The part a food belongs to. */
const partOf = (aisle: string) => {
  const own = PARTS.findIndex(({ aisles }) => (aisles as readonly string[]).includes(aisle));
  return own < 0 ? 1 : own;
};

/** What is fetched, trimmed and cut: not what is sealed, comes inside something else, or is no food. */
const isPrepared = ({ sealedUnits, from, isInside, isShared }: SheetComponent) =>
  sealedUnits === undefined && !from && (!isInside || Boolean(isShared));

/**
 * Everything that is prepared for the sessions of a day, by food and cut: the same motion for everything, then the next.
 * Cuts come before what is only measured out.
 */
export function prepList(sheets: readonly PrepSheet[]): PrepPart[] {
  type Entry = PrepCut & { grams: Rational; pieces: Rational; unit: string };
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
        const key = `${cut}|${isPiece ? component.unit : ''}`;
        const before = own.cuts.get(key) ?? {
          cut,
          sayTotal: '',
          goesTo: [],
          first: [],
          grams: ZERO,
          pieces: ZERO,
          unit: isPiece ? component.unit : '',
        };
        const dish = content.input.dishes[content.rows[component.row]?.dish ?? -1]?.title ?? '';
        const each = component.isShared ? `at the station, ${component.say} each` : component.say;
        own.cuts.set(key, {
          ...before,
          grams: add(before.grams, multiply(fromText(component.grams), rational(kits))),
          pieces: isPiece ? add(before.pieces, multiply(fromText(component.packed), rational(kits))) : before.pieces,
          goesTo: [...before.goesTo, { session, dish, say: `${variant.letter}: ${kits} × ${each}` }],
          first: [...new Set([...before.first, ...variant.madeWithout])],
        });
      }
    }
  }
  const sayTotal = ({ grams, pieces, unit }: Entry): string => {
    const known = unit === '' ? undefined : findUnit(unit);
    return known ? `${sayPieces(pieces, known)}, ${sayGrams(grams)}` : sayGrams(grams);
  };
  return PARTS.map(({ title, because }, at) => ({
    title,
    because,
    foods: [...foods]
      .filter(([, { aisle }]) => partOf(aisle) === at)
      .map(([ingredient, { cuts }]) => ({
        ingredient,
        cuts: [...cuts.values()]
          .map(({ cut, goesTo, first, ...entry }) => ({
            cut,
            goesTo,
            first,
            sayTotal: sayTotal({ cut, goesTo, first, ...entry }),
          }))
          .sort((a, b) => Number(a.cut === '') - Number(b.cut === '') || (a.cut < b.cut ? -1 : 1)),
      }))
      .sort((a, b) => Number(isCut(b)) - Number(isCut(a)) || (a.ingredient < b.ingredient ? -1 : 1)),
  })).filter(({ foods: own }) => own.length > 0);
}

const isCut = ({ cuts }: PrepFood) => cuts.some(({ cut }) => cut !== '');
