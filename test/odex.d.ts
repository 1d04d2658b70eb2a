/** What the tests use of odex; its own TypeScript source does not pass our compiler's settings. */
export class Solver {
  constructor(n: number);
  absoluteTolerance: number;
  relativeTolerance: number;
  solve(
    f: (x: number, y: readonly number[]) => number[],
    x: number,
    y0: readonly number[],
    xEnd: number,
  ): { readonly y: readonly number[] };
}
