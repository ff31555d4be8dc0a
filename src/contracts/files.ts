/** The largest file taken in, in bytes: far above any roll or recipe, far below what would slow the server. */
export const LARGEST_FILE = 2 * 1024 * 1024;
