import { parseAmount } from '../../quantity/amount';
import { compare, divide, equals, multiply, ONE, rational, subtract, toDecimal } from '../../quantity/rational';
import { ADULT, type SettledStep } from '../steps/step-plan';
import type { Scaling, WrittenAlternative, WrittenItem, WrittenLine } from './recipe';
import { SCALING_SAID, sayItem } from './say-item';
import type { SubRecipe } from './sub-recipes';

/** What of a recipe is told apart between two versions. */
export interface RecipeState {
  readonly title: string;
  readonly servings: number;
  readonly lines: readonly WrittenLine[];
  readonly steps: readonly string[];
  readonly planned?: readonly SettledStep[];
  readonly subRecipes?: readonly SubRecipe[];
}

/**
 * What changed from one version of a recipe to the next, in words and numbers: "butter: 120 g, was 100 g (20 % more)".
 * Empty when nothing that is cooked or read changed.
 */
export function recipeDifferences(before: RecipeState, after: RecipeState): string[] {
  return [
    ...(before.title === after.title ? [] : [`now called “${after.title}”`]),
    ...(before.servings === after.servings ? [] : [`${after.servings} servings, was ${before.servings}`]),
    ...lineDifferences(before.lines, after.lines),
    ...subDifferences(before.subRecipes, after.subRecipes),
    ...stepDifferences(before.steps, after.steps),
    ...planDifferences(before, after),
  ];
}

function subDifferences(before: readonly SubRecipe[] = [], after: readonly SubRecipe[] = []): string[] {
  const say = ({ servings, title, version }: SubRecipe) => `${servings} servings of ${title}, version ${version}`;
  const was = before.map(say);
  const now = after.map(say);
  return [
    ...now.filter((each) => !was.includes(each)).map((each) => `made of ${each}`),
    ...was.filter((each) => !now.includes(each)).map((each) => `no longer made of ${each}`),
  ];
}

function lineDifferences(before: readonly WrittenLine[], after: readonly WrittenLine[]): string[] {
  const left = [...before];
  /** Takes the line out that means the same food, the likest first. */
  const take = (line: WrittenLine): WrittenLine | undefined => {
    const same = (test: (old: WrittenLine) => boolean) => left.findIndex(test);
    const place = [
      same((old) => JSON.stringify(old) === JSON.stringify(line)),
      same((old) => old.ingredient === line.ingredient && (old.preparation ?? '') === (line.preparation ?? '')),
      same((old) => old.ingredient === line.ingredient),
    ].find((found) => found >= 0);
    return place === undefined ? undefined : left.splice(place, 1)[0];
  };
  const pairs = after.map((line) => ({ line, old: take(line) }));
  return [
    ...pairs.flatMap(({ line, old }) => (old ? oneLine(old, line) : [`added: ${sayItem(line)}`])),
    ...left.map((line) => `taken away: ${sayItem(line)}`),
  ];
}

function oneLine(old: WrittenLine, line: WrittenLine): string[] {
  const what: string[] = [];
  const [was, now] = [sayItem(old), sayItem(line)];
  if (was !== now) what.push(`${now}, was ${was}${sayGrowth(old, line)}`);
  for (const [name, say] of DETAILS) {
    if (old[name] === line[name]) continue;
    what.push(`${line.ingredient}: ${say(line[name])}, was ${say(old[name])}`);
  }
  const [stoodIn, standsIn] = [saysOf(old.alternatives), saysOf(line.alternatives)];
  const added = standsIn.filter((each) => !stoodIn.includes(each));
  const gone = stoodIn.filter((each) => !standsIn.includes(each));
  if (added.length > 0) what.push(`${line.ingredient}: may now be replaced: ${added.join('; ')}`);
  if (gone.length > 0) what.push(`${line.ingredient}: no longer replaced: ${gone.join('; ')}`);
  return what;
}

