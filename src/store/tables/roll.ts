import type { HomeFacts } from '@/contracts/kits';
import type { Door } from '@/core/handout/doors/door';
import type { AttendanceState } from '@/core/roll/attendance';
import type { RollStatus } from '@/core/roll/waitlist';
import { day, json, key, keyOf, long, maybe, moment, plain, type RowOf, ref, said, table, whole } from './table';

export const household = table(
  'household',
  { belongs: 'programmeId', of: 'household', by: 'id' },
  {
    id: key(),
    programmeId: ref(),
    name: plain(),
    contact: said(plain(), ''),
    address: said(plain(), ''),
    /** What they have and agreed to. */
    home: said(json<HomeFacts>(), {}),
    /** Where its door is, and when somebody is there. */
    door: said(json<Door>(), {}),
    createdAt: moment(),
    erasedAt: maybe(moment()),
    version: whole(),
  },
);
export type HouseholdRow = RowOf<typeof household>;

export const enrolment = table(
  'enrolment',
  { belongs: 'courseId', of: 'person', by: 'id' },
  {
    id: key(),
    courseId: ref(),
    householdId: ref(),
    name: plain(),
    age: said(maybe(whole()), null),
    servings: whole(),
    /** Avoidances as the family wrote them. */
    needs: said(json<readonly string[]>(), []),
    /** What the family says to do when something goes wrong; '' when nothing is written. */
    actionPlan: said(long(plain()), ''),
    mode: maybe(plain()),
    /** The group they come with; null for the first. */
    groupId: maybe(ref()),
    status: plain<RollStatus | 'erased'>(),
    /** Civil date since which the status holds; null where nobody wrote it down. */
    since: maybe(day()),
    /** 1: one kit with the others of the household that say so. */
    sharedKit: whole(),
    version: whole(),
  },
);
export type EnrolmentRow = RowOf<typeof enrolment>;

/** Somebody who misses a session, or comes to it another way. */
export const away = table(
  'away',
  { belongs: 'sessionId', loads: true, joined: 'goes', of: 'person' },
  {
    sessionId: keyOf(ref()),
    enrolmentId: keyOf(ref()),
    /** null: does not come, and gets no kit. */
    mode: maybe(plain()),
  },
);
export type AwayRow = RowOf<typeof away>;

/** What was seen of somebody at a session: appended, the newest of its kind counts. */
export const attendance = table(
  'attendance',
  { belongs: 'sessionId', joined: { keeps: 'it was noted who came' }, of: 'person' },
  {
    id: key(),
    sessionId: ref(),
    enrolmentId: ref(),
    state: plain<AttendanceState>(),
    at: moment(),
    actorId: ref(),
  },
);
export type AttendanceRow = RowOf<typeof attendance>;
