import { formatCount } from '../quantity/units.ts';
import { sizesFault } from '../timing/minutesBySize.ts';
import type { CutPlan, Species } from './plan.ts';
import { inputsOf } from './planQuestions.ts';

export interface PlanFault {
  /** Where it is, as a path in the plan: "stages.0.pieces.2.share". */
  readonly path: string;
  readonly message: string;
}

/** Shares of a stage may miss one by this much: what rounding to tenths of a per cent leaves. */
const SUM_TOLERANCE = 0.0015;

const twice = (ids: readonly string[]): string[] => [...new Set(ids.filter((id, i) => ids.indexOf(id) !== i))];

/**
 * Everything that keeps a plan from being worked, in words: what a schema cannot see.
 *
 * Shapes  result: empty when the plan is sound; otherwise every fault, in the order of the plan.
 */
export function planFaults(
  plan: CutPlan,
  known: { readonly species: ReadonlyMap<string, Species>; readonly categories: ReadonlySet<string> },
): PlanFault[] {
  const faults: PlanFault[] = [];
  const say = (path: string, message: string): void => void faults.push({ path, message });
  const [reference] = plan.starts;
  for (const [i, start] of plan.starts.entries()) {
    const species = known.species.get(start.species);
    if (species === undefined) say(`starts.${i}.species`, `There is no species ${start.species}.`);
    else
      for (const form of start.forms)
        if (!species.forms.some((f) => f.id === form))
          say(`starts.${i}.forms`, `${species.name} does not come as ${form}.`);
    if (start.at !== undefined && (plan.stages.findIndex((s) => s.id === start.at) < 1 || i === 0))
      say(
        `starts.${i}.at`,
        `What a plan starts from enters it at a later stage of it, and the first of them at the first.`,
      );
  }
  const stageIds = plan.stages.map((s) => s.id);
  for (const id of twice(stageIds)) say('stages', `Two stages are called ${id}.`);
  for (const [s, stage] of plan.stages.entries()) {
    const at = `stages.${s}`;
    const ids = stage.pieces.map((p) => p.id);
    for (const id of twice(ids)) say(`${at}.pieces`, `Two pieces of ${stage.name} are called ${id}.`);
    if (s > 0 && inputsOf(plan, stage.id).length === 0)
      say(at, `Nothing goes on to ${stage.name}: say so at a piece of an earlier stage.`);
    const form = s === 0 ? reference?.forms[0] : undefined;
    const sum = stage.pieces
      .filter((p) => form === undefined || p.absentIn?.includes(form) !== true)
      .reduce((total, p) => total + p.share.mean, stage.drip.mean);
    if (Math.abs(sum - 1) > SUM_TOLERANCE)
      say(
        `${at}.pieces`,
        `The shares of ${stage.name} and its drip come to ${formatCount(sum * 100, 1)} %, not to 100 %.`,
      );
    for (const [t, step] of stage.steps.entries()) {
      const here = `${at}.steps.${t}`;
      const { minutes, measure } = step;
      if (minutes !== undefined && (minutes.low > minutes.typical || minutes.typical > minutes.high))
        say(here, `${step.title}: minutes from, usual, to: each no less than the one before.`);
      if (measure !== undefined && measure.low > measure.high)
        say(here, `${step.title}: ${measure.what} goes from the smaller to the larger.`);
      const sizes = sizesFault(step);
      if (sizes !== undefined) say(here, `${step.title}: ${sizes}.`);
      for (const id of [...step.pieces, ...(step.guard?.before ?? [])])
        if (!ids.includes(id)) say(here, `${step.title} names ${id}, which is no piece of this stage.`);
    }
    for (const [p, piece] of stage.pieces.entries()) {
      const here = `${at}.pieces.${p}`;
      if (!known.categories.has(piece.category))
        say(`${here}.category`, `There is no kind of piece ${piece.category}.`);
      if (!stage.steps.some((step) => step.pieces.includes(piece.id))) say(here, `No step takes off ${piece.name}.`);
      for (const tray of [piece.destination, ...piece.alternatives])
        if (piece.refused.some((r) => r.destination === tray))
          say(`${here}.refused`, `${piece.name} goes to ${tray} and is refused there.`);
      if (piece.next !== undefined && stageIds.indexOf(piece.next) <= s)
        say(`${here}.next`, `${piece.name} can only go on to a later stage.`);
    }
    const { fill } = stage;
    if (fill !== undefined && !ids.includes(fill.piece))
      say(`${at}.fill`, `What is filled, ${fill.piece}, is no piece of this stage.`);
    for (const id of [...(fill?.bones ?? []), ...(fill?.flesh ?? [])])
      if (!ids.includes(id)) say(`${at}.fill`, `What came out of ${fill?.piece}, ${id}, is no piece of this stage.`);
  }
  return faults;
}
