// The demo programme, loaded through the same services and from the same open formats as anyone's own.
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import type { Container, HomeFacts, KitRules } from '@/contracts/kits';
import type { ExtrasWanted } from '@/core/kits/sheet/extras';
import type { LineWay } from '@/core/kits/supply/supplied';
import { benchSheet } from '@/core/packing/progress';
import { ruleOf } from '@/core/plan/cadence-rule';
import type { Weekday } from '@/core/plan/civil';
import type { RollCells } from '@/core/roll/roll-row';
import { hashPassword } from '@/services/access/passwords';
import { recordAttendance, viewAttendance } from '@/services/classday/attendance';
import { changeJob, markJob } from '@/services/countdown/countdown';
import type { Context, Role } from '@/services/gate/gate';
import { lockKitSheet, recordLabel, viewKitSheet } from '@/services/kits/kit-sheet';
import { setContainers, setKitRules, setLineWays } from '@/services/kits/rules';
import { recordTicks } from '@/services/packing/bench';
import { loadLocked } from '@/services/packing/locked';
import { addClosure, previewCalendarFile, saveCalendar } from '@/services/plan/closures';
import { addCourse, editCourse } from '@/services/plan/courses';
import { addGroup } from '@/services/plan/groups';
import { addPlace, setTravel } from '@/services/plan/places';
import { laySeason } from '@/services/plan/season';
import { addDish, addSession, loadBundle, setExtras } from '@/services/plan/sessions';
import { listHouseholds } from '@/services/privacy/households';
import { setRhythm } from '@/services/programme/programme';
import { editRecipe, saveEdited } from '@/services/recipes/drafts';
import { addProduct } from '@/services/recipes/products';
import { previewRecipeFile, saveRecipe } from '@/services/recipes/recipes';
import { shareKit } from '@/services/roll/away';
import { setHome } from '@/services/roll/home';
import { addPerson, setStatus, viewRoll } from '@/services/roll/roll';
import { previewRollFile, saveRoll } from '@/services/roll/roll-file';
import { contextFor, surroundings } from '@/services/runtime';
import { addMember } from '@/store/accounts';
import { freshProgramme } from '@/store/fresh';
import { insert } from '@/store/query';
import type { Store } from '@/store/store';
import { type DemoBuying, loadBuying } from './demo-buying';
import { type DemoCity, loadCity } from './demo-city';
import { beganAt, type DemoClass, loadClasses } from './demo-class';
import { type DemoCloseOut, loadFinished } from './demo-closeout';
import { loadCrew } from './demo-crew';
import { type DemoHandOut, loadHandOut } from './demo-handout';

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
  /** Jobs marked done, and jobs taken up that are usually out of sight. */
  readonly done?: readonly string[];
  readonly takeUp?: readonly string[];
  readonly cookByInDays?: number;
  /** What is made beside its kits, and dishes of which a batch is finished before class, by title. */
  readonly extras?: ExtrasWanted;
  readonly swapIns?: Readonly<Record<string, number>>;
  /** How lines travel, by the dish's title. */
  readonly ways?: Readonly<Record<string, readonly LineWay[]>>;
  /** All kits are packed. */
  readonly packed?: boolean;
  /** A session that is over: who did not fetch their kit, and who cooked it. */
  readonly attendance?: Readonly<Record<'not collected' | 'cooked', readonly string[]>>;
  /** Labels read of the products in hand. */
  readonly labels?: readonly { readonly ingredient: string; readonly product: string; readonly allergens: string[] }[];
}

/** A season that goes on from the first sessions, on their weekday. */
interface DemoSeason {
  readonly inDays: number;
  readonly days: number;
  readonly startsAt: string;
  readonly minutes: number;
  readonly place: string;
  readonly mode: string;
  readonly onClosure: string;
  readonly titles: readonly string[];
}

interface DemoClosure {
  readonly title: string;
  readonly inDays: number;
  readonly days: number;
  readonly place?: string;
}

