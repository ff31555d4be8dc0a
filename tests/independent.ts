// The kit arithmetic written a second time, as plainly as its rules read, with another library for fractions: what the
// product computes on random cases is held against this.
import { Fraction } from 'fraction.js';
import type { KitCase } from '@/core/kits/figures/kit-case';
import type { WrittenAlternative, WrittenItem } from '@/core/recipes/recipe/recipe';
import { TYPICAL } from '@/core/reference/reference';
import avoidances from '../src/core/reference/facts/avoidances.json';

type F = Fraction;
const f = (value: string | number) => new Fraction(value);

const TEASPOONS: Record<string, number> = { tsp: 1, Tbsp: 3, cup: 48 };
const GRAMS: Record<string, string> = { g: '1', oz: '28.349523125', lb: '453.59237' };
/** The usual US tools, in eighths of a teaspoon, largest first. */
const TOOLS = [384, 192, 128, 96, 24, 8, 4, 2, 1];
const NEAR = { tight: f('0.02'), normal: f('0.05'), loose: f('0.1') };

const halfEven = (value: F): F => {
  const down = value.floor();
  const rest = value.sub(down);
  if (rest.equals('1/2')) return down.mod(2).equals(0) ? down : down.add(1);
  return rest.compare('1/2') > 0 ? down.add(1) : down;
};

/** Scoops in eighths of a teaspoon: fewest, then fewest different, then least error, then larger first. */
function scoopsFor(exact: F, precision: keyof typeof NEAR): number[] {
  const eighths = exact.mul(8);
  const near = eighths.mul(NEAR[precision]);
  const from = Math.max(1, Number(eighths.sub(near).ceil()));
  const to = Number(eighths.add(near).floor());
  let sums = Array.from({ length: Math.max(0, to - from + 1) }, (_, index) => from + index);
  if (sums.length === 0) sums = [Math.max(1, Number(halfEven(eighths)))];
  const most = Math.max(...sums);
  const fewest = [0];
  for (let sum = 1; sum <= most; sum++) {
    fewest[sum] = 1 + Math.min(...TOOLS.filter((tool) => tool <= sum).map((tool) => fewest[sum - tool] ?? Infinity));
  }
  const count = Math.min(...sums.map((sum) => fewest[sum] ?? Infinity));
  const sets = sums.filter((sum) => fewest[sum] === count).flatMap((sum) => setsOf(sum, count, 0));
  const error = (set: number[]) =>
    f(set.reduce((a, b) => a + b))
      .sub(eighths)
      .abs();
  sets.sort(
    (a, b) =>
      new Set(a).size - new Set(b).size ||
      error(a).compare(error(b)) ||
      a.map((tool, index) => (b[index] ?? 0) - tool).find((difference) => difference !== 0) ||
      0,
  );
  return sets[0] ?? [];
}

/** Every way to make a sum with so many tools, each largest first. */
function setsOf(sum: number, count: number, from: number): number[][] {
  if (count === 0) return sum === 0 ? [[]] : [];
  return TOOLS.slice(from).flatMap((tool, index) =>
    tool > sum || tool * count < sum ? [] : setsOf(sum - tool, count - 1, from + index).map((rest) => [tool, ...rest]),
  );
}

function gramsOf(item: WrittenItem): F {
  const own = GRAMS[item.unit];
  if (own) return f(own);
  const rows = TYPICAL.measures.filter(
    (row) => row.ingredient === item.ingredient && row.preparation === (item.preparation ?? ''),
  );
  const same = rows.find((row) => row.measure === item.unit);
  if (same) return f(String(same.grams));
  const by = rows.find((row) => row.measure in TEASPOONS);
  return f(String(by?.grams))
    .mul(TEASPOONS[item.unit] ?? 0)
    .div(TEASPOONS[by?.measure ?? ''] ?? 1);
}

function scaled(item: WrittenItem, recipeServings: number, servings: number): F {
  const amount = item.amount.split(' ').reduce((sum, part) => sum.add(part), f(0));
  const factor = f(servings).div(recipeServings);
  switch (item.scaling ?? 'linear') {
    case 'whole':
      return amount.mul(factor).ceil();
    case 'damped':
      return factor.compare(1) <= 0
        ? amount.mul(factor)
        : amount.mul(
            factor
              .sub(1)
              .mul(item.damping ?? '3/4')
              .add(1),
          );
    case 'per batch':
      return amount.mul(
        f(servings)
          .div(item.batch_servings ?? 1)
          .ceil(),
      );
    case 'per kit':
      return amount;
    default:
      return amount.mul(factor);
  }
}

