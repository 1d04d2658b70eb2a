/** What is looked at, smelt, pressed and measured before a delivery is signed for. */
import type { Species } from '../breakdown/plan.ts';
import { isShownAsLimit, judgeTemperature } from '../safety/judge.ts';
import type { LeastTemperature, Limit, MostTemperature, Verdict } from '../safety/limit.ts';

export interface InspectionPoint {
  readonly id: string;
  readonly sense: 'look' | 'smell' | 'press' | 'measure';
  readonly ask: string;
  readonly good: string;
  readonly bad: string;
  /** One "no" here is enough to send it back. */
  readonly critical: boolean;
}

export interface InspectionClass {
  readonly id: string;
  readonly name: string;
  readonly points: readonly InspectionPoint[];
  /** The receiving limit by profile, where the profile has one. */
  readonly limits: Readonly<Record<string, string>>;
}

export interface InspectionAnswer {
  readonly pointId: string;
  readonly good: boolean;
}

/** Molluscs in shells: they come alive, with a tag. Squid and their kin are molluscs too, and are cut like fish. */
export const isShellfish = (species: Pick<Species, 'id' | 'group'> | undefined): boolean =>
  species?.group === 'mollusc' && !/squid|cuttle|octopus/.test(species.id);

/** What the points add up to. It advises; the person at the door decides. */
export type InspectionAdvice = 'accept' | 'look-again' | 'refuse';

/** One critical "no" advises to refuse; any other "no", or a critical point nobody answered, to look again. */
export function adviseInspection(
  points: readonly InspectionPoint[],
  answers: readonly InspectionAnswer[],
): InspectionAdvice {
  const answerTo = new Map(answers.map((a) => [a.pointId, a.good]));
  if (points.some((p) => p.critical && answerTo.get(p.id) === false)) return 'refuse';
  const doubt = points.some((p) => answerTo.get(p.id) === false || (p.critical && !answerTo.has(p.id)));
  return doubt ? 'look-again' : 'accept';
}

export interface TemperatureJudged {
  readonly verdict: Verdict;
  readonly limit: MostTemperature | LeastTemperature;
}

/** A probe reading against the receiving limit of the house's profile; undefined where it has none or we are not sure enough of it. */
export function judgeReceiving(
  limit: Limit | undefined,
  centiC: number,
  probeErrorC = 0,
): TemperatureJudged | undefined {
  if (limit === undefined || !isShownAsLimit(limit) || (limit.kind !== 'max_temp' && limit.kind !== 'min_temp'))
    return undefined;
  return { verdict: judgeTemperature(limit, { C: centiC / 100 }, probeErrorC), limit };
}
