import facts from '../../reference/facts/safe-temperatures.json';

/**
 * What is watched of something that was made: that it cools in time, is heated through again, is kept hot or cold, or stands for
 * as long as it needs and no longer (a marinade, beans in water).
 */
export const BATCH_KINDS = ['cool', 'reheat', 'hot', 'cold', 'stand'] as const;
export type BatchKind = (typeof BATCH_KINDS)[number];

/** What it is, as far as its limits ask: cooked; cooked rice; mixed of what stood at room temperature. */
export const BATCH_FOODS = ['cooked', 'rice', 'room'] as const;
export type BatchFood = (typeof BATCH_FOODS)[number];

/** What became of it; '' while it is watched. */
export const OUTCOMES = ['', 'kept', 'served', 'thrown away', 'cooled anew'] as const;
export type Outcome = (typeof OUTCOMES)[number];

/** A temperature, so many minutes after its batch was begun. Tenths of a degree Celsius: what a limit says in °F is met exactly. */
export interface Reading {
  readonly minutes: number;
  readonly tenths: number;
}

/** A temperature that must be reached, or kept, by a time. */
export interface Target {
  readonly tenths: number;
  /** Minutes from when its clock starts; undefined: all the time. */
  readonly within?: number;
  /** It must be at most so warm, or at least. */
  readonly is: 'at most' | 'at least';
}

export interface Limits {
  readonly targets: readonly Target[];
  /** The clock starts when it has cooled to this; undefined: when it is begun. */
  readonly clockFrom?: number;
  /** Beyond the limit for so many minutes, it is thrown away; what was found before is put right. */
  readonly spell?: number;
  readonly source: string;
}

const tenthsOf = (celsius: string): number => Math.round(Number(celsius) * 10);
/** A limit that is said in °F, exactly: 70 °F is 21.1 °C, not 21. */
const exact = (governing: string, celsius: string): number => {
  const fahrenheit = /(\d+) °F$/.exec(governing)?.[1];
  return fahrenheit ? Math.round(((Number(fahrenheit) - 32) * 50) / 9) : tenthsOf(celsius);
};

const factsOf = (profile: 'us' | 'uk', kind: string) =>
  facts.filter((fact) => fact.kind === kind && fact.profile === profile);

/**
 * The limits of a batch by the safety profile: FDA Food Code and USDA FSIS, or FSA. The usual figures; a local code decides.
 *
 * @example limitsFor('us', 'cool', 'cooked').targets.map(({ within }) => within) //=> [120, 360]
 */
export function limitsFor(profile: 'us' | 'uk', kind: BatchKind, food: BatchFood): Limits {
  const rows = factsOf(profile, kind === 'hot' ? 'hot-hold' : kind === 'cold' || kind === 'stand' ? 'cold-hold' : kind);
  const source = rows[0]?.source ?? '';
  if (kind === 'cool') {
    if (profile === 'uk') {
      const [usual, rice] = rows;
      const within = Number((food === 'rice' ? rice : usual)?.max_minutes);
      return { targets: [{ tenths: exact('', usual?.min_c ?? ''), within, is: 'at most' }], source };
    }
    const own = rows.filter(({ food_or_state }) => /room temperature/.test(food_or_state) === (food === 'room'));
    const targets = own.map(
      ({ governing, min_c, max_minutes }): Target => ({
        tenths: exact(governing, min_c),
        within: Number(max_minutes),
        is: 'at most',
      }),
    );
    const start = own[0]?.max_c;
    return { targets, ...(start ? { clockFrom: exact('135 °F', start) } : {}), source };
  }
  const [row] = rows;
  if (kind === 'reheat')
    return {
      targets: [{ tenths: exact(row?.governing ?? '', row?.min_c ?? ''), within: 120, is: 'at least' }],
      source,
    };
  const isHot = kind === 'hot';
  const limit = exact(row?.governing ?? '', (isHot ? row?.min_c : row?.max_c) ?? '');
  const spell = profile === 'uk' && !isHot ? 240 : 120;
  return { targets: [{ tenths: limit, is: isHot ? 'at least' : 'at most' }], spell, source };
}

const meets = ({ tenths, is }: Target, reading: number): boolean =>
  is === 'at most' ? reading <= tenths : reading >= tenths;

/** Minutes at which somebody looks, from when the clock starts: often enough that something can still be done. */
const LOOKS: Readonly<Record<BatchKind, readonly number[]>> = {
  cool: [30, 60, 90, 110, 180, 240, 300, 350],
  reheat: [15, 30, 60, 90, 110],
  hot: [],
  cold: [],
  stand: [],
};
/** What is kept hot or cold is looked at so often, in minutes: soon enough to put it right within the two hours. */
const HELD_EVERY = 120;

