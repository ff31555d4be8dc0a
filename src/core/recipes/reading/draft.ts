import { wordKey } from '../../reference/food-finder';
import { findIngredient, type Ingredient, type Reference } from '../../reference/reference';
import type { WrittenAlternative, WrittenItem, WrittenLine, WrittenSwap } from '../recipe/recipe';
import { sayItem, saySealed } from '../recipe/say-item';
import { DETAILS, type DraftAlternative, LEAVE_OUT, type LineDetails } from './line-details';
import { lineItem } from './line-item';
import { type ReadPart, readLine } from './line-reader';
import { usualDetails } from './usual-details';

/** How a range is used: one of its ends, or within it so that packs come out whole. */
export type RangeUse = 'least' | 'most' | 'packs';

/** One ingredient of a draft: what was understood, and what a person still has to say. */
export interface DraftItem {
  /** Complete and ready to be computed with; undefined while something is open. */
  readonly line: WrittenLine | undefined;
  /** The same, said: "1½ cups carrot, grated"; '' while it is open. */
  readonly say: string;
  /** The words taken for the food. */
  readonly food: string;
  readonly open: readonly string[];
  readonly assumed: readonly string[];
  /** Foods that may be meant, the likeliest first. */
  readonly suggestions: readonly string[];
  /** A food of its kind, by what its words say: what is usual of it is proposed where it is added to the table. */
  readonly like?: FoodOfKind;
}

/** What a food of a kind usually is. What it holds is never taken from another. */
export type FoodOfKind = Pick<
  Ingredient,
  'name' | 'aisle' | 'plateGroup' | 'vegetableFamily' | 'storage' | 'daysWhole' | 'daysOpened' | 'perishable'
>;

/** A line of a draft. Most hold one ingredient; "salt and pepper" holds two. */
export interface DraftLine {
  readonly text: string;
  readonly items: readonly DraftItem[];
}

/**
 * Reads a line for a draft.
 *
 * @param chosen foods chosen by hand, by the place of the ingredient in the line
 */
export function draftLine(text: string, reference: Reference, chosen: readonly (string | null)[] = []): DraftLine {
  const read = readLine(text, reference);
  const items = read.parts.map((part, index): DraftItem => {
    const { item, open, assumed } = lineItem(part, reference, chosen[index] ?? undefined);
    const named = item ? alternativesOf(part, reference) : [];
    const alternatives = named.flatMap(({ item: each }) => each ?? []);
    const usual = item && usualDetails(item, read.text, reference);
    const line = item && {
      ...item,
      ...usual?.details,
      ...(sameWords(read.text, sayItem(item)) ? {} : { written: read.text }),
      ...(alternatives.length > 0 ? { alternatives } : {}),
      ...(part.isSlot && alternatives.length > 0 ? { slot: true as const } : {}),
    };
    const stands = (part.isSlot ? [] : named).map(({ said, item: each }) =>
      each
        ? `${each.ingredient} stands in where ${item?.ingredient} must be avoided`
        : `“${said}” is left out: it is not in the table, or has no weight in this measure`,
    );
    const optional = part.optional ? ['optional: kept, take the line away to leave it out'] : [];
    const like = line || part.ingredient ? undefined : ofItsKind(part.food, part.suggestions, reference);
    return {
      ...(like ? { like } : {}),
      line,
      say: line ? sayLine(line) : '',
      food: part.food,
      open,
      assumed: [...assumed, ...(usual?.say ?? []), ...optional, ...stands],
      suggestions: part.suggestions,
    };
  });
  return { text: read.text, items };
}

/** The suggested food that has the same noun: a "dragon melon" is kept like a melon. */
function ofItsKind(words: string, suggestions: readonly string[], reference: Reference): FoodOfKind | undefined {
  const noun = (text: string) => wordKey(text.split(' ').at(-1) ?? '');
  const name = suggestions.find((each) => noun(each) === noun(words));
  const food = name === undefined ? undefined : findIngredient(reference, name);
  if (!food) return undefined;
  const { aisle, plateGroup, vegetableFamily, storage, daysWhole, daysOpened, perishable } = food;
  return { name: food.name, aisle, plateGroup, vegetableFamily, storage, daysWhole, daysOpened, perishable };
}

