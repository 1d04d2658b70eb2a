/** What a hundred grams of a filling are made of, and where that holds, splits or dries. */

/** Per 100 g. */
export interface Composition {
  readonly water: number;
  readonly protein: number;
  readonly fat: number;
  readonly salt: number;
}

export interface FillingPart {
  readonly name: string;
  readonly massMg: number;
  /** Undefined where nobody knows it: said, and left out of the balance. */
  readonly of: Composition | undefined;
  /** Egg, starch, crumb: counted as binder. */
  readonly binder?: boolean;
}

export type BandName = 'fat' | 'protein' | 'water' | 'salt';

/** Where a kind of filling holds, grams per 100 g, and what happens on either side. */
export interface FillingBand {
  readonly of: BandName;
  readonly low: number;
  readonly high: number;
  readonly below: string;
  readonly above: string;
}

export interface FillingBalance extends Composition {
  readonly binder: number;
  /** Grams of water to one of protein: what the flesh must hold. */
  readonly waterPerProtein: number;
  readonly unknown: readonly string[];
  readonly judged: readonly {
    readonly band: FillingBand;
    readonly value: number;
    readonly verdict: 'low' | 'holds' | 'high';
  }[];
}

/**
 * Fat, protein, water, salt and binder of a mix per 100 g, held against the bands of its kind.
 *
 * Shapes  parts: as they go in. Result: figures of the parts that are known, scaled to 100 g of those.
 * Errors  undefined when nothing in it is known.
 * Source  weighted mean of food composition; the bands are common practice, no source.
 * @example 100 g of lean fish (80 water, 18 protein, 1 fat) with 100 g of cream (47, 1.6, 48) -> fat 24.5, protein 9.8
 */
export function fillingBalance(
  parts: readonly FillingPart[],
  bands: readonly FillingBand[],
): FillingBalance | undefined {
  const known = parts.filter((p) => p.of !== undefined && p.massMg > 0);
  const mass = known.reduce((s, p) => s + p.massMg, 0);
  if (mass === 0) return undefined;
  const mean = (f: (c: Composition) => number): number =>
    known.reduce((s, p) => s + (p.of === undefined ? 0 : f(p.of) * p.massMg), 0) / mass;
  const figures: Composition = {
    water: mean((c) => c.water),
    protein: mean((c) => c.protein),
    fat: mean((c) => c.fat),
    salt: mean((c) => c.salt),
  };
  return {
    ...figures,
    binder: (100 * known.reduce((s, p) => s + (p.binder === true ? p.massMg : 0), 0)) / mass,
    waterPerProtein: figures.protein > 0 ? figures.water / figures.protein : Number.POSITIVE_INFINITY,
    unknown: parts.filter((p) => p.of === undefined && p.massMg > 0).map((p) => p.name),
    judged: bands.map((band) => {
      const value = figures[band.of];
      return { band, value, verdict: value < band.low ? 'low' : value > band.high ? 'high' : 'holds' };
    }),
  };
}
