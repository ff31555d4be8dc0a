// What is known of a session when its jobs are counted and its thread is drawn.
import type { CivilMinutes, Weekday } from '../plan/civil';
import type { Mode } from '../plan/mode';
import type { Ahead } from '../recipes/steps/ahead';
import type { Waiting } from '../reference/waiting';

/** A limit with its reason, said as "cold food keeps 24 hours". */
export interface Limit {
  readonly at: CivilMinutes;
  readonly why: string;
}

/** When a programme usually does a job: on a weekday, or so many days before the session; at a time of the day. */
export type RhythmRule =
  | { readonly weekday: Weekday; readonly time: string }
  | { readonly daysBefore: number; readonly time: string };

/** A programme's habits, by the key of a job: "we shop on Saturday morning". */
export type Rhythm = Readonly<Record<string, RhythmRule>>;

/** Working hours by weekday (Monday first), and days on which nobody works. */
export interface WorkHours {
  /** As in "the shop is closed": "the shop". */
  readonly who: string;
  readonly windows: readonly (readonly { readonly from: number; readonly to: number }[])[];
  readonly closedDays: ReadonlySet<number>;
  /** Longest window of a week, in minutes. */
  readonly longest: number;
}

/** Whose hours a job is done in: the shop's, the crew's, or nobody's (it runs by itself, or is done at any hour). */
export type Keeper = 'shop' | 'crew' | 'any';

/** What a course or a session changes about a job. */
export interface JobChange {
  /** Shown and counted, or not; left out: as the size of the class has it. */
  readonly on?: boolean;
  readonly fixed?: number;
  readonly perKit?: number;
}

export type JobChanges = Readonly<Record<string, JobChange>>;

/** A job that only this session has. */
export interface OneOffJob {
  readonly id: string;
  readonly title: string;
  /** Key of the stage that it belongs to. */
  readonly stage: string;
  readonly minutes: number;
  readonly hours: Keeper;
  /** The job that waits for it: a template's key. */
  readonly before: string;
}

/** A session as its jobs are counted from. */
export interface JobSession {
  readonly date: string;
  readonly startsAt: string;
  readonly minutes: number;
  /** Of the session and of its participants. */
  readonly modes: readonly Mode[];
  readonly participants: number;
  readonly kits: number;
  readonly dishes: number;
  /** Dishes of which a batch is finished before class. */
  readonly swapIns?: number;
  /** Days before the session that the roll closes. */
  readonly rollClosesDays: number;
  /** By when families cook what they get after the lesson; null for a week after it. */
  readonly cookBy: string | null;
  readonly course: JobChanges;
  readonly session: JobChanges;
  readonly oneOffs: readonly OneOffJob[];
  /** What a fire under open sky asks for; null under a roof. */
  readonly outdoor: OutdoorJobs | null;
  /** What of its food ripens and thaws. */
  readonly waiting?: Waiting;
  /** What its dishes ask to be made ahead. */
  readonly ahead?: Ahead;
  /** The other groups that it is given to, and what the first is called. Kits above are those of all. */
  readonly groups?: readonly JobGroup[];
  readonly groupName?: string;
  /** Who holds the places of its duties; left out while nobody is planned. */
  readonly crewPlaces?: CrewStanding;
}

/** How many places of a session have people. */
export interface CrewStanding {
  readonly places: number;
  readonly accepted: number;
  readonly asked: number;
  readonly planned: number;
  /** Places for which nobody is planned or asked. */
  readonly empty: number;
  /** In its rooms, by the table of adults; 0 where nobody comes to a room. */
  readonly adultsNeeded: number;
  /** Adults who said yes, and those who may still. */
  readonly adultsSure: number;
  readonly adultsPossible: number;
}

/** A group beside the first, with when it meets. */
export interface JobGroup {
  readonly groupId: string;
  readonly groupName: string;
  readonly date: string;
  readonly startsAt: string;
  readonly kits: number;
  readonly outdoor: OutdoorJobs | null;
}

/** The fire and the weather of an outdoor session. */
export interface OutdoorJobs {
  readonly lightingMinutes: number;
  readonly decideHours: number;
}

/** What is known of a session when its thread is drawn. */
export interface SessionFacts extends JobSession {
  readonly timeZone: string;
  readonly shop: WorkHours;
  readonly crew: WorkHours;
  /** What the programme usually does when, by job. */
  readonly rhythm?: Rhythm;
  /** When jobs begin for which people of the crew were asked, by the job's key. */
  readonly plannedAt?: Readonly<Record<string, CivilMinutes>>;
  /** Keys of jobs that somebody marked done. */
  readonly marked: ReadonlySet<string>;
  readonly unknownNeeds: number;
  /** Revision of the locked sheet, 0 when none. */
  readonly revision: number;
  /** True when the roll or a recipe moved after the lock. */
  readonly differs: boolean;
  /** Undefined while nothing is locked: not computed then. */
  readonly refusedKits?: number;
  /** Groups whose kits are all packed, '' for the first; where there are several. */
  readonly packedGroups?: readonly string[];
  /** Jobs that somebody is at, by their key, each with the part of it that is left. */
  readonly begun?: ReadonlyMap<string, number>;
  /** Kits that were handed out. */
  readonly handed?: number;
  readonly ticks: number;
  readonly ticksNeeded: number;
  readonly kitsDone: number;
}
