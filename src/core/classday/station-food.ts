import type { SheetInput } from '../kits/record/sheet-content';
import { computeSheet } from '../kits/record/snapshot';
import { itemName, sayPortion } from '../kits/sheet/say-component';
import { AmountError } from '../quantity/rational';
import type { Line, WrittenAlternative, WrittenLine } from '../recipes/recipe/recipe';
import { avoidanceLabel, blockersOf, foodCode, type Need } from '../safety/avoidances';
import type { ClassPlan } from './live/class-plan';

/** Who eats of what a station cooks. */
export interface StationEaters {
  readonly station: number;
  readonly servings: number;
  /** What anybody of them must avoid. */
  readonly needs: readonly Need[];
}

/** Something that is not as written today. */
export interface DaySwap {
  /** '' where nothing is missing, but somebody new must avoid something. */
  readonly food: string;
  /** Null for all. */
  readonly station: number | null;
  /** Undefined: what the recipe has for it; '': it is left out; else this food. */
  readonly instead?: string | undefined;
  /** How much of it, where it is not as much: "120", "g". */
  readonly amount?: string | undefined;
  readonly unit?: string | undefined;
  /** A code that somebody in the room must avoid from now on. */
  readonly avoid?: string | undefined;
}

export interface StationFood {
  readonly station: number;
  readonly foods: readonly {
    readonly dish: string;
    /** The food as it is written in the recipe. */
    readonly written: string;
    readonly food: string;
    readonly name: string;
    readonly say: string;
    /** How the steps differ with it; '' where they do not. */
    readonly step: string;
    /** Minutes that it takes longer, or shorter. */
    readonly minutes: number;
  }[];
  /** What is left out here, as it is written in the recipe. */
  readonly without: readonly { readonly dish: string; readonly written: string }[];
  /** What cannot be cooked here safely, and why. */
  readonly refusals: readonly { readonly dish: string; readonly food: string; readonly holds: readonly string[] }[];
  /** Needs that nobody has said the meaning of: they block. */
  readonly unknown: readonly string[];
  readonly madeWithout: readonly string[];
}

/**
 * What each station gets of every food, measured for who eats there and made safe for all of them: the same judgement as for kits.
 *
 * @param input the dishes of the session, with labels and reference
 * @param shared ids of dishes that stations make together: they are safe for everybody in the room
 * @returns where a swap cannot be measured, what is wrong with it
 */
export function stationFood(
  input: SheetInput,
  eaters: readonly StationEaters[],
  swaps: readonly DaySwap[] = [],
  shared: ReadonlySet<string> = new Set(),
): { readonly stations: readonly StationFood[] } | { readonly problem: string } {
  const stations: StationFood[] = [];
  const everybody = eaters.flatMap(({ needs, station }) => [...needs, ...ofToday(swaps, station)]);
  for (const eater of eaters) {
    const here = swaps.filter(({ station }) => station === null || station === eater.station);
    const own = dishesOf(input, ({ id }) => !shared.has(id));
    const common = dishesOf(input, ({ id }) => shared.has(id));
    // What they make together is made of what is there at any of them, and is safe for all.
    const parts = [
      computedFor(own, here, eater, [...eater.needs, ...ofToday(here, eater.station)]),
      computedFor(common, swaps, eater, everybody),
    ];
    const found: Part[] = [];
    for (const part of parts) {
      if ('problem' in part) return part;
      found.push(part);
    }
    stations.push({
      station: eater.station,
      foods: found.flatMap(({ foods }) => foods),
      without: found.flatMap(({ without }) => without),
      refusals: found.flatMap(({ refusals }) => refusals),
      unknown: [...new Set(found.flatMap(({ unknown }) => unknown))],
      madeWithout: [...new Set(found.flatMap(({ madeWithout }) => madeWithout))],
    });
  }
  return { stations };
}

type Part = Omit<StationFood, 'station'>;

