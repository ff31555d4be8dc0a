import type { SheetDish } from '@/core/kits/record/sheet-content';
import {
  afterKit,
  type Held,
  handedOutWith,
  NOTHING_HELD,
  supplyFromCourse,
  USUAL_CUTS_FROM,
} from '@/core/kits/supply/series';
import { type Supply, sharedOut, supplyThatMatters, waysOf } from '@/core/kits/supply/supplied';
import { isHomeKit, type Mode } from '@/core/plan/mode';
import { fromText } from '@/core/quantity/rational';
import { choose } from '@/core/recipes/recipe/choice';
import { packedLines, type Recipe, readRecipe, type WrittenRecipe } from '@/core/recipes/recipe/recipe';
import { withFillings } from '@/core/recipes/recipe/slots';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import type { Reference } from '@/core/reference/reference';
import type { SeriesDish, SeriesSession } from '@/store/series';
import type { EnrolmentAtHome, SessionBundle } from '@/store/session-bundles';
import type { CourseRow } from '@/store/tables/plan';
import { markOnce, memoryOf, WORKED_OUT } from '../memory';
import type { Meanings, Programme } from './load-programme';
import { rollPerson } from './person';

/** Recipes written out before are the same objects, by what they were written from: each is measured once. */
function writtenFor(
  { body, fillings, serves, ways }: Pick<SeriesDish, 'body' | 'fillings' | 'serves' | 'ways'>,
  reference: Reference,
): WrittenRecipe {
  const known = WORKED_OUT.of('written recipes', reference, () => memoryOf<WrittenRecipe>(200));
  return known.of(`${serves}|${JSON.stringify([fillings, ways])}|${markOnce(body, (whole) => whole)}`, () => {
    const { servings, lines } = wholeRecipe(body);
    const filled = withFillings(lines, fillings);
    return { servings: serves ?? servings, lines: sharedOut(packedLines(filled, reference), ways) };
  });
}

/** A dish as kits are made of it: its recipe with what the session chose, for the servings it gives here. */
export function sheetDish(dish: SeriesDish, { reference }: Programme): SheetDish {
  const recipe = writtenFor(dish, reference);
  // The rest of the ways is told of the kits, this one of the recipe.
  const ways = dish.ways.filter(({ way }) => way !== 'shared out');
  return {
    id: dish.id,
    title: dish.title,
    recipe,
    ...(ways.length > 0 ? { ways } : {}),
  };
}

/** What labels say a session's foods hold: what it recorded itself stands before what the programme usually buys. */
export const labelsIn = (
  { labels }: Programme,
  recorded: readonly (readonly [food: string, allergens: readonly string[]])[],
): ReadonlyMap<string, readonly string[]> =>
  new Map([
    ...[...labels].map(([food, { allergens }]) => [food, allergens] as const),
    ...recorded.map(([food, allergens]) => [food, allergens] as const),
  ]);

/** What the products are called whose labels count in a session; nothing where none does. */
export function productsIn(
  { labels }: Programme,
  recorded: readonly { readonly ingredient: string; readonly product: string }[],
): { products?: Readonly<Record<string, string>> } {
  if (labels.size === 0 && recorded.length === 0) return {};
  return {
    products: Object.fromEntries([
      ...[...labels].map(([food, { product }]) => [food, product]),
      ...recorded.map(({ ingredient, product }) => [ingredient, product]),
    ]),
  };
}

/** Looks up how somebody's kit is filled, in the mode in which they come. */
export interface Supplies {
  readonly of: (row: EnrolmentAtHome) => Supply | undefined;
  /** For somebody who had no kit before. */
  readonly forNew: Supply | undefined;
}

/** How the kits of a session are filled, by person; people alike share one object. */
export function suppliesOf(bundle: SessionBundle, programme: Programme, meanings: Meanings): Supplies {
  const { session } = bundle;
  const { supplies = [], cutsFrom = USUAL_CUTS_FROM } = session.kitRules;
  const { heldBy, handedOut } = handedOutBefore(bundle, programme, meanings);
  const known = new Map<string, Supply>();
  const one = (supply: Supply): Supply | undefined => {
    if (Object.keys(supply).length === 0) return undefined;
    const text = JSON.stringify(supply);
    const same = known.get(text) ?? supply;
    known.set(text, same);
    return same;
  };
  const fromCourse = (mode: Mode, held: Held) =>
    isHomeKit(mode) ? supplyFromCourse(supplies, session.number, held, handedOut) : { atStation: true };
  return {
    of: (row) => {
      const mode = (row.mode ?? session.mode) as Mode;
      const { staples = [], box = [] } = isHomeKit(mode) ? (row.home ?? {}) : {};
      return one({
        // Nobody's age is written down where a family cooks together: somebody of them cuts.
        ...(row.age === null || row.age >= cutsFrom ? { cuts: true } : {}),
        ...(staples.length > 0 ? { staples } : {}),
        ...(box.length > 0 ? { box } : {}),
        ...fromCourse(mode, heldBy.get(row.id) ?? NOTHING_HELD),
      });
    },
    forNew: one(fromCourse(session.mode as Mode, NOTHING_HELD)),
  };
}

