import type { OwnFood } from '@/core/reference/own-reference';
import { hold } from './hold';
import { columnsOf, select } from './sql';
import type { Db } from './store';
import type { CrewMemberRow } from './tables/crew';
import type { ProgrammeRow } from './tables/programme';

/** What a programme decided for itself, as its tables hold it. */
interface Decided {
  meaning: { readonly word: string; readonly codes: readonly string[] };
  /** Days on which the crew rests: public holidays, and the programme's own closures of whole days. */
  rest: { readonly from: string; readonly to: string };
  food: { readonly body: OwnFood };
  /** Of the product of a food that kits take. */
  label: { readonly ingredient: string; readonly product: string; readonly allergens: readonly string[] };
  limit: { readonly ingredient: string; readonly daysWhole: number | null; readonly daysOpened: number | null };
  /** The newest of each measure. */
  weighing: {
    readonly ingredient: string;
    readonly preparation: string;
    readonly measure: string;
    readonly grams: string;
    readonly day: string;
  };
  /** The newest edible share of each food and preparation. */
  yield: {
    readonly ingredient: string;
    readonly preparation: string;
    readonly ediblePortion: string;
    readonly day: string;
  };
  /** Names of foods that only this programme knows. */
  foodWord: { readonly word: string; readonly ingredient: string };
  /** All of the crew: what decides whether they may do a duty. */
  crew: readonly {
    readonly id: string;
    readonly name: string;
    readonly isAdult: number;
    readonly skills: CrewMemberRow['skills'];
    readonly sickUntil: string | null;
  }[];
}

/** A programme with all that it decided for itself: one query. */
export interface DecidedProgramme {
  readonly programme: ProgrammeRow;
  /** What it decided of one kind. */
  of<Kind extends keyof Decided>(kind: Kind): Decided[Kind][];
  /** The same of several kinds as one text: equal texts mean equal decisions; '' where there are none. */
  mark(...kinds: (keyof Decided)[]): string;
}

/** Holds a programme for the rest of the transaction, so that two who change what holds for all of it see each other. */
export const holdProgramme = (db: Db, values: { programmeId: string }) => hold(db, 'programme', [values.programmeId]);

/** @returns undefined when there is no such programme */
export async function programmeWithDecisions(db: Db, programmeId: string): Promise<DecidedProgramme | undefined> {
  const rows = await select<ProgrammeRow & { kind: keyof Decided | null; decided: string }>(
    db,
    `SELECT ${columnsOf(db.models.programme, 'p')}, x.kind, CAST(x.decided AS CHAR) AS decided
       FROM programme p LEFT JOIN (
         SELECT 'meaning' AS kind, JSON_OBJECT('word', word, 'codes', codes) AS decided
           FROM avoidance_meaning WHERE programme_id = :programmeId
         UNION ALL SELECT 'rest', JSON_OBJECT('from', CAST(f.from_date AS CHAR), 'to', CAST(f.to_date AS CHAR))
           FROM closure f JOIN closure_calendar k ON k.id = f.calendar_id
          WHERE k.programme_id = :programmeId AND k.kind <> 'imported' AND k.place_id IS NULL AND f.from_time IS NULL
         UNION ALL SELECT 'food', JSON_OBJECT('body', body) FROM own_food WHERE programme_id = :programmeId
         UNION ALL SELECT 'foodWord', JSON_OBJECT('word', word, 'ingredient', ingredient) FROM food_word WHERE programme_id = :programmeId
         UNION ALL SELECT 'label', JSON_OBJECT('ingredient', ingredient, 'product', name, 'allergens', allergens)
           FROM product WHERE programme_id = :programmeId AND in_kits = 1 AND allergens IS NOT NULL
         -- One row for all of them: the programme's own columns come with every row.
         UNION ALL SELECT 'crew', JSON_ARRAYAGG(JSON_OBJECT('id', id, 'name', name, 'isAdult', is_adult, 'skills', skills,
                'sickUntil', CAST(sick_until AS CHAR)) ORDER BY id)
           FROM crew_member WHERE programme_id = :programmeId AND erased_at IS NULL GROUP BY programme_id
         UNION ALL SELECT 'limit', JSON_OBJECT('ingredient', ingredient, 'daysWhole', days_whole, 'daysOpened', days_opened)
           FROM keeping_limit WHERE programme_id = :programmeId
         UNION ALL SELECT 'yield', JSON_OBJECT('ingredient', ingredient, 'preparation', preparation, 'ediblePortion', edible_portion,
                'day', CAST(DATE(at) AS CHAR)) FROM (
           SELECT *, ROW_NUMBER() OVER (PARTITION BY ingredient, preparation ORDER BY at DESC, id DESC) AS newest
             FROM own_yield WHERE programme_id = :programmeId) AS y WHERE newest = 1
         UNION ALL SELECT 'weighing', JSON_OBJECT('ingredient', ingredient, 'preparation', preparation, 'measure', measure,
                'grams', grams, 'day', CAST(DATE(at) AS CHAR)) FROM (
           SELECT *, ROW_NUMBER() OVER (PARTITION BY ingredient, preparation, measure ORDER BY at DESC, id DESC) AS newest
             FROM weighing WHERE programme_id = :programmeId) AS w WHERE newest = 1) AS x ON TRUE
      WHERE p.id = :programmeId`,
    { programmeId },
  );
  const [first] = rows;
  if (!first) return undefined;
  const { kind: _kind, decided: _decided, ...programme } = first;
  const texts = (kind: keyof Decided) => rows.flatMap((row) => (row.kind === kind ? [row.decided] : []));
  return {
    programme,
    of: <Kind extends keyof Decided>(kind: Kind) => texts(kind).map((text) => JSON.parse(text) as Decided[Kind]),
    mark: (...kinds) => kinds.flatMap(texts).join('\n'),
  };
}