/** One component, with its exact grams beside it. */
function component(item: WrittenItem, recipeServings: number, servings: number) {
  const exact = scaled(item, recipeServings, servings);
  const one = gramsOf(item);
  const head = { ingredient: item.ingredient, exact: exact.toFraction(), unit: item.unit };
  if (item.sealed_grams) {
    const units = f(Math.max(1, Number(exact.mul(one).mul('10/11').div(item.sealed_grams).ceil())));
    const grams = units.mul(item.sealed_grams);
    return { shown: { ...head, sealed_units: Number(units), grams: thousandths(grams) }, grams };
  }
  const spoon = TEASPOONS[item.unit];
  if (!spoon) {
    const grams = exact.mul(one);
    return { shown: { ...head, packed: exact.toFraction(), grams: thousandths(grams) }, grams };
  }
  const scoops = scoopsFor(exact.mul(spoon), (item.precision ?? 'normal') as keyof typeof NEAR);
  const packed = f(scoops.reduce((a, b) => a + b, 0))
    .div(8)
    .div(spoon);
  const grams = packed.mul(one);
  const scoops_tsp = scoops.map((tool) => f(tool).div(8).toFraction());
  return { shown: { ...head, scoops_tsp, packed: packed.toFraction(), grams: thousandths(grams) }, grams };
}

const thousandths = (grams: F): number => Number(halfEven(grams.mul(1000))) / 1000;

const IMPLIES = new Map(avoidances.map(({ code, implies }) => [code, implies as string[]]));

/** What of the avoided an item holds, or may hold. */
function blockedBy(item: WrittenItem, avoids: readonly string[]): string[] {
  const facts = TYPICAL.ingredients.find(({ name }) => name === item.ingredient);
  // A label tells of allergens only: what a food is by nature, it stays.
  const held = new Set<string>(item.label ?? [...(facts?.contains ?? []), ...(facts?.mayContain ?? [])]);
  for (const code of [...(facts?.diet ?? []), ...(facts?.dietCheck ?? [])]) held.add(code);
  for (const code of held) for (const implied of IMPLIES.get(code) ?? []) held.add(implied);
  return avoids.filter((code) => held.has(code)).sort();
}

/** What is bought of one food that stands on one line: grams with trimming and spare, and whole packs. */
function bought(item: WrittenItem, grams: F, sealedUnits: number) {
  const spare = f(item.spare ?? 0).add(1);
  if (item.sealed_grams) return { packs: Number(f(sealedUnits).mul(spare).ceil()) };
  const trimmed = TYPICAL.yields.find(
    (row) => row.ingredient === item.ingredient && row.preparation === item.yield_preparation,
  );
  const whole = grams.div(trimmed ? String(trimmed.ediblePortion) : 1).mul(spare);
  return {
    purchase_grams: thousandths(whole),
    ...(item.pack_grams ? { packs: Number(whole.div(item.pack_grams).ceil()) } : {}),
  };
}

/** What a case comes to: each kind of kit, and the totals by food. */
export function independently({ recipe, kits }: KitCase) {
  const all = new Map<string, { item: WrittenItem; grams: F; units: number }>();
  const variants = kits.map(({ servings, count, avoids = [] }) => {
    const head = { servings, count, avoids };
    const refused: { line: number; ingredient: string; blocked_by: string[] }[] = [];
    const components: (ReturnType<typeof component> & { item: WrittenItem })[] = [];
    recipe.lines.forEach((line, index) => {
      const blocked = blockedBy(line, avoids);
      let item: WrittenAlternative | undefined = line;
      if (blocked.length > 0)
        item = line.alternatives?.find((other) => 'omit' in other || blockedBy(other, avoids).length === 0);
      if (!item) refused.push({ line: index, ingredient: line.ingredient, blocked_by: blocked });
      else if (!('omit' in item)) components.push({ item, ...component(item, recipe.servings, servings) });
    });
    if (refused.length > 0) return { ...head, refused };
    for (const { item, shown, grams } of components) {
      const sum = all.get(item.ingredient) ?? { item, grams: f(0), units: 0 };
      const units = 'sealed_units' in shown ? shown.sealed_units * count : 0;
      all.set(item.ingredient, { item, grams: sum.grams.add(grams.mul(count)), units: sum.units + units });
    }
    return { ...head, components: components.map(({ shown }) => shown) };
  });
  const totals = [...all].map(([food, { item, grams, units }]) => [
    food,
    { edible_grams: thousandths(grams), ...bought(item, grams, units) },
  ]);
  return { variants, totals: Object.fromEntries(totals) };
}
