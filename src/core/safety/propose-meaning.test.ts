import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../reference/reference';
import { splitAvoidances, understandNeed } from './avoidances';
import { proposeMeaning } from './propose-meaning';

const understood = (need: string) => understandNeed(need, new Map()).codes;

describe('what a family writes', () => {
  it.each([
    ['severe nut allergy', ['NUT', 'PEANUT']],
    ['Mild egg allergy', ['EGG']],
    ['anaphylaxis to peanuts', ['PEANUT']],
    ['can’t eat prawns', ['CRUST']],
    ['Severely allergic to sesame seeds', ['SESAME']],
    ['cashews', ['NUT']],
    ['no red meat', ['MEAT']],
    ['no spicy food', ['HEAT']],
  ])('is understood however it is put, and as strictly: %s', (need, codes) => {
    expect(understood(need)).toEqual(codes);
  });

  it('means what the programme said of these very words, before what plainer ones mean', () => {
    const own = new Map([['severe nut', ['NUT', 'PEANUT', 'SESAME']]]);
    expect(understandNeed('No severe nut allergy', own).codes).toEqual(['NUT', 'PEANUT', 'SESAME']);
    expect(understandNeed('nut allergy', own).codes).toEqual(['NUT', 'PEANUT']);
  });

  it.each(['halal', 'tomatoes', 'red onions', 'E120', 'nuts except almonds', 'milk unless baked'])(
    'is not guessed: %s',
    (need) => {
      expect(understood(need)).toBeUndefined();
    },
  );
});

/** What a roll's cell says, with what somebody who keeps rolls takes it for: codes, nothing, or a question for the family. */
const LABELLED: readonly (readonly [string, 'nothing' | 'ask' | readonly string[]])[] = [
  ['None.', 'nothing'],
  ['NKA', 'nothing'],
  ['no food allergies', 'nothing'],
  ['No known food allergies', 'nothing'],
  ['none reported', 'nothing'],
  ['NKDA', 'ask'],
  ['no dairy pls', ['MILK']],
  ['Nut free please', ['NUT', 'PEANUT']],
  ['shell fish', ['CRUST', 'MOLL']],
  ['shell-fish allergy!', ['CRUST', 'MOLL']],
  ['swallowing difficulties', 'ask'],
  ['crust', 'ask'],
  ['heat', 'ask'],
  ['moll', 'ask'],
  ['EGG', ['EGG']],
  ['beer', ['ALCOHOL', 'GLUTEN']],
  // Looked at once, after the reader was written.
  ['N.A.', 'nothing'],
  ['not applicable', 'nothing'],
  ['no allergies!', 'nothing'],
  ['none, thank you', 'nothing'],
  ['No dietary requirements', 'nothing'],
  ['no special diet', 'nothing'],
  ['no allergies known', 'nothing'],
  ['Nope', 'nothing'],
  ['no known allergens', 'nothing'],
  ['eggs please', ['EGG']],
  ['No fish, thanks', ['FISH']],
  ['nut-free', ['NUT', 'PEANUT']],
  ['no milk!!', ['MILK']],
  ['allergic to nuts.', ['NUT', 'PEANUT']],
  ['no nuts thank you', ['NUT', 'PEANUT']],
  ['lactose free pls', ['MILK']],
  ['dysphagia', 'ask'],
  ['Heat', 'ask'],
  ['x', 'ask'],
];

describe('a cell of a roll', () => {
  it.each(LABELLED)('%s', (cell, wanted) => {
    const needs = splitAvoidances(cell);
    if (wanted === 'nothing') return expect(needs).toEqual([]);
    expect(needs.map(understood)).toEqual([wanted === 'ask' ? undefined : wanted]);
  });
});

describe('a meaning that is proposed', () => {
  it('names the foods that are called so, by another name too', () => {
    expect(proposeMeaning('tomatoes', TYPICAL).foods).toEqual(
      expect.arrayContaining(['tomato passata', 'canned chopped tomatoes']),
    );
    expect(proposeMeaning('red onions', TYPICAL).foods).toContain('onion');
    expect(proposeMeaning('no cornflour', TYPICAL).foods).toEqual(['cornstarch']);
    // "Pear" is not in "pearl barley".
    expect(proposeMeaning('pears', TYPICAL).foods).not.toContain('pearl barley');
  });

  it('says what a custom usually asks for, and what to ask', () => {
    expect(proposeMeaning('halal', TYPICAL)).toMatchObject({ codes: ['PORK', 'ALCOHOL', 'MEAT'], note: /certified/ });
  });

  it('names what is made of it, and sends to a person what no list of foods can say', () => {
    expect(proposeMeaning('chickpeas', TYPICAL).foods).toEqual(expect.arrayContaining(['canned chickpeas', 'hummus']));
    expect(proposeMeaning('strawberries', TYPICAL).foods).toEqual([
      'strawberries',
      'frozen strawberries',
      'strawberry jam',
    ]);
    expect(proposeMeaning('seeds', TYPICAL).codes).toEqual(['SESAME']);
    expect(proposeMeaning('lacto-vegetarian', TYPICAL).codes).toContain('EGG');
    expect(proposeMeaning('lacto-ovo vegetarian', TYPICAL).codes).not.toContain('EGG');
    expect(proposeMeaning('Jain', TYPICAL).foods).toContain('onion');
    expect(proposeMeaning('swallowing difficulties', TYPICAL)).toMatchObject({ codes: [], foods: [], note: /IDDSI/ });
  });

  it('takes up what is understood inside of it', () => {
    expect(proposeMeaning('nuts except almonds', TYPICAL).codes).toEqual(['NUT', 'PEANUT']);
    expect(proposeMeaning('E120', TYPICAL)).toEqual({ codes: [], foods: [], note: '' });
  });
});
