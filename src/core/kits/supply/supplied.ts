import { parseAmount } from '../../quantity/amount';
import {
  add,
  ceil,
  compare,
  divide,
  fromText,
  multiply,
  ONE,
  type Rational,
  rational,
  subtract,
  toInteger,
  ZERO,
} from '../../quantity/rational';
import { readUnit } from '../../quantity/units';
import { type Choice, chosenItems } from '../../recipes/recipe/choice';
import type { Item, Recipe, WrittenLine } from '../../recipes/recipe/recipe';
import type { Ingredient } from '../../reference/reference';
import { AVOIDANCES, asPrepared, blockersOf, type Holdings, holdingsOf, isCare } from '../../safety/avoidances';
import type { Component } from '../component';
import { type Portion, SEALED_ENOUGH, scale, usedOf } from '../portion';

/**
 * How the food of a line is handed to who cooks: measured into the kit, whole for cutting at class, shared at the station; or, where
 * each kit would get a whole unit of it, opened and shared out between kits.
 */
export const WAYS = ['measured', 'whole', 'station', 'shared out'] as const;
export type Way = (typeof WAYS)[number];

/** How the food of a dish that is written under this name travels, where it is not measured. */
export interface LineWay {
  readonly ingredient: string;
  readonly way: Way;
}

/** Lines as they are packed where units are opened and shared out: each kit gets what its servings ask for. */
export const sharedOut = (lines: readonly WrittenLine[], ways: readonly LineWay[]): readonly WrittenLine[] => {
  const foods = new Set(ways.flatMap(({ ingredient, way }) => (way === 'shared out' ? [ingredient] : [])));
  return foods.size === 0 ? lines : lines.map((line) => (foods.has(line.ingredient) ? inParts(line) : line));
};

function inParts({ sealed_grams: _, scaling, ...line }: WrittenLine): WrittenLine {
  return { ...line, ...(scaling && scaling !== 'whole' ? { scaling } : {}) };
}

/** A jar of the course, as it stands for one person: the rest of what they have, and what goes with this kit. */
export interface JarState {
  readonly id: string;
  /** Its place among the supplies of the course. */
  readonly at: number;
  readonly ingredient: string;
  /** Net grams of one jar, as an exact decimal. */
  readonly grams: string;
  /** Grams left before this kit, exact. */
  readonly left?: string;
  /** The labels of the jars that they have, null for one that nobody read: what is in them is not what is bought today. */
  readonly labels?: readonly (readonly string[] | null)[];
  /** Jars that go with this kit: settled once it is known how much the kit draws. */
  readonly fresh?: number;
  readonly isCatchUp?: boolean;
}

/** Something that is issued once, and goes with this kit. */
export interface Issue {
  readonly id: string;
  readonly at: number;
  readonly name: string;
  readonly count: number;
  /** Others have had it with an earlier kit. */
  readonly isCatchUp?: boolean;
}

/** What decides, beside size and needs, how a kit is filled. Plain data; nothing of it is a kit that is measured whole. */
export interface Supply {
  /** Cooks in the programme's room: what is shared there is not packed. */
  readonly atStation?: boolean;
  /** Old enough to cut: what is cut at class comes whole. */
  readonly cuts?: boolean;
  /** Foods that the family agreed to take from its own shelf. */
  readonly staples?: readonly string[];
  /** What the family receives anyway, in edible grams as exact decimals: topped up, never doubled. */
  readonly box?: readonly { readonly ingredient: string; readonly grams: string }[];
  readonly jars?: readonly JarState[];
  readonly issues?: readonly Issue[];
}

/** What a kit needs to know of its dishes to be filled: how their lines travel. */
export interface Ways {
  /** The same for the same ways. */
  readonly key: string;
  readonly of: (dish: number, written: string) => Way;
  readonly any: (way: Way) => boolean;
}

/** The ways of a session's dishes, in their order. */
export function waysOf(dishes: readonly (readonly LineWay[] | undefined)[]): Ways {
  const byDish = dishes.map((ways = []) => new Map(ways.map(({ ingredient, way }) => [ingredient, way])));
  return {
    key: JSON.stringify(dishes.map((ways = []) => ways)),
    of: (dish, written) => byDish[dish]?.get(written) ?? 'measured',
    any: (way) => byDish.some((own) => [...own.values()].includes(way)),
  };
}

/**
 * What of a person's supply makes a difference to a kit of these dishes, with the jars that go with it; undefined when
 * nothing does, so that such kits stay alike. What comes from the family's own shelf counts only where no brand of it could
 * hold what its person avoids: nobody has read the label of their pack.
 *
 * @param avoids all that the person avoids, whether it mattered for the dishes or not
 */
