import { describe, expect, it } from 'vitest';
import { judge, type Labelled, sayFigures } from '../../../../tests/lines/judge';
import lines from '../../../../tests/lines/labelled.json';
import said from '../../../../tests/lines/said.json';
import three from '../../../../tests/lines/three.json';
import unseen from '../../../../tests/lines/unseen.json';
import whole from '../../../../tests/lines/whole.json';
import { parseAmount } from '../../quantity/amount';
import { equals, type Rational, toDecimal, toText } from '../../quantity/rational';
import { TYPICAL } from '../../reference/reference';
import { plainNumber } from './amount-reader';
import { draftLine } from './draft';
import { type ReadPart, readLine } from './line-reader';

/** Lines with what they say: amount, unit, food, preparation; written before the reader was. */
const labelled = lines as [text: string, amount: string, unit: string, ingredient: string, preparation: string][];

const sayAmount = ({ amount }: ReadPart) =>
  !amount
    ? ''
    : equals(amount.least, amount.most)
      ? toText(amount.least)
      : `${toText(amount.least)}-${toText(amount.most)}`;
const exact = (amount: string) =>
  amount === ''
    ? ''
    : amount
        .split(/(?<=\d)-(?=\d)/)
        .map((end) => toText(parseAmount(plainNumber(end))))
        .join('-');

/** What the reader made of a line, in the columns of the labelled set. */
function understood(text: string): string[] {
  const { parts } = readLine(text, TYPICAL);
  const [first] = parts as [ReadPart];
  return [
    sayAmount(first),
    first.unit?.key ?? first.vague,
    parts.map(({ ingredient }) => ingredient ?? '?').join(' & '),
    parts
      .map(({ preparation }) => preparation)
      .filter(Boolean)
      .join(', '),
  ];
}

/** Lines that come out otherwise than labelled, said so that one sees why. */
const misread = (set: typeof labelled) =>
  set.flatMap(([text, amount, unit, ingredient, preparation]) => {
    const wanted = [exact(amount), unit, ingredient, preparation];
    const got = understood(text);
    return JSON.stringify(got) === JSON.stringify(wanted)
      ? []
      : [`${text}\n   got ${got.join(' | ')}\n   not ${wanted.join(' | ')}`];
  });

describe('labelled lines', () => {
  it.each([
    ['the set the reader was written for', labelled, 0.98],
    ['a second set, labelled before the reader met it', unseen as typeof labelled, 0.9],
  ] as const)('are read right: %s', (name, set, least) => {
    const wrong = misread(set);
    console.info(`${name}: ${set.length - wrong.length} of ${set.length} right\n${wrong.join('\n')}`);
    expect(1 - wrong.length / set.length).toBeGreaterThanOrEqual(least);
  });
});

/** What a line holds in all, as it is computed with; "asked" while anything of it is open. */
function inAll(text: string): string[] | 'asked' {
  const { items } = draftLine(text, TYPICAL);
  if (items.some(({ line }) => !line)) return 'asked';
  return items.map(({ line }) => `${toText(parseAmount(line?.amount ?? ''))} ${line?.unit} ${line?.ingredient}`);
}

describe('a second food, however it is joined to a line', () => {
  const LINES = [
    '200 g plain flour',
    '2 cups rolled oats',
    '3 bananas',
    '4 chicken breasts',
    '150 g plain yogurt',
    '6 corn tortillas',
  ];
  const FOODS = ['peanuts', 'almonds', 'sesame seeds', 'prawns', 'soy sauce', 'tahini', 'fish sauce'];

  it.each([
    ', plus FOOD',
    ' and FOOD',
    ' with FOOD',
    ' + FOOD',
    ', plus extra FOOD',
    ', plus some more FOOD',
    ', plus extra FOOD to serve',
    ', plus a handful of FOOD to serve',
    ', and a few FOOD on top',
    ', topped with FOOD',
    ' rolled in FOOD',
    ' stuffed with FOOD',
    ' (with FOOD)',
    ', dusted with FOOD',
    ' tossed in FOOD',
    '; FOOD',
    ', FOOD',
    ' (FOOD)',
    ' [FOOD]',
    ', FOOD optional',
    ', until mixed with FOOD',
    ' depending on FOOD',
    ', see FOOD below',
    ', as well as FOOD',
    ', a little FOOD',
    ', bound with FOOD',
    ', chopped FOOD',
    ' - FOOD',
    ', served with FOOD',
    ', together with FOOD',
    ', finished with FOOD',
  ])('is read, or asked about: %s', (joined) => {
    const lost = LINES.flatMap((line) =>
      FOODS.map((food) => [`${line}${joined.replace('FOOD', food)}`, food] as const),
    ).filter(([text, food]) => {
      const { items } = draftLine(text, TYPICAL);
      const held = JSON.stringify(items.map(({ line }) => [line?.ingredient, line?.alternatives]));
      return items.every(({ line, open }) => line && open.length === 0) && !held.includes(food);
    });
    expect(lost.map(([text]) => text)).toEqual([]);
  });

  it('that cannot stand in by the same measure is said to be left out', () => {
    const [item] = draftLine('1 egg or peanuts', TYPICAL).items;
    expect(item?.assumed.join(' ')).toContain('“peanuts” is left out');
  });
});

