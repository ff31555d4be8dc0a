import fc from 'fast-check';
import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import { dayOf } from '../plan/civil';
import type { SessionFacts } from '../stages/facts';
import { jobChoices } from './jobs';
import { workHours } from './network';
import { doNext, saversOf, sayLeft, threadOf } from './thread';

const WEEK = [1, 2, 3, 4, 5, 6] as const;
const facts = (change: Partial<SessionFacts> = {}): SessionFacts => ({
  date: '2026-11-26',
  startsAt: '16:00',
  minutes: 60,
  timeZone: 'America/New_York',
  modes: ['take-home'],
  dishes: 1,
  participants: 14,
  unknownNeeds: 0,
  rollClosesDays: 5,
  cookBy: null,
  course: {},
  session: {},
  oneOffs: [],
  outdoor: null,
  shop: workHours('the shop', [{ weekdays: WEEK, from: '08:00', to: '20:00' }]),
  crew: workHours('the crew', [{ weekdays: WEEK, from: '09:00', to: '20:00' }]),
  marked: new Set(),
  revision: 0,
  differs: false,
  refusedKits: 0,
  ticks: 0,
  ticksNeeded: 40,
  kitsDone: 0,
  kits: 14,
  ...change,
});
const at = (text: string) => Temporal.Instant.from(text);
const EARLY = at('2026-11-10T12:00:00Z');
const knot = (stage: string, change: Partial<SessionFacts> = {}, now = EARLY) =>
  threadOf(facts(change), now).knots.find((candidate) => candidate.stage === stage);
const job = (key: string, change: Partial<SessionFacts> = {}, now = EARLY) =>
  threadOf(facts(change), now).jobs.find((candidate) => candidate.key === key);

describe('a session’s thread', () => {
  it('ties its knots counted back from the hand-out: 62 minutes of packing, a trip to the shop, the lock', () => {
    const { knots } = threadOf(facts(), EARLY);
    expect(knots.map(({ title }) => title)).toEqual([
      'Plan',
      'Dishes',
      'Roll',
      'Kits',
      'Buy',
      'Crew',
      'Pack',
      'Hand out',
      'Class',
      'Close out',
    ]);
    expect(knot('handout')?.latest).toBe('2026-11-26T22:00:00Z');
    expect(knot('packing')).toMatchObject({ latest: '2026-11-26T21:00:00Z', startBy: '2026-11-26T19:58:00Z' });
    expect(job('receive')).toMatchObject({ latest: '2026-11-26T19:58:00Z', startBy: '2026-11-26T19:38:00Z' });
    // The shop opens at 8:00: 74 minutes there, and home at 14:38.
    expect(job('buying')).toMatchObject({
      latest: '2026-11-26T19:38:00Z',
      startBy: '2026-11-26T18:24:00Z',
      minutes: 74,
    });
    expect(knot('roll')?.latest).toBe('2026-11-21T21:00:00Z');
    expect(knot('classday')?.state).toBe('not needed');
  });

  it('keeps the hour of the day across a clock change', () => {
    // Clocks go back on 1 November 2026 in New York: five days before the class it is still 16:00 there.
    expect(knot('roll', { date: '2026-11-03' }, at('2026-10-01T00:00:00Z'))?.latest).toBe('2026-10-29T20:00:00Z');
    expect(knot('roll', { date: '2026-11-08' }, at('2026-10-01T00:00:00Z'))?.latest).toBe('2026-11-03T21:00:00Z');
  });

  it.each([
    ['recipes', { dishes: 0 }, 'can start'],
    ['recipes', { dishes: 2 }, 'done'],
    ['roll', { participants: 0 }, 'can start'],
    ['roll', { unknownNeeds: 1 }, 'doing'],
    ['roll', {}, 'done'],
    ['kits', { dishes: 0 }, 'due later'],
    ['kits', {}, 'can start'],
    ['kits', { refusedKits: 2 }, 'doing'],
    ['kits', { revision: 1 }, 'done'],
    ['kits', { revision: 1, differs: true }, 'doing'],
    ['buying', {}, 'due later'],
    ['buying', { marked: new Set(['buying']) }, 'doing'],
    ['buying', { marked: new Set(['buying', 'receive']) }, 'done'],
    ['packing', {}, 'due later'],
    ['packing', { revision: 1, ticks: 3 }, 'doing'],
    ['packing', { revision: 1, ticks: 40, kitsDone: 14 }, 'done'],
    ['handout', { modes: ['in person'] }, 'not needed'],
    ['handout', {}, 'due later'],
    ['crew', {}, 'can start'],
    ['crew', { participants: 8 }, 'not needed'],
  ] as const)('%s with %j is %s', (stage, change, state) => {
    expect(knot(stage, change as Partial<SessionFacts>)?.state).toBe(state);
  });

  it('waits with shopping until fresh food keeps, and with packing until cold food does', () => {
    const locked = { revision: 1, marked: new Set(['crew']) };
    expect(knot('buying', locked, at('2026-11-20T12:00:00Z'))?.state).toBe('due later');
    expect(knot('buying', locked, at('2026-11-23T12:00:00Z'))?.state).toBe('can start');
    const bought = { revision: 1, marked: new Set(['buying', 'receive']) };
    expect(knot('packing', bought, at('2026-11-25T20:00:00Z'))?.state).toBe('due later');
    expect(job('packing', bought)?.why).toContain(
      'not before Wed 25 Nov, 16:00: cold food is packed at most 24 hours ahead',
    );
    expect(knot('packing', bought, at('2026-11-25T22:00:00Z'))?.state).toBe('can start');
  });

  it('calls late what can no longer be done before what waits for it, never what is done', () => {
    const now = at('2026-11-26T19:00:00Z');
    expect(knot('kits', {}, now)?.state).toBe('late');
    expect(knot('roll', {}, now)?.state).toBe('done');
  });

  it('takes longer with more kits, at once', () => {
    expect(job('packing', { kits: 60 })?.startBy).toBe('2026-11-26T17:40:00Z');
  });
});

