import { describe, expect, it } from 'vitest';
import { cautionsOf } from './cautions';

const hazards = (ingredients: readonly string[], steps: readonly string[] = []) =>
  cautionsOf(ingredients, steps).map(({ hazard }) => hazard);

describe('the cautions of a dish', () => {
  it.each([
    ['honey', 'honey and foods made with it'],
    ['grapes', 'whole grapes cherry tomatoes olives and large berries'],
    ['cherry tomato', 'whole grapes cherry tomatoes olives and large berries'],
    ['peanut butter', 'whole and chopped nuts and lumps of nut butter'],
    ['chicken thigh', 'raw poultry rinsed under the tap'],
    ['minced beef', 'raw meat juices'],
    ['plain wheat flour', 'raw flour dough and batter'],
    ['egg', 'raw or runny egg'],
    ['basmati rice', 'cooked rice pasta potatoes and pulses'],
    ['fresh chilli', 'chilli peppers'],
  ])('follow from what is in it: %s', (food, hazard) => {
    expect(hazards([food])).toContain(hazard);
  });

  it.each([
    ['Blend until smooth.', 'hot liquid in a closed blender'],
    ['Bake 20 minutes.', 'ovens hobs and hot oil'],
    ['Grate the carrots.', 'graters and peelers'],
  ])('and from what is done: %s', (step, hazard) => {
    expect(hazards([], [step])).toContain(hazard);
  });

  it('are none where nothing brings one, and each comes once with who, what to do and its source', () => {
    expect(hazards(['lettuce', 'olive oil'], ['Toss together.'])).toEqual([]);
    const both = cautionsOf(['chicken thigh', 'chicken breast'], ['Roast.', 'Fry.']);
    expect(new Set(both.map(({ hazard }) => hazard)).size).toBe(both.length);
    for (const { who, caution, source } of both)
      expect([who, caution, source].every((text) => text.length > 2)).toBe(true);
  });
});
