import type { CivilMinutes } from '../plan/civil';
import type { Mode } from '../plan/mode';
import type { JobGroup, JobSession, Keeper, Limit, SessionFacts } from './facts';

/** One of the stages that a session goes through: what is done in it, and how it stands. */
export interface Stage<Key extends string = string> {
  /** Its room on every floor, and the key of its main job. */
  readonly key: Key;
  readonly title: string;
  /** In working order. */
  readonly jobs: readonly JobTemplate[];
  /** Where it stands by what is saved; left out where its work is not in the program: it stands where its jobs do. */
  readonly standing?: (facts: SessionFacts) => Standing;
  /** Groups for which its main job is done, though not for all of them: '' for the first. */
  readonly doneGroups?: (facts: SessionFacts) => readonly string[];
  /** By when it is done, where it has no jobs. */
  readonly latest?: (facts: SessionFacts) => CivilMinutes;
  /** What is counted to: its main job's end where left out. */
  readonly countsTo?: 'start';
  /** Its page of a session; left out, its jobs are on the countdown page. */
  readonly page?: (session: { readonly id: string; readonly courseId: string }) => string;
  /** What the button that leads there says. */
  readonly go?: string;
}

export interface Standing {
  readonly state: 'due later' | 'can start' | 'doing' | 'done' | 'not needed';
  /** One sentence; empty where there is nothing to add. */
  readonly why: string;
}

/** What a job takes, in minutes: some in any case, more with each kit, dish or doorstep. */
export interface Effort {
  readonly fixed: number;
  readonly perKit?: number;
  readonly perDish?: number;
}

/** A job as most sessions have it. Minutes are typical: a course changes them to what it takes there. */
export type JobTemplate = ForAll | PerGroup;

interface AnyJob {
  readonly key: string;
  readonly title: string;
  /** Keys of the jobs it waits for. */
  readonly after: readonly string[];
  readonly effort: Effort;
  readonly hours: Keeper;
  readonly modes: readonly Mode[];
  /** A small class has it from the start. */
  readonly few: boolean;
  /** Only where somebody asks for it. */
  readonly onRequest?: boolean;
  /** Only under open sky, and then always. */
  readonly outdoor?: boolean;
  /** Only where a dish is made before class, and then always. */
  readonly swapIn?: boolean;
  /** What it is called and takes in a session whose food asks for it, in minutes: it has the job then, unless somebody leaves it out. */
  readonly asked?: (session: JobSession) => { readonly title: string; readonly minutes: number } | undefined;
  /** It is done when what it is about is: nobody marks it. */
  readonly byItself?: boolean;
  /** It begins and ends at its fixed time, whether or not somebody marks it. */
  readonly byTheClock?: true;
}

/** Done once for all groups that a session is given to. */
interface ForAll extends AnyJob {
  readonly perGroup?: false;
  /** Its fixed time and its limits; none where left out. */
  readonly limits?: (frame: Frame, session: JobSession) => Limits;
}

/** Done once for each group. */
interface PerGroup extends AnyJob {
  readonly perGroup: true;
  readonly limits?: (frame: Frame, sitting: JobSitting) => Limits;
}

/** A group's meeting, with how long it lasts. */
export type JobSitting = JobGroup & { readonly minutes: number };

/** What the limits of a session's jobs are counted from. */
export interface Frame {
  /** When the first of its groups meets, and the last. */
  readonly start: CivilMinutes;
  readonly last: CivilMinutes;
  readonly isTaught: boolean;
  readonly cookBy: CivilMinutes;
  readonly online: boolean;
  /** Every kit follows the lesson. */
  readonly later: boolean;
}

/** A fixed time, what must be over by then, what must not begin before, and how long it takes where that is settled. */
export interface Limits {
  readonly at?: CivilMinutes;
  readonly finishBy?: Limit;
  readonly notBefore?: Limit;
  readonly minutes?: number;
}

export const plural = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;
