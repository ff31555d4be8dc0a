import { describe, expect, it } from 'vitest';
import { insideOf } from '../recipes/steps/safe-temperatures';
import { planSteps } from '../recipes/steps/step-reader';
import { TYPICAL } from '../reference/reference';
import { insideSteps, judgeInside } from './doneness';

/** Which steps ask for a temperature: written before the rule was. */
const DISHES: readonly (readonly [foods: string[], steps: string[], asked: number[]])[] = [
  [['chicken breast', 'onion'], ['Slice the onion.', 'Fry the chicken for 8 minutes.', 'Serve with the onion.'], [1]],
  [
    ['minced beef', 'canned tomatoes'],
    ['Brown the mince.', 'Add the tomatoes and simmer for 20 minutes.', 'Serve.'],
    [1],
  ],
  [['egg', 'milk'], ['Whisk the eggs and milk.', 'Pour into the pan and cook until set.'], [1]],
  [['salmon fillet', 'rice'], ['Boil the rice for 12 minutes.', 'Bake the salmon for 15 minutes.'], [1]],
  [['cooked ham', 'canned white beans'], ['Cut the ham.', 'Simmer beans and ham for 15 minutes.'], []],
  [['carrot', 'onion'], ['Chop the onion and the carrot.', 'Boil for 10 minutes.'], []],
];

describe('how hot food must be inside', () => {
  it('is asked for at the last step on the heat that holds such food, and of nothing else', () => {
    const found = DISHES.map(([ingredients, steps]) => [
      ...insideSteps(planSteps({ steps, ingredients }, TYPICAL), ingredients, 'us').keys(),
    ]);
    expect(found).toEqual(DISHES.map(([, , asked]) => asked));
  });

  it('goes by the profile: one figure for a kind, or one core temperature that is held', () => {
    expect(insideOf('Fry.', ['chicken breast'], 'us')).toMatchObject({ kind: 'poultry', tenths: 739, seconds: 0 });
    expect(insideOf('Fry.', ['chicken breast'], 'uk')).toMatchObject({
      tenths: 750,
      seconds: 30,
      leastTenths: 700,
      leastMinutes: 2,
    });
  });

  it('too low is cooked on, for as long as it usually takes, or as the last two readings say', () => {
    const poultry = insideOf('Fry.', ['chicken breast'], 'uk');
    if (!poultry) throw new Error('Nothing is asked.');
    const at = (minute: number) => `2026-11-26T15:${String(minute).padStart(2, '0')}:00Z`;
    const judge = (...tenths: number[]) =>
      judgeInside(
        poultry,
        tenths.map((each, n) => ({ tenths: each, at: at(n * 2) })),
        'oven',
      );
    expect(judge()).toBeUndefined();
    expect(judge(650)).toEqual({ state: 'go on', minutes: 10 });
    // Ten degrees in two minutes: five more take one.
    expect(judge(550, 650)).toEqual({ state: 'go on', minutes: 2 });
    expect(judge(710)).toEqual({ state: 'hold', minutes: 2 });
    expect(judge(760)).toEqual({ state: 'safe', minutes: 0.5 });
    // It counts what was read last: a probe that was moved tells of a colder place.
    expect(judge(760, 640)?.state).toBe('go on');
  });
});
