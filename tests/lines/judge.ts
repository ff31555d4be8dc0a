// What the reader makes of a line against what a person wrote down for it. It knows its own units and shares nothing with the core.
import { draftLine } from '@/core/recipes/reading/draft';
import names from '@/core/reference/facts/names.json';
import type { Reference } from '@/core/reference/reference';

/** A line, and what it holds: "2 cup plain wheat flour", "* salt" where it leaves the amount open; "?" where one has to ask. */
export type Labelled = readonly [text: string, holds: readonly string[] | '?'];

export type Verdict =
  | 'right'
  | 'asked fairly'
  | 'asked though it was said'
  | 'misread behind the question'
  | 'silently wrong';

export interface Judged {
  readonly text: string;
  readonly verdict: Verdict;
  readonly got: string;
  /** Where the food that is meant stands among those that are offered, from 1; 0 where it is not among them. */
  readonly place?: number;
}

const GRAMS: Readonly<Record<string, number>> = { g: 1, kg: 1000, oz: 28.3495, lb: 453.592 };
const MILLILITRES: Readonly<Record<string, number>> = {
  ml: 1,
  dl: 100,
  l: 1000,
  tsp: 4.929,
  Tbsp: 14.787,
  fl_oz: 29.574,
  cup: 236.588,
  pint: 473.176,
  pt: 473.176,
  quart: 946.353,
  qt: 946.353,
  gallon: 3785.41,
  gal: 3785.41,
  'fl oz': 29.574,
};

/** "1 1/3" */
const numberIn = (text: string): number =>
  text.split(' ').reduce((sum, part) => {
    const [over = '', under = '1'] = part.split('/');
    return sum + Number(over) / Number(under);
  }, 0);

/** An amount by weight, by measure, or by count. */
function amountOf(text: string, unit: string): readonly [kind: string, value: number] {
  if (GRAMS[unit]) return ['g', numberIn(text) * (GRAMS[unit] as number)];
  if (MILLILITRES[unit]) return ['ml', numberIn(text) * (MILLILITRES[unit] as number)];
  return [unit, numberIn(text)];
}

const near = (a: number, b: number) => Math.abs(a - b) <= 0.012 * Math.max(a, b);

/** The table's name of a food, whichever of its names was written; undefined where the table has none. */
function nameIn(reference: Reference, food: string): string | undefined {
  if (reference.ingredients.some(({ name }) => name === food)) return food;
  return Object.entries(names as Record<string, string[]>).find(([, others]) => others.includes(food))?.[0];
}

/** Judges one line. */
export function judge([text, holds]: Labelled, reference: Reference): Judged {
  const { items } = draftLine(text, reference);
  const got = items
    .map(({ line, food, suggestions }) =>
      line ? `${line.amount} ${line.unit} ${line.ingredient}` : `? ${food} (${suggestions.slice(0, 3).join(', ')})`,
    )
    .join('; ');
  const isAsked = items.some(({ line }) => !line);
  const said = (verdict: Verdict, place?: number): Judged => ({
    text,
    verdict,
    got,
    ...(place === undefined ? {} : { place }),
  });
  if (holds === '?') return said(isAsked ? 'asked fairly' : 'silently wrong');
  const wanted = holds.map((each) => {
    const [amount = '', ...rest] = each.split(' ');
    if (amount === '*') return { amounts: [], food: rest.join(' ') };
    // "60 g=1/4 cup butter": either is right.
    const [first = '', ...others] = each.split('=');
    const [unit = '', ...food] = rest;
    const last = (others.at(-1) ?? first).split(' ');
    const amounts = [first, ...others].map((one) => one.split(' ').slice(0, 2) as [string, string]);
    return {
      amounts: others.length > 0 ? amounts : [[amount, unit]],
      food: others.length > 0 ? last.slice(2).join(' ') : food.join(' '),
    };
  });
  const fits = (at: number) => {
    const { line } = items[at] ?? {};
    const want = wanted[at];
    if (!line || !want || line.ingredient !== nameIn(reference, want.food)) return false;
    const [ownKind, own] = amountOf(line.amount, line.unit);
    return (
      want.amounts.length === 0 ||
      want.amounts.some(([amount = '', unit = '']) => {
        const [kind, value] = amountOf(amount, unit);
        return kind === ownKind && near(value, own);
      })
    );
  };
  if (!isAsked)
    return said(items.length === wanted.length && items.every((_, at) => fits(at)) ? 'right' : 'silently wrong');
  const isKnown = wanted.every(({ food }) => nameIn(reference, food) !== undefined);
  if (items.some(({ line }, at) => line && !fits(at))) return said('misread behind the question');
  const open = items.findIndex(({ line }) => !line);
  // The food is known, and the line does not say how much: to ask is fair.
  if (wanted[open]?.amounts.length === 0 && items[open]?.suggestions.length === 0) return said('asked fairly');
  const name = nameIn(reference, wanted[open]?.food ?? '');
  const place = name === undefined ? undefined : (items[open]?.suggestions.indexOf(name) ?? -1) + 1;
  return said(isKnown ? 'asked though it was said' : 'asked fairly', isKnown ? place : undefined);
}

/** How many lines came out which way, as one reads it. */
export function sayFigures(name: string, judged: readonly Judged[]): string {
  const count = (verdict: Verdict) => judged.filter((each) => each.verdict === verdict).length;
  const asked = judged.filter(({ place }) => place !== undefined);
  const share = (n: number) => `${n} (${Math.round((1000 * n) / judged.length) / 10} %)`;
  return [
    `${name}, ${judged.length} lines:`,
    `right ${share(count('right') + count('asked fairly'))}, of them asked fairly ${count('asked fairly')}`,
    `asked though it was said ${share(count('asked though it was said'))}`,
    `misread behind the question ${count('misread behind the question')}`,
    `silently wrong ${count('silently wrong')}`,
    `right answer first ${asked.filter(({ place }) => place === 1).length} of ${asked.length}`,
  ].join(' · ');
}

/** Names that are nearly written, and names of foods that the table does not have, against what the reader makes of them. */
export interface NameSet {
  /** What was written, then the foods that may be meant by it. */
  readonly nearly: readonly (readonly string[])[];
  readonly others: readonly string[];
}

/** Of names nearly written how many were read, asked, and asked with the right one first; and what was read for another food. */
export function judgeNames({ nearly, others }: NameSet, reference: Reference) {
  const readOf = (name: string) => draftLine(`200 g ${name}`, reference).items;
  const figures = { read: 0, asked: 0, first: 0, wrong: [] as string[] };
  for (const [written = '', ...meant] of nearly) {
    const [item] = readOf(written);
    if (!item?.line) {
      figures.asked += 1;
      if (meant.includes(item?.suggestions[0] ?? '')) figures.first += 1;
    } else if (meant.includes(item.line.ingredient)) figures.read += 1;
    else figures.wrong.push(`${written}: ${item.line.ingredient}`);
  }
  for (const name of others) {
    const items = readOf(name);
    if (items.every(({ line }) => line)) figures.wrong.push(`${name}: ${items.map(({ line }) => line?.ingredient)}`);
  }
  return figures;
}
