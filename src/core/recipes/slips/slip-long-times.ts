// Times that are far too long for what is done in them: an hour for a minute, or a figure too many.
import { degreesIn } from '../steps/safe-temperatures';
import { type ToldTime, toldTimes } from '../steps/told-times';
import type { Slip } from './slip';

/** Slowly, it may take as long as it likes. */
const SLOWLY = /\b(?:low|slow\w*|gentl[ey]|confit|carameli[sz]\w*|overnight|dry|dehydrat|smok|meringue|pavlova)/i;

/** Baked in a quarter of an hour. */
const SMALL = '(?:scones|cookies|biscuits|muffins|cupcakes|buns|rolls|rounds|spoonfuls|flatbreads|pizza)';

/** Longer than this nothing is done so, in minutes: twice what is usual and more, ours. */
const LONGEST: readonly (readonly [does: RegExp, minutes: number, where: string])[] = [
  [
    new RegExp(`\\b${SMALL}\\b[^.;]{0,40}\\bbake\\b[^.;]{0,60}|\\bbake\\b[^.;]{0,12}\\b${SMALL}\\b[^.;]{0,60}`, 'i'),
    60,
    'in an oven',
  ],
  [
    /\b(?:boil|cook|simmer)\w*\b[^.;]{0,25}\b(?:pasta|spaghetti|macaroni|penne|noodles|couscous|peas|prawns)\b[^.;]{0,50}/i,
    30,
    'in water',
  ],
];

/** Whoever means three hours says hours. */
const IN_MINUTES = 180;

/** What takes hours in an oven; nothing else that is hot enough does. */
const HOURS_IN_OVEN =
  /beef|pork|lamb|chicken|turkey|duck|ham$|gammon|venison|^dried |^split peas$|lentils$|pearl barley|beetroot|squash|pumpkin|potato|cabbage|^onion$|quince|raisins|sultanas|currants|suet|condensed milk/;
const MOST_BAKED = 90;
const HOT_OVEN = 160;

/** @param foods names of the foods in the reference table */
export function longTimes(steps: readonly string[], foods: readonly string[]): Slip[] {
  const takesHours = foods.some((name) => HOURS_IN_OVEN.test(name));
  return steps.flatMap((step, at) => {
    const found = tooLong(step) ?? (takesHours ? undefined : bakedLong(step));
    return found ? [slip(at, ...found)] : [];
  });
}

type Found = readonly [told: ToldTime, most: number, where: string];

function tooLong(step: string): Found | undefined {
  if (SLOWLY.test(step)) return undefined;
  for (const [does, most, where] of LONGEST) {
    const [told] = toldTimes(does.exec(step)?.[0] ?? '');
    if (told && told.minutes > most) return [told, most, where];
  }
  const [told] = toldTimes(/\b(?:bake|roast|simmer)\b[^.;]{0,80}/i.exec(step)?.[0] ?? '');
  return told && told.minutes > IN_MINUTES && /min/i.test(told.words)
    ? [told, IN_MINUTES, 'said in minutes']
    : undefined;
}

function bakedLong(step: string): Found | undefined {
  const baked = /\bbake\b(.*)/is.exec(step)?.[1] ?? '';
  const [told] = toldTimes(baked);
  const isCool = degreesIn(step).some(({ celsius }) => celsius < HOT_OVEN);
  return told && told.minutes > MOST_BAKED && !isCool && !SLOWLY.test(baked)
    ? [told, MOST_BAKED, 'in an oven']
    : undefined;
}

const slip = (step: number, { words }: ToldTime, most: number, where: string): Slip => ({
  kind: 'time',
  step,
  say: `“${words}” ${where} is very long for this.`,
  why: `Beyond ${most} minutes an hour may stand for a minute, or there is a figure too many.`,
  key: `time long ${words} ${step}`,
});
