import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../reference/reference';
import { computeCase, type KitCase } from './kit-case';

const read = (name: string) => JSON.parse(readFileSync(`tests/cases/${name}.json`, 'utf8'));

describe('worked cases come out exactly', () => {
  for (const name of ['lentil-pot', 'oat-bake', 'filled-flatbreads']) {
    it(name, () => {
      const { expect: expected, ...input } = read(name);
      expect(computeCase(input as KitCase, TYPICAL)).toEqual({ result: expected });
    });
  }
});
