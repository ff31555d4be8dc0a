import { describe, expect, it } from 'vitest';
import { timeOf } from '../../plan/civil';
import type { RoutesCase } from '../routes/route-case';
import { readPoint } from './door';
import { aheadOf, toldSpan } from './on-the-road';
import { kilometresBetween, minutesBetween } from './roads';
import { doorCase, judgeRound, whatWouldHelp } from './round';

describe('a point on the map', () => {
  it('is read as people type and paste it', () => {
    const same = [44.11, -68.34];
    for (const text of [
      '44.11, -68.34',
      '44.11,-68.34',
      '44.11 -68.34',
      '44.11/-68.34',
      '(44.11, -68.34)',
      'N44.11 W68.34',
      '44.11 N, 68.34 W',
      '68.34W 44.11N',
      '44°06′36″N 68°20′24″W',
      "44°6.6'N 68°20.4'W",
      'geo:44.11,-68.34;u=20',
      '44,11 -68,34',
      '44.11, −68.34',
    ])
      expect(readPoint(text), text).toEqual(same);
  });

  it('is refused where it is none', () => {
    for (const text of [
      '',
      'home',
      '44.11',
      '91, 10',
      '10, 181',
      '44.11 N, 68.34 N',
      '-44.11 S, 10',
      '44°61′N 10°E',
      '1 2 3',
    ])
      expect(readPoint(text), text).toBeUndefined();
  });
});

describe('the way between two doors', () => {
  it('is the straight line, longer and slower, at least a minute; or what somebody knows', () => {
    const [a, b] = [
      { name: 'kitchen', at: [0, 0] as const },
      { name: 'Ada', at: [0, 0.1] as const },
    ];
    // A degree of the equator is 111.19 km.
    expect(kilometresBetween(a.at, b.at)).toBeCloseTo(11.119, 2);
    const roads = { speed: 30, factor: 1.4, known: [] };
    expect(minutesBetween(roads, a, b)).toBe(Math.ceil((11.119 * 1.4 * 60) / 30));
    expect(minutesBetween(roads, a, { ...b, at: [0, 0] })).toBe(1);
    expect(minutesBetween({ ...roads, known: [{ from: 'Ada', to: 'kitchen', minutes: 12 }] }, a, b)).toBe(12);
  });
});

const LINE: RoutesCase = {
  places: ['kitchen', 'a', 'b', 'c'],
  minutes: [
    [0, 10, 20, 30],
    [10, 0, 10, 20],
    [20, 10, 0, 10],
    [30, 20, 10, 0],
  ],
  drivers: [{ id: 'd', from: 600, to: 700, litres: 20, home: true }],
  stops: ['a', 'b', 'c'].map((at) => ({ at, window: [600, 690] as const, minutes: 5, litres: 8, cold: 60 })),
};
const driver = { id: 'd', from: 600, to: 700, litres: 20, home: true };

describe('a round that is changed by hand', () => {
  it('says when it leaves and begins at each door', () => {
    expect(judgeRound(LINE, driver, ['a', 'b'], timeOf)).toEqual({ leaves: 600, begins: [610, 625], driving: 40 });
  });

  it('names the door at which it fails, and why', () => {
    const why = (order: string[], more: object = {}, given = LINE) =>
      judgeRound(given, { ...driver, ...more }, order, timeOf).trouble;
    expect(why(['a', 'b', 'c'])).toMatchObject({ at: 'c', say: 'The car is full: 24 litres, and it holds 20.' });
    expect(why(['c', 'b', 'a'], { litres: 50 })).toMatchObject({
      at: 'a',
      say: expect.stringContaining('out of the fridge'),
    });
    expect(why(['a', 'b'], { to: 640 })).toMatchObject({ say: 'The driver is not back by 10:40.' });
    expect(why(['a', 'b'], { to: 628, home: false })).toMatchObject({
      at: 'b',
      say: expect.stringContaining('free until 10:28'),
    });
    const early = {
      ...LINE,
      stops: LINE.stops?.map((stop) => (stop.at === 'b' ? { ...stop, window: [600, 610] as const } : stop)) ?? [],
    };
    expect(why(['a', 'b'], {}, early)).toMatchObject({
      at: 'b',
      say: 'Reached at 10:25: nobody is there after 10:10.',
    });
    expect(why(['a', 'nowhere'])).toBeDefined();
  });

  it('finds the smallest change after which a door that is missed would be reached', () => {
    const given = {
      ...LINE,
      stops:
        LINE.stops?.map((stop) => (stop.at === 'c' ? { ...stop, window: [600, 612] as const, litres: 2 } : stop)) ?? [],
    };
    const help = whatWouldHelp(given, [{ driver: 'd', stops: [{ at: 'a' }] }], 'c', () => 'Edda', timeOf);
    // Straight there takes 30 minutes: until 10:32 in steps of five from 10:12.
    expect(help.map(({ say }) => say)).toEqual(['if somebody is there until 10:32']);
    expect(
      whatWouldHelp(LINE, [{ driver: 'd', stops: [{ at: 'a' }, { at: 'b' }] }], 'c', () => 'Edda', timeOf),
    ).toEqual([{ at: 'c', say: 'if the car of Edda holds 25 litres' }]);
  });
});

describe('on the road', () => {
  it('the doors ahead are reckoned from where the driver was seen last, with what is late or too warm', () => {
    const planned = [
      { at: 'b', begins: 625 },
      { at: 'c', begins: 640 },
    ];
    expect(aheadOf(LINE, planned, 'a', 650, 600)).toEqual([
      { at: 'b', begins: 660, late: 35, isAfterWindow: false, coldMinutes: 65, isTooWarm: true },
      { at: 'c', begins: 675, late: 35, isAfterWindow: false, coldMinutes: 80, isTooWarm: true },
    ]);
  });

  it('a family is told a span, never a minute', () => {
    expect(toldSpan(625)).toEqual({ from: 615, to: 645 });
  });

  it('doors without a point are told apart, and each family’s own hours are kept', () => {
    const roads = { kitchen: [0, 0] as const, speed: 30, factor: 1.4, handing: 4, kitLitres: 8, known: [] };
    const door = (householdId: string, more: object) => ({
      householdId,
      name: householdId,
      door: more,
      kits: 2,
      isCold: true,
    });
    const { given, withoutPoint } = doorCase(
      roads,
      [door('a', { at: [0, 0.01], from: 900, to: 960 }), door('b', { at: [0, 0.02] }), door('c', {})],
      [],
      { from: 840, to: 1000 },
    );
    expect(withoutPoint.map(({ householdId }) => householdId)).toEqual(['c']);
    expect(given.stops?.map(({ window, litres, cold }) => [window, litres, cold])).toEqual([
      [[900, 960], 16, 120],
      [[840, 1000], 16, 120],
    ]);
  });
});
