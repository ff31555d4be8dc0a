import { ageFromBirth } from '@/core/roll/age';
import { type ColumnWords, NOT_ASKED, type RollColumn } from '@/core/roll/roll-row';
import { understandNeed } from '@/core/safety/avoidances';
import { FileRefused } from '../text';

/** A heading, and the column it is taken for. */
export interface Heading {
  readonly heading: string;
  readonly column: RollColumn | null;
  /** It may say what somebody must not eat: a person has to choose, nothing is chosen for them. */
  readonly mayMatter?: true;
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
  ['age', new RegExp(`^(?:${WHO} )?age[ds]?(?: in years| years| yrs)?$|^how old$|^yrs(?: old)?$|^years old$`)],
  ['age', BORN],
  [
    'servings',
    /^(?:(?:(?:number|no\.?|num\.?|#) of )?(?:servings?|portions?)(?: (?:needed|required|wanted|per kit))?|serves|feeds|kit feeds|(?:number|no\.?|num\.?|#) of (?:people|persons|members|mouths|eaters)(?: (?:in|at|to|who)\b.*)?|(?:household|family) size|people in (?:the )?(?:household|family)|how many (?:people|servings|portions|to feed)(?:\b.*)?)$/,
  ],
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
  [
    'contact',
    /^(?:parent|guardian|carer|mother|father|mum|mom|dad)s?(?: ?\/ ?(?:guardian|carer)s?)?(?: ?\d)?(?: (?:name|mobile|cell|phone|e-?mail)s?)?$/,
  ],
  ['contact', /^(?:mobile|cell)(?: ?(?:phone|number|no\.?))*$/],
  ['address', /^(?:home |postal )?address$/],
  ['plan', /^(?:(?:emergency |allergy )?action )?plan$/],
];

/** "Allergies/Dietary", "Any food allergies? Please list", "What allergy": words of food and of asking, and no other. */
const FOOD_WORDS =
  /^(?:allerg(?:y|ies|ens?|ic)|intoleran(?:ce|ces|t)|diet(?:s|ary)?|avoids?|food|needs?|requirements?|restrictions?|special|known|any|all|what|which|please|list|details?|info(?:rmation)?|of|or|and|to|if|yes|other|your|child|childs|the)$/;
const NAMES_FOOD = /allerg|intoler|diet|avoid/;
const asksOfFood = (heading: string): boolean => {
  const words = plainHeading(heading)
    .split(/[^\p{L}]+/u)
    .filter(Boolean);
  return words.some((word) => NAMES_FOOD.test(word)) && words.every((word) => FOOD_WORDS.test(word));
};

/** "Last, First": one column that has the surname before a comma. */
const SURNAME_FIRST =
  /^(?:last|family|sur) ?name, ?(?:first|given|fore) ?name$|^last, ?first(?: name)?$|^surname, ?(?:first|given|fore) ?names?$/;

/** Headings, and cells, of columns that may say what somebody must not eat: never passed over in silence. */
const SPEAKS_OF_FOOD =
  /allerg|intoler|diet|medic|health|\beat|food|avoid|condition|epi-?pen|react|\bnotes?\b|comment|remark|special|\bneeds?\b|\bcare\b|sensitiv|warning|anything|should know|(?:other|further|extra) info/;
const CELL_SPEAKS_OF_FOOD =
  /allerg|intoler|anaphyla|epi-?pen|auto-?injector|coeliac|celiac|must not eat|\b(?:vegan|vegetarian|halal|kosher|gluten|dairy|lactose|nuts?|peanuts?)\b/i;

/** Whether words, taken one by one, name something that is avoided: "Milk ok?", "PEANUT ALLERGY". */
const namesAvoidance = (text: string): boolean =>
  text
    .toLowerCase()
    .split(/[^\p{L}]+/u)
    .some((word) => word.length > 2 && (understandNeed(word, NOTHING_SAID).codes?.length ?? 0) > 0);

const NOTHING_SAID: ReadonlyMap<string, readonly string[]> = new Map();

/** Whether a column may say what somebody must not eat, by its heading or by what stands in it. */
const mayMatter = (heading: string, cells: readonly string[]): boolean =>
  SPEAKS_OF_FOOD.test(headingKey(heading)) ||
  namesAvoidance(heading) ||
  cells.some((cell) => CELL_SPEAKS_OF_FOOD.test(cell) || namesAvoidance(cell));

const TICKED = /^(?:x|✓|✔|☑|y|yes|1|true|ja|oui|si|sí)$/i;
const UNTICKED = /^(?:|-|–|n|no|0|false|nein|non)$/i;

/** What a column of ticks stands for, by its heading: "Milk", "Nut free?"; undefined for any other column. */
function tickedNeed(heading: string, cells: readonly string[]): string | undefined {
  const need = plainHeading(heading)
    .replace(/[?!]+$/, '')
    .trim();
  const { codes = [] } = understandNeed(need, NOTHING_SAID);
  const said = cells.map((cell) => cell.trim());
  return codes.length > 0 && said.every((cell) => TICKED.test(cell) || UNTICKED.test(cell)) ? need : undefined;
}

/** A column that says which, where another says whether. */
const SAYS_WHICH = /\b(?:what|which|list|details?|specify|if yes)\b/i;
const SAYS_NOTHING = /^(?:|-|–|\?|x|y|yes|n|no|0|1|none.*|nil|n\/?a|not .*|un.*|see .*|tbc)$/i;

/** How a column without a heading is called. */
const nameless = (at: number): string => `${NO_HEADING} ${at + 1})`;
const NO_HEADING = '(no heading, column';

/** Whether a heading only says that there is none: it means something else in the next file. */
export const isNameless = (heading: string): boolean => heading.startsWith(NO_HEADING);

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
  SURNAME_FIRST.test(plainHeading(heading))
    ? 'name'
    : (USUAL.find(([, words]) => words.test(plainHeading(heading)))?.[0] ??
      (asksOfFood(heading) ? 'avoids' : undefined));

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

/** What is known of a table beside its headings. */
export interface HeadingsKnown {
  /** The civil date on which ages are counted; birth dates are no ages without it. */
  readonly today?: string | undefined;
  /** What was said of this very file: it is not asked again. */
  readonly now?: ColumnWords;
  /** Empty cells at the end of a row are not kept: a short row leaves out nothing. */
  readonly isTrimmed?: boolean;
}

/**
 * Reads a row of headings.
 *
 * @param remembered what the programme said a heading means, in lower case; stands before the usual words
 * @param under the rows under it: what is in a column that no heading explains is looked at, not used
 * @throws ColumnsUnclear when a person has to say which column is which
 * @throws FileRefused when two columns have one heading and cannot be joined
 */
export function readHeadings(
  written: readonly string[],
  remembered: ColumnWords,
  under: readonly (readonly string[])[],
  { today, now = {}, isTrimmed = false }: HeadingsKnown,
): Columns {
  const width = Math.max(written.length, ...under.map((row) => row.length));
  const columnAt = (at: number) => under.map((row) => row[at] ?? '');
  const isEmpty = (at: number) => columnAt(at).every((cell) => cell.trim() === '');
  // A heading may be missing where something stands under it.
  const cells = Array.from(
    { length: width },
    (_, at) => written[at]?.trim() || (isEmpty(at) ? '' : nameless(at)),
  ).slice(
    0,
    // What stands beyond the headings is a separator that is loose.
    written.length,
  );
  const ticks = cells.map((cell, at) =>
    columnOf(cell, { ...remembered, ...now }) === undefined ? tickedNeed(cell, columnAt(at)) : undefined,
  );
  const said = cells.map((cell, at): RollColumn | null | undefined => {
    const key = headingKey(cell);
    if (ticks[at] !== undefined) return 'avoids';
    if (Object.hasOwn(now, key)) return now[key];
    const known = columnOf(cell, remembered);
    // What was said not to be used once is asked about again when it speaks of food.
    return known === null && mayMatter('', columnAt(at)) ? undefined : known;
  });
  const headings = cells.map(
    (cell, at): Heading => ({
      heading: cell.trim(),
      column: said[at] ?? null,
      ...(said[at] === undefined && cell !== '' && mayMatter(cell, columnAt(at)) ? { mayMatter: true as const } : {}),
    }),
  );
  const open = headings.flatMap((heading, at) =>
    said[at] === undefined && heading.heading && !isNameless(heading.heading) ? [{ ...heading, at }] : [],
  );
  if (!said.includes('name'))
    throw new ColumnsUnclear(
      headings,
      `No heading says where the names are. The headings read: ${cells.map((cell) => `"${cell.trim().slice(0, 30)}"`).join(', ')}. Say which column is which.`,
    );
  const food = headings.find((heading) => heading.mayMatter);
  if (food)
    throw new ColumnsUnclear(
      headings,
      `“${food.heading}” may say what somebody must not eat, or what to do then. Say which column it is, or that it is not used.`,
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
  const ticked = cells.filter((_, at) => ticks[at] !== undefined).map((cell) => `“${cell.trim()}”`);
  if (ticked.length > 0)
    notes.push(`${ticked.join(' and ')}: who has a tick there is read as avoiding it; an empty cell says nothing.`);
  for (const [column, places] of sources) {
    if (places.length === 1 || (column === 'avoids' && places.every((at) => ticks[at] !== undefined))) continue;
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
  const asked = sources.get('avoids') ?? [];
  if (asked.length === 0)
    notes.push(
      'No column says what people must not eat: everybody in it is taken as “not asked”, and their kits wait until somebody says it on the roll.',
    );
  /** Whether a row says anything about what is avoided, if only by an empty cell. */
  const isAsked = (row: readonly string[]) => asked.some((at) => isTrimmed || at < row.length);
  const cellAt = (row: readonly string[], at: number) => {
    const cell = (row[at] ?? '').trim();
    const need = ticks[at];
    if (need !== undefined) return TICKED.test(cell) ? need : '';
    if (SURNAME_FIRST.test(plainHeading(cells[at] ?? ''))) return cell.replace(/^([^,]+), *(.+)$/, '$2 $1');
    if (asked.includes(at) && asked.length > 1) {
      // "Allergy? yes" beside "What allergy: sesame": the other column says it. Beside any other, a yes is asked about.
      const isSaid = asked.some(
        (other) => other !== at && SAYS_WHICH.test(cells[other] ?? '') && !SAYS_NOTHING.test((row[other] ?? '').trim()),
      );
      if (UNTICKED.test(cell) || (isSaid && TICKED.test(cell))) return '';
    }
    return births.has(at) && today ? String(ageFromBirth(cell, today) ?? cell) : cell;
  };
  return {
    headings,
    notes,
    read: (row) => ({
      ...(isAsked(row) ? {} : { avoids: NOT_ASKED }),
      ...Object.fromEntries(
        [...sources].flatMap(([column, places]) => {
          if (column === 'avoids' && !isAsked(row)) return [];
          const written = places.map((at) => cellAt(row, at)).filter((cell) => cell !== '');
          return [[column, column === 'age' ? (written[0] ?? '') : written.join(JOINED[column] ?? '')]];
        }),
      ),
    }),
  };
}

/** Surnames stand after given names, birth dates after ages; else as in the file. */
const bySurnameLast = (cells: readonly string[]) => {
  const order = (at: number) => partOfName(cells[at] ?? '') + (BORN.test(plainHeading(cells[at] ?? '')) ? 1 : 0);
  return (a: number, b: number) => order(a) - order(b) || a - b;
};
