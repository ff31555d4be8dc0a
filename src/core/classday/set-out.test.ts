import { describe, expect, it } from 'vitest';
import type { ClassPlan, LiveTask } from './live/class-plan';
import { idleSpells, missingTools, stationTools, uncountedTools } from './set-out';

const task = (id: string, station: number, start: number, on: number, tools: string[], hands: string): LiveTask => ({
  id,
  dish: 'Stew',
  text: id,
  notes: '',
  station,
  on,
  off: 0,
  heat: '',
  celsius: null,
  tools,
  part: null,
  after: [],
  age: 7,
  wait: null,
  start,
  hands,
  wash: '',
  inside: null,
});
const plan = (...tasks: LiveTask[]): ClassPlan => ({
  minutes: 30,
  cooking: 30,
  tasks,
  hands: [
    { id: 'pair 1', age: 9, at: 'station 1' },
    { id: 'pair 2', age: 9, at: 'station 2' },
    { id: 'pair 3', age: 9, at: 'station 2' },
  ],
  heat: {},
  tools: {},
  stations: [],
  standIns: [],
});

describe('what is set out at the stations', () => {
  const own = plan(
    task('chop', 1, 0, 6, ['knife', 'board'], 'pair 1'),
    task('slice', 2, 6, 4, ['knife', 'board'], 'pair 2'),
    task('grate', 2, 6, 4, ['grater'], 'pair 3'),
    task('dice', 1, 12, 5, ['knife', 'board'], 'pair 1'),
  );

  it('has of every tool as many as a station uses at once', () => {
    expect(
      stationTools(own).map(({ station, tools }) => [station, tools.map(({ tool, count }) => `${count} ${tool}`)]),
    ).toEqual([
      [1, ['1 board', '1 knife']],
      [2, ['1 board', '1 grater', '1 knife']],
    ]);
  });

  it('says what the place lacks, who hands it on when, and what would do instead; what nobody counts is looked for', () => {
    expect(missingTools(own, { knives: 1, boards: 2 })).toEqual([
      {
        tool: 'knife',
        needed: 2,
        counted: 1,
        turns: [
          { minute: 6, from: 1, to: 2 },
          { minute: 12, from: 2, to: 1 },
        ],
        ways: ['take turns as the plan has them', 'bring 1 more', 'tear it, or cut soft things with a table knife'],
      },
    ]);
    expect(uncountedTools(own, { knives: 1, boards: 2 })).toEqual([{ tool: 'grater', needed: 1 }]);
  });

  it('sees idle hands before the class does', () => {
    expect(idleSpells(own)).toEqual([
      { hands: 'pair 1', station: 1, from: 17, to: 30 },
      { hands: 'pair 2', station: 2, from: 10, to: 30 },
      { hands: 'pair 3', station: 2, from: 10, to: 30 },
    ]);
  });
});
