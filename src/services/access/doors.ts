import { z } from 'zod';
import { doorEvents } from '@/store/access';
import { service } from '../gate/gate';

export const listSecurityEvents = service({
  title: 'See what happened at the doors',
  roles: ['coordinator'],
  input: z.object({}),
  run: (context) => doorEvents(context.store.db, { programmeId: context.actor.programmeId }),
});
