import { createHmac, hkdfSync } from 'node:crypto';
import { sealData, unsealData } from 'iron-session';
import type { Context } from './gate';

/** Whoever has the deployment's key. */
export type Keyed = Pick<Context, 'deploymentKey'>;

/** A key for one purpose, made from the deployment's (HKDF, RFC 5869): one that leaks tells nothing of the others. */
const keyFor = ({ deploymentKey }: Keyed, purpose: string): Buffer =>
  Buffer.from(hkdfSync('sha256', deploymentKey, '', `logistra ${purpose}`, 32));

/**
 * The secret of a link, 256 bits, safe in an address. It follows from the link's id and the deployment's key: the message
 * that carries it can be made again when it is sent, and neither the database nor a backup of it holds a working link.
 */
export const linkSecret = (from: Keyed, linkId: string): string =>
  createHmac('sha256', keyFor(from, 'links')).update(linkId).digest('base64url');

/** The key that goes into every password's hash: whoever has the database alone cannot even begin to guess. */
export const passwordKey = (from: Keyed): Buffer => keyFor(from, 'passwords');

/** How a recovery code is kept: a hash with a key that is not in the database, salted with whose it is. */
export const recoveryHash = (from: Keyed, memberId: string, code: string): string =>
  createHmac('sha256', keyFor(from, 'recovery codes')).update(`${memberId} ${code}`).digest('hex');

/** A text as it may be kept: nobody reads it without the deployment's key. */
export const seal = (from: Keyed, text: string): Promise<string> =>
  sealData({ text }, { password: keyFor(from, 'sealed texts').toString('hex'), ttl: 0 });

/** What was sealed; undefined when it was sealed with another key, or changed. */
export async function unseal(from: Keyed, sealed: string): Promise<string | undefined> {
  const password = keyFor(from, 'sealed texts').toString('hex');
  return (await unsealData<{ text?: string }>(sealed, { password, ttl: 0 })).text;
}
