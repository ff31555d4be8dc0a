import { describe, expect, it } from 'vitest';
import type { LockedSheet } from '../kits/record/locked-sheet';
import type { SheetInput } from '../kits/record/sheet-content';
import { computeSheet, sheetContent } from '../kits/record/snapshot';
import { TYPICAL } from '../reference/reference';
import { fateOffers, leftKit, takersOf } from './not-fetched';

function content() {
  const input: SheetInput = {
    system: 'metric',
    dishes: [
      {
        id: 'dish',
        title: 'Dish',
        recipe: {
          servings: 1,
          lines: [
            { ingredient: 'canned chickpeas', preparation: 'drained', amount: '400', unit: 'g', sealed_grams: '400' },
            { ingredient: 'feta cheese', preparation: 'crumbled', amount: '50', unit: 'g' },
            { ingredient: 'ground cumin', amount: '1', unit: 'g' },
          ],
        },
      },
    ],
    labels: {},
    reference: TYPICAL,
  };
  const outcome = computeSheet(input, [{ id: 'ada', name: 'Ada', servings: 1, needs: [] }]);
  if ('problems' in outcome) throw new Error('problems');
  return sheetContent(input, outcome);
}

const said = (hours: number, takers: readonly string[] = []) =>
  Object.fromEntries(fateOffers(leftKit(content(), 'A'), hours, takers).map((offer) => [offer.fate, offer]));

describe('a kit that nobody fetched', () => {
  it('keeps its cold part only in the fridge, by the clock since hand-out', () => {
    expect(said(1).held?.say).toContain('Put the cold part back into the fridge now');
    expect(said(3).held?.say).toContain('must have been in the fridge all the time');
  });

  it('gives back what is sealed, never what was cold or measured out', () => {
    const say = said(1)['taken apart']?.say;
    expect(say).toContain('Back to stock, unopened: 1 whole pack of 400 g canned chickpeas, drained.');
    expect(say).toContain('Never restocked: feta cheese, crumbled.');
    expect(say).toContain('What was measured out is used today or thrown away');
  });

  it('goes only to somebody who can be shown to eat all of it', () => {
    const people = [
      { id: '1', name: 'Bo', needs: [] },
      { id: '2', name: 'Cy, no milk', needs: [{ asWritten: 'milk', codes: ['MILK'] }] },
      // Brands of cumin may add mustard: unknown blocks.
      { id: '3', name: 'Di, no mustard', needs: [{ asWritten: 'mustard', codes: ['MUSTARD'] }] },
      { id: '4', name: 'Ed, moon dust', needs: [{ asWritten: 'moon dust', codes: undefined }] },
    ];
    const kit = { id: 'kit', number: 1, enrolmentId: 'ada', name: 'Ada', variant: 'A' };
    const locked: LockedSheet = {
      format: 1,
      session: {} as LockedSheet['session'],
      content: content(),
      kits: [kit],
      leftOut: [],
    };
    const facts = (labels: readonly (readonly [string, string[]])[] = []) => ({
      reference: TYPICAL,
      labels: new Map(labels),
    });
    const takers = (now = facts()) => takersOf(locked, kit, people, now).map(({ name }) => name);
    expect(takers()).toEqual(['Bo']);
    // What was found in it since: nobody who avoids that may have it, whatever was known at the lock.
    const eater = [{ id: '5', name: 'Flo, no soya', needs: [{ asWritten: 'soya', codes: ['SOY'] }] }];
    const found = facts([['canned chickpeas', ['SOY']]]);
    expect([facts(), found].map((now) => takersOf(locked, kit, eater, now).length)).toEqual([1, 0]);
    expect(said(1)['given away']).toMatchObject({ isOpen: false });
    expect(said(1, ['Bo'])['given away']).toMatchObject({ isOpen: true });
  });
});
