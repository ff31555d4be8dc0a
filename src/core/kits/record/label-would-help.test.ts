import { describe, expect, it } from 'vitest';
import type { WrittenLine } from '../../recipes/recipe/recipe';
import { TYPICAL } from '../../reference/reference';
import { labelsThatWouldHelp } from './label-would-help';
import type { SheetInput } from './sheet-content';
import { computeSheet, sheetContent } from './snapshot';

const line = (ingredient: string, alternatives: string[] = []): WrittenLine => ({
  ingredient,
  amount: '100',
  unit: 'g',
  alternatives: alternatives.map((name) => ({ ingredient: name, amount: '100', unit: 'g' })),
});

/** Whose label is worth reading, for somebody who avoids this. */
function worthReading(avoids: string, lines: WrittenLine[], labels: Record<string, string[]> = {}) {
  const recipe = { servings: 2, lines };
  const input: SheetInput = {
    system: 'us',
    dishes: [{ id: 'd', title: 'Dish', recipe }],
    labels,
    reference: TYPICAL,
  };
  const person = { id: 'p', name: 'P', servings: 2, needs: [{ asWritten: avoids, codes: [avoids] }] };
  const computed = computeSheet(input, [person]);
  if ('problems' in computed) throw new Error(JSON.stringify(computed.problems));
  return labelsThatWouldHelp(sheetContent(input, computed));
}

describe('a label is offered for the food that it would settle', () => {
  it('the one that stands in, where the written one holds it by nature', () => {
    expect(worthReading('GLUTEN', [line('soy sauce', ['tamari'])])).toEqual(['tamari']);
    expect(worthReading('GLUTEN', [line('wheat tortilla', ['corn tortilla'])])).toEqual(['corn tortilla']);
  });

  it('any of those whose brands differ, and none where every one holds it', () => {
    expect(worthReading('PEANUT', [line('ground cumin', ['ground coriander'])])).toEqual([
      'ground cumin',
      'ground coriander',
    ]);
    expect(worthReading('WHEAT', [line('couscous', ['bulgur wheat'])])).toEqual([]);
  });

  it('also for a diet, and no more once it was read', () => {
    expect(worthReading('MEAT', [line('cheddar cheese')])).toEqual(['cheddar cheese']);
    expect(worthReading('MEAT', [line('cheddar cheese')], { 'cheddar cheese': ['MILK', 'no:MEAT'] })).toEqual([]);
    // What was read holds it: nothing more is to be read.
    expect(worthReading('PEANUT', [line('ground cumin')], { 'ground cumin': ['PEANUT'] })).toEqual([]);
  });
});
