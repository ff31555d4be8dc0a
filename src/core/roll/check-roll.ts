import type { Mode } from '../plan/mode';
import { normaliseNeed } from '../safety/avoidances';
import { Families, type KnownHome } from './families';
import { nameKey } from './name-key';
import { type CellProblem, NOT_ASKED, type RollCells, type RollEntry, readRollRow } from './roll-row';

/** A row of a roll to be brought in, with where it stands in the file. */
export interface NumberedCells {
  /** Line of the file where the row begins, from 1. */
  readonly line: number;
  readonly cells: RollCells;
  /** Expressly left out by the coordinator. */
  readonly leaveOut?: boolean;
  /** What stands beyond the last column, where a separator is loose in the row: often half of what is avoided. */
  readonly beyond?: readonly string[];
  /** Decided by the coordinator: it is somebody on the roll, whose data it replaces; or it is somebody else. */
  readonly as?: 'update' | 'new';
  /** Decided by the coordinator: it is the family of that name which is known, or another of the same name. */
  readonly home?: 'same' | 'other';
}

const piecesOf = (text: string): string[] =>
  text
    .split(/[;,|\t\n]/)
    .map((piece) => piece.trim().toLowerCase())
    .filter((piece) => piece !== '');

/** What stands beyond the last column and was not written into any cell: it would be lost unseen. */
function lostOf({ beyond = [], cells }: NumberedCells): string[] {
  const written = new Set(Object.values(cells).flatMap((cell) => piecesOf(cell ?? '')));
  return beyond.filter((text) => piecesOf(text).some((piece) => !written.has(piece)));
}

/** Somebody on the roll, as rows are held against them; what is not known of them is not compared. */
export interface OnRoll {
  readonly id?: string;
  readonly name: string;
  readonly age: number | null;
  readonly servings?: number;
  readonly mode?: Mode | null;
  /** Avoidances as they were written. */
  readonly needs?: readonly string[];
}

export interface CheckedRow extends NumberedCells {
  readonly entry: RollEntry | undefined;
  readonly problems: readonly CellProblem[];
  /** Who on the roll it is, or may be; and whether under the very same name. */
  readonly onRoll?: OnRoll;
  readonly isNamedAlike?: boolean;
  /** It names a family that is known, and is reached elsewhere. */
  readonly isOtherHome?: true;
  /** It may be the person of another row, spelled another way. */
  readonly isNearAnother?: true;
  /** What an update changes, and what it keeps although the file does not say it; in words. */
  readonly changes?: readonly string[];
}

/**
 * Checks all rows of a file together: each by itself, then for people who are there twice, in the file or on the roll.
 * Two people may share a name when their ages differ; a name that is nearly another's is asked about. Rows left out are
 * not checked against others. An update takes nothing away: what a row leaves empty stays, and so does every avoidance
 * that the file does not name.
 *
 * @param enrolled who is on the roll already
 * Two families may share a name too: one that is reached elsewhere than the family of that name is asked about.
 *
 * @param groups names of the course's groups
 * @param homes families that the programme knows
 */
