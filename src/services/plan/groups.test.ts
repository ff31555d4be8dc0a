import ical from 'node-ical';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { benchSheet, calledBackNow } from '@/core/packing/progress';
import { find, insert } from '@/store/query';
import type { Store } from '@/store/store';
import { NOW, newProgramme, newSession, testStore } from '../../../tests/programme';
import { recordAttendance } from '../classday/attendance';
import { setLessonNote } from '../classday/follow-later';
import { viewRoom } from '../classday/room';
import { changeJob, viewJobs } from '../countdown/countdown';
import type { Context } from '../gate/gate';
import { exportSheet, lockKitSheet, recordLabel, viewKitSheet } from '../kits/kit-sheet';
import { recordTicks, viewBench } from '../packing/bench';
import { loadLocked } from '../packing/locked';
import { setAway } from '../roll/away';
import { viewRoll } from '../roll/roll';
import { previewRollFile, saveRoll } from '../roll/roll-file';
import { viewCalendar } from './calendar';
import { cancelSession, previewCancel } from './cancel';
import { listChanges, undoChange } from './changes';
import { viewCoursePlan } from './courses';
import { exportCalendar } from './feeds';
import { addGroup, editGroup, endGroup } from './groups';
import { addPlace, removePlace } from './places';
import { repeatCourse } from './season';
import { addDish, addSession, fallBack, moveSession, previewChange, settleConflict } from './sessions';
import { splitSession } from './split';

let store: Store;
let context: Context;
let crew: Context;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());

const PLACE = { seats: '', hours: [], equipment: {}, minutesBefore: 0, minutesAfter: 0, outdoor: null };

/** A course given to a Thursday and a Saturday group: Ada and Bo on Thursday, Cy (who avoids milk) on Saturday. */
async function twoGroups() {
  const own = await newProgramme(store);
  context = own.coordinator;
  crew = own.crew;
  const made = await newSession(context, [{ name: 'Ada' }, { name: 'Bo' }]);
  const { courseId } = made;
  const group = { courseId, name: 'Saturday group', firstName: 'Thursday group', daysAfter: 2, startsAt: '10:00' };
  const { id: groupId } = await addGroup(context, { ...group, place: 'Harbour hall', instructorId: '' });
  const bytes = new TextEncoder().encode('name,servings,avoids,group\nCy,1,milk,saturday GROUP\n');
  const { rows } = await previewRollFile(context, { courseId, bytes });
  await saveRoll(context, { courseId, rows });
  return { ...made, groupId };
}

const plan = async (courseId: string) => (await viewCoursePlan(context, { courseId })).sittings;
const versionOf = async (id: string) => (await find(store.db, store.db.models.session, { id }))[0]?.version ?? 0;

