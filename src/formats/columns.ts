/**
 * The letters of a column in a workbook: 1 is A, 27 is AA.
 *
 * @param column from 1
 * @example
 * lettersOf(28) //=> 'AB'
 */
export const lettersOf = (column: number): string =>
  (column > 26 ? lettersOf(Math.floor((column - 1) / 26)) : '') + String.fromCharCode(65 + ((column - 1) % 26));
