import { describe, expect, it } from 'vitest';
import type { SheetInput } from '../kits/record/sheet-content';
import { computeSheet, sheetContent } from '../kits/record/snapshot';
import { TYPICAL } from '../reference/reference';
import { understandNeed } from './avoidances';
import { avoidedByAge, careOf, cutForSmall } from './care';

describe('what an age alone asks for', () => {
  it.each([
    [0, ['HONEY', 'CHOKING']],
    [1, ['CHOKING']],
    [4, ['CHOKING']],
    [5, []],
    [null, []],
  ])('at %s years: %j', (age, codes) => {
    expect(avoidedByAge(age)).toEqual(codes);
  });

  it('is lifted by how a food is cut, where cutting helps', () => {
    expect(careOf('grapes', '').contains).toEqual(['CHOKING']);
    expect(careOf('grapes', 'quartered').contains).toEqual([]);
    expect(cutForSmall('grapes', '')).toBe('cut lengthways into quarters');
    // Whole words, all of them understood: what only holds the word lifts nothing.
    for (const said of [
      'uncut',
      'whole, quartered',
      'whole, cut at class',
      'not quartered',
      'unquartered',
      'halved',
      'cut',
      'to be quartered',
    ])
      expect([said, careOf('grapes', said).contains]).toEqual([said, ['CHOKING']]);
    for (const said of ['quartered, seedless', 'washed, cut lengthways into quarters', 'very finely chopped'])
      expect([said, careOf('grapes', said).contains]).toEqual([said, []]);
    expect(careOf('almonds', 'unground').contains).toEqual(['CHOKING']);
    expect(careOf('almonds', 'ground').contains).toEqual([]);
    expect(careOf('feta cheese', 'unpasteurised').check).toEqual(['PREGNANCY']);
    expect(careOf('feta cheese', 'pasteurised').check).toEqual([]);
    expect(careOf('blue cheese', 'uncooked').contains).toEqual(['PREGNANCY']);
    expect(careOf('almonds', 'quartered').contains).toEqual(['CHOKING']);
    expect(cutForSmall('almonds', '')).toBeUndefined();
    expect(careOf('feta cheese', '').check).toEqual(['PREGNANCY']);
  });

  it('gives a small child the same food cut small, and refuses what cannot be', () => {
    const kit = (ingredient: string, preparation: string, unit: string, age: number) => {
      const line = { ingredient, preparation, amount: '8', unit };
      const input: SheetInput = {
        system: 'metric',
        dishes: [{ id: 'dish', title: 'Dish', recipe: { servings: 4, lines: [line] } }],
        labels: {},
        reference: TYPICAL,
      };
      const needs = avoidedByAge(age).map((code) => ({ asWritten: code, codes: [code] }));
      const outcome = computeSheet(input, [{ id: 'child', name: 'Child', servings: 4, needs }]);
      if ('problems' in outcome) throw new Error(JSON.stringify(outcome.problems));
      const [variant] = sheetContent(input, outcome).variants;
      return variant?.components?.[0]?.name ?? `refused: ${variant?.refusals[0]?.blockedBy.join()}`;
    };
    expect(kit('cherry tomato', '', 'each', 6)).toBe('cherry tomato');
    expect(kit('cherry tomato', '', 'each', 4)).toBe('cherry tomato, cut lengthways into quarters');
    expect(kit('almonds', '', 'g', 4)).toBe('refused: what small children choke on');
    expect(kit('honey', '', 'g', 0)).toBe('refused: honey');
  });
});

describe('pregnancy', () => {
  it('avoids alcohol, mould-ripened cheese, and what nobody has checked', () => {
    const [code] = understandNeed('pregnant', new Map()).codes ?? [];
    expect(code).toBe('PREGNANCY');
  });
});
