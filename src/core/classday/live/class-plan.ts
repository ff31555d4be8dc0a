import type { Inside } from '../../recipes/steps/safe-temperatures';
import type { Pair } from '../run-sheet/sheet-case';

/** A task of a class that runs, whole: what a screen needs to show it, and what planning again needs. */
export interface LiveTask {
  readonly id: string;
  /** Title of its dish. */
  readonly dish: string;
  readonly text: string;
  /** From 1; null where an adult does it. */
  readonly station: number | null;
  /** Minutes of hands, then minutes in which it goes on alone. */
  readonly on: number;
  readonly off: number;
  /** '' for none. */
  readonly heat: string;
  /** Of the oven, in °C. */
  readonly celsius: number | null;
  readonly tools: readonly string[];
  /** Which part of a step that several stations share, from 1, of how many. */
  readonly part: readonly [number, number] | null;
  readonly after: readonly string[];
  readonly age: number;
  /** Minutes that what it makes may wait. */
  readonly wait: number | null;
  /** Minute of the class at which it is planned to start; hands first. */
  readonly start: number;
  /** Whose hands; '' where it needs none. */
  readonly hands: string;
  /** How hot it must be inside before it is done. */
  readonly inside: Inside | null;
}

/** The plan that a class follows. Minutes count from when the cooking began. */
export interface ClassPlan {
  /** When the last task ends. */
  readonly minutes: number;
  /** When the cooking should be over: what the class leaves for it. */
  readonly cooking: number;
  readonly tasks: readonly LiveTask[];
  readonly hands: readonly Pair[];
  readonly heat: Readonly<Record<string, number>>;
  readonly tools: Readonly<Record<string, number>>;
}

export const endOfTask = ({ start, on, off }: Pick<LiveTask, 'start' | 'on' | 'off'>): number => start + on + off;
