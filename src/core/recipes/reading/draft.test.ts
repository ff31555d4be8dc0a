import { describe, expect, it } from 'vitest';
import { TYPICAL } from '../../reference/reference';
import { draftLine, withDetails } from './draft';
import { asNote, asOwnLine, quotedIn, withoutQuoted } from './line-notes';
import { servingsIn, splitRecipeText } from './recipe-text';

const item = (text: string, chosen: (string | null)[] = []) => {
  const [first] = draftLine(text, TYPICAL, chosen).items;
  if (!first) throw new Error('no item');
  return first;
};
const line = (text: string) => {
  const { line: read } = item(text);
  return read
    ? `${read.amount} ${read.unit} ${read.ingredient}${read.preparation ? `, ${read.preparation}` : ''}`
    : '?';
};

describe('an ingredient line', () => {
  it.each([
    ['1 1/2 cups carrots, finely grated', '1 1/2 cup carrot, grated'],
    ['2 cloves garlic', '2 clove garlic'],
    ['3 large eggs', '3 each egg, large, without shell'],
    ['1 large onion, finely chopped', '1 each onion, medium, trimmed'],
    ['2 cups diced carrots', '2 cup carrot, chopped'],
    ['1 cup crushed tomatoes', '1 cup canned chopped tomatoes, with juice'],
    ['juice of 1 lemon', '1 each lemon, juice of one'],
    // Bought dry: 316 g cooked ÷ 2¾.
    ['2 cups cooked rice', '115 g long-grain white rice'],
    ['200 g cooked chicken breast', '267 g chicken breast'],
    ['200 g feta, crumbled', '200 g feta cheese, crumbled'],
    ['salt', '1/4 tsp salt'],
    ['2-3 tsp salt', '2 tsp salt'],
    ['2-3 carrots', '3 each carrot, medium'],
    // The lower end is for what burns or salts, not for the vegetable.
    ['2-3 sweet peppers', '3 each sweet pepper, medium, trimmed'],
    ['1 cup + 2 Tbsp flour', '1 1/8 cup plain wheat flour'],
    ['6-8 large basil leaves, torn', '8 leaf fresh basil'],
    ['2 sticks celery, sliced', '2 stalk celery, medium'],
    ['3 peppers, sliced', '3 each sweet pepper, medium, trimmed'],
    ['2 egg whites', '2 each egg, white'],
    ['grated zest of 2 lemons', '2 each lemon, zest of one'],
    ['zest and juice of 1 lemon', '1 each lemon'],
    ['2 lemons, juiced', '2 each lemon, juice of one'],
    ['100 ml reserved chickpea liquid', '100 ml canned chickpeas, liquid'],
    ['4 cod fillets (125 g each)', '500 g white fish fillet'],
  ])('becomes what can be computed with: %s', (text, wanted) => {
    expect(line(text)).toBe(wanted);
  });

  it.each([
    ['3 eggs', { scaling: 'whole' }, 'kept in whole pieces'],
    ['1 onion, diced', { scaling: 'whole' }, 'kept in whole pieces'],
    ['juice of 1 lemon', { scaling: 'whole' }, 'kept in whole pieces'],
    ['1 tsp salt', { scaling: 'damped', precision: 'tight' }, 'grows by less than the servings'],
    ['2 tsp baking powder', { precision: 'tight' }, 'measured tightly'],
    ['1 Tbsp olive oil, for frying', { scaling: 'per batch' }, 'by the pan'],
    ['1 cup canned chickpeas, drained', { yield_preparation: 'drained' }, 'bought to be drained: 0.6'],
    ['2 Tbsp lemon juice', { yield_preparation: 'juice' }, 'bought to be juice: 0.44'],
    ['2 cups grated carrots', { precision: 'loose' }, 'bought to be peeled and trimmed'],
  ])('is scaled, measured and bought as is usual for its kind, and says so: %s', (text, details, said) => {
    expect(item(text).line).toMatchObject(details);
    expect(item(text).assumed.join('; ')).toContain(said);
  });

  it('with a flexible slot names what fills it first, and what fills it as well', () => {
    const { line: read, assumed } = item('500 g of any of these vegetables: carrots, courgettes or moonroot');
    expect(read).toMatchObject({ ingredient: 'carrot', slot: true, alternatives: [{ ingredient: 'courgette' }] });
    expect(assumed).toContain('“moonroot” is not known and does not fill it');
  });

  it('keeps both ends of a range and its words, and kits use the end that was chosen', () => {
    const carrots = item('2-3 carrots, sliced thinly');
    expect(carrots.line).toMatchObject({
      amount: '3',
      range: { least: '2', most: '3' },
      written: '2-3 carrots, sliced thinly',
    });
    const fewer = withDetails(carrots, TYPICAL, undefined, undefined, 'least');
    expect([fewer.line?.amount, fewer.say.slice(0, 8)]).toEqual(['2', '2 carrot']);
    // Words that say the same are not kept twice.
    expect(item('120 g feta cheese, crumbled').line).not.toHaveProperty('written');
  });

  it('of a cooked amount is bought dry or raw, and says by what factor; a range in the same way', () => {
    const rice = item('1 to 2 cups cooked rice');
    expect(rice.line).toMatchObject({ amount: '115', unit: 'g', range: { least: '57', most: '115' } });
    expect(rice.assumed).toContain('bought dry, 115 g: 316 g cooked ÷ 2¾, a typical factor');
    expect(item('200 g cooked chicken breast').assumed.join()).toContain('bought raw, 267 g');
  });

  it('takes its scaling, supply and alternatives from a person; one that cannot be read is a question', () => {
    const butter = item('100 g butter');
    const given = withDetails(butter, TYPICAL, { pack_grams: '250' }, [
      { text: '80 g olive oil' },
      { text: 'Leave it out' },
    ]);
    expect(given.line).toMatchObject({
      pack_grams: '250',
      alternatives: [{ ingredient: 'olive oil' }, { omit: true }],
    });
    expect(withDetails(given, TYPICAL, {}, []).line).toEqual({ ingredient: 'butter', amount: '100', unit: 'g' });
    const wrong = withDetails(butter, TYPICAL, undefined, [{ text: '3 moonbeams' }]);
    expect([wrong.line, wrong.open]).toEqual([undefined, [expect.stringContaining('Alternative “3 moonbeams”')]]);
  });

  it('of whole cans is sealed: so many units of what one holds', () => {
    expect(item('2 x 400 g tins chickpeas, drained').line).toMatchObject({
      amount: '800',
      unit: 'g',
      sealed_grams: '400',
    });
    expect(item('1 (15 oz) can black beans').line).toMatchObject({ amount: '15', unit: 'oz' });
  });

  it('says what it took for granted: ranges, tastes, letters, sizes', () => {
    expect(item('2-3 carrots').assumed).toContain('of 2 to 3, kits use 3');
    expect(item('salt to taste').assumed).toContain('“to taste” is taken as 1/4 tsp salt');
    expect(item('2 T honey').assumed).toContain('“T” is taken as a tablespoon');
    expect(item('1 large onion').assumed).toContain('weighed as onion, medium, trimmed');
  });

  it('takes the recipe’s own weight of pieces before what the table says of one', () => {
    const { line, assumed } = item('3 potatoes (about 600 g)');
    expect(line).toMatchObject({ ingredient: 'potato', amount: '600', unit: 'g' });
    expect(assumed).toContain('taken by its own weight, 600 g for all of them');
  });

  it.each([
    ['some sweet pepper', /^How much sweet pepper\?/],
    ['1 can tuna', /^How much is one can of canned tuna\?/],
    ['a handful of grapes', /^How much is one handful of grapes\?|^How much does one handful weigh\?/],
    ['3-2 cups milk', /^The range runs backwards: 3 to 2/],
    ['1/0 cup milk', /divides by 0/],
    ['some rice', /^How much long-grain white rice\?/],
    ['1 cup hemp flour', /^Which food is “hemp flour”\?/],
    ['1 cup vegan feta', /^Which food is “vegan feta”\?/],
    ['1 cup dried pineapple', /^Which food is/],
    ['1 slice egg', /^How much does one slice weigh\? Known for egg: each, large, without shell;/],
    ['–', /^Which food is/],
    ['🍋🍋🍋', /^Which food is it\?/],
    ['', /^Which food is it\?/],
    [`1 ${'very '.repeat(300)}carrot`, /^Which food is/],
    ['('.repeat(500), /^Which food is/],
    ['1 כוס חלב', /^Which food is/],
  ])('asks where it cannot know: %s', (text, question) => {
    const { open, line: read } = item(text);
    expect(open.join(' ')).toMatch(question);
    expect(read).toBeUndefined();
  });

  it('says what is usual of a food’s kind where it is not in the table, and nothing of what it holds', () => {
    expect(item('2 cups dragon melon').like).toMatchObject({ name: 'melon', aisle: 'produce', plateGroup: 'fruit' });
    expect(item('2 cups dragon melon').like).not.toHaveProperty('contains');
    expect(item('2 cups zorble').like).toBeUndefined();
  });

  it.each([
    ['1 cup (120 g) flour', '1 cup'],
    ['1 cup (145 g) flour', '145 g'],
    ['1 cup (200 g) flour', 'asked'],
    ['1/4 cup (2 oz) honey', '1/4 cup'],
    ['8 oz/225 g flour', '8 oz'],
    ['8 oz/300 g flour', 'asked'],
    ['500 g (1 lb) minced beef', '500 g'],
    ['500 g (2 lb) minced beef', 'asked'],
    ['3 carrots (about 300 g)', '300 g'],
    ['3 carrots (about 30 g)', 'asked'],
    ['1/4 cup (10 g) basil leaves', '10 g'],
  ])('compares an amount that is said twice: %s is %s', (text, amount) => {
    const { line } = item(text);
    expect(line ? `${line.amount} ${line.unit}` : 'asked').toBe(amount);
  });

  // Each is a food of its own whose name holds, or nearly is, the name of another: a fish is no fruit, a chilli no sweet pepper.
  it.each([
    ...['perch', 'mullet', 'Custard Apple', 'custard apples', 'Chinese Artichokes', 'Cactus Pear', 'prickly pears'],
    ...[
      'Bitter Melon',
      'winter melon',
      'Rose Apples',
      'Malabar spinach',
      'Wild Garlic',
      'Earth Apple',
      'Monkey Orange',
    ],
    ...[
      'Tree Tomatoes',
      'Sea Grapes',
      'ground cherries',
      'Cape gooseberries',
      'hot peppers',
      'peppers, hot',
      'apple cider',
    ],
  ])('never takes %s for another food', (name) => {
    expect(item(`200 g ${name}`).line?.ingredient).toBeUndefined();
  });

  it('takes a food chosen by hand, and holds two where it names two', () => {
    expect(item('2 tsp tumerik').suggestions[0]).toBe('ground turmeric');
    expect(item('2 tsp tumerik', ['ground turmeric']).line).toMatchObject({
      ingredient: 'ground turmeric',
      amount: '2',
    });
    const oneLetterOff = item('2 tsp tumeric');
    expect(oneLetterOff.line?.ingredient).toBe('ground turmeric');
    expect(oneLetterOff.assumed).toContain('“tumeric” is read as turmeric');
    expect(draftLine('salt and pepper to taste', TYPICAL).items.map(({ line: read }) => read?.ingredient)).toEqual([
      'salt',
      'ground black pepper',
    ]);
  });

  it('gives what it names instead as an alternative, for those who must avoid the first', () => {
    expect(item('1 cup milk or soy milk').line?.alternatives).toEqual([
      { ingredient: 'soya drink', amount: '1', unit: 'cup' },
    ]);
    expect(item('1 tsp dried thyme or 1 tablespoon fresh thyme').line?.alternatives).toMatchObject([
      { ingredient: 'fresh thyme', amount: '1', unit: 'Tbsp' },
    ]);
  });
});

