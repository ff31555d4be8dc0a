// Setting a programme up: what it needs before its first kit sheet, in whatever order.

/** What is set up, in the order in which most people do it. */
export const FIRST_STEPS = ['country', 'place', 'closures', 'course', 'sessions', 'recipes', 'roll', 'kits'] as const;
export type FirstStep = (typeof FIRST_STEPS)[number];

/** How far setting up has come, as it is kept. */
export interface FirstRun {
  /** Steps that somebody left out. */
  readonly skipped?: readonly FirstStep[];
  /** What the sample put there. */
  readonly sample?: {
    readonly courses: readonly string[];
    readonly recipes: readonly string[];
    readonly households: readonly string[];
    readonly places: readonly string[];
  };
}

/** Of which steps there is something: 1, or 0. */
export type SetUp = Readonly<Record<FirstStep, number>>;

export interface StepNow {
  readonly step: FirstStep;
  readonly state: 'done' | 'left out' | 'open';
  /** What has to be there before it can be done; '' where nothing is missing. */
  readonly waitsFor: string;
}

/** Only what cannot be done otherwise: everything else goes in any order. */
const WAITS: Partial<Readonly<Record<FirstStep, (has: SetUp) => string>>> = {
  sessions: ({ course }) => (course ? '' : 'a course'),
  roll: ({ course }) => (course ? '' : 'a course'),
  kits: ({ sessions, recipes, roll }) =>
    [!sessions && 'a session', !recipes && 'a recipe', !roll && 'people on the roll'].filter(Boolean).join(' and '),
};

/**
 * How far setting up has come.
 *
 * @returns every step in order
 * @example
 * stepsNow({ country: 1, place: 0, closures: 0, course: 0, sessions: 0, recipes: 0, roll: 0, kits: 0 }, {})[4] //=> { step: 'sessions', state: 'open', waitsFor: 'a course' }
 */
export const stepsNow = (has: SetUp, { skipped = [] }: FirstRun): StepNow[] =>
  FIRST_STEPS.map((step) => ({
    step,
    state: has[step] ? 'done' : skipped.includes(step) ? 'left out' : 'open',
    waitsFor: has[step] ? '' : (WAITS[step]?.(has) ?? ''),
  }));
