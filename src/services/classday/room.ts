import { z } from 'zod';
import { isHomeKit, type Mode } from '@/core/plan/mode';
import { lastDayOf, sittingOf } from '@/core/plan/sitting';
import { avoidanceLabel } from '@/core/safety/avoidances';
import { dutiesBetween } from '@/store/plan';
import { ServiceError } from '../errors';
import { type Context, ROLES, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { loadBundle } from '../plan/sessions';
import { comingOf } from '../sheet/coming';
import { loadProgramme } from '../sheet/load-programme';
import { rollPerson } from '../sheet/person';
import { groupNameOf, sessionSheet } from '../sheet/session-sheet';
import { sessionThread } from '../sheet/session-thread';
import { DAYS_AFTER, DAYS_BEFORE, isRoomOpen } from './entry';

/** One participant as the people in the room need to know them. */
export interface RoomPerson {
  readonly id: string;
  readonly name: string;
  readonly age: number | null;
  /** As the family wrote it, and what it stands for; undefined while nobody has said, “nothing” where somebody said so. */
  readonly avoids: readonly { readonly asWritten: string; readonly means: string | undefined }[];
  /** What the family says to do; '' when nothing is written. */
  readonly plan: string;
  /** The group they come with; '' where there is only one. */
  readonly group: string;
}

/**
 * Who is expected in the room, for somebody whose duty is there now.
 *
 * @throws ServiceError when it is not
 */
export async function openRoom(context: Context, sessionId: string) {
  const bundle = await loadBundle(context, sessionId);
  const { programme, meanings, hours } = await loadProgramme(context);
  const { session } = bundle;
  const today = context.clock().toZonedDateTimeISO(programme.timeZone).toPlainDate();
  const isOpen = ({ date }: { readonly date: string }) =>
    context.actor.role === 'coordinator' ||
    isRoomOpen(date, lastDayOf({ date, cookBy: session.cookBy, sittings: [] }), today);
  // Those of a group that meets on another day are nobody's duty today.
  const open = new Set(session.sittings.filter(isOpen).map(({ groupId }) => groupId));
  if (isOpen(session)) open.add('');
  if (open.size === 0) {
    throw new ServiceError(
      'forbidden',
      `What the children of a class must avoid is shown from ${DAYS_BEFORE} days before it until the day after, or after the day by which families cook.`,
    );
  }
  const sheet = sessionSheet(bundle, programme, meanings);
  const withKit = new Set(sheet.locked?.kits.map(({ enrolmentId }) => enrolmentId));
  const last = lastDayOf(session);
  const coming = comingOf(bundle).filter(({ id, groupId, since }) => {
    // Who joined the course after it, and had no kit of it, was not there.
    const isLater = since !== null && since > last && sheet.locked !== undefined && !withKit.has(id);
    return open.has(sittingOf(groupId, session.sittings) ?? '') && !isLater;
  });
  const thread = sessionThread(bundle, sheet, programme, hours, context.clock());
  return { bundle, meanings, coming, below: thread.below };
}

export const viewRoom = service({
  title: 'See what those in the room must know about its children',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { bundle, meanings, coming: enrolled, below } = await openRoom(context, sessionId);
    const { session } = bundle;
    const people = enrolled
      .map((row) => rollPerson(row, meanings))
      .filter((person) => person.needs.length > 0 || person.actionPlan)
      .map(
        ({ id, name, age, needs, actionPlan, groupId }): RoomPerson => ({
          id,
          name,
          age,
          avoids: needs.map(({ asWritten, codes }) => ({
            asWritten,
            means: codes && (codes.map(avoidanceLabel).join(', ') || 'nothing'),
          })),
          plan: actionPlan,
          group: groupNameOf(groupId, session) ?? '',
        }),
      )
      .sort((a, b) => a.group.localeCompare(b.group) || a.name.localeCompare(b.name));
    await logLook(context, 'room', sessionId, people.length);
    const { title, courseTitle, date, startsAt, place } = session;
    return {
      session: { id: sessionId, title, courseTitle, date, startsAt, place },
      people,
      /** Why the class cannot be held with the adults there are. */
      below,
      others: enrolled.length - people.length,
      isOnScreen: enrolled.some(({ mode }) => (mode ?? session.mode) === 'live online'),
      isFollowLater: enrolled.some(({ mode }) => isHomeKit((mode ?? session.mode) as Mode)),
    };
  },
});

export const listDuties = service({
  title: 'See which sessions can be packed or attended',
  roles: ROLES,
  input: z.object({}),
  run: async (context) => {
    const { timeZone } = (await loadProgramme(context)).programme;
    const today = context.clock().toZonedDateTimeISO(timeZone).toPlainDate();
    const rows = await dutiesBetween(context.store.db, {
      programmeId: context.actor.programmeId,
      from: today.subtract({ days: DAYS_AFTER }).toString(),
      to: today.add({ days: 60 }).toString(),
    });
    return rows
      .map(({ locked, cookBy, ...session }) => ({
        ...session,
        canPack: locked === 1,
        roomIsOpen: isRoomOpen(session.date, lastDayOf({ date: session.date, cookBy, sittings: [] }), today),
      }))
      .filter(({ canPack, roomIsOpen }) => canPack || roomIsOpen);
  },
});
