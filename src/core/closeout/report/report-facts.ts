import type { Face } from '../../classday/tasting';
import type { Mode } from '../../plan/mode';
import type { AttendanceState } from '../../roll/attendance';

/** What of the past a report is made of; plain data, so that a thread of its own can do it. No name and no need is in it. */
export interface ReportFacts {
  readonly sessions: readonly ReportSession[];
  /** Sessions of the span that were cancelled. */
  readonly cancelled: number;
  readonly people: readonly ReportPerson[];
  /** Food that came as a gift and that was thrown away, of these sessions or in the span. */
  readonly givenGrams: number;
  readonly lostGrams: number;
}

/** Somebody of a roll. The same person on two rolls of a family has one number. */
export interface ReportPerson {
  readonly person: number;
  readonly age: number | null;
}

/** What was noted of somebody at a session: [person, servings, what was seen]. */
export type Seen = readonly [person: number, servings: number, states: readonly AttendanceState[]];

export interface ReportSession {
  readonly id: string;
  readonly courseId: string;
  readonly course: string;
  readonly title: string;
  readonly date: string;
  readonly minutes: number;
  readonly mode: Mode;
  /** Kits of its locked sheet. */
  readonly kits: number;
  readonly seen: readonly Seen[];
  readonly plateGroups: readonly string[];
  readonly vegetableFamilies: readonly string[];
  readonly votes: Readonly<Record<Face, number>>;
  /** Times that a child is known by name to have tried a food: once a food and session. */
  readonly tries: number;
  /** [of the crew, minutes] */
  readonly stays: readonly (readonly [crew: number, minutes: number])[];
  /** Minor units: what was bought for it, and what its gifts would have cost; null where neither its lots nor its recipes tell. */
  readonly bought: number | null;
  readonly given: number;
  /** Nothing was taken off the shelf for it: its cost is what its recipes say. */
  readonly isEstimated: boolean;
  readonly incidents: number;
}
