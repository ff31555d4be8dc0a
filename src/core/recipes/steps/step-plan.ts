/** What a step is cooked over or in. */
export const HEATS = ['none', 'hob', 'oven', 'grill', 'kettle', 'microwave', 'fire'] as const;
export type Heat = (typeof HEATS)[number];

/** Tools that are counted at a place or at home. */
export const TOOLS = [
  'knife',
  'board',
  'peeler',
  'grater',
  'bowl',
  'whisk',
  'sieve',
  'pan',
  'pot',
  'tray',
  'rolling pin',
  'blender',
  'thermometer',
] as const;
export type Tool = (typeof TOOLS)[number];

/** From what age somebody does it, with an adult in the room; 18 is an adult. */
export const ADULT = 18;

/** A step as it can be planned. */
export interface StepPlan {
  /** Minutes in which somebody's hands are on it, and minutes in which it goes on alone. */
  readonly handsOn: number;
  readonly handsOff: number;
  readonly heat: Heat;
  readonly tools: readonly Tool[];
  /** Least age of who does it. */
  readonly fromAge: number;
  /** Places of the steps that must be done before, from 0. */
  readonly after: readonly number[];
  /** Minutes that what it makes may wait; null when it keeps. */
  readonly mayWait: number | null;
  /** When it is done, by temperature or by eye; '' when the text does not say. */
  readonly done: string;
  /** What is used up: foil, paper, gloves. */
  readonly consumables: readonly string[];
  /** Done before the class, as an ahead job: soaking, thawing, what stands overnight. It takes no minute of the class. */
  readonly ahead: boolean;
  /** Added or done at the last minute: it travels and waits apart. */
  readonly lastMinute: boolean;
  /** Servings that the pan, tray or blender holds at once; null where it holds any number. */
  readonly batchServings: number | null;
}

/** A step whose plan a person settled: kept with its words, and naming the steps before it by theirs. */
export interface SettledStep extends Omit<StepPlan, 'after'> {
  readonly text: string;
  readonly after: readonly string[];
}

/** A step as it is understood. */
export interface PlannedStep extends StepPlan {
  readonly text: string;
  /** Foods of the recipe that it uses, by name. */
  readonly uses: readonly string[];
  /** Nobody has settled it: its minutes are read from the text, or taken for what such a step usually needs. */
  readonly isRead: boolean;
  /** The text names no minutes: they are an estimate. */
  readonly estimated: boolean;
}

/**
 * Steps as they are when so many servings are made: what holds fewer at once is done in turns, by hand and alone.
 *
 * @param servings made at one place to cook, > 0
 */
export const inBatches = <S extends Pick<StepPlan, 'handsOn' | 'handsOff' | 'batchServings'>>(
  steps: readonly S[],
  servings: number,
): S[] =>
  steps.map((step) => {
    const turns = step.batchServings ? Math.ceil(servings / step.batchServings) : 1;
    return turns === 1 ? step : { ...step, handsOn: step.handsOn * turns, handsOff: step.handsOff * turns };
  });

/** "While the rice simmers, …" */
export const WHILE = /^(?:while|as) (?:the|it|they|that|this)\b[^,.;]*,\s*/i;
