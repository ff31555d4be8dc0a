import { MODES, type Mode } from '../plan/mode';
import { splitAvoidances } from '../safety/avoidances';
import { nameKey } from './name-key';

/** What the kits are made from, and what belongs to the family: who they are, and their plan for an emergency. */
const KIT_COLUMNS = ['name', 'age', 'servings', 'avoids', 'mode'] as const;
const FAMILY_COLUMNS = ['household', 'contact', 'address', 'plan'] as const;

/** The columns of a roll, as a coordinator's file has them. */
export const ROLL_COLUMNS = [...KIT_COLUMNS, 'group', ...FAMILY_COLUMNS] as const;

/** What stands for somebody whom nobody asked what they must not eat: it has no meaning, so that their kit waits. */
export const NOT_ASKED = 'not asked';

export type RollColumn = (typeof ROLL_COLUMNS)[number];

/** What headings of files mean to a programme, in lower case; null for one that is not used. */
export type ColumnWords = Readonly<Record<string, RollColumn | null>>;

/** One row of a roll as it was written. */
export type RollCells = Readonly<
  Record<(typeof KIT_COLUMNS)[number], string> & Partial<Record<'group' | (typeof FAMILY_COLUMNS)[number], string>>
>;

/** One person of a roll, read. */
export interface RollEntry {
  readonly name: string;
  readonly age: number | null;
  readonly servings: number;
  /** Avoidances as the family wrote them, one by one. */
  readonly needs: readonly string[];
  readonly mode: Mode | null;
  /** The group they come with, as the course calls it; '' for the first. */
  readonly group: string;
  /** The household's name; '' when the person stands for their own. */
  readonly household: string;
  readonly contact: string;
  readonly address: string;
  /** The family's action plan: what to do when something goes wrong. */
  readonly plan: string;
}

/** Why a cell is refused, and what to write instead. */
export interface CellProblem {
  readonly column: RollColumn;
  readonly message: string;
}

/** Household kits feed at most this many; more is a slip of the keyboard. */
export const MOST_HOUSEHOLD_SERVINGS = 40;

const LONGEST_NAME = 100;
const LONGEST_AVOIDS = 400;
const LONGEST = { household: 100, contact: 190, address: 255, plan: 2000 } as const;

const MODE_WORDS: Readonly<Record<string, Mode>> = {
  ...Object.fromEntries(MODES.map((mode) => [mode.replace(/-/g, ' '), mode])),
  class: 'in person',
  home: 'take-home',
  online: 'live online',
  live: 'live online',
  later: 'follow-later',
  demo: 'demonstration',
};

/** Reads one row; every cell that cannot be used is named with its remedy. @param groups names of the course's groups */
export function readRollRow(
  cells: RollCells,
  groups: readonly string[] = [],
): { entry: RollEntry } | { problems: CellProblem[] } {
  const problems: CellProblem[] = [];
  const refuse = (column: RollColumn, message: string) => {
    problems.push({ column, message });
    return undefined;
  };
  const name = readName(cells.name, refuse);
  const age = cells.age.trim() === '' ? null : readWhole(cells.age, 'age', 0, 120, 'years', refuse);
  const servings =
    cells.servings.trim() === ''
      ? refuse('servings', 'Say how many this person’s kit feeds, as a whole number from 1.')
      : readWhole(cells.servings, 'servings', 1, MOST_HOUSEHOLD_SERVINGS, 'servings', refuse);
  const word = cells.mode
    .trim()
    .toLowerCase()
    .replace(/[-_\s]+/g, ' ');
  const mode = word === '' ? null : Object.hasOwn(MODE_WORDS, word) ? (MODE_WORDS[word] as Mode) : undefined;
  if (mode === undefined)
    refuse('mode', `"${shorten(cells.mode)}" is not a mode. Write one of: ${MODES.join(', ')}; or leave it empty.`);
  if (cells.avoids.length > LONGEST_AVOIDS) {
    refuse('avoids', `Longer than ${LONGEST_AVOIDS} characters: name what is avoided, separated by semicolons.`);
  }
  // Where a course has one group only, what another program calls a group says nothing.
  const written = groups.length === 0 ? '' : nameKey(cells.group ?? '');
  const group = written === '' ? '' : groups.find((name) => nameKey(name) === written);
  if (group === undefined)
    refuse(
      'group',
      `"${shorten(cells.group ?? '')}" is not a group of this course. Write one of: ${groups.join(', ')}.`,
    );
  const family = Object.fromEntries(
    FAMILY_COLUMNS.map((column) => [column, readLine(column, cells[column] ?? '', refuse)]),
  ) as Record<(typeof FAMILY_COLUMNS)[number], string>;
  if (problems.length > 0 || name === undefined || age === undefined || servings === undefined || mode === undefined) {
    return { problems };
  }
  return { entry: { name, age, servings, needs: splitAvoidances(cells.avoids), mode, group: group ?? '', ...family } };
}

