import type { ClassMinutes } from '../../plan/class-minutes';
import type { Mode } from '../../plan/mode';
import type { EquipmentCounts } from '../../plan/place';
import { ceil, divide, multiply, rational, subtract, toDecimal, toNumber } from '../../quantity/rational';
import type { Reference } from '../../reference/reference';
import type { Need } from '../../safety/avoidances';
import { type Product, servingFigures } from '../recipe/cost';
import { packedLines, type Recipe, readRecipe, type WrittenLine } from '../recipe/recipe';
import type { SettledStep } from '../steps/step-plan';
import { planSteps } from '../steps/step-reader';
import { type Candidate, chooseDishes, coverageOf, type DishSession, type Votes } from './choose-dishes';
import { dishNeeds } from './dish-needs';
import { type DishFacts, type Fit, type FitVerdict, fitOf, type HomeOfFamily } from './fit';

/** A recipe as it is kept. */
export interface DishRecipe {
  readonly id: string;
  readonly title: string;
  readonly servings: number;
  readonly lines: readonly WrittenLine[];
  readonly steps: readonly string[];
  readonly planned?: readonly SettledStep[] | undefined;
}

/** A session as dishes are held against it. */
export interface CourseSession {
  readonly id: string;
  readonly date: string;
  readonly mode: Mode;
  readonly minutes: number;
  /** Those in which nobody cooks. */
  readonly around?: ClassMinutes | undefined;
  readonly participants: number;
  readonly equipment: EquipmentCounts | undefined;
  readonly isFire: boolean;
  readonly budget?: number | undefined;
  /** ISO 4217 */
  readonly currency?: string;
  readonly servings?: number | undefined;
  /** The homes that it is cooked in. */
  readonly homes?: readonly HomeOfFamily[] | undefined;
  /** Dishes chosen already, by the recipe's id. */
  readonly chosen: readonly string[];
  /** Foods on the school's own menu that day. */
  readonly onMenu?: readonly string[];
}

/** Everything that dishes for a course are chosen from. Plain data, so that a thread of its own can do it. */
export interface CourseDishes {
  readonly reference: Reference;
  readonly recipes: readonly DishRecipe[];
  readonly sessions: readonly CourseSession[];
  readonly people: readonly { readonly servings: number; readonly needs: readonly Need[] }[];
  readonly ages: readonly number[];
  readonly stock: readonly string[];
  readonly offers: readonly string[];
  readonly products: readonly Product[];
  /** Recorded labels of the products that the programme usually buys, by food. */
  readonly labels?: ReadonlyMap<string, readonly string[]>;
  /** What those who tasted thought, by recipe. */
  readonly votes?: ReadonlyMap<string, Votes>;
}

/** A proposal as it is told. Plain data. */
export interface ToldProposal {
  readonly recipeId: string;
  readonly title: string;
  readonly verdict: FitVerdict;
  readonly points: number;
  readonly reasons: readonly string[];
  /** What of the fit does not hold, or holds with care. */
  readonly doubts: readonly string[];
}

/** How often plate groups and vegetable families occur in a course: with what is chosen, and with what is proposed. */
export interface CoverageCount {
  readonly name: string;
  readonly kind: 'plate group' | 'vegetable family';
  readonly chosen: number;
  readonly proposed: number;
}

export interface CourseDishesAnswer {
  readonly proposals: readonly { readonly sessionId: string; readonly dishes: readonly ToldProposal[] }[];
  readonly coverage: readonly CoverageCount[];
}

/** What a dish is, and what it brings, for one roll. @param labels recorded labels of the products used, by food */
export function dishFactsOf(
  { id, title, servings, lines, steps, planned }: DishRecipe,
  reference: Reference,
  people: CourseDishes['people'],
  products: readonly Product[],
  labels: ReadonlyMap<string, readonly string[]> = new Map(),
): { facts: DishFacts; candidate: Candidate } | undefined {
  const reading = readRecipe({ servings, lines: packedLines(lines, reference) }, reference, labels);
  if ('problems' in reading) return undefined;
  const { recipe } = reading;
  const ingredients = [...new Set(recipe.lines.map(({ written }) => written.ingredient.name))];
  const plannedSteps = planSteps({ steps, ingredients, ...(planned ? { settled: planned } : {}) }, reference);
  const needs = dishNeeds(recipe, people);
  const foods = recipe.lines.map(({ written }) => written.ingredient);
  const some = (values: readonly string[]) => new Set(values.filter((value) => value !== '' && value !== 'other'));
  const skills = plannedSteps.flatMap(({ tools, heat, ahead }) =>
    ahead ? [] : [...tools.filter((tool) => SKILLS.has(tool)), ...(heat === 'none' || heat === 'kettle' ? [] : [heat])],
  );
  return {
    facts: {
      ingredients,
      steps: plannedSteps,
      needs,
      cost: servingFigures(recipe, products).cost,
      grams: gramsOf(recipe),
    },
    candidate: {
      id,
      title,
      ingredients,
      plateGroups: some(foods.map(({ plateGroup }) => plateGroup)),
      vegetableFamilies: some(foods.map(({ vegetableFamily }) => vegetableFamily)),
      skills: new Set(skills),
      leftOver: leftOverOf(recipe, people),
      oneForAll: needs.length === 0,
      refused: needs.some(({ blocked }) => blocked.length > 0),
    },
  };
}

