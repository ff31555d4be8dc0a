import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../../reference/reference';
import { aheadTasks } from './ahead';
import { planSteps } from './step-reader';

/** What a line asks to be made ahead, and how long it stands by itself; null where it is done in class. Labelled before it was read. */
const LINES: readonly (readonly [text: string, wanted: readonly [kind: string, alone: number] | null])[] = [
  ['Soak the beans overnight in plenty of water.', ['soak', 720]],
  ['Soak the chickpeas for 8 hours, then drain.', ['soak', 480]],
  ['Soak the dried mushrooms in hot water for 20 minutes.', null],
  ['Marinate the chicken for at least 4 hours in the fridge.', ['marinate', 240]],
  ['Marinate the fish for 20 minutes, no longer.', null],
  ['Toss the tofu with the marinade and keep cold for 2 hours.', ['marinate', 120]],
  ['Let the cucumber marinate while the rice cooks.', null],
  ['Chill the dough for 30 minutes until firm.', null],
  ['Chill the custard for 3 hours until set.', ['chill', 180]],
  ['Refrigerate overnight.', ['chill', 720]],
  ['Put the jelly in the fridge for at least 4 hours.', ['chill', 240]],
  ['Freeze the berries for 2 hours until hard.', ['freeze', 120]],
  ['Thaw the sweetcorn in the fridge the night before.', ['thaw', 720]],
  ['The day before, cook the rice and cool it quickly.', ['cook', 720]],
  ['Boil the potatoes in advance, then cool.', ['cook', 720]],
  ['Simmer the lentils for 25 minutes.', null],
  ['Bake for 1 hour 10 minutes.', null],
  ['Leave the dough to rise for 1 hour.', null],
  ['Chill a bowl of water for the apples.', null],
  ['Serve the soup with chilled yogurt.', null],
];

const FOODS = ['dried beans', 'chicken', 'white fish', 'tofu', 'cucumber', 'rice', 'sweetcorn', 'potato', 'yogurt'];
const read = (text: string) => aheadTasks(planSteps({ steps: [text], ingredients: FOODS }, TYPICAL))[0];

describe('what is made ahead', () => {
  it.each(LINES)('“%s”', (text, wanted) => {
    const task = read(text);
    expect(task ? [task.kind, task.alone] : null).toEqual(wanted);
  });

  it('has a longest as well as a shortest: meat keeps a day in its marinade, fish half an hour', () => {
    expect(read('Marinate the chicken for at least 4 hours in the fridge.')).toMatchObject({ alone: 240, most: 1440 });
    expect(read('Marinate the white fish for 2 hours.')).toMatchObject({ alone: 120, most: 30 });
    expect(read('Soak the beans overnight in plenty of water.')).toMatchObject({ most: null });
  });
});
