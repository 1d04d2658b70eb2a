import type { CutGrid } from './cutGrid.ts';

/** A portion on the way along a piece. */
export interface ChosenArc {
  readonly from: number;
  readonly arc: number;
}

const NONE = -1;
/** A portion more counts for more in the order of plans than any place of it. */
const ONE_MORE = 1e12;
/** How many unfinished plans are kept at each place when a first good plan is looked for. */
const BEAM = 2;

/** The most that could still be made from each place on if no size were limited; without one of them, if asked. */
function couldStill(grid: CutGrid, without = NONE): Float64Array {
  const most = new Float64Array(grid.lengthMm + 1);
  for (let x = grid.lengthMm - 1; x >= grid.startMm; x -= 1) {
    let best = most[x + 1] ?? 0;
    for (let k = grid.first[x] ?? 0; k < (grid.first[x + 1] ?? 0); k += 1) {
      const s = grid.size[k] ?? 0;
      if (s === without) continue;
      const worth = (grid.worth[s] ?? 0) + (most[grid.next[k] ?? 0] ?? 0);
      if (worth > best) best = worth;
    }
    most[x] = best;
  }
  return most;
}

/** Plans so far, one a state: columns of numbers, because there may be a hundred thousand of them. */
interface Plans {
  readonly value: number[];
  readonly odd: number[];
  /** How often a heavier portion follows a lighter one. */
  readonly turns: number[];
  readonly spoil: number[];
  readonly order: number[];
  readonly key: number[];
  readonly place: number[];
  readonly cameFrom: number[];
  readonly arc: number[];
  /** The next plan that ends at the same place. */
  readonly beside: number[];
}

/** Negative when a is the better one: more worth, fewer odd pieces, sizes in falling order, less spoilt, fewer and thicker-end-first. */
const compare = (p: Plans, a: number, b: number): number =>
  (p.value[b] ?? 0) - (p.value[a] ?? 0) ||
  (p.odd[a] ?? 0) - (p.odd[b] ?? 0) ||
  (p.turns[a] ?? 0) - (p.turns[b] ?? 0) ||
  (p.spoil[a] ?? 0) - (p.spoil[b] ?? 0) ||
  (p.order[a] ?? 0) - (p.order[b] ?? 0);

/** A way along a piece, with what it is worth and how many odd pieces it leaves. */
export interface Found {
  readonly path: readonly ChosenArc[];
  readonly value: number;
  readonly odd: number;
}

interface How {
  /** Only plans that can still be as good as this one are followed. */
  readonly floor?: Pick<Found, 'value' | 'odd'>;
  /** Only so many of a place are. */
  readonly beam?: number;
  /** A size left out. */
  readonly without?: number;
}

/**
 * The best way along a grid, by dynamic programming over (place, how many of each limited size were taken, the size before, whether
 * flesh is being left).
 *
 * With limits, first a beam of good plans gives one that can be had; then every plan is followed that could still be as good, judged by
 * what the rest of the piece gives without limits. So the answer is exact, and most of what cannot win is never looked at.
 */
export function bestPath(grid: CutGrid): Found {
  const radix = limitsOf(grid);
  // whoever keeps to the limits unasked is the best of those who must
  const free = follow(
    grid,
    grid.sizes.map(() => 0),
  );
  if (radix.every((step) => step === 0) || keepsLimits(grid, free.path)) return free;
  return follow(grid, radix, { floor: follow(grid, radix, { beam: BEAM }) });
}

/** The best way that leaves one size out, where it is worth as much and has no more odd pieces; undefined where there is none. */
export function asGoodWithout(grid: CutGrid, found: Found, without: number): Found | undefined {
  // mostly it is worth less whatever else is done: nothing to try
  if ((couldStill(grid, without)[grid.startMm] ?? 0) < found.value) return undefined;
  const other = follow(grid, limitsOf(grid), { floor: found, without });
  return other.value === found.value && other.odd === found.odd ? other : undefined;
}

/** Limited sizes count in one mixed number: the step of each in it, 0 where a size is not limited. */
function limitsOf(grid: CutGrid): number[] {
  let step = 1;
  return grid.sizes.map((size) => {
    const lightest = size.targetMg * (1 - Math.max(0, size.toleranceShare));
    const could = Math.floor((grid.mass[grid.lengthMm] ?? 0) / Math.max(1, lightest));
    if (size.most === undefined || size.most === null || size.most >= could) return 0;
    const mine = step;
    step *= size.most + 1;
    return mine;
  });
}

function keepsLimits(grid: CutGrid, path: readonly ChosenArc[]): boolean {
  const taken = grid.sizes.map(() => 0);
  for (const { arc } of path) taken[grid.size[arc] ?? 0] = (taken[grid.size[arc] ?? 0] ?? 0) + 1;
  return grid.sizes.every((size, s) => (taken[s] ?? 0) <= (size.most ?? Number.POSITIVE_INFINITY));
}

/** Up to so many places in the table of states; beyond it a map, slower and smaller. */
const LARGEST_TABLE = 6_000_000;

/** Which plan stands at a place with these counts. */
function slots(states: number): { get(at: number): number; set(at: number, plan: number): void } {
  if (states > LARGEST_TABLE) {
    const map = new Map<number, number>();
    return { get: (at) => map.get(at) ?? NONE, set: (at, plan) => void map.set(at, plan) };
  }
  const table = new Int32Array(states); // plan + 1, so that a fresh table is an empty one
  return {
    get: (at) => (table[at] ?? 0) - 1,
    set: (at, plan) => {
      table[at] = plan + 1;
    },
  };
}

