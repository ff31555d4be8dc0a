/** What is said of a motion on a prep day. */
export const PREP_ACTIONS = ['begun', 'done', 'undone'] as const;
export type PrepAction = (typeof PREP_ACTIONS)[number];