describe('kits that stand packed', () => {
  const packed = { revision: 1, kits: 14, kitsDone: 14, ticks: 40, modes: ['in person' as const] };

  it('raise no alarm for what nobody ticked before them', () => {
    const late = at('2026-11-26T12:00:00Z');
    expect(threadOf(facts({ revision: 1, startsAt: '10:00', modes: ['in person'] }), late).tooLate).toBeDefined();
    const { jobs, tooLate } = threadOf(facts({ ...packed, startsAt: '10:00' }), late);
    expect(tooLate).toBeUndefined();
    const open = jobs.filter(({ state }) => state === 'late').map(({ key }) => key);
    expect(open).toEqual([]);
    expect(jobs.find(({ key }) => key === 'buying')?.state).toBe('done');
  });
});

describe('the class itself', () => {
  const marked = new Set(['plan', 'recipes', 'roll', 'kits', 'buying', 'receive', 'crew', 'packing', 'set-up']);
  const teach = (time: string) =>
    threadOf(facts({ modes: ['in person'], marked, revision: 1, startsAt: '10:00', minutes: 90 }), at(time));

  it('goes by the clock: under way from its time, over at its end, never late for want of a tick', () => {
    const state = (time: string) => {
      const { jobs, tooLate } = teach(time);
      return [jobs.find(({ key }) => key === 'classday')?.state, tooLate];
    };
    const [before] = state('2026-11-26T14:59:00Z');
    expect(before).toBe('due later');
    expect(state('2026-11-26T15:30:00Z')).toEqual(['doing', undefined]);
    expect(state('2026-11-26T16:30:00Z')).toEqual(['done', undefined]);
  });
});

describe('the jobs of a mode', () => {
  const on = (change: Partial<SessionFacts>) =>
    jobChoices(facts(change))
      .filter(({ on }) => on)
      .map(({ template }) => template.key);
  it('are few for a small class, and more when somebody asks', () => {
    expect(on({ modes: ['in person'], participants: 8 })).toEqual([
      'recipes',
      'roll',
      'kits',
      'buying',
      'packing',
      'classday',
      'closeout',
    ]);
    expect(on({ modes: ['in person'], participants: 8, session: { thaw: { on: true } } })).toContain('thaw');
    expect(on({ modes: ['in person'], course: { crew: { on: false } } })).not.toContain('crew');
  });

  it('of a mixed session hold the hand-outs of each', () => {
    const keys = on({ modes: ['in person', 'live online', 'follow-later'] });
    expect(keys).toEqual(expect.arrayContaining(['deliver', 'send-later', 'classday', 'set-up']));
    expect(keys).not.toContain('handout');
  });

  it('serve the day that families cook, when the kit follows the lesson', () => {
    const later: Partial<SessionFacts> = { modes: ['follow-later'], cookBy: '2026-12-01' };
    expect(job('send-later', later)?.latest).toBe('2026-11-30T23:00:00Z');
    expect(job('closeout', later)?.latest).toBe('2026-12-03T23:00:00Z');
    // Kits for an online class are in the homes two hours before it.
    expect(job('deliver', { modes: ['live online'] })?.latest).toBe('2026-11-26T19:00:00Z');
  });

  it('under open sky begin with the weather, and end with a fire that is watched', () => {
    const outdoor = { lightingMinutes: 45, decideHours: 20 };
    const open: Partial<SessionFacts> = { modes: ['in person'], participants: 8, outdoor };
    expect(on(open)).toEqual(expect.arrayContaining(['weather', 'carry-in', 'fire']));
    expect(job('weather', open)?.latest).toBe('2026-11-26T01:00:00Z');
    expect(job('fire', open)).toMatchObject({ startBy: '2026-11-26T20:15:00Z', latest: '2026-11-26T21:00:00Z' });
    expect(on({ ...open, outdoor: null })).not.toContain('fire');
  });

  it('take in a job that only this session has', () => {
    const oneOffs = [
      {
        id: 'van',
        title: 'Fetch the van',
        stage: 'packing' as const,
        minutes: 60,
        hours: 'crew' as const,
        before: 'packing',
      },
    ];
    expect(job('van', { oneOffs })).toMatchObject({
      latest: '2026-11-26T19:58:00Z',
      oneOff: true,
      why: 'Before pack.',
    });
  });
});

