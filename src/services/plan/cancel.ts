import { z } from 'zod';
import { sayDay } from '@/core/plan/civil';
import { service } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { sessionSheet } from '../sheet/session-sheet';
import { markedDone, sessionThread } from '../sheet/session-thread';
import { changeSessions } from './changes';
import { sittingRows } from './groups';
import { groupId, loadBundle, meetingOf } from './sessions';

export const previewCancel = service({
  title: 'See what hangs on a session before cancelling it',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), groupId }),
  run: async (context, { sessionId, groupId: group }) => {
    const bundle = await loadBundle(context, sessionId);
    const { session, enrolments, sheet, events, marks, dishes } = bundle;
    const meeting = meetingOf(session, group);
    const { programme, meanings, hours } = await loadProgramme(context);
    const thread = sessionThread(bundle, sessionSheet(bundle, programme, meanings), programme, hours, context.clock());
    const others = session.sittings.filter(({ status }) => status === 'planned');
    // Whoever is in no other group comes with the first.
    const isOf = (id: string | null) => (group ? id === group : true);
    return {
      title: meeting.title,
      date: meeting.date,
      startsAt: meeting.startsAt,
      minutes: session.minutes,
      /** Free again then; null where nobody keeps it, as online. */
      place: meeting.placeId && meeting.place,
      version: session.version,
      people: enrolments.filter(({ status, groupId: own }) => status === 'enrolled' && isOf(own)).length,
      /** Groups that are cancelled with it. */
      along: group ? [] : others.map(({ groupName, date }) => ({ groupName, date })),
      locked: sheet !== undefined,
      packed: events.length > 0,
      bought: markedDone(marks).has('buying'),
      /** What was chosen for it and is taught elsewhere only if somebody chooses it again. */
      dishes: group ? [] : dishes.map(({ title }) => title),
      /** Jobs that fall away; those of the other groups stay. */
      jobs: thread.jobs
        .filter(({ state, key }) => state !== 'done' && (group === undefined || key.endsWith(`@${group}`)))
        .map(({ title }) => title),
    };
  },
});

export const cancelSession = service({
  title: 'Cancel a session or one of its groups, or hold it after all',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    groupId,
    version: z.coerce.number().int(),
    cancelled: z.boolean(),
    because: z.string().trim().max(200, 'At most 200 characters.').default(''),
  }),
  run: (context, { sessionId, groupId: group, version, cancelled, because }) =>
    context.store.transaction(async (db) => {
      const { session } = await loadBundle(context, sessionId, db);
      const status = cancelled ? ('cancelled' as const) : ('planned' as const);
      const { title, date } = meetingOf(session, group);
      const said = `${cancelled ? 'Cancelled' : 'Took up again'} ${title}, ${sayDay(date)}`;
      const change = group
        ? {
            sittings: sittingRows(session).map((each) => (each.groupId === group ? { ...each, status } : each)),
          }
        : { status, because };
      return changeSessions(context, db, [{ sessionId, version, change }], said);
    }),
});
