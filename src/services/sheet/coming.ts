import { sittingOf } from '@/core/plan/sitting';
import type { SessionBundle } from '@/store/session-bundles';

/** Who comes: enrolled, not away, and not of a group that does not meet this time; each with how they come to it. */
export const comingOf = ({ session, enrolments, away }: Pick<SessionBundle, 'session' | 'enrolments' | 'away'>) => {
  const missing = new Set(away.flatMap(({ enrolmentId, mode }) => (mode === null ? [enrolmentId] : [])));
  const modes = new Map(away.flatMap(({ enrolmentId, mode }) => (mode === null ? [] : [[enrolmentId, mode] as const])));
  return enrolments
    .filter(
      ({ id, status, groupId }) =>
        status === 'enrolled' && !missing.has(id) && sittingOf(groupId, session.sittings) !== undefined,
    )
    .map((row) => (modes.has(row.id) ? { ...row, mode: modes.get(row.id) ?? null } : row));
};
