import { buyingCase } from '@/contracts/buying';
import type { BuyingAnswer } from '@/core/buying/case';
import { inPool } from '@/workers/pool';
import { ROLES, service } from '../gate/gate';

/** Seconds that a plan may take where a case does not say. */
const USUAL_SECONDS = 10;

export const computeBuying = service({
  title: 'Plan the cheapest buying for a whole plan, without saving',
  roles: ROLES,
  costly: true,
  input: buyingCase,
  run: (_context, { kind: _, seconds = USUAL_SECONDS, ...given }): Promise<BuyingAnswer> =>
    inPool('planBuying', { ...given, seconds }, seconds + 15),
});
