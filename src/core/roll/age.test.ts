import { expect, it } from 'vitest';
import { ageFromBirth } from './age';

it.each([
  ['2018-11-25', 8],
  ['2018-11-26', 7],
  ['25.11.2018', 8],
  // The 3rd of December or the 12th of March: the younger.
  ['03/12/2018', 7],
  ['29/02/2020', 6],
  ['2026-11-26', undefined],
  ['30/02/2018', undefined],
  ['8', undefined],
  ['1880-01-01', undefined],
])('somebody born on %s is %s years old on 25 November 2026', (born, age) => {
  expect(ageFromBirth(born, '2026-11-25')).toBe(age);
});
