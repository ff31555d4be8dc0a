import { isHomeKit, type Mode } from '../../plan/mode';
import type { SheetContent } from '../record/sheet-content';
import type { ContainerSize, KitBulk } from './containers';

/** What a thing that is used up is counted by. */
export const CONSUMED_PER = ['kit', 'cold kit', 'serving', 'person', 'session'] as const;
export type ConsumedPer = (typeof CONSUMED_PER)[number];

/** A thing that is used up: a paper bag per kit, an ice pack per cold kit, gloves. */
export interface Consumable {
  readonly id: string;
  readonly name: string;
  readonly per: ConsumedPer;
  readonly count: number;
  /** Pieces in a pack as it is bought. */
  readonly pack?: number | undefined;
}

/** How many of a consumable a session takes, and why. */
export interface ConsumableCount {
  readonly name: string;
  readonly count: number;
  readonly packs: number | undefined;
  readonly because: string;
}

/** Of what steps use up, what goes by what is eaten; paper, foil, gloves and towels go by who cooks. */
const BY_SERVING: ReadonlySet<string> = new Set(['skewers', 'paper cases']);

/**
 * How many of everything that is used up a session takes: the course's own list, the containers that measured food is
 * packed in, and what the steps use at each place of cooking.
 *
 * @param kitsTakeUp what a kit of each variant takes up, in these sizes
 * @param inSteps what the steps of each dish use up
 */
export function consumablesOf(
  content: SheetContent,
  rules: readonly Consumable[],
  sizes: readonly ContainerSize[],
  kitsTakeUp: readonly KitBulk[],
  inSteps: readonly (readonly string[])[],
  { mode, goesHome }: { readonly mode: Mode; readonly goesHome: boolean },
): ConsumableCount[] {
  const made = content.variants.filter(({ components, extra }) => components && extra !== 'swap-in');
  const bulks = new Map(kitsTakeUp.map((bulk) => [bulk.letter, bulk]));
  const sum = (of: (variant: (typeof made)[number]) => number) =>
    made.reduce((total, variant) => total + of(variant) * variant.participants.length, 0);
  const kits = sum(() => 1);
  const people = sum(({ extra }) => (extra ? 0 : 1));
  const servings = sum((variant) => variant.servings);
  const cold = sum(({ letter }) => ((bulks.get(letter)?.coldKeys.size ?? 0) > 0 ? 1 : 0));
  const base: Record<ConsumedPer, number> = {
    kit: kits,
    'cold kit': cold,
    serving: servings,
    person: people,
    session: 1,
  };
  const counts = rules.map(({ name, per, count, pack }): ConsumableCount => {
    const total = base[per] * count;
    return {
      name,
      count: total,
      packs: pack === undefined ? undefined : Math.ceil(total / pack),
      because: `${count} per ${per}: ${base[per]}`,
    };
  });
  const inKits = new Map<string, number>();
  for (const { letter, participants } of made)
    for (const [name, count] of bulks.get(letter)?.containers ?? [])
      inKits.set(name, (inKits.get(name) ?? 0) + count * participants.length);
  for (const { name } of [...sizes].sort((a, b) => a.ml - b.ml)) {
    const count = inKits.get(name) ?? 0;
    if (count > 0) counts.push({ name, count, packs: undefined, because: 'what is measured into kits' });
  }
  const cooks = mode === 'demonstration' ? 1 : people;
  for (const name of new Set(inSteps.flat())) {
    const dishes = inSteps.filter((names) => names.includes(name)).length;
    const each = BY_SERVING.has(name) ? servings : cooks;
    const why = dishes === 1 ? 'the steps of a dish' : `the steps of ${dishes} dishes`;
    counts.push({ name, count: each * dishes, packs: undefined, because: `${why}: ${each}` });
  }
  if (goesHome && !isHomeKit(mode))
    counts.push({
      name: 'labelled bag for what was made',
      count: people,
      packs: undefined,
      because: `one per person: ${people}`,
    });
  return counts.filter(({ count }) => count > 0);
}
