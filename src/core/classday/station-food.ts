import type { SheetInput } from '../kits/record/sheet-content';
import { computeSheet } from '../kits/record/snapshot';
import { itemName, sayPortion } from '../kits/sheet/say-component';
import { AmountError } from '../quantity/rational';
import type { WrittenAlternative, WrittenLine } from '../recipes/recipe/recipe';
import { avoidanceLabel, foodCode, type Need } from '../safety/avoidances';
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
  const { extras: _, versions: __, ...plain } = input;
  const dishes = plain.dishes.map((dish) => ({
    ...dish,
    recipe: { ...dish.recipe, lines: dish.recipe.lines.map((line) => swapped(line, swaps)) },
  }));
  const everybody = [
    ...eaters.flatMap(({ needs }) => needs),
    ...eaters.flatMap(({ station }) => ofToday(swaps, station)),
  ];
  const isShared = (dish: number) => shared.has(plain.dishes[dish]?.id ?? '');
  const byNeeds = (needsOf: (eater: StationEaters) => readonly Need[]) =>
    computed(
      { ...plain, dishes },
      eaters.map((eater) => ({
        id: String(eater.station),
        name: `Station ${eater.station}`,
        servings: eater.servings,
        needs: needsOf(eater),
      })),
    );
  const own = byNeeds(({ needs, station }) => [...needs, ...ofToday(swaps, station)]);
  const all = shared.size > 0 ? byNeeds(() => everybody) : own;
  if ('problem' in own) return own;
  if ('problem' in all) return all;
  const titles = plain.dishes.map(({ title }) => title);
  // What is not there is no need of anybody.
  const missing = new Set(swaps.map(({ food }) => foodCode(food)));
  const variantOf = ({ sheet }: typeof own, station: number) =>
    sheet.variants.find(({ participants }) => participants.some(({ id }) => id === String(station)));
  return {
    stations: eaters.map(({ station }): StationFood => {
      const [mine, common] = [variantOf(own, station), variantOf(all, station)];
      const components = [
        ...(mine?.components ?? []).filter(({ dish }) => !isShared(dish)),
        ...(common?.components ?? []).filter(({ dish }) => isShared(dish)),
      ].filter(({ isInside }) => !isInside);
      const refusals = [
        ...(mine?.refusals ?? []).filter(({ dish }) => !isShared(dish)),
        ...(common?.refusals ?? []).filter(({ dish }) => isShared(dish)),
      ];
      return {
        station,
        foods: components
          .sort((a, b) => a.dish - b.dish || a.line - b.line)
          .map((component) => {
            const { dish, line, item } = component;
            return {
              dish: titles[dish] ?? '',
              written: plain.dishes[dish]?.recipe.lines[line]?.ingredient ?? item.ingredient.name,
              food: item.ingredient.name,
              name: itemName(item),
              say: sayPortion(component, plain.system),
              step: item.step,
              minutes: item.minutes,
            };
          }),
        refusals: refusals.map(({ dish, ingredient, blockedBy }) => ({
          dish: titles[dish] ?? '',
          food: ingredient,
          holds: blockedBy.map(avoidanceLabel),
        })),
        unknown: [...new Set([...(mine?.unknownNeeds ?? []), ...(common?.unknownNeeds ?? [])])],
        madeWithout: [
          ...new Set(
            [...(mine?.avoids ?? []), ...(shared.size > 0 ? (common?.avoids ?? []) : [])]
              .filter((code) => !missing.has(code))
              .map(avoidanceLabel),
          ),
        ],
      };
    }),
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
  const own = swaps.find(({ food, instead }) => food === line.ingredient && instead !== undefined);
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
  return { ...line, alternatives: [other, ...usual.filter((each) => each !== known)] };
}

/**
 * A plan that says at each task what its station has instead: for what somebody there must avoid, or because it is not there today.
 * The words of the tasks that use a food, and their minutes.
 *
 * @param uses foods that a task uses, by its id
 * @param isNew which of what stands in has not been said in these words before
 * @example
 * // Station 2 has oat drink instead of milk, which takes 3 minutes longer to thicken:
 * withSwaps(plan, food, swaps, uses).tasks[4] //=> { …, text: 'Stir in the milk. (Oat drink instead of milk.)', off: 8 }
 */
export function withSwaps(
  plan: ClassPlan,
  food: readonly StationFood[],
  swaps: readonly DaySwap[],
  uses: ReadonlyMap<string, readonly string[]>,
  isNew: (written: string) => boolean = () => true,
): ClassPlan {
  const longer = new Set<string>();
  const tasks = plan.tasks.map((task) => {
    const own = uses.get(task.id) ?? [];
    const here = food.filter(({ station }) => task.station === null || station === task.station);
    const foods = here.flatMap((each) => each.foods.filter(({ dish }) => dish === task.dish));
    const others = foods.filter(({ written, food: now }) => now !== written && own.includes(written) && isNew(written));
    const left = swaps.filter(
      ({ food: missing, station }) =>
        own.includes(missing) &&
        isNew(missing) &&
        (station === null || task.station === null || station === task.station) &&
        !foods.some(({ written }) => written === missing),
    );
    const notes = [
      ...others.map(({ food: now, written, step, minutes }) => ({
        say: `${now} instead of ${written}`,
        written,
        step,
        minutes,
      })),
      ...left.map(({ food: missing }) => ({ say: `without ${missing}`, written: missing, step: '', minutes: 0 })),
    ];
    if (notes.length === 0) return task;
    // Its minutes count once at a station, at the first task that uses it.
    const keyOf = (written: string) => `${task.station} ${task.dish} ${written}`;
    const once = [...new Map(notes.map((note) => [note.written, note])).values()];
    const more = once.reduce((sum, { minutes, written }) => (longer.has(keyOf(written)) ? sum : sum + minutes), 0);
    for (const { written } of once) longer.add(keyOf(written));
    const say = [...new Set(once.map((note) => note.say))].join(', ');
    const words = `${task.text} (${say.charAt(0).toUpperCase()}${say.slice(1)}.)`;
    const steps = [...new Set(once.map(({ step }) => step).filter(Boolean))].join(' ');
    const grown = task.off > 0 ? { off: Math.max(0, task.off + more) } : { on: Math.max(1, task.on + more) };
    return { ...task, text: [words, steps].filter(Boolean).join(' '), ...(more === 0 ? {} : grown) };
  });
  return { ...plan, tasks };
}
