/** How a session is given. */
export const MODES = ['in person', 'take-home', 'live online', 'follow-later', 'demonstration'] as const;

export type Mode = (typeof MODES)[number];

/**
 * Whether families cook at home with what they have there.
 *
 * @example
 * isHomeKit('take-home') //=> true
 * isHomeKit('in person') //=> false
 */
export const isHomeKit = (mode: Mode): boolean =>
  mode === 'take-home' || mode === 'live online' || mode === 'follow-later';
