/** A repeatable source of chance: the same seed gives the same kitchen. */
export interface Random {
  /** Uniform on [0, 1). */
  next(): number;
  /** Standard normal. */
  normal(): number;
  /** Whole number from low to high, both included. */
  whole(low: number, high: number): number;
  pick<T>(items: readonly T[]): T;
}

/**
 * Seeds a generator from text.
 *
 * Source  hash: FNV-1a; generator: mulberry32 (public domain, T. Ettinger); normal: Box-Muller. From memory. Not for secrets.
 */
export function seededRandom(seed: string): Random {
  let state = 0x811c9dc5;
  for (const char of seed) state = Math.imul(state ^ (char.codePointAt(0) ?? 0), 0x01000193);
  const next = (): number => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  const whole = (low: number, high: number): number => low + Math.floor(next() * (high - low + 1));
  return {
    next,
    whole,
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
    pick: (items) => {
      const item = items[whole(0, items.length - 1)];
      if (item === undefined) throw new RangeError('pick: nothing to pick from');
      return item;
    },
  };
}
