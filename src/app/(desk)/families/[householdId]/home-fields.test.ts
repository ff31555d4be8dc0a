import { expect, it } from 'vitest';
import { boxOf, staplesOf } from './home-fields';

it('reads staples a line or a comma each, once', () => {
  expect(staplesOf('Olive oil, salt\n\nolive oil ;  ')).toEqual(['olive oil', 'salt']);
});

it('reads a box a line each, in grams or kilograms, and leaves a missing amount to be told', () => {
  expect(boxOf('Carrot, 500 g\nlong-grain white rice 1.5 kg\nonion: 200\n\nbeetroot')).toEqual([
    { ingredient: 'carrot', grams: '500' },
    { ingredient: 'long-grain white rice', grams: '1500' },
    { ingredient: 'onion', grams: '200' },
    { ingredient: 'beetroot', grams: '' },
  ]);
});
