// npm run search-unsafe [-- rolls seed steps]: makes rolls and recipes by chance, computes their kit sheets, and looks in every
// kit for what its person must avoid; then takes random steps through the services, and looks at every kit and text after each.
// Judged by the tables alone, with none of the code that chooses. Prints its seed.

import type { SheetInput } from '@/core/kits/record/sheet-content';
import { computeSheet } from '@/core/kits/record/snapshot';
import { type ExtrasWanted, extrasFor, extrasOf } from '@/core/kits/sheet/extras';
import { VERSION_POLICIES } from '@/core/kits/sheet/fewest-variants';
import { type LineWay, type Supply, WAYS } from '@/core/kits/supply/supplied';
import type { WrittenAlternative, WrittenItem, WrittenLine } from '@/core/recipes/recipe/recipe';
import { withFillings } from '@/core/recipes/recipe/slots';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { TYPICAL } from '@/core/reference/reference';
import avoidances from '../src/core/reference/facts/avoidances.json';
import care from '../src/core/reference/facts/care.json';
import holdings from '../src/core/reference/facts/holdings.json';
import ingredients from '../src/core/reference/facts/ingredients.json';
import { setup } from '../tests/database';
import { testStore } from '../tests/programme';
import { searchServices } from '../tests/search/search';
import { randomFrom } from './random.mjs';

const rolls = Number(process.argv[2] ?? 100_000);
const seed = Number(process.argv[3] ?? Date.now() % 2 ** 31);
const steps = Number(process.argv[4] ?? 20_000);

const chance = randomFrom(seed);
const upTo = (most: number) => Math.floor(chance() * (most + 1));
const oneOf = <T>(list: readonly T[]): T => list[Math.floor(chance() * list.length)] as T;
const times = <T>(count: number, make: () => T): T[] => Array.from({ length: count }, make);

const CODES = avoidances.map(({ code }) => code);
const ALLERGENS = avoidances.filter(({ kind }) => kind === 'allergen').map(({ code }) => code);
const heldIn = (name: string, kinds: readonly string[]) =>
  holdings
    .filter(({ state, foods }) => state !== 'no' && foods.includes(name))
    .flatMap(({ codes }) => codes.filter((code) => kinds.includes(KIND.get(code) ?? '')));
const KIND = new Map(avoidances.map(({ code, kind }) => [code, kind]));
const FOODS = new Map(
  ingredients.map(({ name }) => [name, { allergens: heldIn(name, ['allergen']), diets: heldIn(name, ['diet']) }]),
);

// Judged here: what a food holds, by the tables and the recorded label, and nothing else.
const implied = new Map(avoidances.map(({ code, implies }) => [code, implies]));
function heldBy(name: string, preparation: string, label: readonly string[] | undefined): Set<string> {
  const food = FOODS.get(name);
  if (!food) throw new Error(`${name} is not in the table`);
  const held = new Set([...(label ?? food.allergens), ...food.diets, `food:${name}`]);
  const said = preparation.toLowerCase().split(/[^a-z]+/);
  const isSaid = (words: string) => words.split(' ').every((word) => said.includes(word));
  // "Whole, quartered", "not chopped": nothing is lifted by half of what is said.
  const isPlain = !said.includes('whole') && !said.includes('not');
  for (const { code, ingredients: foods, lifted } of care)
    if (foods.includes(name) && !(isPlain && (lifted as string[]).some(isSaid))) held.add(code);
  for (const code of held) for (const more of implied.get(code) ?? []) held.add(more);
  return held;
}

const MEASURES = TYPICAL.measures;
const item = (): WrittenItem => {
  const { ingredient, preparation, measure } = oneOf(MEASURES);
  const label = chance() < 0.15 ? { label: times(upTo(2), () => oneOf(ALLERGENS)) } : {};
  const sealed = chance() < 0.1 ? { sealed_grams: '400' } : {};
  return { ingredient, preparation, amount: String(1 + upTo(4)), unit: measure, ...label, ...sealed };
};