/** How a batch stands. */
export interface BatchStanding {
  /**
   * on its way; the next temperature is wanted; it will not be in time unless something is done; it is where it should be; it missed
   * its limit and can be put right; it must be thrown away.
   */
  readonly state: 'going' | 'look' | 'too slow' | 'reached' | 'put right' | 'throw away';
  /** Minutes after it was begun at which it is looked at next; undefined where it is over. */
  readonly nextAt: number | undefined;
  /** The next target, and by when, in minutes after it was begun. */
  readonly next: { readonly target: Target; readonly by: number | undefined } | undefined;
  readonly say: string;
}

/** When the clock started: the last time that it was seen warmer than where it starts, before it was seen cooler. */
function clockOf({ clockFrom }: Limits, readings: readonly Reading[]): number {
  if (clockFrom === undefined) return 0;
  const cooler = readings.findIndex(({ tenths }) => tenths <= clockFrom);
  return readings.slice(0, cooler < 0 ? readings.length : cooler).at(-1)?.minutes ?? 0;
}

/** Air that food cools in, in tenths: a fridge. */
const AROUND = 40;

/**
 * When something that cools reaches a temperature, by its last two readings (Newton’s law of cooling, in a fridge of 4 °C).
 *
 * @returns minutes after it was begun; undefined where the readings do not fall
 */
export function reachedAt(readings: readonly Reading[], tenths: number): number | undefined {
  const [before, last] = readings.slice(-2);
  if (!before || !last || last.minutes <= before.minutes || last.tenths >= before.tenths) return undefined;
  if (last.tenths <= AROUND + 1 || tenths <= AROUND) return undefined;
  const rate = Math.log((before.tenths - AROUND) / (last.tenths - AROUND)) / (last.minutes - before.minutes);
  return last.minutes + Math.log((last.tenths - AROUND) / (tenths - AROUND)) / rate;
}

/**
 * How a batch stands: what was seen of it counts, and what nobody saw by its time is not taken as reached.
 *
 * @param readings in order of time
 * @param now minutes after it was begun
 * @param sayDegrees writes tenths of a degree Celsius as the programme does
 */
export function batchStanding(
  kind: BatchKind,
  limits: Limits,
  readings: readonly Reading[],
  now: number,
  sayDegrees: (tenths: number) => string,
  stands: { readonly least: number; readonly most: number | null } = { least: 0, most: null },
): BatchStanding {
  if (kind === 'stand') return standingStanding(limits, readings, now, sayDegrees, stands);
  return kind === 'hot' || kind === 'cold'
    ? heldStanding(kind, limits, readings, now, sayDegrees)
    : movingStanding(kind, limits, readings, now, sayDegrees);
}

function movingStanding(
  kind: 'cool' | 'reheat',
  limits: Limits,
  readings: readonly Reading[],
  now: number,
  sayDegrees: (tenths: number) => string,
): BatchStanding {
  const clock = clockOf(limits, readings);
  const inTime = (target: Target) =>
    readings.some(({ minutes, tenths }) => meets(target, tenths) && minutes - clock <= (target.within ?? 0));
  const open = limits.targets.find((target) => !inTime(target));
  if (!open)
    return {
      state: 'reached',
      nextAt: undefined,
      next: undefined,
      say:
        kind === 'cool'
          ? 'Cooled in time. Cover it, label it, keep it cold.'
          : 'Heated through. Serve it now or keep it hot; what is left is not heated again.',
    };
  const by = clock + (open.within ?? 0);
  const word = open.is === 'at most' ? 'down to' : 'up to';
  const next = { target: open, by };
  if (now > by) return missed(kind, limits, open, next, sayDegrees);
  const last = readings.at(-1);
  const nextAt = LOOKS[kind].map((minute) => clock + minute).find((minute) => minute > (last?.minutes ?? 0)) ?? by;
  const expected = kind === 'cool' ? reachedAt(readings, open.tenths) : undefined;
  if (expected !== undefined && expected > by)
    return {
      state: 'too slow',
      nextAt: Math.min(nextAt, by),
      next,
      say: `At this rate it is ${word} ${sayDegrees(open.tenths)} after ${Math.round(expected - clock)} minutes: ${open.within} at most. Spread it in shallow pans, or set it into ice water and stir.`,
    };
  const left = Math.round(by - now);
  return {
    state: now >= nextAt ? 'look' : 'going',
    nextAt: Math.min(nextAt, by),
    next,
    say: `${word === 'down to' ? 'Down' : 'Up'} to ${sayDegrees(open.tenths)} within ${left} minutes.`,
  };
}

function missed(
  kind: 'cool' | 'reheat',
  limits: Limits,
  open: Target,
  next: BatchStanding['next'],
  sayDegrees: (tenths: number) => string,
): BatchStanding {
  const seen = `Nobody saw it at ${sayDegrees(open.tenths)} within ${open.within} minutes`;
  const isFirst = kind === 'cool' && limits.targets.length > 1 && open === limits.targets[0];
  if (isFirst)
    return {
      state: 'put right',
      nextAt: undefined,
      next,
      say: `${seen}. Heat it through to 165 °F (74 °C) at once and cool it anew, faster: or throw it away. Once only.`,
    };
  return {
    state: 'throw away',
    nextAt: undefined,
    next,
    say: `${seen}. Throw it away: it cannot be shown to be safe.`,
  };
}

