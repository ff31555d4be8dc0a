import { describe, expect, it } from 'vitest';
import seededSlips from '../../../../tests/slips/seeded.json';
import soundRecipes from '../../../../tests/slips/sound.json';
import { TYPICAL } from '../../reference/reference';
import { draftLine } from '../reading/draft';
import type { Slip } from './slip';
import { checkRecipe } from './slips';

interface Sound {
  readonly title: string;
  readonly servings: number;
  readonly lines: readonly string[];
  readonly steps: readonly string[];
}
const sound = soundRecipes as readonly Sound[];
const seeded = seededSlips as readonly { of: string; where: string; to: string; slip: string }[];

/** Lines are read once, however many recipes hold them. */
const drafts = new Map<string, ReturnType<typeof draftLine>>();
function draft(text: string) {
  const read = drafts.get(text) ?? draftLine(text, TYPICAL);
  drafts.set(text, read);
  return read;
}

const check = ({ title, servings, lines, steps }: Sound, profile: 'us' | 'uk' = 'us') =>
  checkRecipe({ title, servings, steps, lines: lines.map(draft) }, TYPICAL, profile);
const say = (slips: readonly Slip[]) => slips.map(({ kind, say: said }) => `${kind}: ${said}`).join(' / ');

/** A sound recipe with one slip in it. */
function withSlip({ of, where, to }: (typeof seeded)[number]): Sound {
  const recipe = sound.find(({ title }) => title === of) as Sound;
  const [what = '', place = ''] = where.split(' ');
  const at = Number(place);
  if (what === 'line') return { ...recipe, lines: recipe.lines.map((line, n) => (n === at ? to : line)) };
  if (what === 'step') return { ...recipe, steps: recipe.steps.map((step, n) => (n === at ? to : step)) };
  if (what === 'drop') return { ...recipe, lines: recipe.lines.filter((_, n) => n !== at) };
  if (what === 'add') return { ...recipe, lines: [...recipe.lines, to] };
  return { ...recipe, servings: Number(to) };
}

const KINDS: Readonly<Record<string, string>> = { notlisted: 'not listed', notused: 'not used' };

// Looked at once: of 128 slips in recipes never seen before 111 were found (87 %), of 38 ordinary sound recipes 3 raised an
// alarm, of 45 odd ones (choux, brine, bhajis, pretzels) 9; then mended and added.
describe('recipes labelled before the rules were written', () => {
  const alarms = sound.flatMap((recipe) => {
    const slips = check(recipe);
    return slips.length > 0 ? [`${recipe.title}: ${say(slips)}`] : [];
  });
  const missed = seeded.flatMap((each) => {
    const slips = check(withSlip(each));
    return slips.some(({ kind }) => kind === (KINDS[each.slip] ?? each.slip))
      ? []
      : [`${each.of}, ${each.where}: ${each.to} (${each.slip}); said: ${say(slips)}`];
  });

  it('with a slip in them are caught, nine in ten and more', () => {
    console.info(`Slips: ${seeded.length - missed.length} of ${seeded.length} found; missed:\n${missed.join('\n')}`);
    expect(missed.length / seeded.length).toBeLessThanOrEqual(0.1);
  });

  it('that are sound pass, nineteen in twenty and more', () => {
    console.info(
      `Sound recipes: ${sound.length - alarms.length} of ${sound.length} pass; false alarms:\n${alarms.join('\n')}`,
    );
    expect(alarms.length / sound.length).toBeLessThanOrEqual(0.05);
  });
});

/** One word or figure of a line exchanged for another, as hurried hands do; undefined where it has none. */
const exchange = (from: RegExp, to: string) => (text: string) => (from.test(text) ? text.replace(from, to) : undefined);
const SPOON = /\b(?:tsps?|teaspoons?)\b\.?/i;