describe('a course given to two groups', () => {
  it('has each of its sessions for both, and those of new sessions where they usually meet', async () => {
    const { courseId } = await twoGroups();
    await addSession(context, {
      courseId,
      title: 'Soup',
      date: '2026-12-03',
      startsAt: '16:00',
      minutes: 60,
      place: 'Boatshed',
      mode: 'in person',
    });
    expect(await plan(courseId)).toMatchObject([
      { groupName: 'Saturday group', date: '2026-11-28', startsAt: '10:00', place: 'Harbour hall', status: 'planned' },
      { groupName: 'Saturday group', date: '2026-12-05' },
    ]);
    const { sessions } = await viewCalendar(context, { from: '2026-11-26' });
    expect(sessions.map(({ title, date }) => `${date} ${title}`)).toEqual([
      '2026-11-26 Breads (Thursday group)',
      '2026-11-28 Breads (Saturday group)',
      '2026-12-03 Soup (Thursday group)',
      '2026-12-05 Soup (Saturday group)',
    ]);
  });

  it('is locked and bought once, and split by group in kits, labels, bench and jobs', async () => {
    const { sessionId } = await twoGroups();
    const { sheet } = await viewKitSheet(context, { sessionId });
    await lockKitSheet(context, { sessionId, basis: sheet.basis });
    const { locked, revision } = await loadLocked(context, sessionId);
    expect(locked.session.groups).toMatchObject([{ name: 'Thursday group' }, { name: 'Saturday group' }]);
    const bench = benchSheet(locked, revision);
    expect(bench.kits.map(({ group }) => group).sort()).toEqual(['Saturday group', 'Thursday group', 'Thursday group']);
    const thursday = bench.kits.filter(({ group }) => group === 'Thursday group');
    const ticks = thursday.flatMap((kit) =>
      kit.components.map((component) => ({ id: context.ids(), kitId: kit.id, component, action: 'packed' as const })),
    );
    await recordTicks(context, { sessionId, ticks });
    const { jobs } = (await viewJobs(context, { sessionId })).thread;
    const states = jobs.filter(({ key }) => key.startsWith('packing')).map(({ title, state }) => [title, state]);
    expect(states).toEqual([
      ['Pack: Thursday group', 'done'],
      ['Pack: Saturday group', expect.not.stringMatching('done')],
    ]);
    expect(jobs.filter(({ key }) => key.startsWith('buying'))).toHaveLength(1);
    const { text } = await exportSheet(context, { sessionId });
    expect(text.split('\r\n')[0]).toMatch(/people,groups$/);
    expect(text).toContain('Thursday group: 2');
  });

  it('tells those in the room of the children who come that day, and of nobody else', async () => {
    const { sessionId } = await twoGroups();
    const on = (day: string) => ({ ...crew, clock: () => crew.clock().add({ hours: 24 * (Number(day) - 20) }) });
    await expect(viewRoom(on('22'), { sessionId })).rejects.toMatchObject({ kind: 'forbidden' });
    expect((await viewRoom(on('25'), { sessionId })).people).toEqual([]);
    expect((await viewRoom(on('29'), { sessionId })).people).toMatchObject([{ name: 'Cy', group: 'Saturday group' }]);
  });

  it('moves a session with all its groups, or one group alone, and takes either back', async () => {
    const { courseId, sessionId, groupId } = await twoGroups();
    const version = await versionOf(sessionId);
    const to = { sessionId, date: '2026-12-01', startsAt: '15:00' };
    expect((await previewChange(context, to)).along).toEqual([{ groupName: 'Saturday group', date: '2026-12-03' }]);
    await moveSession(context, { ...to, version });
    expect(await plan(courseId)).toMatchObject([{ date: '2026-12-03' }]);
    await undoChange(context, { changeId: (await listChanges(context, {}))[0]?.id ?? '' });
    expect(await plan(courseId)).toMatchObject([{ date: '2026-11-28' }]);
    const alone = { sessionId, groupId, date: '2026-11-27', startsAt: '11:00', version: version + 2 };
    await moveSession(context, alone);
    expect(await plan(courseId)).toMatchObject([{ date: '2026-11-27', startsAt: '11:00' }]);
    await expect(moveSession(context, { ...alone, date: '2026-12-02', version: version + 3 })).rejects.toThrow(
      'must still be fresh',
    );
  });

  it('makes no kit for a group whose sitting is cancelled, and calendars hear of it', async () => {
    const { courseId, sessionId, groupId } = await twoGroups();
    const version = await versionOf(sessionId);
    const whole = await previewCancel(context, { sessionId });
    expect(whole).toMatchObject({ people: 3, version, locked: false, along: [{ groupName: expect.any(String) }] });
    expect(whole.jobs).toContain('Shop');
    const one = await previewCancel(context, { sessionId, groupId });
    expect(one).toMatchObject({ people: 1, along: [], dishes: [] });
    expect(one.jobs).not.toContain('Shop');
    expect(one.jobs.length).toBeGreaterThan(0);
    await cancelSession(context, { sessionId, groupId, version, cancelled: true });
    const { sheet } = await viewKitSheet(context, { sessionId });
    expect(sheet.participants.map(({ name }) => name)).toEqual(['Ada', 'Bo']);
    const text = await exportCalendar(context, { scope: 'course', scopeId: courseId, withJobs: false });
    const events = Object.values(ical.sync.parseICS(text)) as unknown as {
      type: string;
      uid: string;
      status: string;
    }[];
    expect(events.filter(({ type }) => type === 'VEVENT').map(({ status }) => status)).toEqual([
      'CONFIRMED',
      'CANCELLED',
    ]);
  });

  it('calls a packed group’s kits back when it does not meet, and lets them go on when that is taken back', async () => {
    const { sessionId, groupId } = await twoGroups();
    const { sheet } = await viewKitSheet(context, { sessionId });
    await lockKitSheet(context, { sessionId, basis: sheet.basis });
    const held = async () => calledBackNow((await viewBench(context, { sessionId })).events).size;
    const version = await versionOf(sessionId);
    await cancelSession(context, { sessionId, groupId, version, cancelled: true });
    expect(await held()).toBe(1);
    await undoChange(context, { changeId: (await listChanges(context, {}))[0]?.id ?? '' });
    expect(await held()).toBe(0);
  });

  it('says what collides for one group, with a way out that moves that group alone', async () => {
    const { courseId, sessionId, groupId } = await twoGroups();
    const placeId = await addPlace(context, { ...PLACE, name: 'Harbour hall', seats: '0' });
    const { conflicts } = await viewCoursePlan(context, { courseId });
    expect(conflicts).toMatchObject([{ sessionId, groupId, conflicts: [{ kind: 'seats' }] }]);
    await expect(removePlace(context, { placeId })).rejects.toThrow('Breads (Saturday group)');
    const loft = await addPlace(context, { ...PLACE, name: 'Loft', seats: '20' });
    const version = await versionOf(sessionId);
    await settleConflict(context, { sessionId, groupId, version, placeId: loft });
    expect((await viewCoursePlan(context, { courseId })).conflicts).toEqual([]);
    expect(await plan(courseId)).toMatchObject([{ place: 'Loft', placeId: loft }]);
  });

  it('is changed and ended group by group: nobody is left behind, and two editors see each other', async () => {
    const { courseId, groupId } = await twoGroups();
    await editGroup(context, { groupId, version: 1, name: 'Weekend', daysAfter: 3, startsAt: '09:00' });
    expect(await plan(courseId)).toMatchObject([{ groupName: 'Weekend', date: '2026-11-29', startsAt: '09:00' }]);
    await expect(editGroup(context, { groupId, version: 1, name: 'X' })).rejects.toMatchObject({
      kind: 'stale',
    });
    await expect(endGroup(context, { groupId, version: 2 })).rejects.toThrow('1 person is still in Weekend');
    const again = { courseId, name: 'weekend', daysAfter: 1, startsAt: '09:00', place: 'X', instructorId: '' };
    await expect(addGroup(context, again)).rejects.toThrow('There is a group called weekend already');
    await expect(addGroup(context, { ...again, name: 'Y', daysAfter: 5 })).rejects.toMatchObject({
      problems: [{ where: 'daysAfter' }],
    });
  });

  it('keeps its groups when it is repeated, with an empty roll', async () => {
    const { courseId } = await twoGroups();
    const { id } = await repeatCourse(context, { courseId, title: 'Again', from: '2027-01-07' });
    expect(await plan(id)).toMatchObject([{ groupName: 'Saturday group', date: '2027-01-09' }]);
    expect((await viewRoll(context, { courseId: id })).people).toEqual([]);
  });
});

