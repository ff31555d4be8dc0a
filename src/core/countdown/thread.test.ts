import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import { doNext, type SessionFacts, sayLeft, threadOf } from './thread';

const facts = (change: Partial<SessionFacts> = {}): SessionFacts => ({
  date: '2026-11-26',
  startsAt: '16:00',
  timeZone: 'America/New_York',
  mode: 'take-home',
  dishes: 1,
  participants: 14,
  unknownWishes: 0,
  revision: 0,
  differs: false,
  refusedKits: 0,
  shoppingDone: false,
  ticks: 0,
  ticksNeeded: 40,
  kitsDone: 0,
  kits: 14,
  ...change,
});
const at = (text: string) => Temporal.Instant.from(text);
const EARLY = at('2026-11-01T12:00:00Z');
const knot = (stage: string, change: Partial<SessionFacts> = {}, now = EARLY) =>
  threadOf(facts(change), now).find((candidate) => candidate.stage === stage);

describe('a session’s thread', () => {
  it('ties ten knots, counted back from the class', () => {
    const thread = threadOf(facts(), EARLY);
    expect(thread.map(({ title }) => title)).toEqual([
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
    expect(knot('kits')?.latest).toBe('2026-11-22T21:00:00Z');
    expect(knot('packing')?.latest).toBe('2026-11-26T01:00:00Z');
    expect(knot('classday')?.latest).toBe('2026-11-26T21:00:00Z');
    expect(knot('closeout')?.latest).toBe('2026-11-27T21:00:00Z');
  });

  it('keeps the hour of the day across a clock change', () => {
    // Clocks go back on 1 November 2026 in New York: four days before the class it is still 16:00 there.
    expect(knot('kits', { date: '2026-11-03' }, at('2026-10-01T00:00:00Z'))?.latest).toBe('2026-10-30T20:00:00Z');
    expect(knot('kits', { date: '2026-11-08' }, at('2026-10-01T00:00:00Z'))?.latest).toBe('2026-11-04T21:00:00Z');
  });

  it.each([
    ['recipes', { dishes: 0 }, 'can start'],
    ['recipes', { dishes: 2 }, 'done'],
    ['roll', { participants: 0 }, 'can start'],
    ['roll', { unknownWishes: 1 }, 'doing'],
    ['roll', {}, 'done'],
    ['kits', { dishes: 0 }, 'due later'],
    ['kits', {}, 'can start'],
    ['kits', { refusedKits: 2 }, 'doing'],
    ['kits', { revision: 1 }, 'done'],
    ['kits', { revision: 1, differs: true }, 'doing'],
    ['buying', {}, 'due later'],
    ['buying', { revision: 1 }, 'can start'],
    ['buying', { revision: 1, shoppingDone: true }, 'done'],
    ['packing', {}, 'due later'],
    ['packing', { revision: 1 }, 'can start'],
    ['packing', { revision: 1, ticks: 3 }, 'doing'],
    ['packing', { revision: 1, ticks: 40, kitsDone: 14 }, 'done'],
    ['handout', { mode: 'in person' }, 'not needed'],
    ['handout', {}, 'due later'],
  ] as const)('%s with %j is %s', (stage, change, state) => {
    expect(knot(stage, change as Partial<SessionFacts>)?.state).toBe(state);
  });

  it('calls late what is open past its latest time, never what is done or not offered', () => {
    const now = at('2026-11-26T10:00:00Z');
    expect(knot('kits', {}, now)?.state).toBe('late');
    expect(knot('roll', {}, now)?.state).toBe('done');
    expect(knot('crew', {}, now)).toMatchObject({ state: 'due later', offered: false });
  });
});

describe('do next', () => {
  it('puts what is late first, then by the latest time, and leaves far things alone', () => {
    const now = at('2026-11-23T12:00:00Z');
    const threads = [
      { session: 'pasta', knots: threadOf(facts({ revision: 1 }), now) },
      { session: 'soup', knots: threadOf(facts({ date: '2026-11-25' }), now) },
      { session: 'far', knots: threadOf(facts({ date: '2026-12-24' }), now) },
    ];
    expect(doNext(threads, now).map(({ session, knot: { stage, state } }) => `${session} ${stage} ${state}`)).toEqual([
      'soup kits late',
      'pasta buying can start',
      'pasta packing can start',
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
