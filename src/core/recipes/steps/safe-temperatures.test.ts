import { describe, expect, it } from 'vitest';
import sets from '../../../../tests/steps/temperatures.json';
import facts from '../../reference/facts/safe-temperatures.json';
import { temperatureDoubts } from './safe-temperatures';

type Labelled = [step: string, foods: string[], profile: 'us' | 'uk', verdict: string];

describe('temperatures and times that a step states', () => {
  it.each(Object.entries(sets as unknown as Record<string, Labelled[]>))(
    'are held against the limits of the profile: %s',
    (name, set) => {
      const wrong = set.flatMap(([step, foods, profile, verdict]) => {
        const doubts = temperatureDoubts(step, foods, profile);
        return doubts.length > 0 === (verdict !== '') ? [] : [`${profile}: ${step} ${doubts.map(({ say }) => say)}`];
      });
      console.info(`${name}: ${set.length - wrong.length} of ${set.length} right\n${wrong.join('\n')}`);
      expect(wrong.length / set.length).toBeLessThanOrEqual(0.1);
    },
  );

  it('are told with the figure that governs, and whose it is', () => {
    const [doubt] = temperatureDoubts('Cook the chicken to 160 °F inside.', ['chicken thigh'], 'us');
    expect(doubt).toEqual({
      say: '160 °F is too low for poultry.',
      why: '165 °F, instant (USDA FSIS safe minimum internal temperatures)',
    });
    // What else is in a step that names meat hides nothing of it; milk that is warmed for yeast is no dish of eggs.
    expect(temperatureDoubts('Grill the yogurt-marinated chicken to 60 °C inside.', [], 'uk')).toHaveLength(1);
    expect(temperatureDoubts('Stir the yeast into warm milk (105°F) to foam.', ['egg'], 'us')).toEqual([]);
    for (const { source, kind } of facts) expect(source && kind, JSON.stringify({ source, kind })).toBeTruthy();
  });
});