/**
 * What earlier sessions have handed out of the supplies of the course: what locked kits are written down to hold, and what
 * is planned for those that are not locked yet. Whoever was away, left out or never got their kit has nothing of it.
 */
function handedOutBefore(bundle: SessionBundle, programme: Programme, meanings: Meanings) {
  const heldBy = new Map<string, Held>();
  const handedOut = new Set<string>();
  for (const session of bundle.before) {
    const missing = new Set(session.missing);
    if (session.isLocked) {
      const { supplies = [] } = bundle.session.kitRules;
      const foodOf = new Map(supplies.map(({ id, name }) => [id, name]));
      const known = recordedLabels(session);
      for (const { enrolmentId, supplyId, units, drawn, label } of session.issues) {
        if (units > 0) handedOut.add(supplyId);
        if (missing.has(enrolmentId)) continue;
        const then = label;
        // What was read of that session's product since is as true as what was read before.
        const since = known.get(foodOf.get(supplyId) ?? '');
        const given = [{ supplyId, units, drawn: fromText(drawn), labels: since ? [then, since] : [then] }];
        heldBy.set(enrolmentId, afterKit(heldBy.get(enrolmentId) ?? NOTHING_HELD, given));
      }
      continue;
    }
    const there = bundle.enrolments.filter(
      ({ id, status, since }) => status === 'enrolled' && !missing.has(id) && (since === null || since <= session.date),
    );
    planHandingOut(session, there, bundle.session.kitRules, { programme, meanings, heldBy, handedOut });
  }
  return { heldBy, handedOut };
}

/** Labels that were recorded for a session itself, by food. */
const recordedLabels = ({ labels }: SeriesSession): ReadonlyMap<string, readonly string[]> =>
  new Map(Object.entries(labels ?? {}));

/** Adds what a session that is not locked yet will hand out. */
function planHandingOut(
  session: SeriesSession,
  there: readonly EnrolmentAtHome[],
  kitRules: CourseRow['kitRules'],
  around: { programme: Programme; meanings: Meanings; heldBy: Map<string, Held>; handedOut: Set<string> },
): void {
  const { programme, meanings, heldBy, handedOut } = around;
  const { supplies = [] } = kitRules;
  const written = session.dishes.map((dish) => sheetDish(dish, programme));
  const labels = labelsIn(programme, Object.entries(session.labels ?? {}));
  const foodOf = new Map(supplies.map(({ id, name }) => [id, name]));
  const dishes = written.flatMap(({ recipe }): Recipe[] => {
    const reading = readRecipe(recipe, programme.reference, labels);
    return 'recipe' in reading ? [reading.recipe] : [];
  });
  if (dishes.length === 0) return;
  const ways = waysOf(written.map((dish) => dish.ways));
  const before = new Set(handedOut);
  const choices = new Map<string, ReturnType<typeof choose>>();
  for (const row of there) {
    if (!isHomeKit((row.mode ?? session.mode) as Mode)) continue;
    const held = heldBy.get(row.id) ?? NOTHING_HELD;
    const avoids = rollPerson(row, meanings).needs.flatMap(({ codes }) => codes ?? []);
    const choice = choices.get(avoids.join()) ?? choose(dishes, avoids);
    choices.set(avoids.join(), choice);
    const supply = supplyFromCourse(supplies, session.number, held, before);
    const matters = supplyThatMatters(supply, dishes, ways, choice, row.servings, avoids);
    const given = handedOutWith(matters, dishes, choice, row.servings);
    const labelled = given.map((each) => ({
      ...each,
      labels: [labels.get(foodOf.get(each.supplyId) ?? '') ?? null],
    }));
    heldBy.set(row.id, afterKit(held, labelled));
    for (const { supplyId, units } of given) if (units > 0) handedOut.add(supplyId);
  }
}
