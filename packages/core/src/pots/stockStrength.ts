/** How strong a stock is likely to be: what the bones give up, and what water is left to hold it. */

export interface BoneStrength {
  /** Gelatin a kilogram of these gives at the end of a usual time, grams, and how far off that may be (one in ten on either side). */
  readonly gelatin: number;
  readonly low: number;
  readonly high: number;
  /** Other solids that go into the pot with it, grams per kilogram. */
  readonly otherSolids: number;
  /** Minutes after which two thirds of it are out. */
  readonly minutes: number;
}

export interface StockStrength {
  /** Grams per litre. */
  readonly gelatin: number;
  readonly low: number;
  readonly high: number;
  readonly solids: number;
  readonly sets: 'no' | 'softly' | 'firmly' | 'hard';
}

/**
 * Gelatin and solids of a stock, grams per litre.
 *
 * Shapes  bones: each kind with its mass. litres: what is left in the pot.
 * Keeps   extraction goes as 1 - exp(-time / its own time), scaled so that the usual time (three of them) gives all of it.
 * Source  amounts and times are estimates of this project; gelatin sets softly from about 10 g/l, firmly from 20, hard from 40 (common
 *         practice with leaf gelatin, no source).
 */
export function stockStrength(
  bones: readonly { readonly kg: number; readonly of: BoneStrength }[],
  minutes: number,
  litres: number,
): StockStrength | undefined {
  if (litres <= 0 || bones.length === 0) return undefined;
  const out = (b: BoneStrength): number => Math.min(1, (1 - Math.exp(-minutes / b.minutes)) / (1 - Math.exp(-3)));
  const total = (f: (b: BoneStrength) => number): number =>
    bones.reduce((s, { kg, of }) => s + kg * f(of) * out(of), 0) / litres;
  const gelatin = total((b) => b.gelatin);
  return {
    gelatin,
    low: total((b) => b.low),
    high: total((b) => b.high),
    solids: total((b) => b.gelatin + b.otherSolids),
    sets: gelatin < 10 ? 'no' : gelatin < 20 ? 'softly' : gelatin < 40 ? 'firmly' : 'hard',
  };
}
