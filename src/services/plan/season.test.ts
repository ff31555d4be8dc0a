import { v7 } from 'uuid';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import { newProgramme, newSession, testStore } from '../../../tests/programme';
import type { Context } from '../gate/gate';
import { viewCalendar } from './calendar';
import { cancelSession } from './cancel';
import { listChanges, undoChange } from './changes';
import {
  addClosure,
  bringPublicHolidays,
  listClosures,
  previewCalendarFile,
  removeCalendar,
  removeClosure,
  saveCalendar,
} from './closures';
import { addCourse, editCourse, viewCourse, viewCoursePlan } from './courses';
import { addPlace, editPlace, listPlaces, removePlace, setTravel } from './places';
import { findWeekPlace, laySeason, previewSeason, repeatCourse } from './season';
import { addSession, checkSession, moveSession, previewChange, settleConflict } from './sessions';

let store: Store;
let context: Context;
beforeAll(async () => {
  store = await testStore();
});
afterAll(() => store.close());
beforeEach(async () => {
  context = (await newProgramme(store)).coordinator;
});

const KITCHEN = {
  name: 'Boatshed kitchen',
  seats: '14',
  hours: [{ weekdays: [1, 2, 3, 4, 5], from: '09:00', to: '19:00' }],
  equipment: { burners: '4' },
  minutesBefore: 15,
  minutesAfter: 15,
  outdoor: null,
};
const HALL = { ...KITCHEN, name: 'Harbour hall', seats: '40' };
const season = (courseId: string, change: object = {}) => ({
  courseId,
  cadence: { rule: 'FREQ=WEEKLY;BYDAY=TH', slots: [{ startsAt: '16:00', minutes: 90 }] },
  from: '2026-12-03',
  to: '',
  days: 4,
  onClosure: 'move',
  titles: ['Breads'],
  place: 'Boatshed kitchen',
  modes: ['in person'],
  instructorId: '',
  ...change,
});
const SESSION = {
  title: 'Jams',
  date: '2026-12-10',
  startsAt: '16:30',
  minutes: 60,
  place: 'Boatshed kitchen',
  mode: 'in person',
};
const dates = async (courseId: string) =>
  (await viewCourse(context, { courseId })).sessions
    .filter(({ status }) => status === 'planned')
    .map(({ date }) => date);

