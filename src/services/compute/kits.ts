import { kitCaseRequest } from '@/contracts/kit-case';
import { type CaseResult, computeCase } from '@/core/kits/figures/kit-case';
import { AmountError } from '@/core/quantity/rational';
import { TYPICAL } from '@/core/reference/reference';
import { ServiceError } from '../errors';
import { ROLES, service } from '../gate/gate';

export const computeKits = service({
  title: 'Calculate kits from a recipe, without saving',
  roles: ROLES,
  costly: true,
  input: kitCaseRequest,
  run: async (_context, { recipe, kits, working }): Promise<CaseResult> => {
    try {
      const outcome = computeCase({ recipe, kits }, TYPICAL, working);
      if ('result' in outcome) return outcome.result;
      throw new ServiceError(
        'invalid',
        'The case cannot be calculated.',
        outcome.problems.map(({ path, message }) => ({ where: path, message })),
      );
    } catch (error) {
      if (error instanceof AmountError) throw new ServiceError('invalid', error.message);
      throw error;
    }
  },
});
