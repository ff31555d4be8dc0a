// Judges every kit that exists, and every text about it, from the rows of the database and a table of foods written by hand.
// Shares no code with the product: what the rules say is said here a second time.
import type { Sequelize } from 'sequelize';

/** What is known of a food without its label: what it is made of, what brands may add, and what a diet asks about. */
interface Truth {
  readonly made: readonly string[];
  readonly brands: readonly string[];
  readonly diet?: readonly string[];
  readonly dietCheck?: readonly string[];
  /** Dangerous to small children, unless it comes in one of these ways. */
  readonly chokes?: readonly string[];
}

export const FOODS: Readonly<Record<string, Truth>> = {
  'plain yogurt': { made: ['MILK'], brands: [], dietCheck: ['MEAT', 'PORK'] },
  'firm tofu': { made: ['SOY'], brands: [] },
  egg: { made: ['EGG'], brands: [] },
  'ground cumin': { made: [], brands: ['MUSTARD', 'PEANUT', 'NUT'] },
  'olive oil': { made: [], brands: [] },
  carrot: { made: [], brands: [], chokes: ['grated'] },
  honey: { made: [], brands: [], diet: ['HONEY'] },
  'plain wheat flour': { made: ['WHEAT', 'GLUTEN'], brands: [] },
  'rice flour': { made: [], brands: ['WHEAT', 'GLUTEN'] },
  walnuts: { made: ['NUT'], brands: ['PEANUT', 'SESAME'], chokes: [] },
  'cherry tomato': { made: [], brands: [], chokes: ['cut lengthways into quarters'] },
  'peanut butter': { made: ['PEANUT'], brands: ['NUT', 'SOY', 'SESAME'], dietCheck: ['HONEY'] },
  'sunflower seeds': { made: [], brands: ['NUT', 'PEANUT', 'SESAME'] },
};

/** What families write, and what it stands for without the programme's help. */
export const NEEDS: Readonly<Record<string, readonly string[] | undefined>> = {
  egg: ['EGG'],
  milk: ['MILK'],
  peanut: ['PEANUT'],
  'tree nuts': ['NUT'],
  wheat: ['WHEAT'],
  gluten: ['GLUTEN'],
  soya: ['SOY'],
  sesame: ['SESAME'],
  mustard: ['MUSTARD'],
  honey: ['HONEY'],
  moonroot: undefined,
  'sea thrift': undefined,
};

const SAID: Readonly<Record<string, string>> = {
  MILK: 'milk',
  EGG: 'egg',
  NUT: 'tree nuts',
  PEANUT: 'peanut',
  WHEAT: 'wheat',
  GLUTEN: 'gluten',
  SOY: 'soya',
  SESAME: 'sesame',
  MUSTARD: 'mustard',
};

type Label = readonly string[] | undefined;

/** All that a food may hold, by a label that was read or by none. */
function holds(food: string, preparation: string, label: Label): Set<string> {
  const truth = FOODS[food];
  if (!truth) throw new Error(`The judge does not know ${food}.`);
  const named = label?.filter((code) => !code.startsWith('no:'));
  const all = new Set([
    ...(named ?? [...truth.made, ...truth.brands]),
    ...(truth.diet ?? []),
    ...(truth.dietCheck ?? []).filter((code) => !label?.includes(`no:${code}`)),
  ]);
  if (all.has('WHEAT')) all.add('GLUTEN');
  if (truth.chokes && !truth.chokes.includes(preparation)) all.add('CHOKING');
  return all;
}

interface Component {
  readonly key: string;
  readonly row: number;
  readonly option: number;
  readonly ingredient: string;
  readonly name: string;
  readonly preparation?: string;
  readonly from?: string;
}
interface Jar {
  readonly id: string;
  readonly ingredient: string;
  readonly fresh?: number;
}
interface Snapshot {
  readonly kits: readonly { id: string; enrolmentId: string; variant: string; number: number; name: string }[];
  readonly content: {
    readonly input: { readonly labels: Readonly<Record<string, string[]>> };
    readonly rows: readonly { readonly aisle: string }[];
    readonly variants: readonly {
      readonly letter: string;
      readonly components: readonly Component[] | null;
      readonly extra?: string;
      readonly supply?: { readonly jars?: readonly Jar[] };
    }[];
  };
}

