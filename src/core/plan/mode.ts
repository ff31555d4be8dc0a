/** How a session is given. */
export const MODES = ['in person', 'take-home', 'live online', 'follow-later', 'demonstration'] as const;

export type Mode = (typeof MODES)[number];

/** Each mode in one sentence, for whoever does not know it by its name. */
export const MODE_SAYS: Readonly<Record<Mode, string>> = {
  'in person': 'everybody cooks in one room',
  'take-home': 'a kit is fetched, and cooked at home',
  'live online': 'kits are at the doors first, families cook along on camera',
  'follow-later': 'the lesson comes first, the kit after it, cooked by a given day',
  demonstration: 'one cooks, the others watch',
};

/**
 * Whether families cook at home with what they have there.
 *
 * @example
 * isHomeKit('take-home') //=> true
 * isHomeKit('in person') //=> false
 */
export const isHomeKit = (mode: Mode): boolean =>
  mode === 'take-home' || mode === 'live online' || mode === 'follow-later';
