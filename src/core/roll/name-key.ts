/** Letters that are one of their own, not a plain letter with a mark. */
const PLAIN: Readonly<Record<string, string>> = {
  ł: 'l',
  ø: 'o',
  đ: 'd',
  ð: 'd',
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  þ: 'th',
  ı: 'i',
};

/**
 * One form for a name however it is spaced, capitalised or accented.
 *
 * @example
 * nameKey('Łucja  WREN') //=> 'lucja wren'
 */
export const nameKey = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[łøđðßæœþı]/g, (letter) => PLAIN[letter] ?? letter)
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
