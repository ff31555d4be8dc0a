import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../../reference/reference';
import { cuttingSteps, putLast, waitForCutting } from './cutting';
import { planSteps } from './step-reader';

const line = (ingredient: string, preparation: string) => ({ ingredient, preparation });

describe('what a line has cut', () => {
  it('is a task, unless a step cuts it already, or it is sold so', () => {
    const lines = [
      line('onion', 'chopped'),
      line('garlic', 'finely chopped'),
      line('carrot', 'grated'),
      line('canned chopped tomatoes', 'with juice'),
      line('spinach', 'raw leaves'),
      line('apple', 'sliced'),
    ];
    expect(
      cuttingSteps(lines, ['Fry onion and garlic.', 'Slice the apples into it.', 'Add carrot and tomatoes.']),
    ).toEqual(['Chop the onion and the garlic.', 'Grate the carrot.']);
    expect(cuttingSteps(lines, ['Cut everything up.', 'Fry it.'])).toEqual([]);
    expect(cuttingSteps(lines, ['Fry it.'], ({ ingredient }) => ingredient === 'carrot')).toEqual([
      'Grate the carrot.',
    ]);
  });

  it('comes before what uses it, also where somebody settled the order without it, and keeps the numbers of the others', () => {
    const steps = ['Warm the oil.', 'Fry the onion for 5 minutes.', 'Serve.'];
    const fry = {
      ...planSteps({ steps, ingredients: ['onion'] }, TYPICAL)[1],
      text: steps[1] ?? '',
      after: ['Warm the oil.'],
    };
    const cutting = cuttingSteps([line('onion', 'chopped')], steps);
    const planned = planSteps(
      { steps: [...cutting, ...steps], ingredients: ['onion'], settled: [fry as never] },
      TYPICAL,
    );
    const waiting = waitForCutting(planned, cutting.length);
    expect(waiting[2]?.after).toContain(0);
    const last = putLast(waiting, cutting.length);
    expect(last.map(({ text }) => text)).toEqual([...steps, 'Chop the onion.']);
    expect(last[1]?.after).toEqual([0, 3]);
    expect(last[3]).toMatchObject({ fromAge: 7, tools: ['knife', 'board'] });
  });
});
