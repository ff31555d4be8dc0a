import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../../reference/reference';
import { planSteps } from '../steps/step-reader';
import { type ClassFacts, type DishFacts, type FitFinding, fitOf } from './fit';

const dish = (ingredients: string[], steps: string[], needs: DishFacts['needs'] = []): DishFacts => ({
  ingredients,
  steps: planSteps({ steps, ingredients }, TYPICAL),
  needs,
});
const CLASS: ClassFacts = {
  mode: 'in person',
  minutes: 90,
  participants: 12,
  ages: [7, 9],
  equipment: { stations: 4, burners: 4, ovens: 1, knives: 12 },
  isFire: false,
};
const SALAD = dish(
  ['carrot', 'apple', 'lemon'],
  ['Grate the carrot.', 'Chop the apple.', 'Squeeze the lemon.', 'Toss everything together.'],
);
const ROLLS = dish(
  ['strong bread flour', 'dried yeast'],
  [
    'Mix flour and yeast, and knead the dough for 10 minutes.',
    'Leave the dough to rise for 60 minutes.',
    'An adult bakes the dough for 20 minutes in the oven.',
  ],
);
const about = (what: FitFinding['about'], of: DishFacts, session: Partial<ClassFacts> = {}) =>
  fitOf(of, { ...CLASS, ...session }).findings.find((each) => each.about === what);

