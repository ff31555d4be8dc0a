import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../../reference/reference';
import { ADULT, type PlannedStep } from './step-plan';
import { planSteps } from './step-reader';

const FOODS = [
  'chicken thigh',
  'carrot',
  'onion',
  'long-grain rice',
  'plain wheat flour',
  'egg',
  'milk',
  'apple',
  'lemon',
];
const plan = (...steps: string[]) => planSteps({ steps, ingredients: FOODS }, TYPICAL);
const one = (text: string) => plan(text)[0] as PlannedStep;

describe('minutes in a step', () => {
  it.each([
    ['Simmer gently for 20 minutes.', 'alone', 20],
    ['Bake for 1 1/2 hours at 160 °C.', 'alone', 90],
    ['Roast 35–40 min until browned.', 'alone', 40],
    ['Leave to rise for an hour.', 'alone', 60],
    ['Chill for half an hour.', 'alone', 30],
    ['Marinate overnight in the fridge.', 'alone', 720],
    ['Knead for ten minutes.', 'by hand', 10],
    ['Fry 3 minutes on each side.', 'by hand', 6],
    ['Whisk for 90 seconds.', 'by hand', 2],
    ['Stir for 5 min, then simmer for 15 min.', 'alone', 15],
  ])('%s', (text, how, minutes) => {
    const { handsOn, handsOff, estimated } = one(text);
    expect(how === 'alone' ? handsOff : handsOn).toBe(minutes);
    expect(estimated).toBe(false);
  });

  it('are an estimate, and say so, where the text names none', () => {
    expect(one('Chop the onion and the carrot.')).toMatchObject({ handsOn: 6, handsOff: 0, estimated: true });
    expect(one('Heat the oven to 200 °C.')).toMatchObject({ handsOff: 12, estimated: true });
  });

  it('are not what a packet says, nor what is cut short of it', () => {
    expect(one('Boil the rice, two minutes short of the packet’s time.').handsOn).toBeLessThan(5);
  });
});

describe('a step tells', () => {
  it('its heat and tools, and from what age it is done', () => {
    expect(one('Chop the carrot.')).toMatchObject({ heat: 'none', tools: ['knife', 'board'], fromAge: 7 });
    expect(one('Bake on a tray lined with baking paper for 20 minutes.')).toMatchObject({
      heat: 'oven',
      fromAge: ADULT,
      consumables: ['baking paper'],
    });
    expect(one('Stir the milk into the flour in a bowl.')).toMatchObject({ heat: 'none', fromAge: 3, tools: ['bowl'] });
    expect(one('Fry the chicken in hot oil.')).toMatchObject({ heat: 'hob', fromAge: ADULT });
    expect(one('Eat while still warm.')).toMatchObject({ heat: 'none' });
    expect(one('Instructor drains the rice.').fromAge).toBe(ADULT);
    expect(one('Blend the carrot until smooth.')).toMatchObject({ fromAge: ADULT, tools: ['blender'] });
    expect(one('Melt the butter in the microwave.')).toMatchObject({ heat: 'microwave', fromAge: 10 });
  });

  it('when it is done, by temperature and by eye, but not until when it is kept', () => {
    expect(one('Roast until it reaches 74 °C in the thickest part.').done).toContain('74 °C');
    expect(one('Bake until golden, about 20 minutes.').done).toBe('until golden');
    expect(one('Keep cold until eaten.').done).toBe('');
  });

  it('what cannot wait, what is added last, and what is done before the class', () => {
    expect(one('Peel and slice the apple.').mayWait).toBe(20);
    expect(one('Squeeze the lemon over it just before serving.').lastMinute).toBe(true);
    expect(one('Soak the rice the night before.')).toMatchObject({ ahead: true, handsOff: 720 });
  });
});

describe('the order of steps', () => {
  const order = (...steps: string[]) => plan(...steps).map(({ after }) => after.map((at) => at + 1));

  it('lets what is chopped be chopped beside what boils, and puts it together after', () => {
    expect(
      order('Boil the rice for 12 minutes.', 'Chop the onion and carrot.', 'Fold everything together and serve.'),
    ).toEqual([[], [], [1, 2]]);
  });

  it('goes on with what was made, whether by its food or by “it”', () => {
    expect(order('Whisk egg and milk.', 'Beat the flour in.', 'Rest the batter for 20 minutes.')).toEqual([
      [],
      [1],
      [2],
    ]);
    expect(order('Chop the carrot.', 'Heat the oven.', 'Roast the carrot for 30 minutes.')).toEqual([[], [], [1, 2]]);
  });

  it('begins what is done meanwhile without waiting, and leaves nothing out at the end', () => {
    expect(order('Simmer the rice for 15 minutes.', 'Meanwhile, fry the onion.', 'Serve with the lemon.')).toEqual([
      [],
      [],
      [1, 2],
    ]);
  });

  it('stands as somebody settled it, until a step that it names is reworded', () => {
    const steps = ['Chop the onion.', 'Boil the rice for 12 minutes.'];
    const { uses: _, isRead: __, estimated: ___, ...read } = plan(...steps)[1] as PlannedStep;
    const settled = [{ ...read, handsOff: 14, after: ['Chop the onion.'] }];
    const of = (first: string) =>
      planSteps({ steps: [first, steps[1] as string], ingredients: FOODS, settled }, TYPICAL)[1];
    expect(of('Chop the onion.')).toMatchObject({ handsOff: 14, after: [0], isRead: false });
    expect(of('Chop the onion finely.')).toMatchObject({ handsOff: 14, isRead: false });
  });
});
