import { type ContainerSize, kitBulks } from '../kits/figures/containers';
import type { LockedSheet } from '../kits/record/locked-sheet';
import { COURSE_SUPPLIES, type SheetComponent } from '../kits/record/sheet-content';

/**
 * What can happen to a kit at the bench: a component goes in or comes out again; the whole kit is called back because
 * what its person must avoid has changed, or is let go on; a second pair of eyes has looked into a kit made without something.
 *
 */
export type PackAction = 'packed' | 'undone' | 'called back' | 'let go on' | 'checked';

/** One tick at the bench, or one taken back. Its id was made by the sender, so that sending it twice changes nothing. */
export interface PackEvent {
  readonly id: string;
  readonly kitId: string;
  /** The component's key (see SheetComponent.key); '' when the whole kit is meant; whose eyes they were, where it is checked. */
  readonly component: string;
  readonly action: PackAction;
  /** Order of the events of one session, from 1, without gaps. */
  readonly seq: number;
}

/** A kit as the bench sees it: a number and a letter, never a person's need. */
export interface BenchKit {
  readonly id: string;
  readonly number: number;
  readonly variant: string;
  /** The group it goes to; '' where there is only one. */
  readonly group: string;
  /** Keys of the components it should hold. */
  readonly components: readonly string[];
}

export interface BenchVariant {
  readonly letter: string;
  readonly servings: number;
  readonly madeWithout: readonly string[];
  readonly components: readonly SheetComponent[];
  /** The container that a component goes into, by its key, where the programme has told its sizes. */
  readonly into: Readonly<Record<string, string>>;
}

/** What a bench screen is drawn from. Holds no names. */
export interface BenchSheet {
  readonly session: {
    readonly id: string;
    readonly title: string;
    readonly courseTitle: string;
    readonly date: string;
  };
  readonly revision: number;
  readonly variants: readonly BenchVariant[];
  readonly kits: readonly BenchKit[];
  /** The groups it is packed for, in order of when they meet; none where there is only one. */
  readonly groups: readonly string[];
  /** Component rows in packing order, each with the dish it belongs to. */
  readonly rows: readonly {
    readonly row: number;
    readonly name: string;
    readonly dish: string;
    /** It comes only with an alternative: kits without that have nothing in this row. */
    readonly isBeside: boolean;
  }[];
}

/**
 * The bench's view of a locked sheet, kits made without something first: they are packed before it comes out.
 *
 * @param sizes the programme's containers
 */
export function benchSheet(sheet: LockedSheet, revision: number, sizes: readonly ContainerSize[] = []): BenchSheet {
  const variants = sheet.content.variants.flatMap(({ components, ...variant }) =>
    // What is inside something else, the liquid in a can, is not packed.
    components ? [{ ...variant, components: components.filter(({ isInside }) => !isInside) }] : [],
  );
  const bulks = sizes.length > 0 ? kitBulks(sheet.content, sizes) : [];
  const into = new Map(bulks.map((bulk) => [bulk.letter, bulk.into]));
  const byLetter = new Map(variants.map((variant) => [variant.letter, variant]));
  const needs = (letter: string) => (byLetter.get(letter)?.madeWithout.length ? 0 : 1);
  const kits = [...sheet.kits].sort((a, b) => needs(a.variant) - needs(b.variant) || a.number - b.number);
  const used = new Set(variants.flatMap((variant) => variant.components.map((component) => component.row)));
  return {
    session: {
      id: sheet.session.id,
      title: sheet.session.title,
      courseTitle: sheet.session.courseTitle,
      date: sheet.session.date,
    },
    revision,
    variants: variants.map(({ letter, servings, madeWithout, components }) => ({
      letter,
      servings,
      madeWithout,
      components,
      into: into.get(letter) ?? {},
    })),
    kits: kits.map((kit) => ({
      id: kit.id,
      number: kit.number,
      variant: kit.variant,
      group: kit.group ?? '',
      components: byLetter.get(kit.variant)?.components.map((component) => component.key) ?? [],
    })),
    groups: [...(sheet.session.groups ?? [])]
      .sort((a, b) => (`${a.date} ${a.startsAt}` < `${b.date} ${b.startsAt}` ? -1 : 1))
      .map(({ name }) => name),
    rows: sheet.content.rows.flatMap((row, index) =>
      used.has(index)
        ? [
            {
              row: index,
              name: row.name,
              dish: sheet.content.input.dishes[row.dish]?.title ?? COURSE_SUPPLIES,
              isBeside: Boolean(row.beside),
            },
          ]
        : [],
    ),
  };
}

