import loadHighs, { type Highs } from 'highs';
import type { Milp, MilpAnswer, SolveMilp } from '@/core/solver/milp';

let loaded: Promise<Highs> | undefined;

/** The solver, loaded once a process. It works on the thread that calls it: never on the one that serves. */
export async function milpSolver(): Promise<SolveMilp> {
  loaded ??= loadHighs();
  const highs = await loaded;
  return (model, seconds) => solve(highs, model, seconds);
}

function solve(highs: Highs, { columns, rows }: Milp, seconds: number): MilpAnswer {
  if (columns.length === 0) {
    const holds = rows.every(({ least = 0, most = 0 }) => least <= 0 && most >= 0);
    return holds ? { status: 'optimal', cost: 0, bound: 0, values: [] } : { status: 'impossible' };
  }
  const { modelStatus, variableType } = highs.constants;
  const starts = new Int32Array(rows.length + 1);
  for (const [at, { terms }] of rows.entries()) starts[at + 1] = (starts[at] as number) + terms.length;
  const terms = rows.flatMap((row) => row.terms);
  const model = highs.createModel({
    numCols: columns.length,
    numRows: rows.length,
    colCost: Float64Array.from(columns, ({ cost }) => cost),
    colLower: new Float64Array(columns.length),
    colUpper: Float64Array.from(columns, ({ most }) => most ?? highs.infinity),
    rowLower: Float64Array.from(rows, ({ least }) => least ?? -highs.infinity),
    rowUpper: Float64Array.from(rows, ({ most }) => most ?? highs.infinity),
    matrix: {
      format: 'csr',
      numCols: columns.length,
      numRows: rows.length,
      starts,
      indices: Int32Array.from(terms, ([column]) => column),
      values: Float64Array.from(terms, ([, factor]) => factor),
    },
    integrality: Int32Array.from(columns, ({ isWhole }) => (isWhole ? variableType.integer : variableType.continuous)),
  });
  try {
    model.options.set({ output_flag: false, time_limit: seconds, mip_rel_gap: 0, mip_abs_gap: 0.5 });
    model.run();
    const status = model.getModelStatus();
    if (status === modelStatus.infeasible || status === modelStatus.unboundedOrInfeasible)
      return { status: 'impossible' };
    const isOptimal = status === modelStatus.optimal || status === modelStatus.empty;
    const cost = model.getObjectiveValue();
    const isFound = isOptimal || Number(model.info.get('primal_solution_status')) === 2;
    if (!isFound) return { status: 'nothing found' };
    const bound = isOptimal ? cost : Number(model.info.get('mip_dual_bound'));
    return { status: isOptimal ? 'optimal' : 'time', cost, bound, values: [...model.getSolution().colValue] };
  } finally {
    model.dispose();
  }
}