/**
 * A line as it is understood, with the sealed units it comes in.
 *
 * @example
 * sayLine({ ingredient: 'butter', amount: '1/2', unit: 'cup', preparation: 'melted' }) //=> '½ cup butter, melted'
 */
export const sayLine = (line: WrittenLine): string =>
  `${sayItem(line)}${line.sealed_grams ? `, whole packs of ${saySealed(line.sealed_grams)}` : ''}`;

/** What the line itself names in its place ("milk or soy milk"), by the same amount where it gives none. */
function alternativesOf(part: ReadPart, reference: Reference): { said: string; item: WrittenItem | undefined }[] {
  return part.alternatives.map((said) => {
    const [own] = readLine(said, reference).parts;
    if (!own?.ingredient) return { said, item: undefined };
    const asPart = own.amount
      ? own
      : { ...own, amount: part.amount, unit: part.unit, vague: part.vague, pack: part.pack };
    return { said, item: lineItem(asPart, reference).item };
  });
}

/**
 * An item with the details and alternatives that a person gave it, in place of those it had.
 *
 * @param use the end of a range that kits use, or whatever makes packs come out whole
 * @returns the item; open when an alternative cannot be read
 */
export function withDetails(
  item: DraftItem,
  reference: Reference,
  details: LineDetails | undefined,
  alternatives: readonly DraftAlternative[] | undefined,
  use?: RangeUse,
): DraftItem {
  if (!item.line) return item;
  const open: string[] = [];
  let line = item.line;
  if (use && line.range) {
    const { within: _, ...rest } = line;
    line = use === 'packs' ? { ...rest, within: true } : { ...rest, amount: line.range[use] };
  }
  if (details) {
    const rest = Object.fromEntries(
      Object.entries(line).filter(([name]) => !(DETAILS as readonly string[]).includes(name)),
    );
    line = { ...(rest as unknown as WrittenLine), ...details };
  }
  if (alternatives) {
    const { alternatives: _, ...rest } = line;
    const read = alternatives
      .filter(({ text }) => text.trim() !== '')
      .flatMap(({ text, settled, reason, step, minutes }): WrittenAlternative[] => {
        if (settled && 'omit' in settled) return [settled];
        if (text.trim().toLowerCase() === LEAVE_OUT) return [{ omit: true }];
        const [item, ...also] = settled ? [settled, ...(settled.also ?? [])] : readSwapItems(text, reference, open);
        if (!item) return [];
        const { reason: _, step: __, minutes: ___, also: ____, ...own } = item as WrittenSwap;
        return [
          {
            ...own,
            ...(reason ? { reason } : {}),
            ...(also.length > 0 ? { also } : {}),
            ...(step ? { step } : {}),
            ...(minutes ? { minutes } : {}),
          },
        ];
      });
    line = { ...rest, ...(read.length > 0 ? { alternatives: read } : {}) };
  }
  return { ...item, line: open.length > 0 ? undefined : line, say: sayLine(line), open: [...item.open, ...open] };
}

/** What stands in, and what it brings along; nothing when any of it is open, which is then told. */
function readSwapItems(text: string, reference: Reference, open: string[]): WrittenItem[] {
  const items = text.split(';').map((words) => {
    const [part] = readLine(words, reference).parts;
    const own = part && lineItem(part, reference);
    if (!own?.item)
      open.push(...(own?.open ?? ['It cannot be read.']).map((question) => `Alternative “${text}”: ${question}`));
    return own?.item;
  });
  return items.flatMap((item) => item ?? []).slice(0, items.includes(undefined) ? 0 : undefined);
}

/** Whether two ways of writing a line hold the same words, numbers aside. */
function sameWords(a: string, b: string): boolean {
  const words = (text: string) =>
    text
      .toLowerCase()
      .split(/[^\p{L}]+/u)
      .filter(Boolean)
      .map((word) => word.replace(/s$/, ''))
      .sort()
      .join(' ');
  return words(a) === words(b);
}
