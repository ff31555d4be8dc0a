import { ageFromBirth } from '@/core/roll/age';
import type { RollColumn } from '@/core/roll/roll-row';
import { FileRefused } from './text';

/** A heading, and the column it is taken for. */
export interface Heading {
  readonly heading: string;
  readonly column: RollColumn | null;
}

/** A file whose columns a person has to name. */
export class ColumnsUnclear extends FileRefused {
  constructor(
    readonly headings: readonly Heading[],
    message: string,
  ) {
    super(message);
  }
}

/** What headings mean to a programme, in lower case; null for one that is not used. */
export type ColumnWords = Readonly<Record<string, RollColumn | null>>;

/** One form for a heading however it is capitalised and spaced. */
export const headingKey = (heading: string): string => heading.trim().toLowerCase().replace(/\s+/g, ' ');

/** A child, as different programmes say it. */
const WHO = "(?:child|kid|participant|pupil|student|camper)(?:'?s)?";

/** A given name and a surname in columns of their own make one name, in this order. */
const NAME_PARTS = [
  new RegExp(`^(?:${WHO} )?(?:first|given) ?names?$|^forenames?$|^first$`),
  new RegExp(`^(?:${WHO} )?(?:last|family) ?name$|^surname$|^last$`),
] as const;

/** A column of birth dates: ages are counted from it. */
const BORN = /^(?:dob|d\.o\.b|date of birth|birth ?da(?:te|y)|born)$/;

/** What programmes call the columns, in lower case, without apostrophes and what stands in brackets. */
const USUAL: readonly (readonly [RollColumn, RegExp])[] = [
  ['name', NAME_PARTS[0]],
  ['name', NAME_PARTS[1]],
  ['name', new RegExp(`^(?:full )?name(?: of (?:the )?${WHO})?$|^${WHO}(?: (?:full )?name)?$`)],
  ['age', new RegExp(`^(?:${WHO} )?age(?: in years| years)?$|^how old$`)],
  ['age', BORN],
  ['servings', /^(?:servings?|serves|feeds|portions?|kit feeds|number of servings)$/],
  [
    'avoids',
    /^(?:avoids?|avoidances?|(?:food )?allerg(?:y|ies|ens?)|(?:food )?intolerances?|diets?|dietary(?: needs| requirements| restrictions)?|(?:can ?no?t|does not|must not|may not) eat)(?: (?:and|or|&|\/) (?:allergies|diets?|dietary(?: needs| requirements| restrictions)?|intolerances?))?$/,
  ],
  ['mode', /^mode$/],
  ['group', /^group$/],
  ['household', /^(?:household|family)(?: name)?$/],
  [
    'contact',
    /^(?:(?:parent|guardian|contact|family)s? )?(?:contact|(?:e-?)?mail(?: address)?|(?:tele)?phone(?: number)?)$/,
  ],
  ['address', /^(?:home |postal )?address$/],
  ['plan', /^(?:(?:emergency |allergy )?action )?plan$/],
];

/** Headings, and cells, of columns that may say what somebody must not eat: never passed over in silence. */
const SPEAKS_OF_FOOD = /allerg|intoler|diet|medic|health|\beat|food|avoid|condition|epi-?pen/;
const CELL_SPEAKS_OF_FOOD =
  /allerg|intoler|anaphyla|epi-?pen|auto-?injector|coeliac|celiac|must not eat|\b(?:vegan|vegetarian|halal|kosher|gluten|dairy|lactose|nuts?|peanuts?)\b/i;

/** Columns that several headings may fill together, and what stands between. */
const JOINED: Partial<Record<RollColumn, string>> = { name: ' ', avoids: '; ', contact: '; ', plan: ' ' };

/** Longer than any heading. */
const LONGEST_HEADING = 200;

