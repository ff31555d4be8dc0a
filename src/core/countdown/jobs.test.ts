import { describe, expect, it } from 'vitest';
import { MODES } from '../plan/mode';
import { waitingIn } from '../reference/waiting';
import type { JobSession } from '../stages/facts';
import { JOBS, STAGE_KEYS } from '../stages/stages';
import { jobChoices, jobsOf, minutesOfJob } from './jobs';
import { calculate, inOrder } from './network';
import { programmeHours, USUAL_HOURS } from './work-hours';

const HOURS = programmeHours({}, []);
const session = (change: Partial<JobSession> = {}): JobSession => ({
  date: '2026-11-26',
  startsAt: '16:00',
  minutes: 90,
  modes: ['in person'],
  participants: 14,
  kits: 14,
  dishes: 2,
  rollClosesDays: 5,
  cookBy: null,
  course: {},
  session: {},
  oneOffs: [],
  outdoor: null,
  ...change,
});
const template = (key: string) => JOBS.find((job) => job.key === key) as (typeof JOBS)[number];
const of = (change: Partial<JobSession>, key: string) =>
  jobsOf(session(change), HOURS, new Set()).find((job) => job.key === key);

describe('the usual jobs', () => {
  it('have a key each, a stage there is, and wait only for jobs there are, never in a circle', () => {
    const keys = JOBS.map(({ key }) => key);
    expect(new Set(keys).size).toBe(keys.length);
    for (const job of JOBS) {
      expect(STAGE_KEYS).toContain(job.stage);
      expect(keys).toEqual(expect.arrayContaining([...job.after]));
    }
    const all = session({
      modes: MODES,
      outdoor: { lightingMinutes: 60, decideHours: 24 },
      course: { ripen: { on: true }, thaw: { on: true }, 'cook-ahead': { on: true }, stand: { on: true } },
      swapIns: 1,
    });
    expect(inOrder(jobsOf(all, HOURS, new Set()))).toHaveLength(JOBS.length);
  });

  it('come with the food that asks for them: fruit is looked at, pastry thaws for as long as it takes', () => {
    const waiting = waitingIn(['avocado', 'puff pastry', 'frozen peas', 'carrot']);
    expect(of({ waiting }, 'ripen')).toMatchObject({ title: expect.stringContaining('avocado'), minutes: 10 });
    expect(of({ waiting }, 'thaw')).toMatchObject({ title: 'Thaw puff pastry in the fridge', minutes: 8 * 60 });
    expect(of({ waiting }, 'packing')?.after).toEqual(expect.arrayContaining(['ripen', 'thaw']));
    expect(of({ waiting, session: { thaw: { on: false } } }, 'thaw')).toBeUndefined();
    expect(of({ waiting: waitingIn(['frozen peas']) }, 'thaw')).toBeUndefined();
  });

  it('come with the steps that ask for them: hands for a while, then it stands by itself, before anything is packed', () => {
    const ahead = { title: 'Soak: Stew', hands: 5, alone: 720, most: null };
    expect(of({ ahead }, 'cook-ahead')).toMatchObject({ title: 'Soak: Stew', minutes: 5 });
    expect(of({ ahead }, 'stand')).toMatchObject({ title: 'It stands: Soak: Stew', minutes: 720, hours: null });
    const { timings } = calculate(jobsOf(session({ ahead }), HOURS, new Set()), 0);
    const [soak, pack] = [timings.get('cook-ahead'), timings.get('packing')];
    expect((pack?.latestStart ?? 0) - (soak?.latestFinish ?? 0)).toBeGreaterThanOrEqual(720);
    expect(of({ ahead: { ...ahead, alone: 0 } }, 'stand')).toBeUndefined();
    expect(of({}, 'cook-ahead')).toBeUndefined();
  });

  it.each([
    ['in person', ['set-up', 'classday'], ['handout', 'deliver', 'send-later']],
    ['take-home', ['handout'], ['classday', 'set-up', 'deliver']],
    ['live online', ['deliver', 'classday'], ['handout', 'set-up']],
    ['follow-later', ['classday', 'send-later'], ['handout', 'deliver', 'set-up']],
    ['demonstration', ['set-up', 'classday', 'buying'], ['packing', 'handout', 'deliver']],
  ] as const)('of a session %s hold %j, not %j', (mode, held, left) => {
    const keys = jobsOf(session({ modes: [mode] }), HOURS, new Set()).map(({ key }) => key);
    expect(keys).toEqual(expect.arrayContaining([...held]));
    for (const key of left) expect(keys).not.toContain(key);
  });

  it.each([
    ['recipes', 60],
    ['buying', 74],
    ['packing', 62],
    ['kits', 15],
  ])('%s takes %i minutes for two dishes and fourteen kits', (key, minutes) => {
    expect(minutesOfJob(template(key), session())).toBe(minutes);
  });

  it('take what the course says, and what the session says before that', () => {
    const course = { packing: { perKit: 5 } };
    expect(of({ course }, 'packing')?.minutes).toBe(90);
    expect(of({ course, session: { packing: { fixed: 0, perKit: 1 } } }, 'packing')?.minutes).toBe(14);
    expect(of({ course: { crew: { on: false } } }, 'crew')).toBeUndefined();
    expect(of({ course: { crew: { on: false } }, session: { crew: { on: true } } }, 'crew')).toBeDefined();
  });

  it('of ten people are few, of eleven all', () => {
    const shown = (participants: number) => jobChoices(session({ participants })).filter(({ on }) => on).length;
    expect([shown(10), shown(11)]).toEqual([7, 11]);
  });
});

