import { Temporal } from 'temporal-polyfill';
import type { Mode } from '../plan/mode';

/** The ten stages of a session, in working order. */
export const STAGES = [
  'plan',
  'recipes',
  'roll',
  'kits',
  'buying',
  'crew',
  'packing',
  'handout',
  'classday',
  'closeout',
] as const;

export type Stage = (typeof STAGES)[number];

/** A knot's state: told apart by shape and word. */
export type KnotState = 'due later' | 'can start' | 'doing' | 'done' | 'late' | 'not needed';

/** A stage of one session with the latest time it must be done. */
export interface Knot {
  readonly stage: Stage;
  readonly title: string;
  /** Latest moment, an ISO instant. */
  readonly latest: string;
  readonly state: KnotState;
  /** One sentence: where the stage stands and why. */
  readonly why: string;
  /** False while the product does not offer this stage. */
  readonly offered: boolean;
}

/** What is known of a session when its thread is drawn. */
export interface SessionFacts {
  readonly date: string;
  readonly startsAt: string;
  readonly timeZone: string;
  readonly mode: Mode;
  readonly dishes: number;
  readonly participants: number;
  readonly unknownWishes: number;
  /** Revision of the locked sheet, 0 when none. */
  readonly revision: number;
  /** True when the roll or a recipe moved after the lock. */
  readonly differs: boolean;
  /** Undefined while nothing is locked: not computed then. */
  readonly refusedKits?: number;
  readonly shoppingDone: boolean;
  readonly ticks: number;
  readonly ticksNeeded: number;
  readonly kitsDone: number;
  readonly kits: number;
}

/** Title and offset of a stage: hours before the class starts (after, when negative) by which it must be done. */
const PLAN: Readonly<Record<Stage, { title: string; hours: number; offered: boolean }>> = {
  plan: { title: 'Plan', hours: 21 * 24, offered: true },
  recipes: { title: 'Dishes', hours: 10 * 24, offered: true },
  roll: { title: 'Roll', hours: 5 * 24, offered: true },
  kits: { title: 'Kits', hours: 4 * 24, offered: true },
  buying: { title: 'Buy', hours: 2 * 24, offered: true },
  crew: { title: 'Crew', hours: 3 * 24, offered: false },
  packing: { title: 'Pack', hours: 20, offered: true },
  handout: { title: 'Hand out', hours: 2, offered: false },
  classday: { title: 'Class', hours: 0, offered: false },
  closeout: { title: 'Close out', hours: -24, offered: false },
};

/** The moment a session starts. */
export function startOf(facts: Pick<SessionFacts, 'date' | 'startsAt' | 'timeZone'>): Temporal.ZonedDateTime {
  return Temporal.PlainDate.from(facts.date).toZonedDateTime({
    timeZone: facts.timeZone,
    plainTime: Temporal.PlainTime.from(facts.startsAt),
  });
}

/**
 * The thread of a session: its ten knots, counted back from its start at fixed offsets.
 *
 * @param now the present instant
 */
export function threadOf(facts: SessionFacts, now: Temporal.Instant): Knot[] {
  const start = startOf(facts);
  return STAGES.map((stage): Knot => {
    const { title, hours, offered } = PLAN[stage];
    // Days are counted on the calendar, so that "the day before" stays so across a clock change.
    const latest = start.subtract({ days: Math.trunc(hours / 24), hours: hours % 24 }).toInstant();
    const { state, why } = offered ? stateOf(stage, facts) : { state: 'due later' as const, why: 'Comes later.' };
    const isLate =
      offered &&
      (state === 'can start' || state === 'doing' || state === 'due later') &&
      Temporal.Instant.compare(now, latest) > 0;
    const needed = stage !== 'handout' || facts.mode !== 'in person';
    return {
      stage,
      title,
      latest: latest.toString(),
      state: needed ? (isLate ? 'late' : state) : 'not needed',
      why,
      offered,
    };
  });
}

interface Standing {
  readonly state: Exclude<KnotState, 'late'>;
  readonly why: string;
}

const plural = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;