describe('a word exchanged in any sound recipe', () => {
  it.each([
    ['line', 'a teaspoon for a cup', exchange(SPOON, 'cups'), 0.95],
    ['line', 'a gram for a kilogram', exchange(/(?<=\d ?)g\b/, 'kg'), 0.97],
    ['line', 'a millilitre for a litre', exchange(/(?<=\d ?)ml\b/, 'l'), 0.95],
    ['line', 'a tablespoon for a cup', exchange(/\b(?:tbsps?|tablespoons?)\b\.?/i, 'cups'), 0.8],
    ['line', 'a cup for a teaspoon', exchange(/\bcups?\b/i, 'tsp'), 0.8],
    ['line', 'a nought too many', exchange(/^(\d+)(?= ?[a-z])/, '$10'), 0.75],
    ['step', 'a minute for an hour', exchange(/\b(?:minutes?|mins?)\b/i, 'hours'), 0.75],
    ['step', 'a second for a minute', exchange(/\b(?:minutes?|mins?)\b/i, 'seconds'), 0.75],
    ['step', '°C for °F', exchange(/(?<=\d{3}) ?°?C\b/, ' °F'), 0.9],
    ['step', 'a figure left out of a temperature', exchange(/(?<=\d\d)0(?= ?°?[CF]\b)/, ''), 0.9],
  ] as const)('is smelled, in a %s, %s', (where, name, slip, least) => {
    let [found, all] = [0, 0];
    for (const recipe of sound) {
      const before = new Set(check(recipe).map(({ key }) => key));
      const texts = where === 'line' ? recipe.lines : recipe.steps;
      for (const [at, text] of texts.entries()) {
        const to = slip(text);
        if (to === undefined) continue;
        const slipped = texts.map((each, n) => (n === at ? to : each));
        const slips = check({ ...recipe, [where === 'line' ? 'lines' : 'steps']: slipped });
        all += 1;
        found += slips.some(({ key }) => !before.has(key)) ? 1 : 0;
      }
    }
    console.info(`${name}: ${found} of ${all} smelled`);
    expect(found / all).toBeGreaterThanOrEqual(least);
  });
});

/** What is said of a recipe of these lines and steps. */
const smell = (lines: readonly string[], steps: readonly string[] = [], servings = 4, profile: 'us' | 'uk' = 'us') =>
  check({ title: '', servings, lines, steps }, profile);
const kinds = (...recipe: Parameters<typeof smell>) => smell(...recipe).map(({ kind }) => kind);

describe('an amount', () => {
  it.each([
    ['1/4 cup salt', 'salt'],
    ['30 cloves garlic', 'garlic'],
    ['3 cups olive oil', 'olive oil'],
    ['4 Tbsp ground cumin', 'ground cumin'],
    ['5 cups granulated sugar', 'granulated sugar'],
    ['30 eggs', 'egg'],
    ['2 cups soy sauce', 'soy sauce'],
  ])('far above what a serving holds is asked about, with the threshold: %s', (line, food) => {
    const [slip] = smell([line]);
    expect(slip).toMatchObject({ kind: 'amount', line: 0, say: expect.stringContaining(food) });
    expect(slip?.why).toMatch(/A serving usually holds at most [\d.]+ g/);
  });

  it.each([
    '1 tsp salt',
    '4 cloves garlic',
    '1/4 cup olive oil',
    '1 Tbsp ground cumin',
    '8 eggs',
    '6 cups vegetable stock',
  ])('that is usual passes: %s', (line) => {
    expect(kinds([line]).filter((kind) => kind !== 'yield')).toEqual([]);
  });

  it('is proposed in the spoon that is mistaken for the other', () => {
    expect(smell(['3 Tbsp salt'])[0]?.repair).toBe('3 tsp salt');
    expect(smell(['1/2 cup chilli powder'])[0]?.repair).toBe('1/2 tsp chilli powder');
    expect(smell(['400 g salt'])[0]?.repair).toBeUndefined();
  });

  it('of leavening is held against the flour, not the servings', () => {
    const dough = (powder: string, servings = 12) =>
      kinds(['3 cups plain flour', `${powder} baking powder`], [], servings);
    expect(dough('1 Tbsp')).toEqual([]);
    expect(dough('3 Tbsp')).toContain('amount');
    expect(dough('3 Tbsp', 40)).toContain('amount');
    expect(kinds(['500 g strong flour', '20 g dried yeast'], [], 12)).toEqual(['amount']);
  });

  it('of liquid that grain cannot cook in is asked about; of grain that comes cooked not', () => {
    expect(kinds(['2 cups basmati rice', '3 tsp water'])).toEqual(['amount']);
    expect(kinds(['2 cups basmati rice', '4 cups water'])).toEqual([]);
    expect(kinds(['2 cups cooked rice', '1 Tbsp water'])).toEqual([]);
    expect(kinds(['2 cups self-raising flour', '3/4 tsp milk'])).toEqual(['amount']);
  });
});

describe('a line', () => {
  it.each([
    ['11/2 cups milk', '1 1/2 cups milk'],
    ['21/4 tsp dried yeast', '2 1/4 tsp dried yeast'],
    ['31/3 cups flour', '3 1/3 cups flour'],
  ])('whose space was lost is proposed with it: %s', (text, repair) => {
    expect(smell([text]).find(({ kind }) => kind === 'fraction')?.repair).toBe(repair);
  });

  it.each(['3/2 cups milk', '10/4 cups milk', '1 1/2 cups milk', '250 g milk'])(
    'that only looks like it is left: %s',
    (text) => {
      expect(kinds([text])).not.toContain('fraction');
    },
  );

  it('with a unit of another food, or a range backwards, is asked about', () => {
    expect(kinds(['3 cloves salt'])).toContain('unit');
    expect(kinds(['2 stalks rice'])).toContain('unit');
    expect(kinds(['5-4 carrots'])).toContain('range');
  });
});

