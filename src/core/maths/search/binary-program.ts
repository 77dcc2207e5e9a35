/**
 * Choosing columns: `cost · x` smallest, x of zeros and ones, `at least ≤ row · x ≤ at most`. Costs and coefficients are
 * plain numbers, columns sparse.
 */
export interface BinaryProgram {
  readonly columns: readonly BinaryColumn[];
  readonly rows: readonly { readonly least: number; readonly most: number }[];
}

export interface BinaryColumn {
  readonly cost: number;
  /** Rows it stands in, ascending, and with what. */
  readonly rows: readonly number[];
  readonly values: readonly number[];
}

export interface BinaryAnswer {
  /** The columns chosen, ascending. */
  readonly chosen: readonly number[];
  /** Shown to be the best. */
  readonly proven: boolean;
}

/**
 * Solves a binary program.
 *
 * @param start columns of an allowed answer to begin with
 * @returns undefined where no allowed answer was found
 */
export type SolveBinary = (program: BinaryProgram, start: readonly number[]) => BinaryAnswer | undefined;