function follow(grid: CutGrid, radix: readonly number[], { floor, beam, without }: How = {}): Found {
  const { lengthMm, startMm, first } = grid;
  const width = lengthMm + 1;
  const counts = radix.reduce(
    (all, step, s) => (step === 0 ? all : Math.max(all, step * ((grid.sizes[s]?.most ?? 0) + 1))),
    1,
  );
  // which size came last is part of where a plan stands: 0 for none yet
  const lasts = grid.sizes.length + 1;
  const slot = slots(counts * lasts * 2 * width);
  const still = floor === undefined ? undefined : couldStill(grid, without);
  const [floorValue, floorOdd] = [floor?.value ?? 0, floor?.odd ?? 0];
  const p: Plans = {
    value: [],
    odd: [],
    turns: [],
    spoil: [],
    order: [],
    key: [],
    place: [],
    cameFrom: [],
    arc: [],
    beside: [],
  };
  const lastAt = new Int32Array(width).fill(NONE);
  const most = grid.sizes.map((s) => s.most ?? 0);
  const heavy = grid.sizes.map((s) => Math.round(s.targetMg / 1_000) ** 2);

  const offer = (
    x: number,
    key: number,
    from: number,
    arc: number,
    value: number,
    odd: number,
    turns: number,
    spoil: number,
    order: number,
  ): void => {
    if (still !== undefined) {
      const hope = value + (still[x] ?? 0);
      if (hope < floorValue || (hope === floorValue && odd > floorOdd)) return;
    }
    const at = key * width + x;
    let i = slot.get(at);
    if (i === NONE) {
      i = p.value.length;
      slot.set(at, i);
      p.key.push(key);
      p.place.push(x);
      p.beside.push(lastAt[x] ?? NONE);
      lastAt[x] = i;
    } else {
      const better =
        (p.value[i] ?? 0) - value ||
        odd - (p.odd[i] ?? 0) ||
        turns - (p.turns[i] ?? 0) ||
        spoil - (p.spoil[i] ?? 0) ||
        order - (p.order[i] ?? 0);
      if (better >= 0) return;
    }
    // a plan that is bettered is written over: places only lead onward, so no other came from it yet
    p.value[i] = value;
    p.odd[i] = odd;
    p.turns[i] = turns;
    p.spoil[i] = spoil;
    p.order[i] = order;
    p.cameFrom[i] = from;
    p.arc[i] = arc;
  };
  const go = (i: number, x: number, thrown: number): void => {
    const value = p.value[i] ?? 0;
    const odd = p.odd[i] ?? 0;
    const turns = p.turns[i] ?? 0;
    const spoil = p.spoil[i] ?? 0;
    const order = p.order[i] ?? 0;
    const key = p.key[i] ?? 0;
    offer(x + 1, key | 1, i, NONE, value, odd, turns, spoil + thrown, order);
    const last = (key >> 1) % lasts;
    const taken = Math.floor((key >> 1) / lasts);
    const lastHeavy = heavy[last - 1] ?? Number.POSITIVE_INFINITY;
    const oddThen = odd + (key & 1);
    const end = first[x + 1] ?? 0;
    for (let k = first[x] ?? 0; k < end; k += 1) {
      const s = grid.size[k] ?? 0;
      if (s === without) continue;
      const step = radix[s] ?? 0;
      if (step > 0 && Math.floor(taken / step) % ((most[s] ?? 0) + 1) >= (most[s] ?? 0)) continue;
      offer(
        grid.next[k] ?? 0,
        ((taken + step) * lasts + s + 1) << 1,
        i,
        k,
        value + (grid.worth[s] ?? 0),
        oddThen,
        turns + ((heavy[s] ?? 0) > lastHeavy ? 1 : 0),
        spoil + (grid.uneven[k] ?? 0),
        order + ONE_MORE + (heavy[s] ?? 0) * x,
      );
    }
  };
  const standing = (x: number): number[] => {
    const here: number[] = [];
    for (let i = lastAt[x] ?? NONE; i !== NONE; i = p.beside[i] ?? NONE) here.push(i);
    return here;
  };

  offer(startMm, 0, NONE, NONE, 0, 0, 0, 0, 0);
  for (let x = startMm; x < lengthMm; x += 1) {
    const here = standing(x);
    // all of a place have the same rest before them, so what they are worth so far decides
    if (beam !== undefined && here.length > beam) here.sort((a, b) => compare(p, a, b)).length = beam;
    const thrown = (grid.mass[x + 1] ?? 0) - (grid.mass[x] ?? 0);
    for (const i of here) go(i, x, thrown);
  }
  const ended = standing(lengthMm).sort((a, b) => compare(p, a, b))[0] ?? 0;
  const path: ChosenArc[] = [];
  for (let i = ended; i !== NONE; i = p.cameFrom[i] ?? NONE) {
    const arc = p.arc[i] ?? NONE;
    if (arc !== NONE) path.push({ from: p.place[p.cameFrom[i] ?? 0] ?? 0, arc });
  }
  return { path: path.reverse(), value: p.value[ended] ?? 0, odd: p.odd[ended] ?? 0 };
}
