/**
 * Better and better plans for as long as there is time: relaxed, dived into, batches left out, moved and added one by one, then the solver's own search near
 * what was found, and at last everywhere for the bound.
 *
 * Each step changes bounds of one model and goes on with the simplex where it was. Every plan handed on is whole and keeps every rule.
 */
import type { Highs } from 'highs';
import type { PlanModel } from './planModel.ts';
import { PlanSolver } from './solver.ts';

export type SearchStep = 'rule of thumb' | 'dive' | 'leave out' | 'move' | 'near' | 'everywhere';

export interface PlanFound {
  readonly step: SearchStep;
  readonly money: number;
  /** No plan costs less than that. */
  readonly bound: number;
  /** Of each column of the model. */
  readonly values: Float64Array;
}

export interface SearchOptions {
  /** Milliseconds, of any beginning. */
  readonly now: () => number;
  /** When it must have ended, by the same clock. */
  readonly until: number;
  /** Told of each better plan, and of each better bound of the same plan. */
  readonly told?: (found: PlanFound) => void;
  /** Batches to begin with, by column: those of a rule of thumb. */
  readonly start?: ReadonlyMap<number, number>;
  /** As near to the bound as that is near enough, as a share. */
  readonly gap?: number;
}

/** Rounded up at once; and the few largest with them. */
const NEARLY_ONE = 0.75;
const AT_A_TIME = 4;
/** Left out at once. */
const NEARLY_NONE = 0.08;
const EXACT = 1e-6;
/** Less than that is no better plan. */
const BETTER = 1e-5;
/** Of the time that is left, what the search near the plan may take. */
const NEAR_SHARE = 0.6;

const isWhole = (value: number): boolean => Math.abs(value - Math.round(value)) < EXACT;

class Search {
  readonly #solver: PlanSolver;
  readonly #model: PlanModel;
  readonly #options: SearchOptions;
  /** Batches of the best plan, by column. */
  #best = new Map<number, number>();
  #found: PlanFound | undefined;
  #bound = Number.NEGATIVE_INFINITY;
  #root: Float64Array = new Float64Array();

  constructor(highs: Highs, model: PlanModel, options: SearchOptions) {
    this.#solver = new PlanSolver(highs, model.linear);
    this.#model = model;
    this.#options = options;
  }

  get #over(): boolean {
    const { now, until, gap = 0 } = this.#options;
    return now() >= until || (this.#found !== undefined && this.#near(gap));
  }

