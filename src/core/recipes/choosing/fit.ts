import { type ClassMinutes, USUAL_MINUTES } from '../../plan/class-minutes';
import { isHomeKit, type Mode } from '../../plan/mode';
import { type EquipmentCounts, sayEquipment } from '../../plan/place';
import { sayMoney } from '../../quantity/money';
import { inSeason } from '../../reference/season';
import { avoidanceLabel } from '../../safety/avoidances';
import type { Known } from '../recipe/cost';
import { cautionsOf } from '../steps/cautions';
import { ADULT, inBatches, type PlannedStep } from '../steps/step-plan';
import { type Hands, type StepSchedule, scheduleSteps } from '../steps/step-schedule';
import type { DishNeed } from './dish-needs';

/** A class that a dish is held against. */
export interface ClassFacts {
  readonly mode: Mode;
  /** Minutes of the class, all included. */
  readonly minutes: number;
  /** Those in which nobody cooks; the usual ones where left out. At home on camera nobody eats or cleans in them. */
  readonly around?: ClassMinutes | undefined;
  /** Who cooks; a demonstration has one cook, whoever watches. */
  readonly participants: number;
  /** Ages where they are known. */
  readonly ages: readonly number[];
  /** What the place counts; undefined where nobody counted, or there is none. */
  readonly equipment: EquipmentCounts | undefined;
  /** What a kit may cost, in minor units; undefined where nobody has said. */
  readonly budget?: number | undefined;
  /** ISO 4217 */
  readonly currency?: string;
  /** Servings of an average kit. */
  readonly servings?: number | undefined;
  /** The month of the class, 1 to 12; undefined where it has no date yet. */
  readonly month?: number | undefined;
  /** A place with an open fire instead of burners. */
  readonly isFire: boolean;
  /** The homes that it is cooked in, as far as families were asked. */
  readonly homes?: readonly HomeOfFamily[] | undefined;
}

/** What a family cooks with; what nobody has asked is left out. */
export interface HomeOfFamily {
  readonly name: string;
  readonly heat?: readonly string[] | undefined;
  readonly tools?: readonly string[] | undefined;
}

/** A dish as fit looks at it. */
export interface DishFacts {
  readonly ingredients: readonly string[];
  readonly steps: readonly PlannedStep[];
  readonly needs: readonly DishNeed[];
  /** What a serving costs, in minor units, as far as products are known. */
  readonly cost?: Known;
  /** Edible grams of a whole batch. */
  readonly grams?: number;
}

export type FitVerdict = 'fits' | 'with care' | 'does not fit';

/** One thing that was looked at. */
export interface FitFinding {
  readonly about: 'time' | 'age' | 'tasks' | 'heat' | 'tools' | 'home' | 'needs' | 'cost' | 'season' | 'cautions';
  readonly verdict: FitVerdict;
  /** In one sentence, with its numbers. */
  readonly say: string;
}

/** Whether a dish suits a class, and why. */
export interface Fit {
  readonly verdict: FitVerdict;
  readonly findings: readonly FitFinding[];
  /** The dish is taught with one made earlier: so many minutes would not fit. */
  readonly swapIn: boolean;
  readonly schedule: StepSchedule;
}

/** Good enough for a judgement: three hundred dishes are looked at together. */
const quickSchedule = (steps: Parameters<typeof scheduleSteps>[0], hands: Hands) => scheduleSteps(steps, hands, 2000);

/** Where a place does not count its stations, so many share one. */
const USUAL_AT_STATION = 4;

/** Poultry and minced meat need a thermometer, which homes seldom have. */
const NEEDS_THERMOMETER = /(?:chicken|turkey|duck|poultry|minced|burger|sausage)(?! stock)/;

