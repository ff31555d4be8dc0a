import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { checkRecipe } from '@/core/recipes/slips';
import { TYPICAL } from '@/core/reference/reference';
import { readIncoming, readIncomingLine } from './recipe-any';
import { writeRecipeFile } from './recipe-json-ld';

const read = (text: string | Uint8Array) =>
  readIncoming(typeof text === 'string' ? new TextEncoder().encode(text) : text, TYPICAL);
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
    ['two recipes at once', JSON.stringify([NODE, NODE]), 'holds 2 recipes'],
    [
      'four hundred lines',
      `Ingredients\n${'1 cup milk\n'.repeat(400)}`,
      '400 ingredient lines are more than a recipe holds',
    ],
    ['a recipe without ingredients', JSON.stringify({ ...NODE, recipeIngredient: [] }), 'No ingredient line was found'],
    [
      'numbers for ingredients',
      JSON.stringify({ ...NODE, recipeIngredient: [1, null, {}] }),
      'No ingredient line was found',
    ],
  ])('that is %s is refused with what to do', (_what, text, message) => {
    expect(() => read(text)).toThrow(message);
  });

  it('of two megabytes of one line, or of brackets, ends in a clear answer', () => {
    expect(() => read('a '.repeat(1_000_000))).toThrow('No ingredient line was found');
    expect(() => read('['.repeat(1_000_000))).toThrow('This is not JSON');
    expect(() => read(`<html>${'<script>'.repeat(200_000)}`)).toThrow('This web page holds no recipe');
  });
});

describe('the recipes of the demo', () => {
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
