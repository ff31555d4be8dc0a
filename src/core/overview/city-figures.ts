// What a city sees of its programmes: counts and money, and what is worth a question. Never a family.
import { hideOne, hideSmall, type Shown } from '../closeout/report/small-numbers';

/** What is counted of one programme in a span of days. Money in hundredths of its currency. */
export interface ProgrammeCounts {
  readonly id: string;
  readonly name: string;
  /** ISO 4217 */
  readonly currency: string;
  /** Sessions that were held, and those that were called off. */
  readonly held: number;
  readonly cancelled: number;
  /** The day of its next session, YYYY-MM-DD, where there is one within the weeks that are looked ahead; else null. */
  readonly next: string | null;
  /** People on the rolls of the courses that had sessions. */
  readonly people: number;
  /** Times that somebody came, or fetched a kit, and that somebody did not. */
  readonly came: number;
  readonly absent: number;
  readonly kits: number;
  readonly calledBack: number;
  readonly crewMinutes: number;
  readonly spent: number;
  /** null where not every course has one. */
  readonly budget: number | null;
}

/** A programme as a city sees it. */
export interface ProgrammeSeen extends Omit<ProgrammeCounts, 'people' | 'came' | 'absent' | 'kits' | 'calledBack'> {
  readonly people: Shown;
  readonly kits: Shown;
  readonly calledBack: Shown;
  /** Per cent of those expected who came; null where nobody was noted, or too few. */
  readonly attendance: number | null;
  /** Spent for each kit; null where there is none, or their number is not shown. */
  readonly perKit: number | null;
  /** What is worth a question to its coordinator. */
  readonly asks: readonly string[];
}

/** All programmes together; money by currency. */
export interface CityTotals {
  readonly programmes: number;
  readonly held: number;
  readonly cancelled: number;
  readonly people: Shown;
  readonly kits: Shown;
  readonly attendance: number | null;
  readonly crewMinutes: number;
  readonly money: readonly { readonly currency: string; readonly spent: number; readonly budget: number }[];
}

/** From so many sessions on, a share of them tells something. */
const SOME_SESSIONS = 5;
/** So large a share called off is asked about. */
const OFTEN_CANCELLED = 0.2;
/** So many programmes of one currency make a middle that one can be held against; and so far above it is dear. */
const SOME_PROGRAMMES = 5;
const DEAR = 1.5;
/** Fewer than this came: the rolls may not say any more who comes. */
const FEW_CAME = 0.6;

const share = (part: number, of: number): number | null => (of === 0 ? null : Math.round((100 * part) / of));

function middle(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const at = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? (sorted[at] ?? 0) : ((sorted[at - 1] ?? 0) + (sorted[at] ?? 0)) / 2;
}

const currenciesOf = (all: readonly { readonly currency: string }[]): string[] => [
  ...new Set(all.map(({ currency }) => currency)),
];

/** The middle of what a kit costs, by currency, where enough programmes have one. */
function middles(costs: readonly { currency: string; perKit: number | null }[]): ReadonlyMap<string, number> {
  return new Map(
    currenciesOf(costs).flatMap((currency) => {
      const own = costs.flatMap((each) => (each.currency === currency && each.perKit !== null ? [each.perKit] : []));
      return own.length >= SOME_PROGRAMMES ? [[currency, middle(own)] as const] : [];
    }),
  );
}

function asksOf(
  counts: ProgrammeCounts,
  attendance: number | null,
  perKit: number | null,
  usual: number | undefined,
): string[] {
  const { held, cancelled, next, came, absent, calledBack, spent, budget } = counts;
  const asks: string[] = [];
  if (budget !== null && spent > budget) asks.push('More was spent than budgeted.');
  if (calledBack > 0) asks.push('Kits were called back: was it a need told late, or a label?');
  if (cancelled > 0 && held + cancelled >= SOME_SESSIONS && cancelled >= OFTEN_CANCELLED * (held + cancelled))
    asks.push(`${cancelled} of ${held + cancelled} sessions were called off.`);
  // Where it is not shown who came, it is not told in words either.
  if (attendance !== null && came + absent >= 20 && came < FEW_CAME * (came + absent))
    asks.push('Fewer than 60 % came.');
  if (perKit !== null && usual !== undefined && perKit > DEAR * usual)
    asks.push('A kit costs half as much again as is usual here.');
  if (next === null) asks.push('Nothing is planned in the coming three weeks.');
  return asks;
}

/**
 * Programmes as their city sees them. Counts of people below five are hidden, and as many others as it takes that no total gives
 * them away.
 *
 * @example
 * lookAtCity([]).programmes //=> []
 */
export function lookAtCity(all: readonly ProgrammeCounts[]): {
  readonly programmes: readonly ProgrammeSeen[];
  readonly totals: CityTotals;
} {
  const people = hideSmall(all.map((each) => each.people));
  const kits = hideSmall(all.map((each) => each.kits));
  const costs = all.map(({ currency, kits: count, spent }, at) => ({
    currency,
    perKit: typeof kits[at] === 'number' && count > 0 && spent > 0 ? Math.round(spent / count) : null,
  }));
  const usual = middles(costs);
  const sum = (of: (each: ProgrammeCounts) => number) => all.reduce((total, each) => total + of(each), 0);
  return {
    programmes: all.map((counts, at) => {
      const { people: _, kits: __, calledBack, came, absent, ...rest } = counts;
      const perKit = costs[at]?.perKit ?? null;
      const attendance = typeof people[at] === 'number' ? share(came, came + absent) : null;
      return {
        ...rest,
        people: people[at] ?? 'withheld',
        kits: kits[at] ?? 'withheld',
        calledBack: hideOne(calledBack),
        attendance,
        perKit,
        asks: asksOf(counts, attendance, perKit, usual.get(counts.currency)),
      };
    }),
    totals: {
      programmes: all.length,
      held: sum((each) => each.held),
      cancelled: sum((each) => each.cancelled),
      people: hideOne(sum((each) => each.people)),
      kits: hideOne(sum((each) => each.kits)),
      attendance: share(
        sum((each) => each.came),
        sum((each) => each.came + each.absent),
      ),
      crewMinutes: sum((each) => each.crewMinutes),
      money: currenciesOf(all).map((currency) => {
        const own = all.filter((each) => each.currency === currency);
        const total = (of: (each: ProgrammeCounts) => number) => own.reduce((so, each) => so + of(each), 0);
        return { currency, spent: total(({ spent }) => spent), budget: total(({ budget }) => budget ?? 0) };
      }),
    },
  };
}
