import { z } from 'zod';
import { select } from '@/store/query';
import { service } from './gate';

export const listSecurityEvents = service({
  title: 'See what happened at the doors',
  roles: ['coordinator'],
  input: z.object({}),
  run: (context) =>
    select<{ id: string; at: Date; kind: string; who: string | null; ip: string; detail: string }>(
      context.store.db,
      `SELECT e.id, e.at, e.kind, COALESCE(m.name, t.name) AS who, e.ip, e.detail FROM security_event e
         LEFT JOIN member m ON m.id = e.actor_id LEFT JOIN api_token t ON t.id = e.actor_id
        WHERE e.programme_id = :programmeId ORDER BY e.at DESC, e.id DESC LIMIT 100`,
      { programmeId: context.actor.programmeId },
    ),
});
