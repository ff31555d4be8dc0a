/** A sign-in ends when it was not used for so many minutes (OWASP ASVS 3.3.2, level 2). */
export const MINUTES_IDLE = 30;

/** That it is used is written at most this often, in minutes: `seen_at` may lie so far behind. */
export const SEEN_EVERY_MINUTES = 3;