interface DemoCourse {
  readonly title: string;
  readonly audience: string;
  readonly roll: string;
  readonly sessions: readonly DemoSession[];
  readonly capacity?: number;
  readonly budgetCents?: number;
  readonly instructor?: string;
  readonly uses?: Readonly<Record<string, number>>;
  readonly kitRules?: KitRules;
  /** What families have at home, by household; consent was given on the day they came. */
  readonly homes?: Readonly<Record<string, Omit<HomeFacts, 'consent'> & { readonly consent?: boolean }>>;
  /** Households whose siblings get one kit. */
  readonly shareKits?: readonly string[];
  readonly groups?: {
    readonly first: string;
    readonly others: readonly {
      readonly name: string;
      readonly daysAfter: number;
      readonly startsAt: string;
      readonly place: string;
    }[];
  };
  readonly season?: DemoSeason;
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
  readonly places: readonly { readonly name: string; readonly outdoor: { readonly fallback: string } | null }[];
  readonly travel: readonly (readonly [from: string, to: string, minutes: number])[];
  readonly closures: readonly DemoClosure[];
  readonly schoolCalendar: { readonly name: string; readonly days: readonly DemoClosure[] };
  readonly recipes: readonly string[];
  readonly containers: readonly Container[];
  readonly products: readonly object[];
  /** Recipes that are made of others. */
  readonly madeOf: readonly { readonly recipe: string; readonly of: string; readonly servings: number }[];
  readonly courses: readonly DemoCourse[];
  readonly buying: DemoBuying;
  readonly handout: DemoHandOut;
  /** The course whose class is in full swing. */
  readonly running: DemoCourse;
  readonly classday: DemoClass;
  /** The course that is over, and what happened in it. */
  readonly finished: DemoCourse;
  readonly closeOut: DemoCloseOut;
  /** When jobs are usually begun: "w6" on Saturdays, "d1" the day before. */
  readonly rhythm: readonly { readonly job: string; readonly on: string; readonly time: string }[];
}

/** The demo as its file has it. */
export const demoProgramme = (): DemoProgramme => JSON.parse(read('programme.json').toString('utf8'));

/** The city around it. */
export const demoCity = (): DemoCity<DemoCourse> => JSON.parse(read('city.json').toString('utf8'));

/** Loads the demo into an empty database. Dates count from today, so that it is always alive. */
export async function loadDemo(store: Store): Promise<void> {
  const demo = demoProgramme();
  const programmeId = v7();
  const { name, measureSystem, safetyProfile, timeZone } = demo;
  await insert(store.db, store.db.models.programme, [
    freshProgramme({ id: programmeId, name, country: 'US', currency: 'USD', measureSystem, safetyProfile, timeZone }),
  ]);
  const members = await Promise.all(
    demo.members.map(async ({ password, ...member }) => {
      const passwordHash = await hashPassword(surroundings(), password);
      return addMember(store.db, { ...member, id: v7(), programmeId, passwordHash });
    }),
  );
  const coordinator = members.find((member) => member.role === 'coordinator');
  if (!coordinator) throw new Error('The demo needs a coordinator.');
  const context: Context = contextFor({ id: coordinator.id, programmeId, role: 'coordinator', name: coordinator.name });

  const recipes = await loadRecipes(context, demo.recipes);
  for (const { recipe, of, servings } of demo.madeOf) {
    const recipeId = recipes.get(recipe) ?? '';
    const { lines, ...draft } = await editRecipe(context, { recipeId });
    const subRecipes = [{ recipeId: recipes.get(of) ?? '', servings }];
    const written = lines.map(({ items: _, ...line }) => line);
    await saveEdited(context, { recipeId, ...draft, lines: written, subRecipes });
  }
  await setContainers(context, { version: 1, containers: [...demo.containers] });
  await setRhythm(context, { version: 2, habits: [...demo.rhythm] });
  for (const product of demo.products) await addProduct(context, product);
  const today = Temporal.Now.plainDateISO(timeZone);
  await loadPlaces(context, demo, today);
  const teachers = new Map(members.map(({ email, id }) => [email, id]));
  for (const course of demo.courses) await loadCourse(context, course, { recipes, teachers, today });
  await loadBuying(context, demo.buying, today, FOLDER);
  await loadCrew(context, String(read('crew.csv')), today);
  await loadCourse(context, demo.finished, { recipes, teachers, today });
  await loadFinished(context, demo.closeOut, timeZone);
  await loadHandOut(context, demo.handout, new Uint8Array(read('doors.csv')), today, timeZone);
  // The class that runs began a while ago, whatever the hour.
  const startsAt = beganAt(context.clock().toString(), timeZone);
  const atStart = <One extends { startsAt: string }>(session: One) =>
    session.startsAt === 'now' ? { ...session, startsAt } : session;
  const running = { ...demo.running, sessions: demo.running.sessions.map(atStart) };
  await loadCourse(context, running, { recipes, teachers, today });
  await loadClasses(context, demo.classday);
  const like = { id: programmeId, timeZone, country: 'US', currency: 'USD' };
  await loadCity(store, demoCity(), like, (neighbour, its) => loadNeighbour(neighbour, its, today));
}

/** The recipes of these files. @returns their ids by title */
async function loadRecipes(context: Context, files: readonly string[]): Promise<Map<string, string>> {
  const recipes = new Map<string, string>();
  for (const file of files) {
    const preview = await previewRecipeFile(context, { bytes: new Uint8Array(read(`recipes/${file}.json`)) });
    if ('problems' in preview) throw new Error(`${file}: ${JSON.stringify(preview.problems)}`);
    recipes.set(preview.file.title, await saveRecipe(context, preview.file));
  }
  return recipes;
}

