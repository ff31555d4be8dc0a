import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { z } from 'zod';
import { LONGEST_PASSWORD, SHORTEST_PASSWORD, STRONG_ENOUGH, strengthOf } from '@/contracts/password';
import { ServiceError } from '../errors';
import { type Keyed, passwordKey } from '../gate/keys';

/** Stands before hashes that the deployment's key went into; earlier ones have none. */
const KEYED = 'k1:';

/** argon2id with the package's parameters (19 MiB, 2 passes), as OWASP advises, and with the deployment's key. */
export const hashPassword = async (from: Keyed, password: string): Promise<string> =>
  `${KEYED}${await hash(password, { secret: passwordKey(from) })}`;

/** Whether a hash was made before keys went into them: it is made anew when its owner signs in. */
export const isOldHash = (passwordHash: string): boolean => !passwordHash.startsWith(KEYED);

/** A password people choose: long rather than odd, as NIST SP 800-63B and OWASP ASVS 2.1 advise. */
export const newPassword = z
  .string()
  .min(
    SHORTEST_PASSWORD,
    `At least ${SHORTEST_PASSWORD} characters: a few words are easy to remember and hard to guess.`,
  )
  .max(LONGEST_PASSWORD, `At most ${LONGEST_PASSWORD} characters.`);

/**
 * Refuses a password that is among the common ones, or is guessed as easily.
 *
 * @param about words that others know of the one who chooses it: name, e-mail
 * @throws ServiceError at the field
 */
export async function refuseCommon(password: string, about: readonly string[]): Promise<void> {
  if ((await strengthOf(password, about)) >= STRONG_ENOUGH) return;
  const message =
    'This is among the passwords that are guessed first, or close to one. Three or four words that do not belong together are better.';
  throw new ServiceError('invalid', message, [{ where: 'password', message }]);
}

let nobody: Promise<string> | undefined;

/**
 * Whether a password fits a hash. Without a hash it takes as long and says no, so that an unknown e-mail is not told
 * apart by time.
 */
export async function passwordFits(from: Keyed, passwordHash: string | undefined, password: string): Promise<boolean> {
  nobody ??= hashPassword(from, randomUUID());
  const hash = passwordHash ?? (await nobody);
  // A hash that is none, such as that of a removed member, fits nothing.
  const fits = hash.startsWith(KEYED)
    ? verify(hash.slice(KEYED.length), password, { secret: passwordKey(from) })
    : verify(hash, password);
  return (await fits.catch(() => false)) && passwordHash !== undefined;
}

/** A secret for a token or a device: 256 bits, safe in an address. */
export const newSecret = (): string => randomBytes(32).toString('base64url');

/** How secrets are kept: never as they are. */
export const hashSecret = (secret: string): string => createHash('sha256').update(secret).digest('hex');
