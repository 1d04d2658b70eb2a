import { type Field, nodeWeights, observe, smoothField } from './field.ts';
import {
  fitProfile,
  type HouseShape,
  KNIFE_SD_MM,
  learnFromPortion,
  massBetween,
  massWeights,
  NODES,
  type PieceMeasures,
} from './pieceProfile.ts';
import type { PieceTemplate } from './pieceTemplate.ts';

/** One piece that was cut: what was measured, and what each portion between two places weighed. */
export interface CutRecord {
  readonly measures: PieceMeasures;
  readonly portions: readonly { readonly fromMm: number; readonly toMm: number; readonly massMg: number }[];
}

/** Of the whole deviation from the handbook's form, how much is the house's own habit (breed, ground, cutter) before anything is cut. */
const HOUSE_PART = 0.7;

const firstPart = (field: Field, n: number): Field => {
  const m = field.mean.length;
  return {
    mean: field.mean.slice(0, n),
    covariance: Array.from({ length: n * n }, (_, k) => field.covariance[Math.floor(k / n) * m + (k % n)] ?? 0),
  };
};

/** The two fields side by side, independent so far. */
function beside(a: Field, b: Field): Field {
  const [n, m] = [a.mean.length, a.mean.length + b.mean.length];
  return {
    mean: [...a.mean, ...b.mean],
    covariance: Array.from({ length: m * m }, (_, k) => {
      const [i, j] = [Math.floor(k / m), k % m];
      if (i < n && j < n) return a.covariance[i * n + j] ?? 0;
      if (i >= n && j >= n) return b.covariance[(i - n) * (m - n) + (j - n)] ?? 0;
      return 0;
    }),
  };
}

/**
 * The form of the house's own pieces of a kind, from pieces cut and weighed: each piece is the house's form and a deviation of its
 * own, and only the first is kept.
 *
 * Shapes  records: in the order they were cut.
 * Keeps   without records it is the handbook's form.
 * Source  a hierarchical normal model solved one portion at a time (see field.ts).
 */
export function learnShape(template: PieceTemplate, records: readonly CutRecord[]): HouseShape {
  const { shapeSd, shapeReach } = template;
  const own = smoothField(NODES, shapeSd * Math.sqrt(1 - HOUSE_PART ** 2), shapeReach);
  let house = smoothField(NODES, shapeSd * HOUSE_PART, shapeReach);
  for (const { measures, portions } of records) {
    const profile = fitProfile(template, measures);
    let both = beside(house, own);
    const whole = massWeights(profile, 0, profile.lengthMm);
    // scaled to its own mass, only differences along the piece are to be seen
    both = observe(both, [...whole, ...whole], 0, (0.002 * profile.massMg) ** 2);
    for (const { fromMm, toMm, massMg } of portions) {
      const weights = massWeights(profile, fromMm, toMm);
      const knife = KNIFE_SD_MM * massBetween(profile, toMm - 0.5, toMm + 0.5);
      const value = massMg - massBetween(profile, fromMm, toMm);
      both = observe(both, [...weights, ...weights], value, 2 * knife ** 2 + 600 ** 2);
    }
    house = firstPart(both, NODES);
  }
  const nodes = Array.from({ length: NODES }, (_, i) => {
    const weights = nodeWeights(NODES, i / (NODES - 1));
    return weights.reduce((sum, w, k) => sum + w * (house.mean[k] ?? 0), 0);
  });
  const left = house.covariance.reduce((sum, c, k) => (k % (NODES + 1) === 0 ? sum + c / NODES : sum), 0);
  const ownVariance = shapeSd ** 2 * (1 - HOUSE_PART ** 2);
  return { nodes, records: records.length, shapeSd: Math.min(shapeSd, Math.sqrt(left + ownVariance)) };
}

/**
 * How far portions come out from what was foretold before the first cut, as a share of the portion (root mean square): by the
 * handbook's form and by the house's, each piece foretold from the ones before it only.
 */
export function heldOutError(
  template: PieceTemplate,
  records: readonly CutRecord[],
): { readonly handbook: number; readonly house: number; readonly portions: number } {
  let [handbook, house, count] = [0, 0, 0];
  for (const [i, record] of records.entries()) {
    if (i === 0) continue;
    const plain = fitProfile(template, record.measures);
    const learnt = fitProfile(template, record.measures, learnShape(template, records.slice(0, i)));
    for (const { fromMm, toMm, massMg } of record.portions) {
      if (massMg <= 0) continue;
      handbook += (massBetween(plain, fromMm, toMm) / massMg - 1) ** 2;
      house += (massBetween(learnt, fromMm, toMm) / massMg - 1) ** 2;
      count += 1;
    }
  }
  return count === 0
    ? { handbook: 0, house: 0, portions: 0 }
    : { handbook: Math.sqrt(handbook / count), house: Math.sqrt(house / count), portions: count };
}

/** A piece as it stands after the portions cut from it so far. */
export const profileAfter = (
  template: PieceTemplate,
  measures: PieceMeasures,
  house: HouseShape | undefined,
  cut: CutRecord['portions'],
) => cut.reduce(learnFromPortion, fitProfile(template, measures, house));