describe('how a food comes', () => {
  it('is understood in any words, nineteen times in twenty, and asked about where it may add to the line', () => {
    const texts = Object.entries(said).flatMap(([food, ways]) =>
      ways.map((way) => `${food}${way.startsWith('(') ? ' ' : ', '}${way}`),
    );
    const asked = texts.filter((text) => draftLine(text, TYPICAL).items.some(({ open }) => open.length > 0));
    // Looked at once: 28 of the first 273 asked about, 15 of the 175 after them.
    console.info(`${asked.length} of ${texts.length} asked about:\n${asked.join('\n')}`);
    expect(asked.length / texts.length).toBeLessThanOrEqual(0.05);
    expect(asked).toEqual(expect.arrayContaining(['2 eggs, plus 1 for glazing', '400 g potatoes, new']));
  });
});

describe('one amount in the ways it is written', () => {
  it.each([
    ['0.75', '3/4 cup|¾ cup|0.75 cup|.75 cup|three quarters of a cup|three-quarters cup|3⁄4 cup|3 / 4 cup|¾cup'],
    [
      '1.5',
      '1 1/2 cups|1½ cups|1 ½ cups|1-1/2 cups|1 and 1/2 cups|one and a half cups|1.5 cups|1,5 cups|1+1/2 cups|1 & 1/2 cups',
    ],
    [
      '2',
      '2 cups|two cups|2cups|2 x 1 cup|a couple of cups|2 level cups|about 2 cups|2 (two) cups|two (2) cups|exactly 2 cups',
    ],
    ['0.25', '1/4 cup|¼ cup|a quarter cup|a quarter of a cup|one fourth cup|one quarter of a cup'],
    ['0.125', '1/8 cup|⅛ cup|an eighth of a cup'],
  ])('is %s cup of milk: %s', (cups, ways) => {
    for (const way of ways.split('|')) {
      const [item] = draftLine(`${way} milk`, TYPICAL).items;
      expect([way, Number(toDecimal(parseAmount(item?.line?.amount ?? '0'), 3)), item?.line?.unit]).toEqual([
        way,
        Number(cups),
        'cup',
      ]);
    }
  });

  it.each([
    ['1,000 g potatoes', '1000', 'g'],
    ['1.000 g potatoes', '1000', 'g'],
    ['1 000 g potatoes', '1000', 'g'],
    ['1,250 kg potatoes', '1 1/4', 'kg'],
    ['1.250 kg potatoes', '1 1/4', 'kg'],
    ['2 200 g tins tuna', '400', 'g'],
    ['400g x2 tins chopped tomatoes', '800', 'g'],
    ['100 g x 3 potatoes', '300', 'g'],
  ])('has its thousands and its decimals: %s', (text, amount, unit) => {
    expect(draftLine(text, TYPICAL).items[0]?.line).toMatchObject({ amount, unit });
  });
});

describe('a cooked amount', () => {
  // Of rice, pasta and pulses it is a third to a half as much that is bought: to take it as dry is three kits for one.
  const SWELL =
    / rice$|pasta|noodles$|lentils$| dal$|split peas|^dried .*(?:beans|chickpeas)|couscous|quinoa|bulgur|farro|millet/;
  const foods = TYPICAL.ingredients.filter(({ name, aisle }) => aisle === 'dry' && SWELL.test(name));

  it.each(foods.map(({ name }) => [name]))('of %s is bought dry, or asked about', (name) => {
    for (const amount of ['300 g', '2 cups', '2 cups cold', '2 cups (320 g)', '320 g/2 cups', '1 cup (about 180 g)']) {
      const [item] = draftLine(`${amount} cooked ${name}`, TYPICAL).items;
      const line = item?.line;
      if (!line) expect(item?.open).not.toEqual([]);
      else expect([line.unit, Number(line.amount) < 210, line.preparation]).toEqual(['g', true, undefined]);
    }
  });
});

