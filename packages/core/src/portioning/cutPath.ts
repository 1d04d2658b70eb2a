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

/** What a plan is judged by, in this order; how many figures a plan has. */
const VALUE = 0;
const ODD = 1;
/** How often a heavier portion follows a lighter one. */
const TURNS = 2;
const SPOIL = 3;
const ORDER = 4;
const FIGURES = 5;
/** Where a plan stands and came from. */
const KEY = 0;
const PLACE = 1;
const CAME_FROM = 2;
const ARC = 3;
/** The next plan that ends at the same place. */
const BESIDE = 4;
const LINKS = 5;

/** Plans so far, one a state: rows of plain numbers side by side, because there may be a hundred thousand of them. */
class Plans {
  count = 0;
  figures = new Float64Array(FIGURES * 4_096);
  links = new Int32Array(LINKS * 4_096);

  /** Room for one more; answers its number. */
  add(): number {
    const i = this.count;
    this.count += 1;
    if (this.count * FIGURES > this.figures.length) {
      const [figures, links] = [this.figures, this.links];
      this.figures = new Float64Array(2 * figures.length);
      this.figures.set(figures);
      this.links = new Int32Array(2 * links.length);
      this.links.set(links);
    }
    return i;
  }
  figure(i: number, of: number): number {
    return this.figures[i * FIGURES + of] ?? 0;
  }
  link(i: number, of: number): number {
    return this.links[i * LINKS + of] ?? NONE;
  }
  /** Negative when a is the better: more worth, fewer odd pieces, sizes in falling order, less spoilt, fewer and thicker end first. */
  compare(a: number, b: number): number {
    return (
      this.figure(b, VALUE) - this.figure(a, VALUE) ||
      this.figure(a, ODD) - this.figure(b, ODD) ||
      this.figure(a, TURNS) - this.figure(b, TURNS) ||
      this.figure(a, SPOIL) - this.figure(b, SPOIL) ||
      this.figure(a, ORDER) - this.figure(b, ORDER)
    );
  }
}

/** A way along a piece, with what it is worth and how many odd pieces it leaves. */
export interface Found {
  readonly path: readonly ChosenArc[];
  readonly value: number;
  readonly odd: number;
  readonly turns: number;
}

interface How {
  /** Only plans that can still be as good as this one are followed. */
  readonly floor?: Pick<Found, 'value' | 'odd' | 'turns'>;
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
  const limited = radix.some((step) => step !== 0);
  // whoever keeps to the limits unasked is the best of those who must. A quick look first: mostly it is plain that nobody does
  if (!limited || keepsLimits(grid, quickPath(grid))) {
    const free = follow(
      grid,
      grid.sizes.map(() => 0),
    );
    if (!limited || keepsLimits(grid, free.path)) return free;
  }
  return follow(grid, radix, { floor: follow(grid, radix, { beam: BEAM }) });
}

/** A way of the most worth there is without limits; nothing else about it is chosen. */
function quickPath(grid: CutGrid): readonly ChosenArc[] {
  const most = couldStill(grid);
  const path: ChosenArc[] = [];
  let x = grid.startMm;
  while (x < grid.lengthMm) {
    let arc = NONE;
    for (let k = grid.first[x] ?? 0; k < (grid.first[x + 1] ?? 0) && arc === NONE; k += 1)
      if ((grid.worth[grid.size[k] ?? 0] ?? 0) + (most[grid.next[k] ?? 0] ?? 0) === most[x]) arc = k;
    if (arc !== NONE) path.push({ from: x, arc });
    x = arc === NONE ? x + 1 : (grid.next[arc] ?? x + 1);
  }
  return path;
}

/** The best way that leaves one size out, where it is worth as much and has no more odd pieces; undefined where there is none. */
export function asGoodWithout(grid: CutGrid, found: Found, without: number): Found | undefined {
  // mostly it is worth less whatever else is done: nothing to try
  if ((couldStill(grid, without)[grid.startMm] ?? 0) < found.value) return undefined;
  const other = follow(grid, limitsOf(grid), { floor: found, without });
  return other.value === found.value && other.odd === found.odd && other.turns === found.turns ? other : undefined;
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
  const [floorValue, floorOdd, floorTurns] = [floor?.value ?? 0, floor?.odd ?? 0, floor?.turns ?? 0];
  const p = new Plans();
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
      if (hope < floorValue) return;
      if (hope === floorValue && (odd > floorOdd || (odd === floorOdd && turns > floorTurns))) return;
    }
    const at = key * width + x;
    let i = slot.get(at);
    if (i === NONE) {
      i = p.add();
      slot.set(at, i);
      const link = i * LINKS;
      p.links[link + KEY] = key;
      p.links[link + PLACE] = x;
      p.links[link + BESIDE] = lastAt[x] ?? NONE;
      lastAt[x] = i;
    } else {
      const own = i * FIGURES;
      const better =
        (p.figures[own] ?? 0) - value ||
        odd - (p.figures[own + ODD] ?? 0) ||
        turns - (p.figures[own + TURNS] ?? 0) ||
        spoil - (p.figures[own + SPOIL] ?? 0) ||
        order - (p.figures[own + ORDER] ?? 0);
      if (better >= 0) return;
    }
    // a plan that is bettered is written over: places only lead onward, so no other came from it yet
    const own = i * FIGURES;
    p.figures[own] = value;
    p.figures[own + ODD] = odd;
    p.figures[own + TURNS] = turns;
    p.figures[own + SPOIL] = spoil;
    p.figures[own + ORDER] = order;
    p.links[i * LINKS + CAME_FROM] = from;
    p.links[i * LINKS + ARC] = arc;
  };
  const go = (i: number, x: number, thrown: number): void => {
    const value = p.figure(i, VALUE);
    const odd = p.figure(i, ODD);
    const turns = p.figure(i, TURNS);
    const spoil = p.figure(i, SPOIL);
    const order = p.figure(i, ORDER);
    const key = p.link(i, KEY);
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
      if (still !== undefined && value + (grid.worth[s] ?? 0) + (still[grid.next[k] ?? 0] ?? 0) < floorValue) continue;
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
    for (let i = lastAt[x] ?? NONE; i !== NONE; i = p.link(i, BESIDE)) here.push(i);
    return here;
  };

  offer(startMm, 0, NONE, NONE, 0, 0, 0, 0, 0);
  for (let x = startMm; x < lengthMm; x += 1) {
    const here = standing(x);
    // all of a place have the same rest before them, so what they are worth so far decides
    if (beam !== undefined && here.length > beam) here.sort((a, b) => p.compare(a, b)).length = beam;
    const thrown = (grid.mass[x + 1] ?? 0) - (grid.mass[x] ?? 0);
    for (const i of here) {
      const key = p.link(i, KEY);
      // who has just cut can do all that who is leaving flesh can, and starts its next portion without an odd piece
      const beside = (key & 1) === 1 ? slot.get((key ^ 1) * width + x) : NONE;
      if (beside === NONE || p.compare(beside, i) > 0) go(i, x, thrown);
    }
  }
  const ended = standing(lengthMm).sort((a, b) => p.compare(a, b))[0] ?? 0;
  const path: ChosenArc[] = [];
  for (let i = ended; i !== NONE; i = p.link(i, CAME_FROM)) {
    const arc = p.link(i, ARC);
    if (arc !== NONE) path.push({ from: p.link(p.link(i, CAME_FROM), PLACE), arc });
  }
  return {
    path: path.reverse(),
    value: p.figure(ended, VALUE),
    odd: p.figure(ended, ODD),
    turns: p.figure(ended, TURNS),
  };
}
