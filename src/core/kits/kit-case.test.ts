import { describe, expect, it } from 'vitest';
import filledFlatbreads from '../../../tests/cases/filled-flatbreads.json';
import lentilPot from '../../../tests/cases/lentil-pot.json';
import oatBake from '../../../tests/cases/oat-bake.json';
import { TYPICAL } from '../reference/reference';
import { computeCase, type KitCase } from './kit-case';

describe('worked cases come out exactly', () => {
  for (const { expect: expected, ...input } of [lentilPot, oatBake, filledFlatbreads]) {
    it(input.name, () => {
      expect(computeCase(input as KitCase, TYPICAL)).toEqual({ result: expected });
    });
  }
});
