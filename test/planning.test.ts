/**
 * The plan of bones and trim against what is outside of it: public instances with best known plans and proven bounds, and an independent scorer that
 * knows nothing of the model (test/planning).
 */
import { readdirSync, readFileSync } from 'node:fs';
import {
  batchesOf,
  checkPlan,
  decodePlan,
  type PlanModel,
  type PlanProblem,
  planModel,
  ruleOfThumb,
  savedBy,
  searchPlan,
  smallestClash,
  type WeekPlan,
} from '@zabrik/core/planning';
import { seededRandom } from '@zabrik/core/simulator';
import loadHighs, { type Highs } from 'highs';
import solver from 'javascript-lp-solver';
import { beforeAll, describe, expect, it } from 'vitest';
import { scorePlanner } from './planning/score.mjs';
import { randomPlan } from './randomPlan.ts';

type Instance = PlanProblem & { readonly best: { readonly objective: number; readonly bound: number } };

const folder = new URL('./planning/', import.meta.url);
const instances = readdirSync(folder)
  .filter((file) => file.endsWith('.json'))
  .map((file) => JSON.parse(readFileSync(new URL(file, folder), 'utf8')) as Instance);
const named = (id: string): Instance => {
  const found = instances.find((i) => i.id === id);
  if (found === undefined) throw new Error(`there is no instance ${id}`);
  return found;
};

let highs: Highs;
beforeAll(async () => {
  highs = await loadHighs();
});

/** Both judges of a plan, who must be of one mind. */
function judged(problem: PlanProblem, plan: WeekPlan) {
  const [theirs, ours] = [scorePlanner(problem, plan), checkPlan(problem, plan)];
  expect(ours.total).toBeCloseTo(theirs.objective, 6);
  expect({ theirs: theirs.errors, ours: ours.faults }).toSatisfy(() => ours.faults.length > 0 === !theirs.feasible);
  return { feasible: theirs.feasible, objective: theirs.objective };
}
/** A clock that goes a tick each time it is looked at: the same search on every machine, but for the solver's own. */
const ticking = () => {
  let at = 0;
  return () => {
    at += 1;
    return at;
  };
};

describe('the rule of thumb', () => {
  it.each(instances.map((i) => [i.id, i] as const))(
    'keeps every rule on %s, and no plan is known to cost more',
    (_, i) => {
      const { feasible, objective } = judged(i, ruleOfThumb(i));
      expect(feasible).toBe(true);
      expect(objective).toBeGreaterThan(i.best.objective);
    },
  );
});

describe('the search', () => {
  it.each(['small-1', 'small-2', 'small-3'])('finds the best plan of %s and proves it', (id) => {
    const i = named(id);
    const model = planModel(i);
    const found = searchPlan(highs, model, { now: () => performance.now(), until: performance.now() + 300_000 });
    const { feasible, objective } = judged(i, decodePlan(model, found?.values ?? []));
    expect(feasible).toBe(true);
    expect(objective).toBeCloseTo(found?.money ?? 0, 4);
    // as good as the best known, and not better than its bound allows
    expect(objective).toBeLessThan(i.best.objective + 0.02);
    expect(objective).toBeGreaterThan(i.best.bound - 0.02);
    expect(found?.bound).toBeGreaterThan(objective * 0.9998);
  });

  it.each(['medium-1', 'bar-1', 'bar-4', 'big-1'])(
    'hands on whole plans of %s from the first, each better than the one before',
    (id) => {
      const i = named(id);
      const model = planModel(i);
      const thumb = ruleOfThumb(i);
      const seen: number[] = [scorePlanner(i, thumb).objective];
      const steps = new Set<string>();
      searchPlan(highs, model, {
        start: batchesOf(model, thumb),
        now: ticking(),
        until: 60,
        told: ({ money, values, step, bound }) => {
          const { feasible, objective } = judged(i, decodePlan(model, values));
          expect([feasible, step]).toEqual([true, step]);
          expect(objective).toBeCloseTo(money, 4);
          expect(objective).toBeLessThanOrEqual(seen.at(-1) ?? 0);
          expect(bound).toBeLessThanOrEqual(i.best.objective + 0.01);
          steps.add(step);
          seen.push(objective);
        },
      });
      expect(steps).toContain('dive');
      expect(seen.at(-1)).toBeLessThan((seen[0] ?? 0) * 0.85);
      expect(seen.at(-1)).toBeGreaterThan(i.best.bound - 0.01);
    },
  );

  it('keeps what is pinned and what is forbidden, and pays for it', () => {
    const i = named('small-2');
    const end = () => ({ now: () => performance.now(), until: performance.now() + 300_000 });
    const best = planModel(i);
    const free = searchPlan(highs, best, end());
    const [first] = decodePlan(best, free?.values ?? []).runs;
    if (first === undefined) throw new Error('the best plan has no batch');
    const without = { ...i, pins: [{ use: first.use, day: first.day, max: 0 }] };
    const model = planModel(without);
    const found = searchPlan(highs, model, end());
    const plan = decodePlan(model, found?.values ?? []);
    expect(judged(without, plan).feasible).toBe(true);
    expect(plan.runs.some((r) => r.use === first.use && r.day === first.day)).toBe(false);
    expect(found?.money).toBeGreaterThan((free?.money ?? 0) - 1e-6);
    // what is pinned cannot be: more batches than the day has pots for
    const impossible = { ...i, pins: [{ use: first.use, day: first.day, min: 9 }] };
    expect(searchPlan(highs, planModel(impossible), end())).toBeUndefined();
  });
});

