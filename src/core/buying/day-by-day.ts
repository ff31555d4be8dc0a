import { type FoodCase, isCounted, type Opening } from './sources';

/** Grams are counted as this part of a coin, so that of two ways that cost the same the lighter is the cheaper. */
const COIN = 2 ** 24;
/** After so many looks another solver may try. */
const MOST_LOOKS = 20_000;
const MOST_STEPS = 100_000;

/** What is open after some days, by the last of the days on which it may be used, with what was paid and opened so far. */
interface Look {
  readonly day: number;
  /** Grams that are left, by the last day's place. */
  readonly left: readonly number[];
  readonly paid: number;
  /** No way on from here comes to less. */
  readonly floor: number;
  readonly from?: Look;
  readonly opened: readonly (readonly [column: number, packs: number])[];
}

/** A product that may be opened on a day: the one of its openings that keeps longest. */
interface Choice {
  readonly column: number;
  readonly pack: number;
  readonly worth: number;
  readonly end: number;
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/**
 * The cheapest packs of a food that anything of it may serve, and of those ways the one that loses least: from day to day, the most
 * hopeful first. What goes off first is used first, so a pack is opened only on a day that touches it; what must still be bought
 * costs at least what the cheapest packs of that weight do.
 *
 * @param openings the columns of the food's model
 * @returns how many packs of each opening; undefined for foods of another kind, or where it takes too long
 */
export function dayByDay(food: FoodCase, openings: readonly Opening[]): number[] | 'impossible' | undefined {
  const { needs, stock, products } = food;
  if (stock.length > 0 || products.some(isCounted)) return undefined;
  if (needs.some(({ grams }) => grams === undefined) || needs.length === 0) return undefined;
  const isReached = (at: number) => openings.some(({ reaches }) => reaches.includes(at));
  if (needs.some(({ grams = 0 }, at) => grams > 0 && !isReached(at))) return 'impossible';
  const days = [...new Set(needs.map(({ day }) => day))].sort((a, b) => a - b);
  const demand = days.map((day) => needs.reduce((sum, need) => sum + (need.day === day ? (need.grams ?? 0) : 0), 0));
  const spans = openings.map(({ reaches }) => spanOf(food, days, reaches));
  if (spans.some((span) => span === undefined)) return undefined;
  const choices = days.map((_, at) => choicesOn(at, openings, spans as Span[]));
  const rest = demand.map((_, at) => demand.slice(at).reduce((sum, grams) => sum + grams, 0));
  const atLeast = cheapestOf(openings, rest[0] ?? 0);
  if (!atLeast) return undefined;

  const none = days.map(() => 0);
  const open: Look[] = [{ day: 0, left: none, paid: 0, floor: atLeast(rest[0] ?? 0), opened: [] }];
  const seen = new Map<string, number>();
  for (let looks = 0; open.length > 0; looks++) {
    if (looks > MOST_LOOKS) return undefined;
    const look = pop(open);
    if (look.day === days.length) return packsOf(look, openings.length);
    const key = `${look.day} ${look.left.join(' ')}`;
    if ((seen.get(key) ?? Number.POSITIVE_INFINITY) <= look.paid) continue;
    seen.set(key, look.paid);
    for (const opened of waysOf(choices[look.day] ?? [], look.left, demand[look.day] ?? 0)) {
      const left = [...look.left];
      let paid = look.paid;
      for (const [choice, packs] of opened) {
        left[choice.end] = (left[choice.end] as number) + packs * choice.pack;
        paid += packs * choice.worth;
      }
      let need = demand[look.day] as number;
      for (let end = look.day; end < days.length; end++) {
        const used = Math.min(need, left[end] as number);
        left[end] = (left[end] as number) - used;
        need -= used;
      }
      left[look.day] = 0;
      const there = left.reduce((sum, grams) => sum + grams, 0);
      const day = look.day + 1;
      const floor = paid + atLeast(Math.max(0, (rest[day] ?? 0) - there));
      push(open, { day, left, paid, floor, from: look, opened: opened.map(([{ column }, packs]) => [column, packs]) });
    }
  }
  return 'impossible';
}

interface Span {
  readonly first: number;
  readonly last: number;
}

/** The days from first to last whose needs an opening serves, all of them; undefined where it leaves some out. */
function spanOf({ needs }: FoodCase, days: readonly number[], reaches: readonly number[]): Span | undefined {
  const at = reaches.map((need) => days.indexOf(needs[need]?.day ?? -1));
  const [first, last] = [Math.min(...at), Math.max(...at)];
  const within = needs.filter(({ day }) => day >= (days[first] ?? 0) && day <= (days[last] ?? 0));
  return within.length === reaches.length ? { first, last } : undefined;
}

function choicesOn(at: number, openings: readonly Opening[], spans: readonly Span[]): Choice[] {
  const best = new Map<unknown, Choice>();
  for (const [column, { product, pack, price }] of openings.entries()) {
    const span = spans[column] as Span;
    if (span.first > at || span.last < at) continue;
    const other = best.get(product);
    if (!other || other.end < span.last)
      best.set(product, { column, pack, worth: price * COIN + pack, end: span.last });
  }
  return [...best.values()].sort((a, b) => a.end - b.end || a.pack - b.pack);
}

/**
 * All ways to open packs on a day so that its need is met and the last to go off of those opened is touched: what goes off before it
 * does not suffice.
 *
 * @param choices by their end, rising
 */
function waysOf(
  choices: readonly Choice[],
  left: readonly number[],
  demand: number,
): (readonly (readonly [Choice, number])[])[] {
  const all = left.reduce((sum, grams) => sum + grams, 0);
  const ways: (readonly (readonly [Choice, number])[])[] = all >= demand ? [[]] : [];
  const upTo = (end: number) => left.reduce((sum, grams, at) => sum + (at <= end ? grams : 0), 0);
  const go = (from: number, opened: readonly (readonly [Choice, number])[], grams: number) => {
    for (let at = from; at < choices.length; at++) {
      const choice = choices[at] as Choice;
      const before = upTo(choice.end) + grams;
      // The last pack of it is touched while what goes off before it leaves something to be met.
      for (let packs = 1; before + (packs - 1) * choice.pack < demand; packs++) {
        const more = [...opened, [choice, packs] as const];
        if (all + grams + packs * choice.pack >= demand) ways.push(more);
        go(at + 1, more, grams + packs * choice.pack);
      }
    }
  };
  go(0, [], 0);
  return ways;
}

/** What packs of so much weight cost at the least, whenever they are opened; undefined where that takes too many steps. */
function cheapestOf(openings: readonly Opening[], most: number): ((grams: number) => number) | undefined {
  const packs = new Map(openings.map(({ pack, price }) => [`${pack} ${price}`, { pack, worth: price * COIN + pack }]));
  const step = [...packs.values()].reduce((least, { pack }) => gcd(least, pack), 0);
  const steps = Math.ceil(most / step);
  if (packs.size === 0 || steps > MOST_STEPS) return undefined;
  const costs = [0];
  for (let at = 1; at <= steps; at++) {
    let least = Number.POSITIVE_INFINITY;
    for (const { pack, worth } of packs.values())
      least = Math.min(least, worth + (costs[Math.max(0, at - pack / step)] as number));
    costs.push(least);
  }
  return (grams) => costs[Math.ceil(grams / step)] as number;
}

function packsOf(end: Look, columns: number): number[] {
  const packs = Array.from({ length: columns }, () => 0);
  for (let look: Look | undefined = end; look; look = look.from)
    for (const [column, count] of look.opened) packs[column] = (packs[column] as number) + count;
  return packs;
}

/** A heap: the least floor on top, and of those alike the one that is furthest. */
const isBefore = (a: Look, b: Look) => a.floor < b.floor || (a.floor === b.floor && a.day > b.day);

function push(heap: Look[], look: Look): void {
  let at = heap.push(look) - 1;
  while (at > 0) {
    const up = (at - 1) >> 1;
    if (!isBefore(look, heap[up] as Look)) break;
    heap[at] = heap[up] as Look;
    at = up;
  }
  heap[at] = look;
}

function pop(heap: Look[]): Look {
  const top = heap[0] as Look;
  const last = heap.pop() as Look;
  if (heap.length === 0) return top;
  let at = 0;
  for (;;) {
    let down = 2 * at + 1;
    if (down >= heap.length) break;
    if (down + 1 < heap.length && isBefore(heap[down + 1] as Look, heap[down] as Look)) down++;
    if (!isBefore(heap[down] as Look, last)) break;
    heap[at] = heap[down] as Look;
    at = down;
  }
  heap[at] = last;
  return top;
}
