import { addDays, dayOf, weekdayOf } from '@/core/plan/civil';
import type { FirstRun } from '@/core/plan/first-run';
import type { WrittenLine } from '@/core/recipes/recipe/recipe';
import { find } from '@/store/query';
import { type Context, todayIn } from '../gate/gate';
import { addCourse } from '../plan/courses';
import { addPlace } from '../plan/places';
import { addDish, addSession } from '../plan/sessions';
import { saveRecipe } from '../recipes/recipes';
import { saveRoll } from '../roll/roll-file';

const line = (amount: string, unit: string, ingredient: string, preparation?: string): WrittenLine =>
  preparation === undefined ? { amount, unit, ingredient } : { amount, unit, ingredient, preparation };

/** Two dishes that need no oven, invented. */
const DISHES: readonly { title: string; lines: WrittenLine[]; steps: string[] }[] = [
  {
    title: 'Sample: rainbow slaw',
    lines: [
      line('2', 'cup', 'white cabbage', 'shredded'),
      line('1', 'cup', 'carrot', 'grated'),
      line('1', 'each', 'apple', 'medium'),
      { ...line('3', 'Tbsp', 'plain yogurt'), alternatives: [line('2', 'Tbsp', 'olive oil')] },
      line('1', 'each', 'lemon', 'juice of one'),
    ],
    steps: [
      'Wash the cabbage, the carrot and the apple. 5 minutes.',
      'Shred the cabbage and grate the carrot. 15 minutes.',
      'Cut the apple and toss it in the lemon juice. 5 minutes.',
      'Stir everything with the yogurt. 5 minutes.',
    ],
  },
  {
    title: 'Sample: oat and banana squares',
    lines: [
      line('2', 'cup', 'rolled oats'),
      line('2', 'each', 'banana', 'medium, peeled'),
      line('1/4', 'cup', 'honey'),
      line('1/2', 'cup', 'raisins', 'not packed'),
    ],
    steps: [
      'Mash the bananas with a fork. 5 minutes.',
      'Stir in the oats, the honey and the raisins. 5 minutes.',
      'Press it into a tin and cut it into squares. 10 minutes.',
    ],
  },
];

/** Invented children: one of them with an allergy, one whose words nobody knows yet. */
const PEOPLE = [
  ['Anouk Fennimore', '8', ''],
  ['Bram Oakhollow', '9', ''],
  ['Cosima Thistle', '8', 'milk'],
  ['Dov Larkspur', '10', ''],
  ['Esme Quillfeather', '9', 'vegetarian'],
  ['Farid Wrenfield', '8', ''],
] as const;

const WEEK = 7;
const SESSIONS = 4;

/** Puts a sample course there: a place, two recipes, six people, four sessions. @returns what was made */
export async function makeSample(context: Context, timeZone: string): Promise<NonNullable<FirstRun['sample']>> {
  const place = 'Sample kitchen';
  const placeId = await addPlace(context, {
    name: place,
    seats: 12,
    hours: [],
    equipment: {},
    minutesBefore: 30,
    minutesAfter: 30,
    outdoor: null,
  });
  const recipes: string[] = [];
  for (const { title, lines, steps } of DISHES)
    recipes.push(await saveRecipe(context, { title, body: { servings: 4, lines, steps } }));
  const courseId = await addCourse(context, { title: 'Sample course', audience: 'To try things with' });
  const rows = PEOPLE.map(([name, age, avoids], at) => ({
    line: at + 2,
    cells: { name, age, servings: '1', avoids, mode: '' },
  }));
  await saveRoll(context, { courseId, rows });
  const today = todayIn(context, timeZone);
  // On a Thursday, at least five days ahead: everything can still be done in time.
  const first = addDays(today, 5 + ((4 - weekdayOf(dayOf(addDays(today, 5))) + WEEK) % WEEK));
  for (let n = 0; n < SESSIONS; n++) {
    const title = `Sample session ${n + 1}`;
    const when = { date: addDays(first, n * WEEK), startsAt: '16:00', minutes: 90, place, mode: 'in person' };
    const sessionId = await addSession(context, { courseId, title, ...when });
    await addDish(context, { sessionId, recipeId: recipes[n % recipes.length] });
  }
  const { db } = context.store;
  const enrolled = await find(db, db.models.enrolment, { courseId });
  const households = [...new Set(enrolled.map(({ householdId }) => householdId))];
  return { courses: [courseId], recipes, households, places: [placeId] };
}