describe('a line with a second food, a double measure, or a word that nothing is known of', () => {
  it.each(Object.entries(whole as unknown as Record<string, [text: string, holds: string[] | string][]>))(
    'is read whole or asked about: %s',
    (name, set) => {
      const wrong = set.filter(([text, holds]) => JSON.stringify(inAll(text)) !== JSON.stringify(holds));
      const said = wrong.map(([text]) => `${text}\n   got ${inAll(text)}`);
      console.info(`${name}: ${set.length - wrong.length} of ${set.length} right\n${said.join('\n')}`);
      expect(wrong.length / set.length).toBeLessThanOrEqual(0.1);
      // To be asked too often is a nuisance; to lose a food is none.
      const foods = (holds: string[] | string) => (Array.isArray(holds) ? holds.length : Number.POSITIVE_INFINITY);
      for (const [text, holds] of wrong)
        expect(foods(inAll(text)) >= Math.min(foods(holds), 2), `${text}: ${inAll(text)}`).toBe(true);
    },
  );
});

describe('lines as blogs, notebooks, packets, community cookbooks, scans and telephones have them', () => {
  // Looked at once, "once" came out right 113 times of 126, asked though it was said 6 times, and wrong unasked 7 times.
  // Three more sets went the same way before they were added to "work": 104 lines came out 78 % right, then 75 lines 72 %,
  // then 103 lines 95 %, then 79 lines 85 %, then 80 lines 96 %; of these last three 17 asked though said and 2 wrong.
  // Then 101 lines came out 93 % right and 118 lines 89 % with one wrong each (pumpkin for pumpkin seeds, a thumb of ginger as a
  // whole one); 104 sought-out ways of writing 84 %; 116 lines of twelve everyday recipes 97 %, three asked though said, none wrong.
  // Of 110 lines after that 88 % and of 105 more 82 %, two wrong in each (cooked behind the comma, fresh yeast, a bird's own weight,
  // what was left over): ways of writing again, not foods. Then 80 lines 92 %, 60 lines 88 % with two wrong,
  // 60 lines 90 % with one, 60 lines 92 % with none wrong and four asked though said; 100 lines more 93 %, none wrong, seven asked;
  // 80 more 91 %, one wrong (ready-made polenta as the meal), six asked;
  // 60 more 92 %, one wrong (cooked jasmine rice as dry: so was every grain and pulse without a factor), five asked;
  // 60 ordinary ones 92 %, one wrong (chuck steak as a joint), three asked;
  // 45 ordinary ones 96 %, one wrong (a cup and its cooked weight as dry), one asked.
  // Then cans without a size, thumbs of ginger and splashes of milk were taken as what is usual, which is said; 20 labels followed.
  it.each(Object.entries(three as unknown as Record<string, Labelled[]>))(
    'are read right or asked about: %s',
    (name, set) => {
      const judged = set.map((each) => judge(each, TYPICAL));
      console.info(sayFigures(name, judged));
      const count = (...verdicts: string[]) => judged.filter(({ verdict }) => verdicts.includes(verdict)).length;
      expect(count('right', 'asked fairly') / set.length).toBeGreaterThanOrEqual(0.95);
      expect(count('silently wrong', 'misread behind the question')).toBe(0);
    },
  );

  const NUMBERS = {
    '3': 3,
    '10': 10,
    '1/2': 0.5,
    '1 1/2': 1.5,
    '2 3/4': 2.75,
    '1.5': 1.5,
    '½': 0.5,
    '1½': 1.5,
    '1 ½': 1.5,
    '1-1/2': 1.5,
  };
  it.each([
    'lb',
    'lbs.',
    'pounds',
    'kg',
    'oz',
    'ounces',
    'g',
    'ml',
    'cup',
    'cups',
    'c.',
    'tbsp',
    'Tbsp.',
    'tsp',
    'teaspoons',
    'pint',
  ])('keep every number before %s, whatever food stands behind it', (unit) => {
    for (const [number, value] of Object.entries(NUMBERS))
      for (const food of ['flour', 'boneless beef, fat trimmed', 'of milk', 'brown sugar (packed)']) {
        const [part] = readLine(`${number} ${unit} ${food}`, TYPICAL).parts;
        expect([number, unit, food, Number(toDecimal((part as ReadPart).amount?.most as Rational, 4))]).toEqual([
          number,
          unit,
          food,
          value,
        ]);
      }
  });
});
