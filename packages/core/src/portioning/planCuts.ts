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
  readonly most?: number | null;
  /** Left out: from anywhere. */
  readonly from?: readonly Zone[];
  /** Millimetres along the piece, between the two cuts. */
  readonly span?: { readonly min: number; readonly max: number } | null;
  /** Millimetres of flesh from board to top, in the middle of the portion. */
  readonly body?: { readonly min: number; readonly max: number } | null;
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

interface Window {
  readonly low: Int32Array;
  readonly high: Int32Array;
}

const NEVER = -1;
const MICRO = 1_000_000;
/** A portion more weighs more in the order of plans than any place of it. */
const ONE_MORE = 1e12;

/**
 * Where to put the knife: the portions worth the most over what their flesh is worth as an end; then no odd pieces before or between
 * portions, then the least left over at the thin end; then as even as can be, with the fewest cuts, the heavier ones from the thick
 * end. Of plans that are alike in all of it, one with fewer sizes.
 *
 * Shapes  cuts fall on whole millimetres. sizes: any number; those with a `most` cost time for every one allowed.
 * Units   milligrams, millimetres, minor units.
 * Keeps   portions, ends and what is lost add up to the piece (from `fromMm` on).
 * Source  dynamic programming over (place, how many of each limited size), exact on the grid; judged in whole numbers, so ties are ties.
 */
export function planCuts(profile: PieceProfile, wish: CutWish): CutsForWeight {
  const best = solve(profile, wish);
  const used = new Set(best.portions.map((p) => p.sizeId));
  if (used.size < 2) return best;
  for (const id of used) {
    const simpler = solve(profile, { ...wish, sizes: wish.sizes.filter((s) => used.has(s.id) && s.id !== id) });
    if (sameWorth(best, simpler, wish))
      return planCuts(profile, { ...wish, sizes: wish.sizes.filter((s) => s.id !== id) });
  }
  return best;
}

const unevenness = (size: PortionSize, massMg: number): number =>
  Math.round(((massMg - size.targetMg) / size.targetMg) ** 2 * 1e9);

function sameWorth(a: CutsForWeight, b: CutsForWeight, wish: CutWish): boolean {
  const uneven = (plan: CutsForWeight): number =>
    plan.portions.reduce((sum, p) => {
      const size = wish.sizes.find((s) => s.id === p.sizeId);
      return sum + (size === undefined ? 0 : unevenness(size, p.massMg));
    }, 0);
  return (
    a.valueMinor === b.valueMinor && a.endMg === b.endMg && a.ends.length === b.ends.length && uneven(a) === uneven(b)
  );
}