describe('a pasted text', () => {
  it('is sorted by its headings, sections and all', () => {
    const read = splitRecipeText(
      'Pier Soup\n\nServes 4–6\n\nIngredients\nFor the soup:\n2 carrots\n1 onion\nFor the top:\na little cream\n\nMethod\n1. Chop.\n2) Simmer for 20 minutes.\nNotes\nKeeps two days.',
    );
    expect(read).toEqual({
      title: 'Pier Soup',
      servings: 4,
      lines: [
        { text: '2 carrots', section: 'For the soup' },
        { text: '1 onion', section: 'For the soup' },
        { text: 'a little cream', section: 'For the top' },
      ],
      steps: ['Chop.', 'Simmer for 20 minutes.'],
    });
  });

  it('without headings is sorted by what its lines look like', () => {
    const read = splitRecipeText(
      'Oat squares\r\n2 cups oats\r\n1/2 cup honey\r\nsalt\r\nMix everything in a bowl and press it into a tin.\r\nBake for 20 minutes.',
    );
    expect(read.title).toBe('Oat squares');
    expect(read.lines.map(({ text }) => text)).toEqual(['2 cups oats', '1/2 cup honey', 'salt']);
    expect(read.steps).toHaveLength(2);
    expect(read.servings).toBeUndefined();
  });

  it.each([
    ['Serves 4', 4],
    ['Makes: 12', 12],
    ['4-6 servings', 4],
    ['Yield: 8', 8],
    ['For 25 children', 25],
    ['Serves 0', undefined],
    ['Bake 20 minutes', undefined],
  ])('says its servings: %s', (text, servings) => {
    expect(servingsIn(text)).toBe(servings);
  });

  it.each([
    ['Prep 20 mins Cook 15 mins Serves 4', 4],
    ['Prep time: 20 min | Cook time: 1 hr 10 min | Serves: 4–6', 4],
    ['Ready in 45 minutes · Difficulty: easy · Makes 12', 12],
    ['PREPARATION 10 MINUTES', undefined],
  ])('takes what stands above a recipe in one row for what it is: %s', (row, servings) => {
    const read = splitRecipeText(
      `Pier Soup\n${row}\n2 carrots\n1 onion\nChop everything and simmer it for 20 minutes.`,
    );
    expect(read).toMatchObject({
      title: 'Pier Soup',
      servings,
      steps: ['Chop everything and simmer it for 20 minutes.'],
    });
    expect(read.lines.map(({ text }) => text)).toEqual(['2 carrots', '1 onion']);
  });

  it('is put together again where a scan or a page broke it: letters for figures, hyphens, rows, two columns', () => {
    const scanned = splitRecipeText(
      [
        'ONlON PIE',
        'Serves 4',
        'lNGREDlENTS',
        '25Og shortcrust pastry        l tbsp oil',
        '2 large onions        3 eggs',
        '½ tsp mus-',
        'tard',
        'METHOD',
        '1 Heat the oven to 18O C. Line a 2O cm tin with',
        'the pastry and bake blind for',
        '15 minutes. Soften the onions.',
        '2 Beat the eggs and the mustard. Pour over, and bake for 3O min-',
        'utes.',
      ].join('\n'),
    );
    expect(scanned.title).toBe('ONION PIE');
    expect(scanned.lines.map(({ text }) => text)).toEqual([
      '250g shortcrust pastry',
      'l tbsp oil',
      '2 large onions',
      '3 eggs',
      '½ tsp mustard',
    ]);
    expect(scanned.steps).toEqual([
      'Heat the oven to 180 C. Line a 20 cm tin with the pastry and bake blind for 15 minutes. Soften the onions.',
      'Beat the eggs and the mustard. Pour over, and bake for 30 minutes.',
    ]);
  });

  it('stays in the rows of a note, which has no stops', () => {
    const note =
      'fried rice for 2\n\nleftover rice, 300g\n2 eggs\n\nget the pan really hot, oil in, then the rice\nstir fry 3 mins til hot all through\npush to side, scramble the eggs';
    expect(splitRecipeText(note).steps).toHaveLength(3);
  });

  it('of two megabytes is sorted without harm', () => {
    expect(splitRecipeText('1 cup milk\n'.repeat(50_000)).lines).toHaveLength(50_000);
  });
});

