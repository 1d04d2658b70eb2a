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

/** The figures of a plan as it is offered: what it is judged by. */
class Judged {
  value = 0;
  odd = 0;
  turns = 0;
  spoil = 0;
  order = 0;
}

/** Every plan that is followed along one grid, place by place. */
class Following {
  private readonly grid: CutGrid;
  private readonly radix: readonly number[];
  private readonly plans = new Plans();
  private readonly width: number;
  /** Which size came last is part of where a plan stands: 0 for none yet. */
  private readonly lasts: number;
  private readonly slot: ReturnType<typeof slots>;
  /** The last plan that ends at each place; the others hang on it. */
  private readonly lastAt: Int32Array;
  private readonly most: readonly number[];
  private readonly heavy: readonly number[];
  private readonly without: number | undefined;
  private readonly floor: How['floor'];
  private readonly still: Float64Array | undefined;
  /** One for all: a hundred thousand plans are offered. */
  private readonly now = new Judged();

  constructor(grid: CutGrid, radix: readonly number[], { floor, without }: How) {
    this.grid = grid;
    this.radix = radix;
    this.without = without;
    this.floor = floor;
    this.still = floor === undefined ? undefined : couldStill(grid, without);
    this.width = grid.lengthMm + 1;
    this.lasts = grid.sizes.length + 1;
    this.lastAt = new Int32Array(this.width).fill(NONE);
    this.most = grid.sizes.map((s) => s.most ?? 0);
    this.heavy = grid.sizes.map((s) => Math.round(s.targetMg / 1_000) ** 2);
    const counts = radix.reduce(
      (all, step, s) => (step === 0 ? all : Math.max(all, step * ((this.most[s] ?? 0) + 1))),
      1,
    );
    this.slot = slots(counts * this.lasts * 2 * this.width);
    this.offer(grid.startMm, 0, NONE, NONE);
  }

  /** Whether a plan like the one offered can still be as good as the one that is had. */
  private isHopeful(x: number): boolean {
    const { floor, still, now } = this;
    if (floor === undefined || still === undefined) return true;
    const hope = now.value + (still[x] ?? 0);
    if (hope !== floor.value) return hope > floor.value;
    return now.odd < floor.odd || (now.odd === floor.odd && now.turns <= floor.turns);
  }

  /** Puts the plan in `now` at a place, unless a better one stands there with the same counts. */
  private offer(x: number, key: number, from: number, arc: number): void {
    if (!this.isHopeful(x)) return;
    const { plans: p, now } = this;
    const at = key * this.width + x;
    let i = this.slot.get(at);
    if (i === NONE) {
      i = p.add();
      this.slot.set(at, i);
      const link = i * LINKS;
      p.links[link + KEY] = key;
      p.links[link + PLACE] = x;
      p.links[link + BESIDE] = this.lastAt[x] ?? NONE;
      this.lastAt[x] = i;
    } else {
      const own = i * FIGURES;
      const better =
        (p.figures[own] ?? 0) - now.value ||
        now.odd - (p.figures[own + ODD] ?? 0) ||
        now.turns - (p.figures[own + TURNS] ?? 0) ||
        now.spoil - (p.figures[own + SPOIL] ?? 0) ||
        now.order - (p.figures[own + ORDER] ?? 0);
      if (better >= 0) return;
    }
    // a plan that is bettered is written over: places only lead onward, so no other came from it yet
    const own = i * FIGURES;
    p.figures[own] = now.value;
    p.figures[own + ODD] = now.odd;
    p.figures[own + TURNS] = now.turns;
    p.figures[own + SPOIL] = now.spoil;
    p.figures[own + ORDER] = now.order;
    p.links[i * LINKS + CAME_FROM] = from;
    p.links[i * LINKS + ARC] = arc;
  }

  /** A plan leaves this millimetre of flesh. */
  private leave(i: number, x: number): void {
    const { plans: p, now, grid } = this;
    now.value = p.figure(i, VALUE);
    now.odd = p.figure(i, ODD);
    now.turns = p.figure(i, TURNS);
    now.spoil = p.figure(i, SPOIL) + ((grid.mass[x + 1] ?? 0) - (grid.mass[x] ?? 0));
    now.order = p.figure(i, ORDER);
    this.offer(x + 1, p.link(i, KEY) | 1, i, NONE);
  }

  /** A plan cuts each portion that begins here and that its limits still allow. */
  private cut(i: number, x: number): void {
    const { plans: p, now, grid, radix, most, heavy, lasts, still, floor } = this;
    const key = p.link(i, KEY);
    const value = p.figure(i, VALUE);
    const odd = p.figure(i, ODD) + (key & 1);
    const turns = p.figure(i, TURNS);
    const spoil = p.figure(i, SPOIL);
    const order = p.figure(i, ORDER);
    const taken = Math.floor((key >> 1) / lasts);
    const lastHeavy = heavy[((key >> 1) % lasts) - 1] ?? Number.POSITIVE_INFINITY;
    const end = grid.first[x + 1] ?? 0;
    for (let k = grid.first[x] ?? 0; k < end; k += 1) {
      const s = grid.size[k] ?? 0;
      if (s === this.without) continue;
      const step = radix[s] ?? 0;
      if (step > 0 && Math.floor(taken / step) % ((most[s] ?? 0) + 1) >= (most[s] ?? 0)) continue;
      const next = grid.next[k] ?? 0;
      now.value = value + (grid.worth[s] ?? 0);
      if (still !== undefined && now.value + (still[next] ?? 0) < (floor?.value ?? 0)) continue;
      now.odd = odd;
      now.turns = turns + ((heavy[s] ?? 0) > lastHeavy ? 1 : 0);
      now.spoil = spoil + (grid.uneven[k] ?? 0);
      now.order = order + ONE_MORE + (heavy[s] ?? 0) * x;
      this.offer(next, ((taken + step) * lasts + s + 1) << 1, i, k);
    }
  }

  private standing(x: number): number[] {
    const here: number[] = [];
    for (let i = this.lastAt[x] ?? NONE; i !== NONE; i = this.plans.link(i, BESIDE)) here.push(i);
    return here;
  }

  /** Goes on from a place with every plan that stands there, or with the best of them. */
  goOn(x: number, beam: number | undefined): void {
    const { plans: p } = this;
    const here = this.standing(x);
    // all of a place have the same rest before them, so what they are worth so far decides
    if (beam !== undefined && here.length > beam) here.sort((a, b) => p.compare(a, b)).length = beam;
    for (const i of here) {
      const key = p.link(i, KEY);
      // who has just cut can do all that who is leaving flesh can, and starts its next portion without an odd piece
      const beside = (key & 1) === 1 ? this.slot.get((key ^ 1) * this.width + x) : NONE;
      if (beside !== NONE && p.compare(beside, i) <= 0) continue;
      this.leave(i, x);
      this.cut(i, x);
    }
  }

  /** The best of the plans that came to the end. */
  best(): Found {
    const { plans: p } = this;
    const ended = this.standing(this.grid.lengthMm).sort((a, b) => p.compare(a, b))[0] ?? 0;
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
}

function follow(grid: CutGrid, radix: readonly number[], how: How = {}): Found {
  const following = new Following(grid, radix, how);
  for (let x = grid.startMm; x < grid.lengthMm; x += 1) following.goOn(x, how.beam);
  return following.best();
}
