import type { Mode } from '../plan/mode';

/** What is seen of somebody: whether they came to class, fetched their kit, cooked it at home. */
export const ATTENDANCE_STATES = ['came', 'absent', 'collected', 'not collected', 'cooked', 'not cooked'] as const;
export type AttendanceState = (typeof ATTENDANCE_STATES)[number];

/** Each question has two answers. */
const QUESTIONS = [
  ['came', 'absent'],
  ['collected', 'not collected'],
  ['cooked', 'not cooked'],
] as const;

/**
 * The questions that a mode asks: attendance says little of a kit that is cooked at home.
 *
 * @example
 * questionsOf('take-home') //=> [['collected', 'not collected'], ['cooked', 'not cooked']]
 */
export const questionsOf = (mode: Mode): readonly (readonly [AttendanceState, AttendanceState])[] => {
  const [came, collected, cooked] = QUESTIONS;
  if (mode === 'take-home') return [collected, cooked];
  if (mode === 'live online' || mode === 'follow-later') return [came, collected, cooked];
  return [came];
};

/** One answer, in the order they were given. */
export interface AttendanceMark {
  readonly enrolmentId: string;
  readonly state: AttendanceState;
}

/** The newest answer to each question, by person. */
export function attendanceNow(marks: readonly AttendanceMark[]): ReadonlyMap<string, ReadonlySet<AttendanceState>> {
  const now = new Map<string, Set<AttendanceState>>();
  for (const { enrolmentId, state } of marks) {
    const own = now.get(enrolmentId) ?? new Set<AttendanceState>();
    for (const other of QUESTIONS.find((question) => (question as readonly string[]).includes(state)) ?? [])
      own.delete(other);
    own.add(state);
    now.set(enrolmentId, own);
  }
  return now;
}
