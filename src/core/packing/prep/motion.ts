import { add, fromText, multiply, type Rational, rational, toNumber } from '../../quantity/rational';
import { findIngredient } from '../../reference/reference';
import { blockersOf, holdingsOf } from '../../safety/avoidances';
import { isPrepared, type PrepSheet, partOf } from './prep-list';

/** What is said of a motion on a prep day. */
export const PREP_ACTIONS = ['begun', 'done', 'undone'] as const;
export type PrepAction = (typeof PREP_ACTIONS)[number];

/**
 * The parts of a prep day, one after the other: on clean tools what goes into kits made without something; then of these what holds
 * something that another of them is made without; then the rest that is ready to eat or dry; raw meat and fish last on another
 * board.
 */
export const PREP_PHASES = ['without', 'between', 'rest', 'raw'] as const;
export type PrepPhase = (typeof PREP_PHASES)[number];

/** One motion: a food in one cut, for everything that needs it in this part of the day. */
export interface Motion {
  /** Stays the same while the food, the cut and the part of the day do. */
  readonly key: string;
  readonly food: string;
  /** "chopped"; '' where it is only measured out. */
  readonly cut: string;
  readonly phase: PrepPhase;
  /** Vegetables and fruit, then dry goods, then meat and fish. */
  readonly part: number;
  readonly grams: number;
  /** Kits and stations it goes to, by session. */
  readonly kits: number;
  readonly minutes: number;
}

/**
 * Minutes that a kilogram takes volunteers, by the word of the cut: our own estimates, taken only until a programme’s own days
 * say otherwise.
 */
const MINUTES_A_KILO: readonly (readonly [RegExp, number])[] = [
  [/zest/i, 60],
  [/mince|finely|julienne/i, 16],
  [/grat|shred/i, 12],
  [/dice|chop|cube/i, 10],
  [/slic|strip|wedge/i, 8],
  [/peel|shell|pit|stone|core/i, 9],
  [/juice|squeez/i, 12],
  [/halv|quarter|tear|torn|crumb/i, 5],
  [/wash|rins|drain|trim|pick/i, 4],
];
const MEASURED_OUT = 2;
const OTHER_CUT = 8;

/** Minutes a kilogram of a cut takes, where nobody has measured it. */
export const usualRate = (cut: string): number =>
  cut === '' ? MEASURED_OUT : (MINUTES_A_KILO.find(([words]) => words.test(cut))?.[1] ?? OTHER_CUT);

/** A motion that was begun and done once. */
export interface TimedMotion {
  readonly food: string;
  readonly cut: string;
  readonly grams: number;
  readonly minutes: number;
}

/** How many days the estimate counts for, against days that were timed. */
const PRIOR_DAYS = 2;

/** Minutes a kilogram takes here, with how often it was timed. */
export interface Rate {
  readonly minutes: number;
  readonly timed: number;
}

/**
 * Minutes that a kilogram of a cut takes here: the estimate counts as two days, each day that was timed as one, averaged as
 * proportions (in logarithms), so that one forgotten clock changes little. The food’s own days count; where there are none, those of
 * the same cut.
 */
export function rateOf(food: string, cut: string, timed: readonly TimedMotion[]): Rate {
  const known = timed.filter((each) => each.cut === cut && each.grams > 0 && each.minutes > 0);
  const own = known.filter((each) => each.food === food);
  const days = (own.length > 0 ? own : known).map(({ minutes, grams }) => Math.log((minutes * 1000) / grams));
  const sum = days.reduce((total, day) => total + day, 0);
  const mean = (PRIOR_DAYS * Math.log(usualRate(cut)) + sum) / (PRIOR_DAYS + days.length);
  return { minutes: Math.exp(mean), timed: days.length };
}

/** Everything that is prepared for some sheets, as motions: the same for everything, then the next. */
export function motionsOf(sheets: readonly PrepSheet[], timed: readonly TimedMotion[] = []): Motion[] {
  const all = new Map<string, Omit<Motion, 'minutes' | 'grams'> & { grams: Rational }>();
  const avoided = [
    ...new Set(
      sheets.flatMap(({ content }) =>
        content.variants.flatMap(({ madeWithout, avoids }) => (madeWithout.length > 0 ? avoids : [])),
      ),
    ),
  ];
  for (const { content } of sheets) {
    for (const variant of content.variants) {
      const kits = variant.participants.length;
      if (kits === 0) continue;
      for (const component of (variant.components ?? []).filter(isPrepared)) {
        const food = findIngredient(content.input.reference, component.ingredient);
        if (!food) continue;
        const part = partOf(food.aisle);
        const cut = component.name.slice(component.ingredient.length).replace(/^, /, '');
        const isKept = variant.madeWithout.length > 0;
        const isAvoided = isKept && blockersOf(holdingsOf(food, content.input.labels[food.name]), avoided).length > 0;
        const phase: PrepPhase = part === 2 ? 'raw' : isAvoided ? 'between' : isKept ? 'without' : 'rest';
        const key = `${food.name}|${cut}|${phase}`.slice(0, 190);
        const before = all.get(key);
        const grams = multiply(fromText(component.grams), rational(kits));
        all.set(key, {
          key,
          food: food.name,
          cut,
          phase,
          part,
          kits: (before?.kits ?? 0) + kits,
          grams: before ? add(before.grams, grams) : grams,
        });
      }
    }
  }
  return [...all.values()]
    .map(({ grams, ...motion }): Motion => {
      const weight = toNumber(grams);
      const { minutes } = rateOf(motion.food, motion.cut, timed);
      return { ...motion, grams: Math.round(weight), minutes: Math.max(1, Math.round((weight / 1000) * minutes)) };
    })
    .sort(
      (a, b) =>
        PREP_PHASES.indexOf(a.phase) - PREP_PHASES.indexOf(b.phase) ||
        Number(a.cut === '') - Number(b.cut === '') ||
        a.part - b.part ||
        a.food.localeCompare(b.food),
    );
}

/** Motions that were timed: from when one was last begun until it was done, the same day. */
export function timedFrom(
  events: readonly {
    readonly day: string;
    readonly motion: string;
    readonly cut: string;
    readonly grams: number;
    readonly action: PrepAction;
    readonly at: Date;
  }[],
): TimedMotion[] {
  const begun = new Map<string, Date>();
  const timed = new Map<string, TimedMotion>();
  for (const { day, motion, cut, grams, action, at } of events) {
    const key = `${day} ${motion}`;
    if (action === 'begun') begun.set(key, at);
    if (action === 'undone') timed.delete(key);
    const since = begun.get(key);
    if (action !== 'done' || !since) continue;
    const minutes = (at.getTime() - since.getTime()) / 60_000;
    // A clock that ran over lunch says nothing.
    if (minutes >= 0.5 && minutes <= 180) timed.set(key, { food: motion.split('|')[0] ?? '', cut, grams, minutes });
  }
  return [...timed.values()];
}