export function supplyThatMatters(
  supply: Supply | undefined,
  dishes: readonly Recipe[],
  ways: Ways,
  choice: Choice,
  servings: number,
  avoids: readonly string[],
): Supply | undefined {
  if (!supply) return undefined;
  const items = chosenItems(choice, dishes);
  const foods = new Set(items.map(({ ingredient }) => ingredient.name));
  const isTheirs = (food: string) =>
    foods.has(food) &&
    items
      .filter(({ ingredient }) => ingredient.name === food)
      .every(
        ({ ingredient, preparation }) =>
          avoids.length === 0 ||
          // What the programme added itself is known by the label of its own pack alone.
          (!ingredient.isOwn && blockersOf(holdingsOf(ingredient, undefined, preparation), avoids).length === 0),
      );
  const staples = (supply.staples ?? []).filter(isTheirs).sort();
  const box = (supply.box ?? []).filter(({ ingredient }) => isTheirs(ingredient));
  const jars = (supply.jars ?? [])
    .filter((jar) => foods.has(jar.ingredient) && isSafeJar(jar, items, avoids))
    .map((jar) => withFresh(jar, drawnFrom(jar.ingredient, dishes, choice, servings)));
  const matters: Supply = {
    ...(supply.atStation && ways.any('station') ? { atStation: true } : {}),
    ...(supply.cuts && ways.any('whole') && isSafeWhole(dishes, ways, avoids) ? { cuts: true } : {}),
    ...(staples.length > 0 ? { staples } : {}),
    ...(box.length > 0 ? { box } : {}),
    ...(jars.length > 0 ? { jars } : {}),
    ...(supply.issues && supply.issues.length > 0 ? { issues: supply.issues } : {}),
  };
  return Object.keys(matters).length > 0 ? matters : undefined;
}

/** What the jars that somebody has hold, each by its own label. */
export const jarHoldings = (
  { labels = [] }: Pick<JarState, 'labels'>,
  ingredient: Ingredient,
  preparation: string,
): Holdings[] => labels.map((label) => holdingsOf(ingredient, label ?? undefined, preparation));

/** Whether somebody may eat out of the jars that they have; where not, the food is packed into the kit as for others. */
const isSafeJar = (jar: JarState, items: readonly Item[], avoids: readonly string[]): boolean =>
  avoids.length === 0 ||
  items
    .filter(({ ingredient }) => ingredient.name === jar.ingredient)
    .every(({ ingredient, preparation }) =>
      jarHoldings(jar, ingredient, preparation).every((holdings) => blockersOf(holdings, avoids).length === 0),
    );

/** Whether nothing that comes whole is dangerous so: to whoever must avoid that it comes cut, however old they are. */
function isSafeWhole(dishes: readonly Recipe[], ways: Ways, avoids: readonly string[]): boolean {
  const care = avoids.filter(isCare);
  if (care.length === 0) return true;
  return dishes.every((recipe, dish) =>
    recipe.lines.every(
      ({ written, alternatives }) =>
        ways.of(dish, written.ingredient.name) !== 'whole' ||
        [written, ...alternatives].every(
          (item) => !item || blockersOf(holdingsOf(item.ingredient, undefined, WHOLE), care).length === 0,
        ),
    ),
  );
}

/** Exact grams that a kit of so many servings draws from a jar of this food. */
export function drawnFrom(food: string, dishes: readonly Recipe[], choice: Choice, servings: number): Rational {
  return dishes
    .flatMap((recipe, dish) =>
      chosenItems({ ...choice, options: [choice.options[dish] ?? []], topUps: [choice.topUps[dish] ?? []] }, [recipe])
        .filter((item) => item.ingredient.name === food && !item.sealedGrams)
        .map((item) => multiply(scale(item, recipe.servings, servings), item.weight.grams)),
    )
    .reduce(add, ZERO);
}

function withFresh({ left, fresh, ...jar }: JarState, drawn: Rational): JarState {
  if (fresh !== undefined) return { ...jar, fresh };
  const lacking = subtract(drawn, left === undefined ? ZERO : fromText(left));
  const needed = compare(lacking, ZERO) <= 0 ? 0 : toInteger(ceil(divide(lacking, parseAmount(jar.grams))));
  const { isCatchUp, ...plain } = jar;
  // Who has one already draws from it: a further jar is no catch-up.
  return { ...plain, fresh: needed, ...(isCatchUp && needed > 0 && left === undefined ? { isCatchUp } : {}) };
}

/** An item that a family has itself: nobody has read its label, so it may hold whatever some brand holds. */
function ofTheirs(item: Item): Item {
  const { contains, mayContain } = holdingsOf(item.ingredient, undefined, item.preparation);
  const perhaps = item.ingredient.isOwn
    ? AVOIDANCES.flatMap(({ code, kind }) => (kind === 'allergen' ? [code] : []))
    : [];
  const unsure = [...mayContain, ...perhaps].filter((code) => !contains.has(code));
  return { ...item, holdings: { contains, mayContain: new Set(unsure) } };
}