const dishesOf = (input: SheetInput, isOf: (dish: SheetInput['dishes'][number]) => boolean): SheetInput => {
  const { extras: _, versions: __, ...plain } = input;
  return { ...plain, dishes: input.dishes.filter(isOf) };
};

/** Some dishes as a station makes them, of what is there. */
function computedFor(
  input: SheetInput,
  swaps: readonly DaySwap[],
  { station, servings }: StationEaters,
  needs: readonly Need[],
): Part | { readonly problem: string } {
  const dishes = input.dishes.map((dish) => ({
    ...dish,
    recipe: { ...dish.recipe, lines: dish.recipe.lines.map((line) => swapped(line, swaps)) },
  }));
  const outcome = computed({ ...input, dishes }, [
    { id: String(station), name: `Station ${station}`, servings, needs },
  ]);
  if ('problem' in outcome) return outcome;
  const [variant] = outcome.sheet.variants;
  const titleOf = (dish: number) => input.dishes[dish]?.title ?? '';
  const writtenAt = (dish: number, line: number) => input.dishes[dish]?.recipe.lines[line]?.ingredient ?? '';
  const avoids = variant?.avoids ?? [];
  // What is not there is no need of anybody.
  const isNeed = (code: string) => !swaps.some(({ food }) => foodCode(food) === code);
  const has = new Set(variant?.components?.map(({ dish, line }) => `${dish} ${line}`));
  return {
    foods: (variant?.components ?? [])
      .filter(({ isInside }) => !isInside)
      .map((component) => {
        const { dish, line, item } = component;
        return {
          dish: titleOf(dish),
          written: writtenAt(dish, line),
          food: item.ingredient.name,
          name: itemName(item),
          say: sayPortion(component, input.system),
          step: item.step,
          minutes: item.minutes,
        };
      }),
    without: variant?.components
      ? input.dishes.flatMap(({ recipe }, dish) =>
          recipe.lines.flatMap((_, line) =>
            has.has(`${dish} ${line}`) ? [] : [{ dish: titleOf(dish), written: writtenAt(dish, line) }],
          ),
        )
      : [],
    refusals: (variant?.refusals ?? []).map(({ dish, line, ingredient }) => ({
      dish: titleOf(dish),
      food: ingredient,
      holds: blocking(outcome.dishes[dish]?.lines[line], avoids).filter(isNeed).map(avoidanceLabel),
    })),
    unknown: variant?.unknownNeeds ?? [],
    madeWithout: avoids.filter(isNeed).map(avoidanceLabel),
  };
}

function computed(input: SheetInput, participants: Parameters<typeof computeSheet>[1]) {
  try {
    const outcome = computeSheet(input, participants);
    if (!('problems' in outcome)) return outcome;
    const [first] = outcome.problems;
    return { problem: `${first?.dish}: ${first?.message}` };
  } catch (error) {
    if (error instanceof AmountError) return { problem: error.message };
    throw error;
  }
}

/** Codes for which neither the written item nor anything that may stand in will do. */
const blocking = (line: Line | undefined, avoids: readonly string[]): string[] => {
  const items = line ? [line.written, ...line.alternatives.flatMap((item) => item ?? [])] : [];
  return [...new Set(items.flatMap(({ holdings }) => blockersOf(holdings, avoids)))];
};

/** What a station does without today: a food that is not there is avoided like any other. */
const ofToday = (swaps: readonly DaySwap[], station: number): Need[] =>
  swaps
    .filter((swap) => swap.station === null || swap.station === station)
    .flatMap(({ food, avoid }): Need[] => [
      ...(food ? [{ asWritten: `no ${food} today`, codes: [foodCode(food)] }] : []),
      ...(avoid ? [{ asWritten: avoid, codes: [avoid] }] : []),
    ]);

