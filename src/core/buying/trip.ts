import type { Ingredient } from '../reference/reference';
import { AVOIDANCES, blockersOf, holdingsOf, labelGaps } from '../safety/avoidances';
import { isNamed } from '../safety/products-named';
import type { PlannedLine } from './plan';
import type { DateKind, Storage } from './stock';

/** A line of a trip as it was planned, with what the phone needs to judge it without a network. */
export interface TripLineBody extends PlannedLine {
  /** What the food is known to hold, and what brands may add: counts where no label was read. */
  readonly contains: readonly string[];
  readonly mayContain: readonly string[];
  /** The one product that kits are said to be made with. */
  readonly only?: string;
  /** What else of this food the shop has. */
  readonly others: readonly InHand[];
  /** Where else it can be had before it is needed, and what stands on a shelf, in words. */
  readonly elsewhere: readonly string[];
  /** Sessions by id, as they are said. */
  readonly sessions: Readonly<Record<string, string>>;
}

/** What somebody holds in hand in place of what was planned. */
export interface InHand {
  readonly name: string;
  readonly packGrams: number;
  /** Minor units, for one pack. */
  readonly price: number;
  /** What its label names, ticked off; null where nobody looked. */
  readonly label: readonly string[] | null;
}

/** What is said of a line, at the shelf and on receipt. */
export type TripAnswer =
  | { readonly kind: 'taken'; readonly packs: number; readonly price: number }
  | { readonly kind: 'not there' }
  | { readonly kind: 'instead'; readonly packs: number; readonly hand: InHand }
  | { readonly kind: 'put back' }
  | {
      readonly kind: 'accepted';
      readonly packs: number;
      readonly lastDay: string;
      readonly lastKind: DateKind;
      readonly storage: Storage;
      readonly celsius?: number;
    }
  | { readonly kind: 'refused'; readonly packs: number; readonly reasons: readonly string[] };

/** A line as it stands. */
export interface TripLineNow {
  readonly state: 'open' | 'taken' | 'not there';
  readonly packs: number;
  readonly name: string;
  readonly packGrams: number;
  readonly price: number;
  /** What was taken in its place. */
  readonly hand?: InHand;
  readonly accepted: number;
  readonly refused: number;
  readonly reasons: readonly string[];
}

/** What became of a line after all that was said of it, in the order of the server. */
export function lineNow(line: TripLineBody, answers: readonly TripAnswer[]): TripLineNow {
  const planned = { name: line.product, packGrams: line.packGrams, price: line.price };
  let now: TripLineNow = { state: 'open', packs: 0, ...planned, accepted: 0, refused: 0, reasons: [] };
  for (const answer of answers) {
    switch (answer.kind) {
      case 'taken':
        now = { ...now, ...planned, state: 'taken', packs: answer.packs, price: answer.price };
        break;
      case 'instead':
        now = { ...now, ...answer.hand, state: 'taken', packs: answer.packs, hand: answer.hand };
        break;
      case 'not there':
        now = { ...now, ...planned, state: 'not there', packs: 0 };
        break;
      case 'put back':
        now = { ...now, ...planned, state: 'open', packs: 0 };
        break;
      case 'accepted':
        now = { ...now, accepted: now.accepted + answer.packs };
        break;
      case 'refused':
        now = { ...now, refused: now.refused + answer.packs, reasons: [...now.reasons, ...answer.reasons] };
        break;
    }
    if (answer.kind !== 'instead' && now.hand && now.state !== 'taken')
      now = { ...now, hand: undefined } as TripLineNow;
    if (answer.kind === 'taken') now = { ...now, hand: undefined } as TripLineNow;
  }
  return now;
}

/** What so much of a line costs, as a till does: by weight, packs are steps of 100 g and the price is a kilogram's. */
export const lineCost = (
  { soldBy }: Pick<TripLineBody, 'soldBy'>,
  packs: number,
  price: number,
  hand?: InHand,
): number => (soldBy === 'weight' && !hand ? Math.round((packs * price) / 10) : packs * price);

/** Grams that the sessions of a line need. */
export const needed = ({ uses, packGrams }: Pick<TripLineBody, 'uses' | 'packGrams'>): number =>
  uses.reduce((sum, use) => sum + (use.grams ?? 0) + (use.units ?? 0) * packGrams, 0);

/** What taking something else would mean. */
export interface SwapJudgement {
  /** Packs that it takes, what they cost against what was planned, and grams left over. */
  readonly packs: number;
  readonly cost: number;
  readonly dearer: number;
  readonly left: number;
  /** By session: letters that it suits, and those that it must not go into, with why. */
  readonly kits: readonly {
    readonly sessionId: string;
    readonly title: string;
    readonly safe: readonly string[];
    readonly unsafe: readonly { readonly letters: readonly string[]; readonly codes: readonly string[] }[];
  }[];
  readonly isSafe: boolean;
  /** Allergens that the food is made of, which the label in hand neither names nor denies. */
  readonly gaps: readonly string[];
  /** Sealed units of another size: what each kit would get differs by so much, in parts of a hundred. */
  readonly sizeOff?: number;
  /** The kits’ labels say another product: they must be printed again. */
  readonly relabel: boolean;
}

const ALLERGENS = AVOIDANCES.filter(({ kind }) => kind === 'allergen').map(({ code }) => code);

/**
 * What it means to take something else than what was planned: computed on the phone from the line alone, so that it is answered
 * without a network; the server judges it again.
 */
export function judgeSwap(line: TripLineBody, hand: InHand): SwapJudgement {
  const food = { contains: line.contains, mayContain: line.mayContain, diet: [], dietCheck: [], name: line.ingredient };
  const holdings = holdingsOf(food as unknown as Ingredient, hand.label ?? undefined);
  const units = line.uses.reduce((sum, { units: own = 0 }) => sum + own, 0);
  const packs = units > 0 ? units : Math.max(1, Math.ceil(needed(line) / hand.packGrams));
  const kits = new Map<
    string,
    { title: string; safe: string[]; unsafe: { letters: readonly string[]; codes: string[] }[] }
  >();
  for (const { sessionId, eaters } of line.uses) {
    const own = kits.get(sessionId) ?? { title: line.sessions[sessionId] ?? '', safe: [], unsafe: [] };
    kits.set(sessionId, own);
    for (const { letters, without } of eaters) {
      const avoided = without.filter((code) => ALLERGENS.includes(code));
      const codes = blockersOf(holdings, avoided);
      if (codes.length === 0) own.safe.push(...letters);
      else own.unsafe.push({ letters, codes });
    }
  }
  const cost = packs * hand.price;
  const sizeOff = Math.round(((hand.packGrams - line.packGrams) / line.packGrams) * 100);
  return {
    packs,
    cost,
    dearer: cost - line.cost,
    left: Math.max(0, packs * hand.packGrams - (units > 0 ? units * hand.packGrams : needed(line))),
    kits: [...kits].map(([sessionId, each]) => ({ sessionId, ...each })),
    isSafe: [...kits.values()].every(({ unsafe }) => unsafe.length === 0),
    gaps: hand.label ? labelGaps(food as unknown as Ingredient, hand.label) : [],
    ...(units > 0 && Math.abs(sizeOff) > 5 ? { sizeOff } : {}),
    relabel: !isNamed(line.only, hand.name),
  };
}