describe('limits of time', () => {
  it.each([
    ['in person', 'packing', '2026-11-25 16:00', '2026-11-26 16:00'],
    ['live online', 'packing', '2026-11-24 16:00', '2026-11-26 16:00'],
    ['take-home', 'cook-ahead', '2026-11-24 16:00', undefined],
    ['in person', 'buying', '2026-11-21 16:00', '2026-11-26 16:00'],
    ['live online', 'deliver', undefined, '2026-11-26 14:00'],
    ['in person', 'roll', undefined, '2026-11-21 16:00'],
  ] as const)('%s: %s not before %s, over by %s', (mode, key, notBefore, finishBy) => {
    const job = of({ modes: [mode], course: { 'cook-ahead': { on: true } } }, key);
    const say = (at: number | undefined) =>
      at === undefined ? undefined : new Date(at * 60_000).toISOString().slice(0, 16).replace('T', ' ');
    expect([say(job?.notBefore?.at), say(job?.finishBy?.at)]).toEqual([notBefore, finishBy]);
    for (const limit of [job?.notBefore, job?.finishBy]) if (limit) expect(limit.why).not.toBe('');
  });

  it('of kits that follow the lesson go by the day that families cook', () => {
    const later: Partial<JobSession> = { modes: ['follow-later'], cookBy: '2026-12-05' };
    expect(of(later, 'send-later')?.finishBy?.why).toBe('families cook the day after they get it');
    const { timings } = calculate(jobsOf(session(later), HOURS, new Set()), 0);
    // Lesson first, then the kits: they may be packed after it.
    expect(timings.get('packing')?.latestStart).toBeGreaterThan(
      timings.get('classday')?.latestStart ?? Number.POSITIVE_INFINITY,
    );
  });
});

describe('working hours', () => {
  it('are the usual ones where nothing is said, and none where all is empty', () => {
    expect(HOURS.shop.longest).toBe(12 * 60);
    expect(HOURS.crew.windows[6]).toEqual([]);
    expect(USUAL_HOURS.shop[1]).toMatchObject({ weekdays: [7] });
    expect(programmeHours({ crew: [] }, []).crew.longest).toBe(24 * 60);
  });

  it('rest on closed days, a long closure included, and an endless one is cut', () => {
    expect(programmeHours({}, [{ from: '2026-12-24', to: '2027-01-02' }]).crew.closedDays.size).toBe(10);
    expect(programmeHours({}, [{ from: '2026-01-01', to: '9999-12-31' }]).crew.closedDays.size).toBe(733);
  });
});