describe('a roll of a course with groups', () => {
  it('refuses a group that the course has not, naming those it has; without groups the column is not used', async () => {
    const { courseId } = await twoGroups();
    const bytes = new TextEncoder().encode('name,servings,group\nDee,1,Sunday\n');
    const { rows, groups } = await previewRollFile(context, { courseId, bytes });
    expect(groups).toEqual(['Thursday group', 'Saturday group']);
    await expect(saveRoll(context, { courseId, rows })).rejects.toMatchObject({
      problems: [{ where: 'line 2, group', message: expect.stringContaining('Thursday group, Saturday group') }],
    });
    const plain = await newSession(context, []);
    const preview = await previewRollFile(context, { courseId: plain.courseId, bytes });
    expect(preview.ignored).toEqual(['group']);
    await saveRoll(context, { courseId: plain.courseId, rows: preview.rows });
  });
});

describe('a session that is split', () => {
  it('sends some dishes to a session of its own, and is joined again in one step', async () => {
    const own = await newProgramme(store);
    context = own.coordinator;
    const one = await newSession(context, [{ name: 'Ada' }]);
    const other = await newSession(context, []);
    await addDish(context, { sessionId: one.sessionId, recipeId: other.recipeId });
    const dishes = async (sessionId: string) => find(store.db, store.db.models.dish, { sessionId });
    const [first, second] = await dishes(one.sessionId);
    const version = await versionOf(one.sessionId);
    const to = { title: 'Breads, second part', date: '2026-12-03', startsAt: '16:00', minutes: 60, place: 'Boatshed' };
    const wanted = { sessionId: one.sessionId, version, ...to };
    const all = [first?.id ?? '', second?.id ?? ''];
    await expect(splitSession(context, { ...wanted, dishIds: all })).rejects.toThrow('Every dish would go');
    const made = await splitSession(context, { ...wanted, dishIds: [second?.id] });
    expect(await dishes(made)).toMatchObject([{ id: second?.id }]);
    await undoChange(context, { changeId: (await listChanges(context, {}))[0]?.id ?? '' });
    expect(await dishes(one.sessionId)).toHaveLength(2);
    expect(await versionOf(made)).toBe(0);
  });

  it('comes back with what was read for it, whoever is away; not once work was done on it', async () => {
    context = (await newProgramme(store)).coordinator;
    const one = await newSession(context, [{ name: 'Ada', avoids: 'milk' }]);
    const other = await newSession(context, []);
    const third = await newSession(context, []);
    for (const { recipeId } of [other, third]) await addDish(context, { sessionId: one.sessionId, recipeId });
    const part = async () => {
      const [first] = await find(store.db, store.db.models.dish, { sessionId: one.sessionId });
      const to = { title: 'Second part', date: '2026-12-03', startsAt: '16:00', minutes: 60, place: 'Boatshed' };
      const version = await versionOf(one.sessionId);
      return splitSession(context, { sessionId: one.sessionId, version, ...to, dishIds: [first?.id] });
    };
    const tell = (sessionId: string, words: string, version: number) =>
      setLessonNote(context, { sessionId, version, words });
    const label = (sessionId: string, product: string, allergens: string[]) =>
      recordLabel(context, { sessionId, ingredient: 'ground cumin', product, allergens });
    const join = async () => undoChange(context, { changeId: (await listChanges(context, {}))[0]?.id ?? '' });
    await tell(one.sessionId, 'Soak the peas.', 0);
    const made = await part();
    await tell(made, 'Warm the bowls.', 1);
    await label(made, 'Jar', ['MILK']);
    await label(one.sessionId, 'Bag', ['SESAME']);
    await setAway(context, { sessionId: made, people: [{ enrolmentId: one.people[0], how: 'away' }] });
    await join();
    const [read] = await find(store.db, store.db.models.productLabel, { sessionId: one.sessionId });
    expect([read?.product, read?.allergens]).toEqual(['Bag” or “Jar', ['SESAME', 'MILK']]);
    const [told] = await find(store.db, store.db.models.lessonNote, { sessionId: one.sessionId });
    expect(told?.words).toBe('Soak the peas.\n\nWarm the bowls.');
    const late = await part();
    const note = { id: context.ids(), sessionId: late, enrolmentId: one.people[0], kind: 'late' as const, who: '' };
    const at = { at: new Date(NOW.epochMilliseconds), actorId: context.actor.id };
    await insert(store.db, store.db.models.comingNote, [{ ...note, ...at } as never]);
    await expect(join()).rejects.toThrow('cannot be joined again: it was noted who came late');
    const again = await part();
    const seen = { sessionId: again, id: context.ids(), enrolmentId: one.people[0], state: 'came' };
    await recordAttendance({ ...context, clock: () => NOW.add({ hours: 24 * 13 }) }, seen);
    await expect(join()).rejects.toThrow('cannot be joined again: it was noted who came');
  });
});

