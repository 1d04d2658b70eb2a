/** A linear model, written row by row, as a solver takes it. */

export interface Column {
  readonly cost: number;
  readonly lower: number;
  readonly upper: number;
  readonly whole: boolean;
}

/** So much of a column. */
export type Term = readonly [column: number, factor: number];

export interface LinearModel {
  readonly offset: number;
  readonly cost: Float64Array;
  readonly lower: Float64Array;
  readonly upper: Float64Array;
  /** 1 where only whole numbers will do. */
  readonly whole: Int32Array;
  readonly rowLower: Float64Array;
  readonly rowUpper: Float64Array;
  /** Row by row: where each begins, its columns and their factors. */
  readonly starts: Int32Array;
  readonly indices: Int32Array;
  readonly values: Float64Array;
  /** What kind each row is of, and what it is about. */
  readonly rows: readonly RowName[];
}

export interface RowName {
  readonly kind: string;
  readonly about: readonly (string | number)[];
}

export class LinearBuilder {
  readonly #columns: { cost: number; lower: number; upper: number; whole: boolean }[] = [];
  readonly #rowLower: number[] = [];
  readonly #rowUpper: number[] = [];
  readonly #starts: number[] = [0];
  readonly #indices: number[] = [];
  readonly #values: number[] = [];
  readonly #rows: RowName[] = [];
  offset = 0;

  /** A column from 0 upwards, unless said otherwise. Gives its number. */
  column({ cost = 0, lower = 0, upper = Number.POSITIVE_INFINITY, whole = false }: Partial<Column> = {}): number {
    this.#columns.push({ cost, lower, upper, whole });
    return this.#columns.length - 1;
  }

  /** Adds to what a column costs. */
  costs(column: number, more: number): void {
    const there = this.#columns[column];
    if (there !== undefined) there.cost += more;
  }

  /** Terms of one column are added up; a row of no terms is left out. */
  row(kind: string, about: RowName['about'], lower: number, upper: number, terms: readonly Term[]): void {
    const sums = new Map<number, number>();
    for (const [column, factor] of terms) sums.set(column, (sums.get(column) ?? 0) + factor);
    const kept = [...sums].filter(([, factor]) => factor !== 0);
    if (kept.length === 0) return;
    for (const [column, factor] of kept) {
      this.#indices.push(column);
      this.#values.push(factor);
    }
    this.#starts.push(this.#indices.length);
    this.#rowLower.push(lower);
    this.#rowUpper.push(upper);
    this.#rows.push({ kind, about });
  }

  atMost(kind: string, about: RowName['about'], most: number, terms: readonly Term[]): void {
    this.row(kind, about, Number.NEGATIVE_INFINITY, most, terms);
  }

  atLeast(kind: string, about: RowName['about'], least: number, terms: readonly Term[]): void {
    this.row(kind, about, least, Number.POSITIVE_INFINITY, terms);
  }

  equal(kind: string, about: RowName['about'], value: number, terms: readonly Term[]): void {
    this.row(kind, about, value, value, terms);
  }

  build(): LinearModel {
    return {
      offset: this.offset,
      cost: Float64Array.from(this.#columns, (c) => c.cost),
      lower: Float64Array.from(this.#columns, (c) => c.lower),
      upper: Float64Array.from(this.#columns, (c) => c.upper),
      whole: Int32Array.from(this.#columns, (c) => (c.whole ? 1 : 0)),
      rowLower: Float64Array.from(this.#rowLower),
      rowUpper: Float64Array.from(this.#rowUpper),
      starts: Int32Array.from(this.#starts),
      indices: Int32Array.from(this.#indices),
      values: Float64Array.from(this.#values),
      rows: this.#rows,
    };
  }
}
