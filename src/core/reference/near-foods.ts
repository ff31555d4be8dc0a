// Foods that may be meant by words that name none: a slip of the pen, a letter by ear, words run together or taken apart.

import usual from './facts/usual.json';
import { type FoodIndex, wordKey } from './food-finder';

/** What recipes for groups call for again and again: of two foods that are equally near, the usual one comes first. */
const USUAL: ReadonlySet<string> = new Set(usual);

/** Words less like than this are strangers, from 0 to 1. */
const LEAST_LIKE = 0.55;
/** A name less like than this is not offered, nor one that is so far behind the likeliest. */
const LEAST_NEAR = 0.3;
const LEAST_OF_BEST = 0.6;

/**
 * Foods that may be meant by words that name none.
 *
 * Each word written is held against each word of a name: the more letters agree, as written or as spoken, the nearer; a word that
 * many foods share ("flour") tells less than one of few; words of the name that were not written speak against it.
 *
 * @returns names of the reference table, the likeliest first
 * @example
 * nearFoods('carrott', foodNames(TYPICAL), 1) //=> ['carrot']
 */
export function nearFoods(text: string, index: FoodIndex, most = 5): string[] {
  const words = text
    .split(/[\s,/]+/)
    .map(wordKey)
    .filter((word) => word.length > 2);
  if (words.length === 0) return [];
  const likes = words.map((word) => likenesses(word, index));
  const joined = words.join('');
  const sums = new Map<number, { said: number; missed: number }>();
  const heaviest = likes.map((like) => Math.max(LEAST_WEIGHT, ...[...like.values()].map(({ weight }) => weight)));
  const all = heaviest.reduce((sum, weight) => sum + weight, 0);
  for (const [at, like] of likes.entries()) {
    for (const [place, { score, weight }] of like) {
      const sum = sums.get(place) ?? { said: 0, missed: all };
      sums.set(place, { said: sum.said + score, missed: sum.missed - (heaviest[at] as number) + weight });
    }
  }
  const scores = new Map<string, number>();
  const offer = (name: string, score: number) => {
    const sum = score + (USUAL.has(name) ? 0.06 : 0);
    if (score >= LEAST_NEAR && sum > (scores.get(name) ?? 0)) scores.set(name, sum);
  };
  for (const [place, { said, missed }] of sums) {
    const { name, words: own } = index.entries[place] as FoodIndex['entries'][number];
    offer(name, said / (missed + 0.3 * Math.max(0, own.length - words.length)));
  }
  // "Blue berrys", "cumminseed": words taken apart, or run together.
  for (const { name, words: own } of index.entries) {
    if ((own.length === 1) === (words.length === 1) || Math.abs(own.join('').length - joined.length) > 2) continue;
    const like = likeness(joined, own.join(''));
    if (like > 0.7) offer(name, like);
  }
  const best = Math.max(...scores.values());
  return [...scores]
    .filter(([, score]) => score >= LEAST_OF_BEST * best)
    .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
    .slice(0, most)
    .map(([name]) => name);
}

const LEAST_WEIGHT = 0.3;

/** The entries that hold a word like the one written, with how much it speaks for each. */
function likenesses(word: string, index: FoodIndex): ReadonlyMap<number, { score: number; weight: number }> {
  const best = new Map<number, { score: number; weight: number }>();
  for (const letter of lettersFor(word))
    for (const [other, places] of index.vocabulary.get(letter) ?? []) {
      const like = likeness(word, other);
      if (like === 0) continue;
      // A word of one food says all, one of a hundred a third.
      const weight = Math.max(LEAST_WEIGHT, 1 - Math.log10(places.length) / 3);
      for (const place of places)
        if (like * weight > (best.get(place)?.score ?? 0)) best.set(place, { score: like * weight, weight });
    }
  return best;
}

/** The letters that the word meant may begin with: its own, its second (two changed about), and what sounds the same. */
const lettersFor = (word: string): ReadonlySet<string> => {
  const [first = '', second = ''] = word;
  return new Set([first, second, ...(SAME_SOUND[first] ?? '')]);
};