describe('a season', () => {
  it('is laid around closures, all or nothing, with titles in order', async () => {
    const courseId = await addCourse(context, { title: 'Winter pots', audience: '' });
    await addClosure(context, { title: 'Floor repair', from: '2026-12-10', to: '2026-12-10' });
    const draft = await previewSeason(context, season(courseId));
    expect(draft.lost).toMatchObject([{ date: '2026-12-10', became: 'moved', to: '2026-12-31' }]);
    expect(await dates(courseId)).toEqual([]);
    expect(await laySeason(context, season(courseId, { version: 1 }))).toEqual({ saved: 4 });
    const { sessions, course } = await viewCourse(context, { courseId });
    expect(sessions.map(({ title, date, number }) => `${number} ${title} ${date}`)).toEqual([
      '1 Breads 2026-12-03',
      '2 Winter pots 2 2026-12-17',
      '3 Winter pots 3 2026-12-24',
      '4 Winter pots 4 2026-12-31',
    ]);
    expect(sessions[3]?.because).toContain('Instead of Thu 10 Dec (Own closures: Floor repair)');
    expect(course).toMatchObject({ seasonFrom: '2026-12-03', version: 2 });
  });

  it('laid down twice, or by two people at once, is there once', async () => {
    const courseId = await addCourse(context, { title: 'Winter pots', audience: '' });
    const both = await Promise.allSettled([1, 2].map(() => laySeason(context, season(courseId, { version: 1 }))));
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    await expect(laySeason(context, season(courseId, { version: 2 }))).rejects.toThrow('is there already');
    expect(await dates(courseId)).toHaveLength(4);
    expect(await laySeason(context, season(courseId, { version: 2, days: 6 }))).toEqual({ saved: 2 });
  });

  it.each([
    [{ to: '2026-12-01', days: '' }, 'ends before it starts'],
    [
      { to: '2099-01-01', days: '', cadence: { rule: 'FREQ=DAILY', slots: [{ startsAt: '16:00', minutes: 90 }] } },
      'more than 400 sessions',
    ],
    [{ days: '' }, 'has no end'],
    [{ cadence: { rule: null, dates: [], slots: [{ startsAt: '16:00', minutes: 90 }] } }, 'No such day lies between'],
    [{ cadence: { rule: 'FREQ=NEVER', slots: [{ startsAt: '16:00', minutes: 90 }] } }, 'not a recurrence rule'],
    [{ from: '2027-02-29' }, 'no such day'],
    [{ modes: ['flying'] }, 'Choose one of'],
  ])('that cannot be is refused, and nothing is laid down: %j', async (change, words) => {
    const courseId = await addCourse(context, { title: 'Winter pots', audience: '' });
    const refusal = laySeason(context, season(courseId, { version: 1, ...change }));
    await expect(refusal).rejects.toMatchObject({
      kind: 'invalid',
      problems: [{ message: expect.stringContaining(words) }],
    });
    expect(await dates(courseId)).toEqual([]);
  });

  it('is repeated in another season: same titles, dishes and cadence, around its own closures', async () => {
    const { courseId } = await newSession(context, [{ name: 'Ada' }]);
    await laySeason(context, season(courseId, { version: 1 }));
    await addClosure(context, { title: 'Inventory', from: '2027-01-14', to: '2027-01-14' });
    const { id } = await repeatCourse(context, { courseId, title: 'Spring pots', from: '2027-01-07' });
    expect(await dates(id)).toEqual(['2027-01-07', '2027-01-21', '2027-01-28', '2027-02-04', '2027-02-11']);
    const sessions = await find(store.db, store.db.models.session, { courseId: id });
    const dishes = await find(store.db, store.db.models.dish, { sessionId: sessions.map((session) => session.id) });
    expect(dishes).toHaveLength(1);
    expect(await store.db.models.enrolment.count({ where: { courseId: id } })).toBe(0);
  });

  it('finds its place in the week where room and instructor are free', async () => {
    await addPlace(context, KITCHEN);
    await addPlace(context, HALL);
    const busy = await addCourse(context, { title: 'Jams', audience: '' });
    await laySeason(context, season(busy, { version: 1, days: 8 }));
    const courseId = await addCourse(context, { title: 'Soups', audience: '' });
    const wish = {
      courseId,
      from: '2026-12-01',
      to: '2027-01-22',
      minutes: 90,
      weekdays: [3, 4],
      earliest: '15:00',
      latest: '17:45',
      people: 12,
    };
    const [first, second] = await findWeekPlace(context, wish);
    expect(first).toMatchObject({ weekday: 3, placeName: 'Boatshed kitchen', taken: [] });
    expect(second?.why).not.toBe('');
    await expect(findWeekPlace(context, { ...wish, latest: '16:00' })).rejects.toMatchObject({
      problems: [{ where: 'latest', message: 'The class does not fit between these hours.' }],
    });
  });
});

