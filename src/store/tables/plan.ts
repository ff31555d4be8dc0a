import type { KitRules } from '@/contracts/kits';
import type { ExtrasWanted } from '@/core/kits/sheet/extras';
import type { OnClosure } from '@/core/plan/cadence';
import type { Cadence } from '@/core/plan/cadence-rule';
import type { EquipmentCounts, OpenHours, Outdoor } from '@/core/plan/place';
import type { ModeRoom } from '@/core/roll/waitlist';
import type { JobChanges } from '@/core/stages/facts';
import { day, json, key, keyOf, log, long, maybe, moment, notes, plain, type RowOf, ref, table, whole } from './table';

export const course = table(
  'course',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    title: notes(),
    audience: notes(),
    /** First and last day of its season, YYYY-MM-DD. */
    seasonFrom: maybe(day()),
    seasonTo: maybe(day()),
    /** null when sessions are added one by one. */
    cadence: maybe(json<Cadence>()),
    onClosure: plain<OnClosure>(),
    capacity: maybe(whole()),
    /** Per kit, in the programme's smallest coin. */
    budgetCents: maybe(whole()),
    /** How a free place is given away (see WAITLIST_RULES). */
    waitlistRule: plain(),
    instructorId: maybe(ref()),
    rollClosesDays: whole(),
    /** Equipment that a class of it needs. */
    uses: json<EquipmentCounts>(),
    /** What is changed about the usual jobs. */
    jobs: json<JobChanges>('notes'),
    /** What goes with its kits beside measured food. */
    kitRules: json<Partial<KitRules>>('notes'),
    /** The most people that come in each mode; a mode left out has no limit of its own. */
    modePlaces: json<ModeRoom>(),
    notes: long(notes()),
    version: whole(),
  },
);
export type CourseRow = RowOf<typeof course>;

/** One of the groups that a course is given to. The first of a course meets when and where its sessions say. */
export const courseGroup = table(
  'course_group',
  { belongs: 'courseId' },
  {
    id: key(),
    courseId: ref(),
    name: notes(),
    /** 0 for the first. */
    position: whole(),
    /** Where the group usually meets: so many days after the session's own date, at this hour; null for the first. */
    daysAfter: whole(),
    startsAt: maybe(plain()),
    place: notes(),
    placeId: maybe(ref()),
    instructorId: maybe(ref()),
    ended: whole(),
    version: whole(),
  },
);
export type CourseGroupRow = RowOf<typeof courseGroup>;

export const session = table(
  'session',
  { belongs: 'courseId' },
  {
    id: key(),
    courseId: ref(),
    number: whole(),
    title: notes(),
    /** Civil date, YYYY-MM-DD. */
    date: day(),
    /** Civil time, HH:MM, in the programme's time zone. */
    startsAt: plain(),
    minutes: whole(),
    place: notes(),
    placeId: maybe(ref()),
    instructorId: maybe(ref()),
    mode: plain(),
    status: plain<'planned' | 'cancelled'>(),
    /** Raised with each change that a calendar must hear of. */
    sequence: whole(),
    /** By when families cook what they get after the lesson, YYYY-MM-DD. */
    cookBy: maybe(day()),
    /** Why it is not where its cadence had it; '' when it is. */
    because: notes(),
    /** What is changed about this session's jobs. */
    jobs: json<JobChanges>('notes'),
    /** What is made beside its kits. */
    extras: json<ExtrasWanted>('notes'),
    version: whole(),
  },
);
export type SessionRow = RowOf<typeof session>;

/** When and where a group other than the first meets for a session. */
export const sitting = table(
  'sitting',
  { belongs: 'sessionId', joined: 'goes' },
  {
    sessionId: keyOf(ref()),
    groupId: keyOf(ref()),
    date: day(),
    startsAt: plain(),
    place: notes(),
    placeId: maybe(ref()),
    instructorId: maybe(ref()),
    status: plain<'planned' | 'cancelled'>(),
  },
);
export type SittingRow = RowOf<typeof sitting>;

/** A session as it was before a change, and the version it has after. */
export interface ChangedSession {
  readonly before: SessionRow;
  readonly sittings: readonly SittingRow[];
  readonly version: number;
  /** Present when a session was made of some of its dishes. */
  readonly split?: { readonly madeId: string; readonly dishIds: readonly string[] };
}

/** A change of the plan that can be taken back. */
export const planChange = table(
  'plan_change',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    at: moment(),
    actorId: ref(),
    said: log(),
    /** Each session as it was before with its sittings, and its version after. */
    sessions: json<readonly ChangedSession[]>('log'),
    undoneAt: maybe(moment()),
  },
);
export type PlanChangeRow = RowOf<typeof planChange>;

export const place = table(
  'place',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    name: notes(),
    seats: maybe(whole()),
    hours: json<readonly OpenHours[]>(),
    equipment: json<EquipmentCounts>(),
    minutesBefore: whole(),
    minutesAfter: whole(),
    shared: whole(),
    /** null for a place under a roof. */
    outdoor: maybe(json<Outdoor>()),
    version: whole(),
  },
);
export type PlaceRow = RowOf<typeof place>;

export const travel = table(
  'travel',
  { belongs: 'fromId' },
  {
    fromId: keyOf(ref()),
    toId: keyOf(ref()),
    minutes: whole(),
  },
);
export type TravelRow = RowOf<typeof travel>;

export const closureCalendar = table(
  'closure_calendar',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    name: notes(),
    kind: plain<'public' | 'imported' | 'own'>(),
    /** Country and region of public holidays: "US-ny"; '' otherwise. */
    region: plain(),
    /** Only this place is closed. */
    placeId: maybe(ref()),
  },
);
export type ClosureCalendarRow = RowOf<typeof closureCalendar>;

export const closure = table(
  'closure',
  { belongs: 'calendarId' },
  {
    id: key(),
    calendarId: ref(),
    title: notes(),
    fromDate: day(),
    toDate: day(),
    fromTime: maybe(plain()),
    toTime: maybe(plain()),
  },
);
export type ClosureRow = RowOf<typeof closure>;

/** An address under which a calendar program reads a part of the plan. */
export const calendarFeed = table(
  'calendar_feed',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    scope: plain<'programme' | 'course' | 'place' | 'instructor'>(),
    scopeId: maybe(ref()),
    withJobs: whole(),
    tokenHash: plain(),
    createdAt: moment(),
    revokedAt: maybe(moment()),
    createdBy: maybe(ref()),
  },
);
export type CalendarFeedRow = RowOf<typeof calendarFeed>;