function line(): WrittenLine {
  const cans = TYPICAL.yields.filter((row) => row.preparation === 'drained');
  const alternatives = times(upTo(3), (): WrittenAlternative => {
    if (chance() < 0.1) return { omit: true };
    return chance() < 0.2 ? { ...item(), also: times(1 + upTo(1), item) } : item();
  });
  if (chance() < 0.12) {
    const liquid = {
      ingredient: oneOf(cans).ingredient,
      preparation: 'liquid',
      amount: '100',
      unit: 'ml',
      reserved: true as const,
    };
    return { ...liquid, alternatives };
  }
  return { ...item(), alternatives, ...(chance() < 0.15 ? { slot: true as const } : {}) };
}

const lines = () => times(1 + upTo(4), line);

function recipe() {
  const own = lines();
  const inner = {
    recipeId: 'inner',
    version: 1,
    title: 'Inner',
    servings: 2,
    of: 4,
    lines: lines(),
    steps: [],
    within: [],
  };
  const whole = wholeRecipe({ servings: 4, lines: own, steps: [], ...(chance() < 0.2 ? { subRecipes: [inner] } : {}) });
  const fillings = whole.lines.flatMap(({ ingredient, slot, alternatives = [] }) => {
    const other = oneOf(alternatives);
    return slot && other && !('omit' in other) ? [{ written: ingredient, chosen: other.ingredient }] : [];
  });
  return { servings: 4, lines: withFillings(whole.lines, chance() < 0.5 ? fillings : []) };
}

/** How a kit may be filled: at the station, whole, from home, from a box, out of jars. */
function supplyFrom(foods: readonly string[]): Supply | undefined {
  if (chance() < 0.4) return undefined;
  const some = () => times(upTo(2), () => oneOf(foods));
  return {
    ...(chance() < 0.3 ? { atStation: true } : {}),
    ...(chance() < 0.5 ? { cuts: true } : {}),
    staples: some(),
    box: some().map((ingredient) => ({ ingredient, grams: String(1 + upTo(400)) })),
    jars: some().map((ingredient, at) => ({ id: String(at), at, ingredient, grams: '100' })),
    issues: [{ id: 'spoons', at: 9, name: 'measuring spoons', count: 1 }],
  };
}