  #near(gap: number): boolean {
    const money = this.#found?.money ?? Number.POSITIVE_INFINITY;
    return money - this.#bound <= gap * Math.abs(money);
  }

  #keep(step: SearchStep, money: number, values: Float64Array): boolean {
    if (this.#found !== undefined && money > this.#found.money - BETTER) return false;
    this.#best = new Map([...this.#solver.wholes].map((column) => [column, Math.round(values[column] ?? 0)]));
    this.#found = { step, money, bound: this.#bound, values };
    this.#options.told?.(this.#found);
    return true;
  }

  /** The masses of a plan whose batches are these. */
  #at(counts: ReadonlyMap<number, number>): { readonly money: number | undefined; readonly values: Float64Array } {
    for (const column of this.#solver.wholes) {
      const n = counts.get(column) ?? 0;
      this.#solver.bound(column, n, n);
    }
    return this.#solver.relax();
  }

  /** Down from the relaxation to whole batches, a few at a time; what turns out not to fit is left out instead. */
  #dive(): void {
    for (const column of this.#solver.wholes) this.#solver.free(column);
    let { money, values } = this.#solver.relax(true);
    if (money === undefined) return;
    if (this.#root.length === 0) {
      this.#root = values;
      this.#bound = money;
    }
    const fixed = new Set<number>();
    while (!this.#over) {
      const open = [...this.#solver.wholes]
        .filter((column) => !isWhole(values[column] ?? 0))
        .map((column) => ({ column, value: values[column] ?? 0, part: (values[column] ?? 0) % 1 }))
        .sort((a, b) => b.part - a.part);
      if (open.length === 0) {
        // what stands is whole: the masses once more with all of it fixed
        const counts = new Map([...this.#solver.wholes].map((c) => [c, Math.round(values[c] ?? 0)]));
        const at = this.#at(counts);
        if (at.money !== undefined) this.#keep('dive', at.money, at.values);
        return;
      }
      const up = open.filter((o, i) => o.part >= NEARLY_ONE || i < AT_A_TIME);
      const down = open.filter((o) => o.part < NEARLY_NONE && !up.includes(o));
      for (const { column, value } of down) this.#solver.bound(column, 0, Math.floor(value));
      for (const { column, value } of up) {
        this.#solver.bound(column, Math.ceil(value - EXACT), Math.ceil(value - EXACT));
        fixed.add(column);
      }
      let next = this.#solver.relax();
      // the smallest of those rounded up are let go again until it fits
      for (const { column, value } of [...up].reverse()) {
        if (next.money !== undefined) break;
        this.#solver.bound(column, 0, Math.floor(value));
        next = this.#solver.relax();
      }
      if (next.money === undefined) return;
      ({ money, values } = next);
    }
  }

  /** Tries batches of the best plan changed a little, and keeps each that pays. True when one did. */
  #try(step: SearchStep, changes: readonly (readonly [column: number, by: number])[]): boolean {
    const counts = new Map(this.#best);
    for (const [column, by] of changes) {
      const n = (counts.get(column) ?? 0) + by;
      if (n < 0 || n > (this.#model.linear.upper[column] ?? 0)) return false;
      counts.set(column, n);
    }
    const at = this.#at(counts);
    return at.money !== undefined && this.#keep(step, at.money, at.values);
  }

  #runs(): PlanModel['columns']['batches'][number][] {
    return this.#model.columns.batches.filter((b) => (this.#best.get(b.count) ?? 0) > 0);
  }

  /** Each batch left out once; what does not pay for itself stays out. */
  #leaveOut(): boolean {
    let better = false;
    for (const run of this.#runs()) {
      if (this.#over) break;
      if (this.#try('leave out', [[run.count, -1]])) better = true;
    }
    return better;
  }

  /** Each batch on another day or in another pot; and batches that the relaxation had in part. */
  #move(): boolean {
    let better = false;
    const { batches } = this.#model.columns;
    for (const run of this.#runs()) {
      const others = batches.filter(
        (b) => b.use === run.use && b.count !== run.count && Math.abs(b.day - run.day) <= 1,
      );
      for (const other of others) {
        if (this.#over) return better;
        if ((this.#best.get(run.count) ?? 0) === 0) break;
        if (
          this.#try('move', [
            [run.count, -1],
            [other.count, 1],
          ])
        )
          better = true;
      }
    }
    const wished = batches
      .filter((b) => (this.#root[b.count] ?? 0) > NEARLY_NONE && (this.#best.get(b.count) ?? 0) === 0)
      .sort((a, b) => (this.#root[b.count] ?? 0) - (this.#root[a.count] ?? 0));
    for (const { count } of wished) {
      if (this.#over) return better;
      if (this.#try('move', [[count, 1]])) better = true;
    }
    return better;
  }

  /** The solver's own search: among the batches that the relaxation or the plan has, or among all. */
  #search(step: 'near' | 'everywhere', until: number): void {
    const seconds = (until - this.#options.now()) / 1_000;
    if (seconds <= 0 || this.#found === undefined) return;
    const upper = new Map(
      step === 'everywhere'
        ? []
        : [...this.#solver.wholes]
            .filter((column) => (this.#root[column] ?? 0) < EXACT && (this.#best.get(column) ?? 0) === 0)
            .map((column) => [column, 0] as const),
    );
    const { money, bound, values } = this.#solver.whole({
      start: this.#found.values,
      upper,
      seconds,
      gap: this.#options.gap ?? 1e-4,
    });
    if (step === 'everywhere' && bound > this.#bound) {
      this.#bound = bound;
      this.#found = { ...this.#found, bound };
      this.#options.told?.(this.#found);
    }
    if (money !== undefined) this.#keep(step, money, values);
  }

  run(): PlanFound | undefined {
    const { start, now, until } = this.#options;
    try {
      if (start !== undefined) {
        const at = this.#at(start);
        if (at.money !== undefined) this.#keep('rule of thumb', at.money, at.values);
      }
      this.#dive();
      if (this.#found === undefined) {
        const none = this.#at(new Map());
        if (none.money !== undefined) this.#keep('dive', none.money, none.values);
      }
      while (!this.#over && (this.#leaveOut() || this.#move()));
      if (!this.#over) this.#search('near', now() + (until - now()) * NEAR_SHARE);
      if (!this.#over) this.#search('everywhere', until);
      return this.#found;
    } finally {
      this.#solver.dispose();
    }
  }
}

/** The best plan that is found in the time; undefined where the wishes and the rules leave none. */
export const searchPlan = (highs: Highs, model: PlanModel, options: SearchOptions): PlanFound | undefined =>
  new Search(highs, model, options).run();
