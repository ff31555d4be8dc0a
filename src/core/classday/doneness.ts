import { type Inside, insideOf, type SafetyProfile } from '../recipes/steps/safe-temperatures';
import type { Heat, PlannedStep } from '../recipes/steps/step-plan';

/** A reading of a probe in food. */
export interface ProbeReading {
  readonly tenths: number;
  /** ISO instant. */
  readonly at: string;
}

/** What a reading means for a dish. */
export interface InsideVerdict {
  readonly state: 'safe' | 'hold' | 'go on';
  /** About so many minutes more: held, or cooked; 0 where it is safe. */
  readonly minutes: number;
}

/** Degrees a minute that the middle usually rises by, where two readings do not say; an estimate, said as one. */
const RISE: Readonly<Partial<Record<Heat, number>>> = { oven: 1, fire: 1.5 };
const USUAL_RISE = 2;
/** Slower than this is not believed: the probe was moved. */
const LEAST_RISE = 0.2;
/** A probe's own error, in tenths. */
const ERROR = 3;

/**
 * What the newest reading says: safe, hot enough once it is held there, or to cook on, and how long that usually takes.
 *
 * @param readings of one task, in order
 * @example
 * judgeInside(insideOf('', ['chicken breast'], 'us'), [{ tenths: 700, at: '' }], 'oven') //=> { state: 'go on', minutes: 4 }
 */
export function judgeInside(inside: Inside, readings: readonly ProbeReading[], heat: Heat): InsideVerdict | undefined {
  const last = readings.at(-1);
  if (!last) return undefined;
  if (last.tenths >= inside.tenths - ERROR)
    return inside.seconds > 0 ? { state: 'safe', minutes: inside.seconds / 60 } : { state: 'safe', minutes: 0 };
  if (last.tenths >= inside.leastTenths - ERROR) return { state: 'hold', minutes: inside.leastMinutes };
  const missing = (inside.tenths - last.tenths) / 10;
  return { state: 'go on', minutes: Math.max(1, Math.ceil(missing / riseOf(readings, heat))) };
}

function riseOf(readings: readonly ProbeReading[], heat: Heat): number {
  const [before, last] = readings.slice(-2);
  const usual = RISE[heat] ?? USUAL_RISE;
  if (!before || !last || before === last) return usual;
  const minutes = (Date.parse(last.at) - Date.parse(before.at)) / 60_000;
  const rise = (last.tenths - before.tenths) / 10 / minutes;
  return minutes >= 0.5 && rise >= LEAST_RISE ? rise : usual;
}

/** What is done with a probe, each time. */
export const PROBE_WAYS = [
  'Clean the probe before and after.',
  'Into the thickest part, at a slant where it is thin, away from bone, pan and fat.',
] as const;

/**
 * The steps of a dish after which its food must be hot inside: the last on the heat, of those that hold such food. Their places, and how
 * hot.
 *
 * @example
 * // 'Brown the chicken mince.', 'Add tomatoes and simmer 20 minutes.', 'Serve.'
 * insideSteps(steps, ['chicken mince', 'tomato'], 'us') //=> Map { 1 => 165 °F for poultry }
 */
export function insideSteps(
  steps: readonly Pick<PlannedStep, 'text' | 'heat' | 'after' | 'uses' | 'ahead'>[],
  foods: readonly string[],
  profile: SafetyProfile,
): ReadonlyMap<number, Inside> {
  const holding = steps.map((step) => new Set(step.uses));
  for (const [at, step] of steps.entries())
    for (const before of step.after) for (const food of holding[before] ?? []) holding[at]?.add(food);
  const isHot = (at: number) => steps[at] !== undefined && steps[at].heat !== 'none' && steps[at].heat !== 'kettle';
  const hot = steps.flatMap((step, at) => (isHot(at) && !step.ahead ? [at] : []));
  const goesOn = (at: number) => hot.some((later) => later !== at && follows(steps, later, at));
  const found = new Map<number, Inside>();
  for (const at of hot) {
    if (goesOn(at)) continue;
    const held = [...(holding[at] ?? [])];
    const inside = insideOf(steps[at]?.text ?? '', held.length > 0 ? held : foods, profile);
    if (inside) found.set(at, inside);
  }
  return found;
}

function follows(steps: readonly Pick<PlannedStep, 'after'>[], later: number, before: number): boolean {
  const seen = new Set<number>();
  const open = [later];
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    for (const each of steps[at]?.after ?? []) {
      if (each === before) return true;
      if (!seen.has(each)) open.push(each);
      seen.add(each);
    }
  }
  return false;
}
