/** Letters of a password, at least and at most. */
export const SHORTEST_PASSWORD = 12;
export const LONGEST_PASSWORD = 128;

/** How hard a password is to guess: 0 at once, 1 soon, 2 with patience, 3 hardly, 4 not. */
export type Strength = 0 | 1 | 2 | 3 | 4;

/** Below this a password is refused. */
export const STRONG_ENOUGH: Strength = 3;

let judge: Promise<{ check(password: string, about: string[]): { score: number } }> | undefined;

/**
 * How hard a password is to guess, by the lists of common ones that ship with the package (over 40,000), words of the
 * one who chooses it, keyboard rows, repeats, dates and the usual swaps of letters. There are no rules of which letters it
 * must hold. Loaded when it is first asked for; the same in the browser (the meter) and on the server (the rule).
 *
 * @param about words that others know of them: name, e-mail
 * @example await strengthOf('Password1234', []) //=> 1
 * @example await strengthOf('tide and thyme', []) //=> 4
 */
export async function strengthOf(password: string, about: readonly string[]): Promise<Strength> {
  judge ??= Promise.all([import('@zxcvbn-ts/core'), import('@zxcvbn-ts/language-common')]).then(
    ([{ ZxcvbnFactory }, { adjacencyGraphs, dictionary }]) =>
      new ZxcvbnFactory({ dictionary: { ...dictionary }, graphs: adjacencyGraphs }),
  );
  const words = about.flatMap((text) => [text, ...text.split(/[\s@.]+/)]).filter((word) => word.length > 2);
  // What is left when the words that others know are taken out has to be a password by itself.
  const rest = ['logistra', ...words].reduce(
    (left, word) => left.replaceAll(word.toLowerCase(), ''),
    password.toLowerCase(),
  );
  if (rest.replace(/[^\p{L}\p{N}]/gu, '').length < 6) return 0;
  // What lies past this length only makes it harder, and longer to judge.
  return (await judge).check(password.slice(0, 64), ['logistra', ...words]).score as Strength;
}
