import { describe, expect, it } from 'vitest';
import type { CrewMember, RosterDuty } from './crew-case';
import { belowAdults, crewStanding, type Promised } from './crew-standing';
import { adultsOf, type DutySession, dutiesOf } from './duties';
import { holding } from './fixed-places';
import { countsAsAdult, standingDuties } from './hand-changes';
import { whyNot } from './may-do';
import { planTime } from './plan-jobs';
import type { RosterCase } from './roster-case';
import { bringTogether } from './together';
import { whyHere } from './why-here';

const session = (change: Partial<DutySession> = {}): DutySession => ({
  date: '2026-11-26',
  startsAt: 960,
  minutes: 90,
  place: 'Boatshed',
  modes: ['in person'],
  ages: [6, 7, 7, 8, 8, 8, 9, 9, 9, 10, 10, 10, 11, 11],
  steps: [{ heat: 'hob', tools: ['knife'], fromAge: 8 }],
  hasRawMeat: false,
  isOutdoor: false,
  jobs: [],
  stops: 0,
  profile: 'us',
  ...change,
});

describe('how a crew stands', () => {
  const duties = dutiesOf(session());
  const rooms = [
    {
      needed: adultsOf(session()),
      keys: new Set(duties.filter((duty) => countsAsAdult(duty, session())).map(({ key }) => key)),
    },
  ];
  const stands = (promised: readonly Promised[]) => crewStanding(duties, promised, rooms);

  it('counts each place once, however many are asked for it, and adults by those who said yes', () => {
    const standing = stands([
      { duty: 'lead', state: 'accepted' },
      { duty: 'heat', state: 'asked' },
      { duty: 'heat', state: 'asked' },
      { duty: 'knives', state: 'planned' },
      { duty: 'set up', state: 'declined' },
      { duty: 'wash up', state: 'accepted' },
    ]);
    expect(standing).toMatchObject({ places: 6, accepted: 2, asked: 1, planned: 1, empty: 2 });
    expect(standing).toMatchObject({ adultsNeeded: 3, adultsSure: 1, adultsPossible: 3 });
  });

  it('is below its adults in the last days where they have not said yes, before that where they cannot come', () => {
    const some = stands([
      { duty: 'lead', state: 'accepted' },
      { duty: 'heat', state: 'asked' },
      { duty: 'knives', state: 'asked' },
    ]);
    expect(belowAdults(some, 10)).toBeUndefined();
    expect(belowAdults(some, 3)).toContain('1 of 3 have said yes');
    expect(belowAdults(stands([{ duty: 'lead', state: 'accepted' }]), 10)).toContain('1 of 3 can come');
  });
});

describe('duties changed by hand', () => {
  const change = (key: string, isLeftOut: boolean, values = {}) => ({ key, isLeftOut, change: values, reason: 'why' });

  it('leave no class with fewer adults than the table asks for', () => {
    const kept = standingDuties(session(), [change('heat', true), change('knives', true)]);
    const adults = kept.filter((duty) => countsAsAdult(duty, session())).reduce((sum, { people }) => sum + people, 0);
    expect(adults).toBe(3);
    expect(kept.find(({ kind }) => kind === 'assistant')).toMatchObject({ people: 2, skills: ['background check'] });
    // Half a class is no class: who goes earlier is missing for the rest.
    const early = standingDuties(session(), [change('heat', false, { to: 1000 })]);
    expect(early.find(({ kind }) => kind === 'assistant')).toMatchObject({ people: 1 });
  });

  it('are the session’s own where they name no planned duty, and only where they say all', () => {
    const own = { title: 'Play', date: '2026-11-26', from: 1000, to: 1020 };
    expect(standingDuties(session(), [change('x', false, own)]).at(-1)).toMatchObject({
      kind: 'other',
      changed: 'why',
    });
    expect(standingDuties(session(), [change('x', false, { title: 'Play' })]).map(({ key }) => key)).not.toContain('x');
  });
});

const duty = (id: string, change: Partial<RosterDuty> = {}): RosterDuty => ({
  id,
  key: id,
  sessionId: 's1',
  kind: 'pack',
  title: 'Pack kits',
  date: '2026-11-25',
  from: 600,
  to: 660,
  place: 'Boatshed',
  people: 2,
  skills: ['food handler'],
  weight: 4,
  isAdult: false,
  because: [],
  ...change,
});
const member = (id: string, from: number, to: number, change: Partial<CrewMember> = {}): CrewMember => ({
  id,
  isAdult: true,
  skills: { 'food handler': null },
  free: { weekly: [{ weekday: 3, from, to }], exceptions: [] },
  ...change,
});

