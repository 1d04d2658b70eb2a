/** Where a lot's grams went, and where they came from, through movements that each sum to zero. */
import { eachAlone } from './stockTake.ts';

export interface TracedPosting {
  /** The lot it is about; null where mass comes from or goes to a sink. */
  readonly lotId: string | null;
  readonly sink: string | null;
  readonly reason: string | null;
  /** Milligrams; negative where it is taken. */
  readonly massMg: number;
}

/** A movement that stands: neither a counter-entry nor taken back by one. */
export interface TracedMovement {
  readonly id: string;
  readonly kind: string;
  readonly at: string;
  readonly postings: readonly TracedPosting[];
}

export interface TracedLot {
  readonly lotId: string;
  /** All of this lot that was ever made. */
  readonly madeMg: number;
  /** How much of what was made stems from the lot asked for (down), or how much of the lot asked for stems from it (up). */
  readonly partMg: number;
  /** What is left of it, and how much of that is the part. A tub that grows mixes: what leaves it is what was in it then. */
  readonly onHandMg: number;
  readonly onHandPartMg: number;
  /** Steps from the lot asked for; the longest way where there are several. */
  readonly depth: number;
  /** The lots it was made from directly, or went into directly, that lie on the way. */
  readonly via: readonly string[];
}

export interface WayOut {
  /** Its own: the movement and the place in it. */
  readonly id: string;
  readonly sink: string;
  readonly reason: string | null;
  readonly at: string;
  readonly lotId: string;
  readonly massMg: number;
  readonly partMg: number;
}

export interface Downward {
  /** The lot itself first, then what it went into, in the order it was made. */
  readonly lots: readonly TracedLot[];
  readonly waysOut: readonly WayOut[];
  /** What was made of the lot itself; equals what is left and what went out, in its own grams. */
  readonly madeMg: number;
}

const byTime = (a: TracedMovement, b: TracedMovement): number => a.at.localeCompare(b.at) || a.id.localeCompare(b.id);

interface Taken {
  readonly lotId: string;
  readonly massMg: number;
}
const ins = (m: TracedMovement): Taken[] =>
  m.postings.flatMap((p) => (p.lotId !== null && p.massMg < 0 ? [{ lotId: p.lotId, massMg: -p.massMg }] : []));
const outs = (m: TracedMovement): Taken[] =>
  m.postings.flatMap((p) => (p.lotId !== null && p.massMg > 0 ? [{ lotId: p.lotId, massMg: p.massMg }] : []));

interface Account {
  madeMg: number;
  partMg: number;
  leftMg: number;
  /** How much of what is left now stems from the lot asked for. */
  leftPartMg: number;
  depth: number;
  readonly via: Set<string>;
}
/** Below this a share is what rounding left behind; milligrams. */
const NOTHING = 1e-6;
const tracedOf = (lotId: string, a: Account): TracedLot => ({
  lotId,
  madeMg: a.madeMg,
  partMg: a.partMg,
  onHandMg: a.leftMg,
  onHandPartMg: a.leftPartMg,
  depth: a.depth,
  via: [...a.via],
});
const fresh = (): Account => ({ madeMg: 0, partMg: 0, leftMg: 0, leftPartMg: 0, depth: 0, via: new Set() });

/**
 * Follows a lot downward: every lot it went into, how much of each stems from it, and what left the house.
 *
 * A movement mixes what goes in: each output and each way out holds the lot's part in the share that it had of all that went in. A
 * lot that grows is mixed as well: what is taken from it holds what was in it at that moment.
 * Shapes  movements: all that touch the lot or anything made of it, in any order.
 * Keeps   the parts on hand and the parts that went out add up to what was made of the lot, to rounding.
 * Units   milligrams.
 */
