import type { FoodCase, Loose, Opening } from './sources';

/** Grams of a source that serve a need. */
export interface Served {
  readonly source: number;
  readonly need: number;
  readonly grams: number;
}

/**
 * What serves what, in whole grams: opened packs and stock that would be lost first, lasting loose stock only for what they leave
 * (a greatest flow, found by ways that make room).
 *
 * @param packs how many of each opening
 * @throws Error when these packs do not suffice
 */
export function assign(
  food: FoodCase,
  openings: readonly Opening[],
  packs: readonly number[],
  loose: readonly Loose[],
): { opened: Served[]; loose: Served[] } {
  const sources = [
    ...openings.map(({ pack, reaches }, at) => ({ grams: pack * (packs[at] ?? 0), reaches })),
    ...loose.map(({ grams, reaches }) => ({ grams, reaches })),
  ];
  const lasts = (source: number) => (loose[source - openings.length]?.lot.last ?? -1) >= food.days;
  const order = sources.map((_, at) => at).sort((a, b) => Number(lasts(a)) - Number(lasts(b)) || a - b);
  const open = food.needs.map(({ grams = 0 }) => grams);
  const rest = sources.map(({ grams }) => grams);
  const flow = sources.map(() => new Map<number, number>());
  for (const source of order) {
    while ((rest[source] as number) > 0) {
      const way = wayFrom(source, sources, flow, open);
      if (!way) break;
      const grams = Math.min(rest[source] as number, way.room);
      for (const [from, to, isBack] of way.steps) {
        const own = flow[from] as Map<number, number>;
        own.set(to, (own.get(to) ?? 0) + (isBack ? -grams : grams));
      }
      open[way.end] = (open[way.end] as number) - grams;
      rest[source] = (rest[source] as number) - grams;
    }
  }
  const short = open.findIndex((grams) => grams > 0);
  if (short >= 0) throw new Error(`${food.food}: ${open[short]} g of ${food.needs[short]?.id} are served by nothing.`);
  const served = flow.flatMap((own, source) =>
    [...own].flatMap(([need, grams]) => (grams > 0 ? [{ source, need, grams }] : [])),
  );
  return {
    opened: served.filter(({ source }) => source < openings.length),
    loose: served
      .filter(({ source }) => source >= openings.length)
      .map((each) => ({ ...each, source: each.source - openings.length })),
  };
}

type Step = readonly [source: number, need: number, isBack: boolean];

/** The shortest way from a source to a need that is not met yet, taking back what others serve where that makes room. */
function wayFrom(
  start: number,
  sources: readonly { readonly reaches: readonly number[] }[],
  flow: readonly ReadonlyMap<number, number>[],
  open: readonly number[],
): { steps: Step[]; end: number; room: number } | undefined {
  const seen = new Set([start]);
  const queue: { source: number; steps: Step[]; room: number }[] = [
    { source: start, steps: [], room: Number.POSITIVE_INFINITY },
  ];
  for (let way = queue.shift(); way; way = queue.shift()) {
    for (const need of sources[way.source]?.reaches ?? []) {
      const steps: Step[] = [...way.steps, [way.source, need, false]];
      const missing = open[need] as number;
      if (missing > 0) return { steps, end: need, room: Math.min(way.room, missing) };
      for (const [other, served] of flow.entries()) {
        const grams = served.get(need) ?? 0;
        if (grams === 0 || seen.has(other)) continue;
        seen.add(other);
        queue.push({ source: other, steps: [...steps, [other, need, true]], room: Math.min(way.room, grams) });
      }
    }
  }
  return undefined;
}
