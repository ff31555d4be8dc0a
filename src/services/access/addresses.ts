/** Characters of an address, at most (RFC 5321 allows 254; the table holds these). */
const LONGEST_ADDRESS = 190;

/**
 * An e-mail address as members are looked up by it: without spaces around it, the letters A to Z small, everything else as
 * it is. Look-alikes (ä for a, the Kelvin sign for k) stay what they are, and are not the member's.
 *
 * @example addressOf(' Robin@Example.org ') //=> 'robin@example.org'
 * @example addressOf('robin@exämple.org') //=> 'robin@exämple.org'
 */
export const addressOf = (typed: string): string =>
  typed
    .trim()
    .replace(/[A-Z]/g, (letter) => letter.toLowerCase())
    .slice(0, LONGEST_ADDRESS);
