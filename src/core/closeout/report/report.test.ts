import { describe, expect, it } from 'vitest';
import { reportOf } from './report';
import type { ReportFacts, ReportSession, Seen } from './report-facts';

const session = (id: string, seen: readonly Seen[], more: Partial<ReportSession> = {}): ReportSession => ({
  id,
  courseId: 'c',
  course: 'Small hands',
  title: id,
  date: '2026-10-01',
  minutes: 90,
  mode: 'in person',
  kits: seen.length,
  seen,
  plateGroups: ['vegetables'],
  vegetableFamilies: ['cabbage'],
  votes: { 'more please': 0, 'it is fine': 0, 'not yet': 0 },
  tries: 0,
  stays: [],
  bought: 1200,
  given: 300,
  isEstimated: false,
  incidents: 0,
  ...more,
});
const facts = (sessions: readonly ReportSession[], more: Partial<ReportFacts> = {}): ReportFacts => ({
  sessions,
  cancelled: 0,
  people: Array.from({ length: 12 }, (_, person) => ({ person, age: person < 6 ? 7 : 10 })),
  givenGrams: 0,
  lostGrams: 0,
  ...more,
});
const figure = (of: ReportFacts, key: string) => reportOf(of).find((each) => each.key === key);
const came = (person: number, servings = 1): Seen => [person, servings, ['came']];
const absent = (person: number): Seen => [person, 1, ['absent']];
const fetched = (person: number, servings: number, ...more: Seen[2]): Seen => [
  person,
  servings,
  ['collected', ...more],
];

describe('a report', () => {
  const two = facts([
    session('breads', [came(0), came(1), absent(2)], { stays: [[7, 120]] }),
    session('pots', [fetched(1, 4, 'cooked'), fetched(3, 2), [2, 3, ['not collected', 'not cooked']]], {
      mode: 'take-home',
      minutes: 60,
      stays: [
        [7, 60],
        [8, 45],
      ],
    }),
  ]);

  it('counts each person once, and each place, hour and serving as it was taken', () => {
    expect(figure(two, 'reached')?.value).toBe(3);
    expect(figure(two, 'places')).toMatchObject({
      value: 4,
      parts: [
        { sessionId: 'breads', value: 2 },
        { sessionId: 'pots', value: 2 },
      ],
    });
    expect(figure(two, 'attendance')?.value).toBe(667);
    expect(figure(two, 'contact')?.value).toBe(180);
    expect(figure(two, 'servings')?.value).toBe(8);
    expect(figure(two, 'cooked')?.value).toBe(500);
    expect([figure(two, 'volunteers')?.value, figure(two, 'volunteer hours')?.value]).toEqual([2, 225]);
  });

  it('says what a kit and a person cost with and without gifts, of those sessions whose cost is known', () => {
    expect(figure(two, 'kit cost')?.value).toBe(400);
    expect(figure(two, 'kit worth')?.value).toBe(500);
    expect(figure(two, 'person cost')?.value).toBe(800);
    const half = facts([...two.sessions, session('unknown', [came(4)], { bought: null, given: 0 })]);
    expect(figure(half, 'kit cost')).toMatchObject({ value: 400 });
    expect(figure(half, 'bought')?.how).toContain('of 2 of 3 sessions');
    expect(figure(half, 'person cost')?.value).toBe(800);
  });

  it('hides what is small: ages, votes, incidents; and gives no working of it', () => {
    const votes = { 'more please': 9, 'it is fine': 6, 'not yet': 1 };
    const own = facts([
      session(
        'breads',
        Array.from({ length: 8 }, (_, at) => came(at)),
        { votes, incidents: 1, tries: 3 },
      ),
    ]);
    expect(figure(own, 'reached aged 6 to 8')).toMatchObject({ value: null, hidden: 'withheld' });
    expect(figure(own, 'reached aged 9 to 11')).toMatchObject({ value: null, hidden: 'small' });
    expect(figure(own, 'votes not yet')).toMatchObject({ hidden: 'small' });
    expect(figure(own, 'votes it is fine')).toMatchObject({ hidden: 'withheld' });
    expect(figure(own, 'votes more please')).toMatchObject({ value: 9 });
    expect(figure(own, 'incidents')).toMatchObject({ hidden: 'small' });
    expect(figure(own, 'incidents')).not.toHaveProperty('parts');
  });

  it('of a course in which nothing was noted says that nothing tells, and invents no share', () => {
    const none = facts([session('breads', [], { bought: null, given: 0, kits: 0 })]);
    expect(figure(none, 'attendance')?.value).toBeNull();
    expect(figure(none, 'kit cost')?.value).toBeNull();
    expect(figure(none, 'reached')?.value).toBe(0);
    expect(reportOf(facts([])).find(({ key }) => key === 'sessions')?.value).toBe(0);
  });

  it('adds up: what sessions bring to a figure is the figure', () => {
    for (const { parts, unit, value } of reportOf(two))
      if (parts && unit !== 'percent') expect(parts.reduce((sum, part) => sum + part.value, 0)).toBe(value);
  });
});