export function checkRoll(
  rows: readonly NumberedCells[],
  enrolled: readonly OnRoll[],
  groups: readonly string[] = [],
  homes: readonly KnownHome[] = [],
): CheckedRow[] {
  const families = new Families(homes);
  const seen = new Map<string, { age: number | null; where: string }[]>();
  const read: SeenRow[] = [];
  const remember = (entry: RollEntry, line: number) => {
    const key = nameKey(entry.name);
    seen.set(key, [...(seen.get(key) ?? []), { age: entry.age, where: `in line ${line} of the file` }]);
    read.push({ entry, line, key, letters: lettersOf(key) });
  };
  const people = enrolled.map((person) => ({ person, key: nameKey(person.name) }));
  const updated = new Set<OnRoll>();
  return rows.map((row): CheckedRow => {
    const { cells } = row;
    const found = row.leaveOut ? undefined : likest({ name: cells.name, age: ageOf(cells) }, people);
    const onRoll = found?.person;
    const isUpdate = onRoll !== undefined && row.as === 'update';
    let near: SeenRow | undefined;
    const reading = readRollRow(isUpdate ? kept(cells, onRoll) : cells, groups);
    const problems: CellProblem[] = 'problems' in reading ? [...reading.problems] : [];
    const lost = lostOf(row);
    if (lost.length > 0)
      problems.unshift({
        column: 'name',
        message: `Beyond the last column stands “${lost.join('”, “')}”: write it where it belongs, or leave this row out.`,
      });
    const plain = 'entry' in reading ? reading.entry : undefined;
    const home = plain && !isUpdate && !row.leaveOut ? families.of(plain, row) : undefined;
    const entry = home?.entry ?? plain;
    if (home?.problem) problems.push({ column: 'household', message: home.problem });
    if (isUpdate) {
      if (updated.has(onRoll))
        problems.push({ column: 'name', message: `Two rows would replace ${onRoll.name}: leave one of them out.` });
      updated.add(onRoll);
    } else if (found && !(row.as === 'new' && !found.isSame)) {
      problems.unshift({
        column: 'name',
        message: found.isSame
          ? `${cells.name.trim()} is on the roll already. Update them, leave this row out, or tell the two apart by name or age.`
          : `${cells.name.trim()} may be ${sayOnRoll(found.person)}, who is on the roll already. Update them, or say that it is somebody else.`,
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
        near = row.as === 'new' ? undefined : nearIn(read, entry);
        if (near) problems.push({ column: 'name', message: sayNear(entry, near) });
        else remember(entry, row.line);
      }
    }
    return {
      ...row,
      entry:
        problems.length > 0 ? undefined : entry && isUpdate ? withAvoidancesOf(onRoll, entry, wasAsked(cells)) : entry,
      problems,
      ...(found ? { onRoll: found.person, isNamedAlike: found.isSame } : {}),
      ...(near ? { isNearAnother: true } : {}),
      ...(home?.isOther ? { isOtherHome: true } : {}),
      ...(entry && isUpdate ? { changes: changesOf(onRoll, entry, wasAsked(cells)) } : {}),
    };
  });
}

const sayOnRoll = ({ name, age }: OnRoll) => (age === null ? name : `${name}, ${age} years old`);

const ageOf = ({ age }: RollCells): number | null => (/^\s*\d{1,3}\s*$/.test(age) ? Number(age) : null);

/** A row with what is held of the person where it says nothing. */
const kept = (cells: RollCells, { age, servings, mode }: OnRoll): RollCells => ({
  ...cells,
  age: cells.age.trim() || String(age ?? ''),
  servings: cells.servings.trim() || String(servings ?? ''),
  mode: cells.mode.trim() || (mode ?? ''),
  // A file that does not ask says nothing new of who is on the roll already.
  avoids: wasAsked(cells) ? cells.avoids : '',
});

const wasAsked = ({ avoids }: RollCells): boolean => avoids.trim() !== NOT_ASKED;

/** What somebody avoided and the row does not name: a list that forgets an allergy takes none away. */
const unnamed = ({ needs = [] }: OnRoll, entry: RollEntry, asked: boolean): readonly string[] => {
  const named = new Set(entry.needs.map(normaliseNeed));
  return needs.filter((need) => !named.has(normaliseNeed(need)) && !(asked && need === NOT_ASKED));
};

const withAvoidancesOf = (person: OnRoll, entry: RollEntry, asked: boolean): RollEntry => ({
  ...entry,
  needs: [...unnamed(person, entry, asked), ...entry.needs],
});

function changesOf(person: OnRoll, entry: RollEntry, asked: boolean): string[] {
  const before = new Set(person.needs?.map(normaliseNeed));
  const added = person.needs ? entry.needs.filter((need) => !before.has(normaliseNeed(need))) : [];
  const still = unnamed(person, entry, asked);
  const differs = <T>(was: T | undefined, now: T) => was !== undefined && was !== now;
  return [
    ...(person.name === entry.name ? [] : [`spelled ${entry.name}`]),
    ...(person.age === entry.age ? [] : [`age ${entry.age}, was ${person.age ?? 'not known'}`]),
    ...(differs(person.servings, entry.servings) ? [`${entry.servings} servings, was ${person.servings}`] : []),
    ...(differs(person.mode, entry.mode) ? [`${entry.mode}, was ${person.mode ?? 'as the session'}`] : []),
    ...(asked && person.needs?.includes(NOT_ASKED) ? ['was asked what they must not eat'] : []),
    ...(added.length > 0 ? [`avoids also ${added.join(', ')}`] : []),
    ...(still.length > 0
      ? [`still avoids ${still.join(', ')}, which the file does not name: take it away by hand if it is over`]
      : []),
  ];
}

/**
 * The person on the roll whose name it is, or whose it may be: spelled another way, or a year older by now. Other ages that
 * differ tell two apart.
 */
function likest(
  { name, age }: Pick<OnRoll, 'name' | 'age'>,
  people: readonly { readonly person: OnRoll; readonly key: string }[],
): { person: OnRoll; isSame: boolean } | undefined {
  const key = nameKey(name);
  const fits = people.filter(({ person }) => person.age === null || age === null || person.age === age);
  const same = fits.find((each) => each.key === key);
  if (same) return { person: same.person, isSame: true };
  const hadBirthday = ({ person }: { person: OnRoll }) => person.age !== null && age === person.age + 1;
  const near =
    people.find((each) => each.key === key && hadBirthday(each)) ?? fits.find((each) => isNearName(each.key, key));
  return near && { person: near.person, isSame: false };
}

/** A row of the file that was read before, ready to be held against others. */
interface SeenRow {
  readonly entry: RollEntry;
  readonly line: number;
  readonly key: string;
  /** A bit for each letter that its name has. */
  readonly letters: number;
}

const lettersOf = (key: string): number => {
  let letters = 0;
  for (const letter of key) letters |= 1 << (letter.charCodeAt(0) & 31);
  return letters;
};

const bits = (set: number): number => {
  let count = 0;
  for (let rest = set; rest !== 0; rest &= rest - 1) count++;
  return count;
};

/** The row of the file that may be the same person spelled another way. */
function nearIn(rows: readonly SeenRow[], { name, age }: RollEntry): SeenRow | undefined {
  const key = nameKey(name);
  const letters = lettersOf(key);
  return rows.find(
    (row) =>
      // Two letters changed alter four at most: most names need no closer look.
      bits(row.letters ^ letters) <= 4 &&
      (row.entry.age === null || age === null || row.entry.age === age) &&
      isNearName(row.key, key),
  );
}

/** How two rows that may be one person differ in what matters. */
function sayNear(entry: RollEntry, { entry: other, line }: SeenRow): string {
  const [own, theirs] = [entry, other].map(({ needs }) => needs.join(', ') || 'nothing');
  const differs = own === theirs ? '' : ` Here ${entry.name} avoids ${own}; there ${other.name} avoids ${theirs}.`;
  return `${entry.name} may be ${other.name} in line ${line} of the file.${differs} Leave one of them out, or say that it is somebody else.`;
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
