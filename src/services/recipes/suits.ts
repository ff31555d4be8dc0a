import { z } from 'zod';
import type { RecipeBody } from '@/contracts/recipe';
import { isHomeKit, type Mode } from '@/core/plan/mode';
import { currencyOf } from '@/core/quantity/money';
import {
  type CourseDishes,
  type CourseSession,
  type DishRecipe,
  dishFactsOf,
  fitOfSession,
} from '@/core/recipes/choosing/course-dishes';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { foodsIn } from '@/formats/recipes/menu-csv';
import { votesByRecipe } from '@/store/lessons';
import { comingIds } from '@/store/plan';
import { find } from '@/store/query';
import { loadSessionBundles, type SessionBundle } from '@/store/session-bundles';
import { type Context, service, todayIn } from '../gate/gate';
import { loadSheet } from '../kits/kit-sheet';
import { loadCourse } from '../plan/courses';
import { placeFrom } from '../plan/places';
import { reserveOf } from '../roll/reserve';
import { comingOf } from '../sheet/coming';
import { loadProducts } from '../sheet/load-products';
import { loadProgramme, type Meanings } from '../sheet/load-programme';
import { rollPerson } from '../sheet/person';
import { labelsIn } from '../sheet/supply';
import { pooled } from '../work/in-pool';

/** People of a roll, as dishes are held against them. */
function peopleOf(coming: SessionBundle['enrolments'], mode: string, meanings: Meanings) {
  return {
    people: coming.map((row) => {
      const { servings, needs } = rollPerson(row, meanings);
      return { servings, needs };
    }),
    ages: coming.flatMap(({ age }) => (age === null ? [] : [age])),
    inRoom: coming.filter((row) => !row.mode || row.mode === mode).length,
    homes: coming.filter((row) => isHomeKit((row.mode ?? mode) as Mode)).map(({ name, home }) => ({ name, ...home })),
  };
}

/** Who comes to a session. */
const whoComes = (bundle: SessionBundle, meanings: Meanings) =>
  peopleOf(comingOf(bundle), bundle.session.mode, meanings);

/** The places of the programme, by id. */
async function placesOf(context: Context) {
  const { db } = context.store;
  const rows = await find(db, db.models.place, { programmeId: context.actor.programmeId });
  return new Map(rows.map((row) => [row.id, placeFrom(row)]));
}

function courseSession(
  { session, dishes, classMinutes: around }: SessionBundle,
  who: ReturnType<typeof peopleOf>,
  budget: number | null,
  currency: string,
  places: Awaited<ReturnType<typeof placesOf>>,
): CourseSession {
  const place = session.placeId ? places.get(session.placeId) : undefined;
  return {
    id: session.id,
    date: session.date,
    mode: session.mode as Mode,
    minutes: session.minutes,
    around,
    participants: who.inRoom,
    homes: who.homes,
    budget: budget ?? undefined,
    currency,
    servings: who.people.length > 0 ? Math.round(sum(who.people) / who.people.length) : undefined,
    equipment: place?.equipment,
    isFire: Boolean(place?.outdoor),
    chosen: dishes.map(({ recipeId }) => recipeId),
  };
}

const sum = (people: readonly { readonly servings: number }[]) =>
  people.reduce((total, each) => total + each.servings, 0);

/** A recipe as dishes are looked at: with those that it is made of in it. */
export const dishRecipe = (id: string, title: string, body: RecipeBody): DishRecipe => {
  const { servings, lines, steps, planned } = wholeRecipe(body);
  return { id, title, servings, lines, steps, planned };
};

export const viewSuits = service({
  title: 'See a session, and whether its dishes suit the class',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { bundle, sheet, hours, programme, meanings } = await loadSheet(context, sessionId);
    const who = whoComes(bundle, meanings);
    const session = courseSession(
      bundle,
      who,
      bundle.session.budgetCents,
      currencyOf(programme),
      await placesOf(context),
    );
    const products = await loadProducts(context);
    const labels = new Map(Object.entries(sheet.input.labels));
    const suits = bundle.dishes.map(({ recipeId, title, body }) => {
      const found = dishFactsOf(dishRecipe(recipeId, title, body), programme.reference, who.people, products, labels);
      const fit = found ? fitOfSession(found.facts, session, who.ages) : undefined;
      return { recipeId, title, fit, grams: found?.facts.grams };
    });
    return { bundle, sheet, hours, suits, reserve: await reserveOf(context, bundle, programme) };
  },
});

/** Of each recipe, how many of those who tasted it would have more. */
function votesFrom(rows: Awaited<ReturnType<typeof votesByRecipe>>) {
  const votes = new Map<string, { more: number; of: number }>();
  for (const { recipeId, face, votes: count } of rows) {
    const { more, of } = votes.get(recipeId) ?? { more: 0, of: 0 };
    votes.set(recipeId, { more: more + (face === 'more please' ? Number(count) : 0), of: of + Number(count) });
  }
  return votes;
}

const words = z.string().trim().max(4000, 'At most 4,000 characters.').default('');

export const proposeDishes = service({
  title: 'Find dishes for the sessions of a course',
  roles: ['coordinator'],
  costly: true,
  input: z.object({ courseId: z.uuid(), stock: words, offers: words, menu: words }),
  run: async (context, { courseId, stock, offers, menu }) => {
    const { db } = context.store;
    const course = await loadCourse(context, courseId);
    const { programme, meanings } = await loadProgramme(context);
    const { reference } = programme;
    const today = todayIn(context, programme.timeZone);
    const ids = await comingIds(db, { courseId, today });
    const bundles = await loadSessionBundles(db, context.actor.programmeId, { ids: ids.map(({ id }) => id) });
    const places = await placesOf(context);
    const recipes = await find(db, db.models.recipe, { programmeId: context.actor.programmeId });
    const eaten = menu.trim() === '' ? new Map() : await pooled('readMenu', { text: menu, reference });
    const [first] = bundles;
    // Everybody on the roll, also of a group that misses one of the sessions: a dish must do for all.
    const roll = first?.enrolments.filter(({ status }) => status === 'enrolled') ?? [];
    const { people, ages } = peopleOf(roll, '', meanings);
    const task: CourseDishes = {
      reference,
      recipes: recipes.map(({ id, title, body }) => dishRecipe(id, title, body)),
      sessions: bundles.map((bundle) => ({
        ...courseSession(bundle, whoComes(bundle, meanings), course.budgetCents, currencyOf(programme), places),
        onMenu: eaten.get(bundle.session.date) ?? [],
      })),
      people,
      ages,
      stock: foodsIn(stock, reference),
      offers: foodsIn(offers, reference),
      products: await loadProducts(context),
      labels: labelsIn(programme, []),
      votes: votesFrom(await votesByRecipe(db, { programmeId: context.actor.programmeId })),
    };
    const { proposals, coverage } = await pooled('chooseDishes', task);
    return {
      course: { id: course.id, title: course.title },
      understood: { stock: task.stock, offers: task.offers, menuDays: eaten.size },
      sessions: bundles.map(({ session, dishes }) => ({
        id: session.id,
        number: session.number,
        title: session.title,
        date: session.date,
        startsAt: session.startsAt,
        mode: session.mode,
        dishes: dishes.map(({ recipeId, title }) => ({ recipeId, title })),
        proposals: proposals.find(({ sessionId }) => sessionId === session.id)?.dishes ?? [],
      })),
      coverage,
    };
  },
});