describe('a step', () => {
  const LINES = ['2 carrots', '1 onion', '2 eggs'];

  it('that uses what is not listed, and a line that no step uses, are told', () => {
    expect(kinds(LINES, ['Grate the carrots, fold in the eggs and the feta, add onion.'])).toEqual(['not listed']);
    expect(kinds(LINES, ['Grate the carrots and the onion.'])).toEqual(['not used']);
  });

  it('that means all of them, or does what a food is called, is understood', () => {
    expect(kinds(LINES, ['Mix everything.'])).toEqual([]);
    expect(kinds(LINES, ['Butter a tin. Flour the board.', 'Mix all ingredients.'])).toEqual([]);
  });

  it.each([
    ['Bake at 350 °C for 20 minutes.', 'temperature'],
    ['Bake at 1800 F.', 'temperature'],
    ['Roast at 20 degrees C.', 'temperature'],
    ['Rinse the chicken well.', 'unsafe'],
    ['Let the mince sit on the counter for 5 hours.', 'unsafe'],
    ['Thaw the prawns at room temperature.', 'unsafe'],
    ['Blend the soup while boiling hot.', 'unsafe'],
    ['Taste the raw dough.', 'unsafe'],
    ['Serve with the remaining marinade.', 'unsafe'],
    ['Fry until the yolks are set but keep runny eggs for dipping.', 'unsafe'],
  ])('is told as what it is: %s', (step, kind) => {
    expect(kinds([], [step])).toContain(kind);
  });

  it.each([
    'Bake at 180 °C for 20 minutes.',
    'Bake at 350 °F for 20 minutes.',
    'Cook until 165 °F in the middle.',
    'Wash your hands after the chicken.',
    'Let the dough rest at room temperature overnight.',
    'Cool, fill the blender a third, vent the lid, blend.',
    'Boil the remaining marinade 3 minutes.',
    'Rinse the lentils.',
    'Marinate the chicken in the fridge overnight.',
  ])('that is sound passes: %s', (step) => {
    expect(kinds([], [step]).filter((kind) => kind === 'unsafe' || kind === 'temperature')).toEqual([]);
  });

  it('that bakes a base makes no raw egg on it safe', () => {
    const pots = (last: string) =>
      kinds(
        ['200 g oatcakes', '3 eggs', '100 g dark chocolate'],
        [
          'Preheat the oven to 180 °C.',
          'Bake the crushed oatcakes for 8 minutes.',
          'Whisk the eggs with the chocolate.',
          last,
        ],
      );
    expect(pots('Spread on the base and chill for 4 hours.')).toContain('unsafe');
    expect(pots('Spread on the base. 15 minutes till golden.')).not.toContain('unsafe');
  });

  it('is held against the temperatures of the profile that holds', () => {
    const burger = (step: string, profile: 'us' | 'uk') => kinds(['500 g minced beef'], [step], 4, profile);
    expect(burger('Cook until 70 °C in the middle.', 'us')).toContain('unsafe');
    expect(burger('Cook until 70 °C in the middle.', 'uk')).not.toContain('unsafe');
    expect(burger('Cook until 60 °C in the middle.', 'uk')).toContain('unsafe');
    expect(kinds(['4 chicken breasts'], ['Cook to 160 °F inside.'])).toContain('unsafe');
  });
});

describe('the whole', () => {
  it('weighs what so many can eat', () => {
    expect(kinds(['1 kg potatoes'], [], 60)).toEqual(['yield']);
    expect(kinds(['10 kg potatoes'], [], 6)).toContain('yield');
    expect(kinds(['1 kg potatoes'], [], 5)).toEqual([]);
    expect(
      checkRecipe({ servings: undefined, lines: [draftLine('1 kg potatoes', TYPICAL)], steps: [] }, TYPICAL),
    ).toEqual([]);
  });

  it('goes into the pan that is named', () => {
    expect(kinds(['2 l vegetable stock'], ['Simmer in a 1-litre pan.'])).toContain('pan');
    expect(kinds(['2 l vegetable stock'], ['Simmer in a 4-quart pot.'])).toEqual([]);
  });

  it('keeps the key of a slip while what it is about stays the same', () => {
    const key = (line: string) => smell([line, '1 onion'])[0]?.key;
    expect(key('1/4 cup salt')).toBe(key('¼ cup of salt'));
    expect(key('1/4 cup salt')).not.toBe(key('1/3 cup salt'));
  });
});