/** Whether a dish suits a class: time, ages, tasks, heat, tools, homes, needs and cautions, each with its reason. */
export function fitOf(dish: DishFacts, session: ClassFacts): Fit {
  const atHome = isHomeKit(session.mode);
  const isDemo = session.mode === 'demonstration';
  const cooks = Math.max(1, session.participants);
  const stations = atHome || isDemo ? 1 : stationsOf(session, cooks);
  const perStation = atHome || isDemo ? 1 : Math.ceil(cooks / stations);
  const burners = session.equipment?.burners;
  // What a pan does not hold at once is cooked in turns.
  const steps = inBatches(dish.steps, Math.max(1, isDemo ? 1 : perStation * (session.servings ?? 1)));
  const schedule = quickSchedule(steps, {
    cooks: Math.min(perStation, 4),
    ...(atHome || burners === undefined ? {} : { heats: { hob: Math.max(1, Math.floor(burners / stations)) } }),
  });
  const time = timeFinding(steps, schedule, session);
  const findings = [
    time.finding,
    ...ageFindings(dish.steps, session),
    ...(atHome || isDemo ? [] : tasksFinding(dish.steps, perStation)),
    ...(atHome ? homeFindings(dish, session.homes ?? []) : placeFindings(dish.steps, session, stations)),
    ...needsFindings(dish),
    ...costFindings(dish, session),
    ...seasonFindings(dish, session),
    ...cautionFindings(dish, session),
  ];
  const has = (verdict: FitVerdict) => findings.some((each) => each.verdict === verdict);
  return {
    verdict: has('does not fit') ? 'does not fit' : has('with care') ? 'with care' : 'fits',
    findings,
    swapIn: time.swapIn,
    schedule,
  };
}

const stationsOf = ({ equipment }: ClassFacts, cooks: number) =>
  Math.max(1, equipment?.stations ?? Math.ceil(cooks / USUAL_AT_STATION));

function timeFinding(
  steps: readonly PlannedStep[],
  { minutes: needed }: StepSchedule,
  { mode, minutes, around: own = USUAL_MINUTES }: ClassFacts,
): { finding: FitFinding; swapIn: boolean } {
  const before = own.opening + own.demonstration;
  const around = isHomeKit(mode) ? before : before + own.eating + own.cleaning;
  const left = Math.max(0, minutes - around);
  if (mode === 'take-home')
    return { finding: { about: 'time', verdict: 'fits', say: `Cooked at home: ${needed} minutes.` }, swapIn: false };
  if (needed <= left)
    return {
      finding: { about: 'time', verdict: 'fits', say: `${needed} minutes of cooking in ${left} that are left for it.` },
      swapIn: false,
    };
  // Without what goes on alone at the end, or in the oven: begun in class, eaten from one made earlier.
  const begun = quickSchedule(
    steps.map((step) => ({ ...step, handsOff: step.handsOff > left / 4 ? 0 : step.handsOff })),
    { cooks: 1 },
  ).minutes;
  if (begun <= left)
    return {
      finding: {
        about: 'time',
        verdict: 'with care',
        say: `${needed} minutes do not fit into ${left}: teach it with a swap-in. The class begins it; one made earlier is finished and eaten: one more batch, cooled within two hours, kept at or below 5 °C, reheated through.`,
      },
      swapIn: true,
    };
  return {
    finding: {
      about: 'time',
      verdict: 'does not fit',
      say: `${needed} minutes of cooking, ${left} left for it after ${around} for hands and tables${isHomeKit(mode) ? '' : ', eating and cleaning'}; with a swap-in it would still take ${begun}.`,
    },
    swapIn: false,
  };
}

function ageFindings(steps: readonly PlannedStep[], { ages }: ClassFacts): FitFinding[] {
  const youngest = Math.min(...ages);
  if (ages.length === 0 || youngest >= ADULT || steps.length === 0) return [];
  const inClass = steps.filter(({ ahead }) => !ahead);
  const forAdults = inClass.filter(({ fromAge }) => fromAge >= ADULT).length;
  const tooEarly = inClass.filter(({ fromAge }) => fromAge > youngest && fromAge < ADULT);
  const own = inClass.length - forAdults - tooEarly.length;
  const say = [
    `${own} of ${inClass.length} steps ${own === 1 ? 'is' : 'are'} for everybody from ${youngest} years`,
    forAdults > 0 ? `an adult does ${forAdults}` : '',
    tooEarly.length > 0
      ? `${tooEarly.length} ${tooEarly.length === 1 ? 'is' : 'are'} from ${Math.max(...tooEarly.map(({ fromAge }) => fromAge))} years`
      : '',
  ]
    .filter(Boolean)
    .join('; ');
  const verdict = own === 0 ? 'does not fit' : forAdults + tooEarly.length >= own ? 'with care' : 'fits';
  return [{ about: 'age', verdict, say: `${say}.` }];
}

