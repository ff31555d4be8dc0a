import type { EquipmentCounts } from '../../plan/place';
import { AROUND_COOKING } from '../../recipes/choosing/fit';
import type { Heat, PlannedStep, Tool } from '../../recipes/steps/step-plan';
import type { Pair, RunSheetCase, RunTask } from './sheet-case';

/** A dish as a class cooks it: all together, in one kitchen. */
export interface ClassDish {
  readonly id: string;
  readonly title: string;
  readonly steps: readonly PlannedStep[];
  /** How many times the recipe is made, above 0. */
  readonly times: number;
}

/** Who is at work, and what there is. */
export interface ClassRoom {
  /** Ages of the children, where they are known; others count as the youngest that is known. */
  readonly ages: readonly (number | null)[];
  readonly adults: number;
  /** What the place counts; what is left out is there for everybody. */
  readonly equipment: EquipmentCounts;
  readonly isFire: boolean;
  /** Minutes of the class, hygiene, eating and cleaning included. */
  readonly minutes: number;
}

/** Where nobody knows an age: as the younger of a primary school. */
const USUAL_AGE = 7;
const ADULT_AGE = 18;
/** So many parts at most of what several do side by side. */
const MOST_PARTS = 8;
/** What is not counted is there for everybody. */
const PLENTY = 99;

const COUNTED: Readonly<Partial<Record<Tool, keyof EquipmentCounts>>> = {
  knife: 'knives',
  board: 'boards',
  pan: 'pans',
  pot: 'pans',
  blender: 'blenders',
};
const HEAT_COUNTS: Readonly<Partial<Record<Heat, keyof EquipmentCounts>>> = {
  hob: 'burners',
  oven: 'shelves',
  grill: 'ovens',
  kettle: 'appliances',
  microwave: 'appliances',
  fire: 'burners',
};

/** A task of a class with the step it is of. */
export interface ClassTask extends RunTask {
  readonly title: string;
  readonly text: string;
  /** Which part of a step that several do side by side, from 1, of how many. */
  readonly part?: readonly [number, number];
}

/** Minutes that are left for cooking. */
export const cookingMinutes = (minutes: number): number =>
  Math.max(0, minutes - AROUND_COOKING.hygiene - AROUND_COOKING.eating - AROUND_COOKING.cleaning);

/** Children in twos, next to each other in age, each pair as old as its younger; and each adult by themselves. */
export function pairsOf(ages: readonly (number | null)[], adults: number): Pair[] {
  const known = ages.filter((age): age is number => age !== null);
  const youngest = known.length > 0 ? Math.min(...known) : USUAL_AGE;
  const sorted = ages.map((age) => age ?? youngest).sort((a, b) => a - b);
  const pairs: Pair[] = [];
  for (let at = 0; at < sorted.length; at += 2) {
    const own = sorted.slice(at, at + 2);
    const [age = youngest, older = age] = own;
    const years = own.length === 1 ? `age ${age}` : age === older ? `both ${age}` : `${age} and ${older}`;
    pairs.push({ id: `${own.length === 1 ? 'child' : 'pair'} ${pairs.length + 1} (${years})`, age });
  }
  return [...pairs, ...Array.from({ length: adults }, (_, at) => ({ id: `adult ${at + 1}`, age: ADULT_AGE }))];
}

/**
 * Everything a class does at its dishes, as a case. What hands alone do is done side by side, as often as the recipe is made; what
 * is on the heat is one pot. Done ahead is not in it.
 */
