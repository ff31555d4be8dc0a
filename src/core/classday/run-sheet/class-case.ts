import type { EquipmentCounts } from '../../plan/place';
import type { Heat, PlannedStep, Tool } from '../../recipes/steps/step-plan';
import type { Pair, RunSheetCase, RunTask } from './sheet-case';
import { adultsOf, nameOfStation, pairsOf, type Station, stationsOf, USUAL_AGE } from './stations';

/** A dish as a class cooks it. */
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
  /** Minutes that are left for cooking. */
  readonly cooking: number;
}

const ADULT_AGE = 18;
/** So many stations at most, where a place does not count them: a pair or more at each. */
const MOST_STATIONS = 8;
/** Nobody is called to a task for less, in minutes: fewer stations do it then. */
const LEAST_MINUTES = 2;
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
  /** From 1; null where an adult does it. */
  readonly station: number | null;
  /** Foods of the recipe that it uses. */
  readonly uses: readonly string[];
  /** Place of its step in the dish, from 0. */
  readonly step: number;
  /** Which part of a step that several do side by side, from 1, of how many. */
  readonly part?: readonly [number, number];
}

/** A class as a case, with who stands where. */
export interface ClassCase {
  readonly given: RunSheetCase;
  readonly tasks: readonly ClassTask[];
  readonly stations: readonly Station[];
  readonly adults: readonly Pair[];
}

/** What a place counts of a tool or a heat; undefined where it is not counted. */
export const countedOf = (equipment: EquipmentCounts, of: string): number | undefined => {
  const kind = COUNTED[of as Tool] ?? HEAT_COUNTS[of as Heat];
  return kind && equipment[kind];
};

const isHot = ({ heat }: PlannedStep): boolean => heat !== 'none' && heat !== undefined;

/** Minutes of hands on each part of a step: what hands alone do grows with what is made; a pot is stirred as long. */
function minutesEach(step: PlannedStep, times: number, where: readonly (number | null)[]): number {
  if (isHot(step) || step.handsOn === 0 || where[0] === null) return step.handsOn;
  return Math.max(1, Math.ceil((step.handsOn * times) / where.length));
}

/**
 * Everything a class does at its dishes, as a case. What hands alone do is shared among the stations, as often as the recipe is made;
 * what is on the heat is a pot at each station where there is a heat for each, and else one pot for all, kept by one station. What no
 * child of a station is old enough for is done by an adult. Done ahead is not in it.
 */
export function classCase(dishes: readonly ClassDish[], room: ClassRoom): ClassCase {
  const stations = stationsOf(pairsOf(room.ages), room.equipment.stations ?? MOST_STATIONS);
  const adults = adultsOf(room.adults);
  const oldest = new Map(stations.map(({ number, pairs }) => [number, Math.max(-1, ...pairs.map(({ age }) => age))]));
  /** Minutes of hands that each station has so far. */
  const busy = new Map(stations.map(({ number }) => [number, 0]));
  const count = (of: string) => countedOf(room.equipment, of) ?? PLENTY;

  /** Where each step of a dish is done: at stations, by an adult (null), or not in the class. */
  function placesOf({ steps, times }: ClassDish): (number | null)[][] {
    const places: (number | null)[][] = [];
    for (const step of steps) {
      const able = stations.flatMap(({ number }) => ((oldest.get(number) ?? -1) >= step.fromAge ? [number] : []));
      const freest = [...able].sort((a, b) => (busy.get(a) ?? 0) - (busy.get(b) ?? 0) || a - b);
      const heatForEach = able.length === stations.length && count(step.heat) >= stations.length;
      // Whoever began something goes on with it.
      const goesOn = step.after.some((n) => stations.length > 1 && places[n]?.length === stations.length);
      const shares = isHot(step)
        ? heatForEach
          ? stations.length
          : 1
        : goesOn
          ? stations.length
          : Math.max(1, Math.floor((step.handsOn * times) / LEAST_MINUTES));
      const own = able.length > 0 ? freest.slice(0, shares).sort((a, b) => a - b) : [null];
      const where = step.ahead ? [] : own;
      places.push(where);
      for (const station of where)
        if (station !== null) busy.set(station, (busy.get(station) ?? 0) + minutesEach(step, times, where));
    }
    return places;
  }

  const tasksOf = (dish: ClassDish): ClassTask[] => {
    const { id, title, steps, times } = dish;
    const places = placesOf(dish);
    const keysOf = (n: number): string[] => {
      const of = places[n]?.length ?? 0;
      return Array.from({ length: of }, (_, part) => `${id} ${n + 1}${of > 1 ? `.${part + 1}` : ''}`);
    };
    return steps.flatMap((step, at): ClassTask[] => {
      const where = places[at] ?? [];
      const after = (station: number | null) =>
        step.after.flatMap((n) => {
          const before = places[n] ?? [];
          const own = before.indexOf(station);
          // Each station goes on with its own, where each has one.
          const isOwn = own >= 0 && before.length === stations.length && where.length === stations.length;
          return isOwn ? keysOf(n).slice(own, own + 1) : keysOf(n);
        });
      const celsius = step.heat === 'oven' ? celsiusIn(step.text) : undefined;
      return where.map(
        (station, part): ClassTask => ({
          id: keysOf(at)[part] ?? '',
          title,
          text: step.text,
          station,
          uses: step.uses,
          step: at,
          dish: id,
          on: minutesEach(step, times, where),
          off: step.handsOff,
          age: station === null ? ADULT_AGE : step.fromAge,
          at: nameOfStation(station),
          after: after(station),
          ...(isHot(step) ? { heat: step.heat } : {}),
          ...(celsius === undefined ? {} : { celsius }),
          ...(step.tools.length > 0 ? { tools: step.tools } : {}),
          ...(step.mayWait === null ? {} : { wait: step.mayWait }),
          ...(where.length > 1 ? { part: [part + 1, where.length] as const } : {}),
        }),
      );
    });
  };

  const tasks = dishes.flatMap(tasksOf);
  const tools = new Set(tasks.flatMap((task) => task.tools ?? []));
  const heats = new Set(tasks.flatMap((task) => task.heat ?? []));
  const counts = (all: ReadonlySet<string>) => Object.fromEntries([...all].map((each) => [each, count(each)]));
  return {
    stations,
    adults,
    tasks,
    given: {
      hands: [
        ...stations.flatMap(({ number, pairs }) =>
          pairs.map(({ id, age }) => ({ id, age, at: nameOfStation(number) })),
        ),
        ...adults,
      ],
      heat: counts(heats),
      tools: counts(tools),
      tasks: tasks.map(({ title: _, text: __, part: ___, station: ____, uses: _____, step: ______, ...task }) => task),
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
