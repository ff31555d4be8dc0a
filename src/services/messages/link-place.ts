import type { AccessLinkRow } from '@/store/tables/access';
import type { Context } from '../gate/gate';
import { linkSecret } from '../gate/keys';

/** Stands in a stored message where the link's secret goes: the secret is made when the message is sent. */
export const LINK_PLACE = '{link}';

/** Whether a link still works. */
export const isOpen = ({ usedAt, expiresAt }: Pick<AccessLinkRow, 'usedAt' | 'expiresAt'>, now: Date): boolean =>
  usedAt === null && expiresAt > now;

/** A message's text with its link in it, as it goes out. */
export const withLink = (from: Pick<Context, 'deploymentKey'>, body: string, linkId: string): string =>
  body.replace(LINK_PLACE, linkSecret(from, linkId));
