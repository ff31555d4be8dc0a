import { Temporal } from 'temporal-polyfill';
import { z } from 'zod';
import { kitLabels } from '@/core/packing/label';
import { makeLabels } from '@/workers/make-labels';
import { service } from '../access/gate';
import { ServiceError } from '../errors';
import { loadProgramme } from '../programme/programme';
import { loadLocked } from './bench';

export const printLabels = service({
  title: 'Print the labels of a session',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), paper: z.enum(['a4', 'letter']) }),
  run: async (context, { sessionId, paper }) => {
    const { locked } = await loadLocked(context, sessionId);
    const { timeZone } = await loadProgramme(context);
    // Kits are packed the day before; labels printed later than that are for kits packed today.
    const today = context.clock().toZonedDateTimeISO(timeZone).toPlainDate();
    const dayBefore = Temporal.PlainDate.from(locked.session.date).subtract({ days: 1 });
    const packedOn = Temporal.PlainDate.compare(today, dayBefore) > 0 ? today : dayBefore;
    const answer = await makeLabels({ labels: kitLabels(locked, packedOn.toString()), paper });
    if ('refused' in answer) throw new ServiceError('invalid', answer.refused);
    if ('failed' in answer) throw new Error(answer.failed);
    return { pdf: answer.pdf, name: `labels-${locked.session.date}-${locked.session.number}-${paper}` };
  },
});
