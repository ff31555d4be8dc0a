import { kitCaseRequest } from '@/contracts/kit-case';
import { type CaseResult, computeCase, type KitCase } from '@/core/kits/kit-case';
import { parsePositiveAmount } from '@/core/quantity/amount';
import { toolsOf } from '@/core/quantity/measure';
import { AmountError } from '@/core/quantity/rational';
import { TYPICAL } from '@/core/reference/reference';
import { service } from '../access/gate';
import { ServiceError } from '../errors';

export const computeKits = service({
  title: 'Calculate kits from a recipe, without saving',
  roles: ['coordinator', 'crew'],
  input: kitCaseRequest,
  run: async (_context, { recipe, kits, tools_tsp, working }): Promise<CaseResult> => {
    try {
      const input: KitCase = {
        recipe,
        kits,
        ...(tools_tsp ? { tools: toolsOf(tools_tsp.map(parsePositiveAmount)) } : {}),
      };
      const outcome = computeCase(input, TYPICAL, working);
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