describe('jobs of a course', () => {
  it('that two people change at once keep both changes', async () => {
    context = (await newProgramme(store)).coordinator;
    const { sessionId, courseId } = await newSession(context, [{ name: 'Ada' }]);
    const jobs = (await viewJobs(context, { sessionId })).choices.map(({ key }) => key).slice(0, 6);
    await Promise.all(jobs.map((job) => changeJob(context, { sessionId, job, for: 'course', fixed: 33 })));
    const [course] = await find(store.db, store.db.models.course, { id: courseId });
    expect(Object.keys(course?.jobs ?? {}).sort()).toEqual([...jobs].sort());
  });
});

describe('bad weather', () => {
  it('takes an outdoor session to its fallback in one step, and back when the sky clears', async () => {
    const own = await newProgramme(store);
    context = own.coordinator;
    const hall = await addPlace(context, { ...PLACE, name: 'Hall' });
    const outdoor = { fuel: 'wood', waterLitres: 20, lightingMinutes: 60, fallbackPlaceId: hall, decideHours: 24 };
    await addPlace(context, { ...PLACE, name: 'Boatshed', outdoor });
    const { sessionId } = await newSession(context, [{ name: 'Ada' }]);
    const keys = async () => (await viewJobs(context, { sessionId })).thread.jobs.map(({ key }) => key);
    expect(await keys()).toEqual(expect.arrayContaining(['weather', 'fire']));
    await fallBack(context, { sessionId, version: 1 });
    expect(await keys()).not.toContain('fire');
    await expect(fallBack(context, { sessionId, version: 2 })).rejects.toThrow('under a roof already');
    await undoChange(context, { changeId: (await listChanges(context, {}))[0]?.id ?? '' });
    expect(await keys()).toContain('fire');
  });
});
