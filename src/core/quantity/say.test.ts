import { describe, expect, it } from 'vitest';
import { parseAmount } from './amount';
import { METRIC_TOOLS, measure, US_TOOLS } from './measure';
import { divide } from './rational';
import { sayGrams, sayNumber, sayPieces, sayScoops, sayWeight } from './say';
import { readUnit } from './units';

const us = (exactTsp: string) => sayScoops(measure(parseAmount(exactTsp), 'tight', US_TOOLS).scoops, 'us');
const metric = (ml: string) =>
  sayScoops(measure(divide(parseAmount(ml), parseAmount('4.92892159375')), 'tight', METRIC_TOOLS).scoops, 'metric');

describe('amounts are said the way a cook says them', () => {
  it.each([
    ['72', '1½ cups'],
    ['48', '1 cup'],
    ['36', '¾ cup'],
    ['32', '⅔ cup'],
    ['64', '1⅓ cups'],
    ['40', '½ cup + ⅓ cup'],
    ['7', '2 Tbsp + 1 tsp'],
    ['3/4', '¾ tsp'],
    ['5/8', '½ tsp + ⅛ tsp'],
    ['1/8', '⅛ tsp'],
    ['51', '1 cup + 1 Tbsp'],
  ])('%s teaspoons are %s', (exact, said) => {
    expect(us(exact)).toBe(said);
  });

  it('in metric programmes by millilitres and 5 ml spoons', () => {
    expect(metric('375')).toBe('375 ml');
    expect(metric('15')).toBe('1 Tbsp');
    expect(metric('2.5')).toBe('½ tsp');
    expect(metric('265')).toBe('250 ml + 1 Tbsp');
  });

  it('weights in ounces keep the grams beside them; metric ones are grams alone', () => {
    expect(sayWeight(parseAmount('120'), 'us')).toBe('4¼ oz (120 g)');
    expect(sayWeight(parseAmount('907.18474'), 'us')).toBe('2 lb (907 g)');
    expect(sayWeight(parseAmount('3'), 'us')).toBe('3 g');
    expect(sayWeight(parseAmount('120'), 'metric')).toBe('120 g');
    expect(sayGrams(parseAmount('1.64'))).toBe('1.6 g');
    expect(sayGrams(parseAmount('12500'))).toBe('12.5 kg');
  });

  it('pieces are whole or cut where a knife can cut them', () => {
    expect(sayPieces(parseAmount('2'), readUnit('clove'))).toBe('2 cloves');
    expect(sayPieces(parseAmount('1 1/2'), readUnit('each'))).toBe('1½');
    expect(sayPieces(parseAmount('2/9'), readUnit('each'))).toBe('about ¼');
    expect(sayNumber(parseAmount('7/27'))).toBe('7\u204427');
  });
});