/** An item that is taken out of jars that somebody has: it holds what is in any of them. */
function outOfJar(item: Item, jar: JarState): Item {
  const inHand = jarHoldings(jar, item.ingredient, item.preparation);
  if (inHand.length === 0) return item;
  const all = jar.fresh ? [item.holdings, ...inHand] : inHand;
  const contains = new Set(all.flatMap((holdings) => [...holdings.contains]));
  const mayContain = all.flatMap((holdings) => [...holdings.mayContain]).filter((code) => !contains.has(code));
  return { ...item, holdings: { contains, mayContain: new Set(mayContain) } };
}

/** How what is cut at class comes. */
export const WHOLE = 'whole, cut at class';

/** Items that a supply brings with it, made once for all kits of a calculation: the uncut ones, and those that are issued. */
export interface BroughtItems {
  readonly whole: Map<Item, Item>;
  readonly issued: Map<string, Item>;
}

export const noItemsYet = (): BroughtItems => ({ whole: new Map(), issued: new Map() });

/** The same food uncut, by the piece; undefined where the weight of a piece is not known. */
function wholeOf(item: Item, { whole: known }: BroughtItems): Item | undefined {
  if (!item.piece) return undefined;
  const before = known.get(item);
  if (before) return before;
  const { piece, ingredient } = item;
  const holdings = asPrepared(item.holdings, ingredient.name, WHOLE);
  const whole: Item = { ...item, unit: piece.unit, weight: piece.weight, preparation: WHOLE, holdings };
  known.set(item, whole);
  return whole;
}

/** Whole pieces for an amount that would be cut: enough of them, at least one; a piece may fall a tenth short. */
function wholePortion(whole: Item, cut: Portion): Portion {
  const pieces = ceil(multiply(divide(cut.grams, whole.weight.grams), SEALED_ENOUGH));
  const packed = compare(pieces, ONE) < 0 ? ONE : pieces;
  const grams = multiply(packed, whole.weight.grams);
  const asked = divide(cut.grams, whole.weight.grams);
  return { exact: packed, scoops: undefined, sealedUnits: undefined, packed, grams, ...usedOf(asked, packed) };
}

/** Equipment as an item: it weighs nothing among food, and nothing of it is bought with the food. */
const EQUIPMENT: Omit<Ingredient, 'name'> = {
  aisle: 'equipment',
  contains: [],
  mayContain: [],
  diet: [],
  dietCheck: [],
  plateGroup: '',
  vegetableFamily: '',
  storage: 'ambient',
  daysWhole: 3650,
  daysOpened: 3650,
  perishable: 'never',
  source: '',
};

/** An item of so many whole units that goes with the kit, whatever its servings. */
function issued(
  { issued: known }: BroughtItems,
  key: string,
  item: Partial<Item> & Pick<Item, 'ingredient' | 'amount' | 'weight'>,
): Item {
  const before = known.get(key);
  if (before) return before;
  const made: Item = {
    preparation: '',
    unit: readUnit('each'),
    scaling: 'per kit',
    damping: ONE,
    batchServings: 1,
    precision: 'normal',
    sealedGrams: undefined,
    yieldPortion: ONE,
    yieldFrom: undefined,
    spare: ZERO,
    packGrams: undefined,
    holdings: holdingsOf(item.ingredient),
    part: undefined,
    partShare: undefined,
    piece: undefined,
    within: undefined,
    liquidPortion: undefined,
    also: [],
    step: '',
    minutes: 0,
    ...item,
  };
  known.set(key, made);
  return made;
}

/**
 * The components of a kit as they really reach who cooks: whole for cutting, at the station, out of a jar, from home, out of
 * their own box; and what is issued with it, as if the supplies of the course were one dish more.
 *
 * @param supply as far as it matters for these dishes
 * @param portion what a kit gets of a share, 0 to 1, of a component's item
 * @param brought what was made for other kits of the same calculation
 */
