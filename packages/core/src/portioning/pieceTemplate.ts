import type { Provenance } from '../breakdown/plan.ts';

/** Where along a piece a portion may come from: the thick end, the middle, the thin end. */
export type Zone = 'head' | 'centre' | 'tail';
export const zones: readonly Zone[] = ['head', 'centre', 'tail'];

/** The usual form of a kind of piece, without its size. Lengths run from the thick end (0) to the thin end (1). */
export interface PieceTemplate {
  readonly id: string;
  readonly name: string;
  /** Relative widths and thicknesses at equal steps from the thick end; the largest is 1. */
  readonly widths: readonly number[];
  readonly thicknesses: readonly number[];
  /** Area of a cross-section over width x thickness: 1 for a rectangle, pi/4 for an ellipse. */
  readonly sectionFactor: number;
  /** Length over greatest width, and greatest width over greatest thickness. */
  readonly lengthToWidth: number;
  readonly widthToThickness: number;
  /** Grams per millilitre. */
  readonly density: number;
  /** Standard deviation of the log cross-section between animals, and how far along it holds together (share of the length). */
  readonly shapeSd: number;
  readonly shapeReach: number;
  /** Where two widths are usually taken, as shares of the length. */
  readonly measureAt: readonly [number, number];
  readonly zones: Readonly<Record<Zone, readonly [number, number]>>;
  /** The same all along: it has no head, no centre and no tail, and a size may come from anywhere. */
  readonly alike?: true;
  /** Names of its two ends ("shoulder", "tail"). */
  readonly ends: readonly [string, string];
  /** Cut across, the cut itself is the portion's thickness (medallions, slices off a barrel). */
  readonly acrossIsThickness: boolean;
  readonly provenance: Provenance;
  readonly source: string;
}

/** Straight lines between values at equal steps; `share` 0..1. */
export function along(values: readonly number[], share: number): number {
  const last = values.length - 1;
  const at = Math.min(Math.max(share, 0), 1) * last;
  const i = Math.min(Math.floor(at), Math.max(0, last - 1));
  const left = values[i] ?? 0;
  return left + ((values[i + 1] ?? left) - left) * (at - i);
}

/** Straight lines between measured points; before the first and after the last it stays level. */
export function between(points: readonly { readonly at: number; readonly value: number }[], share: number): number {
  const [first] = points;
  if (first === undefined || share <= first.at) return first?.value ?? 1;
  for (let i = 1; i < points.length; i += 1) {
    const left = points[i - 1] ?? first;
    const right = points[i] ?? left;
    if (share <= right.at)
      return right.at === left.at
        ? right.value
        : left.value + ((right.value - left.value) * (share - left.at)) / (right.at - left.at);
  }
  return points.at(-1)?.value ?? 1;
}

/**
 * How long a piece of this form usually is at a mass.
 *
 * Units   milligrams in, millimetres out.
 * Keeps   mass grows with the cube of the length (same form).
 */
export function usualLength(template: PieceTemplate, massMg: number): number {
  const steps = 200;
  let mean = 0;
  for (let i = 0; i < steps; i += 1) {
    const share = (i + 0.5) / steps;
    mean += (along(template.widths, share) * along(template.thicknesses, share)) / steps;
  }
  const { lengthToWidth, widthToThickness, sectionFactor, density } = template;
  // mass = density x factor x mean x L x (L / lw) x (L / lw / wt); a millilitre is 1,000 mm³ and a gram 1,000 mg
  const mgPerCubicMm = density;
  return Math.cbrt((massMg * lengthToWidth ** 2 * widthToThickness) / (mgPerCubicMm * sectionFactor * mean));
}