/** One kit as it stands, and what is right for it. */
export interface Verdict {
  readonly sessionId: string;
  readonly kitId: string;
  readonly number: number;
  readonly name: string;
  readonly isHeld: boolean;
  /** Why it must be called back; none when it is safe. */
  readonly why: readonly string[];
  /** Whether the other way round is judged too: a kit that is safe must not be called back. */
  readonly isSure: boolean;
  /** Allergens that its printed label must name. */
  readonly toName: readonly string[];
}

/** Reads the database, row by row. */
export class Judge {
  constructor(
    private readonly database: Sequelize,
    private readonly programmeId: string,
  ) {}

  private async rows<Row>(sql: string, values: Record<string, unknown> = {}): Promise<Row[]> {
    const [rows] = await this.database.query(sql, { replacements: { programmeId: this.programmeId, ...values } });
    return rows as Row[];
  }

  /** @param today the civil date: what was to be eaten before it is eaten */
  async verdicts(today: string): Promise<Verdict[]> {
    const sessions = await this.rows<{ id: string; course_id: string; last: string }>(
      `SELECT s.id, s.course_id, GREATEST(s.date, COALESCE(s.cook_by, s.date),
              COALESCE((SELECT MAX(t.date) FROM sitting t WHERE t.session_id = s.id AND t.status = 'planned'), s.date)) AS last
         FROM session s JOIN course c ON c.id = s.course_id WHERE c.programme_id = :programmeId AND s.status = 'planned'`,
    );
    const meanings = new Map(
      (
        await this.rows<{ word: string; codes: string[] }>(
          'SELECT word, codes FROM avoidance_meaning WHERE programme_id = :programmeId',
        )
      ).map(({ word, codes }) => [word, codes]),
    );
    const usual = new Map(
      (
        await this.rows<{ ingredient: string; allergens: string[] }>(
          'SELECT ingredient, allergens FROM product WHERE programme_id = :programmeId AND in_kits = 1 AND allergens IS NOT NULL',
        )
      ).map(({ ingredient, allergens }) => [ingredient, allergens]),
    );
    const found: Verdict[] = [];
    for (const session of sessions)
      if (String(session.last).slice(0, 10) >= today) found.push(...(await this.ofSession(session, meanings, usual)));
    return found;
  }

