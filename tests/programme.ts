// A small programme in the test database, made new for each test file.
import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import type { WrittenLine } from '@/core/recipes/recipe/recipe';
import type { RollCells } from '@/core/roll/roll-row';
import type { Visit } from '@/services/access/sign-in';
import type { Context, Role } from '@/services/gate/gate';
import { viewKitSheet } from '@/services/kits/kit-sheet';
import { addCourse } from '@/services/plan/courses';
import { addDish, addSession } from '@/services/plan/sessions';
import { saveRecipe } from '@/services/recipes/recipes';
import { addPerson } from '@/services/roll/roll';
import { addMember } from '@/store/accounts';
import { freshProgramme } from '@/store/fresh';
import { migrationsOf } from '@/store/migrate';
import { insert } from '@/store/query';
import { openStore, type Store } from '@/store/store';

/** Tests look into tables as nobody but the store may. */
export { select } from '@/store/sql';

/** Opens the test database, or another by name, with its tables in place. */
export async function testStore(name?: string): Promise<Store> {
  const shared = process.env.TEST_DATABASE_URL;
  const url = name ? shared?.replace(/[^/]+$/, name) : shared;
  if (!url) throw new Error('Run the tests with "npm test" or "npx vitest": they start a database.');
  const store = openStore(url);
  // Several test files start at once: only one of them makes the tables.
  await store.sequelize.query("SELECT GET_LOCK('tables', 60)");
  await migrationsOf(store).up();
  await store.sequelize.query("SELECT RELEASE_LOCK('tables')");
  return store;
}

/** Stands for what `npm start` makes and keeps apart from the database. */
export const DEPLOYMENT_KEY = 'a key of the tests, kept apart from their database';

export const NOW = Temporal.Instant.from('2026-11-20T12:00:00Z');

/** A browser nobody is signed in with yet, from an address of its own. */
export const newVisit = (store: Store, change: Partial<Visit> = {}): Visit => ({
  clock: () => NOW,
  ids: () => v7(),
  store,
  address: 'https://kitchen.test',
  ip: v7(),
  device: 'a browser',
  deviceToken: '',
  deploymentKey: DEPLOYMENT_KEY,
  ...change,
});

/** A programme with one member of each role; each gets a context at a fixed moment. */
export async function newProgramme(store: Store): Promise<Record<Role, Context>> {
  const programmeId = v7();
  await insert(store.db, store.db.models.programme, [
    freshProgramme({ id: programmeId, name: 'Test house', timeZone: 'Europe/London' }),
  ]);
  const context = async (role: Role): Promise<Context> => {
    const id = v7();
    await addMember(store.db, { id, programmeId, email: `${id}@example.test`, name: role, role });
    return {
      actor: { id, programmeId, role, name: role },
      clock: () => NOW,
      ids: () => v7(),
      store,
      address: 'http://logistra.test',
      deploymentKey: DEPLOYMENT_KEY,
    };
  };
  return {
    coordinator: await context('coordinator'),
    instructor: await context('instructor'),
    crew: await context('crew'),
  };
}

export const cells = (change: Partial<RollCells> = {}): RollCells => ({
  name: 'Ada Finch',
  age: '7',
  servings: '1',
  avoids: '',
  mode: '',
  ...change,
});

export const FLATBREAD: WrittenLine[] = [
  {
    ingredient: 'plain yogurt',
    amount: '1',
    unit: 'cup',
    alternatives: [{ ingredient: 'firm tofu', preparation: 'cubed', amount: '2/3', unit: 'cup' }],
  },
  { ingredient: 'egg', preparation: 'large, without shell', amount: '1', unit: 'each', scaling: 'whole' },
  { ingredient: 'ground cumin', amount: '1', unit: 'tsp' },
];

/** A course with one session of one dish, and people on its roll. */
export async function newSession(
  context: Context,
  people: readonly Partial<RollCells>[],
  lines: readonly WrittenLine[] = FLATBREAD,
) {
  const courseId = await addCourse(context, { title: 'Small Hands', audience: '' });
  const plan = {
    title: 'Breads',
    date: '2026-11-26',
    startsAt: '16:00',
    minutes: 90,
    place: 'Boatshed',
    mode: 'in person',
  };
  const sessionId = await addSession(context, { courseId, ...plan });
  const recipeId = await saveRecipe(context, { title: `Flatbread ${v7()}`, body: { servings: 4, lines, steps: [] } });
  await addDish(context, { sessionId, recipeId });
  const ids: string[] = [];
  for (const person of people) ids.push((await addPerson(context, { courseId, cells: cells(person) })).id);
  const basis = async () => (await viewKitSheet(context, { sessionId })).sheet.basis;
  return { courseId, sessionId, recipeId, people: ids, basis };
}
