import { routesCase } from '@/contracts/routes';
import type { RoutesAnswer } from '@/core/handout/routes/route-case';
import { inPool } from '@/workers/pool';
import { ROLES, service } from '../gate/gate';

/** Seconds that rounds may take where a case does not say. */
const USUAL_SECONDS = 10;

export const computeRoutes = service({
  title: 'Work out the best rounds to the doors, without saving',
  roles: ROLES,
  costly: true,
  input: routesCase,
  run: (_context, { kind: _, seconds = USUAL_SECONDS, ...given }): Promise<RoutesAnswer> =>
    inPool('planRoutes', { ...given, seconds }, seconds + 15),
});
