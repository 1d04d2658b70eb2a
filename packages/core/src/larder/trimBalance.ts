export interface Trimmed {
  /** What went on the board. */
  readonly workedMg: number;
  /** What is ready to be used. */
  readonly readyMg: number;
  /** What of the trim is kept for something. */
  readonly keptMg: number;
}

/**
 * What trimming vegetables comes to: peel and leaves are not weighed, they are what is left of it.
 *
 * Units   milligrams; shares 0..1.
 * Keeps   ready, kept, waste and what is over make up what went on the board; one of waste and over is 0.
 *
 * @example 1,000 g of artichokes, 240 ready, none kept -> 760 g of waste, 0.24 ready
 */
export function trimBalance({ workedMg, readyMg, keptMg }: Trimmed): {
  readonly wasteMg: number;
  /** Ready and kept weigh so much more than what went on the board: water, or a weight taken twice. */
  readonly overMg: number;
  readonly readyShare: number;
} {
  const leftMg = workedMg - readyMg - keptMg;
  return {
    wasteMg: Math.max(0, leftMg),
    overMg: Math.max(0, -leftMg),
    readyShare: workedMg > 0 ? readyMg / workedMg : 0,
  };
}