function solve(profile: PieceProfile, wish: CutWish): CutsForWeight {
  const { lengthMm } = profile;
  const mass = Float64Array.from(slantedMass(profile, wish.angleDeg));
  const start = Math.min(lengthMm, Math.max(0, Math.round(wish.fromMm ?? 0)));
  const squareHead = start === 0 && wish.squareMm[0] > 0 ? wish.squareMm[0] + wedgeMm(profile, 0, wish.angleDeg) : 0;
  const squareTail = wish.squareMm[1] > 0 ? wish.squareMm[1] + wedgeMm(profile, lengthMm, wish.angleDeg) : 0;
  const firstCut = Math.min(lengthMm, start + squareHead);
  const lastCut = Math.max(firstCut, lengthMm - squareTail);
  const kerf = Math.max(0, Math.round(wish.kerfMm));
  const locks = [...new Set((wish.locked ?? []).map(Math.round))]
    .filter((l) => l > start && l < lengthMm)
    .sort((a, b) => a - b);
  const isLock = new Uint8Array(lengthMm + 2);
  for (const l of locks) isLock[l] = 1;
  const sizes = wish.sizes.filter((s) => s.targetMg > 0 && s.most !== 0);

  // whole numbers: what a portion is worth more than the same flesh left over
  const worth = sizes.map((s) => Math.round(s.valueMinor * MICRO - s.targetMg * wish.endMinorPerKg));
  // flesh under each millimetre, added up: the mean over a portion is one difference
  const flesh = new Float64Array(lengthMm + 2);
  for (let i = 0; i <= lengthMm; i += 1) flesh[i + 1] = (flesh[i] ?? 0) + (profile.thicknessMm[i] ?? 0);
  const meanFlesh = (from: number, to: number): number =>
    ((flesh[to] ?? 0) - (flesh[from] ?? 0)) / Math.max(1, to - from);

  const windows = sizes.map((size): Window => {
    const slack = Math.max(0, size.toleranceShare) * size.targetMg;
    const [light, heavy] = [size.targetMg - slack + wish.clingMg, size.targetMg + slack + wish.clingMg];
    const low = new Int32Array(lengthMm + 1);
    const high = new Int32Array(lengthMm + 1);
    let [a, b] = [0, 0];
    for (let x = 0; x <= lengthMm; x += 1) {
      const base = mass[x] ?? 0;
      a = Math.max(a, x + 1);
      b = Math.max(b, x);
      while (a <= lengthMm && (mass[a] ?? 0) - base < light - 0.5) a += 1;
      while (b < lengthMm && (mass[b + 1] ?? 0) - base <= heavy + 0.5) b += 1;
      low[x] = Math.max(a, x + Math.ceil(size.span?.min ?? 1));
      high[x] = Math.min(b, x + Math.floor(size.span?.max ?? lengthMm));
    }
    return { low, high };
  });
  const inZone = sizes.map((size): Uint8Array | undefined => {
    if (size.from === undefined || size.from.length === 0) return undefined;
    const allowed = new Uint8Array(2 * lengthMm + 1);
    for (let twice = 0; twice <= 2 * lengthMm; twice += 1) {
      const share = twice / 2 / lengthMm;
      if (
        size.from.some((zone) => {
          const [from, to] = profile.template.zones[zone];
          return share >= from && share <= to;
        })
      )
        allowed[twice] = 1;
    }
    return allowed;
  });

  // how many of each limited size are taken already: one mixed number
  const radix: number[] = [];
  let counts = 1;
  for (const size of sizes) {
    const slack = size.targetMg * (1 - Math.max(0, size.toleranceShare));
    const could = Math.floor((mass[lengthMm] ?? 0) / Math.max(1, slack));
    const limited = size.most !== undefined && size.most !== null && size.most < could;
    radix.push(limited ? counts : 0);
    if (limited) counts *= (size.most ?? 0) + 1;
  }
  const takenOf = (c: number, s: number): number => {
    const step = radix[s] ?? 0;
    return step === 0 ? 0 : Math.floor(c / step) % ((sizes[s]?.most ?? 0) + 1);
  };
  const width = lengthMm + 1;
  const states = counts * 2 * width;
  const value = new Float64Array(states).fill(Number.NEGATIVE_INFINITY);
  const left = new Float64Array(states);
  /** Odd pieces: left over before or between portions. */
  const ends = new Int32Array(states);
  const uneven = new Float64Array(states);
  const order = new Float64Array(states);
  const cameFrom = new Int32Array(states).fill(NEVER);
  const bySize = new Int16Array(states).fill(NEVER);
  const endedAt = new Int32Array(states);
  const at = (c: number, skipping: number, x: number): number => (c * 2 + skipping) * width + x;

  const offer = (
    to: number,
    from: number,
    size: number,
    end: number,
    v: number,
    l: number,
    e: number,
    u: number,
    o: number,
  ): void => {
    const now = value[to] ?? 0;
    if (v < now) return;
    if (v === now) {
      const better = e - (ends[to] ?? 0) || l - (left[to] ?? 0) || u - (uneven[to] ?? 0) || o - (order[to] ?? 0);
      if (better >= 0) return;
    }
    value[to] = v;
    left[to] = l;
    ends[to] = e;
    uneven[to] = u;
    order[to] = o;
    cameFrom[to] = from;
    bySize[to] = size;
    endedAt[to] = end;
  };

  value[at(0, 0, start)] = 0;
  let nextLock = 0;
  for (let x = start; x < lengthMm; x += 1) {
    while (nextLock < locks.length && (locks[nextLock] ?? 0) <= x) nextLock += 1;
    const barrier = locks[nextLock] ?? lengthMm;
    for (let c = 0; c < counts; c += 1) {
      for (let skipping = 0; skipping < 2; skipping += 1) {
        const here = at(c, skipping, x);
        const v = value[here] ?? Number.NEGATIVE_INFINITY;
        if (v === Number.NEGATIVE_INFINITY) continue;
        const [l, e, u, o] = [left[here] ?? 0, ends[here] ?? 0, uneven[here] ?? 0, order[here] ?? 0];
        const thrown = (mass[x + 1] ?? 0) - (mass[x] ?? 0);
        offer(at(c, 1, x + 1), here, NEVER, x + 1, v, l + thrown, e, u, o);
        if (x < firstCut || x > lastCut) continue;
        for (let s = 0; s < sizes.length; s += 1) {
          const size = sizes[s];
          const window = windows[s];
          if (size === undefined || window === undefined) continue;
          const step = radix[s] ?? 0;
          if (step > 0 && takenOf(c, s) >= (size.most ?? 0)) continue;
          const to = Math.min(window.high[x] ?? 0, barrier, squareTail > 0 ? lastCut : lengthMm);
          const zone = inZone[s];
          for (let y = window.low[x] ?? lengthMm + 1; y <= to; y += 1) {
            if (zone !== undefined && zone[x + y] !== 1) continue;
            if (size.body != null) {
              const thick = meanFlesh(x, y);
              const folded = wish.tail === 'fold' && y === lengthMm;
              if (thick > size.body.max || (thick < size.body.min && !(folded && 2 * thick >= size.body.min))) continue;
            }
            const portion = (mass[y] ?? 0) - (mass[x] ?? 0) - wish.clingMg;
            const next = y === lengthMm ? y : Math.min(lengthMm, y + kerf);
            offer(
              at(c + step, 0, next),
              here,
              s,
              y,
              v + (worth[s] ?? 0),
              l,
              e + skipping,
              u + unevenness(size, portion),
              o + ONE_MORE + Math.round(size.targetMg / 1_000) ** 2 * x,
            );
          }
        }
      }
    }
  }

  let best = NEVER;
  for (let c = 0; c < counts; c += 1)
    for (let skipping = 0; skipping < 2; skipping += 1) {
      const here = at(c, skipping, lengthMm);
      if ((value[here] ?? 0) === Number.NEGATIVE_INFINITY) continue;
      if (best === NEVER) {
        best = here;
        continue;
      }
      const better =
        (value[best] ?? 0) - (value[here] ?? 0) ||
        (ends[here] ?? 0) - (ends[best] ?? 0) ||
        (left[here] ?? 0) - (left[best] ?? 0) ||
        (uneven[here] ?? 0) - (uneven[best] ?? 0) ||
        (order[here] ?? 0) - (order[best] ?? 0);
      if (better < 0) best = here;
    }

  const portions: PlannedPortion[] = [];
  const cutEnds: PlannedEnd[] = [];
  let lostMg = 0;
  let giveAwayMg = 0;
  let end: { fromMm: number; toMm: number } | undefined;
  const closeEnd = (): void => {
    if (end !== undefined) cutEnds.push({ ...end, massMg: (mass[end.toMm] ?? 0) - (mass[end.fromMm] ?? 0) });
    end = undefined;
  };
  for (let here = best; here !== NEVER && (cameFrom[here] ?? NEVER) !== NEVER; here = cameFrom[here] ?? NEVER) {
    const from = cameFrom[here] ?? 0;
    const [x, next] = [from % width, here % width];
    const size = sizes[bySize[here] ?? NEVER];
    if (size === undefined) {
      if (end !== undefined && isLock[next] === 1) closeEnd();
      end = { fromMm: x, toMm: end?.toMm ?? next };
      continue;
    }
    closeEnd();
    const y = endedAt[here] ?? next;
    const massMg = (mass[y] ?? 0) - (mass[x] ?? 0) - wish.clingMg;
    lostMg += wish.clingMg + (mass[next] ?? 0) - (mass[y] ?? 0);
    giveAwayMg += Math.max(0, massMg - size.targetMg);
    portions.push({
      sizeId: size.id,
      fromMm: x,
      toMm: y,
      massMg,
      sdMg: spreadBetween(profile, x, y),
      bodyMm: meanFlesh(x, y),
      folded:
        wish.tail === 'fold' && y === lengthMm && profile.template.acrossIsThickness === false && isTail(profile, x),
    });
  }
  closeEnd();
  return {
    portions: portions.reverse(),
    ends: cutEnds.reverse(),
    valueMinor: Math.round(
      (portions.reduce((sum, p) => sum + (sizes.find((s) => s.id === p.sizeId)?.valueMinor ?? 0) * MICRO, 0) +
        (left[best] ?? 0) * wish.endMinorPerKg) /
        MICRO,
    ),
    endMg: left[best] ?? 0,
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

/** The size a portion cut by hand is meant to be: nearest within a third. */
const nearestSize = (sizes: readonly PortionSize[], massMg: number): PortionSize | undefined =>
  [...sizes]
    .filter((s) => Math.abs(massMg / s.targetMg - 1) <= 1 / 3)
    .sort((a, b) => Math.abs(massMg / a.targetMg - 1) - Math.abs(massMg / b.targetMg - 1))[0];
