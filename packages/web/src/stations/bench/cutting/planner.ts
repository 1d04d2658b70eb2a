/** What the ruler asks to be worked out, away from the screen: the ways to cut a piece, and why a wish cannot be met. */
import {
  animalsNeeded,
  type CutRecord,
  type CutWish,
  fitProfile,
  type GradeNeed,
  type HouseShape,
  type MixOption,
  mixOptions,
  type PairedRoll,
  type PieceMeasures,
  type PieceTemplate,
  pairForRolls,
  profileAfter,
  type WishFault,
  wishFaults,
} from '@zabrik/core';

export interface PlanRequest {
  readonly template: PieceTemplate;
  readonly measures: PieceMeasures;
  readonly shape: HouseShape | undefined;
  /** Portions weighed off this piece already. */
  readonly cut: CutRecord['portions'];
  readonly wish: CutWish;
}

export interface Planned {
  readonly options: readonly MixOption[];
  readonly faults: readonly WishFault[];
}

const AIM = 0.5;

export function planPiece({ template, measures, shape, cut, wish }: PlanRequest): Planned {
  const profile = profileAfter(template, measures, shape, cut);
  // aimed at the inner half of the tolerance: knife and form take the other half. Where nothing fits so, all of it
  const aimed = { ...wish, sizes: wish.sizes.map((s) => ({ ...s, toleranceShare: s.toleranceShare * AIM })) };
  const inside = mixOptions(profile, aimed);
  const options = inside.length > 0 ? inside : mixOptions(profile, wish);
  // what cannot be is only asked for where it matters: sizes that no plan has
  const used = new Set(options.flatMap((o) => (o.kind === 'even' ? [] : o.portions.map((p) => p.sizeId))));
  const missing = wish.sizes.filter((s) => !used.has(s.id));
  return {
    options,
    faults: wish.sizes.length > 0 && missing.length === 0 ? [] : wishFaults(profile, { ...wish, sizes: missing }),
  };
}

export interface AnimalsRequest {
  readonly template: PieceTemplate;
  readonly wish: CutWish;
  /** Whole animals, kilograms from and to. */
  readonly grades: readonly { readonly id: string; readonly minMg: number; readonly maxMg: number }[];
  /** What all such pieces of an animal are of it, and how many there are. */
  readonly share: number;
  readonly pieces: number;
  readonly wanted: number;
}

export const countAnimals = ({ template, grades, share, pieces, wish, wanted }: AnimalsRequest): readonly GradeNeed[] =>
  animalsNeeded(template, grades, share, pieces, wish, wanted);

export interface RollsRequest {
  readonly template: PieceTemplate;
  readonly pieces: readonly PieceMeasures[];
  readonly perRoll: number;
}

export const pairRolls = ({ template, pieces, perRoll }: RollsRequest): readonly PairedRoll[] =>
  pairForRolls(
    pieces.map((m) => fitProfile(template, m)),
    perRoll,
  );
