import { describe, expect, it } from 'vitest';
import { balanceOf, type Lot, type Move, whyNot } from './stock';

const LOT: Lot = {
  id: 'lot',
  ingredient: 'milk',
  packGrams: 1000,
  lastDay: '2026-12-20',
  storage: 'fridge',
  placeId: null,
};
const KEEPING = { opened: 4, frozen: 90, thawed: 1 };
const move = (kind: Move['kind'], more: Partial<Move> = {}): Move => ({
  kind,
  packs: 0,
  grams: 0,
  day: '2026-12-01',
  ...more,
});
const after = (...moves: Move[]) => balanceOf(LOT, [move('received', { packs: 3 }), ...moves], KEEPING);

describe('what is left of a lot', () => {
  it('opens a pack where grams are taken, and what is open ends sooner, by the earliest opening', () => {
    expect(after(move('used', { grams: 1200 }))).toMatchObject({
      packs: 1,
      loose: 800,
      last: '2026-12-20',
      lastOpen: '2026-12-05',
    });
    expect(after(move('opened', { packs: 1 }), move('opened', { packs: 1, day: '2026-12-03' }))).toMatchObject({
      packs: 1,
      loose: 2000,
      lastOpen: '2026-12-05',
    });
    // Used up, the next pack that is opened has its own days.
    expect(after(move('used', { grams: 1000 }), move('opened', { packs: 1, day: '2026-12-10' }))).toMatchObject({
      packs: 1,
      loose: 1000,
      lastOpen: '2026-12-14',
    });
  });

  it('never ends later by opening than it would unopened', () => {
    expect(after(move('opened', { packs: 1, day: '2026-12-18' })).lastOpen).toBe('2026-12-20');
  });

  it('is what was counted last, whatever was thought to be there', () => {
    const counted = move('counted', { packs: 2, grams: 150, day: '2026-12-04' });
    expect(after(move('used', { packs: 1 }), counted)).toMatchObject({
      packs: 2,
      loose: 150,
      grams: 2150,
      lastOpen: '2026-12-08',
    });
  });

  it('keeps longer frozen, and only a day once thawed', () => {
    const frozen = move('frozen', { day: '2026-12-02' });
    expect(after(frozen)).toMatchObject({ storage: 'freezer', last: '2027-03-02' });
    expect(after(frozen, move('thawed', { day: '2027-01-05' }))).toMatchObject({
      storage: 'fridge',
      last: '2027-01-06',
    });
  });

  it('refuses what cannot be: more than is there, past its use-by, thawing what is not frozen', () => {
    const now = after();
    expect(whyNot(LOT, now, move('used', { packs: 4 }), 'use by')).toContain('Only 3 unopened packs');
    expect(whyNot(LOT, now, move('used', { grams: 3001 }), 'use by')).toContain('Only 3000 g');
    expect(whyNot(LOT, now, move('used', { packs: 1, day: '2026-12-21' }), 'use by')).toContain('only be thrown away');
    expect(whyNot(LOT, now, move('used', { packs: 1, day: '2026-12-21' }), 'best before')).toBeUndefined();
    expect(whyNot(LOT, now, move('thrown away', { packs: 1, day: '2026-12-21' }), 'use by')).toBeUndefined();
    expect(whyNot(LOT, now, move('thawed'), 'use by')).toBe('It is not in a freezer.');
  });
});
