/** Whether the form a piece is taken for is the form it has: from what was measured, and from the first weights. */
import { fitProfile, massBetween, type PieceMeasures, spreadBetween } from './pieceProfile.ts';
import { along, type PieceTemplate } from './pieceTemplate.ts';

export interface FormFit {
  /** How far off, in standard deviations a weight or a measure; 1 is as expected. */
  readonly off: number;
  /** How many weights and measures tell. */
  readonly told: number;
}

/** A width or a thickness wanders by this much between animals of one form beside the template's own doubt; estimate. */
const MEASURE_SD = 0.12;

/**
 * How far what was measured and weighed is from what a form says.
 *
 * Thicknesses and widths are held against the form scaled to the piece's length and mass; weights between marks against its profile
 * with the measures in it, each in its own standard deviation. The root mean square of all.
 *
 * Shapes  cut: portions weighed between their marks.
 * Errors  those of fitProfile.
 */
export function fitOfForm(
  template: PieceTemplate,
  measures: PieceMeasures,
  cut: readonly { readonly fromMm: number; readonly toMm: number; readonly massMg: number }[],
): FormFit {
  const bare = fitProfile(template, { massMg: measures.massMg, lengthMm: measures.lengthMm });
  const measured = fitProfile(template, measures);
  const ofMeasures = (points: PieceMeasures['widths'], values: readonly number[]): number[] =>
    (points ?? [])
      .filter((p) => p.mm > 0)
      .map((p) => Math.log(p.mm / Math.max(1, along(values, p.at))) / Math.hypot(MEASURE_SD, template.shapeSd));
  const z = [
    ...ofMeasures(measures.widths, bare.widthMm),
    ...ofMeasures(measures.thicknesses, bare.thicknessMm),
    ...cut.map((c) => (c.massMg - massBetween(measured, c.fromMm, c.toMm)) / spreadBetween(measured, c.fromMm, c.toMm)),
  ];
  return { off: z.length === 0 ? 1 : Math.sqrt(z.reduce((sum, v) => sum + v * v, 0) / z.length), told: z.length };
}

/** The right form is so far off in one piece of a hundred: the root mean square of so many standard normals (Wilson and Hilferty, recalled). */
const doubtedFrom = (told: number): number => (1 - 2 / (9 * told) + 2.326 * Math.sqrt(2 / (9 * told))) ** 1.5;
/** Another is offered only when it fits much better. */
const MUCH_BETTER = 0.6;

/**
 * A form that fits better than the one a piece is taken for, or undefined while the one taken fits.
 *
 * Keeps   nothing is said before two figures tell, nor of a form that is itself doubted.
 */
export function betterForm(
  taken: PieceTemplate,
  others: readonly PieceTemplate[],
  measures: PieceMeasures,
  cut: Parameters<typeof fitOfForm>[2],
): { readonly off: number; readonly other: PieceTemplate | undefined } | undefined {
  const now = fitOfForm(taken, measures, cut);
  if (now.told < 2 || now.off < doubtedFrom(now.told)) return undefined;
  const [best] = others
    .filter((t) => t.id !== taken.id)
    .map((template) => ({ template, off: fitOfForm(template, measures, cut).off }))
    .sort((a, b) => a.off - b.off);
  return { off: now.off, other: best !== undefined && best.off < MUCH_BETTER * now.off ? best.template : undefined };
}