describe('what a cook may ask', () => {
  const i = named('medium-1');

  it('which wishes clash: the same dish two days running, hidden among others that can be', () => {
    const dish = i.uses.find((u) => u.staff && u.repeatDays > 1);
    if (dish === undefined) throw new Error('no dish');
    const other = i.uses.filter((u) => !u.staff).slice(0, 3);
    const wishes = [
      ...other.map((u, n) => ({ use: u.id, day: n, max: 1 })),
      { use: dish.id, day: 2, min: 1 },
      { use: dish.id, day: 3, min: 1 },
    ];
    expect(smallestClash(highs, i, wishes.slice(0, -1))).toBeUndefined();
    const clash = smallestClash(highs, i, wishes);
    expect(clash?.wishes).toEqual([
      { use: dish.id, day: 2, min: 1 },
      { use: dish.id, day: 3, min: 1 },
    ]);
    expect(new Set(clash?.rules.map((r) => r.kind))).toEqual(new Set(['repeat']));
    expect(clash?.rules.every((r) => r.about[0] === dish.id)).toBe(true);
  });

  it('which wishes clash: so many on one day that no day has the hands or the pots', () => {
    const wishes = i.uses
      .filter((u) => u.idle !== true)
      .slice(0, 9)
      .map((u) => ({ use: u.id, day: 1, min: 1 }));
    const clash = smallestClash(highs, i, wishes);
    if (clash === undefined) throw new Error('all of it can be');
    expect(clash.wishes.length).toBeLessThan(wishes.length);
    // the smallest: with any one of them left out the others can be
    for (const wish of clash.wishes)
      expect(
        smallestClash(
          highs,
          i,
          clash.wishes.filter((w) => w !== wish),
        ),
      ).toBeUndefined();
    expect(smallestClash(highs, i, clash.wishes)?.wishes).toEqual(clash.wishes);
  });

  it('what each batch saves: never less than nothing of a plan that is the best', () => {
    const small = named('small-3');
    const model = planModel(small);
    const found = searchPlan(highs, model, { now: () => performance.now(), until: performance.now() + 300_000 });
    const saved = savedBy(highs, model, found?.values ?? []);
    const { runs } = decodePlan(model, found?.values ?? []);
    expect(saved.size).toBe(new Set(runs.map((r) => `${r.use}/${r.day}/${r.vessel}`)).size);
    for (const money of saved.values()) expect(money).toBeGreaterThan(-1e-6);
    // leaving it out is what the plan without it costs more
    const [[column, money] = [-1, 0]] = saved;
    const run = model.columns.batches.find((b) => b.count === column);
    const use = model.uses[run?.use ?? -1];
    const least = searchPlan(
      highs,
      planModel({ ...small, pins: [{ use: use?.id ?? '', day: run?.day ?? 0, max: 0 }] }),
      { now: () => performance.now(), until: performance.now() + 300_000 },
    );
    expect((least?.money ?? 0) - (found?.money ?? 0)).toBeLessThanOrEqual(money + 1e-6);
  });
});

