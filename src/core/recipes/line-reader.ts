import { parseAmount } from '../quantity/amount';
import { AmountError } from '../quantity/rational';
import { findUnit, type Unit } from '../quantity/units';
import { findIngredient, type Ingredient, type Reference } from '../reference/reference';
import type { WrittenItem } from './recipe';

/** What was understood of one ingredient line, and what had to be taken for granted. */
export interface ReadLine {
  readonly item: Pick<WrittenItem, 'ingredient' | 'preparation' | 'amount' | 'unit'>;
  /** Said to the coordinator before saving: "feta cheese is taken as crumbled". */
  readonly assumed: readonly string[];
}

const AMOUNT =
  /^(\d+ ?[½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞]|[½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞]|\d+ \d+ ?[/\u2044] ?\d+|\d+ ?[/\u2044] ?\d+|\d+\.\d+|\d+)(?=\s|[a-zA-Z]|$)/u;

/**
 * Reads a plain ingredient line: amount, unit, food, and after a comma its preparation. What does not have this form
 * is refused, never guessed.
 *
 * @example readLine('1 1/2 cups carrots, grated', TYPICAL).item
 * //=> { amount: '1 1/2', unit: 'cup', ingredient: 'carrot', preparation: 'grated' }
 * @throws AmountError saying what is not understood and how to write it
 */
export function readLine(text: string, reference: Reference): ReadLine {
  const line = text.normalize('NFC').trim().replace(/\s+/g, ' ');
  const amount = AMOUNT.exec(line)?.[1];
  const rest = amount ? line.slice(amount.length).trim() : '';
  if (!amount || /^(-|–|—|to |or |\+)/.test(rest)) {
    throw new AmountError(
      `"${shorten(line)}" does not begin with one amount. Write it as "1 1/2 cups carrot, grated".`,
    );
  }
  parseAmount(amount);
  const { unit: leading, words } = takeUnit(rest);
  const [described = '', ...afterComma] = words.split(',');
  const stated = afterComma.join(',').trim();
  const named = described.trim().replace(/^of /i, '');
  const whole = findFood(named, reference);
  // "2 garlic cloves" counts cloves as much as "2 cloves garlic" does.
  const trailing = whole || leading ? undefined : takePiece(named);
  const food = whole ?? (trailing && findFood(trailing.words, reference));
  const unit = leading ?? trailing?.unit;
  if (!food) {
    throw new AmountError(
      `No food of the reference table is found in "${shorten(line)}". Name it as the table does, for example "carrot".`,
    );
  }
  return settle(food, unit ?? pieceOf(food.ingredient, reference), stated, amount, reference);
}

/** The unit at the start of the words, two words first ("fl oz"). */
function takeUnit(rest: string): { unit: Unit | undefined; words: string } {
  const words = rest.split(' ');
  for (const length of [2, 1]) {
    const unit = findUnit(words.slice(0, length).join(' '));
    if (unit && words.length > length) return { unit, words: words.slice(length).join(' ') };
  }
  return { unit: undefined, words: rest };
}

/** The piece that the words end in, such as the cloves of "garlic cloves". */
function takePiece(text: string): { unit: Unit; words: string } | undefined {
  const words = text.split(' ');
  const unit = findUnit(words.at(-1) ?? '');
  return unit?.dimension === 'count' && words.length > 1 ? { unit, words: words.slice(0, -1).join(' ') } : undefined;
}

/** Words before a food that say how it is prepared, and leave it the same food. */
const PREPARED = new Set(
  'small medium large fresh ripe raw cooked chopped diced cubed sliced grated shredded minced mashed halved crumbled drained peeled trimmed'.split(
    ' ',
  ),
);

interface Food {
  readonly ingredient: Ingredient;
  /** Words before the name, such as "grated". */
  readonly before: string;
}

function findFood(text: string, reference: Reference): Food | undefined {
  const words = text.trim().toLowerCase().split(' ');
  for (let skip = 0; skip < words.length; skip++) {
    const name = words.slice(skip).join(' ');
    for (const form of [name, name.replace(/ies$/, 'y'), name.replace(/s$/, ''), name.replace(/es$/, '')]) {
      const ingredient = findIngredient(reference, form);
      const before = words.slice(0, skip);
      // Any other word could make it another food: coconut milk is not milk, almond butter not butter.
      if (ingredient)
        return before.every((word) => PREPARED.has(word)) ? { ingredient, before: before.join(' ') } : undefined;
    }
  }
  return undefined;
}

/** Without a unit the line counts pieces: of the kind the food is weighed in, else "each". */
function pieceOf(ingredient: Ingredient, reference: Reference): Unit {
  const rows = reference.measures.filter((row) => row.ingredient === ingredient.name);
  const piece = rows.map((row) => findUnit(row.measure)).find((unit) => unit?.dimension === 'count');
  return piece ?? (findUnit('each') as Unit);
}

function settle(food: Food, unit: Unit, stated: string, amount: string, reference: Reference): ReadLine {
  const { ingredient, before } = food;
  const rows = reference.measures.filter((row) => row.ingredient === ingredient.name);
  const fitting = rows.filter((row) =>
    unit.dimension === 'count' ? row.measure === unit.key : findUnit(row.measure)?.dimension === unit.dimension,
  );
  const said = [stated, before, [before, stated].filter(Boolean).join(' ')].filter(Boolean);
  const exact = fitting.find((row) => said.includes(row.preparation));
  const only = new Set(fitting.map((row) => row.preparation)).size === 1 ? fitting[0] : undefined;
  const preparation = exact?.preparation ?? (unit.dimension === 'mass' ? said[0] : only?.preparation) ?? said[0] ?? '';
  const assumed =
    !exact && only && unit.dimension !== 'mass' && preparation !== ''
      ? [`${ingredient.name} is taken as ${preparation}, the only ${unit.key} weight known`]
      : !exact && only && preparation === '' && said.length > 0
        ? [`"${said[0]}" does not change the weight of ${ingredient.name}`]
        : [];
  return {
    item: { ingredient: ingredient.name, amount, unit: unit.key, ...(preparation ? { preparation } : {}) },
    assumed,
  };
}

const shorten = (text: string) => (text.length > 60 ? `${text.slice(0, 60)}…` : text);