type Refuse = (column: RollColumn, message: string) => undefined;

function readName(text: string, refuse: Refuse): string | undefined {
  const name = text.normalize('NFC').trim().replace(/\s+/g, ' ');
  if (name === '') return refuse('name', 'The name is missing.');
  if (name.length > LONGEST_NAME) return refuse('name', `Longer than ${LONGEST_NAME} characters: shorten the name.`);
  if (/\p{Cc}/u.test(name)) return refuse('name', 'The name holds characters that cannot be printed: type it again.');
  return name;
}

/** One text about the family, on one line; long ones are refused, not cut. */
function readLine(column: keyof typeof LONGEST, text: string, refuse: Refuse): string {
  const line = text
    .normalize('NFC')
    .replace(/[\p{Cc}\s]+/gu, ' ')
    .trim();
  if (line.length > LONGEST[column]) refuse(column, `Longer than ${LONGEST[column]} characters: shorten it.`);
  return line;
}

function readWhole(
  text: string,
  column: 'age' | 'servings',
  least: number,
  most: number,
  unit: string,
  refuse: Refuse,
): number | undefined {
  const trimmed = column === 'age' ? plainAge(text.trim()) : plainCount(text.trim());
  const remedy = `Write a whole number from ${least} to ${most}.`;
  if (/^\d{4}-\d\d-\d\d$/.test(trimmed))
    return refuse(column, `${trimmed} is a date: a spreadsheet makes one of what looks like one. ${remedy}`);
  if (!/^-?\d{1,9}([.,]\d+)?$/.test(trimmed))
    return refuse(column, `"${shorten(trimmed)}" is not a number of ${unit}. ${remedy}`);
  const value = Number(trimmed.replace(',', '.'));
  if (!Number.isInteger(value)) return refuse(column, `${trimmed} is not a whole number of ${unit}. ${remedy}`);
  if (value < least) return refuse(column, `${trimmed} ${unit} is too few. ${remedy}`);
  if (value > most) return refuse(column, `${trimmed} ${unit} is too many. ${remedy}`);
  return value;
}

const WORDS =
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty'.split(
    ' ',
  );
const inFigures = (text: string) => {
  const at = WORDS.indexOf(text.toLowerCase());
  return at < 0 ? text : String(at);
};

/** An age in whole years, as offices and parents write it: "8½ yrs" is 8, "18 months" 1; what is none stays as it is. */
function plainAge(text: string): string {
  const months = /^(\d{1,3}) ?(?:months?|mths?|mos?)\.?(?: old)?$/i.exec(text)?.[1];
  if (months) return String(Math.floor(Number(months) / 12));
  const bare = text
    .replace(/^(?:aged?|is)[: ] */i, '')
    .replace(/ ?(?:years?|yrs?|y)\.?(?:[ -]?(?:old|o))?\.?$/i, '')
    // Half a year more is not yet the next.
    .replace(
      /^(\d{1,3})(?: ?½| 1\/2|[.,]5| and a half| ?(?:years?|yrs?|y),? ?(?:and )?\d{1,2} ?(?:months?|mths?|m))$/i,
      '$1',
    );
  return inFigures(bare);
}

/** A number of people: "4 (2 adults, 2 kids)", "three", "5 people". */
const plainCount = (text: string): string =>
  inFigures(text.replace(/^(\d{1,3}|\p{L}+) ?(?:\([^()]*\)|people|persons|servings?|portions?|of us|in all)$/iu, '$1'));

const shorten = (text: string) => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