const usual = (value: unknown) => (value === undefined ? 'as usual' : String(value));
const grams = (value: unknown) => (value === undefined ? 'none' : `${value} g`);

/** What is told of a line beside its words, and how. */
const DETAILS: readonly (readonly [keyof WrittenItem, (value: unknown) => string])[] = [
  ['scaling', (value) => `grows ${SCALING_SAID[(value ?? 'linear') as Scaling]}`],
  ['damping', (value) => `damping ${usual(value)}`],
  ['batch_servings', (value) => `batches of ${value ?? '–'} servings`],
  ['precision', (value) => `measured ${value ?? 'normal'}`],
  ['sealed_grams', (value) => `whole packs: ${grams(value)}`],
  ['yield_preparation', (value) => `bought to be ${usual(value)}`],
  ['spare', (value) => `spare ${value ?? 'none'}`],
  ['pack_grams', (value) => `packs: ${grams(value)}`],
  ['within', (value) => (value ? 'chosen within its range so that packs come out whole' : 'one amount for all')],
  ['reserved', (value) => (value ? 'poured off the can' : 'bought by itself')],
];

/** " (20 % more)" where both amounts are in one unit. */
function sayGrowth(old: WrittenLine, line: WrittenLine): string {
  if (old.unit !== line.unit) return '';
  const [was, now] = [parseAmount(old.amount), parseAmount(line.amount)];
  if (equals(was, now)) return '';
  const isMore = compare(now, was) > 0;
  const part = isMore ? subtract(divide(now, was), ONE) : subtract(ONE, divide(now, was));
  return ` (${toDecimal(multiply(part, rational(100)), 0)} % ${isMore ? 'more' : 'less'})`;
}

const saysOf = (alternatives: readonly WrittenAlternative[] = []) =>
  alternatives.map((each) =>
    'omit' in each
      ? 'left out'
      : [
          [each, ...(each.also ?? [])].map(sayItem).join(' and '),
          each.step ? `“${each.step}”` : '',
          each.minutes ? `${each.minutes} min` : '',
        ]
          .filter(Boolean)
          .join(', '),
  );

function stepDifferences(before: readonly string[], after: readonly string[]): string[] {
  const kept = new Set(before.filter((step) => after.includes(step)));
  const [old, now] = [before, after].map((steps) =>
    steps.map((step, index) => ({ step, number: index + 1 })).filter(({ step }) => !kept.has(step)),
  ) as [Numbered[], Numbered[]];
  const inOrder =
    before.filter((step) => kept.has(step)).join('\n') === after.filter((step) => kept.has(step)).join('\n');
  return [
    ...now.map(({ step, number }, index) => {
      const was = old[index];
      return was ? `step ${number}: “${step}”, was “${was.step}”` : `step ${number} added: “${step}”`;
    }),
    ...old.slice(now.length).map(({ step, number }) => `step ${number} taken away: “${step}”`),
    ...(inOrder ? [] : ['steps are in another order']),
  ];
}

/** Steps that stayed, and are planned otherwise. */
function planDifferences(before: RecipeState, after: RecipeState): string[] {
  const planOf = ({ planned = [] }: RecipeState, text: string) => planned.find((each) => each.text === text);
  return after.steps.flatMap((text, at) => {
    const [was, now] = [planOf(before, text), planOf(after, text)];
    if (!before.steps.includes(text) || JSON.stringify(was) === JSON.stringify(now)) return [];
    return [`step ${at + 1} is planned otherwise: ${now ? sayPlan(now) : 'as its words say'}`];
  });
}

const sayPlan = ({ handsOn, handsOff, heat, fromAge }: SettledStep): string =>
  [
    `${handsOn} min by hand`,
    handsOff > 0 ? `${handsOff} min alone` : '',
    heat === 'none' ? '' : heat,
    fromAge >= ADULT ? 'an adult' : `from ${fromAge} years`,
  ]
    .filter(Boolean)
    .join(', ');

interface Numbered {
  readonly step: string;
  readonly number: number;
}
