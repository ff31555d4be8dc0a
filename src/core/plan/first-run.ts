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

/** How much there is of each. */
export interface SetUpCounts {
  readonly country: string;
  readonly places: number;
  readonly closures: number;
  readonly courses: number;
  readonly sessions: number;
  readonly recipes: number;
  readonly people: number;
  readonly locked: number;
}

export interface StepNow {
  readonly step: FirstStep;
  readonly state: 'done' | 'left out' | 'open';
  /** What has to be there before it can be done; '' where nothing is missing. */
  readonly waitsFor: string;
}

const DONE: Readonly<Record<FirstStep, (counts: SetUpCounts) => boolean>> = {
  country: ({ country }) => country !== '',
  place: ({ places }) => places > 0,
  closures: ({ closures }) => closures > 0,
  course: ({ courses }) => courses > 0,
  sessions: ({ sessions }) => sessions > 0,
  recipes: ({ recipes }) => recipes > 0,
  roll: ({ people }) => people > 0,
  kits: ({ locked }) => locked > 0,
};

/** Only what cannot be done otherwise: everything else goes in any order. */
const WAITS: Partial<Readonly<Record<FirstStep, (counts: SetUpCounts) => string>>> = {
  sessions: ({ courses }) => (courses > 0 ? '' : 'a course'),
  roll: ({ courses }) => (courses > 0 ? '' : 'a course'),
  kits: ({ sessions, recipes, people }) =>
    [sessions === 0 && 'a session', recipes === 0 && 'a recipe', people === 0 && 'people on the roll']
      .filter(Boolean)
      .join(' and '),
};

/**
 * How far setting up has come.
 *
 * @returns every step in order; none where the first kit sheet is locked, or everything was left out
 * @example
 * stepsNow({ country: 'GB', places: 0, closures: 0, courses: 0, sessions: 0, recipes: 0, people: 0, locked: 0 }, {})[4] //=> { step: 'sessions', state: 'open', waitsFor: 'a course' }
 */
export function stepsNow(counts: SetUpCounts, { skipped = [] }: FirstRun): StepNow[] {
  return FIRST_STEPS.map((step) => ({
    step,
    state: DONE[step](counts) ? 'done' : skipped.includes(step) ? 'left out' : 'open',
    waitsFor: DONE[step](counts) ? '' : (WAITS[step]?.(counts) ?? ''),
  }));
}
