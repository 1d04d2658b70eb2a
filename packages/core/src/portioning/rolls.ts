import { mean, standardDeviation } from 'simple-statistics';
import { Refusal } from '../refusal.ts';
import { massBetween, type PieceProfile } from './pieceProfile.ts';

/** One piece in a roll, and which way it lies. */
export interface Laid {
  readonly piece: number;
  /** Its thin end where the first piece's thick end is. */
  readonly turned: boolean;
}

export interface PairedRoll {
  readonly laid: readonly Laid[];
  readonly massMg: number;
  /** Variation of the cross-section along the roll: standard deviation over mean. */
  readonly unevenness: number;
  /** Cross-section along the roll, square millimetres, thick to thin in steps of a twentieth. */
  readonly areaMm2: readonly number[];
}

const STEPS = 20;
/** More than this at once is sorted in the head first: rolls are made in batches. */
export const MOST_LOINS = 12;

/** Cross-section along a piece in twentieths of the roll's length, square millimetres. */
const sections = (profile: PieceProfile, rollMm: number): number[] =>
  Array.from({ length: STEPS }, (_, i) => {
    // a piece shorter than the roll is centred on it
    const start = (rollMm - profile.lengthMm) / 2;
    const [from, to] = [(i * rollMm) / STEPS - start, ((i + 1) * rollMm) / STEPS - start];
    return massBetween(profile, from, to) / profile.template.density / (rollMm / STEPS);
  });

const judge = (profiles: readonly PieceProfile[], laid: readonly Laid[]): PairedRoll => {
  const rollMm = Math.max(...laid.map((l) => profiles[l.piece]?.lengthMm ?? 0));
  const areaMm2 = new Array<number>(STEPS).fill(0);
  let massMg = 0;
  for (const { piece, turned } of laid) {
    const profile = profiles[piece];
    if (profile === undefined) continue;
    massMg += profile.massMg;
    const own = sections(profile, rollMm);
    for (let i = 0; i < STEPS; i += 1) areaMm2[i] = (areaMm2[i] ?? 0) + (own[turned ? STEPS - 1 - i : i] ?? 0);
  }
  const even = mean(areaMm2);
  return { laid, massMg, unevenness: even > 0 ? standardDeviation(areaMm2) / even : 0, areaMm2 };
};

/** The best way to lay these pieces together: every way of turning them is tried, the first stays as it is. */
export function layTogether(profiles: readonly PieceProfile[], pieces: readonly number[]): PairedRoll {
  const [first, ...others] = pieces;
  if (first === undefined) throw new Refusal('no_pieces');
  let best: PairedRoll | undefined;
  for (let turns = 0; turns < 2 ** others.length; turns += 1) {
    const roll = judge(profiles, [
      { piece: first, turned: false },
      ...others.map((piece, i) => ({ piece, turned: ((turns >> i) & 1) === 1 })),
    ]);
    if (best === undefined || roll.unevenness < best.unevenness - 1e-12) best = roll;
  }
  if (best === undefined) throw new Refusal('no_pieces');
  return best;
}

/**
 * Which pieces go together, `perRoll` to a roll, and which way each lies, so that rolls are even along themselves and alike in mass.
 * What does not fill a roll is left over: the pieces whose absence serves the rest best.
 *
 * Shapes  profiles: 1 to MOST_LOINS. Result: floor(n / perRoll) rolls.
 * Keeps   the sum of squares of (unevenness, mass against the mean roll) is the least there is.
 * Errors  `no_pieces`; `too_many_pieces` above MOST_LOINS.
 * Source  dynamic programming over sets of pieces, each step placing the first piece not placed yet.
 */
export function pairForRolls(profiles: readonly PieceProfile[], perRoll: number): readonly PairedRoll[] {
  const n = profiles.length;
  if (n === 0 || perRoll < 1) throw new Refusal('no_pieces');
  if (n > MOST_LOINS) throw new Refusal('too_many_pieces', { n, most: MOST_LOINS });
  const rolls = Math.floor(n / perRoll);
  if (rolls === 0) return [];
  const spare = n - rolls * perRoll;
  const meanMg = (profiles.reduce((sum, p) => sum + p.massMg, 0) / n) * perRoll;
  const costOf = new Map<number, { readonly roll: PairedRoll; readonly cost: number }>();
  const priced = (set: number): { readonly roll: PairedRoll; readonly cost: number } => {
    const known = costOf.get(set);
    if (known !== undefined) return known;
    const roll = layTogether(
      profiles,
      Array.from({ length: n }, (_, i) => i).filter((i) => (set >> i) & 1),
    );
    const made = { roll, cost: roll.unevenness ** 2 + (roll.massMg / meanMg - 1) ** 2 };
    costOf.set(set, made);
    return made;
  };
  /** Every way to add `more` of the pieces from `next` on to a set. */
  function* sets(set: number, next: number, more: number, free: number): Generator<number> {
    if (more === 0) {
      yield set;
      return;
    }
    for (let i = next; i < n; i += 1) if ((free >> i) & 1) yield* sets(set | (1 << i), i + 1, more - 1, free);
  }
  interface Best {
    readonly cost: number;
    readonly sets: readonly number[];
  }
  const memo = new Map<number, Best>();
  const solve = (free: number, spareLeft: number): Best => {
    const first = Array.from({ length: n }, (_, i) => i).find((i) => (free >> i) & 1);
    if (first === undefined) return { cost: 0, sets: [] };
    const known = memo.get(free);
    if (known !== undefined) return known;
    let best: Best = { cost: Number.POSITIVE_INFINITY, sets: [] };
    for (const set of sets(1 << first, first + 1, perRoll - 1, free)) {
      const rest = solve(free & ~set, spareLeft);
      const cost = priced(set).cost + rest.cost;
      if (cost < best.cost) best = { cost, sets: [set, ...rest.sets] };
    }
    if (spareLeft > 0) {
      const rest = solve(free & ~(1 << first), spareLeft - 1);
      if (rest.cost < best.cost) best = rest;
    }
    memo.set(free, best);
    return best;
  };
  return solve(2 ** n - 1, spare).sets.map((set) => priced(set).roll);
}

