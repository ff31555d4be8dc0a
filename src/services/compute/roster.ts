import { rosterCase } from '@/contracts/roster';
import type { RosterAnswer } from '@/core/crew/roster-case';
import { inPool } from '@/workers/pool';
import { ROLES, service } from '../gate/gate';

/** Seconds that a roster may take where a case does not say. */
const USUAL_SECONDS = 20;

export const computeRoster = service({
  title: 'Work out the best roster, without saving',
  roles: ROLES,
  costly: true,
  input: rosterCase,
  run: (_context, { kind: _, seconds = USUAL_SECONDS, ...given }): Promise<RosterAnswer> =>
    inPool('planRoster', { ...given, seconds }, seconds + 15),
});
