import { Refusal } from '../refusal.ts';
import { addFields, type Field, meanOf, nodeWeights, observe, smoothField, varianceOf } from './field.ts';
import { along, between, type PieceTemplate } from './pieceTemplate.ts';

/** What was measured on the piece. Only length and mass are needed; each width or thickness makes the marks surer. */
export interface PieceMeasures {
  readonly massMg: number;
  readonly lengthMm: number;
  /** `at`: share of the length from the thick end. */
  readonly widths?: readonly { readonly at: number; readonly mm: number }[] | undefined;
  readonly thicknesses?: readonly { readonly at: number; readonly mm: number }[] | undefined;
}

/** How the house's own pieces of a kind differ from the handbook's form. */
export interface HouseShape {
  /** Log of the cross-section against the template's, at equally spaced nodes. */
  readonly nodes: readonly number[];
  readonly records: number;
  /** What is left to find out at one piece; log. */
  readonly shapeSd: number;
}

/** A piece as the knife meets it: its mass up to every millimetre, its width and thickness there, and how sure that is. */
export interface PieceProfile {
  readonly lengthMm: number;
  readonly massMg: number;
  /** Mass from the thick end up to millimetre i; lengthMm + 1 values, the last is the whole mass. */
  readonly upToMg: readonly number[];
  readonly widthMm: readonly number[];
  readonly thicknessMm: readonly number[];
  readonly template: PieceTemplate;
  /** Relative error of the cross-section along the piece. */
  readonly doubt: Field;
}

export const NODES = 21;
/** A width read off a ruler held against a wet fillet; estimate. */
const RULER_ERROR = 0.03;
/** How far a knife lands from its mark; millimetres, estimate. */
export const KNIFE_SD_MM = 1.5;
/** What a kitchen scale in 1 g steps adds to one weight; milligrams. */
const SCALE_SD_MG = 600;

/**
 * Fits a template to a piece: scaled to its length, bent to the widths and thicknesses measured, and filled up to its true mass.
 *
 * Units   millimetres and milligrams.
 * Keeps   the profile's mass is the scale's, whatever was measured; masses never fall along the piece.
 * Errors  `not_a_mass`; `not_a_length`.
 * Source  masses between millimetres by Simpson's rule, exact here: width and thickness are straight within one.
 */
export function fitProfile(template: PieceTemplate, measures: PieceMeasures, house?: HouseShape): PieceProfile {
  const lengthMm = Math.round(measures.lengthMm);
  if (!(measures.massMg > 0)) throw new Refusal('not_a_mass', { text: String(measures.massMg) });
  if (!(lengthMm >= 10 && lengthMm <= 3_000)) throw new Refusal('not_a_length', { lengthMm: measures.lengthMm });
  const bend = (values: readonly number[], points: PieceMeasures['widths']): ((share: number) => number) => {
    const ratios = [...(points ?? [])]
      .filter((p) => p.mm > 0)
      .sort((a, b) => a.at - b.at)
      .map((p) => ({ at: p.at, value: p.mm / Math.max(1e-6, along(values, p.at)) }));
    return ratios.length === 0
      ? (share) => along(values, share)
      : (share) => along(values, share) * between(ratios, share);
  };
  const widthAt = bend(template.widths, measures.widths);
  const thicknessAt = bend(template.thicknesses, measures.thicknesses);
  const ofHouse = (share: number): number => (house === undefined ? 1 : Math.exp(along(house.nodes, share)));
  const areaAt = (share: number): number => widthAt(share) * thicknessAt(share) * ofHouse(share);
  const upTo = new Array<number>(lengthMm + 1).fill(0);
  for (let i = 0; i < lengthMm; i += 1) {
    const [a, b] = [i / lengthMm, (i + 1) / lengthMm];
    upTo[i + 1] = (upTo[i] ?? 0) + (areaAt(a) + 4 * areaAt((a + b) / 2) + areaAt(b)) / 6;
  }
  const all = upTo[lengthMm] ?? 0;
  const upToMg = upTo.map((v) => (v / all) * measures.massMg);

  // the true mass gives the scale of what was not measured
  const { density, sectionFactor, lengthToWidth } = template;
  const volumeMm3 = measures.massMg / density;
  const measuredWidth = (measures.widths ?? []).some((w) => w.mm > 0);
  const measuredThickness = (measures.thicknesses ?? []).some((t) => t.mm > 0);
  const widthScale = measuredWidth
    ? 1
    : measuredThickness
      ? volumeMm3 / (sectionFactor * all)
      : lengthMm / lengthToWidth;
  const thicknessScale = volumeMm3 / (sectionFactor * all * widthScale);
  const shares = Array.from({ length: lengthMm + 1 }, (_, i) => i / lengthMm);

  const part = house === undefined ? template.shapeSd : house.shapeSd;
  const measured = (points: PieceMeasures['widths']): Field =>
    (points ?? [])
      .filter((p) => p.mm > 0)
      .reduce(
        (field, p) => observe(field, nodeWeights(NODES, p.at), 0, RULER_ERROR ** 2),
        smoothField(NODES, part / Math.SQRT2, template.shapeReach),
      );
  const profile: PieceProfile = {
    lengthMm,
    massMg: measures.massMg,
    upToMg,
    widthMm: shares.map((s) => widthAt(s) * widthScale),
    thicknessMm: shares.map((s) => thicknessAt(s) * thicknessScale * (house === undefined ? 1 : ofHouse(s))),
    template,
    doubt: addFields(measured(measures.widths), measured(measures.thicknesses)),
  };
  // the whole is known: whatever is thicker than thought somewhere is thinner elsewhere
  return { ...profile, doubt: observe(profile.doubt, massWeights(profile, 0, lengthMm), 0, SCALE_SD_MG ** 2) };
}

