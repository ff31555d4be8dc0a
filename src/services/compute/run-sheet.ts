import { runSheetCase } from '@/contracts/run-sheet';
import type { RunSheetAnswer } from '@/core/classday/run-sheet/sheet-case';
import { inPool } from '@/workers/pool';
import { ROLES, service } from '../gate/gate';

/** Seconds that a run sheet may take where a case does not say. */
const USUAL_SECONDS = 10;

export const computeRunSheet = service({
  title: 'Work out the best run sheet of a class, without saving',
  roles: ROLES,
  costly: true,
  input: runSheetCase,
  run: (_context, { kind: _, seconds = USUAL_SECONDS, ...given }): Promise<RunSheetAnswer> =>
    inPool('planRunSheet', { ...given, seconds }, seconds + 15),
});