/** One roll and its dishes; every kit that holds what its person must avoid. */
function unsafeKits(number: number): string[] {
  const people = times(1 + upTo(7), () => {
    const codes =
      chance() < 0.35
        ? []
        : times(1 + upTo(2), () => (chance() < 0.15 ? `food:${oneOf(ingredients).name}` : oneOf(CODES)));
    const unknown = chance() < 0.05 ? [{ asWritten: 'moonroot', codes: undefined }] : [];
    return { codes, needs: [...codes.map((code) => ({ asWritten: code, codes: [code] })), ...unknown] };
  }).map((person, at) => ({ ...person, id: String(at), name: String(at), servings: 1 + upTo(4) }));
  const dishes = times(1 + upTo(1), recipe).map((own, at) => ({
    id: String(at),
    title: `Dish ${at}`,
    recipe: own,
    ways: own.lines.flatMap(({ ingredient }) =>
      chance() < 0.3 ? [{ ingredient, way: oneOf(WAYS) }] : [],
    ) as readonly LineWay[],
  }));
  const foods = dishes.flatMap((dish) =>
    dish.recipe.lines.flatMap(({ ingredient, alternatives = [] }) => [
      ingredient,
      ...alternatives.flatMap((each) => ('omit' in each ? [] : [each.ingredient])),
    ]),
  );
  const supplied = people.map((person) => {
    const supply = supplyFrom(foods);
    return supply ? { ...person, supply } : person;
  });
  const labels = Object.fromEntries(
    times(upTo(2), () => [oneOf(ingredients).name, times(upTo(2), () => oneOf(ALLERGENS))] as const),
  );
  const wanted: ExtrasWanted = { tasters: upTo(2), crew: upTo(2), reserve: upTo(1) };
  const made = extrasOf(
    wanted,
    dishes.map(({ id }) => ({ id: `swap-in ${id}`, swapIn: upTo(1) * 4 })),
  );
  const versions = oneOf(VERSION_POLICIES);
  const input: SheetInput = {
    system: 'us',
    versions,
    dishes,
    labels,
    reference: TYPICAL,
    extras: extrasFor(made, people, supplyFrom(foods)),
  };
  const outcome = computeSheet(input, supplied);
  if ('problems' in outcome) return [];
  const found: string[] = [];
  const all = new Set(people.flatMap(({ codes }) => codes));
  for (const variant of outcome.sheet.variants) {
    const held = new Set(
      (variant.components ?? []).flatMap(({ dish, line: at, option, from, item: { ingredient, preparation } }) => {
        if (ingredient.aisle === 'equipment') return [];
        // The pack in hand stands before what a recipe states; what stands at home is of a brand that nobody has read.
        const own = labels[ingredient.name] ?? labelOf(dishes[dish]?.recipe.lines[at], option, ingredient.name);
        const isTheirs = from === 'at home already' || from === 'in the box they receive';
        // The jar itself holds what is drawn from it, which is looked at on its own line.
        return dish === dishes.length ? [] : [...heldBy(ingredient.name, preparation, isTheirs ? undefined : own)];
      }),
    );
    const avoided = variant.extra
      ? [...all].filter((code) => !variant.notFor?.includes(code))
      : variant.participants.flatMap(({ id }) => people.find((person) => person.id === id)?.codes ?? []);
    const bad = avoided.filter((code) => held.has(code));
    if (bad.length > 0) found.push(`roll ${number}, variant ${variant.letter}: holds ${bad.join(', ')}`);
    const isUnknown = variant.participants.some(({ id }) =>
      people.find((person) => person.id === id)?.needs.some(({ codes }) => !codes),
    );
    if (!variant.extra && variant.components && isUnknown)
      found.push(`roll ${number}, variant ${variant.letter}: packed although a need has no meaning`);
  }
  return found;
}

/** The label that a recipe itself states for a food of an option; none where one of the same food has none. */
function labelOf(written: WrittenLine | undefined, option: number, food: string): readonly string[] | undefined {
  // Behind the alternatives comes the food itself, cut small.
  const other = option === 0 ? written : (written?.alternatives?.[option - 1] ?? written);
  if (!other || 'omit' in other) return undefined;
  const own = [other, ...('also' in other ? (other.also ?? []) : [])].filter(({ ingredient }) => ingredient === food);
  return own.every(({ label }) => label) ? own.flatMap(({ label = [] }) => label) : undefined;
}

const started = performance.now();
const unsafe: string[] = [];
for (let number = 0; number < rolls; number++) unsafe.push(...unsafeKits(number));
const seconds = ((performance.now() - started) / 1000).toFixed(1);
console.log(`${rolls} rolls, seed ${seed}, ${seconds} s: ${unsafe.length} unsafe kits`);
for (const each of unsafe.slice(0, 20)) console.log(each);

if (steps > 0) {
  const stop = await setup();
  const store = await testStore();
  const begun = performance.now();
  const { found, ...outcome } = await searchServices(store, { seed, steps });
  const took = ((performance.now() - begun) / 1000).toFixed(0);
  console.log(
    `${outcome.steps} steps through the services, seed ${seed}, ${took} s: ${outcome.done} done, ${outcome.refused} refused; ${outcome.kits} looks at a kit, ${outcome.held} of them called back, ${outcome.texts} at its texts: ${found.length} findings`,
  );
  for (const each of found) console.log(each);
  if (outcome.neverDone.length > 0) console.log(`Always refused: ${outcome.neverDone.join(', ')}`);
  await store.close();
  await stop();
  if (found.length > 0 || outcome.neverDone.length > 0) process.exitCode = 1;
}
if (unsafe.length > 0) process.exitCode = 1;
