import type { PieceProfile } from './pieceProfile.ts';
import type { CutWish, PortionSize } from './planCuts.ts';

/**
 * A wish laid on a piece, millimetre by millimetre: every portion that could be cut, as an arc from one place to another. Arcs of one
 * place stand together; arc k of place x is one of `first[x] <= k < first[x + 1]`.
 */
export interface CutGrid {
  readonly lengthMm: number;
  readonly startMm: number;
  readonly sizes: readonly PortionSize[];
  /** Whole milligrams on the near side of each place. */
  readonly mass: Float64Array;
  readonly first: Int32Array;
  readonly size: Int16Array;
  readonly to: Int32Array;
  /** Where the next portion may begin: behind what the saw took. */
  readonly next: Int32Array;
  /** What being off its target counts for, in milligrams left over; whole. */
  readonly uneven: Float64Array;
  /** Of a portion of each size: its worth over that of the same flesh left over, in millionths of a minor unit, whole. */
  readonly worth: readonly number[];
  /** Mean thickness of the flesh between two places. */
  readonly meanFlesh: (from: number, to: number) => number;
}

/**
 * Mass on the near side of a knife held at an angle through the middle of a place: an inclined cut averages the straight ones across
 * the piece. Exact for a rectangular section that does not change within the slope.
 */
function slantedMass(profile: PieceProfile, angleDeg: number): number[] {
  const slope = Math.tan((Math.abs(angleDeg) * Math.PI) / 180);
  const { lengthMm } = profile;
  const whole = profile.upToMg[lengthMm] ?? 0;
  if (slope === 0) return profile.upToMg.map((mg) => Math.round(mg));
  // integral of the mass up to each millimetre, so that an average is one difference
  const sums = new Array<number>(lengthMm + 1).fill(0);
  for (let i = 0; i < lengthMm; i += 1)
    sums[i + 1] = (sums[i] ?? 0) + ((profile.upToMg[i] ?? 0) + (profile.upToMg[i + 1] ?? 0)) / 2;
  const integral = (mm: number): number => {
    if (mm <= 0) return 0;
    if (mm >= lengthMm) return (sums[lengthMm] ?? 0) + (mm - lengthMm) * whole;
    const i = Math.floor(mm);
    const [left, right] = [profile.upToMg[i] ?? 0, profile.upToMg[i + 1] ?? 0];
    const rest = mm - i;
    return (sums[i] ?? 0) + left * rest + ((right - left) * rest * rest) / 2;
  };
  let before = 0;
  return profile.upToMg.map((_, i) => {
    if (i === 0) return 0;
    if (i === lengthMm) return Math.round(whole);
    const half = ((profile.thicknessMm[i] ?? 0) / 2) * slope;
    const mg = half < 0.25 ? (profile.upToMg[i] ?? 0) : (integral(i + half) - integral(i - half)) / (2 * half);
    before = Math.min(Math.max(before, Math.round(mg)), Math.round(whole));
    return before;
  });
}

/** How far along an inclined knife has to start so that it leaves the board's end square. */
const wedgeMm = (profile: PieceProfile, at: number, angleDeg: number): number =>
  Math.ceil(((profile.thicknessMm[at] ?? 0) / 2) * Math.tan((Math.abs(angleDeg) * Math.PI) / 180));

/** A portion a hundredth off its target is as bad as so many hundredths of half of it left over. */
const SHARP = 50;
/**
 * How unlike its target a portion is, in milligrams of end: a little over or under to leave less is fine, much is not. At 160 g an end
 * is shared out until portions are 1.6 g over; what is more stays an end. Whole, so that ties are ties.
 */
export const unevenness = (size: PortionSize, massMg: number): number =>
  Math.round((SHARP * (massMg - size.targetMg) ** 2) / size.targetMg);

/** Whether a place of the piece lies in one of a size's zones, for places in half millimetres; undefined where it may lie anywhere. */
function zoneOf(profile: PieceProfile, size: PortionSize): Uint8Array | undefined {
  const { lengthMm } = profile;
  if (size.from === undefined || size.from.length === 0 || profile.template.alike === true) return undefined;
  const allowed = new Uint8Array(2 * lengthMm + 1);
  for (const zone of size.from) {
    const [from, to] = profile.template.zones[zone];
    for (let twice = Math.ceil(from * 2 * lengthMm); twice <= Math.floor(to * 2 * lengthMm); twice += 1)
      allowed[twice] = 1;
  }
  return allowed;
}

const MICRO = 1_000_000;

