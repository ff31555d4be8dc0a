import { describe, expect, it } from 'vitest';
import { type Findable, makeFinder } from './finder';

const one = (kind: Findable['kind'], title: string, beside = '', words = ''): Findable => ({
  kind,
  title,
  beside,
  href: `/${title}`,
  words,
});
const ALL = [
  one('screen', 'Calendar'),
  one('screen', 'Closures', '', 'holidays days off'),
  one('action', 'Add closures from a calendar file', '', 'ics holidays'),
  one('course', 'Small Hands Kitchen'),
  one('session', 'Fritters and slaw', 'Small Hands Kitchen, Mon 7 Dec'),
  one('session', 'Breads from the pan', 'Small Hands Kitchen, Mon 30 Nov'),
  one('person', 'Łucja Wren', 'Small Hands Kitchen'),
  one('person', 'Bram Oduya', 'Small Hands Kitchen'),
  one('recipe', 'Slipway slaw'),
  one('recipe', 'Sweetcorn fritters'),
  one('food', 'sweetcorn, frozen'),
  one('food', 'white cabbage'),
  one('crew', 'Ines Marlow'),
];
const first = makeFinder(ALL);

/** What people type, and what they mean: the first that is found. */
const MEANT: readonly (readonly [typed: string, meant: string])[] = [
  ['cal', 'Calendar'],
  ['holiday', 'Closures'],
  ['small hands', 'Small Hands Kitchen'],
  ['fritters slaw', 'Fritters and slaw'],
  ['slipway', 'Slipway slaw'],
  ['slpiway', 'Slipway slaw'],
  ['lucja', 'Łucja Wren'],
  ['oduja', 'Bram Oduya'],
  ['cabage', 'white cabbage'],
  ['white cab', 'white cabbage'],
  ['marlo', 'Ines Marlow'],
  ['bread pan', 'Breads from the pan'],
  ['sweetcorn fri', 'Sweetcorn fritters'],
];

describe('one search over everything', () => {
  it.each(MEANT)('“%s” means %s', (typed, meant) => {
    expect(first(typed)[0]?.title).toBe(meant);
  });

  it('finds nothing for nothing, and nothing that shares no word', () => {
    expect(first('')).toEqual([]);
    expect(first('zzz')).toEqual([]);
    expect(first('white kitchen')).toEqual([]);
  });
});
