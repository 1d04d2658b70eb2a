/** What a cook may ask of a plan: what leaving a batch out would cost, and which wishes cannot all be, by which rule. */
import type { Highs } from 'highs';
import type { LinearModel, RowName } from './linear.ts';
import { type PlanModel, planModel } from './planModel.ts';
import type { PlanProblem } from './problem.ts';
import { PlanSolver } from './solver.ts';

export type Wish = NonNullable<PlanProblem['pins']>[number];

/** Wishes that cannot all be: leave any one of them out, and the others can. */
export interface Clash {
  readonly wishes: readonly Wish[];
  /** The rules that keep them from it: without any one of these they could all be. */
  readonly rules: readonly RowName[];
}

/** Rules a kitchen could change: pots, hands, fire, cold, how often, how much a batch takes. The others are how things hang together. */
const RULES: ReadonlySet<string> = new Set([
  'vessel',
  'long',
  'hands',
  'burner',
  'oven',
  'chiller',
  'freezer',
  'repeat',
  'runs',
  'fill',
  'cap',
  'lot',
]);
/** Whole batches are looked for no longer than that. */
const SECONDS = 5;

/** The smallest set that clashes, by leaving out one after the other; undefined where all of them can be. */
export function smallestClash(highs: Highs, problem: PlanProblem, wishes: readonly Wish[]): Clash | undefined {
  const { linear } = planModel({ ...problem, pins: wishes });
  // only whether it can be, whatever it costs
  const free: LinearModel = { ...linear, offset: 0, cost: new Float64Array(linear.cost.length) };
  const solver = new PlanSolver(highs, free);
  try {
    const rowsOf = (wish: Wish): number[] =>
      linear.rows.flatMap(({ kind, about }, row) =>
        kind === 'pin' && about[0] === wish.use && about[1] === wish.day ? [row] : [],
      );
    const canBe = (): boolean =>
      solver.relax().money !== undefined && solver.whole({ seconds: SECONDS, gap: 1 }).money !== undefined;
    if (canBe()) return undefined;
    const kept = wishes.filter((wish) => {
      for (const row of rowsOf(wish)) solver.holds(row, false);
      if (!canBe()) return false;
      for (const row of rowsOf(wish)) solver.holds(row, true);
      return true;
    });
    // and the rules the same way: first all of a kind, then each of those that matter
    const rules: RowName[] = [];
    const rowsBy = new Map<string, number[]>();
    for (const [row, { kind }] of linear.rows.entries())
      if (RULES.has(kind)) rowsBy.set(kind, [...(rowsBy.get(kind) ?? []), row]);
    for (const rows of rowsBy.values()) {
      for (const row of rows) solver.holds(row, false);
      if (!canBe()) continue;
      for (const row of rows) solver.holds(row, true);
      for (const row of rows) {
        solver.holds(row, false);
        if (!canBe()) continue;
        solver.holds(row, true);
        const name = linear.rows[row];
        if (name !== undefined) rules.push(name);
      }
    }
    return { wishes: kept, rules };
  } finally {
    solver.dispose();
  }
}

/**
 * What each batch of a plan saves: what the plan would cost more with one batch of it left out and all others kept. At the most that: with the others free
 * to move it may be less.
 *
 * Shapes  values: of each column of the model. Gives, by the column of its count, money.
 */
export function savedBy(highs: Highs, model: PlanModel, values: ArrayLike<number>): Map<number, number> {
  const solver = new PlanSolver(highs, model.linear);
  try {
    const count = (column: number): number => Math.round(values[column] ?? 0);
    for (const column of solver.wholes) solver.bound(column, count(column), count(column));
    const whole = solver.relax().money;
    const saved = new Map<number, number>();
    if (whole === undefined) return saved;
    for (const column of solver.wholes) {
      const n = count(column);
      if (n === 0) continue;
      solver.bound(column, n - 1, n - 1);
      const without = solver.relax().money;
      if (without !== undefined) saved.set(column, without - whole);
      solver.bound(column, n, n);
    }
    return saved;
  } finally {
    solver.dispose();
  }
}