/** Lays a wish on a piece. Places are whole millimetres from the thick end. */
export function layGrid(profile: PieceProfile, wish: CutWish): CutGrid {
  const { lengthMm } = profile;
  const mass = slantedMass(profile, wish.angleDeg);
  const startMm = Math.min(lengthMm, Math.max(0, Math.round(wish.fromMm ?? 0)));
  const squareHead = startMm === 0 && wish.squareMm[0] > 0 ? wish.squareMm[0] + wedgeMm(profile, 0, wish.angleDeg) : 0;
  const squareTail = wish.squareMm[1] > 0 ? wish.squareMm[1] + wedgeMm(profile, lengthMm, wish.angleDeg) : 0;
  const firstCut = Math.min(lengthMm, startMm + squareHead);
  const lastCut = Math.max(firstCut, lengthMm - squareTail);
  const kerf = Math.max(0, Math.round(wish.kerfMm));
  const locks = (wish.locked ?? [])
    .map(Math.round)
    .filter((l) => l > startMm && l < lengthMm)
    .sort((a, b) => a - b);
  const sizes = wish.sizes.filter((s) => s.targetMg > 0 && s.most !== 0);

  // flesh under each millimetre, added up: the mean over a portion is one difference
  const flesh = new Float64Array(lengthMm + 2);
  for (let i = 0; i <= lengthMm; i += 1) flesh[i + 1] = (flesh[i] ?? 0) + (profile.thicknessMm[i] ?? 0);
  const meanFlesh = (from: number, to: number): number =>
    ((flesh[to] ?? 0) - (flesh[from] ?? 0)) / Math.max(1, to - from);
  const thickEnough = (size: PortionSize, x: number, y: number): boolean => {
    if (size.body == null) return true;
    const thick = meanFlesh(x, y);
    const folded = wish.tail === 'fold' && y === lengthMm;
    return thick <= size.body.max && (thick >= size.body.min || (folded && 2 * thick >= size.body.min));
  };

  const first = new Int32Array(lengthMm + 2);
  const arcs = { size: [] as number[], to: [] as number[], next: [] as number[], uneven: [] as number[] };
  const zone = sizes.map((size) => zoneOf(profile, size));
  const low = sizes.map(() => 0);
  const high = sizes.map(() => 0);
  let nextLock = 0;
  for (let x = 0; x <= lengthMm; x += 1) {
    first[x] = arcs.to.length;
    while (nextLock < locks.length && (locks[nextLock] ?? 0) <= x) nextLock += 1;
    const base = mass[x] ?? 0;
    const barrier = Math.min(locks[nextLock] ?? lengthMm, squareTail > 0 ? lastCut : lengthMm);
    for (const [s, size] of sizes.entries()) {
      // the window moves on with x, so the whole piece is looked through once a size
      const slack = Math.max(0, size.toleranceShare) * size.targetMg + 0.5;
      let [a, b] = [Math.max(low[s] ?? 0, x + 1), Math.max(high[s] ?? 0, x)];
      while (a <= lengthMm && (mass[a] ?? 0) - base < size.targetMg - slack + wish.clingMg) a += 1;
      while (b < lengthMm && (mass[b + 1] ?? 0) - base <= size.targetMg + slack + wish.clingMg) b += 1;
      low[s] = a;
      high[s] = b;
      if (x < firstCut || x > lastCut) continue;
      const until = Math.min(b, barrier, x + Math.floor(size.span?.max ?? lengthMm));
      for (let y = Math.max(a, x + Math.ceil(size.span?.min ?? 1)); y <= until; y += 1) {
        if (zone[s] !== undefined && zone[s]?.[x + y] !== 1) continue;
        if (!thickEnough(size, x, y)) continue;
        arcs.size.push(s);
        arcs.to.push(y);
        arcs.next.push(y === lengthMm ? y : Math.min(lengthMm, y + kerf));
        arcs.uneven.push(unevenness(size, (mass[y] ?? 0) - base - wish.clingMg));
      }
    }
  }
  first[lengthMm + 1] = arcs.to.length;
  return {
    lengthMm,
    startMm,
    sizes,
    mass: Float64Array.from(mass),
    first,
    size: Int16Array.from(arcs.size),
    to: Int32Array.from(arcs.to),
    next: Int32Array.from(arcs.next),
    uneven: Float64Array.from(arcs.uneven),
    worth: sizes.map((s) => Math.round(s.valueMinor * MICRO - s.targetMg * wish.endMinorPerKg)),
    meanFlesh,
  };
}
