import { describe, expect, it } from 'vitest';
import { askedTogether } from './asked-together';

describe('questions asked within a moment', () => {
  it('are one question, each gets its own answer, and nothing is remembered for the next', async () => {
    const asked: (readonly string[])[] = [];
    let known = new Map([
      ['tablet', 'crew'],
      ['laptop', 'coordinator'],
    ]);
    const who = askedTogether(async (keys) => {
      asked.push(keys);
      return known;
    });
    expect(await Promise.all(['tablet', 'laptop', 'tablet', 'stranger'].map(who))).toEqual([
      'crew',
      'coordinator',
      'crew',
      undefined,
    ]);
    expect(asked).toEqual([['tablet', 'laptop', 'stranger']]);
    known = new Map();
    expect(await who('tablet')).toBeUndefined();
  });

  it('fail together when the database is away, and the next are asked again', async () => {
    let isAway = true;
    const who = askedTogether(async () => {
      if (isAway) throw new Error('away');
      return new Map([['tablet', 'crew']]);
    });
    const answers = await Promise.allSettled([who('tablet'), who('laptop')]);
    expect(answers.map(({ status }) => status)).toEqual(['rejected', 'rejected']);
    isAway = false;
    expect(await who('tablet')).toBe('crew');
  });
});