  private async ofSession(
    { id, course_id }: { id: string; course_id: string },
    meanings: ReadonlyMap<string, readonly string[]>,
    usual: ReadonlyMap<string, readonly string[]>,
  ): Promise<Verdict[]> {
    const of = { id, course: course_id };
    const [sheet] = await this.rows<{ snapshot: string }>(
      'SELECT snapshot FROM kit_sheet WHERE session_id = :id ORDER BY revision DESC LIMIT 1',
      of,
    );
    if (!sheet) return [];
    const { kits, content } = JSON.parse(sheet.snapshot) as Snapshot;
    const people = await this.rows<Person>(
      'SELECT id, needs, age, status, group_id, household_id, shared_kit FROM enrolment WHERE course_id = :course ORDER BY id',
      of,
    );
    const away = new Set(
      (
        await this.rows<{ enrolment_id: string }>(
          'SELECT enrolment_id FROM away WHERE session_id = :id AND mode IS NULL',
          of,
        )
      ).map((row) => row.enrolment_id),
    );
    const out = new Set(
      (
        await this.rows<{ enrolment_id: string }>('SELECT enrolment_id FROM kit_exclusion WHERE session_id = :id', of)
      ).map((row) => row.enrolment_id),
    );
    // Whose group has no sitting of this session comes with the first.
    const cancelled = new Set(
      (
        await this.rows<{ group_id: string }>(
          "SELECT group_id FROM sitting WHERE session_id = :id AND status = 'cancelled'",
          of,
        )
      ).map((row) => row.group_id),
    );
    const planned = new Set(
      (
        await this.rows<{ group_id: string }>(
          "SELECT group_id FROM sitting WHERE session_id = :id AND status = 'planned'",
          of,
        )
      ).map((row) => row.group_id),
    );
    /** With whom they meet: their own group where it has a sitting, else the first. */
    const meeting = ({ group_id }: Person) => (group_id !== null && planned.has(group_id) ? group_id : '');
    const labels = new Map(
      (
        await this.rows<{ ingredient: string; allergens: string[] }>(
          'SELECT ingredient, allergens FROM product_label WHERE session_id = :id',
          of,
        )
      ).map((row) => [row.ingredient, row.allergens]),
    );
    const events = await this.rows<{ kit_id: string; component: string; action: string }>(
      'SELECT kit_id, component, action FROM pack_event WHERE session_id = :id ORDER BY seq',
      of,
    );
    // What was taken off the shelves for kits of some letters: "3|A C" says of which revision, and for which.
    const lots = (
      await this.rows<{ reason: string; ingredient: string; allergens: string[] | null }>(
        `SELECT m.reason, l.ingredient, l.allergens FROM stock_move m JOIN stock_lot l ON l.id = m.lot_id
          WHERE m.session_id = :id AND m.kind = 'used' AND l.allergens IS NOT NULL`,
        of,
      )
    ).map(({ reason, ...lot }) => ({ ...lot, letters: (reason.split('|')[1] ?? '').split(' ') }));
    const given = await this.rows<{ kit_id: string; fate: string; to_id: string | null }>(
      'SELECT kit_id, fate, to_id FROM kit_fate WHERE session_id = :id ORDER BY at, id',
      of,
    );
    const jars = await this.rows<{
      enrolment_id: string;
      supply_id: string;
      label: string[] | null;
      session_id: string;
      recorded: string[] | null;
    }>(
      // Of the sessions before it, and not for whoever was away, left out, or never fetched that kit.
      `SELECT i.enrolment_id, i.supply_id, i.label, i.session_id,
              (SELECT JSON_EXTRACT(p.allergens, '$') FROM product_label p WHERE p.session_id = i.session_id AND p.ingredient = 'olive oil') AS recorded
         FROM issue i JOIN session s ON s.id = i.session_id
        WHERE s.course_id = :course AND s.status = 'planned' AND i.units > 0 AND i.supply_id = 'oil'
          AND (s.date, s.starts_at, s.id) < (SELECT t.date, t.starts_at, t.id FROM session t WHERE t.id = :id)
          AND NOT EXISTS (SELECT 1 FROM away w WHERE w.session_id = s.id AND w.enrolment_id = i.enrolment_id AND w.mode IS NULL)
          AND NOT EXISTS (SELECT 1 FROM kit_exclusion x WHERE x.session_id = s.id AND x.enrolment_id = i.enrolment_id)
          AND COALESCE((SELECT a.state FROM attendance a WHERE a.session_id = s.id AND a.enrolment_id = i.enrolment_id
                AND a.state IN ('collected', 'not collected') ORDER BY a.at DESC, a.id DESC LIMIT 1), '') <> 'not collected'`,
      of,
    );
    const comes = ({ id: person, status, group_id }: Person) =>
      status === 'enrolled' && !away.has(person) && !out.has(person) && !cancelled.has(group_id ?? '');
    const labelNow = (food: string): Label => labels.get(food) ?? usual.get(food);
    const coming = people.filter(comes);
    return kits.map((kit): Verdict => {
      const variant = content.variants.find(({ letter }) => letter === kit.variant);
      const components = variant?.components ?? [];
      const taken = given.filter(({ kit_id }) => kit_id === kit.id).at(-1);
      const isGiven = taken?.fate === 'given away';
      const own = people.find((person) => person.id === (isGiven ? taken.to_id : kit.enrolmentId));
      // Siblings who share a kit eat of one: the first of them stands for all.
      const sharing =
        own && !isGiven && own.shared_kit === 1
          ? coming.filter(
              (each) =>
                each.shared_kit === 1 && each.household_id === own.household_id && meeting(each) === meeting(own),
            )
          : [];
      const eaters = sharing.length > 1 ? sharing : own ? [own] : [];
      const why: string[] = [];
      if (!own || (!isGiven && !comes(own))) why.push('nobody is to get it');
      const avoided = new Set<string>();
      for (const eater of eaters) {
        for (const need of eater.needs) {
          const codes = meanings.get(need) ?? NEEDS[need];
          if (!codes) why.push(`“${need}” has no meaning`);
          for (const code of codes ?? []) avoided.add(code);
        }
        if (eater.age !== null && eater.age < 5) avoided.add('CHOKING');
        if (eater.age !== null && eater.age < 1) avoided.add('HONEY');
      }
      const toName = new Set<string>();
      for (const component of components) {
        const food = component.ingredient;
        if (content.rows[component.row]?.aisle === 'equipment') continue;
        const preparation = component.preparation ?? '';
        const isTheirs = component.from === 'at home already' || component.from === 'in the box they receive';
        const readings: Set<string>[] = [];
        if (component.from === 'from the jar') {
          const mine = jars.filter((jar) => jar.enrolment_id === kit.enrolmentId);
          for (const { label, recorded } of mine) {
            readings.push(holds(food, preparation, label ?? undefined));
            if (recorded) readings.push(holds(food, preparation, recorded));
          }
          const comesAlong = variant?.supply?.jars?.some((jar) => jar.ingredient === food && (jar.fresh ?? 0) > 0);
          // One that an earlier session is still to hand out is of that session's product: nobody holds it yet.
          if (comesAlong)
            readings.push(
              holds(food, preparation, content.input.labels[food]),
              holds(food, preparation, labelNow(food)),
            );
        } else if (isTheirs) readings.push(holds(food, preparation, undefined));
        else
          readings.push(holds(food, preparation, content.input.labels[food]), holds(food, preparation, labelNow(food)));
        if (!isTheirs)
          for (const lot of lots)
            if (lot.ingredient === food && lot.letters.includes(kit.variant))
              readings.push(holds(food, preparation, lot.allergens ?? undefined));
        const held = new Set(readings.flatMap((reading) => [...reading]));
        const bad = [...avoided].filter((code) => held.has(code));
        if (bad.length > 0) why.push(`${component.name} holds ${bad.join(', ')}`);
        if (component.from !== 'from the jar')
          for (const code of isTheirs
            ? holds(food, preparation, undefined)
            : holds(food, preparation, content.input.labels[food]))
            if (SAID[code]) toName.add(SAID[code]);
      }
      const inside = new Set<string>();
      for (const { kit_id, component, action } of events) {
        if (kit_id !== kit.id) continue;
        if (action === 'packed') inside.add(component);
        if (action === 'undone') inside.delete(component);
      }
      for (const key of inside) {
        if (components.some((component) => component.key === key)) continue;
        const [, food = '', preparation = ''] = key.split('|');
        if (!FOODS[food]) continue;
        const held = new Set([...holds(food, preparation, undefined), ...holds(food, preparation, labelNow(food))]);
        const bad = [...avoided].filter((code) => held.has(code));
        if (bad.length > 0) why.push(`${food}, left in it, holds ${bad.join(', ')}`);
      }
      let isHeld = false;
      for (const { kit_id, action } of events)
        if (kit_id === kit.id && (action === 'called back' || action === 'let go on'))
          isHeld = action === 'called back';
      return {
        sessionId: id,
        kitId: kit.id,
        number: kit.number,
        name: kit.name,
        isHeld,
        why,
        // Which of siblings stands for all, and which jar an earlier session will hand out, is the product's affair.
        isSure: sharing.length < 2 && !components.some(({ from }) => from === 'from the jar'),
        toName: [...toName],
      };
    });
  }
}

interface Person {
  readonly id: string;
  readonly needs: readonly string[];
  readonly age: number | null;
  readonly status: string;
  readonly group_id: string | null;
  readonly household_id: string;
  readonly shared_kit: number;
}
