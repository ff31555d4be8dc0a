import { describe, expect, it } from 'vitest';
import { balanceLine, LINE_CLASSES, type LineTask } from './line';

/** Numbers from 0 to 1, the same on every run. */
function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
    return state / 2 ** 31;
  };
}

/** Every way to stand, tried: what the slowest station has to do at the least. */
function byTryingAll(tasks: readonly LineTask[], stations: number): number {
  let best = Number.POSITIVE_INFINITY;
  const places: number[] = [];
  const rank = ({ class: name }: LineTask) => LINE_CLASSES.indexOf(name);
  const go = (at: number) => {
    if (at === tasks.length) {
      const inOrder = tasks.every((one, a) =>
        tasks.every((other, b) => rank(one) >= rank(other) || (places[a] as number) <= (places[b] as number)),
      );
      const loads = Array.from({ length: stations }, (_, station) =>
        tasks.reduce((sum, { seconds }, index) => sum + (places[index] === station ? seconds : 0), 0),
      );
      if (inOrder) best = Math.min(best, Math.max(...loads));
      return;
    }
    for (let station = 0; station < stations; station++) {
      places[at] = station;
      go(at + 1);
    }
  };
  go(0);
  return best;
}

const taskOf = (id: string, seconds: number, name: LineTask['class'] = 'any'): LineTask => ({
  id,
  seconds,
  class: name,
});

describe('a line of packers', () => {
  it('is as quick as the quickest of all ways to stand, and says so', () => {
    const next = random(3);
    for (let round = 0; round < 150; round++) {
      const stations = 2 + Math.floor(next() * 2);
      const tasks = Array.from({ length: 3 + Math.floor(next() * 5) }, (_, at) =>
        taskOf(`t${at}`, 1 + Math.floor(next() * 20), LINE_CLASSES[Math.floor(next() * 3)]),
      );
      const answer = balanceLine(tasks, stations);
      expect(answer.proven, JSON.stringify(tasks)).toBe(true);
      expect(answer.slowest, JSON.stringify({ tasks, stations })).toBe(byTryingAll(tasks, stations));
      expect(answer.stations.flat().sort()).toEqual(tasks.map(({ id }) => id).sort());
    }
  });

  it('has what is cold after the rest, and what is raw last', () => {
    const { stations } = balanceLine(
      [taskOf('milk', 30, 'cold'), taskOf('mince', 30, 'raw'), taskOf('flour', 30), taskOf('salt', 30)],
      2,
    );
    expect(stations).toEqual([
      ['flour', 'salt'],
      ['milk', 'mince'],
    ]);
  });

  it('is no quicker than its longest component', () => {
    const tasks = [taskOf('seeds', 300), taskOf('oats', 20), taskOf('salt', 20)];
    expect(balanceLine(tasks, 3)).toMatchObject({ slowest: 300, proven: true, bound: 300 });
  });

  it('of 25 components and 6 stations is proven', () => {
    const next = random(9);
    for (let round = 0; round < 10; round++) {
      const tasks = Array.from({ length: 25 }, (_, at) =>
        taskOf(`t${at}`, 20 + Math.floor(next() * 400), at < 18 ? 'any' : at < 23 ? 'cold' : 'raw'),
      );
      const { proven, slowest } = balanceLine(tasks, 6);
      expect(proven).toBe(true);
      expect(slowest).toBeGreaterThanOrEqual(Math.ceil(tasks.reduce((sum, { seconds }) => sum + seconds, 0) / 6));
    }
  });
});
