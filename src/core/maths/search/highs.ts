import type { BinaryColumn, BinaryProgram, SolveBinary } from './binary-program';

/** The matrix of a program by columns, as the solver takes it. */
function matrixOf(columns: readonly BinaryColumn[], numRows: number) {
  const starts = new Int32Array(columns.length + 1);
  columns.forEach(({ rows }, j) => (starts[j + 1] = starts[j]! + rows.length));
  return {
    format: 'csc' as const,
    numRows,
    numCols: columns.length,
    starts,
    indices: Int32Array.from(columns.flatMap(({ rows }) => rows)),
    values: Float64Array.from(columns.flatMap(({ values }) => values)),
  };
}

const loaded = async () => (await import('highs')).default();
let loading: ReturnType<typeof loaded> | undefined;

/**
 * The branch-and-cut solver HiGHS (Huangfu and Hall 2018, Math. Prog. Comp. 10:119), which comes as WebAssembly: loaded
 * where it is asked for, not with the program.
 *
 * @param seconds longer than this one program is not worked on: the best answer so far is given, unproven
 * @param told    hears while it works on a program what share of these seconds has gone
 */
export async function loadSolver(seconds: number, told?: (share: number) => void): Promise<SolveBinary> {
  const highs = await (loading ??= loaded());
  const { mipLogging } = highs.constants.callbackType;
  return ({ columns, rows }: BinaryProgram, start) =>
    highs.withModel(
      {
        numCols: columns.length,
        numRows: rows.length,
        sense: highs.constants.objectiveSense.minimize,
        colCost: Float64Array.from(columns, ({ cost }) => cost),
        colLower: new Float64Array(columns.length),
        colUpper: new Float64Array(columns.length).fill(1),
        rowLower: Float64Array.from(rows, ({ least }) => least),
        rowUpper: Float64Array.from(rows, ({ most }) => most),
        matrix: matrixOf(columns, rows.length),
        integrality: new Int32Array(columns.length).fill(highs.constants.variableType.integer),
      },
      (model) => {
        model.options.set({
          output_flag: false,
          time_limit: seconds,
          mip_rel_gap: 0,
          mip_abs_gap: 0,
          mip_feasibility_tolerance: 1e-9,
        });
        const colValue = new Float64Array(columns.length);
        for (const j of start) colValue[j] = 1;
        model.setSolution({ colValue });
        model.run({ [mipLogging]: ({ data }) => void told?.(Math.min(1, (data.running_time ?? 0) / seconds)) });
        const status = model.getModelStatus();
        const { optimal, timeLimit } = highs.constants.modelStatus;
        if (status !== optimal && status !== timeLimit) return undefined;
        const values = model.getSolution().colValue;
        const chosen = [...values.keys()].filter((j) => values[j]! > 0.5);
        return { chosen, proven: status === optimal };
      },
    );
}
