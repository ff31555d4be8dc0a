import { describe, expect, it } from 'vitest';
import { planSteps } from '../../recipes/steps/step-reader';
import { TYPICAL } from '../../reference/reference';
import { type ClassRoom, changesToTry, classCase } from './class-case';
import { planRunSheet } from './run-sheet';
import { nameOfStation, pairsOf } from './stations';

const clock = () => performance.now() / 1000;
const dish = (title: string, times: number, ingredients: string[], ...steps: string[]) => ({
  id: title,
  title,
  times,
  steps: planSteps({ steps, ingredients }, TYPICAL),
});
const STEW = dish(
  'stew',
  3,
  ['onion', 'carrot', 'cooked ham', 'canned white beans'],
  'Chop the onion and the carrot.',
  'Fry onion and carrot for 6 minutes.',
  'Cut the ham into small pieces.',
  'Add beans and ham and simmer 15 minutes.',
);
const SALAD = dish('salad', 1, ['cucumber', 'lemon'], 'Slice the cucumber.', 'Squeeze the lemon over it and toss.');
const BREAD = dish('flatbread', 3, ['flour'], 'Roll the dough out thinly.', 'Bake in a hot pan for 6 minutes.');
const room = (more: Partial<ClassRoom> = {}): ClassRoom => ({
  ages: [8, 8, 9, 9, 10, 11],
  adults: 1,
  equipment: { burners: 2, knives: 3, boards: 3 },
  isFire: false,
  cooking: 50,
  ...more,
});

describe('a class as a case', () => {
  it('has its children in twos by age, as old as the younger; who tells no age counts as the youngest', () => {
    expect(pairsOf([9, 7, null, 8, 11])).toEqual([
      { id: 'pair 1 (both 7)', age: 7, children: [1, 2] },
      { id: 'pair 2 (8 and 9)', age: 8, children: [3, 0] },
      { id: 'child 3 (age 11)', age: 11, children: [4] },
    ]);
  });

  it('deals its pairs to stations, somebody older at each, and its tasks to the stations', () => {
    const ages = [7, 7, 8, 8, 9, 9, 10, 10, 11, 11, 11, 12, 12, 12];
    const equipment = { burners: 4, knives: 6, boards: 6, stations: 4 };
    const { given, tasks, stations } = classCase([BREAD, SALAD], room({ ages, equipment, adults: 2 }));
    expect(stations.map(({ pairs }) => pairs.map(({ age }) => age))).toEqual([[12, 9], [11, 8], [11, 7], [10]]);
    // A burner for each: a pan for each, which goes on with what its own station rolled.
    const pans = tasks.filter(({ text }) => text.startsWith('Bake'));
    expect(pans.map(({ station, after }) => [station, after])).toEqual([
      [1, ['flatbread 1.1']],
      [2, ['flatbread 1.2']],
      [3, ['flatbread 1.3']],
      [4, ['flatbread 1.4']],
    ]);
    const answer = planRunSheet(given, clock);
    if (!('minutes' in answer)) throw new Error('It cannot be.');
    const atStation = new Map(given.hands?.map((pair) => [pair.id, pair.at]));
    for (const { task, hands } of answer.tasks)
      if (hands) expect(atStation.get(hands)).toBe(nameOfStation(tasks.find(({ id }) => id === task)?.station ?? null));
  });

  it('has one pot for all where five stations share one burner, and somebody grown up where no child may', () => {
    const equipment = { burners: 1, stations: 5 };
    const { tasks } = classCase([STEW], room({ ages: [7, 7, 7, 7, 7, 7, 7, 7, 7, 7], equipment }));
    const hot = tasks.filter(({ heat }) => heat === 'hob');
    expect(hot.map(({ station }) => station)).toEqual([null, null]);
    expect(classCase([STEW], room({ equipment })).tasks.filter(({ heat }) => heat === 'hob')).toHaveLength(2);
  });

  it('shares among stations what hands alone do, and keeps one pot on the heat', () => {
    const { tasks, given } = classCase([STEW], room());
    expect(tasks.filter(({ text }) => text.startsWith('Chop')).map(({ part }) => part)).toEqual([
      [1, 3],
      [2, 3],
      [3, 3],
    ]);
    expect(tasks.filter(({ heat }) => heat === 'hob')).toHaveLength(2);
    // Frying waits for every part of the chopping.
    expect(tasks.find(({ text }) => text.startsWith('Fry'))?.after).toHaveLength(3);
    expect(given.tools).toMatchObject({ knife: 3, board: 3 });
  });

  it('has the ham cut while the onions fry: two pairs of hands gain what one cannot', () => {
    const one = planRunSheet(classCase([{ ...STEW, times: 1 }], room({ ages: [10, 11], adults: 1 })).given, clock);
    const { given } = classCase([{ ...STEW, times: 1 }], room());
    const two = planRunSheet(given, clock);
    expect('minutes' in one && 'minutes' in two && two.minutes <= one.minutes).toBe(true);
    if (!('minutes' in two)) throw new Error('It cannot be.');
    const start = (words: string) => {
      const id = given.tasks?.[STEW.steps.findIndex(({ text }) => text.startsWith(words))]?.id;
      return two.tasks.find(({ task }) => task === id)?.start ?? Number.NaN;
    };
    const fry = start('Fry');
    expect(start('Cut')).toBeLessThan(fry + 6);
  });

  it('gives every child what their age may do, and leaves out what is done ahead', () => {
    const ahead = dish('curd', 1, ['milk'], 'Chill the milk overnight.', 'Stir the milk.');
    const { given } = classCase([STEW, SALAD, ahead], room({ adults: 2 }));
    const answer = planRunSheet(given, clock);
    if (!('minutes' in answer)) throw new Error('It cannot be.');
    const age = new Map(given.hands?.map((pair) => [pair.id, pair.age]));
    for (const { task, hands } of answer.tasks) {
      const own = given.tasks?.find(({ id }) => id === task);
      if (hands) expect(age.get(hands)).toBeGreaterThanOrEqual(own?.age ?? 0);
    }
    expect(given.tasks?.some(({ id }) => id === 'curd 1')).toBe(false);
  });

  it('that does not fit is tried with small changes, each of them true', () => {
    const long = dish(
      'loaf',
      1,
      ['strong bread flour'],
      'Knead the dough for 10 minutes.',
      'Leave the dough to rise for 50 minutes.',
      'Bake for 30 minutes.',
    );
    const there = room({ cooking: 35 });
    const left = there.cooking;
    const now = planRunSheet(classCase([long, SALAD], there).given, clock);
    expect('minutes' in now && now.minutes > left).toBe(true);
    const tried = changesToTry([long, SALAD], there).map(({ say, dishes, room: other }) => {
      const answer = planRunSheet(classCase(dishes, other).given, clock);
      return { say, fits: 'minutes' in answer && answer.minutes <= left };
    });
    expect(tried.filter(({ fits }) => fits).map(({ say }) => say)).toEqual([
      'with a swap-in of loaf: begun in class, eaten from one made earlier',
      'without loaf',
    ]);
  });
});