/** A place of which nothing is known but its name. */
const ANY_HALL = { seats: '', hours: [], equipment: {}, minutesBefore: 0, minutesAfter: 0, outdoor: null };

/** What a neighbour cooks of the demo's recipes, where, and with whom. */
async function loadNeighbour(
  context: Context,
  { places, recipes: files, course }: DemoCity<DemoCourse>['neighbours'][number],
  today: Temporal.PlainDate,
): Promise<void> {
  for (const name of places) await addPlace(context, { ...ANY_HALL, name });
  const recipes = await loadRecipes(context, files);
  await loadCourse(context, course, { recipes, teachers: new Map(), today });
}

/** Places, ways, and the calendars of closures; the school's comes as the file that a school would send. */
async function loadPlaces(context: Context, demo: DemoProgramme, today: Temporal.PlainDate): Promise<void> {
  const ids = new Map<string, string>();
  for (const { outdoor, ...place } of demo.places) {
    const fallback = outdoor && { ...outdoor, fallbackPlaceId: ids.get(outdoor.fallback) ?? null };
    ids.set(place.name, await addPlace(context, { ...place, outdoor: fallback }));
  }
  const placeId = (name: string | undefined) => (name === undefined ? null : (ids.get(name) ?? null));
  for (const [from, to, minutes] of demo.travel) {
    await setTravel(context, { fromId: placeId(from) ?? '', toId: placeId(to) ?? '', minutes });
  }
  for (const { title, inDays, days, place } of demo.closures) {
    const from = today.add({ days: inDays });
    const closure = { title, from: from.toString(), to: from.add({ days: days - 1 }).toString() };
    await addClosure(context, { ...closure, placeId: placeId(place) });
  }
  const compact = (date: Temporal.PlainDate) => date.toString().replaceAll('-', '');
  const events = demo.schoolCalendar.days.map(({ title, inDays, days }, index) => {
    const from = today.add({ days: inDays });
    return [
      'BEGIN:VEVENT',
      `UID:${index}@quay-street.example`,
      `SUMMARY:${title}`,
      `DTSTART;VALUE=DATE:${compact(from)}`,
      `DTEND;VALUE=DATE:${compact(from.add({ days }))}`,
      'END:VEVENT',
    ];
  });
  const file = ['BEGIN:VCALENDAR', 'VERSION:2.0', ...events.flat(), 'END:VCALENDAR'].join('\r\n');
  const { closures } = await previewCalendarFile(context, { bytes: new TextEncoder().encode(file) });
  await saveCalendar(context, { name: demo.schoolCalendar.name, placeId: null, closures });
}

/** What a course is loaded from beside itself. */
interface Around {
  readonly recipes: ReadonlyMap<string, string>;
  /** Ids of members by e-mail. */
  readonly teachers: ReadonlyMap<string, string>;
  readonly today: Temporal.PlainDate;
}

async function loadCourse(context: Context, course: DemoCourse, around: Around): Promise<void> {
  const { title, audience, roll, sessions, season, afterwards, capacity, budgetCents, uses } = course;
  const courseId = await addCourse(context, { title, audience });
  const instructorId = around.teachers.get(course.instructor ?? '') ?? null;
  const details = {
    courseId,
    version: 1,
    title,
    audience,
    capacity,
    budgetCents,
    instructorId,
    rollClosesDays: 5,
    uses,
  };
  await editCourse(context, details);
  for (const group of course.groups?.others ?? [])
    await addGroup(context, { courseId, firstName: course.groups?.first, ...group, instructorId: null });
  const { rows } = await previewRollFile(context, { courseId, bytes: new Uint8Array(read(`rolls/${roll}.csv`)) });
  await saveRoll(context, { courseId, rows });
  if (course.kitRules) await setKitRules(context, { courseId, version: 2, rules: course.kitRules });
  await loadHomes(context, courseId, course, around.today);
  for (const session of sessions) await loadSession(context, courseId, session, around);
  if (season) await loadSeason(context, courseId, season, around, course.kitRules ? 3 : 2);
  for (const cells of afterwards?.join ?? []) await addPerson(context, { courseId, cells });
  const { people } = await viewRoll(context, { courseId });
  for (const person of people.filter(({ name }) => afterwards?.withdraw.includes(name))) {
    await setStatus(context, { enrolmentId: person.id, version: person.version, status: 'withdrawn' });
  }
}

