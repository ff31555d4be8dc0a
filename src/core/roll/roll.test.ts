import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { shareKits } from '../kits/sheet/shared-kits';
import { attendanceNow, questionsOf } from './attendance';
import { balance, forecast, USUAL_COSTS } from './forecast';
import { modePlaces, offerDraft, type Place, placesOf } from './waitlist';

const place = (id: string, status: Place['status'], more: Partial<Place> = {}): Place => ({
  id,
  householdId: id,
  status,
  groupId: null,
  since: '2026-11-01',
  mode: null,
  ...more,
});

describe('the waitlist', () => {
  const people = [
    place('in', 'enrolled', { householdId: 'finch' }),
    place('late', 'waitlisted', { since: '2026-11-09' }),
    place('sister', 'waitlisted', { householdId: 'finch', since: '2026-11-20' }),
    place('early', 'waitlisted', { since: '2026-11-02' }),
    place('asks', 'applied'),
    place('gone', 'withdrawn'),
  ];

  it.each([
    ['first come', ['early', 'late', 'sister']],
    ['siblings first', ['sister', 'early', 'late']],
    ['new families first', ['early', 'late', 'sister']],
  ] as const)('goes by the course’s rule: %s', (rule, waiting) => {
    expect(placesOf(people, 2, rule)).toEqual([{ groupId: null, free: 1, over: 0, waiting, next: waiting[0] }]);
  });

  it('counts each group by itself, and says how many are too many', () => {
    const two = [...people, place('b', 'enrolled', { groupId: 'b' }), place('c', 'enrolled', { groupId: 'b' })];
    expect(
      placesOf(two, 1, 'first come', ['b']).map(({ free, over, waiting }) => [free, over, waiting.length]),
    ).toEqual([
      [0, 0, 3],
      [0, 1, 0],
    ]);
    expect(placesOf(two, null, 'first come')[0]).toMatchObject({ free: null, over: 0 });
  });

  it('gives a place to nobody whose mode is full', () => {
    const some = [
      place('in', 'enrolled', { mode: 'take-home' }),
      place('first', 'waitlisted', { mode: 'take-home', since: '2026-11-02' }),
      place('second', 'waitlisted', { mode: 'in person', since: '2026-11-09' }),
    ];
    const room = { 'take-home': 1, 'in person': 4 };
    expect(placesOf(some, 9, 'first come', [], room)[0]).toMatchObject({
      waiting: ['second', 'first'],
      next: 'second',
    });
    expect(modePlaces(some, room)).toEqual([
      { mode: 'take-home', enrolled: 1, room: 1 },
      { mode: 'in person', enrolled: 0, room: 4 },
    ]);
    expect(placesOf(some, 9, 'first come', [], { 'take-home': 1, 'in person': 0 })[0]?.next).toBeUndefined();
  });

  it('drafts the message that offers the place', () => {
    const { subject, body } = offerDraft('Bo Finch', 'Supper Bags', 'Marit');
    expect(subject).toBe('A place in Supper Bags for Bo Finch');
    expect(body).toMatch(/within three days/);
  });
});

describe('siblings in one kit', () => {
  const child = (name: string, more: object = {}) => ({
    id: name,
    name,
    servings: 1,
    needs: [],
    householdId: 'finch',
    sharesKit: true,
    ...more,
  });
  const egg = { asWritten: 'egg', codes: ['EGG'] };

  it('have all their servings in it, and nothing that any of them avoids', () => {
    const kits = shareKits([
      child('Ada Finch'),
      child('Cleo Marrow', { householdId: 'm' }),
      child('Bo Finch', { needs: [egg] }),
    ]);
    expect(kits).toEqual([
      { id: 'Ada Finch', name: 'Ada and Bo Finch', servings: 2, needs: [egg] },
      { id: 'Cleo Marrow', name: 'Cleo Marrow', servings: 1, needs: [] },
    ]);
  });

  it('keep their own where one of them does not share, or comes with another group', () => {
    expect(shareKits([child('Ada Finch'), child('Bo Finch', { sharesKit: false })])).toHaveLength(2);
    expect(shareKits([child('Ada Finch', { group: 'Mon' }), child('Bo Finch', { group: 'Tue' })])).toHaveLength(2);
  });

  it('of a household of fifteen are one kit for fifteen', () => {
    const [only, ...others] = shareKits(Array.from({ length: 15 }, (_, at) => child(`Child${at} Finch`)));
    expect(others).toEqual([]);
    expect(only?.servings).toBe(15);
  });
});