const SAME_SOUND: Readonly<Record<string, string>> = {
  c: 'ks',
  k: 'cq',
  s: 'cz',
  z: 's',
  f: 'p',
  p: 'f',
  g: 'j',
  j: 'g',
  q: 'k',
  i: 'y',
  y: 'i',
};

/**
 * The word of a food that was meant by one with a letter too few or too many, or two changed about; undefined where none is,
 * or several are. A letter
 * in place of another is asked about: perch is no peach, and mullet no millet.
 *
 * @example meantWord('vanila', foodNames(TYPICAL)) //=> 'vanilla'
 */
export function meantWord(word: string, index: FoodIndex): string | undefined {
  const key = wordKey(word);
  if (key.length < 5) return undefined;
  const near = new Set<string>();
  for (const letter of new Set([key[0], key[1]]))
    for (const other of index.vocabulary.get(letter ?? '')?.keys() ?? []) {
      if (other === key) return undefined;
      const isSlip = Math.abs(other.length - key.length) === 1 || lettersOf(other) === lettersOf(key);
      if (isSlip && other.length >= 5 && editDistance(key, other, 1) <= 1) near.add(other);
    }
  return near.size === 1 ? [...near][0] : undefined;
}

const lettersOf = (word: string) => [...word].sort().join('');

/** Sounds of the words of a table, which are asked for again with every line. */
const sounds = new Map<string, string>();
const MOST_SOUNDS = 20_000;

function heard(word: string): string {
  const known = sounds.get(word);
  if (known !== undefined) return known;
  if (sounds.size > MOST_SOUNDS) sounds.clear();
  const sound = soundOf(word);
  sounds.set(word, sound);
  return sound;
}

/** A word as it is heard: one letter for one sound, nothing doubled, no vowel behind the first letter. */
const soundOf = (word: string): string =>
  word
    .replace(/ph/g, 'f')
    .replace(/ch|sh/g, 'x')
    .replace(/c(?=[eiy])|z/g, 's')
    .replace(/[cqk]+u?/g, 'k')
    .replace(/wh/g, 'w')
    .replace(/(?<=.)[aeiouyhw]/g, '')
    .replace(/(.)\1+/g, '$1');

/** 1 for the same word, less for one whose letters differ or that only sounds the same, 0 for another. */
function likeness(a: string, b: string): number {
  if (a === b) return 1;
  const [short, long] = a.length < b.length ? [a, b] : [b, a];
  if (short.length < 3) return 0;
  // "Choc" for chocolate, "mayo" for mayonnaise.
  const begun = a.length < b.length && long.startsWith(short) ? 0.8 : 0;
  if (long.length - short.length > 3) return begun;
  const limit = Math.ceil(long.length * 0.6);
  const letters = 1 - editDistance(a, b, limit) / long.length;
  const sound = letters > 0.4 && letters < 0.95 && heard(a) === heard(b) ? 0.85 : 0;
  const like = Math.max(begun, sound && (sound + letters) / 2 + 0.1, letters - 0.05);
  return like >= LEAST_LIKE ? like : 0;
}

/** Letters to change, add, take away or swap with their neighbour (Damerau and Levenshtein), up to a limit. */
function editDistance(a: string, b: string, limit: number): number {
  let [before, above] = [[] as number[], Array.from({ length: b.length + 1 }, (_, n) => n)];
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    let least = i;
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1];
      let cost = Math.min(
        (above[j] as number) + 1,
        (row[j - 1] as number) + 1,
        (above[j - 1] as number) + (same ? 0 : 1),
      );
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        cost = Math.min(cost, (before[j - 2] as number) + 1);
      row.push(cost);
      least = Math.min(least, cost);
    }
    if (least > limit) return limit + 1;
    [before, above] = [above, row];
  }
  return above[b.length] as number;
}