export interface RollWish {
  /** Pieces that form it, added up: cross-section at its middle, length and mass. */
  readonly massMg: number;
  readonly lengthMm: number;
  readonly density: number;
  /** Inner fillets or a filling laid in the middle. */
  readonly coreMg: number;
  /** What it is wrapped in: nothing, its own flap, or sheets (bacon, caul, leaf) of a size. */
  readonly wrap:
    | { readonly kind: 'none' }
    | { readonly kind: 'flap'; readonly widthMm: number; readonly lengthMm: number }
    | { readonly kind: 'sheet'; readonly widthMm: number; readonly lengthMm: number; readonly thicknessMm: number };
  /** How much of the way round lies double. */
  readonly overlapShare: number;
  readonly tieSpacingMm: number;
  /** Hours it rests chilled so that it cuts clean; from the house. */
  readonly rest: { readonly minHours: number; readonly maxHours: number };
  /** Lost while it rests. */
  readonly dripShare: number;
  readonly targetMg: number;
  readonly toleranceShare: number;
}

export interface RollPlan {
  readonly massMg: number;
  readonly diameterMm: number;
  /** Once round, with what lies double. */
  readonly wrapLengthMm: number;
  /** A flap is cut to this width and length; what comes off. */
  readonly flap?: {
    readonly widthMm: number;
    readonly lengthMm: number;
    readonly trimShare: number;
    readonly enough: boolean;
  };
  /** Sheets side by side along the roll, each going round in so many. */
  readonly sheets?: { readonly across: number; readonly roundEach: number; readonly count: number };
  /** From one end; millimetres. */
  readonly ties: readonly number[];
  readonly restedMg: number;
  readonly portions: number;
  readonly portionMg: number;
  readonly portionMm: number;
  readonly inTolerance: boolean;
}

/**
 * A roll from its mass and length: how thick, how much to wrap round it, where to tie it, and what it gives after its rest.
 *
 * Keeps   portions x portion mass is the rested roll.
 * Errors  `not_a_mass`, `not_a_length`.
 */
export function planRoll(wish: RollWish): RollPlan {
  if (!(wish.massMg > 0)) throw new Refusal('not_a_mass', { text: String(wish.massMg) });
  if (!(wish.lengthMm > 0)) throw new Refusal('not_a_length', { lengthMm: wish.lengthMm });
  const massMg = wish.massMg + Math.max(0, wish.coreMg);
  const areaMm2 = massMg / wish.density / wish.lengthMm;
  const diameterMm = 2 * Math.sqrt(areaMm2 / Math.PI);
  const thickness = wish.wrap.kind === 'sheet' ? wish.wrap.thicknessMm : 0;
  const wrapLengthMm = Math.PI * (diameterMm + thickness) * (1 + wish.overlapShare);
  const spacing = Math.max(5, wish.tieSpacingMm);
  const gaps = Math.max(1, Math.round(wish.lengthMm / spacing));
  // as many gaps as come nearest to the spacing, the outer ties half a gap from the ends
  const ties = Array.from({ length: gaps }, (_, i) => Math.round(((i + 0.5) * wish.lengthMm) / gaps));
  const restedMg = massMg * (1 - wish.dripShare);
  const portions = Math.max(1, Math.round(restedMg / wish.targetMg));
  const portionMg = restedMg / portions;
  const { wrap } = wish;
  return {
    massMg,
    diameterMm,
    wrapLengthMm,
    ...(wrap.kind === 'flap'
      ? {
          flap: {
            widthMm: Math.min(wrap.widthMm, wrapLengthMm),
            lengthMm: Math.min(wrap.lengthMm, wish.lengthMm),
            trimShare:
              1 -
              (Math.min(wrap.widthMm, wrapLengthMm) * Math.min(wrap.lengthMm, wish.lengthMm)) /
                (wrap.widthMm * wrap.lengthMm),
            enough: wrap.widthMm >= wrapLengthMm && wrap.lengthMm >= wish.lengthMm - 1,
          },
        }
      : {}),
    ...(wrap.kind === 'sheet'
      ? {
          sheets: ((): NonNullable<RollPlan['sheets']> => {
            // neighbours lie over each other by a tenth
            const across = Math.max(1, Math.ceil(wish.lengthMm / (wrap.widthMm * 0.9) - 1e-9));
            const roundEach = Math.max(1, Math.ceil(wrapLengthMm / wrap.lengthMm - 1e-9));
            return { across, roundEach, count: across * roundEach };
          })(),
        }
      : {}),
    ties,
    restedMg,
    portions,
    portionMg,
    portionMm: wish.lengthMm / portions,
    inTolerance: Math.abs(portionMg / wish.targetMg - 1) <= wish.toleranceShare,
  };
}
