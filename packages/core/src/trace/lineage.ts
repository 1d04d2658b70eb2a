/** Where a lot's grams went, and where they came from, through movements that each sum to zero. */

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
  /** What is left of it. */
  readonly onHandMg: number;
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
const sumOf = (items: readonly { readonly massMg: number }[]): number => items.reduce((sum, i) => sum + i.massMg, 0);
const ins = (m: TracedMovement): Taken[] =>
  m.postings.flatMap((p) => (p.lotId !== null && p.massMg < 0 ? [{ lotId: p.lotId, massMg: -p.massMg }] : []));
const outs = (m: TracedMovement): Taken[] =>
  m.postings.flatMap((p) => (p.lotId !== null && p.massMg > 0 ? [{ lotId: p.lotId, massMg: p.massMg }] : []));

interface Account {
  madeMg: number;
  partMg: number;
  leftMg: number;
  depth: number;
  readonly via: Set<string>;
}
const fresh = (): Account => ({ madeMg: 0, partMg: 0, leftMg: 0, depth: 0, via: new Set() });

/**
 * Follows a lot downward: every lot it went into, how much of each stems from it, and what left the house.
 *
 * A movement mixes what goes in: each output and each way out holds the lot's part in the share that it had of all that went in.
 * Shapes  movements: all that touch the lot or anything made of it, in any order.
 * Keeps   the parts on hand and the parts that went out add up to what was made of the lot, to rounding.
 * Units   milligrams.
 */
export function traceDown(lotId: string, movements: readonly TracedMovement[]): Downward {
  const accounts = new Map<string, Account>();
  const order: string[] = [];
  const waysOut: WayOut[] = [];
  for (const movement of [...movements].sort(byTime)) {
    const inputs = ins(movement);
    const outputs = outs(movement);
    // everything that goes in, from lots or from outside (a supplier, the pantry)
    const total = -movement.postings.reduce((sum, p) => sum + Math.min(0, p.massMg), 0);
    let part = 0;
    let depth = 0;
    const sources: string[] = [];
    for (const input of inputs) {
      const account = accounts.get(input.lotId);
      if (account === undefined) continue;
      part += account.madeMg > 0 ? (input.massMg * account.partMg) / account.madeMg : 0;
      account.leftMg -= input.massMg;
      depth = Math.max(depth, account.depth + 1);
      sources.push(input.lotId);
    }
    const share = total > 0 ? part / total : 0;
    for (const output of outputs) {
      const root = output.lotId === lotId;
      if (!root && sources.length === 0) continue;
      let account = accounts.get(output.lotId);
      if (account === undefined) {
        account = fresh();
        accounts.set(output.lotId, account);
        order.push(output.lotId);
      }
      account.madeMg += output.massMg;
      account.leftMg += output.massMg;
      account.partMg += root ? output.massMg : output.massMg * share;
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
    lots: order.flatMap((id): TracedLot[] => {
      const a = accounts.get(id);
      return a === undefined
        ? []
        : [{ lotId: id, madeMg: a.madeMg, partMg: a.partMg, onHandMg: a.leftMg, depth: a.depth, via: [...a.via] }];
    }),
    waysOut,
    madeMg: accounts.get(lotId)?.madeMg ?? 0,
  };
}

/**
 * Follows a lot upward: every lot it was made from, and how much of it stems from each.
 *
 * Shapes  movements: all that touch the lot or anything it was made from. The lot itself stands first, its sources after it.
 * Keeps   at every depth, what stems from lots and what came from outside add up to the lot.
 */
export function traceUp(lotId: string, movements: readonly TracedMovement[]): readonly TracedLot[] {
  const makers = new Map<string, TracedMovement[]>();
  const left = new Map<string, number>();
  for (const movement of movements) {
    for (const { lotId: id, massMg } of outs(movement)) {
      makers.set(id, [...(makers.get(id) ?? []), movement]);
      left.set(id, (left.get(id) ?? 0) + massMg);
    }
    for (const { lotId: id, massMg } of ins(movement)) left.set(id, (left.get(id) ?? 0) - massMg);
  }
  const madeOf = (id: string): number =>
    (makers.get(id) ?? []).reduce((sum, m) => sum + sumOf(outs(m).filter((o) => o.lotId === id)), 0);
  const accounts = new Map<string, Account>([[lotId, { ...fresh(), madeMg: madeOf(lotId), partMg: madeOf(lotId) }]]);
  // later movements first: whoever takes from a lot is reckoned before what the lot was made from
  for (const movement of [...movements].sort((a, b) => byTime(b, a))) {
    const total = -movement.postings.reduce((sum, p) => sum + Math.min(0, p.massMg), 0);
    let part = 0;
    let depth = 0;
    const targets: string[] = [];
    for (const output of outs(movement)) {
      const account = accounts.get(output.lotId);
      if (account === undefined || account.madeMg === 0) continue;
      part += (output.massMg * account.partMg) / account.madeMg;
      depth = Math.max(depth, account.depth + 1);
      targets.push(output.lotId);
    }
    if (part === 0 || total === 0) continue;
    for (const input of ins(movement)) {
      const account = accounts.get(input.lotId) ?? { ...fresh(), madeMg: madeOf(input.lotId) };
      account.partMg += (part * input.massMg) / total;
      account.depth = Math.max(account.depth, depth);
      for (const target of targets) account.via.add(target);
      accounts.set(input.lotId, account);
    }
  }
  return [...accounts].map(([id, a]) => ({
    lotId: id,
    madeMg: a.madeMg,
    partMg: a.partMg,
    onHandMg: left.get(id) ?? 0,
    depth: a.depth,
    via: [...a.via],
  }));
}
