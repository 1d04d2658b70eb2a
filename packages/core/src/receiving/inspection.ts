/** What is looked at, smelt, pressed and measured before a delivery is signed for. */
import type { Species } from '../breakdown/plan.ts';
import { isCephalopod } from '../safety/food.ts';
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
}

export interface InspectionAnswer {
  readonly pointId: string;
  readonly good: boolean;
}

/** Molluscs in shells: they come alive, with a tag. Squid and their kin are molluscs too, and are cut like fish. */
export const isShellfish = (species: Pick<Species, 'id' | 'group'> | undefined): boolean =>
  species?.group === 'mollusc' && !isCephalopod(species);

export const cameAs = ['fresh', 'live', 'frozen', 'vacuum-packed'] as const;
export type CameAs = (typeof cameAs)[number];

/** Game lived wild or was raised; a rabbit is taken for raised and all other game for wild until somebody says. */
export const usuallyRaised = (species: Pick<Species, 'id' | 'group'> | undefined): 'wild' | 'farmed' | null =>
  species?.group === 'feathered-game'
    ? 'wild'
    : species?.group === 'furred-game'
      ? /rabbit/.test(species.id)
        ? 'farmed'
        : 'wild'
      : null;

/** Fish with its head on: eyes and gills can be looked at. */
const withHead: ReadonlySet<string> = new Set(['whole', 'gutted', 'gilled-gutted']);

/**
 * The class of questions for what comes: by animal, form and state. A tuna loin has no eyes, squid does not close when tapped, a cooked crab is
 * not alive, and a farmed rabbit was not shot.
 *
 * Shapes  species undefined: goods. form: an id of its forms.
 */
export function inspectionFor(
  species: Pick<Species, 'id' | 'group'> | undefined,
  form: string,
  came: CameAs,
  raised: 'wild' | 'farmed' | null = usuallyRaised(species),
): string {
  if (species === undefined) return 'goods';
  if (came === 'frozen' || came === 'vacuum-packed') return came;
  const cooked = /cooked|braised|pulled|rendered/.test(form);
  switch (species.group) {
    case 'round-fish':
    case 'large-pelagic':
      return cooked ? 'cooked' : withHead.has(form) ? 'round-fish' : 'fish-cut';
    case 'flatfish':
      return cooked ? 'cooked' : withHead.has(form) ? 'flatfish' : 'fish-cut';
    case 'crustacean':
      if (cooked || /meat|tomalley|coral/.test(form)) return 'cooked-shellfish';
      return came === 'live' ? 'live-crustacean' : 'raw-crustacean';
    case 'mollusc':
      if (isCephalopod(species)) return 'cephalopod';
      if (cooked) return 'cooked-shellfish';
      return /meat|roe|frill|liquor/.test(form) || came !== 'live' ? 'shucked' : 'live-shellfish';
    case 'poultry':
      return cooked ? 'cooked' : 'poultry';
    case 'feathered-game':
      return raised === 'farmed' ? 'poultry' : 'feathered-game';
    case 'furred-game':
      if (cooked) return 'cooked';
      return raised === 'farmed' ? (/rabbit|hare/.test(species.id) ? 'poultry' : 'red-meat') : 'furred-game';
    default:
      return cooked ? 'cooked' : 'red-meat';
  }
}

/** What wild game must come with before it may be served: who shot it, where and when, or the number of a trained person's declaration. */
export const recordIsWhole = (details: {
  readonly shotBy?: string;
  readonly killPlace?: string;
  readonly killedOn?: string;
  readonly declaration?: string;
}): boolean =>
  details.declaration !== undefined ||
  (details.shotBy !== undefined && details.killPlace !== undefined && details.killedOn !== undefined);

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
