// Temperatures that cannot be meant: of an oven, inside of what is cooked, and two that ought to be one.
import { degreesIn } from '../steps/safe-temperatures';
import type { Slip } from './slip';

type Degree = ReturnType<typeof degreesIn>[number];

/** Home ovens reach 260 °C (500 °F), pizza ovens aside; below 90 °C nothing bakes. */
const HOTTEST = 275;
const COOLEST = 90;
/** Below this an oven dries and keeps warm, and bakes nothing within the hour, in °C. */
const SLOW_OVEN = 130;
const DRIED =
  /\b(?:meringues?|pavlova|egg whites|dehydrat\w*|granola|jerky|salt dough|ornaments|slow[- ]roast\w*|pulled|confit)\b/i;
const SLOW =
  /\b(?:dry out|to dry|drying|keep(?:s|ing)? (?:it |them )?warm|warm(?:ing)? (?:the )?(?:plates|oven)|slow\w*|low oven|overnight|[2-9] ?(?:-\d+ )?hours|two hours|three hours|prove|proof|rise)\b/i;

const OVEN = /\b(?:oven|bak(?:e|ed|ing)|roast\w*|preheat\w*)\b/i;
/** Said of a degree: it is read inside of what is cooked. */
const INSIDE_BEFORE =
  /\b(?:reach(?:es)?|reads?|registers?|until(?: it(?:'s| is)?)?|inside|internal(?: temperature)?(?: of)?|middle|centre|center|core|thickest(?: part)?)\b[^.;]{0,40}$/i;
const INSIDE_AFTER = /^[^.;\d]{0,24}\b(?:inside|in the (?:middle|centre|center|thickest|core)|internal|all through)\b/i;
/** Water boils, and nothing moist is hotter inside; sugar, jam and oil are. */
const HOTTEST_INSIDE = 105;
const COOLEST_DONE = 45;
const HOT_LIQUID =
  /\b(?:oil|sugar|syrup|caramel|toffee|candy|jam|fudge|honeycomb|oven|preheat|bake at|roast at|grill)\b/i;
const COLD_OR_WARM =
  /\b(?:chill\w*|fridge|freez\w*|cool\w*|lukewarm|warm\w*|water|milk|yeast|chocolate|room|serve|proof|rise|sous|yogurt|salmon|steak|rare)\b/i;

/** What is wrong with the temperatures that steps state. */
export function temperatureSlips(steps: readonly string[]): Slip[] {
  const isDried = DRIED.test(steps.join(' '));
  return steps.flatMap((step, at) => inStep(step, at, isDried));
}

function inStep(step: string, at: number, isDried: boolean): Slip[] {
  const degrees = degreesIn(step);
  return [
    ...degrees.flatMap((degree) => insideSlip(step, degree, at) ?? ovenSlip(step, degree, at, isDried) ?? []),
    ...apart(step, degrees, at),
  ];
}

const slip = (at: number, { said }: Degree, say: string, why: string): Slip => ({
  kind: 'temperature',
  step: at,
  say,
  why,
  key: `temperature ${said} ${at}`,
});

const isInside = (step: string, { said, at }: Degree): boolean =>
  INSIDE_BEFORE.test(step.slice(0, at)) || INSIDE_AFTER.test(step.slice(at + said.length));

/** The sentence that a degree stands in. */
const around = (step: string, { at }: Degree): string => {
  const from = Math.max(step.lastIndexOf('. ', at), step.lastIndexOf('; ', at)) + 1;
  const to = step.slice(at).search(/[.;](?:\s|$)/);
  return step.slice(from, to < 0 ? undefined : at + to);
};

function insideSlip(step: string, degree: Degree, at: number): Slip | undefined {
  if (!isInside(step, degree)) return undefined;
  const { celsius, said } = degree;
  const text = around(step, degree);
  if (celsius > HOTTEST_INSIDE && !HOT_LIQUID.test(text.slice(0, text.indexOf(said))))
    return slip(
      at,
      degree,
      `${said} is no temperature inside of food: °C and °F may be mixed up.`,
      `Food that holds water is never hotter than ${HOTTEST_INSIDE} °C (221 °F) inside.`,
    );
  if (celsius < COOLEST_DONE && !COLD_OR_WARM.test(text))
    return slip(
      at,
      degree,
      `${said} is nothing that is cooked inside: check the figure.`,
      'From 60 °C (140 °F) inside food is cooked; what is safe is told by the temperatures of the programme.',
    );
  return undefined;
}

/** Whether what stands nearest before a degree chills, warms or lets rise, and does not bake. */
function isColdOrWarm(text: string, said: string): boolean {
  const before = text.slice(0, text.indexOf(said));
  const last = (words: RegExp) => [...before.matchAll(new RegExp(words.source, 'gi'))].at(-1)?.index ?? -1;
  return last(COLD_OR_WARM) > last(OVEN);
}

function ovenSlip(step: string, degree: Degree, at: number, isDried: boolean): Slip | undefined {
  const { celsius, said } = degree;
  const text = around(step, degree);
  const inside = isInside(step, degree);
  const isOven = OVEN.test(step) && !inside;
  // "Fork it, 40F for 25 minutes": a time beside it says that it cooks.
  const isCooked =
    /\bfor\b[^.;]{0,12}\bmin/i.test(step) &&
    !/\b(?:chill|fridge|cool|rise|prov|proof|rest|water|milk|warm|soak|stand|sous)/i.test(step);
  if (celsius > HOTTEST || ((isOven || isCooked) && !inside && celsius < COOLEST && !isColdOrWarm(text, said)))
    return slip(
      at,
      degree,
      `${said} is no temperature of an oven: °C and °F may be mixed up, or a digit too many.`,
      `Ovens work from ${COOLEST} to ${HOTTEST} °C (200 to 525 °F).`,
    );
  if (isOven && OVEN.test(text) && celsius >= COOLEST && celsius < SLOW_OVEN && !isDried && !SLOW.test(step))
    return slip(
      at,
      degree,
      `${said} is very low for baking within the hour.`,
      'Most is baked at 150 to 230 °C (300 to 450 °F): a figure may be missing, or °C and °F mixed up.',
    );
  return undefined;
}

/** Two scales, or a fan oven beside another: further apart than this, in °C, they are not the same oven. */
const APART = 35;

/** "200 °F/180C fan": two temperatures of one oven. */
function apart(step: string, degrees: readonly Degree[], at: number): Slip[] {
  return degrees.flatMap((one, index): Slip[] => {
    const other = degrees[index + 1];
    const between = other && step.slice(one.at + one.said.length, other.at);
    if (!other || !between || !/^\s*[/(,]\s*(?:fan\s*)?$/i.test(between)) return [];
    if (Math.abs(one.celsius - other.celsius) <= APART) return [];
    return [
      slip(
        at,
        one,
        `${one.said} and ${other.said} are not the same heat.`,
        `They differ by ${Math.round(Math.abs(one.celsius - other.celsius))} °C; a fan oven is set about 20 °C lower.`,
      ),
    ];
  });
}