/** Which components are in which kit, after all events in order. */
export function packedNow(events: readonly PackEvent[]): ReadonlyMap<string, ReadonlySet<string>> {
  const packed = new Map<string, Set<string>>();
  for (const event of [...events].sort((a, b) => a.seq - b.seq)) {
    const kit = packed.get(event.kitId) ?? new Set();
    packed.set(event.kitId, kit);
    if (event.action === 'packed') kit.add(event.component);
    else if (event.action === 'undone') kit.delete(event.component);
  }
  return packed;
}

/**
 * Kits that are called back, after all events in order: nobody packs or hands them out until they are let go on.
 *
 * @example
 * [...calledBackNow([{ id: 'e', seq: 1, kitId: 'k', component: '', action: 'called back' }])] //=> ['k']
 */
export function calledBackNow(events: readonly Pick<PackEvent, 'kitId' | 'action' | 'seq'>[]): ReadonlySet<string> {
  const held = new Set<string>();
  for (const event of [...events].sort((a, b) => a.seq - b.seq)) {
    if (event.action === 'called back') held.add(event.kitId);
    if (event.action === 'let go on') held.delete(event.kitId);
  }
  return held;
}

/**
 * Kits that a second pair of eyes has looked into, each with whose: what is done to a kit afterwards asks for another look.
 *
 * @example
 * checkedNow([{ id: 'e', seq: 1, kitId: 'k', component: 'E. R.', action: 'checked' }]).get('k') //=> 'E. R.'
 */
export function checkedNow(events: readonly PackEvent[]): ReadonlyMap<string, string> {
  const checked = new Map<string, string>();
  for (const { kitId, action, component } of [...events].sort((a, b) => a.seq - b.seq)) {
    if (action === 'checked') checked.set(kitId, component);
    else checked.delete(kitId);
  }
  return checked;
}

/** Kits made without something that are packed whole and closed, and nobody has looked into a second time. */
export const toCheck = (
  { kits, variants }: Pick<BenchSheet, 'kits' | 'variants'>,
  packed: ReadonlyMap<string, ReadonlySet<string>>,
  checked: ReadonlyMap<string, string>,
): BenchKit[] => {
  const without = new Set(variants.flatMap(({ letter, madeWithout }) => (madeWithout.length > 0 ? [letter] : [])));
  return kits.filter(
    ({ id, variant, components }) =>
      without.has(variant) && !checked.has(id) && components.every((key) => packed.get(id)?.has(key)),
  );
};

/** How far the packing of a sheet is. */
export interface PackProgress {
  readonly kitsDone: number;
  readonly kits: number;
  readonly ticks: number;
  readonly ticksNeeded: number;
  /** Things that were packed by an earlier revision and must come out again. */
  readonly toTakeOut: readonly { readonly kitId: string; readonly component: string }[];
}

/** Counts what is packed against what the sheet asks for. Kits that left the sheet must be emptied. */
export function packProgress(
  kits: readonly BenchKit[],
  packed: ReadonlyMap<string, ReadonlySet<string>>,
): PackProgress {
  const wanted = new Map(kits.map((kit) => [kit.id, new Set(kit.components)]));
  let ticks = 0;
  let kitsDone = 0;
  for (const kit of kits) {
    const inside = packed.get(kit.id);
    const done = kit.components.filter((component) => inside?.has(component)).length;
    ticks += done;
    const clean = [...(inside ?? [])].every((component) => wanted.get(kit.id)?.has(component));
    if (done === kit.components.length && clean) kitsDone++;
  }
  const toTakeOut = [...packed].flatMap(([kitId, inside]) =>
    [...inside].filter((component) => !wanted.get(kitId)?.has(component)).map((component) => ({ kitId, component })),
  );
  return {
    kitsDone,
    kits: kits.length,
    ticks,
    ticksNeeded: kits.reduce((sum, kit) => sum + kit.components.length, 0),
    toTakeOut,
  };
}

/** The food and amount in a component's key, said plainly: for what must be taken out of a kit. */
export function sayComponentKey(key: string): string {
  const [, food = '', preparation = '', amount = '', unit = ''] = key.split('|');
  return `${preparation ? `${food}, ${preparation}` : food} (${unit.startsWith('sealed') ? unit : `${amount} ${unit}`})`;
}
