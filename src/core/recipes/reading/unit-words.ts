// Words for units, pieces and packs, as lines have them.
import { findUnit, type Unit } from '../../quantity/units';

/** A unit as it was written: one that is measured, or a word for a piece or a pack. */
export interface WrittenUnit {
  /** Key of a unit (see units.ts), or the word for a piece: "can", "bunch", "sprig". */
  readonly key: string;
  readonly unit: Unit | undefined;
}

export const PIECES: Readonly<Record<string, string>> = {
  can: 'can',
  tin: 'can',
  jar: 'jar',
  packet: 'pack',
  package: 'pack',
  pack: 'pack',
  pkg: 'pack',
  sachet: 'pack',
  bag: 'bag',
  box: 'box',
  carton: 'carton',
  tub: 'tub',
  bottle: 'bottle',
  bunch: 'bunch',
  handful: 'handful',
  head: 'head',
  bulb: 'head',
  sprig: 'sprig',
  sheet: 'sheet',
  ball: 'ball',
  block: 'block',
  leaf: 'leaf',
  rib: 'stalk',
  inch: 'inch',
  inche: 'inch',
  cm: 'cm',
  centimetre: 'cm',
  centimeter: 'cm',
  knob: 'knob',
  thumb: 'knob',
  loaf: 'loaf',
  rasher: 'slice',
  wedge: 'wedge',
  drop: 'drop',
  spear: 'spear',
  bar: 'bar',
  container: 'pack',
  clamshell: 'pack',
  pouch: 'pack',
  pouche: 'pack',
  tube: 'pack',
  slab: 'bar',
  glass: 'glass',
  glasse: 'glass',
  mug: 'mug',
  ladle: 'ladle',
  scoop: 'scoop',
  portion: 'portion',
  square: 'square',
};

/** Pieces that are packs: a measure beside them says what one holds. */
const PACKS = new Set(['can', 'jar', 'pack', 'bag', 'box', 'carton', 'tub', 'bottle', 'ball', 'block', 'bar']);

/** The unit at the beginning of the words, two words first ("fl oz"). */
export function takeUnit(
  text: string,
  assumed: string[],
): { key: string; unit: Unit | undefined; rest: string } | undefined {
  const words = text.trim().split(/\s+/);
  const [first = ''] = words;
  const letter = /^([tTcC])\.?$/.exec(first)?.[1];
  if (letter && words.length > 1) {
    const unit = findUnit(LETTERS[letter] as string) as Unit;
    assumed.push(`“${letter}” is taken as a ${unit.name}`);
    return { key: unit.key, unit, rest: words.slice(1).join(' ') };
  }
  for (const length of [2, 1]) {
    const word = words.slice(0, length).join(' ').replace(/[.,]$/, '');
    const unit = findUnit(word) ?? findUnit(SPELLINGS[word.toLowerCase()] ?? '');
    if (unit && words.length > length) return { key: unit.key, unit, rest: words.slice(length).join(' ') };
  }
  const piece =
    PIECES[
      first
        .toLowerCase()
        .replace(/[.,]$/, '')
        .replace(/(?<!s)s$/, '')
        .replace(/(?<=nch|x)e$/, '')
        .replace(/leave$/, 'leaf')
        .replace(/loave$/, 'loaf')
    ];
  if (piece && words.length > 1) return { key: piece, unit: findUnit(piece), rest: words.slice(1).join(' ') };
  return undefined;
}

/** Letters that stand for a measure; said, since some write them otherwise. */
export const LETTERS: Readonly<Record<string, string>> = { t: 'tsp', T: 'Tbsp', c: 'cup', C: 'cup' };

export const SPELLINGS: Readonly<Record<string, string>> = {
  tspn: 'tsp',
  tspns: 'tsp',
  teaspn: 'tsp',
  teaspns: 'tsp',
  tbspn: 'Tbsp',
  tbspns: 'Tbsp',
  tbsn: 'Tbsp',
  tblspn: 'Tbsp',
  tblspns: 'Tbsp',
  tablespn: 'Tbsp',
  tablespns: 'Tbsp',
  tablesp: 'Tbsp',
  tabs: 'Tbsp',
  tbls: 'Tbsp',
  tbs: 'Tbsp',
  tb: 'Tbsp',
  tbsps: 'Tbsp',
  tblsp: 'Tbsp',
  tsps: 'tsp',
  teasp: 'tsp',
  gr: 'g',
  gm: 'g',
  gms: 'g',
  grm: 'g',
  grms: 'g',
  gramm: 'g',
  grammes: 'g',
  kgs: 'kg',
  mls: 'ml',
  kilo: 'kg',
  kilos: 'kg',
  ltr: 'l',
  litr: 'l',
  'fluid oz': 'fl oz',
  'fl. oz': 'fl oz',
  'fl.oz': 'fl oz',
  pounds: 'lb',
};

/** Whether a written unit is a pack, so that a measure beside it says what one holds. */
export const isPack = (unit: WrittenUnit | undefined): boolean => unit !== undefined && PACKS.has(unit.key);
