import { FORGETFUL, type Memory } from '../../memory';
import { add, toDecimal, toNumber, toText, ZERO } from '../../quantity/rational';
import { sayGrams } from '../../quantity/say';
import {
  type Item,
  type Recipe,
  type RecipeProblem,
  readRecipe,
  type WrittenRecipe,
} from '../../recipes/recipe/recipe';
import { excerpt, indexed, type Reference } from '../../reference/reference';
import { AVOIDANCES, avoidanceLabel } from '../../safety/avoidances';
import { type Component, componentKey } from '../component';
import type { Portion } from '../portion';
import { packOf, piecesToBuy, type Total } from '../purchase/totals';
import type { Participant } from '../sheet/participant';
import { itemName, sayPortion, sayUse } from '../sheet/say-component';
import { type KitSheet, kitSheet, type Variant } from '../sheet/sheet';
import { BESIDE_BOX, isBrought, isElsewhere, isEquipment, waysOf } from '../supply/supplied';
import type { SheetComponent, SheetContent, SheetInput, SheetRow, SheetTotal, SheetVariant } from './sheet-content';

/** A sheet read for computing: its recipes, and the calculation itself. */
export interface Computed {
  readonly dishes: readonly Recipe[];
  readonly sheet: KitSheet;
}

/**
 * Computes the sheet behind its plain form; what the working is drawn from.
 *
 * @param memory keeps what is read, chosen and measured: a sheet that changes in one need is not computed whole
 * @returns every problem of its recipes instead, when there is one
 */
export function computeSheet(
  input: SheetInput,
  participants: readonly Participant[],
  letters: ReadonlyMap<string, string> = new Map(),
  memory: Memory = FORGETFUL,
): Computed | { problems: readonly (RecipeProblem & { dish: string })[] } {
  const labels = new Map(Object.entries(input.labels));
  const mark = JSON.stringify(input.labels);
  const problems: (RecipeProblem & { dish: string })[] = [];
  const dishes: Recipe[] = [];
  for (const dish of input.dishes) {
    const reading = readOnce(dish.recipe, input.reference, labels, mark, memory);
    if ('recipe' in reading) dishes.push(reading.recipe);
    else problems.push(...reading.problems.map((problem) => ({ ...problem, dish: dish.title })));
  }
  if (problems.length > 0) return { problems };
  const same = sameDishes(dishes, memory);
  const titles = input.dishes.map(({ title }) => title);
  const ways = waysOf(input.dishes.map((dish) => dish.ways));
  const { extras, versions: policy } = input;
  const options = { letters, titles, ways, memory, ...(extras ? { extras } : {}), ...(policy ? { policy } : {}) };
  return { dishes: same, sheet: kitSheet(same, participants, input.system, options) };
}

type Reading = ReturnType<typeof readRecipe>;

function readOnce(
  written: WrittenRecipe,
  reference: Reference,
  labels: ReadonlyMap<string, readonly string[]>,
  mark: string,
  memory: Memory,
): Reading {
  const last = memory.of<{ reference?: Reference; mark?: string; reading?: Reading }>('reading', written, () => ({}));
  if (last.reading && last.reference === reference && last.mark === mark) return last.reading;
  const reading = readRecipe(written, reference, labels, memory);
  Object.assign(last, { reference, mark, reading });
  return reading;
}

/** One list for the same recipes in the same order. */
function sameDishes(dishes: readonly Recipe[], memory: Memory): readonly Recipe[] {
  const [first] = dishes;
  if (!first) return dishes;
  const lists = memory.of<(readonly Recipe[])[]>('lists', first, () => []);
  const same = lists.find((list) => list.length === dishes.length && list.every((each, at) => each === dishes[at]));
  if (!same) lists.push(dishes);
  return same ?? dishes;
}

/** The plain form of a computed sheet. */
export function sheetContent(input: SheetInput, { dishes, sheet }: Computed, memory: Memory = FORGETFUL): SheetContent {
  const beside = besideRows(sheet, dishes.length);
  const rows: SheetRow[] = [
    ...dishes.flatMap((recipe, dish) =>
      recipe.lines.flatMap((line, index) => [
        { dish, line: index, ...rowItem(line.written) },
        ...(beside.get(`${dish}.${index}`) ?? []),
      ]),
    ),
    ...supplyRows(sheet, dishes.length),
  ];
  const places = new Map(
    rows.map(({ dish, line, beside = 0, option }, at) => [placeKey(dish, line, beside, option), at]),
  );
  const rowOf: RowOf = ({ dish, line, beside = 0, option }) => places.get(placeKey(dish, line, beside, option)) ?? -1;
  const told = new Map<Portion, SheetComponent>();
  const tell = (component: Component): SheetComponent => {
    const { portion, from, isInside } = component;
    const known = told.get(portion);
    // Kits of one size hold the same of most lines: told once.
    if (known && known.from === from && known.isInside === (isInside || undefined) && !component.isCatchUp)
      return known;
    const plain = plainComponent(component, input, rowOf);
    told.set(portion, plain);
    return plain;
  };
  const mark = [
    input.system,
    JSON.stringify(input.products ?? {}),
    ...input.dishes.map(({ id }) => id),
    ...places.keys(),
  ].join('|');
  const filled = memory.about<readonly Component[], { filled?: Filled }>('filled');
  const tellAll = (components: readonly Component[]): Filled => {
    const last = filled.of(components, nothingYet);
    if (last.filled?.mark === mark) return last.filled;
    last.filled = { mark, components: components.map(tell), ...sumOf(components) };
    return last.filled;
  };
  return {
    input: { ...input, reference: excerptFor(dishes, input.reference, memory) },
    rows,
    variants: sheet.variants.map((variant) => plainVariant(variant, tellAll, rowOf)),
    totals: sheet.totals.map(plainTotal),
    refusedKits: sheet.refusedKits,
  };
}

