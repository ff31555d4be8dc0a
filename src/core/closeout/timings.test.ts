import { describe, expect, it } from 'vitest';
import type { LiveTask } from '../classday/live/class-plan';
import { stepTimes } from './timings';

const task = (id: string, on: number, off: number, hands: string, after: readonly string[] = []): LiveTask => ({
  id,
  dish: 'Stew',
  text: id,
  notes: '',
  station: 1,
  on,
  off,
  heat: '',
  celsius: null,
  tools: [],
  part: null,
  after,
  age: 8,
  wait: null,
  start: 0,
  hands,
  wash: '',
  inside: null,
});
const tasks = [
  task('stew 1', 6, 0, 'pair 1'),
  task('stew 2', 2, 10, 'pair 1', ['stew 1']),
  task('salad 1.1', 5, 0, 'pair 2'),
  task('salad 1.2', 5, 0, 'pair 3'),
  task('salad 2', 1, 0, 'pair 2', ['salad 1.1', 'salad 1.2']),
];

describe('what the steps of a class took', () => {
  it('counts from when each could begin to when it was called done, parts of a step together', () => {
    const done = new Map([
      ['stew 1', 9],
      ['stew 2', 21],
      ['salad 1.1', 5],
      ['salad 1.2', 20],
      ['salad 2', 30],
    ]);
    const took = stepTimes({ tasks }, done);
    expect(took).toMatchObject([
      { dishId: 'stew', step: 0, factor: 1.5 },
      { dishId: 'stew', step: 1, factor: 1 },
      { dishId: 'salad', step: 0 },
    ]);
    // One part took as planned, the other four times as long: twice, as a typical factor.
    expect(took[2]?.factor).toBeCloseTo(2, 6);
  });

  it('says nothing of what nobody called done, or called done at once for all', () => {
    expect(stepTimes({ tasks }, new Map())).toEqual([]);
    expect(stepTimes({ tasks }, new Map(tasks.map(({ id }) => [id, 55])))).toEqual([]);
  });
});
