import { parseAmount } from './amount';
import { AmountError, type Rational } from './rational';
import facts from './units.json';

/** What a unit measures: volume in millilitres, mass in grams, or whole pieces. */
export type Dimension = 'volume' | 'mass' | 'count';

/** A unit of measure. Its `key` is what is stored and shown: the symbol, or the full name where a symbol repeats. */
export interface Unit {
  readonly key: string;
  readonly name: string;
  readonly dimension: Dimension;
  /** Exact millilitres or grams in one unit; 1 for pieces. */
  readonly size: Rational;
  readonly system: string;
}

/** Pieces that reference weights are given for. */
const PIECES = [
  'each',
  'clove',
  'stalk',
  'slice',
  'bunch',
  'head',
  'handful',
  'leaf',
  'sprig',
  'spear',
  'inch',
  'cm',
] as const;

/** Where a symbol repeats across systems, the first of these wins: spoons, cups and pints are US. */
const SYSTEMS = ['us', 'avoirdupois', 'convention', 'metric', 'imperial'];

const UNITS: readonly Unit[] = buildUnits();
/** Keys of all that a food can be put on the scale by: spoons, cups and pieces, no weights. */
export const WEIGHABLE = UNITS.filter(({ dimension }) => dimension !== 'mass').map(({ key }) => key);
const BY_WORD: ReadonlyMap<string, Unit> = indexWords();

function buildUnits(): Unit[] {
  const ordered = [...facts].sort((a, b) => SYSTEMS.indexOf(a.system) - SYSTEMS.indexOf(b.system));
  const taken = new Set<string>();
  const measured = ordered.map((fact): Unit => {
    const key = taken.has(fact.symbol) ? fact.name : fact.symbol;
    taken.add(fact.symbol);
    return {
      key,
      name: fact.name,
      dimension: fact.dimension as Dimension,
      size: parseAmount(fact.size),
      system: fact.system,
    };
  });
  const pieces = PIECES.map(
    (name): Unit => ({ key: name, name, dimension: 'count', size: { n: 1, d: 1 }, system: 'any' }),
  );
  return [...measured, ...pieces];
}

function indexWords(): Map<string, Unit> {
  const words = new Map<string, Unit>();
  for (const unit of UNITS) {
    for (const word of [unit.key, unit.name, unit.name.replace('litre', 'liter')]) {
      const key = word.toLowerCase();
      for (const form of [key, `${key}s`, ...(key === 'pinch' || key === 'dash' ? [`${key}es`] : [])]) {
        if (!words.has(form)) words.set(form, unit);
      }
    }
  }
  for (const [word, key] of Object.entries({
    piece: 'each',
    pieces: 'each',
    sticks: 'stick',
    lbs: 'lb',
    millilitres: 'ml',
  })) {
    const unit = words.get(key);
    if (unit) words.set(word, unit);
  }
  return words;
}

/**
 * The unit behind a written word ("cup", "cups", "Tbsp", "tablespoons"), or undefined. A lone "t" or "T" is not guessed.
 *
 * @example
 * findUnit('tbsp')?.key //=> 'Tbsp'
 * findUnit('smidgen of') //=> undefined
 */
export function findUnit(word: string): Unit | undefined {
  return BY_WORD.get(word.trim().replace(/\.$/, '').replace(/\s+/g, ' ').toLowerCase());
}

/**
 * The unit behind a written word.
 *
 * @throws AmountError naming the word and the units that can be used
 * @example
 * readUnit('Cups').key //=> 'cup'
 */
export function readUnit(word: string): Unit {
  const unit = findUnit(word);
  if (unit) return unit;
  throw new AmountError(
    `"${word.slice(0, 40)}" is not a unit we know. Use one of: ${UNITS.map((u) => u.key).join(', ')}.`,
  );
}
