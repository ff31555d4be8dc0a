import { describe, expect, it } from 'vitest';
import { amountLines } from './amount-lines';

describe('things written a line each', () => {
  it('are read in grams or kilograms, exactly', () => {
    expect(amountLines('Carrot, 500 g\nlong-grain white rice 1.001 kg\n\nonion: 200', ['g', 'kg'])).toEqual([
      { name: 'Carrot', amount: '500' },
      { name: 'long-grain white rice', amount: '1001' },
      { name: 'onion', amount: '200' },
    ]);
  });

  it('are read in millilitres or litres', () => {
    expect(amountLines('lidded pot, 60 ml\nzip bag 1.5 L', ['ml', 'l'])).toEqual([
      { name: 'lidded pot', amount: '60' },
      { name: 'zip bag', amount: '1500' },
    ]);
  });

  it('keep a line whose amount is missing or cannot be read, for its service to refuse', () => {
    expect(amountLines('beetroot\nleek, some\nswede 1.2.3 kg', ['g', 'kg'])).toEqual([
      { name: 'beetroot', amount: '' },
      { name: 'leek, some', amount: '' },
      { name: 'swede 1.2.3 kg', amount: '' },
    ]);
  });
});