function heldStanding(
  kind: 'hot' | 'cold',
  { targets, spell = HELD_EVERY }: Limits,
  readings: readonly Reading[],
  now: number,
  sayDegrees: (tenths: number) => string,
): BatchStanding {
  const target = targets[0] as Target;
  const last = readings.at(-1);
  const next = { target, by: undefined };
  const limit = `${target.is} ${sayDegrees(target.tenths)}`;
  const good = readings.filter(({ tenths }) => meets(target, tenths)).at(-1);
  // From one good reading to the next that is not, nobody knows when it went wrong: all of it counts.
  for (const [at, { minutes, tenths }] of readings.entries()) {
    if (meets(target, tenths)) continue;
    const since =
      readings
        .slice(0, at)
        .filter((each) => meets(target, each.tenths))
        .at(-1)?.minutes ?? 0;
    const until = readings.slice(at + 1).find((each) => meets(target, each.tenths))?.minutes ?? now;
    if (until - since > spell && minutes >= since)
      return {
        state: 'throw away',
        nextAt: undefined,
        next,
        say: `For up to ${Math.round(until - since)} minutes it was not kept ${limit}: ${spell} at most. Throw it away.`,
      };
  }
  if (last && !meets(target, last.tenths))
    return {
      state: 'put right',
      nextAt: last.minutes + 15,
      next,
      say:
        kind === 'hot'
          ? `It is kept ${limit}. Heat it through at once, within ${Math.round(spell - (now - (good?.minutes ?? 0)))} minutes, or throw it away then.`
          : `It is kept ${limit}. Into another fridge or onto ice at once: after ${Math.round(spell - (now - (good?.minutes ?? 0)))} minutes more it is thrown away.`,
    };
  const nextAt = (last?.minutes ?? 0) + (last ? HELD_EVERY : 0);
  return {
    state: now >= nextAt ? 'look' : 'going',
    nextAt,
    next,
    say: `Kept ${limit}.`,
  };
}

/** What stands in the fridge: ready from one minute on, out of it by another, and cold all the while. */
function standingStanding(
  limits: Limits,
  readings: readonly Reading[],
  now: number,
  sayDegrees: (tenths: number) => string,
  { least, most }: { readonly least: number; readonly most: number | null },
): BatchStanding {
  const held = heldStanding('cold', limits, readings, now, sayDegrees);
  // Nobody has to look often into a fridge that is shut: once is enough, and what was seen counts.
  if (held.state === 'put right' || held.state === 'throw away') return held;
  const last = most === null ? '' : ` Out of it after ${sayLength(most)} at the latest.`;
  if (now < least)
    return { state: 'going', nextAt: least, next: undefined, say: `Ready in ${sayLength(least - now)}.${last}` };
  if (most !== null && now > most)
    return {
      state: 'put right',
      nextAt: undefined,
      next: undefined,
      say: `It has stood for ${sayLength(now)}: ${sayLength(most)} at most. Take it out now; what has gone soft or mealy is not used.`,
    };
  return { state: 'reached', nextAt: most ?? undefined, next: undefined, say: `It has stood long enough.${last}` };
}

const sayLength = (minutes: number): string =>
  minutes < 120 ? `${Math.ceil(minutes)} minutes` : `${Math.round((minutes / 60) * 2) / 2} hours`;

/** Days that something made ahead keeps cold, the day it was made not counted: two; cooked rice one. Both profiles, the stricter. */
export const keepsDays = (food: BatchFood): number => (food === 'rice' ? 1 : 2);

/**
 * A temperature as a programme says it, from tenths of a degree Celsius.
 *
 * @example sayTenths(211, 'us') //=> '70 °F (21.1 °C)'
 */
export const sayTenths = (tenths: number, profile: 'us' | 'uk'): string => {
  const celsius = `${tenths % 10 === 0 ? tenths / 10 : (tenths / 10).toFixed(1)} °C`;
  return profile === 'uk' ? celsius : `${Math.round(tenths * 0.18 + 32)} °F (${celsius})`;
};

/**
 * Degrees as a thermometer of the programme shows them, as tenths of a degree Celsius: °F in the US, where no letter says otherwise.
 * Undefined where it is no temperature of food.
 *
 * @example readDegrees('165', 'us') //=> 739
 * @example readDegrees('75,5 C', 'us') //=> 755
 * @example readDegrees('hot', 'uk') //=> undefined
 */
export function readDegrees(text: string, profile: 'us' | 'uk'): number | undefined {
  const read = /^([-−]?\d{1,3}(?:[.,]\d)?)\s*°?\s*([CF])?$/i.exec(text.trim());
  const number = Number((read?.[1] ?? '').replace(',', '.').replace('−', '-'));
  const scale = read?.[2]?.toUpperCase() ?? (profile === 'us' ? 'F' : 'C');
  const tenths = Math.round(scale === 'F' ? ((number - 32) * 50) / 9 : number * 10);
  return !read || tenths < -400 || tenths > 3000 ? undefined : tenths;
}