describe('words that a line is asked about', () => {
  const TEXT = '2 red peppers (tatashe), sliced';
  const asked = (text: string) => draftLine(text, TYPICAL).items.flatMap(({ open }) => open);

  it('are quoted, and kept as a note when they say how it comes', () => {
    const [question = ''] = asked(TEXT);
    expect(quotedIn(question)).toBe('tatashe');
    const note = asNote(TEXT, 'tatashe') ?? '';
    expect(note).toBe('2 red peppers, sliced (note: tatashe)');
    expect(asked(note)).toEqual([]);
  });

  it('stay asked about when they name a food, whatever somebody says', () => {
    expect(asked('2 red peppers, sliced (note: with peanuts)')).not.toEqual([]);
  });

  it('are taken out of the line when they are another food', () => {
    expect(withoutQuoted('1 stock cube, paprika', 'paprika')).toBe('1 stock cube');
    expect(asOwnLine('plus extra almonds to top')).toBe('almonds to top');
    expect(withoutQuoted('200 g flour (with nuts of any kind)', 'nuts kind')).toBeUndefined();
  });
});

describe('a row of a pasted recipe that names a food', () => {
  it.each([
    'ALMONDS',
    'Nuts:',
    'peanuts:',
    'Fish sauce:',
    'custard',
    'CHEESE',
    'Chop walnuts',
    '2 string cheese',
    '8 chicken skewers',
    '4 tortillas · 2 carrots · 100 g peanuts',
    'Note: contains peanuts',
  ])('is no heading, no tool and no fact: %s', (row) => {
    const { lines, steps } = splitRecipeText(`Platter\nServes 4\n${row}\n2 parsnips\n1 onion\nServe.`);
    const kept = [...lines.map(({ text }) => text), ...steps].join(' ').toLowerCase();
    for (const word of row.toLowerCase().match(/\p{L}{4,}/gu) ?? []) expect(kept).toContain(word);
    expect(steps.join(' ')).not.toContain('Have ready');
  });

  it('is passed by no remark that another will do', () => {
    expect(draftLine('2 eggs (peanuts is fine)', TYPICAL).items.flatMap(({ open }) => open)).not.toEqual([]);
    expect(draftLine('200 ml milk (almond milk is ok)', TYPICAL).items.flatMap(({ open }) => open)).not.toEqual([]);
  });
});
