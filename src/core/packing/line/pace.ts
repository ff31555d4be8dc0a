import type { BenchKit } from '../progress';

/** Ticks of the last minutes, by component. */
export interface TickedLately {
  readonly component: string;
  readonly count: number;
}

export interface Pace {
  /** Components an hour, of the last minutes; undefined while too little was ticked. */
  readonly ticksAnHour: number | undefined;
  /** Kits an hour, as such a pace fills them. */
  readonly kitsAnHour: number | undefined;
  /** Minutes until all is packed, at this pace. */
  readonly minutesLeft: number | undefined;
  /** The row that holds the line up: most kits that have what comes before it wait for it. */
  readonly heldUpBy: { readonly row: number; readonly kits: number } | undefined;
}

/** So much ticked says a pace. */
const ENOUGH = 5;

/**
 * How quickly a bench packs, from the ticks themselves.
 *
 * @param lately ticks of the last `minutes`
 * @param rows of the line in its order, each with the keys that its components have
 */
export function paceOf(
  kits: readonly BenchKit[],
  packed: ReadonlyMap<string, ReadonlySet<string>>,
  rows: readonly { readonly row: number; readonly keys: ReadonlySet<string> }[],
  lately: number,
  minutes: number,
): Pace {
  const needed = kits.reduce((sum, { components }) => sum + components.length, 0);
  const isIn = (kit: BenchKit, key: string) => packed.get(kit.id)?.has(key) ?? false;
  const open = kits.reduce((sum, kit) => sum + kit.components.filter((key) => !isIn(kit, key)).length, 0);
  const waits = rows.map(({ row, keys }, at) => ({
    row,
    kits: kits.filter((kit) => {
      const own = kit.components.find((key) => keys.has(key));
      if (own === undefined || isIn(kit, own)) return false;
      // Everything of the rows before is in: it stands before this one.
      const before = rows.slice(0, at).flatMap((each) => kit.components.filter((key) => each.keys.has(key)));
      return before.length > 0 && before.every((key) => isIn(kit, key));
    }).length,
  }));
  const most = waits.reduce<(typeof waits)[number] | undefined>(
    (best, each) => (each.kits > (best?.kits ?? 0) ? each : best),
    undefined,
  );
  const ticksAnHour = lately >= ENOUGH && minutes > 0 ? (lately * 60) / minutes : undefined;
  const each = kits.length > 0 ? needed / kits.length : 0;
  return {
    ticksAnHour: ticksAnHour === undefined ? undefined : Math.round(ticksAnHour),
    kitsAnHour: ticksAnHour === undefined || each === 0 ? undefined : Math.round((ticksAnHour / each) * 10) / 10,
    minutesLeft: open === 0 ? 0 : ticksAnHour === undefined ? undefined : Math.ceil((open * 60) / ticksAnHour),
    heldUpBy: most && most.kits >= 2 ? most : undefined,
  };
}