function stateOf(stage: Stage, facts: SessionFacts): Standing {
  switch (stage) {
    case 'plan':
      return { state: 'done', why: 'Date, place and mode are set.' };
    case 'recipes':
      return facts.dishes > 0
        ? { state: 'done', why: `${facts.dishes} ${facts.dishes === 1 ? 'dish' : 'dishes'} chosen.` }
        : { state: 'can start', why: 'No dish is chosen yet: nothing can be calculated.' };
    case 'roll':
      if (facts.participants === 0) return { state: 'can start', why: 'Nobody is on the roll yet.' };
      return facts.unknownWishes > 0
        ? {
            state: 'doing',
            why: `${plural(facts.unknownWishes, 'avoidance')} on the roll still need${facts.unknownWishes === 1 ? 's' : ''} a meaning.`,
          }
        : { state: 'done', why: `${facts.participants} on the roll.` };
    case 'kits':
      return kitsState(facts);
    case 'buying':
      if (facts.shoppingDone) return { state: 'done', why: 'The shopping is done.' };
      return facts.revision > 0
        ? { state: 'can start', why: 'The kit sheet is locked: the list is ready.' }
        : { state: 'due later', why: 'The list is a draft until the kit sheet is locked.' };
    case 'packing':
      return packingState(facts);
    default:
      return { state: 'due later', why: '' };
  }
}

function kitsState(facts: SessionFacts): Standing {
  if (facts.revision > 0 && !facts.differs) return { state: 'done', why: `Locked, revision ${facts.revision}.` };
  if (facts.revision > 0)
    return { state: 'doing', why: 'The roll, a dish or a label moved after the lock: look at the differences.' };
  if (facts.dishes === 0 || facts.participants === 0) return { state: 'due later', why: 'Needs dishes and a roll.' };
  return facts.refusedKits
    ? { state: 'doing', why: `${plural(facts.refusedKits, 'kit')} cannot be made safely yet.` }
    : { state: 'can start', why: 'Calculated and ready to be locked.' };
}

function packingState(facts: SessionFacts): Standing {
  if (facts.revision === 0) return { state: 'due later', why: 'Packing starts from a locked kit sheet.' };
  if (facts.kits > 0 && facts.kitsDone === facts.kits)
    return { state: 'done', why: `All ${plural(facts.kits, 'kit')} packed.` };
  if (facts.ticks === 0) return { state: 'can start', why: `${plural(facts.kits, 'kit')} to pack.` };
  return {
    state: 'doing',
    why: `${facts.kitsDone} of ${plural(facts.kits, 'kit')} packed, ${facts.ticksNeeded - facts.ticks} components to go.`,
  };
}

/** Something that matters now: a knot of one session, and how long is left. */
export interface DoNext<Session> {
  readonly session: Session;
  readonly knot: Knot;
}

/** Stages worth doing now: late first, then by the latest time; only knots that can be worked on within `days`. */
export function doNext<Session>(
  threads: readonly { readonly session: Session; readonly knots: readonly Knot[] }[],
  now: Temporal.Instant,
  days = 7,
  most = 5,
): DoNext<Session>[] {
  const horizon = now.add({ hours: days * 24 });
  const open = threads.flatMap(({ session, knots }) =>
    knots
      .filter((knot) => knot.offered && (knot.state === 'late' || knot.state === 'can start' || knot.state === 'doing'))
      .filter((knot) => Temporal.Instant.compare(Temporal.Instant.from(knot.latest), horizon) <= 0)
      .map((knot) => ({ session, knot })),
  );
  open.sort((a, b) => (a.knot.latest < b.knot.latest ? -1 : a.knot.latest > b.knot.latest ? 1 : 0));
  return open.slice(0, most);
}

/** How long until a moment, said: "in 3 days", "in 5 hours", "2 days late". */
export function sayLeft(latest: string, now: Temporal.Instant): string {
  const minutes = now.until(Temporal.Instant.from(latest)).total('minutes');
  const size = Math.abs(minutes);
  const text =
    size >= 2880
      ? plural(Math.floor(size / 1440), 'day')
      : size >= 120
        ? plural(Math.floor(size / 60), 'hour')
        : plural(Math.floor(size), 'minute');
  return minutes >= 0 ? `in ${text}` : `${text} late`;
}
