import type { PlannedStep } from './step-plan';

/** What is done before a class or a packing, in the words of its step. */
export const AHEAD_KINDS = ['soak', 'marinate', 'thaw', 'freeze', 'chill', 'cook', 'other'] as const;
export type AheadKind = (typeof AHEAD_KINDS)[number];

/** Something that is made ready ahead: hands for a while, then it stands by itself. */
export interface AheadTask {
  readonly kind: AheadKind;
  readonly text: string;
  /** Minutes of hands, and minutes for which it stands at the least. */
  readonly hands: number;
  readonly alone: number;
  /** Minutes for which it may stand at the most; null where it keeps as any food does. */
  readonly most: number | null;
}

const KIND_WORDS: readonly (readonly [AheadKind, RegExp])[] = [
  ['soak', /\bsoak/i],
  ['marinate', /\bmarinat|\bmarinad/i],
  ['thaw', /\bthaw|\bdefrost/i],
  ['freeze', /\bfreez/i],
  ['cook', /\b(?:cook|boil|bake|roast|simmer|steam|fry|blanch|parboil)/i],
  ['chill', /\bchill|\brefrigerat|\bfridge|\bset\b/i],
];

/** Longest in a marinade: acid makes fish mealy within half an hour; meat a day, in the fridge (usual kitchen practice). */
const FISH_MINUTES = 30;
const MEAT_MINUTES = 24 * 60;

const FISH = /\b(?:fish|salmon|tuna|cod|haddock|mackerel|prawns?|shrimps?|squid|scallops?|seafood)\b/i;

/** The steps that are done ahead, each as a task. */
export function aheadTasks(steps: readonly PlannedStep[]): AheadTask[] {
  return steps
    .filter(({ ahead }) => ahead)
    .map(({ text, handsOn, handsOff, uses }) => {
      const kind = KIND_WORDS.find(([, words]) => words.test(text))?.[0] ?? 'other';
      const most =
        kind === 'marinate' ? ([text, ...uses].some((words) => FISH.test(words)) ? FISH_MINUTES : MEAT_MINUTES) : null;
      return { kind, text, hands: handsOn, alone: handsOff, most };
    });
}

/** What is made ahead for a session, all dishes together. */
export interface Ahead {
  /** "Soak the beans; marinate the chicken", short. */
  readonly title: string;
  readonly hands: number;
  /** As long as what stands longest. */
  readonly alone: number;
  /** The shortest of what may not stand longer; null where all of it may. */
  readonly most: number | null;
}

const VERBS: Readonly<Record<AheadKind, string>> = {
  soak: 'soak',
  marinate: 'marinate',
  thaw: 'thaw',
  freeze: 'freeze',
  chill: 'chill',
  cook: 'cook ahead',
  other: 'make ready',
};

/**
 * What is made ahead for a session's dishes; undefined where nothing is.
 *
 * @example
 * aheadOf([{ dish: 'Stew', tasks: [{ kind: 'soak', text: 'Soak the beans.', hands: 3, alone: 720, most: null }] }])
 * //=> { title: 'Soak: Stew', hands: 3, alone: 720, most: null }
 */
export function aheadOf(
  dishes: readonly { readonly dish: string; readonly tasks: readonly AheadTask[] }[],
): Ahead | undefined {
  const all = dishes.flatMap(({ tasks }) => tasks);
  if (all.length === 0) return undefined;
  const parts = dishes
    .filter(({ tasks }) => tasks.length > 0)
    .map(({ dish, tasks }) => `${[...new Set(tasks.map(({ kind }) => VERBS[kind]))].join(', ')}: ${dish}`);
  const text = parts.join('; ');
  const limits = all.flatMap(({ most }) => (most === null ? [] : [most]));
  return {
    title: `${text[0]?.toUpperCase()}${text.slice(1)}`,
    hands: all.reduce((sum, { hands }) => sum + hands, 0),
    alone: Math.max(...all.map(({ alone }) => alone)),
    most: limits.length > 0 ? Math.min(...limits) : null,
  };
}
