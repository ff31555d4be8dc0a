import { describe, expect, it } from 'vitest';
import { readLine } from '../recipes/reading/line-reader';
import names from './facts/names.json';
import { foodsAmong, wordKey } from './food-finder';
import { findIngredient, foodNames, TYPICAL } from './reference';

const index = foodNames(TYPICAL);
const first = (text: string) => foodsAmong(text.split(' '), index)[0]?.name;
const food = (line: string) => readLine(line, TYPICAL).parts[0]?.ingredient;

describe('the names of foods', () => {
  it('each lead to one food that there is, and none to two', () => {
    const seen = new Map<string, string>();
    for (const { name } of TYPICAL.ingredients) expect(first(name), name).toBe(name);
    for (const [name, others] of Object.entries(names)) {
      expect(findIngredient(TYPICAL, name), name).toBeDefined();
      for (const other of others) {
        expect(findIngredient(TYPICAL, other), `${other} is a food of its own`).toBeUndefined();
        expect(seen.get(other), other).toBeUndefined();
        seen.set(other, name);
        expect(first(other), other).toBe(name);
      }
    }
  });

  it.each([
    ['Tomatoes', 'tomato'],
    ['cherries', 'cherry'],
    ['leaves', 'leaf'],
    ['Potatoes,', 'potato'],
    ['radishes', 'radish'],
    ['olives', 'olive'],
    ['couscous', 'couscous'],
    ['asparagus', 'asparagus'],
    ['peas', 'pea'],
    ['hummus', 'hummus'],
  ])('are the same for one and for many: %s', (word, key) => {
    expect(wordKey(word)).toBe(key);
  });

  it.each([
    ['zucchini', 'courgette'],
    ['aubergines', 'aubergine'],
    ['eggplants', 'aubergine'],
    ['scallions', 'spring onion'],
    ['garbanzo beans', 'canned chickpeas'],
    ['confectioners’ sugar', 'icing sugar'],
    ['corn starch', 'cornstarch'],
    ['ground beef', 'minced beef'],
    ['shrimp', 'prawns'],
    ['rutabaga', 'swede'],
    ['cilantro', 'fresh coriander'],
    ['heavy cream', 'double cream'],
  ])('are known on both sides of the ocean: %s', (text, name) => {
    expect(first(text)).toBe(name);
  });
});

describe('a food among other words', () => {
  it('is the longest name there is: almond butter is not butter', () => {
    expect(first('almond butter')).toBe('almond butter');
    expect(first('coconut milk')).toBe('coconut milk');
    expect(first('red bell pepper')).toBe('sweet pepper');
    expect(first('brown rice flour')).not.toBe('plain wheat flour');
  });

  it.each([
    '1 cup hemp flour',
    '1 cup vegan feta',
    '1 cup oat yogurt',
    '1 cup hazelnut milk',
    '200 g chicken sausage',
    '1 cup peach juice concentrate',
    '1 cup dried pineapple',
    '1 cup pistachio butter',
    '2 Tbsp chilli oil',
    '1 cup egg replacer',
    '100 g milk chocolate buttons',
    '1 cup lactose-free milk',
  ])('that an unknown word may change is left open: %s', (line) => {
    expect(food(line)).toBeUndefined();
  });

  it.each([
    ['1 cup finely chopped fresh parsley', 'fresh parsley'],
    ['2 cups loosely packed baby spinach leaves', 'spinach'],
    ['500 g boneless, skinless chicken thighs', 'chicken thigh'],
    ['1 cup cold water', 'water'],
    ['2 tins tuna in olive oil, drained', 'canned tuna'],
    ['1 cup cooked black beans', 'dried black beans'],
    ['1 cup canned black beans', 'canned black beans'],
    ['1 ear of corn', 'corn on the cob'],
  ])('keeps its name with words that only say how it is: %s', (line, name) => {
    expect(food(line)).toBe(name);
  });
});