describe('small kitchens drawn at random', () => {
  /** What a second solver, written by others in JavaScript alone, makes of a model; `fixed`: so many batches of each column. */
  function another({ linear }: PlanModel, fixed?: ReadonlyMap<number, number>): number {
    const constraints: Record<string, { min?: number; max?: number; equal?: number }> = {};
    const variables: Record<string, Record<string, number>> = {};
    const ints: Record<string, 1> = {};
    for (const [i, cost] of linear.cost.entries()) {
      const at = fixed?.get(i);
      const upper = linear.upper[i] ?? Number.POSITIVE_INFINITY;
      if (at !== undefined) constraints[`u${i}`] = { equal: at };
      else if (Number.isFinite(upper)) constraints[`u${i}`] = { max: upper };
      variables[`x${i}`] = { cost, ...(constraints[`u${i}`] === undefined ? {} : { [`u${i}`]: 1 }) };
      if (linear.whole[i] === 1 && fixed === undefined) ints[`x${i}`] = 1;
    }
    for (const [row, min] of linear.rowLower.entries()) {
      const max = linear.rowUpper[row] ?? Number.POSITIVE_INFINITY;
      constraints[`r${row}`] =
        min === max
          ? { equal: min }
          : { ...(Number.isFinite(min) ? { min } : {}), ...(Number.isFinite(max) ? { max } : {}) };
      for (let k = linear.starts[row] ?? 0; k < (linear.starts[row + 1] ?? 0); k += 1) {
        const column = variables[`x${linear.indices[k]}`];
        if (column !== undefined) column[`r${row}`] = linear.values[k] ?? 0;
      }
    }
    const solved = solver.Solve({ optimize: 'cost', opType: 'min', constraints, variables, ints }) as {
      readonly feasible: boolean;
      readonly result: number;
    };
    return solved.feasible ? solved.result + linear.offset : Number.POSITIVE_INFINITY;
  }
  const searched = (problem: PlanProblem) => {
    const model = planModel(problem);
    const found = searchPlan(highs, model, {
      now: () => performance.now(),
      until: performance.now() + 300_000,
      gap: 1e-9,
    });
    return { model, money: found?.money ?? Number.NaN, plan: decodePlan(model, found?.values ?? []) };
  };

  it('200 of them cost what a second, independent solver says, to a millionth', () => {
    for (let n = 0; n < 200; n += 1) {
      const problem = randomPlan(`kitchen ${n}`);
      const { model, money, plan } = searched(problem);
      expect(Math.abs(money - another(model)), problem.id).toBeLessThan(1e-6);
      const { feasible, objective } = judged(problem, plan);
      expect([problem.id, feasible]).toEqual([problem.id, true]);
      expect(objective).toBeCloseTo(money, 5);
    }
  });

  it('the smallest cost what going through every choice of batches says', () => {
    let gone = 0;
    for (let n = 0; n < 12; n += 1) {
      const { model, money } = searched(randomPlan(`tiny ${n}`, [1, 2]));
      const columns = model.columns.batches.map((b) => [b.count, model.linear.upper[b.count] ?? 0] as const);
      const choices = columns.reduce((all, [, most]) => all * (most + 1), 1);
      if (choices > 90) continue;
      let best = Number.POSITIVE_INFINITY;
      for (let choice = 0; choice < choices; choice += 1) {
        const counts = new Map<number, number>();
        let rest = choice;
        for (const [column, most] of columns) {
          counts.set(column, rest % (most + 1));
          rest = Math.floor(rest / (most + 1));
        }
        best = Math.min(best, another(model, counts));
      }
      expect(Math.abs(money - best)).toBeLessThan(1e-6);
      gone += 1;
    }
    expect(gone).toBeGreaterThan(5);
  });
});

describe('a plan that was tampered with', () => {
  const i = named('small-1');
  let plan: WeekPlan;
  beforeAll(() => {
    const model = planModel(i);
    const found = searchPlan(highs, model, { now: () => performance.now(), until: performance.now() + 300_000 });
    plan = decodePlan(model, found?.values ?? []);
  });
  /** Every number, name and thing of a plan, by its way there. */
  function* leaves(value: unknown, way: readonly (string | number)[] = []): Generator<readonly (string | number)[]> {
    if (typeof value !== 'object' || value === null) yield way;
    else for (const [key, inner] of Object.entries(value)) yield* leaves(inner, [...way, key]);
  }
  const changed = (
    value: unknown,
    [key, ...rest]: readonly (string | number)[],
    to: (old: unknown) => unknown,
  ): unknown => {
    if (key === undefined) return to(value);
    if (Array.isArray(value))
      return value.map((v, n) => (String(n) === String(key) ? changed(v, rest, to) : (v as unknown)));
    return { ...(value as object), [key]: changed((value as Record<string, unknown>)[key], rest, to) };
  };

  it('is refused exactly where the scorer refuses it, and costs the same where it is not', () => {
    const random = seededRandom('tampered');
    const ways = [...leaves(plan)];
    const uses = i.uses.map((u) => u.id);
    const lots = i.lots.map((l) => l.id);
    let refused = 0;
    const tries = 400;
    for (let n = 0; n < tries; n += 1) {
      const way = ways[random.whole(0, ways.length - 1)] ?? [];
      const other = changed(plan, way, (old) => {
        if (typeof old === 'number')
          return [old + 1, old - 1, old * 1.5, old * 0.5, 0, -1, old + 0.001][random.whole(0, 6)];
        if (old === true) return false;
        const names = String(old).startsWith('L') ? lots : way.at(-1) === 'vessel' ? i.vessels.map((v) => v.id) : uses;
        return names[random.whole(0, names.length - 1)];
      }) as WeekPlan;
      if (!judged(i, other).feasible) refused += 1;
    }
    // the tampering bites, and not always
    expect(refused).toBeGreaterThan(tries * 0.4);
    expect(refused).toBeLessThan(tries);
  });
});