it('a job is done when most of those it needs have time; of such times, nearest to the usual one', () => {
  const may = [540, 600, 660, 720].map((from) => ({ date: '2026-11-25', from }));
  const usual = { date: '2026-11-25', from: 720 };
  const crew = [member('a', 540, 800), member('b', 540, 730), member('c', 600, 700, { skills: {} })];
  // The two who may pack are both there from nine to ten past twelve.
  expect(planTime(duty('pack'), may, usual, crew)).toMatchObject({ from: 660, free: 2 });
  expect(planTime(duty('pack'), may, usual, [])).toMatchObject({ from: 720, free: 0 });
  expect(planTime(duty('pack'), [], usual, crew)).toBeUndefined();
});

it('whoever may not do a duty is told why; whoever may, is not', () => {
  const lead = { date: '2026-11-26', skills: ['background check' as const], isAdult: true };
  expect(whyNot({ isAdult: false, skills: {} }, lead)).toBe('it is for adults');
  expect(whyNot({ isAdult: true, skills: {} }, lead)).toBe('lacks background check');
  expect(whyNot({ isAdult: true, skills: { 'background check': '2026-11-26' } }, lead)).toBeUndefined();
  const sick = { isAdult: true, skills: { 'background check': null }, sickUntil: '2026-11-26' };
  expect(whyNot(sick, lead)).toBe('sick until Thu 26 Nov');
  expect(whyNot(sick, { ...lead, date: '2026-11-27' })).toBeUndefined();
});

describe('a roster that stands in part', () => {
  const given: RosterCase = {
    duties: [
      { id: 'x', day: 1, from: 600, to: 660, skills: ['lead'] },
      { id: 'y', day: 1, from: 630, to: 700 },
      { id: 'z', day: 2, from: 600, to: 660 },
    ],
    people: [
      { id: 'a', skills: { lead: 9 }, free: [[2, 600, 700]], most_duties: 1 },
      { id: 'b', free: [[1, 600, 700]] },
    ],
  };
  const at = (dutyId: string, person: string) => ({ duty: dutyId, person });

  it('takes a person’s word over their times and limits, never over a skill or two duties at once', () => {
    const held = holding(given, [at('x', 'a'), at('z', 'a'), at('y', 'a'), at('x', 'b')]);
    expect(held.given.fixed).toEqual([at('x', 'a'), at('z', 'a')]);
    expect(held.letGo).toEqual([at('y', 'a'), at('x', 'b')]);
    expect(held.given.people?.[0]).toMatchObject({
      most_duties: 2,
      free: [
        [2, 600, 700],
        [1, 600, 660],
        [2, 600, 660],
      ],
    });
    expect(whyHere(held.given, at('x', 'a'), () => '')).toBe('Holds lead. Free 10:00 to 11:00. Nobody else could.');
  });

  it('brings together who wants to be, where no figure gets worse', () => {
    const free = [
      [1, 600, 700],
      [2, 600, 700],
    ] as const;
    const two: RosterCase = {
      duties: [
        { id: 'm1', day: 1, from: 600, to: 660, people: 2 },
        { id: 'm2', day: 2, from: 600, to: 660, people: 1 },
      ],
      people: ['a', 'b', 'c'].map((id) => ({ id, free })),
    };
    const places = [at('m1', 'a'), at('m1', 'b'), at('m2', 'c')];
    const wish = [{ person: 'c', with: 'a' }];
    const sessionOf = (id: string) => id.slice(1);
    const after = bringTogether(two, places, wish, sessionOf);
    expect(after.filter(({ duty: own }) => own === 'm1').map(({ person }) => person)).toEqual(
      expect.arrayContaining(['a', 'c']),
    );
    const costs = {
      ...two,
      people: two.people?.map((each) => (each.id === 'b' ? { ...each, wishes: [{ duty: 'm2', cost: 1 }] } : each)),
    };
    expect(bringTogether(costs, places, wish, sessionOf)).toEqual(places);
  });
});