/** How much the mass between two places leans on the doubt at each node; milligrams a unit of relative error. */
export function massWeights(profile: PieceProfile, fromMm: number, toMm: number): number[] {
  const weights = new Array<number>(NODES).fill(0);
  const { lengthMm, upToMg } = profile;
  for (let i = Math.max(0, Math.floor(fromMm)); i < Math.min(lengthMm, Math.ceil(toMm)); i += 1) {
    const mg = (upToMg[i + 1] ?? 0) - (upToMg[i] ?? 0);
    const at = ((i + 0.5) / lengthMm) * (NODES - 1);
    const k = Math.min(Math.floor(at), NODES - 2);
    weights[k] = (weights[k] ?? 0) + mg * (1 - (at - k));
    weights[k + 1] = (weights[k + 1] ?? 0) + mg * (at - k);
  }
  return weights;
}

export const massBetween = (profile: PieceProfile, fromMm: number, toMm: number): number =>
  upTo(profile, toMm) - upTo(profile, fromMm);

/** Mass from the thick end to a place; between millimetres by a straight line. */
export function upTo(profile: PieceProfile, mm: number): number {
  const at = Math.min(Math.max(mm, 0), profile.lengthMm);
  const i = Math.min(Math.floor(at), profile.lengthMm - 1);
  const left = profile.upToMg[i] ?? 0;
  return left + ((profile.upToMg[i + 1] ?? left) - left) * (at - i);
}

/** Standard deviation of the mass between two places, the knife's own wander included. */
export function spreadBetween(profile: PieceProfile, fromMm: number, toMm: number): number {
  const form = varianceOf(profile.doubt, massWeights(profile, fromMm, toMm));
  const perMm = (mm: number): number => massBetween(profile, mm - 0.5, mm + 0.5);
  const knife = [fromMm, toMm]
    .filter((mm) => mm > 0 && mm < profile.lengthMm)
    .reduce((sum, mm) => sum + (KNIFE_SD_MM * perMm(mm)) ** 2, 0);
  return Math.sqrt(form + knife + SCALE_SD_MG ** 2);
}

/**
 * The profile once a portion between two places was weighed: what it was heavier or lighter is shared out along the piece, so that
 * the marks not cut yet move.
 *
 * Keeps   the whole piece's mass.
 */
export function learnFromPortion(
  profile: PieceProfile,
  portion: { readonly fromMm: number; readonly toMm: number; readonly massMg: number },
): PieceProfile {
  const weights = massWeights(profile, portion.fromMm, portion.toMm);
  const expected = massBetween(profile, portion.fromMm, portion.toMm);
  const perMm = (mm: number): number => massBetween(profile, mm - 0.5, mm + 0.5);
  const noise =
    SCALE_SD_MG ** 2 +
    (portion.fromMm > 0 ? (KNIFE_SD_MM * perMm(portion.fromMm)) ** 2 : 0) +
    (portion.toMm < profile.lengthMm ? (KNIFE_SD_MM * perMm(portion.toMm)) ** 2 : 0);
  // the mean goes into the masses, so what is left in the field is about zero again
  const seen = observe(profile.doubt, weights, portion.massMg - expected, noise);
  const upToMg = new Array<number>(profile.lengthMm + 1).fill(0);
  for (let i = 0; i < profile.lengthMm; i += 1) {
    const mg = (profile.upToMg[i + 1] ?? 0) - (profile.upToMg[i] ?? 0);
    const more = 1 + meanOf(seen, nodeWeights(NODES, (i + 0.5) / profile.lengthMm));
    upToMg[i + 1] = (upToMg[i] ?? 0) + mg * Math.max(0.05, more);
  }
  const scale = profile.massMg / (upToMg.at(-1) ?? 1);
  return {
    ...profile,
    upToMg: upToMg.map((mg) => mg * scale),
    doubt: { mean: new Array<number>(NODES).fill(0), covariance: seen.covariance },
  };
}
