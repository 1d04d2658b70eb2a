import type { Destination, PlanPiece, PlanStage } from './plan.ts';
import type { ShareBelief } from './shareBelief.ts';

/** A piece that came off although the plan does not know it. */
export interface OtherPiece {
  readonly id: string;
  readonly name: string;
  readonly category: string;
  readonly destination: Destination;
}

/** How what lies on the bench differs from what the plan expects. */
export interface Found {
  /** Units of a piece that were not there, by piece: one claw of two. */
  readonly cameWithout: Readonly<Record<string, number>>;
  readonly others: readonly OtherPiece[];
}
export const asPlanned: Found = { cameWithout: {}, others: [] };

/** What was said of it at the bench, in order: a later word about a piece takes the place of an earlier one. */
export type FoundEvent =
  | { readonly kind: 'came-without'; readonly pieceId: string; readonly units: number }
  | { readonly kind: 'other-piece'; readonly piece: OtherPiece };

/** What is known after one more thing was said. None missing takes back what was said of the piece. */
export function foundAfter(found: Found, event: FoundEvent): Found {
  if (event.kind === 'other-piece')
    return { ...found, others: [...found.others.filter((o) => o.id !== event.piece.id), event.piece] };
  const { [event.pieceId]: _, ...cameWithout } = found.cameWithout;
  return { ...found, cameWithout: event.units > 0 ? { ...cameWithout, [event.pieceId]: event.units } : cameWithout };
}

/**
 * What was found, where weights say otherwise: what was weighed was there, whoever said that it was not.
 *
 * Shapes  taken: units weighed, by piece.
 */
export function foundDespite(
  found: Found,
  stage: PlanStage,
  animals: number,
  taken: ReadonlyMap<string, number>,
): Found {
  const cameWithout = Object.fromEntries(
    Object.entries(found.cameWithout).flatMap(([id, units]): [string, number][] => {
      const piece = stage.pieces.find((p) => p.id === id);
      const weighed = taken.get(id);
      // a weight of it counts as a unit of it, also where it says that it is more of one
      const there = weighed === undefined ? 0 : Math.max(1, weighed);
      const left = piece === undefined ? 0 : Math.min(units, piece.count * animals - there);
      return left > 0 ? [[id, left]] : [];
    }),
  );
  return { ...found, cameWithout };
}

/** Nobody expects it: of a share so small that the others keep theirs. */
const UNEXPECTED = { mean: 1e-6, sd: 1e-6, provenance: 'estimate', source: 'not in the plan' } as const;

/** The part of a piece that was not there, 0..1. */
const partAway = (stage: PlanStage, found: Found, animals: number, pieceId: string): number => {
  const piece = stage.pieces.find((p) => p.id === pieceId);
  return piece === undefined ? 0 : Math.min(1, (found.cameWithout[pieceId] ?? 0) / (piece.count * animals));
};

/** What each share is multiplied by: what was not there leaves the start to the others. */
const factorsOf = (stage: PlanStage, found: Found, animals: number): ((pieceId: string) => number) => {
  const away = stage.pieces.reduce((sum, p) => sum + p.share.mean * partAway(stage, found, animals, p.id), 0);
  return (pieceId) => (1 - partAway(stage, found, animals, pieceId)) / Math.max(1e-9, 1 - away);
};

/**
 * A stage as it lies there: without what it came without, whose share the others take, and with pieces that the plan does not know,
 * which are expected by nobody.
 *
 * Shapes  found: see Found. rules: what a kind of piece may be used for. Result: pieces in plan order, the others last; a piece of which
 *         some are missing has a smaller count, a fraction where one of several animals lacks it.
 * Keeps   shares and drip add up to 1 (and a millionth for each other piece).
 *
 * @example one of two claws of a crab missing: count 1, half its share, all others a little more
 */
export function stageAsFound(
  stage: PlanStage,
  found: Found,
  animals: number,
  rules: (category: string) => Pick<PlanPiece, 'edible' | 'refused'>,
): PlanStage {
  if (found.others.length === 0 && Object.keys(found.cameWithout).length === 0) return stage;
  const factor = factorsOf(stage, found, animals);
  const pieces = stage.pieces.flatMap((piece): PlanPiece[] => {
    const away = partAway(stage, found, animals, piece.id);
    if (away >= 1) return [];
    const by = factor(piece.id);
    const { units, ...rest } = piece;
    return [
      {
        ...rest,
        count: piece.count * (1 - away),
        share: { ...piece.share, mean: piece.share.mean * by, sd: piece.share.sd * by },
        ...(units === undefined || away > 0 ? {} : { units }),
      },
    ];
  });
  const here = new Set(pieces.map((p) => p.id));
  // the steps stay where they are: what was marked done is marked by its number
  const steps = stage.steps.map(({ guard, ...step }) => {
    const before = guard?.before.filter((id) => here.has(id)) ?? [];
    return {
      ...step,
      ...(guard === undefined || before.length === 0 ? {} : { guard: { ...guard, before } }),
      pieces: step.pieces.filter((id) => here.has(id)),
    };
  });
  const others = found.others.map((other): PlanPiece => {
    const { edible, refused } = rules(other.category);
    // one in all, however many animals lie there; nobody asks for it again
    const count = 1 / animals;
    return { ...other, count, share: UNEXPECTED, alternatives: [], refused, main: false, edible, occasional: true };
  });
  return {
    ...stage,
    steps,
    pieces: [...pieces, ...others],
    drip: { ...stage.drip, mean: stage.drip.mean * factor(''), sd: stage.drip.sd * factor('') },
  };
}

/**
 * What is believed of a piece once more is known of what was found: a belief held of it as it was known before, in the measure of now.
 *
 * Shapes  stage: as planned. Result: undefined where nothing was believed of the piece before (it was thought not to be there).
 */
export function beliefAsFound<B extends ShareBelief>(
  stage: PlanStage,
  belief: B,
  pieceId: string,
  before: Found,
  now: Found,
  animals: number,
): B | undefined {
  const was = factorsOf(stage, before, animals)(pieceId);
  if (was === 0) return undefined;
  const by = factorsOf(stage, now, animals)(pieceId) / was;
  return by === 1 ? belief : { ...belief, mean: belief.mean * by, sd: belief.sd * by };
}