describe('a session that can no longer be ready', () => {
  const late = { revision: 1, marked: new Set(['crew']), session: { thaw: { on: true } } };
  const now = at('2026-11-25T20:00:00Z');

  it('says why, and what would save it: each was tried', () => {
    const { tooLate } = threadOf(facts(late), now);
    expect(tooLate).toMatch(
      /^Shop takes 74 minutes and can start Wed 25 Nov, 15:00 at the earliest, but had to start by .* too late\.$/,
    );
    expect(saversOf(facts(late), now)).toEqual([
      'Leave out “Thaw in the fridge”: buy it ready for use',
      'Move it to Fri 27 Nov, 16:00, 1 day later',
    ]);
  });

  it('is saved by hands where packing is what takes too long, or by other hours', () => {
    const big = { revision: 1, marked: new Set(['crew', 'buying', 'receive']), kits: 100 };
    const savers = saversOf(facts(big), at('2026-11-26T17:00:00Z'));
    expect(savers[0]).toBe('Twice as many hands at packing: 2 hours instead of 5 hours');
    const night = saversOf(facts({ ...big, startsAt: '09:00' }), at('2026-11-26T04:00:00Z'));
    expect(night).toContain('Let the crew work outside its usual hours');
  });

  it('is saved by two things together where neither is enough', () => {
    const both = { ...late, startsAt: '10:30' };
    expect(saversOf(facts(both), at('2026-11-26T02:00:00Z'))).toEqual([
      'Leave out “Thaw in the fridge”: buy it ready for use, and twice as many hands at packing: 31 minutes instead of 62 minutes',
      'Leave out “Thaw in the fridge”: buy it ready for use, and shop where it is open outside the usual hours',
      'Move it to Sat 28 Nov, 10:30, 2 days later',
    ]);
  });

  it('is never saved by a day on which nothing takes place', () => {
    const late = at('2026-11-24T12:00:00Z');
    const moved = saversOf(facts(), late).find((say) => say.startsWith('Move it to')) ?? '';
    const [, day = ''] = /Move it to \w+ (\d+) Nov/.exec(moved) ?? [];
    const closed = new Set([dayOf(`2026-11-${day.padStart(2, '0')}`)]);
    const crew = { ...facts().crew, closedDays: closed };
    const other = saversOf(facts({ crew }), late).find((say) => say.startsWith('Move it to')) ?? '';
    expect(moved).not.toBe('');
    expect(other).not.toBe(moved);
  });

  it('is not invented: what can be done needs no saving', () => {
    expect(saversOf(facts(), EARLY)).toEqual([]);
    expect(threadOf(facts(), EARLY).tooLate).toBeUndefined();
  });
});

describe('do next', () => {
  it('puts first what must be started first, and leaves far things alone', () => {
    const now = at('2026-11-23T15:00:00Z');
    const small = { participants: 8, kits: 8 };
    const threads = [
      { session: 'pasta', knots: threadOf(facts({ ...small, revision: 1 }), now).knots },
      { session: 'soup', knots: threadOf(facts({ ...small, date: '2026-11-24', startsAt: '12:00' }), now).knots },
      { session: 'far', knots: threadOf(facts({ ...small, date: '2026-12-24' }), now).knots },
    ];
    expect(doNext(threads, now).map(({ session, knot: { stage, state } }) => `${session} ${stage} ${state}`)).toEqual([
      'soup kits can start',
      'pasta buying can start',
    ]);
  });

  it('says how long is left as people do', () => {
    const now = at('2026-11-23T12:00:00Z');
    expect(sayLeft('2026-11-26T12:00:00Z', now)).toBe('in 3 days');
    expect(sayLeft('2026-11-23T17:30:00Z', now)).toBe('in 5 hours');
    expect(sayLeft('2026-11-23T12:01:00Z', now)).toBe('in 1 minute');
    expect(sayLeft('2026-11-21T11:00:00Z', now)).toBe('2 days late');
  });
});

