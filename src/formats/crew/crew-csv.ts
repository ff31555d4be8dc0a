import { DUTY_KINDS, type DutyKind, SKILLS, type Skill } from '@/core/crew/duties';
import { readDate } from '@/core/plan/manner';
import { writeCsv } from '../csv';
import { readTable, type TableFile } from '../table-csv';

/** One person of a crew file; times as they are written, dates as YYYY-MM-DD. */
export interface CrewLine {
  /** As the file counts, the headings are line 1. */
  readonly line: number;
  readonly name: string;
  readonly contact: string;
  readonly languages: string;
  readonly isAdult: boolean;
  readonly skills: readonly { readonly skill: Skill; readonly until: string | null; readonly seen: string }[];
  readonly free: string;
  readonly mostDuties: string;
  readonly mostHours: string;
  readonly noLifting: boolean;
  readonly likes: readonly DutyKind[];
  readonly ratherNot: readonly DutyKind[];
  readonly goesTo: readonly string[];
  readonly endsOn: string;
}

export const CREW_HEADINGS = [
  'name',
  'contact',
  'languages',
  'adult',
  'skills',
  'free',
  'most duties',
  'most hours',
  'no lifting',
  'likes',
  'rather not',
  'goes to',
  'kept until',
] as const;
const MOST_LINES = 1000;

/** "yes", "no", left empty; undefined for what is neither. */
function saysYes(text: string, usual: boolean): boolean | undefined {
  const word = text.toLowerCase();
  if (word === '') return usual;
  if (/^(?:y|yes|x|1|true|adult)$/.test(word)) return true;
  return /^(?:n|no|0|false|minor|child)$/.test(word) ? false : undefined;
}

/** "lead; background check until 2027-01-31 (seen by Marit)": the skills, or the part that is none. */
function skillsIn(text: string): CrewLine['skills'] | string {
  const skills: CrewLine['skills'][number][] = [];
  for (const part of text.split(';')) {
    const said = part.trim();
    if (said === '') continue;
    const [, name = '', date, seen = ''] =
      /^(.+?)(?:\s+until\s+([^(]+?))?(?:\s*\((?:seen by\s+)?([^)]*)\))?$/i.exec(said) ?? [];
    const skill = SKILLS.find((each) => each === name.trim().toLowerCase());
    const until = date === undefined ? null : readDate(date);
    if (!skill || until === undefined) return said;
    skills.push({ skill, until, seen });
  }
  return skills;
}

const listIn = (text: string): string[] =>
  text
    .split(';')
    .map((word) => word.trim())
    .filter(Boolean);

/** What is wrong with a line, or the line. */
function lineOf(cell: (name: string) => string, line: number): CrewLine | string {
  const name = cell('name');
  if (name === '') return 'Write a name.';
  const isAdult = saysYes(cell('adult'), true);
  if (isAdult === undefined) return `“${cell('adult')}” is neither yes nor no: is ${name} an adult?`;
  const noLifting = saysYes(cell('no lifting'), false);
  if (noLifting === undefined) return `“${cell('no lifting')}” is neither yes nor no.`;
  const skills = skillsIn(cell('skills'));
  if (typeof skills === 'string')
    return `“${skills}” is no skill that is known: ${SKILLS.join(', ')}; each with “until 2027-01-31” where it ends.`;
  const likes = listIn(cell('likes').toLowerCase());
  const ratherNot = listIn(cell('rather not').toLowerCase());
  const strange = [...likes, ...ratherNot].find((word) => !DUTY_KINDS.includes(word as DutyKind));
  if (strange !== undefined) return `“${strange}” is no duty that is known: ${DUTY_KINDS.join(', ')}.`;
  const kept = cell('kept until');
  const endsOn = kept === '' ? '' : readDate(kept);
  if (endsOn === undefined) return `Write days as 2026-12-24: “${kept}” is none.`;
  return {
    line,
    name,
    contact: cell('contact'),
    languages: cell('languages'),
    isAdult,
    skills,
    free: cell('free'),
    mostDuties: cell('most duties'),
    mostHours: cell('most hours'),
    noLifting,
    likes: likes as DutyKind[],
    ratherNot: ratherNot as DutyKind[],
    goesTo: listIn(cell('goes to')),
    endsOn,
  };
}

/**
 * Reads a file of a crew: a heading row with name, and any of the others, in any order.
 *
 * @throws FileRefused where it is no such table
 */
export const readCrewCsv = (bytes: Uint8Array): TableFile<CrewLine> =>
  readTable(bytes, { needed: ['name'], most: MOST_LINES, like: 'the crew' }, lineOf);

const yes = (is: boolean) => (is ? 'yes' : 'no');

/** A crew as a file that can be brought in again. */
export const writeCrewCsv = (lines: readonly Omit<CrewLine, 'line'>[]): string =>
  writeCsv([
    [...CREW_HEADINGS],
    ...lines.map((line) => [
      line.name,
      line.contact,
      line.languages,
      yes(line.isAdult),
      line.skills
        .map(({ skill, until, seen }) => `${skill}${until ? ` until ${until}` : ''}${seen ? ` (seen by ${seen})` : ''}`)
        .join('; '),
      line.free,
      line.mostDuties,
      line.mostHours,
      yes(line.noLifting),
      line.likes.join('; '),
      line.ratherNot.join('; '),
      line.goesTo.join('; '),
      line.endsOn,
    ]),
  ]);
