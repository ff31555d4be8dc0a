import { readdirSync, readFileSync } from 'node:fs';
import { zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { draftLine, withDetails } from '@/core/recipes/reading/draft';
import { labelsOf, withoutLabels } from '@/core/recipes/reading/line-details';
import type { WrittenLine } from '@/core/recipes/recipe/recipe';
import { checkRecipe } from '@/core/recipes/slips/slips';
import { planSteps } from '@/core/recipes/steps/step-reader';
import { TYPICAL } from '@/core/reference/reference';
import type { IncomingRecipe } from './incoming-recipe';
import { readIncoming, readIncomingLine } from './recipe-any';
import { writeRecipeCsv } from './recipe-csv';
import { readRecipeFile, writeRecipeFile } from './recipe-json-ld';

const encode = (text: string) => new TextEncoder().encode(text);
const all = (text: string | Uint8Array) => readIncoming(typeof text === 'string' ? encode(text) : text, TYPICAL);
const read = (text: string | Uint8Array) => all(text)[0]?.recipe as IncomingRecipe;
const texts = (text: string | Uint8Array) => read(text).lines.map((line) => line.text);
const NODE = {
  '@context': 'https://schema.org',
  '@type': 'Recipe',
  name: 'Quay cake',
  recipeYield: '8',
  recipeIngredient: ['2 cups flour', '1 cup milk or soy milk', '1 pinch of luck'],
  recipeInstructions: [
    { '@type': 'HowToStep', text: 'Mix.' },
    { '@type': 'HowToStep', text: 'Bake.' },
  ],
};
const page = (...scripts: string[]) =>
  `<!DOCTYPE html><html><head>${scripts.map((json) => `<script type="application/ld+json">${json}</script>`).join('')}</head><body><p>1 cup of advertisement</p></body></html>`;

/** A page with a recipe in its elements, one in RDFa, one deep in its data, one in a comment, and a hidden row. */
const PAGE = `<!DOCTYPE html><html itemscope itemtype="https://schema.org/WebPage"><body>
<!-- <script type="application/ld+json">{"@type":"Recipe","name":"Old","recipeIngredient":["1 cup sand"]}</script> -->
<div itemscope itemtype="http://schema.org/Recipe"><h1 itemprop="name">Fish &amp; chips</h1>
<b itemprop="author" itemscope itemtype="Person"><i itemprop="name">Ann</i></b><meta itemprop="recipeYield" content="4 servings">
<time itemprop="prepTime" datetime="PT20M">20 min</time><ul><li itemprop="recipeIngredient">&frac12; cup flour
<li itemprop="recipeIngredient">4 <b>cod</b> fillets</li><li itemprop="recipeIngredient" style="display:none">sugar</li></ul>
<div itemprop="recipeInstructions"><p>Flour the fish.</p><p>Fry it.</p></div></div>
<div typeof="Recipe"><p property="name">Slaw</p><p property="ingredients">2 carrots</p></div>
<script type="application/ld+json">{"@graph":[{"@type":"WebPage","mainEntity":{"@type":["Recipe"],"name":"Deep &amp;frac12; soup",
"recipeYield":["24 buns","8 servings"],"totalTime":"PT1H10M","recipeIngredient":["1 &frac12; cups milk",
{"@type":"HowToSupply","name":"leeks","requiredQuantity":"2"},["1 onion"],{"x":1}],
"recipeInstructions":{"@type":"ItemList","itemListElement":[{"text":"<p>Boil.</p>"}]}}}]}</script></body></html>`;

describe('a web page', () => {
  it('gives every recipe that it marks up, with its letters and times, and nothing that is hidden or put away', () => {
    const found = all(PAGE).map(({ recipe }) => recipe);
    expect(
      found.map((recipe) => [recipe?.title, recipe?.servings, recipe?.lines.map(({ text }) => text), recipe?.steps]),
    ).toEqual([
      // Buns and servings are two numbers: how many it serves is asked. What is no ingredient is shown as it stands.
      ['Deep ½ soup', undefined, ['1 ½ cups milk', '2 leeks', '1 onion', '{"x":1}'], ['Boil.']],
      ['Fish & chips', 4, ['½ cup flour', '4 cod fillets'], ['Flour the fish.', 'Fry it.']],
      ['Slaw', undefined, ['2 carrots'], []],
    ]);
    expect(found.map((recipe) => recipe?.description)).toEqual([
      'In all 1 hour 10 minutes.',
      'Preparation 20 minutes.',
      '',
    ]);
  });
});

describe('a recipe from anywhere', () => {
  it('is told apart by what it begins with', () => {
    expect(read(JSON.stringify(NODE)).title).toBe('Quay cake');
    expect(read(page(JSON.stringify(NODE))).title).toBe('Quay cake');
    expect(read('Quay cake\nServes 8\nIngredients\n2 cups flour').title).toBe('Quay cake');
  });

  it('in a web page is the one that its maker put there for programs, among whatever else is there', () => {
    const { title, servings, lines, steps } = read(
      page(
        '{ broken',
        JSON.stringify({ '@type': 'WebSite' }),
        JSON.stringify({ '@graph': [{ '@type': 'Person' }, NODE] }),
      ),
    );
    expect([title, servings, lines.length, steps]).toEqual(['Quay cake', 8, 3, ['Mix.', 'Bake.']]);
  });

  it('keeps the lines that nobody can read yet, as questions', () => {
    const { lines } = read(JSON.stringify(NODE));
    const open = lines.map((line) => readIncomingLine(line, TYPICAL).items.flatMap((item) => item.open).length);
    expect(open).toEqual([0, 0, 1]);
  });

  it('without its servings says so', () => {
    expect(read(JSON.stringify({ ...NODE, recipeYield: undefined })).servings).toBeUndefined();
    expect(read('Ingredients\n1 cup milk').servings).toBeUndefined();
  });

  it('of ours comes back settled, line by line, with all that its lines say', () => {
    const body = {
      servings: 4,
      steps: ['Mix.'],
      lines: [
        { ingredient: 'salt', amount: '1/2', unit: 'tsp', scaling: 'damped' as const, precision: 'tight' as const },
        {
          ingredient: 'carrot',
          preparation: 'grated',
          amount: '2',
          unit: 'cup',
          alternatives: [{ omit: true as const }],
        },
      ],
    };
    const { lines } = read(writeRecipeFile('Salted carrots', body));
    expect(lines.map(({ settled }) => settled)).toEqual(body.lines);
    const [item] = readIncomingLine(lines[0] as never, TYPICAL).items;
    expect([item?.say, item?.open]).toEqual(['½ tsp salt', []]);
  });

  it('of ours asks whether its labels are those of the products used here; they stay, or are left out', () => {
    const milk = { ingredient: 'milk', amount: '1', unit: 'cup' };
    const oat = { ingredient: 'oat drink', amount: '1', unit: 'cup', label: [] };
    const body = { servings: 4, steps: [], lines: [{ ...milk, alternatives: [oat] }, milk] };
    const [labelled, plain] = read(writeRecipeFile('Porridge', body)).lines;
    const [asked] = readIncomingLine(labelled as never, TYPICAL).items;
    expect(asked).toMatchObject({ line: undefined, open: [expect.stringContaining('oat drink: names no allergen')] });
    expect(readIncomingLine({ ...labelled, labelIsOpen: false } as never, TYPICAL).items[0]?.line).toEqual(
      body.lines[0],
    );
    expect(readIncomingLine(plain as never, TYPICAL).items[0]?.open).toEqual([]);
    const without = withoutLabels(labelled?.settled as WrittenLine);
    expect([labelsOf(without), without.alternatives]).toEqual([[], [{ ...oat, label: undefined }]]);
  });

  it('is read in the encodings that programs write', () => {
    const text = 'Crème\nServes 2\nIngredients\n½ cup crème fraîche\n2 jalapeños, sliced';
    const utf16 = new Uint8Array([0xff, 0xfe, ...new Uint8Array(Buffer.from(text, 'utf16le'))]);
    const latin = new Uint8Array(Buffer.from(text, 'latin1'));
    expect(texts(utf16)).toEqual(['½ cup crème fraîche', '2 jalapeños, sliced']);
    expect(texts(latin)).toEqual(['½ cup crème fraîche', '2 jalapeños, sliced']);
  });

  it('with emoji, marks of direction, bullets and odd spaces is read as if they were not there', () => {
    expect(
      texts(
        'Cake 🎂\nIngredients:\n🥚 2 eggs\n• 1\u00a0cup\u2009milk\n\u202b1 cup flour\u202c\n☐ 1 tsp salt\n3) 2 carrots',
      ),
    ).toEqual(['2 eggs', '1 cup milk', '1 cup flour', '1 tsp salt', '2 carrots']);
  });

  it.each([
    ['nothing', '', 'There is nothing to read'],
    ['a title alone', 'Soup', 'No ingredient line was found'],
    ['a web page without a recipe', page('{"@type":"WebPage"}'), 'This web page holds no recipe'],
    ['JSON that is no recipe', '{"@type":"HowTo"}', 'No schema.org Recipe'],
    ['JSON cut off', '{"@type":"Recipe", "name":', 'This is not JSON'],
    [
      'four hundred lines',
      `Ingredients\n${'1 cup milk\n'.repeat(400)}`,
      '400 ingredient lines are more than a recipe holds',
    ],
    ['a recipe without ingredients', JSON.stringify({ ...NODE, recipeIngredient: [] }), 'No ingredient line was found'],
    ['a page of boxes in boxes', `<!doctype html>${'<div>'.repeat(300_000)}`, 'deeper than any page'],
  ])('that is %s is refused with what to do', (_what, text, message) => {
    expect(() => read(text)).toThrow(message);
  });

  it('of two megabytes of one line, or of brackets, ends in a clear answer', () => {
    expect(() => read('a '.repeat(1_000_000))).toThrow('No ingredient line was found');
    expect(() => read('['.repeat(1_000_000))).toThrow('This is not JSON');
    expect(() => read(`<html>${'<script>'.repeat(200_000)}`)).toThrow('This web page holds no recipe');
  });
});

describe('several recipes at once', () => {
  const TABLE =
    'Recipe;Serves;Ingredient;Amount;Unit;Prep;Method\nPier soup;4;carrot;2;cup;grated;Simmer it all.\n;;salt;1/2;tsp;;\nSlip salad;2;"cucumber";1;;sliced;Toss.\n';

  it('come in as a table of any headings, a row for each ingredient', () => {
    const found = all(TABLE);
    expect(found.map(({ recipe }) => [recipe?.title, recipe?.servings, recipe?.steps])).toEqual([
      ['Pier soup', 4, ['Simmer it all.']],
      ['Slip salad', 2, ['Toss.']],
    ]);
    expect(texts(TABLE)).toEqual(['2 cup carrot, grated', '1/2 tsp salt']);
  });

  it('come in as a list of JSON-LD, and in an archive, each that cannot be used with its reason', () => {
    expect(all(JSON.stringify([NODE, { ...NODE, name: 'Other cake' }]))).toHaveLength(2);
    const archive = zipSync({
      'cake.json': encode(JSON.stringify(NODE)),
      'notes/soup.txt': encode('Soup\nServes 2\nIngredients\n2 cups milk'),
      'table.csv': encode(TABLE),
      'picture.png': new Uint8Array([0x89, 0x50, 0, 0]),
      '__MACOSX/cake.json': new Uint8Array([0]),
    });
    const found = all(archive).map(({ from, recipe, problem }) => [from, recipe?.lines.length ?? problem]);
    expect(found).toEqual([
      ['cake.json: Quay cake', 3],
      ['notes/soup.txt: Soup', 1],
      ['picture.png', expect.stringContaining('not a text file')],
      ['table.csv: Pier soup', 2],
      ['table.csv: Slip salad', 1],
    ]);
  });

  it('in an archive that would unpack to too much, is broken, or holds an archive, are refused', () => {
    const bomb = zipSync({ 'a.txt': new Uint8Array(25 * 1024 * 1024) });
    expect(bomb.length).toBeLessThan(100_000);
    expect(() => all(bomb)).toThrow('unpacks to more than 20 MB');
    const many = Object.fromEntries(Array.from({ length: 101 }, (_, n) => [`${n}.txt`, encode('x')]));
    expect(() => all(zipSync(many))).toThrow('more than 100 files');
    expect(() => all(zipSync({ 'a.txt': encode('Soup') }).subarray(0, 40))).toThrow('broken or has a password');
    // An archive that says less of itself than it holds is not unpacked beyond what it says.
    const lying = zipSync({ 'a.txt': encode('Ingredients\n1 cup milk\n'.repeat(5000)) }).slice();
    const end = lying.length - 22;
    const central = new DataView(lying.buffer).getUint32(end + 16, true);
    new DataView(lying.buffer).setUint32(central + 24, 10, true);
    expect(() => all(lying)).toThrow();
    expect(() => all(zipSync({ 'b.zip': zipSync({ 'a.txt': encode('x') }) }))).toThrow('An archive inside an archive');
  });

  it('go out as a table and come back the same, with what their words do not say', () => {
    const body = {
      servings: 4,
      steps: ['Mix.', '=Bake'],
      lines: [
        { ingredient: 'salt', amount: '1/2', unit: 'tsp', scaling: 'per batch', batch_servings: 8 },
        {
          ingredient: 'plain yogurt',
          amount: '1 1/3',
          unit: 'cup',
          pack_grams: '500',
          alternatives: [{ ingredient: 'firm tofu', amount: '3/4', unit: 'cup', preparation: 'cubed' }, { omit: true }],
        },
      ] as WrittenLine[],
    };
    const back = read(writeRecipeCsv('Cups', body));
    expect([back.title, back.servings, back.steps]).toEqual(['Cups', 4, body.steps]);
    const lines = back.lines.flatMap(({ text, details, alternatives }) =>
      draftLine(text, TYPICAL).items.map((item) => withDetails(item, TYPICAL, details, alternatives).line),
    );
    expect(lines).toEqual(body.lines);
  });
});

/** Of each demo recipe, step by step: what must be done before, minutes by hand and alone, heat, and from what age. */
const AS_TAUGHT: Readonly<Record<string, readonly string[]>> = {
  'cove-chickpea-curry': ['[] 8+0 none 7', '[1] 6+0 hob 18', '[2] 1+0 hob 10', '[1,3] 1+0 hob 10', '[4] 2+20 hob 10'],
  'gangway-green-rice': [
    '[] 2+0 none 3',
    '[1] 2+12 hob 10',
    '[] 6+0 none 7',
    '[2,3] 3+5 none 3',
    '[4] 3+0 none 3',
    '[5] 1+0 none 3',
  ],
  'harbour-lentil-pot': ['[] 2+0 none 3', '[] 8+0 hob 18', '[1,2] 1+0 hob 10', '[3] 2+30 hob 10'],
  'lighthouse-pasta': ['[] 1+10 hob 10', '[] 4+10 hob 10', '[1,2] 3+2 none 3'],
  'slipknot-seed-rolls': [
    '[] 3+0 none 3',
    '[1] 10+0 none 3',
    '[2] 2+60 none 3',
    '[3] 5+0 none 3',
    '[4] 2+20 none 3',
    '[5] 2+15 oven 18',
  ],
  'sweetcorn-fritters': ['[] 2+720 none 3', '[1] 3+0 none 3', '[2] 6+0 hob 18'],
};

describe('the recipes of the demo', () => {
  it.each(Object.entries(AS_TAUGHT))('%s is planned as it is taught', (name, wanted) => {
    const reading = readRecipeFile(new Uint8Array(readFileSync(`demo/recipes/${name}.json`)), TYPICAL);
    const body = 'file' in reading ? reading.file.body : { steps: [], lines: [] };
    const ingredients = body.lines.map(({ ingredient }) => ingredient);
    const steps = planSteps({ steps: body.steps, ingredients }, TYPICAL);
    const said = steps.map(
      ({ after, handsOn, handsOff, heat, fromAge }) =>
        `[${after.map((at) => at + 1)}] ${handsOn}+${handsOff} ${heat} ${fromAge}`,
    );
    expect(said).toEqual(wanted);
  });

  it('smell of no slip', () => {
    for (const name of readdirSync('demo/recipes')) {
      const { title, servings, lines, steps } = read(new Uint8Array(readFileSync(`demo/recipes/${name}`)));
      const checked = lines.map((line) => readIncomingLine(line, TYPICAL));
      const slips = checkRecipe({ servings, lines: checked, steps }, TYPICAL);
      expect(
        slips.map(({ say }) => say),
        title,
      ).toEqual([]);
    }
  });
});

describe('what a page or a scan has beside its recipe', () => {
  const read = (text: string) => readIncoming(new TextEncoder().encode(text), TYPICAL).map(({ recipe }) => recipe);

  it('under the old name and the new one of an ingredient is all taken', () => {
    const [recipe] = read(
      '<div itemscope itemtype="https://schema.org/Recipe"><h1 itemprop="name">Pea soup</h1><p itemprop="recipeIngredient">500 g peas</p><p itemprop="ingredients">1 onion</p></div>',
    );
    expect(recipe?.lines.map(({ text }) => text)).toEqual(['500 g peas', '1 onion']);
  });

  it('is read as one reads it where it says nothing to programs, without its menus', () => {
    const [recipe] = read(
      '<html><nav>Ingredients of the week</nav><h1>Tomato salad</h1><p>Serves 4</p><h2>Ingredients</h2><ul><li>4 tomatoes</li><li>2 tbsp oil</li></ul><h2>Method</h2><p>Slice and dress.</p><h2>Comments</h2><p>Lovely!</p><footer>Cookies</footer></html>',
    );
    expect(recipe).toMatchObject({ title: 'Tomato salad', servings: 4, steps: ['Slice and dress.'] });
    expect(recipe?.lines).toHaveLength(2);
  });

  it('in one row is parted, noughts of a scan are noughts, and what a note tells to do is a step', () => {
    const [pudding] = read(
      'Rice pudding Prep 5 mins Cook 90 mins Serves 4\nIngredients: 1OO g rice; 700 ml milk\nMethod: Bake at 15O C for 90 minutes.',
    );
    expect(pudding).toMatchObject({
      title: 'Rice pudding',
      servings: 4,
      lines: [{ text: '100 g rice' }, { text: '700 ml milk' }],
      steps: ['Bake at 150 C for 90 minutes.'],
    });
    expect(read('mug cake for 1\n4 tbsp flour, 1 egg\nmix in a mug\nmicrowave 3 mins')[0]?.steps).toHaveLength(2);
  });
});