describe('a session given to two groups', () => {
  const groups = [
    {
      groupId: 'wed',
      groupName: 'Wednesday group',
      date: '2026-11-28',
      startsAt: '10:00',
      kits: 6,
      outdoor: null,
    },
  ];
  const given: Partial<SessionFacts> = { groups, groupName: 'Thursday group', kits: 20, participants: 20 };

  it('is shopped for once, before the first of them, and fresh for the last', () => {
    const jobs = threadOf(facts(given), EARLY).jobs;
    expect(jobs.filter(({ stage, key }) => stage === 'buying' && key === 'buying')).toHaveLength(1);
    // Five days before Saturday's group, and in time for Thursday's.
    expect(job('buying', given)?.why).toMatch(/not before Mon 23 Nov, 10:00/);
  });

  it('is packed and handed out for each, by its own kits, counted back from when it meets', () => {
    expect(job('packing', given)).toMatchObject({ title: 'Pack: Thursday group', minutes: 20 + 3 * 14 });
    expect(job('packing@wed', given)).toMatchObject({ title: 'Pack: Wednesday group', minutes: 20 + 3 * 6 });
    expect(job('handout@wed', given)?.startBy).toBe('2026-11-28T15:00:00Z');
    expect(job('packing@wed', given)?.why).toMatch(/^The session starts; not before Fri 27 Nov, 10:00: cold food/);
  });

  it('has one group packed while the other is still open, and is closed out after the last', () => {
    const one = { ...given, packedGroups: [''], revision: 1, ticks: 10, kitsDone: 14 };
    expect(job('packing', one)?.state).toBe('done');
    expect(job('packing@wed', one)?.state).toBe('doing');
    expect(Date.parse(job('closeout', given)?.latest ?? '')).toBeGreaterThan(Date.parse('2026-11-29T00:00:00Z'));
  });

  it('says when what is bought once cannot be fresh for both', () => {
    const far = groups.map((group) => ({ ...group, date: '2026-12-03' }));
    expect(threadOf(facts({ ...given, groups: far }), EARLY).tooLate).toMatch(/fresh food keeps about 5 days/);
  });

  it('is, whenever its groups meet, packed for each before it meets and never too early, and bought once', () => {
    const group = fc.record({
      groupId: fc.constantFrom('a', 'b', 'c'),
      days: fc.integer({ min: 0, max: 4 }),
      hour: fc.integer({ min: 9, max: 19 }),
      kits: fc.integer({ min: 1, max: 30 }),
    });
    fc.assert(
      fc.property(fc.uniqueArray(group, { selector: ({ groupId }) => groupId, maxLength: 3 }), (drawn) => {
        const met = drawn.map(({ groupId, days, hour, kits }) => ({
          groupId,
          groupName: groupId,
          date: `2026-11-${24 + days}`,
          startsAt: `${String(hour).padStart(2, '0')}:00`,
          kits,
          outdoor: null,
        }));
        const total = met.reduce((sum, { kits }) => sum + kits, 14);
        const base = { date: '2026-11-24', startsAt: '16:00', kits: total, participants: total, groups: met };
        const { jobs } = threadOf(facts({ ...base, groupName: 'first' }), EARLY);
        expect(jobs.filter(({ key }) => key === 'buying')).toHaveLength(1);
        for (const { groupId, date, startsAt, kits } of [{ groupId: '', ...base, kits: 14 }, ...met]) {
          const packing = jobs.find(({ key }) => key === (groupId ? `packing@${groupId}` : 'packing'));
          // New York, winter: five hours behind.
          const start = Date.parse(`${date}T${startsAt}:00Z`) + 5 * 3_600_000;
          expect(packing?.minutes).toBe(20 + 3 * kits);
          expect(Date.parse(packing?.latest ?? '')).toBeLessThanOrEqual(start);
          expect(Date.parse(packing?.earliest ?? '')).toBeGreaterThanOrEqual(start - 24 * 3_600_000);
        }
      }),
      { numRuns: 60 },
    );
  });
});
