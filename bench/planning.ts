/** What the plan of bones and trim must hold: on the public instances, against the best plans known and their proven bounds. */
import { readFileSync } from 'node:fs';
import {
  batchesOf,
  checkPlan,
  decodePlan,
  type PlanProblem,
  planModel,
  ruleOfThumb,
  searchPlan,
} from '@zabrik/core/planning';
import loadHighs, { type Highs } from 'highs';

type Instance = PlanProblem & { readonly best: { readonly objective: number; readonly bound: number } };
const instance = (id: string): Instance =>
  JSON.parse(readFileSync(new URL(`../test/planning/${id}.json`, import.meta.url), 'utf8')) as Instance;

interface Searched {
  /** When a plan was there that costs less than the rule of thumb, milliseconds. */
  readonly betterMs: number;
  /** How much more than the best plan known it costs, as a share, after so many seconds. */
  readonly after: (seconds: number) => number;
  /** When it was within a share of the best known. */
  readonly withinMs: (share: number) => number;
  /** When what it costs was proven to be within a share of the best there is. */
  readonly provenMs: (share: number) => number;
  /** How far from proven it was at the end, as a share. */
  readonly gap: number;
}

function search(highs: Highs, id: string, seconds: number): Searched {
  const problem = instance(id);
  const began = performance.now();
  const thumb = ruleOfThumb(problem);
  const model = planModel(problem);
  const told: { readonly ms: number; readonly money: number; readonly bound: number }[] = [];
  const found = searchPlan(highs, model, {
    start: batchesOf(model, thumb),
    now: () => performance.now(),
    until: began + seconds * 1_000,
    gap: 0.0001,
    told: ({ money, bound }) => told.push({ ms: performance.now() - began, money, bound }),
  });
  if (found === undefined) throw new Error(`no plan for ${id}`);
  const { faults, total } = checkPlan(problem, decodePlan(model, found.values));
  if (faults.length > 0 || Math.abs(total - found.money) > 1e-3) throw new Error(`the plan for ${id} does not hold`);
  const ofThumb = checkPlan(problem, thumb).total;
  const { objective } = problem.best;
  const first = (fits: (t: (typeof told)[number]) => boolean): number =>
    told.find(fits)?.ms ?? Number.POSITIVE_INFINITY;
  return {
    betterMs: first((t) => t.money < ofThumb),
    after: (s) => (told.findLast((t) => t.ms <= s * 1_000)?.money ?? ofThumb) / objective - 1,
    withinMs: (share) => first((t) => t.money <= objective * (1 + share)),
    provenMs: (share) => first((t) => t.money - t.bound <= share * t.money),
    gap: (found.money - found.bound) / found.money,
  };
}

export async function planningTimes() {
  const highs = await loadHighs();
  search(highs, 'small-3', 3); // warm, as the tab warms it
  const of = (ids: readonly string[], seconds: number): Searched[] => ids.map((id) => search(highs, id, seconds));
  return {
    bar: of(['bar-1', 'bar-2', 'bar-3', 'bar-4'], 10),
    small: of(['small-1', 'small-2', 'small-3'], 10),
    medium: of(['medium-1', 'medium-2', 'medium-3'], 4),
    big: of(['big-1', 'big-2'], 20),
  };
}
