import { profileAfter } from '../portioning/learnShape.ts';
import { fitProfile, massBetween, type PieceMeasures, type PieceProfile } from '../portioning/pieceProfile.ts';
import { along, type PieceTemplate, usualLength } from '../portioning/pieceTemplate.ts';
import { type CutWish, planCuts } from '../portioning/planCuts.ts';
import type { Random } from './random.ts';

export interface DrawnFillet {
  /** As it is; hidden from everyone but the simulator. */
  readonly truth: PieceProfile;
  /** As a cook's ruler reads it: length to half a centimetre, two widths to about 3 mm. */
  readonly measures: PieceMeasures;
}

/** Draws one piece of a form: its mass between two bounds, its width and thickness a tenth off the form in three smooth ways. */
export function drawFillet(template: PieceTemplate, lowMg: number, highMg: number, random: Random): DrawnFillet {
  const massMg = Math.round(lowMg + (highMg - lowMg) * random.next());
  const lengthMm = Math.round(usualLength(template, massMg) * (1 + 0.05 * random.normal()));
  const [lean, belly, wave] = [random.normal(), random.normal(), random.normal()];
  const shaped = (values: readonly number[]): number[] =>
    Array.from({ length: 21 }, (_, i) => {
      const x = i / 20;
      const off = lean * (0.5 - x) + belly * 0.5 * Math.cos(3 * x) + wave * 0.3 * Math.sin(6 * x);
      return along(values, x) * Math.exp(0.1 * off);
    });
  const real = { ...template, widths: shaped(template.widths), thicknesses: shaped(template.thicknesses) };
  const truth = fitProfile(real, { massMg, lengthMm });
  return {
    truth,
    measures: {
      massMg,
      lengthMm: 5 * Math.round(lengthMm / 5),
      widths: template.measureAt.map((at) => ({
        at,
        mm: Math.max(5, (truth.widthMm[Math.round(at * lengthMm)] ?? 0) + 3 * random.normal()),
      })),
    },
  };
}

export interface CutResult {
  readonly portions: number;
  readonly inTolerance: number;
  readonly giveAwayMg: number;
}

const KNIFE_MM = 1.5;

/** What a knife that wanders by 1.5 mm gets when it follows the ruler, each portion weighed before the next cut is marked anew. */
export function cutByRuler(template: PieceTemplate, fillet: DrawnFillet, wish: CutWish, random: Random): CutResult {
  const { truth, measures } = fillet;
  const [size] = wish.sizes;
  const cut: { fromMm: number; toMm: number; massMg: number }[] = [];
  let [from, inTolerance, giveAwayMg] = [0, 0, 0];
  for (;;) {
    const profile = profileAfter(template, measures, undefined, cut);
    const marked = planCuts(profile, { ...wish, fromMm: Math.round(from) }).portions[0];
    if (marked === undefined || size === undefined) break;
    const to =
      marked.toMm >= profile.lengthMm
        ? truth.lengthMm
        : Math.min(truth.lengthMm, marked.toMm + KNIFE_MM * random.normal());
    if (to <= from + 1) break;
    const massMg = massBetween(truth, from, to);
    cut.push({ fromMm: Math.round(from), toMm: marked.toMm, massMg });
    if (Math.abs(massMg / size.targetMg - 1) <= size.toleranceShare) inTolerance += 1;
    giveAwayMg += Math.max(0, massMg - size.targetMg);
    from = to;
    if (marked.toMm >= profile.lengthMm) break;
  }
  return { portions: cut.length, inTolerance, giveAwayMg };
}

/** What the same knife gets when it cuts n pieces of equal length, as by eye. */
export function cutByLength(
  fillet: DrawnFillet,
  n: number,
  targetMg: number,
  toleranceShare: number,
  random: Random,
): CutResult {
  const { truth } = fillet;
  const marks = Array.from({ length: n + 1 }, (_, i) =>
    i === 0 ? 0 : i === n ? truth.lengthMm : (i * truth.lengthMm) / n + KNIFE_MM * random.normal(),
  );
  let [inTolerance, giveAwayMg] = [0, 0];
  for (let i = 0; i < n; i += 1) {
    const massMg = massBetween(truth, marks[i] ?? 0, marks[i + 1] ?? 0);
    if (Math.abs(massMg / targetMg - 1) <= toleranceShare) inTolerance += 1;
    giveAwayMg += Math.max(0, massMg - targetMg);
  }
  return { portions: n, inTolerance, giveAwayMg };
}