export function traceDown(lotId: string, movements: readonly TracedMovement[]): Downward {
  const accounts = new Map<string, Account>();
  // in the order they were made; only what stems from the lot is told of
  const family = new Set<string>();
  const waysOut: WayOut[] = [];
  for (const movement of movements.flatMap(eachAlone).sort(byTime)) {
    // everything that goes in, from lots or from outside (a supplier, the pantry)
    const total = -movement.postings.reduce((sum, p) => sum + Math.min(0, p.massMg), 0);
    let part = 0;
    let depth = 0;
    const sources: string[] = [];
    for (const input of ins(movement)) {
      const account = accounts.get(input.lotId);
      if (account === undefined) continue;
      const taken = account.leftMg > 0 ? (input.massMg * account.leftPartMg) / account.leftMg : 0;
      account.leftMg -= input.massMg;
      account.leftPartMg -= taken;
      if (taken < NOTHING) continue;
      part += taken;
      depth = Math.max(depth, account.depth + 1);
      sources.push(input.lotId);
    }
    const share = total > 0 ? part / total : 0;
    for (const output of outs(movement)) {
      const root = output.lotId === lotId;
      const account = accounts.get(output.lotId) ?? fresh();
      accounts.set(output.lotId, account);
      const here = root ? output.massMg : output.massMg * share;
      account.madeMg += output.massMg;
      account.leftMg += output.massMg;
      account.partMg += here;
      account.leftPartMg += here;
      if (!root && sources.length === 0) continue;
      family.add(output.lotId);
      account.depth = root ? 0 : Math.max(account.depth, depth);
      if (!root) for (const source of sources) account.via.add(source);
    }
    const [source] = sources;
    if (source === undefined) continue;
    for (const [i, p] of movement.postings.entries())
      if (p.sink !== null && p.massMg > 0)
        waysOut.push({
          id: `${movement.id}/${i}`,
          sink: p.sink,
          reason: p.reason,
          at: movement.at,
          lotId: source,
          massMg: p.massMg,
          partMg: p.massMg * share,
        });
  }
  return {
    lots: [...family].flatMap((id) => {
      const account = accounts.get(id);
      return account === undefined ? [] : [tracedOf(id, account)];
    }),
    waysOut,
    madeMg: accounts.get(lotId)?.madeMg ?? 0,
  };
}

/**
 * Follows a lot upward: every lot it was made from, and how much of it stems from each.
 *
 * Goes back in time. What was taken from a lot that grew is of what it held then: each filling answers for the share it had of the
 * lot after it, and the rest is asked of the fillings before.
 * Shapes  movements: all that touch the lot or anything it was made from. The lot itself stands first, its sources after it.
 * Keeps   at every depth, what stems from lots and what came from outside add up to the lot.
 */
export function traceUp(lotId: string, movements: readonly TracedMovement[]): readonly TracedLot[] {
  const order = movements.flatMap(eachAlone).sort(byTime);
  const made = new Map<string, number>();
  const left = new Map<string, number>();
  /** What a lot held right after each movement that filled it. */
  const heldAfter = new Map<string, number>();
  for (const movement of order) {
    for (const { lotId: id, massMg } of ins(movement)) left.set(id, (left.get(id) ?? 0) - massMg);
    for (const { lotId: id, massMg } of outs(movement)) {
      made.set(id, (made.get(id) ?? 0) + massMg);
      left.set(id, (left.get(id) ?? 0) + massMg);
      heldAfter.set(`${movement.id}/${id}`, left.get(id) ?? 0);
    }
  }
  const accountOf = (id: string): Account => ({
    ...fresh(),
    via: new Set(),
    madeMg: made.get(id) ?? 0,
    leftMg: left.get(id) ?? 0,
  });
  const root = accountOf(lotId);
  const accounts = new Map<string, Account>([[lotId, root]]);
  root.partMg = root.madeMg;
  /** What is still to be asked of a lot's fillings before now. */
  const asked = new Map<string, number>();
  for (const movement of order.reverse()) {
    const total = -movement.postings.reduce((sum, p) => sum + Math.min(0, p.massMg), 0);
    let part = 0;
    let depth = 0;
    const targets: string[] = [];
    for (const output of outs(movement)) {
      const account = accounts.get(output.lotId);
      if (account === undefined) continue;
      const open = asked.get(output.lotId) ?? 0;
      const after = heldAfter.get(`${movement.id}/${output.lotId}`) ?? 0;
      const here =
        output.lotId === lotId ? output.massMg : after > 0 ? Math.min(open, (open * output.massMg) / after) : 0;
      if (here < NOTHING) continue;
      if (output.lotId !== lotId) asked.set(output.lotId, open - here);
      part += here;
      depth = Math.max(depth, account.depth + 1);
      targets.push(output.lotId);
    }
    if (part === 0 || total === 0) continue;
    for (const input of ins(movement)) {
      const account = accounts.get(input.lotId) ?? accountOf(input.lotId);
      accounts.set(input.lotId, account);
      const here = (part * input.massMg) / total;
      account.partMg += here;
      asked.set(input.lotId, (asked.get(input.lotId) ?? 0) + here);
      account.depth = Math.max(account.depth, depth);
      for (const target of targets) account.via.add(target);
    }
  }
  return [...accounts].map(([id, account]) => tracedOf(id, account));
}
