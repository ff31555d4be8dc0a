/** The ten stages of a session, in working order. */
export const STAGES = [
  'plan',
  'recipes',
  'roll',
  'kits',
  'buying',
  'crew',
  'packing',
  'handout',
  'classday',
  'closeout',
] as const;

export type Stage = (typeof STAGES)[number];

export const STAGE_TITLES: Readonly<Record<Stage, string>> = {
  plan: 'Plan',
  recipes: 'Dishes',
  roll: 'Roll',
  kits: 'Kits',
  buying: 'Buy',
  crew: 'Crew',
  packing: 'Pack',
  handout: 'Hand out',
  classday: 'Class',
  closeout: 'Close out',
};