/** A step's foods can be shared out: each is somebody's task. */
function tasksFinding(steps: readonly PlannedStep[], perStation: number): FitFinding[] {
  if (steps.length === 0 || perStation <= 1) return [];
  const tasks = steps
    .filter(({ ahead, fromAge, handsOn }) => !ahead && fromAge < ADULT && handsOn > 0)
    .reduce((sum, { uses }) => sum + Math.max(1, uses.length), 0);
  const verdict = tasks >= perStation ? 'fits' : 'with care';
  return [
    {
      about: 'tasks',
      verdict,
      say:
        verdict === 'fits'
          ? `${tasks} tasks for ${perStation} at a station.`
          : `${tasks} ${tasks === 1 ? 'task' : 'tasks'} for ${perStation} at a station: some would stand idle. Share them out, or make more, smaller stations.`,
    },
  ];
}

/** What stands in a home for the heat of a step; a kettle is everywhere. */
const AT_HOME: Partial<Record<PlannedStep['heat'], readonly string[]>> = {
  hob: ['hob'],
  oven: ['oven'],
  grill: ['oven'],
  microwave: ['microwave'],
  fire: ['open fire'],
};

/** Homes that lack something, and homes that nobody has asked. */
function lackingAmong(homes: readonly HomeOfFamily[], kind: 'heat' | 'tools', any: readonly string[]) {
  return {
    lacks: homes
      .filter((home) => home[kind] && !any.some((each) => home[kind]?.includes(each)))
      .map(({ name }) => name),
    unasked: homes.filter((home) => !home[kind]).length,
  };
}

function homeFindings({ ingredients, steps }: DishFacts, homes: readonly HomeOfFamily[]): FitFinding[] {
  const risky = ingredients.filter((name) => NEEDS_THERMOMETER.test(name));
  const findings: FitFinding[] = [];
  const find = (verdict: FitVerdict, say: string) => findings.push({ about: 'home', verdict, say });
  if (risky.length > 0) {
    const { lacks, unasked } = lackingAmong(homes, 'tools', ['thermometer']);
    if (homes.length > 0 && lacks.length === 0 && unasked === 0)
      find('with care', `${risky.join(', ')}: every home has a thermometer; see that it is used.`);
    else
      find(
        'does not fit',
        `${risky.join(', ')}: without a thermometer at home, no poultry and no minced meat.${lacks.length > 0 ? ` None at ${sayNames(lacks)}.` : ''}`,
      );
  }
  const heats = new Set(steps.map(({ heat }) => heat));
  for (const heat of ['hob', 'oven', 'grill', 'microwave', 'fire'] as const) {
    const any = AT_HOME[heat] ?? [];
    if (!heats.has(heat) || (heat === 'grill' && heats.has('oven'))) continue;
    const what =
      heat === 'fire' ? 'a fire' : heat === 'hob' ? 'one ring' : heat === 'microwave' ? 'a microwave' : 'an oven';
    const { lacks, unasked } = lackingAmong(homes, 'heat', any);
    if (lacks.length > 0)
      find('does not fit', `It needs ${what}, and ${sayNames(lacks)} ${lacks.length === 1 ? 'has' : 'have'} none.`);
    else if (homes.length > 0 && unasked === 0) find('fits', `It needs ${what}; every home has it.`);
    else if (heat === 'hob') find('fits', 'One ring at home is enough.');
    else
      find(
        'does not fit',
        `It needs ${what}, which not every home has: ask the families${homes.length > unasked ? ` (${unasked} not asked yet)` : ''}, or choose a dish for the hob.`,
      );
  }
  return findings;
}

/** A few names, and how many more. */
const sayNames = (names: readonly string[]) =>
  names.length <= 3 ? names.join(', ') : `${names.slice(0, 3).join(', ')} and ${names.length - 3} more`;

