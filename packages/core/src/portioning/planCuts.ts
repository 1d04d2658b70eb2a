import { type CutGrid, layGrid, unevenness } from './cutGrid.ts';
import { asGoodWithout, bestPath, type ChosenArc } from './cutPath.ts';
import { massBetween, type PieceProfile, spreadBetween, upTo } from './pieceProfile.ts';
import type { Zone } from './pieceTemplate.ts';

/** A size of portion somebody wants: what it should weigh, what it is worth, and where on the piece it may come from. */
export interface PortionSize {
  readonly id: string;
  readonly name: string;
  readonly targetMg: number;
  /** 0.05: five in a hundred lighter or heavier still is this size. */
  readonly toleranceShare: number;
  /** Worth of one; minor units. */
  readonly valueMinor: number;
  /** No more than so many from this piece. */
  readonly most?: number | null | undefined;
  /** Left out: from anywhere. */
  readonly from?: readonly Zone[] | undefined;
  /** Millimetres along the piece, between the two cuts. */
  readonly span?: { readonly min: number; readonly max: number } | null | undefined;
  /** Millimetres of flesh from board to top, in the middle of the portion. */
  readonly body?: { readonly min: number; readonly max: number } | null | undefined;
}

export interface CutWish {
  readonly sizes: readonly PortionSize[];
  /** Of the knife, from straight down; degrees. */
  readonly angleDeg: number;
  /** Taken off the thick end, and off the thin one, so that portions begin square. */
  readonly squareMm: readonly [number, number];
  /** What a saw takes with every cut; a knife takes nothing. */
  readonly kerfMm: number;
  /** What stays on knife and board with every portion. */
  readonly clingMg: number;
  /** The thin end: what is left of it is an end, or it is folded under the last portion. */
  readonly tail: 'end' | 'fold';
  /** Worth of what is left over; minor units a kilogram. */
  readonly endMinorPerKg: number;
  /** Places that must be cut whatever else moves. */
  readonly locked?: readonly number[];
  /** What was cut away already. */
  readonly fromMm?: number;
}

export interface PlannedPortion {
  readonly sizeId: string;
  readonly fromMm: number;
  readonly toMm: number;
  readonly massMg: number;
  readonly sdMg: number;
  /** Thickness of the flesh in its middle; millimetres. */
  readonly bodyMm: number;
  /** The thin end lies folded under it. */
  readonly folded: boolean;
}

export interface PlannedEnd {
  readonly fromMm: number;
  readonly toMm: number;
  readonly massMg: number;
}

export interface CutsForWeight {
  readonly portions: readonly PlannedPortion[];
  readonly ends: readonly PlannedEnd[];
  readonly valueMinor: number;
  readonly endMg: number;
  /** Sawdust, and what stays on the knife. */
  readonly lostMg: number;
  /** Over the targets, all portions together. */
  readonly giveAwayMg: number;
}

const MICRO = 1_000_000;

/**
 * Where to put the knife: the portions worth the most over what their flesh is worth as an end; then no odd pieces before or between
 * portions; then heavier sizes before lighter ones; then the least left over and off target together; then the fewest cuts, the heavier
 * portions from the thick end. Of plans that are alike in all of it, one with fewer sizes.
 *
 * Shapes  cuts fall on whole millimetres. sizes: any number; those with a `most` cost time for every one allowed.
 * Units   milligrams, millimetres, minor units.
 * Keeps   portions, ends and what is lost add up to the piece (from `fromMm` on).
 * Source  dynamic programming over (place, how many of each limited size), exact on the grid; judged in whole numbers, so ties are ties.
 */
export function planCuts(profile: PieceProfile, wish: CutWish): CutsForWeight {
  const grid = layGrid(profile, wish);
  const found = bestPath(grid);
  const plan = planOf(profile, wish, grid, found.path);
  const used = new Set(found.path.map(({ arc }) => grid.size[arc] ?? 0));
  if (used.size < 2) return plan;
  for (const s of used) {
    const simpler = asGoodWithout(grid, found, s);
    if (simpler === undefined || !sameWorth(plan, planOf(profile, wish, grid, simpler.path), wish)) continue;
    return planCuts(profile, { ...wish, sizes: grid.sizes.filter((_, i) => i !== s) });
  }
  return plan;
}

/** What is left over and off target, as the plan counts it. */
const spoilt = (plan: CutsForWeight, sizes: readonly PortionSize[]): number =>
  plan.portions.reduce((sum, p) => {
    const size = sizes.find((s) => s.id === p.sizeId);
    return sum + (size === undefined ? 0 : unevenness(size, p.massMg));
  }, plan.endMg);

const sameWorth = (a: CutsForWeight, b: CutsForWeight, { sizes }: CutWish): boolean =>
  a.valueMinor === b.valueMinor && a.ends.length === b.ends.length && spoilt(a, sizes) === spoilt(b, sizes);