export function classCase(dishes: readonly ClassDish[], room: ClassRoom): { given: RunSheetCase; tasks: ClassTask[] } {
  const hands = pairsOf(room.ages, room.adults);
  const many = Math.max(1, Math.min(MOST_PARTS, hands.length - room.adults));
  const tasks = dishes.flatMap(({ id, title, steps, times }): ClassTask[] => {
    const partsOf = ({ heat, handsOn, fromAge }: PlannedStep) =>
      heat === 'none' && handsOn > 0 && fromAge < ADULT_AGE ? Math.max(1, Math.min(many, Math.ceil(times))) : 1;
    const idsOf = (at: number): string[] => {
      const step = steps[at];
      if (!step || step.ahead) return [];
      const parts = partsOf(step);
      return Array.from({ length: parts }, (_, part) => `${id} ${at + 1}${parts > 1 ? `.${part + 1}` : ''}`);
    };
    return steps.flatMap((step, at) => {
      const own = idsOf(at);
      const isHot = step.heat !== 'none' && step.heat !== undefined;
      const each = own.length > 1 ? Math.max(1, Math.ceil((step.handsOn * times) / own.length)) : step.handsOn;
      const celsius = isHot && step.heat === 'oven' ? celsiusIn(step.text) : undefined;
      return own.map(
        (key, part): ClassTask => ({
          id: key,
          title,
          text: step.text,
          dish: id,
          on: each,
          off: step.handsOff,
          age: step.fromAge,
          after: step.after.flatMap(idsOf),
          ...(isHot ? { heat: step.heat } : {}),
          ...(celsius === undefined ? {} : { celsius }),
          ...(step.tools.length > 0 ? { tools: step.tools } : {}),
          ...(step.mayWait === null ? {} : { wait: step.mayWait }),
          ...(own.length > 1 ? { part: [part + 1, own.length] as const } : {}),
        }),
      );
    });
  });
  const tools = new Set(tasks.flatMap((task) => task.tools ?? []));
  const heats = new Set(tasks.flatMap((task) => task.heat ?? []));
  const count = (kind: keyof EquipmentCounts | undefined) => (kind && room.equipment[kind]) ?? PLENTY;
  return {
    tasks,
    given: {
      hands,
      heat: Object.fromEntries([...heats].map((heat) => [heat, count(HEAT_COUNTS[heat as Heat])])),
      tools: Object.fromEntries([...tools].map((tool) => [tool, count(COUNTED[tool as Tool])])),
      tasks: tasks.map(({ title: _, text: __, part: ___, ...task }) => task),
    },
  };
}

/** The oven's degrees in °C, as a step says them. */
function celsiusIn(text: string): number | undefined {
  const [, value = '', scale = ''] = /(\d{2,3})\s?°\s?([CF])/.exec(text) ?? [];
  if (!value) return undefined;
  return scale === 'F' ? Math.round(((Number(value) - 32) * 5) / 9) : Number(value);
}

/** One change that may make a class fit: a title, and the class with it. */
export interface ClassChange {
  readonly say: string;
  readonly dishes: readonly ClassDish[];
  readonly room: ClassRoom;
}

/**
 * Small changes to try where a class does not fit: a pair more, an adult more, a step done ahead, a dish finished by a swap-in, a dish
 * less. The smallest first.
 */
export function changesToTry(dishes: readonly ClassDish[], room: ClassRoom): ClassChange[] {
  const eldest = Math.max(USUAL_AGE, ...room.ages.map((age) => age ?? 0));
  const longest = dishes
    .flatMap((dish) =>
      dish.steps.flatMap((step, at) => (step.ahead ? [] : [{ dish, at, step, minutes: step.handsOff + step.handsOn }])),
    )
    .sort((a, b) => b.minutes - a.minutes)
    .slice(0, 3);
  const ahead = (dish: ClassDish, at: number) => ({
    ...dish,
    steps: dish.steps.map((step, n) => (n === at ? { ...step, ahead: true } : step)),
  });
  const swapped = (dish: ClassDish) => ({
    ...dish,
    steps: dish.steps.map((step) => (step.handsOff > 10 ? { ...step, handsOff: 0 } : step)),
  });
  const instead = (dish: ClassDish, other: ClassDish) => dishes.map((each) => (each === dish ? other : each));
  return [
    { say: 'with a pair of hands more', dishes, room: { ...room, ages: [...room.ages, eldest, eldest] } },
    { say: 'with an adult more', dishes, room: { ...room, adults: room.adults + 1 } },
    ...longest
      .filter(({ step }) => step.after.length === 0)
      .map(({ dish, at, step }) => ({
        say: `with this done ahead: “${step.text.slice(0, 80)}”`,
        dishes: instead(dish, ahead(dish, at)),
        room,
      })),
    ...dishes
      .filter(({ steps }) => steps.some(({ handsOff, ahead: isAhead }) => handsOff > 10 && !isAhead))
      .map((dish) => ({
        say: `with a swap-in of ${dish.title}: begun in class, eaten from one made earlier`,
        dishes: instead(dish, swapped(dish)),
        room,
      })),
    ...(dishes.length > 1
      ? dishes.map((dish) => ({ say: `without ${dish.title}`, dishes: dishes.filter((each) => each !== dish), room }))
      : []),
  ];
}
