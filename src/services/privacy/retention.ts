import type { Temporal } from 'temporal-polyfill';
import { change } from '@/store/query';
import type { Store } from '@/store/store';

/** Days that things are kept which nobody erases by hand. Households are kept as the programme's setting says. */
export const KEPT_DAYS = {
  'printed pages': 14,
  'finished jobs': 30,
  messages: 90,
  'ended sign-ins and links': 90,
  'the list of who looked at needs': 730,
} as const;

/** Removes what has been kept long enough. Done again, it does no harm. @returns rows removed */
export async function clearOut(store: Store, programmeId: string, now: Temporal.Instant): Promise<{ removed: number }> {
  const before = (days: number) => new Date(now.subtract({ hours: days * 24 }).epochMilliseconds);
  const rules: readonly (readonly [sql: string, before: Date])[] = [
    ['print_out WHERE programme_id = :programmeId AND at < :before', before(KEPT_DAYS['printed pages'])],
    ['job WHERE programme_id = :programmeId AND finished_at < :before', before(KEPT_DAYS['finished jobs'])],
    ['message WHERE programme_id = :programmeId AND created_at < :before', before(KEPT_DAYS.messages)],
    [
      'sign_in WHERE member_id IN (SELECT id FROM member WHERE programme_id = :programmeId) AND expires_at < :before',
      before(KEPT_DAYS['ended sign-ins and links']),
    ],
    [
      'access_link WHERE programme_id = :programmeId AND expires_at < :before',
      before(KEPT_DAYS['ended sign-ins and links']),
    ],
    [
      'need_look WHERE programme_id = :programmeId AND at < :before',
      before(KEPT_DAYS['the list of who looked at needs']),
    ],
    ['idempotent_reply WHERE programme_id = :programmeId AND created_at < :before', before(1)],
  ];
  let removed = 0;
  for (const [what, limit] of rules) {
    removed += await change(store.db, `DELETE FROM ${what}`, { programmeId, before: limit });
  }
  return { removed };
}