describe('two sessions in one room', () => {
  async function clash() {
    await addPlace(context, KITCHEN);
    await addPlace(context, HALL);
    const pots = await addCourse(context, { title: 'Winter pots', audience: '' });
    await laySeason(context, season(pots, { version: 1 }));
    const jams = await addCourse(context, { title: 'Jams', audience: '' });
    const sessionId = await addSession(context, { courseId: jams, ...SESSION });
    return { pots, jams, sessionId };
  }

  it('are told on both courses and in the calendar, with ways out that work', async () => {
    const { jams, pots, sessionId } = await clash();
    const { conflicts } = await viewCoursePlan(context, { courseId: jams });
    expect(conflicts).toMatchObject([{ sessionId, conflicts: [{ kind: 'room' }] }]);
    expect((await viewCoursePlan(context, { courseId: pots })).conflicts).toHaveLength(1);
    const { sessions } = await viewCalendar(context, { from: '2026-12-07' });
    expect(sessions.filter((session) => session.conflicts.length > 0)).toHaveLength(2);
    const fix = conflicts[0]?.fixes.find(({ change }) => change.placeId);
    expect(fix?.say).toBe('Take Harbour hall');
    await settleConflict(context, { sessionId, version: 1, ...fix?.change });
    expect((await viewCoursePlan(context, { courseId: jams })).conflicts).toEqual([]);
    const [{ place, sequence } = {}] = (await viewCourse(context, { courseId: jams })).sessions;
    expect({ place, sequence }).toEqual({ place: 'Harbour hall', sequence: 1 });
  });

  it('are told before a move is confirmed, with everything that moves along; undo brings all back', async () => {
    const { jams, sessionId } = await clash();
    const before = await find(store.db, store.db.models.session, { id: sessionId });
    const preview = await previewChange(context, { sessionId, date: '2026-12-17', startsAt: '16:30' });
    expect(preview.conflicts).toMatchObject([{ kind: 'room' }]);
    expect(preview.jobs.map(({ title }) => title)).toEqual(expect.arrayContaining(['Shop', 'Pack', 'Close out']));
    const free = await previewChange(context, { sessionId, date: '2026-12-15', startsAt: '16:30' });
    expect(free.conflicts).toEqual([]);
    await moveSession(context, { sessionId, version: 1, date: '2026-12-15', startsAt: '16:30' });
    expect(await dates(jams)).toEqual(['2026-12-15']);
    const [change] = await listChanges(context, {});
    expect(change?.said).toBe('Moved Jams from Thu 10 Dec, 16:30 to Tue 15 Dec, 16:30');
    await undoChange(context, { changeId: change?.id ?? '' });
    const [after] = await find(store.db, store.db.models.session, { id: sessionId });
    expect(after).toEqual({ ...before[0], version: 3, sequence: 2 });
    await expect(undoChange(context, { changeId: change?.id ?? '' })).rejects.toThrow('taken back already');
  });

  it('moved by two people at once moves once; what was changed since is not undone', async () => {
    const { sessionId } = await clash();
    const moves = await Promise.allSettled(
      ['2026-12-14', '2026-12-15'].map((date) =>
        moveSession(context, { sessionId, version: 1, date, startsAt: '10:00' }),
      ),
    );
    expect(moves.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    const [change] = await listChanges(context, {});
    await cancelSession(context, { sessionId, version: 2, cancelled: true });
    await expect(undoChange(context, { changeId: change?.id ?? '' })).rejects.toThrow('was changed again since');
  });

  it('end when one is cancelled', async () => {
    const { jams, sessionId, pots } = await clash();
    await cancelSession(context, { sessionId, version: 1, cancelled: true });
    expect((await viewCoursePlan(context, { courseId: pots })).conflicts).toEqual([]);
    expect(await dates(jams)).toEqual([]);
    await cancelSession(context, { sessionId, version: 2, cancelled: false });
    expect(await dates(jams)).toHaveLength(1);
  });
});

describe('a session that is being written', () => {
  it('is told what stands against it before it is saved, and never that it stands against itself', async () => {
    await addPlace(context, KITCHEN);
    const pots = await addCourse(context, { title: 'Winter pots', audience: '' });
    await laySeason(context, season(pots, { version: 1 }));
    const jams = await addCourse(context, { title: 'Jams', audience: '' });
    const asked = { courseId: jams, ...SESSION, instructorId: '' };
    const found = await checkSession(context, asked);
    expect(found.conflicts).toEqual(['Boatshed kitchen is taken by Winter pots 2, 15:45 to 17:45.']);
    expect(found.fixes).toContain('Start at 14:30');
    expect((await checkSession(context, { ...asked, startsAt: '14:30' })).conflicts).toEqual([]);
    const [own] = (await viewCourse(context, { courseId: pots })).sessions;
    const same = {
      courseId: pots,
      sessionId: own?.id,
      date: own?.date,
      startsAt: own?.startsAt,
      minutes: 90,
      place: own?.place,
      mode: 'in person',
    };
    expect((await checkSession(context, { ...same, instructorId: '' })).conflicts).toEqual([]);
  });

  it('outside the hours, on a closed day or with too many people says each of it', async () => {
    await addPlace(context, { ...KITCHEN, seats: '1' });
    await addClosure(context, { title: 'Regatta', from: '2026-12-11', to: '2026-12-11' });
    const { courseId } = await newSession(context, [{ name: 'Ada' }, { name: 'Bo' }]);
    const { course } = await viewCourse(context, { courseId });
    await editCourse(context, {
      courseId,
      version: course.version,
      title: course.title,
      capacity: 1,
      budgetCents: '',
      instructorId: '',
      rollClosesDays: 5,
      uses: { burners: 6 },
    });
    const asked = { courseId, ...SESSION, date: '2026-12-11', startsAt: '18:30', instructorId: '' };
    expect((await checkSession(context, asked)).conflicts).toEqual([
      'Boatshed kitchen is open 09:00 to 19:00 on Fridays; this needs 18:15 to 19:45, with setting up and clearing.',
      '2 come to Boatshed kitchen, which has 1 seat.',
      '6 burners are needed, and Boatshed kitchen has 4.',
      'Fri 11 Dec is closed: Own closures: Regatta.',
      '2 are on the roll, and the course has room for 1.',
    ]);
  });
});

describe('a roll that closes after shopping must start', () => {
  it('is a conflict until the course closes it earlier', async () => {
    const { courseId, sessionId } = await newSession(context, [{ name: 'Ada' }]);
    const { course } = await viewCourse(context, { courseId });
    const values = {
      courseId,
      version: course.version,
      title: course.title,
      capacity: '',
      budgetCents: '',
      instructorId: '',
      uses: {},
    };
    await editCourse(context, { ...values, rollClosesDays: 0 });
    const [found] = (await viewCoursePlan(context, { courseId })).conflicts;
    expect(found?.conflicts).toMatchObject([{ kind: 'roll' }]);
    await settleConflict(context, { sessionId, version: 1, ...found?.fixes[0]?.change });
    expect((await viewCoursePlan(context, { courseId })).conflicts).toEqual([]);
  });
});

describe('a place', () => {
  it('takes in the sessions that name it, hands its new name on, and is not taken away while used', async () => {
    const courseId = await addCourse(context, { title: 'Jams', audience: '' });
    await addSession(context, { courseId, ...SESSION });
    const placeId = await addPlace(context, KITCHEN);
    expect((await listPlaces(context, {})).places[0]?.sessions).toBe(1);
    await editPlace(context, { placeId, version: 1, ...KITCHEN, name: 'New kitchen' });
    expect((await viewCourse(context, { courseId })).sessions[0]?.place).toBe('New kitchen');
    await expect(removePlace(context, { placeId })).rejects.toThrow(
      'is used by one session to come, the first is Jams on 2026-12-10',
    );
    const [session] = (await viewCourse(context, { courseId })).sessions;
    await cancelSession(context, { sessionId: session?.id ?? '', version: 1, cancelled: true });
    await removePlace(context, { placeId });
    expect((await listPlaces(context, {})).places).toEqual([]);
    // Taken back after the place is gone, the session is where it was by name.
    await undoChange(context, { changeId: (await listChanges(context, {}))[0]?.id ?? '' });
    expect((await viewCourse(context, { courseId })).sessions).toMatchObject([
      { place: 'New kitchen', placeId: null, status: 'planned' },
    ]);
  });

  it('that got another name keeps it when a change made before is taken back', async () => {
    const courseId = await addCourse(context, { title: 'Pickles', audience: '' });
    const placeId = await addPlace(context, { ...KITCHEN, name: 'Loft' });
    const sessionId = await addSession(context, { courseId, ...SESSION, place: 'Loft' });
    await cancelSession(context, { sessionId, version: 1, cancelled: true });
    await editPlace(context, { placeId, version: 1, ...KITCHEN, name: 'Sail loft' });
    await undoChange(context, { changeId: (await listChanges(context, {}))[0]?.id ?? '' });
    expect((await viewCourse(context, { courseId })).sessions).toMatchObject([
      { place: 'Sail loft', placeId, status: 'planned' },
    ]);
  });

  it('has one name, a way between two, and a roof to fall back on', async () => {
    const kitchen = await addPlace(context, KITCHEN);
    await expect(addPlace(context, { ...KITCHEN, name: 'BOATSHED KITCHEN' })).rejects.toThrow('already');
    const outdoor = {
      fuel: 'ash logs',
      waterLitres: 40,
      lightingMinutes: 60,
      fallbackPlaceId: kitchen,
      decideHours: 24,
    };
    const pit = await addPlace(context, { ...KITCHEN, name: 'Fire pit', outdoor });
    await expect(
      addPlace(context, { ...KITCHEN, name: 'Pit two', outdoor: { ...outdoor, fallbackPlaceId: pit } }),
    ).rejects.toThrow('outdoors too');
    await expect(removePlace(context, { placeId: kitchen })).rejects.toThrow('falls back on');
    await setTravel(context, { fromId: kitchen, toId: pit, minutes: 10 });
    await setTravel(context, { fromId: pit, toId: kitchen, minutes: 12 });
    expect((await listPlaces(context, {})).travel).toMatchObject([{ minutes: 12 }]);
    await expect(setTravel(context, { fromId: pit, toId: pit, minutes: 1 })).rejects.toThrow('two different places');
  });

  it('closes after it opens', async () => {
    const hours = [{ weekdays: [1], from: '18:00', to: '09:00' }];
    await expect(addPlace(context, { ...KITCHEN, hours })).rejects.toMatchObject({
      problems: [{ where: 'hours[0].to' }],
    });
  });
});

describe('closures', () => {
  it('come from public holidays, files and by hand; the same calendar again replaces itself', async () => {
    const holidays = await bringPublicHolidays(context, { country: 'GB', region: 'SCT' });
    expect(holidays.closures).toBeGreaterThan(20);
    await expect(bringPublicHolidays(context, { country: 'GB', region: 'ATLANTIS' })).rejects.toThrow(
      'no holidays on record',
    );
    const bytes = new TextEncoder().encode(
      'BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Half term\r\nDTSTART;VALUE=DATE:20270215\r\nDTEND;VALUE=DATE:20270220\r\nEND:VEVENT\r\nEND:VCALENDAR',
    );
    const { closures } = await previewCalendarFile(context, { bytes });
    await saveCalendar(context, { name: 'School', placeId: '', closures });
    // The same name is not replaced unasked, and the same closures not doubled under another.
    for (const name of ['School', 'School again'])
      await expect(saveCalendar(context, { name, placeId: '', closures })).rejects.toMatchObject({
        problems: [{ where: 'name' }],
      });
    await saveCalendar(context, { name: 'School', placeId: '', closures, replaces: true });
    await expect(previewCalendarFile(context, { bytes: new Uint8Array() })).rejects.toThrow('empty');
    const { calendars } = await listClosures(context, {});
    const school = calendars.find(({ name }) => name === 'School');
    expect(school?.closures).toMatchObject([{ title: 'Half term', fromDate: '2027-02-15', toDate: '2027-02-19' }]);
    await removeClosure(context, { closureId: school?.closures[0]?.id ?? '' });
    await removeCalendar(context, { calendarId: school?.id ?? '' });
    expect((await listClosures(context, {})).calendars.map(({ kind }) => kind)).toEqual(['public']);
  });

  it('that end before they begin, or close a place of others, are refused', async () => {
    await expect(addClosure(context, { title: 'Odd', from: '2026-12-02', to: '2026-12-01' })).rejects.toMatchObject({
      problems: [{ where: 'to' }],
    });
    await expect(
      addClosure(context, { title: 'X', from: '2026-12-02', to: '2026-12-02', placeId: v7() }),
    ).rejects.toMatchObject({ kind: 'not-found' });
  });
});
