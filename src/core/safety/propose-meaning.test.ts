import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../reference/reference';
import { understandWish } from './avoidances';
import { proposeMeaning } from './propose-meaning';

const understood = (wish: string) => understandWish(wish, new Map()).codes;

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
  ])('is understood however it is put, and as strictly: %s', (wish, codes) => {
    expect(understood(wish)).toEqual(codes);
  });

  it('means what the programme said of these very words, before what plainer ones mean', () => {
    const own = new Map([['severe nut', ['NUT', 'PEANUT', 'SESAME']]]);
    expect(understandWish('No severe nut allergy', own).codes).toEqual(['NUT', 'PEANUT', 'SESAME']);
    expect(understandWish('nut allergy', own).codes).toEqual(['NUT', 'PEANUT']);
  });

  it.each(['halal', 'tomatoes', 'red onions', 'E120', 'nuts except almonds', 'milk unless baked'])(
    'is not guessed: %s',
    (wish) => {
      expect(understood(wish)).toBeUndefined();
    },
  );
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

  it('takes up what is understood inside of it', () => {
    expect(proposeMeaning('nuts except almonds', TYPICAL).codes).toEqual(['NUT', 'PEANUT']);
    expect(proposeMeaning('E120', TYPICAL)).toEqual({ codes: [], foods: [], note: '' });
  });
});