function planOf(profile: PieceProfile, wish: CutWish, grid: CutGrid, path: readonly ChosenArc[]): CutsForWeight {
  const { lengthMm, mass } = grid;
  const massOf = (from: number, to: number): number => (mass[to] ?? 0) - (mass[from] ?? 0);
  const portions: PlannedPortion[] = [];
  const ends: PlannedEnd[] = [];
  let [at, lostMg, giveAwayMg, micro] = [grid.startMm, 0, 0, 0];
  const leave = (until: number): void => {
    if (until <= at) return;
    const massMg = massOf(at, until);
    ends.push({ fromMm: at, toMm: until, massMg });
    micro += massMg * wish.endMinorPerKg;
  };
  for (const { from, arc } of path) {
    const size = grid.sizes[grid.size[arc] ?? 0];
    if (size === undefined) continue;
    leave(from);
    const [to, next] = [grid.to[arc] ?? from, grid.next[arc] ?? from];
    const massMg = massOf(from, to) - wish.clingMg;
    lostMg += wish.clingMg + massOf(to, next);
    giveAwayMg += Math.max(0, massMg - size.targetMg);
    micro += size.valueMinor * MICRO;
    portions.push({
      sizeId: size.id,
      fromMm: from,
      toMm: to,
      massMg,
      sdMg: spreadBetween(profile, from, to),
      bodyMm: grid.meanFlesh(from, to),
      folded: wish.tail === 'fold' && to === lengthMm && !profile.template.acrossIsThickness && isTail(profile, from),
    });
    at = next;
  }
  leave(lengthMm);
  return {
    portions,
    ends,
    valueMinor: Math.round(micro / MICRO),
    endMg: ends.reduce((sum, e) => sum + e.massMg, 0),
    lostMg,
    giveAwayMg,
  };
}

/** A portion whose thin end has less than half of the flesh of its thick one. */
const isTail = (profile: PieceProfile, fromMm: number): boolean =>
  (profile.thicknessMm[profile.lengthMm] ?? 0) < 0.5 * (profile.thicknessMm[fromMm] ?? 0);

/**
 * Cuts for n portions as alike as they can be, nothing left over.
 *
 * Keeps   each is a share of the mass, to the millimetre.
 */
export function cutEqually(profile: PieceProfile, n: number, fromMm = 0): readonly number[] {
  const base = upTo(profile, fromMm);
  const whole = profile.massMg - base;
  const cuts: number[] = [];
  let x = fromMm;
  for (let k = 1; k < n; k += 1) {
    const wanted = base + (whole * k) / n;
    while (x < profile.lengthMm && upTo(profile, x + 0.5) < wanted) x += 1;
    cuts.push(x);
  }
  return cuts;
}

/** What marks set by hand give: the portions between them, sized by whichever size is nearest, or an end where none is near. */
export function readMarks(profile: PieceProfile, wish: CutWish, marks: readonly number[]): CutsForWeight {
  const places = [wish.fromMm ?? 0, ...[...marks].sort((a, b) => a - b), profile.lengthMm];
  const portions: PlannedPortion[] = [];
  const ends: PlannedEnd[] = [];
  let [valueMicro, giveAwayMg, lostMg] = [0, 0, 0];
  for (let i = 0; i + 1 < places.length; i += 1) {
    const [fromMm, toMm] = [places[i] ?? 0, places[i + 1] ?? 0];
    if (toMm <= fromMm) continue;
    const massMg = Math.round(massBetween(profile, fromMm, toMm));
    const size = nearestSize(wish.sizes, massMg - wish.clingMg);
    if (size === undefined) {
      ends.push({ fromMm, toMm, massMg });
      valueMicro += massMg * wish.endMinorPerKg;
      continue;
    }
    lostMg += wish.clingMg;
    giveAwayMg += Math.max(0, massMg - wish.clingMg - size.targetMg);
    valueMicro += size.valueMinor * MICRO;
    const middle = Math.round((fromMm + toMm) / 2);
    portions.push({
      sizeId: size.id,
      fromMm,
      toMm,
      massMg: massMg - wish.clingMg,
      sdMg: spreadBetween(profile, fromMm, toMm),
      bodyMm: profile.thicknessMm[middle] ?? 0,
      folded: false,
    });
  }
  return {
    portions,
    ends,
    valueMinor: Math.round(valueMicro / MICRO),
    endMg: ends.reduce((sum, e) => sum + e.massMg, 0),
    lostMg,
    giveAwayMg,
  };
}

/** The size a weight counts as: within its tolerance, and of several the nearest; undefined where it is none of them. */
export function sizeOf(sizes: readonly PortionSize[], massMg: number): PortionSize | undefined {
  return [...sizes]
    .filter((s) => Math.abs(massMg - s.targetMg) <= s.toleranceShare * s.targetMg + 500)
    .sort((a, b) => Math.abs(massMg / a.targetMg - 1) - Math.abs(massMg / b.targetMg - 1))[0];
}

/** The size a portion cut by hand is meant to be: the nearest that is not lighter by a third or heavier by half. */
const nearestSize = (sizes: readonly PortionSize[], massMg: number): PortionSize | undefined =>
  [...sizes]
    .filter((s) => massMg >= (s.targetMg * 2) / 3 && massMg <= s.targetMg * 1.5)
    .sort((a, b) => Math.abs(massMg / a.targetMg - 1) - Math.abs(massMg / b.targetMg - 1))[0];
