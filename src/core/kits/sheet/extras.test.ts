import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../../reference/reference';
import { understandNeed } from '../../safety/avoidances';
import type { SheetContent, SheetInput } from '../record/sheet-content';
import { computeSheet, recomputeSheet, sheetContent } from '../record/snapshot';
import { type ExtrasWanted, extrasFor, extrasOf } from './extras';

const BUTTER = {
  ingredient: 'butter',
  amount: '40',
  unit: 'g',
  alternatives: [{ ingredient: 'olive oil', amount: '30', unit: 'g' }],
};
const CHEESE = { ingredient: 'feta cheese', amount: '100', unit: 'g' };

/** A session of two dishes for four people, two of whom avoid something. */
function sheetOf(wanted: ExtrasWanted, swapIns: number[], second = [BUTTER]) {
  const people = [undefined, undefined, 'milk', 'latex fruit'].map((avoids, at) => ({
    id: String(at),
    name: `Person ${at}`,
    servings: 1,
    needs: avoids ? [understandNeed(avoids, new Map())] : [],
  }));
  const input: SheetInput = {
    system: 'metric',
    dishes: [
      {
        id: 'one',
        title: 'Bread',
        recipe: { servings: 4, lines: [{ ingredient: 'plain wheat flour', amount: '400', unit: 'g' }] },
      },
      { id: 'two', title: 'Spread', recipe: { servings: 4, lines: second } },
    ],
    labels: {},
    reference: TYPICAL,
    extras: extrasFor(
      extrasOf(
        wanted,
        swapIns.map((swapIn, at) => ({ id: `dish-${at}`, swapIn })),
      ),
      people,
    ),
  };
  const outcome = computeSheet(input, people);
  if ('problems' in outcome) throw new Error('problems');
  const content = sheetContent(input, outcome);
  return { content, extra: (kind: string) => content.variants.find((variant) => variant.extra === kind) };
}

describe('what is made beside the kits', () => {
  it('is bought with them: a swap-in of one dish, portions to taste and for the crew, kits in reserve', () => {
    const { content, extra } = sheetOf({ tasters: 2, crew: 3, reserve: 2, reserveServings: 2 }, [8, 0]);
    expect(
      content.variants
        .filter((each) => each.extra)
        .map((each) => [each.extra, each.participants.length, each.servings]),
    ).toEqual([
      ['swap-in', 1, 8],
      ['tasters', 1, 2],
      ['crew', 1, 3],
      ['reserve', 2, 2],
    ]);
    expect(extra('swap-in')?.components?.map(({ ingredient }) => ingredient)).toEqual(['plain wheat flour']);
    expect(extra('reserve')?.participants.map(({ name }) => name)).toEqual(['Reserve 1', 'Reserve 2']);
    // Three kits, eight of the swap-in, two to taste, three for the crew, two kits of two: of 100 g each.
    const flour = content.totals.find(({ ingredient }) => ingredient === 'plain wheat flour');
    expect(flour?.sayEdible).toBe('2000 g');
    expect(content.refusedKits).toBe(1);
  });

  it('is made without what the roll avoids where the dishes allow it, and tells whom it still is not for', () => {
    const { extra } = sheetOf({ tasters: 2, crew: 2 }, [0, 4]);
    expect(extra('tasters')).toMatchObject({ madeWithout: ['milk'], notFor: ['latex fruit'] });
    expect(extra('swap-in')?.components?.map(({ ingredient }) => ingredient)).toEqual(['olive oil']);
    expect(extra('crew')).toMatchObject({ madeWithout: [], notFor: ['milk', 'latex fruit'] });
  });

  it('gives up only what cannot be met, and says for whom it is not', () => {
    const { extra } = sheetOf({ reserve: 1 }, [], [CHEESE as never]);
    expect(extra('reserve')).toMatchObject({ madeWithout: [], notFor: ['milk', 'latex fruit'] });
    expect(extra('reserve')?.components).toHaveLength(2);
  });

  it('is the same again from the plain form of a locked sheet', () => {
    const { content } = sheetOf({ tasters: 2, crew: 1, reserve: 1 }, [4, 4]);
    const again = recomputeSheet(content);
    const extras = ({ variants }: SheetContent) => variants.filter(({ extra }) => extra);
    expect(again && extras(sheetContent(content.input, again))).toEqual(extras(content));
  });

  it('is nothing where nothing is asked for', () => {
    expect(extrasOf({}, [{ id: 'dish', swapIn: 0 }])).toEqual([]);
    expect(sheetOf({}, []).content.variants.every(({ extra }) => extra === undefined)).toBe(true);
  });
});
