import type { Temporal } from 'temporal-polyfill';
import { countAttempt } from '@/store/attempts';
import { insert } from '@/store/query';
import type { Store } from '@/store/store';
import { faultOf, log } from '@/watch/log';

/** What is kept of what happens at the doors. */
export type SecurityEventKind =
  | 'signed in'
  | 'wrong password'
  | 'wrong code'
  | 'recovery code used'
  | 'too many attempts'
  | 'refused'
  | 'password asked again'
  | 'asked for a new password'
  | 'link did not work'
  | 'code used again'
  | 'too much asked for'
  | 'sent what no page sends';

interface About {
  readonly programmeId?: string | null;
  readonly actorId?: string | null;
  readonly ip?: string;
  /** What it was about, never what was typed: people type passwords into the wrong field. */
  readonly detail?: string;
}

/** Events of one kind and source that are kept within an hour: a flood of them fills no disk. */
export const MOST_AN_HOUR = 200;

/** Keeps an event, unless its source has already filled the hour. A full disk or a lost database stops nobody at the door. */
export async function logSecurity(
  from: { readonly store: Store; clock(): Temporal.Instant; ids(): string },
  kind: SecurityEventKind,
  { programmeId = null, actorId = null, ip = '', detail = '' }: About,
): Promise<void> {
  const limit = { name: 'kept-events', points: MOST_AN_HOUR, seconds: 3600 };
  const { db } = from.store;
  try {
    if ((await countAttempt(from.store, limit, `${kind} ${actorId ?? ip}`)) > 0) return;
    await insert(db, db.models.securityEvent, [
      {
        id: from.ids(),
        programmeId,
        at: new Date(from.clock().epochMilliseconds),
        kind,
        actorId,
        ip: ip.slice(0, 64),
        detail: detail.slice(0, 190),
      },
    ]);
  } catch (error) {
    log().error(faultOf(error), 'a security event was not kept');
  }
}