/** What families have at home and agreed to, and whose siblings share a kit. */
async function loadHomes(
  context: Context,
  courseId: string,
  { homes = {}, shareKits = [] }: DemoCourse,
  today: Temporal.PlainDate,
): Promise<void> {
  const { people } = await viewRoll(context, { courseId });
  const households = await listHouseholds(context, {});
  const inCourse = households.filter(({ id }) => people.some(({ householdId }) => householdId === id));
  for (const { id, name, version } of inCourse) {
    const { consent, ...home } = homes[name] ?? {};
    const facts = { ...home, ...(consent ? { consent: today.toString() } : {}) };
    if (homes[name]) await setHome(context, { householdId: id, version, home: facts });
    if (shareKits.includes(name)) await shareKit(context, { courseId, householdId: id, share: true });
  }
}

/** The sessions that are there already are part of the season: only the later ones are laid down. */
async function loadSeason(
  context: Context,
  courseId: string,
  season: DemoSeason,
  { today }: Around,
  version: number,
): Promise<void> {
  const { inDays, days, startsAt, minutes, place, mode, onClosure, titles } = season;
  const from = today.add({ days: inDays });
  const weekday = from.dayOfWeek as Weekday;
  await laySeason(context, {
    courseId,
    version,
    cadence: {
      rule: ruleOf({ kind: 'weekly', every: 1, weekdays: [weekday] }),
      dates: [],
      slots: [{ startsAt, minutes }],
    },
    from: from.toString(),
    to: null,
    days,
    onClosure,
    titles,
    place,
    modes: [mode],
    instructorId: null,
  });
}

async function loadSession(context: Context, courseId: string, session: DemoSession, around: Around): Promise<void> {
  const { recipes, today } = around;
  const {
    inDays,
    dishes,
    lock,
    shoppingDone,
    packRows,
    done,
    takeUp,
    cookByInDays,
    extras,
    swapIns,
    ways,
    packed,
    labels = [],
    ...more
  } = session;
  const { attendance, ...plan } = more;
  const date = today.add({ days: inDays }).toString();
  const cookBy = cookByInDays === undefined ? null : today.add({ days: cookByInDays }).toString();
  const sessionId = await addSession(context, { courseId, ...plan, date, cookBy });
  for (const job of done ?? []) await markJob(context, { sessionId, job, done: true });
  for (const job of takeUp ?? []) await changeJob(context, { sessionId, job, for: 'session', on: true });
  for (const dish of dishes) await addDish(context, { sessionId, recipeId: recipes.get(dish) ?? '' });
  if (extras || swapIns) {
    const bundle = await loadBundle(context, sessionId);
    const servings = bundle.dishes.map(({ id, title }) => [id, swapIns?.[title] ?? 0]);
    await setExtras(context, { sessionId, ...extras, swapIns: Object.fromEntries(servings) });
  }
  const { dishes: chosen } = await loadBundle(context, sessionId);
  for (const { id, title } of chosen)
    if (ways?.[title]) await setLineWays(context, { sessionId, dishId: id, ways: [...ways[title]], serves: null });
  for (const label of labels) await recordLabel(context, { sessionId, ...label });
  if (!lock) return;
  const { sheet } = await viewKitSheet(context, { sessionId });
  await lockKitSheet(context, { sessionId, basis: sheet.basis });
  if (shoppingDone) await markJob(context, { sessionId, job: 'buying', done: true });
  if (!packRows && !packed) return;
  const { locked, revision } = await loadLocked(context, sessionId);
  const bench = benchSheet(locked, revision);
  const rows = new Set(bench.rows.slice(0, packed ? undefined : packRows).map(({ row }) => row));
  const ticks = bench.kits.flatMap((kit) => {
    const variant = bench.variants.find(({ letter }) => letter === kit.variant);
    return (variant?.components ?? [])
      .filter((component) => rows.has(component.row))
      .map((component) => ({ id: v7(), kitId: kit.id, component: component.key, action: 'packed' as const }));
  });
  // As hands pack: what is packed was packed this morning, what is under way goes at a steady pace.
  for (const [at, { row }] of bench.rows.entries()) {
    const minutes = packed ? 300 : Math.max(0, (packRows ?? 0) - at) * 4 - 3;
    const then: Context = { ...context, clock: () => context.clock().subtract({ minutes }) };
    const own = ticks.filter(({ component }) =>
      bench.variants.some(({ components }) => components.some((each) => each.key === component && each.row === row)),
    );
    if (own.length > 0) await recordTicks(then, { sessionId, ticks: own });
  }
  for (const { id: enrolmentId, name } of attendance ? (await viewAttendance(context, { sessionId })).people : []) {
    const missed = attendance?.['not collected'].includes(name);
    const states = missed
      ? ['not collected']
      : ['collected', attendance?.cooked.includes(name) ? 'cooked' : 'not cooked'];
    for (const state of states) await recordAttendance(context, { sessionId, id: v7(), enrolmentId, state });
  }
}
