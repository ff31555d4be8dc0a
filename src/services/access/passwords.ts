import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { z } from 'zod';

/** argon2id with the package's parameters (19 MiB, 2 passes), as OWASP advises. */
export const hashPassword = (password: string): Promise<string> => hash(password);

/** A password people choose: long rather than odd, as NIST SP 800-63B advises. */
export const newPassword = z
  .string()
  .min(10, 'At least 10 characters: a few words are easy to remember and hard to guess.')
  .max(200, 'At most 200 characters.');

let nobody: Promise<string> | undefined;

/**
 * Whether a password fits a hash. Without a hash it takes as long and says no, so that an unknown e-mail is not told
 * apart by time.
 */
export async function passwordFits(passwordHash: string | undefined, password: string): Promise<boolean> {
  nobody ??= hash(randomUUID());
  return (await verify(passwordHash ?? (await nobody), password)) && passwordHash !== undefined;
}

/** A secret for a link or a token: 256 bits, safe in an address. */
export const newSecret = (): string => randomBytes(32).toString('base64url');

/** How secrets are kept: never as they are. */
export const hashSecret = (secret: string): string => createHash('sha256').update(secret).digest('hex');
