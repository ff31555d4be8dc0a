import type { FreeTimes } from '@/core/crew/crew-case';
import type { DutyKind, Skill } from '@/core/crew/duties';
import { day, json, key, maybe, moment, plain, type RowOf, ref, table, whole } from './table';

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
    ratherNot: json<readonly DutyKind[]>(),
    /** Ids of those who are never given the same duty. */
    apart: json<readonly string[]>(),
    /** Off all duties until this day. */
    sickUntil: maybe(day()),
    /** Their data is kept until this day. */
    endsOn: maybe(day()),
    erasedAt: maybe(moment()),
    version: whole(),
  },
);
export type CrewMemberRow = RowOf<typeof crewMember>;
