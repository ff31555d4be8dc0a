import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '@/store/store';
import { cells, newProgramme, newSession, testStore } from '../../../tests/programme';
import * as buying from '../buying/shopping';
import * as compute from '../compute/kits';
import * as countdown from '../countdown/countdown';
import * as kits from '../kits/kit-sheet';
import * as bench from '../packing/bench';
import * as labels from '../packing/labels';
import * as courses from '../plan/courses';
import * as sessions from '../plan/sessions';
import * as programme from '../programme/programme';
import * as recipes from '../recipes/recipes';
import * as roll from '../roll/roll';
import { type Context, ROLES, type Role, SERVICES } from './gate';

const MODULES = [buying, compute, countdown, kits, bench, labels, courses, sessions, programme, recipes, roll];

let store: Store;
let own: Record<Role, Context>;
let foreign: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
  own = await newProgramme(store);
  foreign = await newProgramme(store);
});
afterAll(() => store.close());

/** What crew may do, and nothing else: coordinators may do everything. */
const FOR_CREW = [
  'Calculate kits from a recipe, without saving',
  'See the pack bench of a session',
  'See what was ticked since',
  'See which sessions can be packed',
  'Tick components at the bench, or take ticks back',
];

describe('the one gate', () => {
  it('knows every service, each under a title of its own', () => {
    const exported = MODULES.flatMap((module) => Object.values(module)).filter(
      (value) => typeof value === 'function' && 'roles' in value,
    );
    expect(new Set(SERVICES)).toEqual(new Set(exported));
    expect(new Set(SERVICES.map(({ title }) => title)).size).toBe(SERVICES.length);
  });

  it('lets coordinators do everything, and crew what the bench needs', () => {
    const allowed = (role: Role) =>
      SERVICES.filter(({ roles }) => roles.includes(role))
        .map(({ title }) => title)
        .sort();
    expect(allowed('coordinator')).toEqual(SERVICES.map(({ title }) => title).sort());
    expect(allowed('crew')).toEqual(FOR_CREW);
  });

  it('refuses a role it does not name before it looks at anything', async () => {
    for (const each of SERVICES) {
      for (const role of ROLES.filter((candidate) => !each.roles.includes(candidate))) {
        const context = {
          ...own[role],
          store: new Proxy({} as Store, { get: () => expect.fail(`${each.title} looked before it asked`) }),
        };
        await expect(each(context, {}), `${role}: ${each.title}`).rejects.toMatchObject({ kind: 'forbidden' });
      }
    }
  });

  it('names the place of every input it cannot use', async () => {
    await expect(
      sessions.addSession(own.coordinator, {
        courseId: 'x',
        title: '',
        date: '2026-02-29',
        startsAt: '25:00',
        minutes: 'ten',
        place: 'Boatshed',
        mode: 'flying',
      }),
    ).rejects.toMatchObject({
      kind: 'invalid',
      problems: [
        { where: 'courseId' },
        { where: 'title' },
        { where: 'date', message: 'There is no such day in the calendar.' },
        { where: 'startsAt' },
        { where: 'minutes' },
        { where: 'mode' },
      ],
    });
    await expect(bench.recordTicks(own.crew, { sessionId: v7(), ticks: [{ id: 'one' }] })).rejects.toMatchObject({
      problems: [{ where: 'ticks[0].id' }, {}, {}, {}],
    });
  });
});

describe('another programme', () => {
  it('is as if it were not there, for every service that names a course, session, recipe or person', async () => {
    const { courseId, sessionId, recipeId, people, basis } = await newSession(own.coordinator, [{ name: 'Ada' }]);
    const [enrolmentId] = people;
    await kits.lockKitSheet(own.coordinator, { sessionId, basis: await basis() });
    const { sheet } = await bench.viewBench(own.crew, { sessionId });
    const [kit] = sheet.kits;
    const plan = { title: 'X', date: '2026-12-01', startsAt: '10:00', minutes: 60, place: 'X', mode: 'in person' };
    const row = [{ line: 2, cells: cells({ name: 'X' }) }];
    const tick = { id: v7(), kitId: kit?.id, component: kit?.components[0], action: 'packed' };
    const inputs: Record<string, object> = {
      'See a session’s shopping list': { sessionId },
      'Mark the shopping done, or not done': { sessionId, done: true },
      'See a session’s kit sheet': { sessionId },
      'Lock a kit sheet, or accept its differences': { sessionId, basis: '0'.repeat(64) },
      'Leave a kit out of a session, with a reason': { sessionId, enrolmentId, reason: 'because' },
      'Put a kit that was left out back in': { sessionId, enrolmentId },
      'Record the label of the product used': { sessionId, ingredient: 'egg', product: 'X', allergens: [] },
      'Take back a recorded label': { sessionId, ingredient: 'egg' },
      'See how a number came about': { sessionId, of: 'draft', variant: 'A', row: 0 },
      'Take out a kit sheet as CSV': { sessionId },
      'See the pack bench of a session': { sessionId },
      'See what was ticked since': { sessionId, since: 0 },
      'Tick components at the bench, or take ticks back': { sessionId, ticks: [tick] },
      'Print the labels of a session': { sessionId, paper: 'a4' },
      'See a course with its sessions': { courseId },
      'Add a session': { courseId, ...plan },
      'Change a session’s date, place or mode': { sessionId, version: 1, ...plan },
      'Choose a dish for a session': { sessionId, recipeId },
      'Take a dish off a session': { sessionId, dishId: v7() },
      'See a recipe': { recipeId },
      'Take out a recipe as JSON-LD': { recipeId },
      'See a course’s roll': { courseId },
      'Read a roll file before saving it': { courseId, bytes: new Uint8Array([65]) },
      'Bring a roll in from a file': { courseId, rows: row },
      'Add a person to a roll': { courseId, cells: cells({ name: 'X' }) },
      'Change a person on a roll': { enrolmentId, version: 1, cells: cells({ name: 'X' }) },
      'Withdraw a person, or enrol them again': { enrolmentId, version: 1, status: 'withdrawn' },
    };
    const named = new Set(Object.keys(inputs));
    const unnamed = SERVICES.filter(({ title }) => !named.has(title))
      .map(({ title }) => title)
      .sort();
    expect(unnamed).toEqual([
      'Add a course',
      'Calculate kits from a recipe, without saving',
      'Change the programme’s settings',
      'Read a recipe file before saving it',
      'Save a recipe',
      'Say what a family’s words mean',
      'See all courses',
      'See all recipes',
      'See the countdown',
      'See what families’ words mean',
      'See which sessions can be packed',
      'Take back a meaning',
    ]);
    const before = await store.db.models.change.count();
    for (const each of SERVICES.filter(({ title }) => named.has(title))) {
      await expect(each(foreign.coordinator, inputs[each.title]), each.title).rejects.toMatchObject({
        kind: 'not-found',
      });
    }
    expect(await store.db.models.change.count()).toBe(before);
    expect(await courses.listCourses(foreign.coordinator, {})).toEqual([]);
    expect(await bench.listBenches(foreign.crew, {})).toEqual([]);
    expect((await countdown.viewCountdown(foreign.coordinator, {})).threads).toEqual([]);
  });
});