const nothingYet = () => ({});

/** Finds the row of a component, or of a line. */
type RowOf = (place: Pick<Component, 'dish' | 'line'> & Partial<Pick<Component, 'option' | 'beside'>>) => number;

/** A row by its place: what stands beside a line's own item is told apart by the option it comes with. */
const placeKey = (dish: number, line: number, beside: number, option: number | undefined) =>
  beside === 0 ? `${dish}.${line}` : `${dish}.${line}.${option}.${beside}`;

const rowItem = (item: Item) => ({
  ingredient: item.ingredient.name,
  name: itemName(item),
  aisle: item.ingredient.aisle,
});

/** What tops up a family's own box says so: its line has a row already. */
const besideItem = (item: Item, beside: number) =>
  beside < BESIDE_BOX ? rowItem(item) : { ...rowItem(item), name: `${itemName(item)}, beside their box` };

/** What goes with any kit for the whole course: a row each. */
function supplyRows(sheet: KitSheet, dish: number): SheetRow[] {
  const rows = new Map<number, SheetRow>();
  for (const { components, supply } of sheet.variants)
    for (const component of (supply && components) ?? [])
      if (component.dish === dish) rows.set(component.line, { dish, line: component.line, ...rowItem(component.item) });
  return [...rows.values()].sort((a, b) => a.line - b.line);
}

/** What any variant gets beside a line's own item, by dish and line: a row each. */
function besideRows(sheet: KitSheet, dishes: number): ReadonlyMap<string, readonly SheetRow[]> {
  const lines = new Map<string, Map<string, SheetRow>>();
  for (const { components = [] } of sheet.variants)
    for (const component of components) {
      if (component.beside === 0 || component.dish === dishes) continue;
      const { option, beside, item, dish, line } = component;
      const rows = lines.get(`${dish}.${line}`) ?? new Map<string, SheetRow>();
      lines.set(`${dish}.${line}`, rows);
      rows.set(`${option}.${beside}`, { dish, line, option, beside, ...besideItem(item, beside) });
    }
  return new Map(
    [...lines].map(([place, rows]) => [
      place,
      [...rows.entries()].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, row]) => row),
    ]),
  );
}

function foodsOf(dishes: readonly Recipe[]): ReadonlySet<string> {
  const items = dishes.flatMap((recipe) => recipe.lines.flatMap((line) => [line.written, ...line.alternatives]));
  return new Set(items.flatMap((item) => (item ? [item, ...item.also].map(({ ingredient }) => ingredient.name) : [])));
}

/** What the components of a kit come to, told: its part of a variant. */
type Filled = Pick<SheetVariant, 'sayGrams' | 'contains' | 'mayContain' | 'steps'> & {
  /** Where its rows stand: told again when that changes. */
  readonly mark: string;
  readonly components: readonly SheetComponent[];
};

const ALLERGENS = AVOIDANCES.filter(({ kind }) => kind === 'allergen');

/** What a kit weighs in the hand, its allergens and differing steps. */
function sumOf(components: readonly Component[]): Pick<Filled, 'sayGrams' | 'contains' | 'mayContain' | 'steps'> {
  const held = (pick: 'contains' | 'mayContain') => new Set(components.flatMap(({ item }) => [...item.holdings[pick]]));
  const contains = held('contains');
  const mayContain = held('mayContain');
  return {
    sayGrams: sayGrams(components.flatMap((each) => (isElsewhere(each) ? [] : [each.portion.grams])).reduce(add, ZERO)),
    contains: ALLERGENS.filter(({ code }) => contains.has(code)).map(({ label }) => label),
    mayContain: ALLERGENS.filter(({ code }) => mayContain.has(code) && !contains.has(code)).map(({ label }) => label),
    ...stepsOf(components),
  };
}

/** The part of the table that these dishes need; taken once for the same dishes. */
function excerptFor(dishes: readonly Recipe[], reference: Reference, memory: Memory): Reference {
  const last = memory.of<{ of?: Reference; part?: Reference }>('excerpt', dishes, () => ({}));
  if (last.part && last.of === reference) return last.part;
  const part = excerpt(reference, foodsOf(dishes));
  Object.assign(last, { of: reference, part });
  return part;
}

