import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find, findOne } from '@/store/query';
import type { Store } from '@/store/store';
import { cells, newProgramme, select, testStore } from '../../../tests/programme';
import { recordAttendance } from '../classday/attendance';
import { viewCountdown } from '../countdown/countdown';
import type { Context, Role } from '../gate/gate';
import { lockKitSheet, viewKitSheet } from '../kits/kit-sheet';
import { recordTicks, viewBench } from '../packing/bench';
import { addCourse } from '../plan/courses';
import { addDish, addSession, loadBundle } from '../plan/sessions';
import { addPerson } from '../roll/roll';
import { leaveOutStep, settleCountry, stillToSetUp, takeSampleAway, trySample, viewFirstRun } from './first-run';

let store: Store;
let own: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

const stateOf = async (step: string) =>
  (await viewFirstRun(own.coordinator, {})).steps.find((each) => each.step === step);

/** Every course, session, dish, person, household, recipe and place of a programme, by its id. */
async function idsOfCourses(programmeId: string): Promise<string[]> {
  const ofCourse = 'IN (SELECT id FROM course WHERE programme_id = :programmeId)';
  const rows = await select<{ id: string }>(
    store.db,
    `SELECT id FROM course WHERE programme_id = :programmeId UNION SELECT id FROM recipe WHERE programme_id = :programmeId
     UNION SELECT id FROM household WHERE programme_id = :programmeId UNION SELECT id FROM place WHERE programme_id = :programmeId
     UNION SELECT id FROM session WHERE course_id ${ofCourse} UNION SELECT id FROM enrolment WHERE course_id ${ofCourse}
     UNION SELECT d.id FROM dish d JOIN session s ON s.id = d.session_id WHERE s.course_id ${ofCourse}`,
    { programmeId },
  );
  return rows.map(({ id }) => id);
}

/** Tables of which a row names one of these ids, in any column; logs tell what was done, and stay. */
async function tablesNaming(ids: readonly string[]): Promise<string[]> {
  const columns = await select<{ name: string; columns: string }>(
    store.db,
    `SELECT table_name AS name, GROUP_CONCAT(column_name) AS columns FROM information_schema.columns
      WHERE table_schema = DATABASE() AND character_maximum_length >= 36 AND table_name NOT IN ('change_log', 'need_look', 'attempt', 'migration')
        AND data_type IN ('char', 'varchar') GROUP BY table_name`,
    {},
  );
  const found = await Promise.all(
    columns.map(async (table) => {
      const where = table.columns.split(',').map((column) => `${column} IN (:ids)`);
      const rows = await select(store.db, `SELECT 1 AS one FROM ${table.name} WHERE ${where.join(' OR ')} LIMIT 1`, {
        ids,
      });
      return rows.length > 0 ? [table.name] : [];
    }),
  );
  return found.flat().sort();
}

