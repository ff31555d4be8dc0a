import { describe, expect, it } from 'vitest';
import facts from '../../reference/facts/cautions.json';
import { TYPICAL } from '../../reference/reference';
import { cautionSentences, TOLD } from './caution-sentences';
import { cautionsAt, cautionsOf } from './cautions';

const hazards = (ingredients: readonly string[], steps: readonly string[] = []) =>
  cautionsOf(ingredients, steps).map(({ hazard }) => hazard);

describe('the cautions of a dish', () => {
  it.each([
    ['honey', 'honey and foods made with it'],
    ['grapes', 'whole grapes, cherry tomatoes, olives and large berries'],
    ['cherry tomato', 'whole grapes, cherry tomatoes, olives and large berries'],
    ['peanut butter', 'whole and chopped nuts and lumps of nut butter'],
    ['chicken thigh', 'raw poultry rinsed under the tap'],
    ['minced beef', 'raw meat juices'],
    ['plain wheat flour', 'raw flour, dough and batter'],
    ['egg', 'raw or runny egg'],
    ['basmati rice', 'cooked rice, pasta, potatoes and pulses'],
    ['fresh chilli', 'chilli peppers'],
    [
      'carrot',
      'sausages, hard cheese in chunks, raw apple, raw carrot, popcorn, marshmallows, hard sweets and fish bones',
    ],
    [
      'brie cheese',
      'mould-ripened cheese, unpasteurised milk or juice, smoked fish, deli meat, liver and high-mercury fish',
    ],
    ['dried kidney beans', 'dried kidney beans'],
    ['bean sprouts', 'raw sprouts'],
    ['canned tuna', 'swollen, leaking, rusted or sharply dented cans and broken seals'],
    ['avocado', 'stones and hard squash'],
  ])('follow from what is in it: %s', (food, hazard) => {
    expect(hazards([food])).toContain(hazard);
  });

  it.each([
    ['Blend until smooth.', 'hot liquid in a closed blender'],
    ['Bake 20 minutes.', 'ovens, hobs and hot oil'],
    ['Grate the carrots.', 'graters and peelers'],
    ['Chop the onion.', 'sharp knives'],
    ['Keep the garlic in the oil for two days.', 'chopped garlic or herbs in oil'],
  ])('and from what is done: %s', (step, hazard) => {
    expect(hazards([], [step])).toContain(hazard);
  });

  it('can all show: each of the table is brought by a food, a step, a fire, or belongs to a place of work', () => {
    const shown = new Set([
      ...hazards(
        TYPICAL.ingredients.map(({ name }) => name),
        ['Infuse the oil.', 'Blend, taste, chop, grate and bake.'],
      ),
      ...cautionsOf([], [], true).map(({ hazard }) => hazard),
      ...(['shopping', 'packing', 'room'] as const).flatMap((place) => cautionsAt(place).map(({ hazard }) => hazard)),
    ]);
    expect(facts.map(({ hazard }) => hazard).filter((hazard) => !shown.has(hazard))).toEqual([]);
  });

  it('are told as sentences with their own foods, in the order one cooks: all that a dish can bring', () => {
    const dish = cautionsOf(
      ['honey', 'chicken thigh', 'cherry tomato'],
      ['Chop the chicken.', 'Fry it for 5 minutes.'],
    );
    expect(cautionSentences(dish)).toEqual([
      'Do not rinse chicken thigh: splashes spread bacteria. Cooking it through makes it safe.',
      'Use a board and knife of their own for chicken thigh, and wash hands afterwards.',
      'Children cut with a claw grip, on a board that does not slip, with an adult beside them.',
      'An adult works at the oven, the hob and with hot oil; never put water on burning oil.',
      'Cool a burn under running water for 20 minutes.',
      'No honey for a child under one year: it can carry botulism.',
      'For children under 5, cut cherry tomato lengthways into quarters, without stones.',
      'Once cut, cherry tomato goes into the fridge, at or below 5 °C.',
    ]);
    // A stew of ham in chicken stock has nothing raw to rinse.
    expect(hazards(['cooked ham', 'chicken stock'])).not.toContain('raw poultry rinsed under the tap');
    const all = cautionsOf(
      TYPICAL.ingredients.map(({ name }) => name),
      ['Infuse the oil.', 'Blend, taste, chop, grate and bake on the barbecue.'],
      true,
    );
    expect(all.map(({ hazard }) => hazard).filter((hazard) => !TOLD.has(hazard))).toEqual([]);
    expect(cautionSentences(all)).toHaveLength(all.length);
  });

  it('are none where nothing brings one, and each comes once with who, what to do and its source', () => {
    expect(hazards(['cucumber', 'olive oil'], ['Toss together.'])).toEqual([]);
    const both = cautionsOf(['chicken thigh', 'chicken breast'], ['Roast.', 'Fry.']);
    expect(new Set(both.map(({ hazard }) => hazard)).size).toBe(both.length);
    for (const { who, caution, source } of both)
      expect([who, caution, source].every((text) => text.length > 2)).toBe(true);
  });
});