function placeFindings(steps: readonly PlannedStep[], session: ClassFacts, stations: number): FitFinding[] {
  const { equipment, isFire } = session;
  const inClass = steps.filter(({ ahead }) => !ahead);
  const needs = (test: (step: PlannedStep) => boolean) => inClass.some(test);
  const findings: FitFinding[] = [];
  const look = (about: 'heat' | 'tools', kind: keyof EquipmentCounts, least: number, what: string, well = least) => {
    const there = equipment?.[kind];
    if (there === undefined)
      findings.push({
        about,
        verdict: 'with care',
        say: `It needs ${what}; nobody has counted ${sayKind(kind)} at this place.`,
      });
    else if (there < least)
      findings.push({
        about,
        verdict: 'does not fit',
        say: `It needs ${what}; the place has ${sayEquipment(kind, there)}.`,
      });
    else if (there < well)
      findings.push({
        about,
        verdict: 'with care',
        say: `${sayEquipment(kind, there)} for ${stations} ${stations === 1 ? 'station' : 'stations'}: they take turns.`,
      });
    else findings.push({ about, verdict: 'fits', say: `${sayEquipment(kind, there)} for ${what}.` });
  };
  if (needs(({ heat }) => heat === 'hob' || heat === 'kettle') && !isFire)
    look('heat', 'burners', 1, 'a burner at each station', stations);
  if (needs(({ heat }) => heat === 'oven' || heat === 'grill')) look('heat', 'ovens', 1, 'an oven');
  if (needs(({ tools }) => tools.includes('pan') || tools.includes('pot')))
    look('tools', 'pans', 1, 'a pan or pot at each station', stations);
  if (needs(({ tools }) => tools.includes('knife')))
    look('tools', 'knives', 1, 'a knife for everybody who cuts', Math.max(1, session.participants));
  if (needs(({ tools }) => tools.includes('blender'))) look('tools', 'blenders', 1, 'a blender');
  return findings;
}

const sayKind = (kind: keyof EquipmentCounts) => sayEquipment(kind, 2).replace(/^2 /, '');

function needsFindings({ needs }: DishFacts): FitFinding[] {
  return needs.map(({ people, avoids, replaced, blocked, unknown }): FitFinding => {
    const what = [...avoids.map(avoidanceLabel), ...unknown.map((each) => `“${each}”`)].join(', ');
    const who = `${people} ${people === 1 ? 'avoids' : 'avoid'} ${what}`;
    if (blocked.length > 0)
      return {
        about: 'needs',
        verdict: 'does not fit',
        say: `${who}: nothing safe stands in for ${blocked.join(', ')}.`,
      };
    if (unknown.length > 0)
      return { about: 'needs', verdict: 'with care', say: `${who}: nobody has said yet what that means.` };
    return { about: 'needs', verdict: 'fits', say: `${who}: ${replaced.join(', ')}.` };
  });
}

function costFindings({ cost }: DishFacts, { budget, servings, currency = '' }: ClassFacts): FitFinding[] {
  if (!cost || cost.known === 0) return [];
  const from = cost.known < cost.of ? `, from the ${cost.known} of ${cost.of} foods whose price is known` : '';
  const each = `About ${sayMoney(cost.perServing, currency)} a serving${from}`;
  if (budget === undefined || !servings) return [{ about: 'cost', verdict: 'fits', say: `${each}.` }];
  const kit = cost.perServing * servings;
  const verdict = kit > budget ? 'does not fit' : cost.known < cost.of ? 'with care' : 'fits';
  return [
    {
      about: 'cost',
      verdict,
      say: `${each}: ${sayMoney(kit, currency)} an average kit of the ${sayMoney(budget, currency)} there is.`,
    },
  ];
}

/** What is fresh and grows here now, and what does not: dearer, and from far away. It never forbids a dish. */
function seasonFindings({ ingredients }: DishFacts, { month }: ClassFacts): FitFinding[] {
  if (month === undefined) return [];
  const now = ingredients.filter((name) => inSeason(name, month) === true);
  const not = ingredients.filter((name) => inSeason(name, month) === false);
  if (now.length + not.length === 0) return [];
  const say = [
    now.length > 0 ? `in season: ${now.join(', ')}` : '',
    not.length > 0 ? `out of season: ${not.join(', ')}` : '',
  ]
    .filter(Boolean)
    .join('; ');
  return [{ about: 'season', verdict: 'fits', say: `${capital(say)}. Your growers know better.` }];
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function cautionFindings({ ingredients, steps }: DishFacts, { ages }: ClassFacts): FitFinding[] {
  const youngest = Math.min(...ages);
  const limits: readonly (readonly [RegExp, number])[] = [
    [/under 1 year/, 1],
    [/under 5/, 5],
  ];
  return cautionsOf(
    ingredients,
    steps.map(({ text }) => text),
  ).flatMap(({ who, hazard, caution }): FitFinding[] => {
    const limit = limits.find(([test]) => test.test(who))?.[1];
    if (limit === undefined || ages.length === 0 || youngest >= limit) return [];
    return [{ about: 'cautions', verdict: 'with care', say: `${hazard}, ${who}: ${caution}.` }];
  });
}
