// The demo programme, loaded through the same services and from the same open formats as anyone's own.
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { benchSheet } from '@/core/packing/progress';
import type { RollCells } from '@/core/roll/roll-row';
import type { Context, Role } from '@/services/access/gate';
import { hashPassword } from '@/services/access/passwords';
import { markJob } from '@/services/countdown/countdown';
import { lockKitSheet, viewKitSheet } from '@/services/kits/kit-sheet';
import { recordTicks } from '@/services/packing/bench';
import { loadLocked } from '@/services/packing/locked';
import { addCourse } from '@/services/plan/courses';
import { addDish, addSession } from '@/services/plan/sessions';
import { previewRecipeFile, saveRecipe } from '@/services/recipes/recipes';
import { addPerson, previewRollFile, saveRoll, setStatus, viewRoll } from '@/services/roll/roll';
import { contextFor } from '@/services/runtime';
import { freshProgramme } from '@/store/fresh';
import { insert } from '@/store/query';
import type { Store } from '@/store/store';

const FOLDER = path.join(import.meta.dirname, '..', 'demo');
const read = (file: string) => readFileSync(path.join(FOLDER, file));

interface DemoSession {
  readonly title: string;
  readonly inDays: number;
  readonly startsAt: string;
  readonly minutes: number;
  readonly place: string;
  readonly mode: string;
  readonly dishes: readonly string[];
  readonly lock?: boolean;
  readonly shoppingDone?: boolean;
  /** Rows of the sheet already ticked in all kits. */
  readonly packRows?: number;
}

interface DemoCourse {
  readonly title: string;
  readonly audience: string;
  readonly roll: string;
  readonly sessions: readonly DemoSession[];
  readonly afterwards?: { readonly join: readonly RollCells[]; readonly withdraw: readonly string[] };
}

interface DemoProgramme {
  readonly name: string;
  readonly measureSystem: 'us' | 'metric';
  readonly safetyProfile: 'us' | 'uk';
  readonly timeZone: string;
  readonly members: readonly {
    readonly name: string;
    readonly email: string;
    readonly role: Role;
    readonly password: string;
  }[];
  readonly recipes: readonly string[];
  readonly courses: readonly DemoCourse[];
}

/** The demo as its file has it. */
export const demoProgramme = (): DemoProgramme => JSON.parse(read('programme.json').toString('utf8'));

/** Loads the demo into an empty database. Dates count from today, so that it is always alive. */
export async function loadDemo(store: Store): Promise<void> {
  const demo = demoProgramme();
  const programmeId = v7();
  const { name, measureSystem, safetyProfile, timeZone } = demo;
  await insert(store.db, store.db.models.programme, [
    freshProgramme({ id: programmeId, name, measureSystem, safetyProfile, timeZone }),
  ]);
  const members = await Promise.all(
    demo.members.map(async ({ password, ...member }) => ({
      ...member,
      id: v7(),
      programmeId,
      passwordHash: await hashPassword(password),
      status: 'active' as const,
      version: 1,
    })),
  );
  await insert(store.db, store.db.models.member, members);
  const coordinator = members.find((member) => member.role === 'coordinator');
  if (!coordinator) throw new Error('The demo needs a coordinator.');
  const context: Context = contextFor({ id: coordinator.id, programmeId, role: 'coordinator', name: coordinator.name });

  const recipes = new Map<string, string>();
  for (const file of demo.recipes) {
    const preview = await previewRecipeFile(context, { bytes: new Uint8Array(read(`recipes/${file}.json`)) });
    if ('problems' in preview) throw new Error(`${file}: ${JSON.stringify(preview.problems)}`);
    recipes.set(preview.file.title, await saveRecipe(context, preview.file));
  }
  for (const course of demo.courses) await loadCourse(context, course, recipes, timeZone);
}

async function loadCourse(
  context: Context,
  course: DemoCourse,
  recipes: ReadonlyMap<string, string>,
  timeZone: string,
): Promise<void> {
  const { title, audience, roll, sessions, afterwards } = course;
  const courseId = await addCourse(context, { title, audience });
  const { rows } = await previewRollFile(context, { courseId, bytes: new Uint8Array(read(`rolls/${roll}.csv`)) });
  await saveRoll(context, { courseId, rows });
  for (const session of sessions) await loadSession(context, courseId, session, recipes, timeZone);
  for (const cells of afterwards?.join ?? []) await addPerson(context, { courseId, cells });
  const { people } = await viewRoll(context, { courseId });
  for (const person of people.filter(({ name }) => afterwards?.withdraw.includes(name))) {
    await setStatus(context, { enrolmentId: person.id, version: person.version, status: 'withdrawn' });
  }
}

async function loadSession(
  context: Context,
  courseId: string,
  session: DemoSession,
  recipes: ReadonlyMap<string, string>,
  timeZone: string,
): Promise<void> {
  const { inDays, dishes, lock, shoppingDone, packRows, ...plan } = session;
  const date = Temporal.Now.plainDateISO(timeZone).add({ days: inDays }).toString();
  const sessionId = await addSession(context, { courseId, ...plan, date } as never);
  for (const dish of dishes) await addDish(context, { sessionId, recipeId: recipes.get(dish) ?? '' });
  if (!lock) return;
  const { sheet } = await viewKitSheet(context, { sessionId });
  await lockKitSheet(context, { sessionId, basis: sheet.basis });
  if (shoppingDone) await markJob(context, { sessionId, job: 'buying', done: true });
  if (!packRows) return;
  const { locked, revision } = await loadLocked(context, sessionId);
  const bench = benchSheet(locked, revision);
  const rows = new Set(bench.rows.slice(0, packRows).map(({ row }) => row));
  const ticks = bench.kits.flatMap((kit) => {
    const variant = bench.variants.find(({ letter }) => letter === kit.variant);
    return (variant?.components ?? [])
      .filter((component) => rows.has(component.row))
      .map((component) => ({ id: v7(), kitId: kit.id, component: component.key, action: 'packed' as const }));
  });
  await recordTicks(context, { sessionId, ticks });
}