describe('setting a programme up', () => {
  it('says what is missing, in any order, and what a country proposes', async () => {
    own = await newProgramme(store);
    expect(await stillToSetUp(own.coordinator, {})).toHaveLength(8);
    const { steps, proposal } = await viewFirstRun(own.coordinator, { country: 'IE' });
    expect(steps.filter(({ state }) => state === 'open')).toHaveLength(8);
    expect(steps.filter(({ waitsFor }) => waitsFor).map(({ step }) => step)).toEqual(['sessions', 'roll', 'kits']);
    expect(proposal).toMatchObject({ currency: 'EUR', measureSystem: 'metric', timeZones: ['Europe/Dublin'] });
    const values = { version: 1, country: 'IE', timeZone: 'Europe/Dublin', currency: 'eur', measureSystem: 'metric' };
    const wrong = settleCountry(own.coordinator, { ...values, currency: 'money' });
    await expect(wrong).rejects.toMatchObject({ problems: [{ where: 'currency' }] });
    await expect(settleCountry(own.coordinator, { ...values, country: 'QQ' })).rejects.toMatchObject({
      problems: [{ where: 'country' }],
    });
    expect(await settleCountry(own.coordinator, { ...values, holidays: 'on' })).toBeGreaterThan(20);
    expect([(await stateOf('country'))?.state, (await stateOf('closures'))?.state]).toEqual(['done', 'done']);
    const { programmeId } = own.coordinator.actor;
    expect(await findOne(store.db, store.db.models.programme, { id: programmeId })).toMatchObject({
      currency: 'EUR',
      safetyProfile: 'uk',
      manner: { clock: 24 },
    });
    await leaveOutStep(own.coordinator, { step: 'place', leftOut: true });
    expect((await stateOf('place'))?.state).toBe('left out');
    await addCourse(own.coordinator, { title: 'Breads' });
    expect(await stateOf('sessions')).toEqual({ step: 'sessions', state: 'open', waitsFor: '' });
  });

  it('has a sample that is worked with like anything else, and goes whole: nothing but logs is left of it in any table', async () => {
    own = await newProgramme(store);
    const context = own.coordinator;
    await trySample(context, {});
    await expect(trySample(context, {})).rejects.toMatchObject({ kind: 'stale' });
    const { threads } = await viewCountdown(context, {});
    const sessionId = threads[0]?.id ?? '';
    const { sheet } = await viewKitSheet(context, { sessionId });
    await lockKitSheet(context, { sessionId, basis: sheet.basis });
    const [kit] = (await viewBench(own.crew, { sessionId })).sheet.kits;
    const tick = { id: v7(), kitId: kit?.id, component: kit?.components[0], action: 'packed' };
    await recordTicks(own.crew, { sessionId, ticks: [tick] });
    const [person] = await find(store.db, store.db.models.enrolment, { name: 'Anouk Fennimore' });
    const onTheDay = { ...own.crew, clock: () => Temporal.Instant.from('2026-11-26T17:00:00Z') };
    await recordAttendance(onTheDay, { sessionId, id: v7(), enrolmentId: person?.id, state: 'came' });
    const ids = await idsOfCourses(context.actor.programmeId);
    expect(ids.length).toBeGreaterThan(20);
    const found = await tablesNaming(ids);
    for (const table of ['pack_event', 'kit_sheet', 'attendance', 'dish', 'enrolment']) expect(found).toContain(table);
    await takeSampleAway(context, {});
    expect(await tablesNaming(ids)).toEqual([]);
    expect(await idsOfCourses(context.actor.programmeId)).toEqual([]);
    await expect(takeSampleAway(context, {})).rejects.toMatchObject({ kind: 'stale' });
  });

  it('leaves what somebody uses elsewhere by then: a session of theirs in its kitchen, its dish, a child of its family', async () => {
    own = await newProgramme(store);
    const context = own.coordinator;
    const sampleId = await trySample(context, {});
    const { db } = store;
    const [recipe] = await find(db, db.models.recipe, { programmeId: context.actor.programmeId });
    const courseId = await addCourse(context, { title: 'Our own' });
    const when = { date: '2026-12-10', startsAt: '10:00', minutes: 60, place: 'Sample kitchen', mode: 'in person' };
    const sessionId = await addSession(context, { courseId, title: 'Ours', ...when });
    await addDish(context, { sessionId, recipeId: recipe?.id });
    const [child] = await find(db, db.models.enrolment, { courseId: sampleId });
    const home = await findOne(db, db.models.household, { id: child?.householdId });
    await addPerson(context, { courseId, cells: cells({ name: 'A sister', household: home?.name }) });
    expect(await takeSampleAway(context, {})).toBe(3);
    const bundle = await loadBundle(context, sessionId, db);
    expect([bundle.session.placeId, bundle.dishes.length, bundle.enrolments.length]).toEqual([
      expect.any(String),
      1,
      1,
    ]);
    expect(await findOne(db, db.models.course, { id: sampleId })).toBeUndefined();
    expect(await find(db, db.models.recipe, { programmeId: context.actor.programmeId })).toHaveLength(1);
  });
});
