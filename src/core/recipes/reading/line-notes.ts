// What a person says of the words that a line is asked about: they say how its food comes, or are a food of their own.

/**
 * The words that a question quotes because nothing is known of them; undefined for any other question.
 *
 * @example quotedIn('“tatashe”: is that another food, or how it comes? …') //=> 'tatashe'
 */
export const quotedIn = (question: string): string | undefined => /^“(.+?)”: is that another food/.exec(question)?.[1];

/**
 * A line without words that stand in it.
 *
 * @example withoutQuoted('2 red peppers (tatashe), sliced', 'tatashe') //=> '2 red peppers, sliced'
 * @returns undefined where they do not stand in it as they are quoted
 */
export function withoutQuoted(text: string, words: string): string | undefined {
  const pattern = words
    .split(/\s+/)
    .map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
    .join('[^\\p{L}\\p{N}]+');
  const found = new RegExp(`(?<![\\p{L}\\p{N}])${pattern}(?![\\p{L}\\p{N}])`, 'iu').exec(text);
  if (!found) return undefined;
  return `${text.slice(0, found.index)} ${text.slice(found.index + found[0].length)}`
    .replace(/\(\s*\)/g, ' ')
    .replace(/\s+/g, ' ')
    .replace(/ (?=[,;.)])/g, '')
    .replace(/([,;])(?:\s*[,;])+/g, '$1')
    .replace(/^[\s,;]+|[\s,;]+$/g, '');
}

/**
 * A line whose words say how its food comes: kept as a note, which the reader passes unless it names a food.
 *
 * @example asNote('2 red peppers (tatashe), sliced', 'tatashe') //=> '2 red peppers, sliced (note: tatashe)'
 */
export function asNote(text: string, words: string): string | undefined {
  const rest = withoutQuoted(text, words);
  return rest === undefined ? undefined : `${rest} (note: ${words})`;
}

/**
 * Words of a line as a line of their own.
 *
 * @example asOwnLine('plus extra almonds to top') //=> 'almonds to top'
 */
export const asOwnLine = (words: string): string =>
  words.replace(/^(?:plus|and|with|also|\+|&)\s+(?:(?:some|a (?:few|little)|extra|more)\s+)*/i, '');