export function supplied(
  components: readonly Component[],
  supply: Supply,
  ways: Ways,
  dishes: readonly Recipe[],
  portion: (component: Component, share: Rational) => Portion,
  brought: BroughtItems,
): readonly Component[] {
  const boxes = new Map((supply.box ?? []).map(({ ingredient, grams }) => [ingredient, parseAmount(grams)]));
  const drawn = new Set<JarState>();
  const cutOrWhole = (component: Component, way: Way): Component => {
    const whole = way === 'whole' && supply.cuts ? wholeOf(component.item, brought) : undefined;
    return whole
      ? { ...component, item: whole, portion: wholePortion(whole, component.portion), insteadOfCut: component }
      : component;
  };
  const reached = components.flatMap((component): readonly Component[] => {
    const { item, from, dish, line } = component;
    if (from) return [component];
    const food = item.ingredient.name;
    const written = dishes[dish]?.lines[line]?.written.ingredient.name ?? food;
    const way = ways.of(dish, written);
    if (way === 'station' && supply.atStation) return [{ ...component, isInside: true, isShared: true }];
    const jar = item.sealedGrams ? undefined : supply.jars?.find(({ ingredient }) => ingredient === food);
    if (jar) {
      drawn.add(jar);
      return [{ ...component, item: outOfJar(item, jar), from: FROM_JAR, isInside: true }];
    }
    if (supply.staples?.includes(food))
      return [{ ...component, item: ofTheirs(item), from: FROM_HOME, isInside: true }];
    const there = boxes.get(food);
    if (there && compare(there, ZERO) > 0) {
      const wanted = component.portion.grams;
      const taken = compare(there, wanted) < 0 ? there : wanted;
      boxes.set(food, subtract(there, taken));
      const inBox = { ...component, item: ofTheirs(item), from: FROM_BOX, isInside: true };
      if (compare(there, wanted) >= 0) return [inBox];
      const share = divide(taken, wanted);
      const rest = portion(component, subtract(ONE, share));
      return [
        { ...inBox, portion: portion(component, share) },
        cutOrWhole({ ...component, beside: component.beside + BESIDE_BOX, portion: rest, isTopUp: true }, way),
      ];
    }
    return [cutOrWhole(component, way)];
  });
  return [...reached, ...withTheKit(components, supply, drawn, dishes.length, brought)];
}

/** Where a component comes from that is not packed. */
export const FROM_JAR = 'from the jar';
export const FROM_HOME = 'at home already';
export const FROM_BOX = 'in the box they receive';

const ELSEWHERE: ReadonlySet<string | undefined> = new Set([FROM_JAR, FROM_HOME, FROM_BOX]);

/** Whether a component comes from the family itself, or out of a jar that it has: nobody reaches for its product here. */
export const isBrought = ({ from }: { readonly from?: string | undefined }): boolean => ELSEWHERE.has(from);

/**
 * Whether a component is eaten with a kit but not carried in it: from a jar, at home already, or at the station.
 *
 * @example
 * isElsewhere({ from: 'from the jar' }) //=> true
 */
export const isElsewhere = ({ from, isShared }: Pick<Component, 'from' | 'isShared'>): boolean =>
  Boolean(isShared) || isBrought({ from });

/** What tops up a box stands beside everything else that a line brings along. */
export const BESIDE_BOX = 50;

/** Jars and equipment that go with a kit. */
function withTheKit(
  components: readonly Component[],
  supply: Supply,
  drawn: ReadonlySet<JarState>,
  dish: number,
  brought: BroughtItems,
): Component[] {
  const place = { dish, option: 0, beside: 0, isOfCourse: true };
  const jars = [...drawn].flatMap((jar): Component[] => {
    const like = components.find(({ item }) => item.ingredient.name === jar.ingredient)?.item;
    if (!jar.fresh || !like) return [];
    const each = parseAmount(jar.grams);
    const item = issued(
      brought,
      `${jar.id} ${jar.grams} ${[...like.holdings.contains, '?', ...like.holdings.mayContain]}`,
      {
        ingredient: like.ingredient,
        amount: each,
        unit: readUnit('g'),
        weight: { grams: ONE },
        sealedGrams: each,
        holdings: like.holdings,
        preparation: 'jar for the course',
      },
    );
    const grams = multiply(each, rational(jar.fresh));
    const portion = { exact: grams, scoops: undefined, sealedUnits: jar.fresh, packed: grams, grams };
    return [{ ...place, line: jar.at, item, portion, ...(jar.isCatchUp ? { isCatchUp: true } : {}) }];
  });
  const issues = (supply.issues ?? []).map(({ id, at, name, count, isCatchUp }): Component => {
    const item = issued(brought, `${id} ${name}`, {
      ingredient: { ...EQUIPMENT, name },
      amount: ONE,
      weight: { grams: ZERO },
    });
    const packed = rational(count);
    const portion = { exact: packed, scoops: undefined, sealedUnits: undefined, packed, grams: ZERO };
    return { ...place, line: at, item, portion, ...(isCatchUp ? { isCatchUp: true } : {}) };
  });
  return [...jars, ...issues].sort((a, b) => a.line - b.line);
}

/** Equipment is issued and comes back, or stays: it is not bought with the food. */
export const isEquipment = ({ item }: Pick<Component, 'item'>): boolean => item.ingredient.aisle === EQUIPMENT.aisle;