const NOTHING: readonly Component[] = [];

function plainVariant(
  variant: Variant,
  tell: (components: readonly Component[]) => Filled,
  rowOf: RowOf,
): SheetVariant {
  const { mark: _, components, steps, ...sum } = tell(variant.components ?? NOTHING);
  return {
    key: variant.key,
    letter: variant.letter,
    servings: variant.servings,
    avoids: variant.avoids,
    madeWithout: variant.components ? variant.avoids.map(avoidanceLabel) : [],
    unknownWishes: variant.unknownNeeds,
    refusals: variant.refusals.map(({ dish, line, ingredient, blockedBy }) => ({
      row: rowOf({ dish, line }),
      ingredient,
      blockedBy: blockedBy.map(avoidanceLabel),
    })),
    components: variant.components ? components : null,
    ...sum,
    participants: variant.participants.map(({ id, name, group }) =>
      group === undefined ? { id, name } : { id, name, group },
    ),
    ...(steps ? { steps } : {}),
    ...(variant.supply ? { supply: variant.supply } : {}),
    ...(variant.extra ? { extra: variant.extra, notFor: (variant.notFor ?? []).map(avoidanceLabel) } : {}),
  };
}

/** How cooking differs with what stands in; nothing where it does not. */
function stepsOf(components: readonly Component[]): { steps?: string[] } {
  const steps = components.flatMap(({ item: { step, minutes, ingredient }, beside }) => {
    if (beside > 0 || (step === '' && minutes === 0)) return [];
    const time = minutes === 0 ? '' : `${Math.abs(minutes)} min ${minutes > 0 ? 'longer' : 'shorter'}`;
    return [`${ingredient.name}: ${[step, time].filter(Boolean).join(' · ')}`];
  });
  return steps.length > 0 ? { steps } : {};
}

function plainComponent(component: Component, input: SheetInput, rowOf: RowOf): SheetComponent {
  const { item, portion, from, isInside, isShared, isCatchUp } = component;
  const product = isBrought(component) ? undefined : input.products?.[item.ingredient.name];
  return {
    key: componentKey(component, input.dishes[component.dish]?.id ?? '', product),
    row: rowOf(component),
    option: component.option,
    ingredient: item.ingredient.name,
    name: itemName(item),
    ...(item.preparation ? { preparation: item.preparation } : {}),
    say: sayPortion(component, input.system),
    unit: item.unit.key,
    exact: toText(portion.exact),
    packed: toText(portion.packed),
    grams: toText(portion.grams),
    sayGrams: isEquipment(component) ? '' : sayGrams(portion.grams),
    ...(portion.sealedUnits === undefined ? {} : { sealedUnits: portion.sealedUnits }),
    ...(portion.used ? { use: sayUse(portion.used, portion.sealedUnits ?? toNumber(portion.packed)) } : {}),
    ...(from ? { from } : {}),
    ...(isInside ? { isInside } : {}),
    ...(isShared ? { isShared } : {}),
    ...(isCatchUp ? { isCatchUp } : {}),
    ...(product ? { product } : {}),
  };
}

function plainTotal(total: Total): SheetTotal {
  const counted = total.items.filter(({ item }) => item.unit.dimension === 'count' && !item.sealedGrams);
  const sealed = total.items.find(({ item }) => item.sealedGrams)?.item.sealedGrams;
  const packGrams = packOf(total.items);
  const onlyPieces = counted.length > 0 && counted.length === total.items.length;
  const [first] = total.items;
  return {
    ingredient: total.ingredient,
    aisle: first?.item.ingredient.aisle ?? '',
    edibleGrams: toText(total.edible),
    sayEdible: sayGrams(total.edible),
    ...(total.purchase ? { purchaseGrams: toText(total.purchase), sayPurchase: sayGrams(total.purchase) } : {}),
    ...(total.packs === undefined ? {} : { packs: total.packs }),
    ...(packGrams ? { packGrams: toDecimal(packGrams, 3) } : {}),
    ...(sealed ? { sealedGrams: toDecimal(sealed, 3) } : {}),
    ...(onlyPieces && first ? { pieces: piecesToBuy(counted), pieceUnit: first.item.unit.key } : {}),
  };
}

/** Computes a sheet again from its plain form: what the working of a locked sheet is drawn from. */
export function recomputeSheet(content: SheetContent, memory: Memory = FORGETFUL): Computed | undefined {
  const participants = content.variants.flatMap(({ participants: people, servings, avoids, extra, supply }) =>
    (extra ? [] : people).map((person) => ({
      ...person,
      servings,
      needs: [{ asWritten: '', codes: avoids }],
      ...(supply ? { supply } : {}),
    })),
  );
  const letters = new Map(content.variants.map((variant) => [variant.key, variant.letter]));
  // Whoever shares a version is in it already.
  const outcome = computeSheet(
    { ...content.input, reference: indexed(content.input.reference), versions: 'separate' },
    participants,
    letters,
    memory,
  );
  return 'problems' in outcome ? undefined : outcome;
}
