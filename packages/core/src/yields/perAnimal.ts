export interface AnimalWeighing {
  readonly animal: number | null;
  readonly pieceId: string;
  readonly massMg: number;
}

export interface PieceAcrossAnimals {
  readonly pieceId: string;
  /** Animals with at least one weight of this piece of their own. */
  readonly animals: number;
  readonly meanMg: number;
  /** Sample standard deviation (n - 1); null with fewer than two animals. */
  readonly sdMg: number | null;
  readonly lowMg: number;
  readonly highMg: number;
}

/**
 * What a piece came to per animal, where the weighings say which animal they are of.
 *
 * Shapes  one entry per piece that has such weighings, in the order the pieces first came.
 * Units   milligrams.
 * Source  sample mean and standard deviation, any statistics text.
 */
export function acrossAnimals(weighings: readonly AnimalWeighing[]): PieceAcrossAnimals[] {
  const pieces = new Map<string, Map<number, number>>();
  for (const { animal, pieceId, massMg } of weighings) {
    if (animal === null) continue;
    const of = pieces.get(pieceId) ?? new Map<number, number>();
    of.set(animal, (of.get(animal) ?? 0) + massMg);
    pieces.set(pieceId, of);
  }
  return [...pieces].map(([pieceId, of]) => {
    const masses = [...of.values()];
    const n = masses.length;
    const meanMg = masses.reduce((a, b) => a + b, 0) / n;
    const squares = masses.reduce((a, m) => a + (m - meanMg) ** 2, 0);
    return {
      pieceId,
      animals: n,
      meanMg,
      sdMg: n < 2 ? null : Math.sqrt(squares / (n - 1)),
      lowMg: Math.min(...masses),
      highMg: Math.max(...masses),
    };
  });
}
