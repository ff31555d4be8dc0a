import type { FreeTimes } from '@/core/crew/crew-case';
import type { PromiseState } from '@/core/crew/crew-standing';
import type { DutyKind, Skill } from '@/core/crew/duties';
import type { DutyChange } from '@/core/crew/hand-changes';
import { day, json, key, maybe, moment, notes, plain, type RowOf, ref, table, whole } from './table';

/** What somebody can do, or has shown: until when it holds, and who saw the proof. The proof itself is not kept. */
export interface HeldSkill {
  /** YYYY-MM-DD; null for one that does not end. */
  readonly until: string | null;
  /** Who saw it, and on which day; '' where nobody did. */
  readonly seen: string;
}

export interface CrewLimits {
  readonly mostDuties?: number;
  readonly mostHours?: number;
  readonly noLifting?: boolean;
}

/** Somebody who helps, with or without a sign-in. */
export const crewMember = table(
  'crew_member',
  { belongs: 'programmeId' },
  {
    id: key(),
    programmeId: ref(),
    memberId: maybe(ref()),
    // Their own, not a family's: erasing a family of the same name leaves them.
    name: plain(),
    /** How they are reached. */
    contact: plain(),
    languages: plain(),
    isAdult: whole(),
    skills: json<Readonly<Partial<Record<Skill, HeldSkill>>>>(),
    free: json<FreeTimes>(),
    limits: json<CrewLimits>(),
    likes: json<readonly DutyKind[]>(),
    ratherNot: json<readonly DutyKind[]>(),
    /** Ids of those they would like to be there with. */
    withWhom: json<readonly string[]>(),
    /** Ids of those who are never given the same duty. */
    apart: json<readonly string[]>(),
    /** Places that they go to, by name; none: to any. */
    goesTo: json<readonly string[]>(),
    /** Off all duties until this day. */
    sickUntil: maybe(day()),
    /** Their data is kept until this day. */
    endsOn: maybe(day()),
    erasedAt: maybe(moment()),
    version: whole(),
  },
);
export type CrewMemberRow = RowOf<typeof crewMember>;

/** What somebody was asked to do, as it was told to them. Minutes of the day. */
export interface ToldDuty {
  readonly title: string;
  /** YYYY-MM-DD */
  readonly date: string;
  readonly from: number;
  readonly to: number;
  readonly place: string;
}

/** Somebody and a duty of a session: planned, asked, promised, or not. */
export const promise = table(
  'promise',
  { belongs: 'sessionId', loads: true, joined: { keeps: 'people are planned for its duties' } },
  {
    id: key(),
    sessionId: ref(),
    /** Which of the session's duties: see `PlannedDuty`. */
    duty: plain(),
    crewId: ref(),
    state: plain<PromiseState>(),
    /** 1: by hand, a plan made anew leaves it. */
    isPinned: whole(),
    /** 1: they would like somebody else to take it, and have it until then. */
    isOffered: whole(),
    told: maybe(json<ToldDuty>()),
    /** What they said with their answer. */
    note: notes(),
    askedAt: maybe(moment()),
    remindedAt: maybe(moment()),
    answeredAt: maybe(moment()),
    version: whole(),
  },
);
export type PromiseRow = RowOf<typeof promise>;

/** What somebody changed about a duty of a session by hand, and why; or a duty that only this session has. */
export const dutyChange = table(
  'duty_change',
  { belongs: 'sessionId', loads: true, joined: 'goes' },
  {
    id: key(),
    sessionId: ref(),
    duty: plain(),
    isLeftOut: whole(),
    changedTo: json<DutyChange['change']>(),
    reason: notes(),
    at: moment(),
    actorId: ref(),
  },
);
export type DutyChangeRow = RowOf<typeof dutyChange>;

/** When somebody of the crew came and went. Minutes of the day. */
export const crewHours = table(
  'crew_hours',
  { belongs: 'sessionId', joined: { keeps: 'hours of its crew are noted' } },
  {
    id: key(),
    sessionId: ref(),
    crewId: ref(),
    date: day(),
    came: whole(),
    /** null while they are there. */
    went: maybe(whole()),
    note: notes(),
    version: whole(),
  },
);
export type CrewHoursRow = RowOf<typeof crewHours>;
