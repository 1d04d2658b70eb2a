/** One HiGHS model kept alive: bounds of batches change, the simplex goes on from where it was. */
import type { Highs, Model } from 'highs';
import type { LinearModel } from './linear.ts';

export interface Solved {
  /** Money; undefined where nothing fits. */
  readonly money: number | undefined;
  readonly values: Float64Array;
}

const MIP_LIMIT_S = 1e6;

/** The HiGHS of the registry as the plan needs it. Its memory is not collected: `dispose` it. */
export class PlanSolver {
  readonly #highs: Highs;
  readonly #linear: LinearModel;
  readonly #model: Model;
  /** The columns that are whole, in their order. */
  readonly wholes: Int32Array;
  readonly #lower: Float64Array;
  readonly #upper: Float64Array;
  readonly #rowLower: Float64Array;
  readonly #rowUpper: Float64Array;
  #warm = false;

  constructor(highs: Highs, linear: LinearModel) {
    this.#highs = highs;
    this.#linear = linear;
    this.wholes = Int32Array.from([...linear.whole.entries()].flatMap(([i, w]) => (w === 1 ? [i] : [])));
    this.#lower = Float64Array.from(linear.lower);
    this.#upper = Float64Array.from(linear.upper);
    this.#rowLower = Float64Array.from(linear.rowLower);
    this.#rowUpper = Float64Array.from(linear.rowUpper);
    this.#model = highs.createModel(this.#data(false));
    this.#model.options.set('output_flag', false);
  }

  #data(whole: boolean, lower: Float64Array = this.#linear.lower, upper: Float64Array = this.#linear.upper) {
    const { offset, cost, starts, indices, values } = this.#linear;
    const [rowLower, rowUpper] = [this.#rowLower, this.#rowUpper];
    const [numCols, numRows] = [cost.length, rowLower.length];
    return {
      numCols,
      numRows,
      offset,
      colCost: cost,
      colLower: lower,
      colUpper: upper,
      rowLower,
      rowUpper,
      matrix: { format: 'csr' as const, numRows, numCols, starts, indices, values },
      ...(whole ? { integrality: this.#linear.whole } : {}),
    };
  }

  /** Between what and what a column may be from now on. */
  bound(column: number, lower: number, upper: number): void {
    if (this.#lower[column] === lower && this.#upper[column] === upper) return;
    this.#lower[column] = lower;
    this.#upper[column] = upper;
    this.#model.changeColBounds(column, lower, upper);
  }

  /** Whether a rule holds from now on. */
  holds(row: number, whether: boolean): void {
    const lower = whether ? (this.#linear.rowLower[row] ?? 0) : Number.NEGATIVE_INFINITY;
    const upper = whether ? (this.#linear.rowUpper[row] ?? 0) : Number.POSITIVE_INFINITY;
    if (this.#rowLower[row] === lower && this.#rowUpper[row] === upper) return;
    this.#rowLower[row] = lower;
    this.#rowUpper[row] = upper;
    this.#model.changeRowBounds(row, lower, upper);
  }

  /** As the model has it. */
  free(column: number): void {
    this.bound(column, this.#linear.lower[column] ?? 0, this.#linear.upper[column] ?? 0);
  }

  /**
   * The best with batches in parts, within the bounds as they are. The simplex goes on from where it was; the first time, and where too much has changed
   * since (`anew`), the model is made smaller first.
   */
  relax(anew = false): Solved {
    if (anew && this.#warm) this.#model.clearSolver();
    this.#model.options.set('presolve', this.#warm && !anew ? 'off' : 'on');
    this.#model.run();
    this.#warm = true;
    const optimal = this.#model.getModelStatus() === this.#highs.constants.modelStatus.optimal;
    return {
      money: optimal ? this.#model.getObjectiveValue() : undefined,
      values: this.#model.getSolution().colValue,
    };
  }

  /** What one more unit of what each row holds is worth, of the last relaxation. */
  prices(): Float64Array {
    return this.#model.getSolution().rowDual;
  }

  /**
   * The best with whole batches that is found in the time, beginning with a plan.
   *
   * `upper`: so many batches at most, by column; left out, as the model has it. `gap`: how near to the bound is near enough, as a share.
   */
  whole({
    start,
    upper,
    seconds = MIP_LIMIT_S,
    gap = 1e-4,
    found,
  }: {
    readonly start?: Float64Array;
    readonly upper?: ReadonlyMap<number, number>;
    readonly seconds?: number;
    readonly gap?: number;
    /** Told of every better plan, and may say that it is enough. */
    readonly found?: (solved: {
      readonly money: number;
      readonly bound: number;
      readonly values: Float64Array;
    }) => void;
  }): Solved & { readonly bound: number } {
    const most = Float64Array.from(this.#linear.upper);
    for (const [column, n] of upper ?? []) most[column] = n;
    const model = this.#highs.createModel(this.#data(true, this.#linear.lower, most));
    try {
      model.options.set('output_flag', false);
      model.options.set('time_limit', seconds);
      model.options.set('mip_rel_gap', gap);
      if (start !== undefined) model.setSolution({ colValue: start });
      model.run();
      const values = model.getSolution().colValue;
      const money = model.getObjectiveValue();
      const bound = model.info.get('mip_dual_bound') as number;
      const has = Number(model.info.get('primal_solution_status')) === this.#highs.constants.solutionStatus.feasible;
      if (has) found?.({ money, bound, values });
      return { money: has ? money : undefined, bound, values };
    } finally {
      model.dispose();
    }
  }

  dispose(): void {
    this.#model.dispose();
  }
}