/** A line with what stands in for it today before what its recipe has. */
function swapped(line: WrittenLine, swaps: readonly DaySwap[]): WrittenLine {
  // What was said last is what is there.
  const own = swaps.findLast(({ food, instead }) => food === line.ingredient && instead !== undefined);
  if (!own) return line;
  const usual = line.alternatives ?? [];
  if (own.instead === '') return { ...line, alternatives: [{ omit: true }, ...usual] };
  const { amount = line.amount, unit = line.unit, instead = '' } = own;
  const known = usual.find((each) => 'ingredient' in each && each.ingredient === instead && own.amount === undefined);
  const other: WrittenAlternative = known ?? {
    ingredient: instead,
    amount,
    unit,
    reason: 'not available',
    ...(line.scaling ? { scaling: line.scaling } : {}),
    ...(line.precision ? { precision: line.precision } : {}),
  };
  // Nothing else is there: where this is not safe, nothing is.
  return { ...line, alternatives: [other] };
}

const keyOf = (station: number, { dish, written, food }: StationFood['foods'][number]): string =>
  `${station} ${dish}: ${food} instead of ${written}`;

/** What stands in, and what is left out, at which station: to tell what is new. */
export const standInsOf = (food: readonly StationFood[]): string[] => [
  ...new Set(
    food.flatMap(({ station, foods, without }) => [
      ...foods.filter(({ written, food: now }) => now !== written).map((each) => keyOf(station, each)),
      ...without.map(({ dish, written }) => `${station} ${dish}: without ${written}`),
    ]),
  ),
];

/**
 * A plan that says at each task what its station has instead: for what somebody there must avoid, or because it is not there today.
 * Said anew of every task that uses such a food; minutes change with what is new.
 *
 * @param uses foods that a task uses, by its id
 * @example
 * // Station 2 has oat drink instead of milk, which takes 3 minutes longer to thicken:
 * withSwaps(plan, food, uses).tasks[4] //=> { …, text: 'Stir in the milk.', notes: 'Oat drink instead of milk.', off: 8 }
 */
export function withSwaps(
  plan: ClassPlan,
  food: readonly StationFood[],
  uses: ReadonlyMap<string, readonly string[]>,
): ClassPlan {
  const known = new Set(plan.standIns);
  const longer = new Set<string>();
  const tasks = plan.tasks.map((task) => {
    const own = uses.get(task.id) ?? [];
    const here = food.filter(({ station }) => task.station === null || station === task.station);
    const foods = here.flatMap(({ station, foods: all }) =>
      all.filter(({ dish }) => dish === task.dish).map((each) => ({ ...each, key: keyOf(station, each) })),
    );
    const others = foods.filter(({ written, food: now }) => now !== written && own.includes(written));
    const left = here.flatMap(({ without }) =>
      without.filter(({ dish, written }) => dish === task.dish && own.includes(written)),
    );
    const notes = [
      ...others.map(({ food: now, written, step, minutes, key }) => ({
        say: `${now} instead of ${written}`,
        written,
        step,
        // What took longer before takes as long now.
        minutes: known.has(key) ? 0 : minutes,
      })),
      ...left.map(({ written }) => ({ say: `without ${written}`, written, step: '', minutes: 0 })),
    ];
    const once = [...new Map(notes.map((note) => [note.written, note])).values()];
    // Its minutes count once at a station, at the first task that uses it.
    const countedAs = (written: string) => `${task.station} ${task.dish} ${written}`;
    const more = once.reduce((sum, { minutes, written }) => (longer.has(countedAs(written)) ? sum : sum + minutes), 0);
    for (const { written } of once) longer.add(countedAs(written));
    const say = [...new Set(once.map((note) => note.say))].join(', ');
    const words = say && `${say.charAt(0).toUpperCase()}${say.slice(1)}.`;
    const steps = [...new Set(once.map(({ step }) => step).filter(Boolean))].join(' ');
    const grown = task.off > 0 ? { off: Math.max(0, task.off + more) } : { on: Math.max(1, task.on + more) };
    return { ...task, notes: [words, steps].filter(Boolean).join(' '), ...(more === 0 ? {} : grown) };
  });
  return { ...plan, tasks, standIns: standInsOf(food) };
}