const plainHeading = (heading: string): string =>
  headingKey(heading.slice(0, LONGEST_HEADING).replace(/\(.*?\)|\[.*?\]/g, ' '))
    .replace(/[’']/g, "'")
    .replace(/can't/g, 'cannot')
    .replace(/\s*[:?*.]+$/, '')
    .trim();

const usualColumn = (heading: string): RollColumn | undefined =>
  USUAL.find(([, words]) => words.test(plainHeading(heading)))?.[0];

const partOfName = (heading: string): number => NAME_PARTS.findIndex((part) => part.test(plainHeading(heading)));

/** What a heading names: a column, null where it is known not to be used, undefined where nobody has said. */
function columnOf(heading: string, remembered: ColumnWords): RollColumn | null | undefined {
  const key = headingKey(heading);
  return Object.hasOwn(remembered, key) ? remembered[key] : usualColumn(heading);
}

/** How many of a row's cells name a column. */
export const namedColumns = (cells: readonly string[], remembered: ColumnWords): number =>
  new Set(cells.map((cell) => columnOf(cell, remembered)).filter(Boolean)).size;

/** The columns of a table: where each comes from, and what is said of it before anything is saved. */
export interface Columns {
  readonly headings: readonly Heading[];
  readonly notes: readonly string[];
  /** A row's cells by column; several headings of one column together. */
  readonly read: (cells: readonly string[]) => Partial<Record<RollColumn, string>>;
}

/**
 * Reads a row of headings.
 *
 * @param remembered what the programme said a heading means, in lower case; stands before the usual words
 * @param under the rows under it: what is in a column that no heading explains is looked at, not used
 * @param today the civil date on which ages are counted; birth dates are no ages without it
 * @throws ColumnsUnclear when a person has to say which column is which
 * @throws FileRefused when two columns have one heading and cannot be joined
 */
export function readHeadings(
  cells: readonly string[],
  remembered: ColumnWords,
  under: readonly (readonly string[])[],
  today: string | undefined,
): Columns {
  const said = cells.map((cell) => columnOf(cell, remembered));
  const headings = cells.map((cell, at) => ({ heading: cell.trim(), column: said[at] ?? null }));
  const open = headings.flatMap((heading, at) =>
    said[at] === undefined && heading.heading ? [{ ...heading, at }] : [],
  );
  if (!said.includes('name'))
    throw new ColumnsUnclear(
      headings,
      `No heading says where the names are. The headings read: ${cells.map((cell) => `"${cell.trim().slice(0, 30)}"`).join(', ')}. Say which column is which.`,
    );
  const food = open.find(
    ({ heading, at }) =>
      SPEAKS_OF_FOOD.test(headingKey(heading)) || under.some((row) => CELL_SPEAKS_OF_FOOD.test(row[at] ?? '')),
  );
  if (food)
    throw new ColumnsUnclear(
      headings,
      `“${food.heading}” may say what somebody must not eat, or what to do then. Say which column it is, or leave it at “not used”.`,
    );
  if (!said.includes('servings') && open.length > 0)
    throw new ColumnsUnclear(
      headings,
      'No heading says how many each kit feeds (servings). Say which column does; if none does, it is asked of you after.',
    );
  const births = new Set(
    said.flatMap((column, at) => (column === 'age' && BORN.test(plainHeading(cells[at] ?? '')) ? [at] : [])),
  );
  const sources = new Map<RollColumn, number[]>();
  for (const [at, column] of said.entries())
    if (column) sources.set(column, [...(sources.get(column) ?? []), at].sort(bySurnameLast(cells)));
  const notes: string[] = [];
  for (const [column, places] of sources) {
    if (places.length === 1) continue;
    const own = places.map((at) => cells[at]?.trim() ?? '');
    const names = own.map((heading) => `“${heading}”`).join(' and ');
    const isOwnWord = own.some((heading) => Object.hasOwn(remembered, headingKey(heading)));
    const isWholeName = column === 'name' && !isOwnWord && own.some((heading) => partOfName(heading) < 0);
    const isAgeTwice = column === 'age' && places.filter((at) => !births.has(at)).length === 1;
    if ((JOINED[column] === undefined || isWholeName) && !isAgeTwice) {
      const what = `Two columns are called "${column}": ${names}.`;
      if (new Set(own.map(headingKey)).size < own.length) throw new FileRefused(`${what} Keep one of them.`);
      throw new ColumnsUnclear(headings, `${what} Keep one of them, and leave the other at “not used”.`);
    }
    notes.push(isAgeTwice ? `${names}: the age where it is written.` : `${names} are read together as ${column}.`);
  }
  for (const at of births) if (today) notes.push(`“${cells[at]?.trim()}” is read as the age on ${today}.`);
  const cellAt = (row: readonly string[], at: number) => {
    const cell = (row[at] ?? '').trim();
    return births.has(at) && today ? String(ageFromBirth(cell, today) ?? cell) : cell;
  };
  return {
    headings,
    notes,
    read: (row) =>
      Object.fromEntries(
        [...sources].map(([column, places]) => {
          const written = places.map((at) => cellAt(row, at)).filter((cell) => cell !== '');
          return [column, column === 'age' ? (written[0] ?? '') : written.join(JOINED[column] ?? '')];
        }),
      ),
  };
}

/** Surnames stand after given names, birth dates after ages; else as in the file. */
const bySurnameLast = (cells: readonly string[]) => {
  const order = (at: number) => partOfName(cells[at] ?? '') + (BORN.test(plainHeading(cells[at] ?? '')) ? 1 : 0);
  return (a: number, b: number) => order(a) - order(b) || a - b;
};
