import { distance } from 'fastest-levenshtein';

/** One line of a pasted list of names, or of a chat. */
export interface ThereLine {
  /** As it was pasted. */
  readonly said: string;
  /** Ids of whom it names; none where nobody of the roll is meant, or it could be several. */
  readonly ids: readonly string[];
  /** Who it could be, where it could be several. */
  readonly perhaps: readonly string[];
}

interface Person {
  readonly id: string;
  readonly name: string;
}

/** What a line says around a name: the hour, who speaks to whom, a device, a part. */
const AROUND: readonly (readonly [RegExp, string])[] = [
  [/^\s*(?:\d{1,3}[.)]|[-*•])\s+/, ''],
  [/^\s*\d{1,2}[:.]\d{2}(?:[:.]\d{2})?(?:\s*[ap]m)?\s*/i, ''],
  [/^\s*from\s+(.+?)\s+to\s+.*$/i, '$1'],
  [/^([^:]{2,60}):\s.*$/, '$1'],
  [/\s+(?:has\s+)?(?:joined|left|is here|entered)\b.*$/i, ''],
  [/\((?:guest|cohost|co-host|host|me|you|mum|dad|him|her|they|she|he|tablet|phone|ipad|laptop)[^)]*\)/gi, ''],
  [/['’]s\s+\w+\s*$/i, ''],
  [/\s[-–]\s(?:i?pad|i?phone|phone|laptop|tablet|kitchen|guest).*$/i, ''],
  [/^\s*(?:ipad|iphone|phone|laptop|tablet)\s*\((.+)\)\s*$/i, '$1'],
];

const FAMILY = /\b(?:family|household|house|fam)\b/gi;
const AND = /\s*(?:&|\+|,| and )\s*/i;

/** Letters that take no accent apart. */
const LETTERS: Readonly<Record<string, string>> = {
  þ: 'th',
  ð: 'd',
  ø: 'o',
  æ: 'ae',
  œ: 'oe',
  ß: 'ss',
  ł: 'l',
  đ: 'd',
};

const plain = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[þðøæœßłđ]/g, (letter) => LETTERS[letter] ?? letter)
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

/** What households are called beside their name. */
const GENERIC = new Set(['household', 'family', 'house', 'fam']);

const wordsOf = (text: string): string[] => plain(text).split(' ').filter(Boolean);

/** Written otherwise, said alike. */
const heard = (word: string): string => word.replace(/ie$/, 'y').replace(/ph/g, 'f').replace(/ck/g, 'k');

/** Slips of typing that are forgiven: one from four letters on, two from eight. */
const isLike = (said: string, word: string): boolean =>
  said === word ||
  heard(said) === heard(word) ||
  (word.length >= 4 && said.length >= 3 && distance(said, word) <= (word.length >= 8 ? 2 : 1));

/** How well words name somebody, from 0 (not at all) to 4 (to the letter). */
function likeness(said: readonly string[], person: Person): number {
  const all = wordsOf(person.name);
  // "Household Estherby" on the roll is anybody of that name.
  const own = all.filter((word) => !GENERIC.has(word));
  const isHousehold = own.length < all.length && own.length > 0;
  if (said.length === 0 || own.length === 0) return 0;
  if (said.join(' ') === own.join(' ')) return 4;
  if (isHousehold)
    return own.every((word) => said.some((each) => isLike(each, word))) && said.length <= own.length + 1 ? 2 : 0;
  const left = [...own];
  let slips = 0;
  let whole = 0;
  for (const word of said) {
    const exact = left.indexOf(word);
    const like = exact >= 0 ? exact : left.findIndex((each) => isLike(word, each));
    const initial = word.length === 1 ? left.findIndex((each) => each.startsWith(word)) : -1;
    const at = like >= 0 ? like : initial;
    if (at < 0) return 0;
    if (exact < 0 && like >= 0) slips += 1;
    if (like >= 0) whole += 1;
    left.splice(at, 1);
  }
  // A first name alone is a name; with a slip in it, it is somebody else's.
  if (said.length === 1) return slips === 0 && said[0] === own[0] ? 2 : 0;
  return whole === 0 ? 0 : slips === 0 ? 3 : 2.5;
}

/** Who a name means: the best, where one is better than all others. */
function named(said: string, roll: readonly Person[]): { ids: string[]; perhaps: string[] } {
  const words = wordsOf(said).filter((word) => !GENERIC.has(word));
  const scored = roll
    .map((person) => ({ id: person.id, score: likeness(words, person) }))
    .filter(({ score }) => score > 0);
  const best = Math.max(0, ...scored.map(({ score }) => score));
  const top = scored.filter(({ score }) => score === best).map(({ id }) => id);
  return top.length === 1 ? { ids: top, perhaps: [] } : { ids: [], perhaps: top };
}

/** All of a household, by the name it shares. */
function ofFamily(said: string, roll: readonly Person[]): string[] {
  const words = wordsOf(said).filter((word) => word !== 'the');
  if (words.length === 0) return [];
  const surname = (person: Person) => wordsOf(person.name).slice(1);
  return roll
    .filter((person) => {
      const own = surname(person);
      return own.length > 0 && words.every((word) => own.includes(word) || own.includes(word.replace(/s$/, '')));
    })
    .map(({ id }) => id);
}

/**
 * Who is there, from a pasted list of names or a chat: each line with whom of the roll it names, in its own spelling. What could be
 * several is asked about; a stranger is named nobody.
 *
 * @example
 * whoIsThere('Ada F.', [{ id: 'a', name: 'Ada Foxglove' }]) //=> [{ said: 'Ada F.', ids: ['a'], perhaps: [] }]
 */
export function whoIsThere(pasted: string, roll: readonly Person[]): ThereLine[] {
  const seen = new Set<string>();
  return pasted
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter(Boolean)
    .flatMap((line): ThereLine[] => {
      const said = AROUND.reduce((text, [around, name]) => text.replace(around, name), line).trim();
      // A chat names the same again and again.
      if (said === '' || seen.has(plain(said))) return [];
      seen.add(plain(said));
      return [{ said: line, ...meantBy(said, roll) }];
    });
}

function meantBy(said: string, roll: readonly Person[]): { ids: readonly string[]; perhaps: readonly string[] } {
  const isFamily = FAMILY.test(said) || /^the\s/i.test(said);
  FAMILY.lastIndex = 0;
  if (isFamily) {
    const family = ofFamily(said.replace(FAMILY, ' '), roll);
    if (family.length > 0) return { ids: family, perhaps: [] };
  }
  const whole = named(said, roll);
  if (whole.ids.length > 0) return whole;
  const parts = said.split(AND).filter(Boolean);
  if (parts.length < 2) return whole;
  // "Ivy & Iris Rowse": the last brings the name they share.
  const shared = wordsOf(parts.at(-1) ?? '')
    .slice(1)
    .join(' ');
  const found = parts.flatMap((part) => {
    const alone = named(part, roll).ids;
    return alone.length > 0 ? alone : shared ? named(`${part} ${shared}`, roll).ids : [];
  });
  return found.length > 0 ? { ids: [...new Set(found)], perhaps: [] } : whole;
}