/** Edible grams of a batch as it is written. */
const gramsOf = (recipe: Recipe): number =>
  recipe.lines.reduce((sum, { written: { amount, weight } }) => {
    const grams = multiply(amount, weight.grams);
    return sum + toNumber(grams);
  }, 0);

/** Tools whose handling is learned. */
const SKILLS: ReadonlySet<string> = new Set([
  'knife',
  'peeler',
  'grater',
  'whisk',
  'rolling pin',
  'blender',
  'thermometer',
]);

/** Grams left of packs that are opened, by food, when everybody on the roll gets the dish as it is written. */
function leftOverOf(recipe: Recipe, people: CourseDishes['people']): Map<string, number> {
  const servings = people.reduce((sum, person) => sum + person.servings, 0);
  const left = new Map<string, number>();
  if (servings === 0) return left;
  for (const { written } of recipe.lines) {
    if (!written.packGrams || written.sealedGrams) continue;
    const needed = multiply(multiply(written.amount, written.weight.grams), rational(servings, recipe.servings));
    const over = subtract(multiply(ceil(divide(needed, written.packGrams)), written.packGrams), needed);
    if (over.n > 0) left.set(written.ingredient.name, Number(toDecimal(over, 0)));
  }
  return left;
}

/** Whether a dish suits a session of the course. */
export const fitOfSession = (
  facts: DishFacts,
  session: Omit<CourseSession, 'id' | 'chosen'>,
  ages: readonly number[],
): Fit => fitOf(facts, { ...session, month: Number(session.date.slice(5, 7)), ages });

/** Dishes for the sessions of a course, ranked with reasons, and what the course then covers. */
export function dishesForCourse(task: CourseDishes): CourseDishesAnswer {
  const { reference, recipes, sessions, people, ages } = task;
  const known = new Map(
    recipes.flatMap((recipe) => {
      const found = dishFactsOf(recipe, reference, people, task.products, task.labels);
      return found ? [[recipe.id, found] as const] : [];
    }),
  );
  // Sessions of a course are mostly alike: what suits one suits the other.
  const fits = new Map<string, Fit>();
  const byId = new Map(sessions.map((session) => [session.id, session]));
  /** Sessions cooked in the same homes share a number. */
  const homes = new Map<string, number>();
  const homesOf = new Map(
    sessions.map((session) => {
      const text = JSON.stringify(session.homes ?? []);
      const number = homes.get(text) ?? homes.size;
      homes.set(text, number);
      return [session.id, number] as const;
    }),
  );
  const fitFor = (recipeId: string, sessionId: string): Fit | undefined => {
    const [dish, session] = [known.get(recipeId), byId.get(sessionId)];
    if (!dish || !session) return undefined;
    const { mode, minutes, around, participants, equipment, isFire, budget, servings } = session;
    const key = JSON.stringify([
      recipeId,
      mode,
      minutes,
      around,
      participants,
      equipment,
      isFire,
      budget,
      servings,
      homesOf.get(sessionId),
    ]);
    const fit = fits.get(key) ?? fitOfSession(dish.facts, session, ages);
    fits.set(key, fit);
    return fit;
  };
  const candidates = [...known.values()].map(({ candidate }): Candidate => {
    const votes = task.votes?.get(candidate.id);
    return votes ? { ...candidate, votes } : candidate;
  });
  const { proposals, order } = chooseDishes(
    sessions.map(({ id, date, chosen, onMenu = [] }): DishSession => ({ id, date, chosen, onMenu: new Set(onMenu) })),
    candidates,
    { stock: new Set(task.stock), offers: new Set(task.offers) },
    (dish, session) => fitFor(dish.id, session.id)?.verdict ?? 'does not fit',
  );
  const chosen = sessions.flatMap((session) => session.chosen.flatMap((id) => known.get(id)?.candidate ?? []));
  const proposed = order.flatMap(({ dishId }) => known.get(dishId)?.candidate ?? []);
  return {
    proposals: [...proposals].map(([sessionId, dishes]) => ({
      sessionId,
      dishes: dishes.map(({ dish, verdict, points, reasons }) => ({
        recipeId: dish.id,
        title: dish.title,
        verdict,
        points,
        reasons,
        doubts: (fitFor(dish.id, sessionId)?.findings ?? []).flatMap((each) =>
          each.verdict === 'fits' ? [] : [each.say],
        ),
      })),
    })),
    coverage: coverageCounts(reference, coverageOf(chosen), coverageOf([...chosen, ...proposed])),
  };
}

function coverageCounts(
  { ingredients }: Reference,
  chosen: ReturnType<typeof coverageOf>,
  all: ReturnType<typeof coverageOf>,
): CoverageCount[] {
  const names = (of: 'plateGroup' | 'vegetableFamily') =>
    [...new Set(ingredients.map((food) => food[of]))].filter((name) => name !== '' && name !== 'other').sort();
  const count = (kind: CoverageCount['kind'], of: 'groups' | 'families', name: string): CoverageCount => {
    const now = chosen[of].get(name) ?? 0;
    return { name, kind, chosen: now, proposed: (all[of].get(name) ?? 0) - now };
  };
  return [
    ...names('plateGroup').map((name) => count('plate group', 'groups', name)),
    ...names('vegetableFamily').map((name) => count('vegetable family', 'families', name)),
  ];
}
