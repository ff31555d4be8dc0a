/** How a session is given. */
export const MODES = ['in person', 'take-home', 'live online', 'follow-later', 'demonstration'] as const;

export type Mode = (typeof MODES)[number];
