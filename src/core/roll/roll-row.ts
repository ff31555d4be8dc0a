import { MODES, type Mode } from '../plan/mode';
import { splitAvoidances } from '../safety/avoidances';

/** What the kits are made from, and what belongs to the family: who they are, and their plan for an emergency. */
const KIT_COLUMNS = ['name', 'age', 'servings', 'avoids', 'mode'] as const;
const FAMILY_COLUMNS = ['household', 'contact', 'address', 'plan'] as const;

/** The columns of a roll, as a coordinator's file has them. */
export const ROLL_COLUMNS = [...KIT_COLUMNS, 'group', ...FAMILY_COLUMNS] as const;

export type RollColumn = (typeof ROLL_COLUMNS)[number];

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
  readonly wishes: readonly string[];
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
  return { entry: { name, age, servings, wishes: splitAvoidances(cells.avoids), mode, group: group ?? '', ...family } };
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
  const trimmed = text.trim();
  const remedy = `Write a whole number from ${least} to ${most}.`;
  if (!/^-?\d{1,9}([.,]\d+)?$/.test(trimmed))
    return refuse(column, `"${shorten(trimmed)}" is not a number of ${unit}. ${remedy}`);
  const value = Number(trimmed.replace(',', '.'));
  if (!Number.isInteger(value)) return refuse(column, `${trimmed} is not a whole number of ${unit}. ${remedy}`);
  if (value < least) return refuse(column, `${trimmed} ${unit} is too few. ${remedy}`);
  if (value > most) return refuse(column, `${trimmed} ${unit} is too many. ${remedy}`);
  return value;
}

const shorten = (text: string) => (text.length > 40 ? `${text.slice(0, 40)}…` : text);

/** Letters that are one of their own, not a plain letter with a mark. */
const PLAIN: Readonly<Record<string, string>> = {
  ł: 'l',
  ø: 'o',
  đ: 'd',
  ð: 'd',
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  þ: 'th',
  ı: 'i',
};

/** One form for a name however it is spaced, capitalised or accented. */
export const nameKey = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[łøđðßæœþı]/g, (letter) => PLAIN[letter] ?? letter)
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** A row of a roll to be brought in, with where it stands in the file. */
export interface NumberedCells {
  /** Line of the file where the row begins, from 1. */
  readonly line: number;
  readonly cells: RollCells;
  /** Expressly left out by the coordinator. */
  readonly leaveOut?: boolean;
  /** A problem of the row as a whole, such as a wrong number of cells. */
  readonly shape?: string;
  /** Decided by the coordinator: it is somebody on the roll, whose data it replaces; or it is somebody else. */
  readonly as?: 'update' | 'new';
}

/** Somebody on the roll, as rows are held against them. */
export interface OnRoll {
  readonly id?: string;
  readonly name: string;
  readonly age: number | null;
}

export interface CheckedRow extends NumberedCells {
  readonly entry: RollEntry | undefined;
  readonly problems: readonly CellProblem[];
  /** Who on the roll it is, or may be. */
  readonly onRoll?: OnRoll;
}

/**
 * Checks all rows of a file together: each by itself, then for people who are there twice, in the file or on the roll.
 * Two people may share a name when their ages differ; a name that is nearly another's is asked about. Rows left out are
 * not checked against others.
 *
 * @param enrolled who is on the roll already
 * @param groups names of the course's groups
 */
export function checkRoll(
  rows: readonly NumberedCells[],
  enrolled: readonly OnRoll[],
  groups: readonly string[] = [],
): CheckedRow[] {
  const seen = new Map<string, { age: number | null; where: string }[]>();
  const remember = (name: string, age: number | null, where: string) => {
    const key = nameKey(name);
    seen.set(key, [...(seen.get(key) ?? []), { age, where }]);
  };
  const people = enrolled.map((person) => ({ person, key: nameKey(person.name) }));
  const updated = new Set<OnRoll>();
  return rows.map((row): CheckedRow => {
    const reading = readRollRow(row.cells, groups);
    const problems: CellProblem[] = 'problems' in reading ? [...reading.problems] : [];
    if (row.shape) problems.unshift({ column: 'name', message: row.shape });
    const entry = 'entry' in reading ? reading.entry : undefined;
    const found = entry && !row.leaveOut ? likest(entry, people) : undefined;
    const onRoll = found?.person;
    if (entry && onRoll && row.as === 'update') {
      if (updated.has(onRoll))
        problems.push({ column: 'name', message: `Two rows would replace ${onRoll.name}: leave one of them out.` });
      updated.add(onRoll);
    } else if (entry && found && !(row.as === 'new' && !found.isSame)) {
      problems.push({
        column: 'name',
        message: found.isSame
          ? `${entry.name} is on the roll already. Update them, leave this row out, or tell the two apart by name or age.`
          : `${entry.name} may be ${found.person.name}, who is on the roll already. Update them, or say that it is somebody else.`,
      });
    } else if (entry && !row.leaveOut) {
      const same = seen
        .get(nameKey(entry.name))
        ?.find((other) => other.age === null || entry.age === null || other.age === entry.age);
      if (same) {
        problems.push({
          column: 'name',
          message: `${entry.name} is ${same.where}. Leave this row out, or tell the two apart by name or age.`,
        });
      } else {
        remember(entry.name, entry.age, `in line ${row.line} of the file`);
      }
    }
    return { ...row, entry: problems.length === 0 ? entry : undefined, problems, ...(onRoll ? { onRoll } : {}) };
  });
}

/** The person on the roll whose name it is, or whose it may be spelled another way; ages that differ tell two apart. */
function likest(
  { name, age }: RollEntry,
  people: readonly { readonly person: OnRoll; readonly key: string }[],
): { person: OnRoll; isSame: boolean } | undefined {
  const key = nameKey(name);
  const fits = people.filter(({ person }) => person.age === null || age === null || person.age === age);
  const same = fits.find((each) => each.key === key);
  if (same) return { person: same.person, isSame: true };
  const near = fits.find((each) => isNearName(each.key, key));
  return near && { person: near.person, isSame: false };
}

/** Whether two names may be one spelled two ways: words in another order, or one or two letters that differ. */
export function isNearName(a: string, b: string): boolean {
  // “Child 1” and “Child 2” are two.
  if (/\d/.test(a + b)) return false;
  const inOrder = (name: string) => name.split(' ').sort().join(' ');
  if (inOrder(a) === inOrder(b)) return true;
  const most = Math.min(a.length, b.length) >= 9 ? 2 : Math.min(a.length, b.length) >= 5 ? 1 : 0;
  return most > 0 && Math.abs(a.length - b.length) <= most && distance(a, b) <= most;
}

/** Letters to change, add or take away to turn one text into the other. */
function distance(a: string, b: string): number {
  let before = Array.from({ length: b.length + 1 }, (_, at) => at);
  for (const [row, letter] of [...a].entries()) {
    const now = [row + 1];
    for (const [at, other] of [...b].entries())
      now.push(
        Math.min(
          (now[at] as number) + 1,
          (before[at + 1] as number) + 1,
          (before[at] as number) + (letter === other ? 0 : 1),
        ),
      );
    before = now;
  }
  return before.at(-1) as number;
}
