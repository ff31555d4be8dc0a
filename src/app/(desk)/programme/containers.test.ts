import { expect, it } from 'vitest';
import { containersOf } from './containers';

it('reads containers a line each, in millilitres or litres, and leaves a missing size to be told', () => {
  expect(containersOf('Lidded pot, 60 ml\nzip bag 1.5 l\n\n2 oz cup: 60ml\ncrate')).toEqual([
    { name: 'Lidded pot', ml: '60' },
    { name: 'zip bag', ml: '1500' },
    { name: '2 oz cup', ml: '60' },
    { name: 'crate', ml: '' },
  ]);
});
