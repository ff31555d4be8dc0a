import { describe, expect, it } from 'vitest';
import { AVOIDANCES, normaliseNeed, splitAvoidances, understandNeed } from './avoidances';

const meaning = (written: string, own: Record<string, string[]> = {}) =>
  understandNeed(written, new Map(Object.entries(own))).codes;

describe('what families write about avoidances', () => {
  it.each([
    ['', []],
    ['none', []],
    ['n/a', []],
    ['–', []],
    ['No known allergies', []],
    ['egg', ['egg']],
    ['eggs; tree nuts and milk', ['eggs', 'tree nuts', 'milk']],
    ['nuts, sesame / soya', ['nuts', 'sesame', 'soya']],
    ['egg, egg', ['egg']],
    ['egg\nmilk', ['egg', 'milk']],
  ])('"%s" holds %j', (written, needs) => {
    expect(splitAvoidances(written)).toEqual(needs);
  });

  it('is one need however it is put', () => {
    for (const written of ['No pork', 'pork', 'PORK', 'allergic to pork', 'pork-free', 'pork allergy']) {
      expect(normaliseNeed(written)).toBe('pork');
    }
  });

  it('is understood where the words are plain, always on the safe side', () => {
    expect(meaning('Dairy')).toEqual(['MILK']);
    expect(meaning('nut allergy')).toEqual(['NUT', 'PEANUT']);
    expect(meaning('gluten-free')).toEqual(['GLUTEN']);
    expect(meaning('shellfish')).toEqual(['CRUST', 'MOLL']);
    expect(meaning('vegan')).toContain('HONEY');
    expect(meaning('SULPHITE')).toEqual(['SULPHITE']);
  });

  it('is never guessed: a mild reaction or an unknown food waits for a meaning', () => {
    expect(meaning('egg (only raw)')).toBeUndefined();
    expect(meaning('latex fruit')).toBeUndefined();
    expect(meaning('constructor')).toBeUndefined();
    expect(meaning('__proto__')).toBeUndefined();
  });

  it('means what the programme says it means, before anything else', () => {
    expect(meaning('Latex fruit', { 'latex fruit': ['food:banana'] })).toEqual(['food:banana']);
  });
});

it('every avoidance implies only avoidances there are', () => {
  const codes = new Set(AVOIDANCES.map(({ code }) => code));
  for (const { implies } of AVOIDANCES) for (const code of implies) expect(codes.has(code)).toBe(true);
});