describe('whether a dish suits a class', () => {
  it('where everything fits, says so with its numbers', () => {
    const { verdict, swapIn } = fitOf(SALAD, CLASS);
    expect([verdict, swapIn]).toEqual(['fits', false]);
    expect(about('time', SALAD)?.say).toMatch(/^\d+ minutes of cooking in 50 that are left for it\.$/);
    expect(about('tasks', SALAD)?.say).toContain('for 3 at a station');
  });

  it('by time: what rises too long is taught with one made earlier; what is all work does not fit', () => {
    expect(fitOf(ROLLS, CLASS)).toMatchObject({ verdict: 'with care', swapIn: true });
    expect(about('time', ROLLS)?.say).toContain('swap-in');
    expect(about('time', SALAD, { minutes: 45 })).toMatchObject({ verdict: 'does not fit' });
    // At home, in their own time.
    expect(about('time', ROLLS, { mode: 'take-home' })).toMatchObject({ verdict: 'fits' });
  });

  it('by age: adults’ steps are counted, and steps that wait for a birthday', () => {
    expect(about('age', SALAD, { ages: [4, 6] })).toMatchObject({ verdict: 'with care' });
    expect(about('age', ROLLS)?.say).toContain('an adult does 1');
    expect(about('age', SALAD, { ages: [] })).toBeUndefined();
    const fried = dish(['egg', 'vegetable oil'], ['An adult fries the egg in oil.']);
    expect(about('age', fried)).toMatchObject({ verdict: 'does not fit' });
  });

  it('by heat and tools: against the place’s counts, and what nobody counted is said', () => {
    const soup = dish(['carrot'], ['Chop the carrot.', 'Simmer it for 15 minutes.']);
    expect(about('heat', soup, { equipment: { stations: 4, burners: 0, knives: 12 } })).toMatchObject({
      verdict: 'does not fit',
      say: 'It needs a burner at each station; the place has 0 burners.',
    });
    expect(about('heat', soup, { equipment: { stations: 4, burners: 2, knives: 12 } })?.say).toContain('take turns');
    expect(about('tools', soup, { equipment: {} })?.say).toContain('nobody has counted');
    expect(about('heat', soup, { isFire: true, equipment: {} })).toBeUndefined();
  });

  it('at home: by what families have, once they were asked', () => {
    const at = (homes: ClassFacts['homes'], of = ROLLS) =>
      fitOf(of, { ...CLASS, mode: 'take-home', homes })
        .findings.filter((each) => each.about === 'home')
        .map(({ verdict, say }) => `${verdict}: ${say}`);
    expect(at([])).toEqual([
      'does not fit: It needs an oven, which not every home has: ask the families, or choose a dish for the hob.',
    ]);
    expect(at([{ name: 'Finch', heat: ['oven'] }, { name: 'Brook' }])).toEqual([
      'does not fit: It needs an oven, which not every home has: ask the families (1 not asked yet), or choose a dish for the hob.',
    ]);
    expect(
      at([
        { name: 'Finch', heat: ['oven'] },
        { name: 'Brook', heat: ['hob'] },
      ]),
    ).toEqual(['does not fit: It needs an oven, and Brook has none.']);
    const homes = ['Finch', 'Brook', 'Lea', 'Marsh', 'Holt'].map((name) => ({ name, heat: [] as string[] }));
    expect(at(homes)).toEqual(['does not fit: It needs an oven, and Finch, Brook, Lea and 2 more have none.']);
    expect(at([{ name: 'Finch', heat: ['hob', 'oven'] }])).toEqual(['fits: It needs an oven; every home has it.']);
    const chicken = dish(['chicken thigh'], ['Simmer the chicken for 30 minutes.']);
    expect(at([{ name: 'Finch', heat: ['hob'], tools: [] }], chicken)[0]).toContain('None at Finch.');
    expect(at([{ name: 'Finch', heat: ['hob'], tools: ['thermometer'] }], chicken)[0]).toMatch(
      /^with care: chicken thigh/,
    );
    // Stock was cooked before: it needs no thermometer.
    const soup = dish(['chicken stock'], ['Simmer the stock for 30 minutes.']);
    expect(at([{ name: 'Finch', heat: ['hob'], tools: [] }], soup)).toEqual([
      'fits: It needs one ring; every home has it.',
    ]);
  });

  it('at home: no poultry or mince without a thermometer, nothing that needs an oven', () => {
    const roast = dish(['chicken thigh'], ['Roast the chicken for 40 minutes.']);
    const home = fitOf(roast, { ...CLASS, mode: 'live online' });
    expect(home.verdict).toBe('does not fit');
    expect(home.findings.filter((each) => each.about === 'home').map(({ say }) => say)).toEqual([
      expect.stringContaining('without a thermometer at home'),
      expect.stringContaining('It needs an oven'),
    ]);
  });

  it('by cost, against the budget of a kit; where prices are missing, with care', () => {
    const priced = (perServing: number, known: number) => ({ ...SALAD, cost: { perServing, known, of: 3 } });
    const cost = (of: DishFacts, budget?: number) => about('cost', of, { budget, servings: 4 });
    expect(cost(priced(120, 3), 600)).toEqual({
      about: 'cost',
      verdict: 'fits',
      say: 'About 1.20 a serving: 4.80 an average kit of the 6.00 there is.',
    });
    expect(cost(priced(160, 3), 600)?.verdict).toBe('does not fit');
    expect(cost(priced(120, 2), 600)).toMatchObject({
      verdict: 'with care',
      say: expect.stringContaining('2 of 3 foods'),
    });
    expect([cost(priced(0, 0)), cost(SALAD, 600)]).toEqual([undefined, undefined]);
  });

  it('by the roll’s needs and the youngest’s cautions', () => {
    const needs = [
      { people: 2, avoids: ['MILK'], replaced: ['olive oil instead of butter'], blocked: [], unknown: [] },
      { people: 1, avoids: ['EGG'], replaced: [], blocked: ['egg'], unknown: [] },
    ];
    const { findings } = fitOf({ ...SALAD, needs }, CLASS);
    expect(findings.filter((each) => each.about === 'needs')).toEqual([
      { about: 'needs', verdict: 'fits', say: '2 avoid milk: olive oil instead of butter.' },
      { about: 'needs', verdict: 'does not fit', say: '1 avoids egg: nothing safe stands in for egg.' },
    ]);
    const grapes = dish(['grapes'], ['Wash the grapes.']);
    expect(about('cautions', grapes, { ages: [4] })?.say).toContain('cut lengthways');
    expect(about('cautions', grapes)).toBeUndefined();
  });
});