describe('attendance', () => {
  it('asks what the mode makes sense of', () => {
    expect(questionsOf('in person')).toEqual([['came', 'absent']]);
    expect(questionsOf('take-home').flat()).toContain('cooked');
    expect(questionsOf('live online')).toHaveLength(3);
  });

  it('takes the newest answer to each question', () => {
    const mark = (state: never) => ({ enrolmentId: 'ada', state });
    const now = attendanceNow(['absent', 'came', 'collected'].map((state) => mark(state as never)));
    expect([...(now.get('ada') ?? [])]).toEqual(['came', 'collected']);
  });
});

describe('a forecast', () => {
  it('with no history believes that about 85 of 100 come, and says how unsure that is', () => {
    const { expected, low, high, counted } = forecast(20, []);
    expect(expected).toBeCloseTo(17, 6);
    expect(low).toBeLessThan(16);
    expect(high).toBeGreaterThan(18);
    expect(counted).toBe(0);
  });

  it('learns from the programme’s own past, and grows surer', () => {
    const past = Array.from({ length: 12 }, () => ({ expected: 20, came: 12 }));
    const { expected, low, high } = forecast(20, past);
    expect(expected).toBeGreaterThan(12);
    expect(expected).toBeLessThan(12.6);
    const unsure = forecast(20, past.slice(0, 1));
    expect(high - low).toBeLessThan(unsure.high - unsure.low);
  });

  it('counts those who come without being on the roll', () => {
    const { chances, expected } = forecast(10, [{ expected: 10, came: 10, walkIns: 3 }]);
    expect(chances.length).toBeGreaterThan(14);
    expect(expected).toBeGreaterThan(11);
  });

  it('always is a set of chances: none below nothing, all together one', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 300 }),
        fc.integer({ min: 0, max: 200 }),
        fc.nat(50),
        (enrolled, expected, more) => {
          const { chances } = forecast(enrolled, [{ expected, came: Math.round(expected / 2), walkIns: more / 10 }]);
          expect(chances.every((chance) => chance >= 0)).toBe(true);
          expect(chances.reduce((sum, chance) => sum + chance, 0)).toBeCloseTo(1, 6);
        },
      ),
    );
  });
});

describe('the number of kits', () => {
  it('balances a kit thrown away against a child turned away: the dearer the child, the more kits', () => {
    const { chances } = forecast(20, [{ expected: 200, came: 160 }]);
    const kits = (turnedAway: number) => balance(chances, { wasted: 400, turnedAway }).best.kits;
    expect(kits(100)).toBeLessThan(kits(400));
    expect(kits(400)).toBeLessThan(kits(10_000));
    expect(kits(10_000_000)).toBe(20);
  });

  it('says how likely it is to run short, which falls with every kit', () => {
    const { all, best } = balance(forecast(20, []).chances, USUAL_COSTS);
    for (const [at, { runsShort }] of all.entries())
      if (at > 0) expect(runsShort).toBeLessThanOrEqual((all[at - 1]?.runsShort ?? 1) + 1e-12);
    // Four to one: short in at most one session of five.
    expect(best.runsShort).toBeLessThanOrEqual(0.2);
    expect(all[best.kits - 1]?.runsShort).toBeGreaterThan(0.2);
  });
});
