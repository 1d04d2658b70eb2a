import { mustBeFigures } from '../refusal.ts';
import { predictNext } from '../yields/predictNext.ts';

/** What we believe about a piece's share of the stage's start for the next animal: a predictive mean and sd, 0..1. */
export interface ShareBelief {
  readonly mean: number;
  readonly sd: number;
  /** The house's own records behind it; 0 means handbook alone. */
  readonly records: number;
}

export interface SupplierBelief extends ShareBelief {
  /** Null where the house has no records of another supplier's. */
  readonly supplier: SupplierShare | null;
}

/** What a supplier's own animals say against the others'. */
export interface SupplierShare {
  readonly records: number;
  readonly others: number;
  /** How much more of the piece its animals give than the others' do, as a share of theirs; null where that is not plain yet. */
  readonly more: number | null;
}

/** How many own records the handbook's mean and its spread are worth. This project's choice. */
const HANDBOOK_RECORDS = 4;
const HANDBOOK_SPREAD_RECORDS = 1.4;
/** After so many newer records an older one counts half: supply, season and hands change. */
const HALF_LIFE = 12;

const logit = (p: number): number => Math.log(p / (1 - p));
const expit = (x: number): number => 1 / (1 + Math.exp(-x));
const clampShare = (p: number): number => Math.min(0.999, Math.max(0.0005, p));

/** One earlier breakdown: the share a piece came to, of how many animals together, and whether they came from another supplier. */
export interface ShareRecord {
  readonly share: number;
  readonly animals: number;
  readonly otherSupplier: boolean;
}

/** How much alike the animals of one lot are in their shares: the part of the spread a lot has in common. This project's choice. */
export const LOT_IN_COMMON = 0.25;
/** The spread of the mean of a batch against one animal's, as a share of the variance. */
export const batchVariance = (animals: number): number => (1 - LOT_IN_COMMON) / Math.max(1, animals) + LOT_IN_COMMON;

/** A supplier is said to differ where chance would show as much less than once in a hundred times. */
const PLAIN = 2.58;
const PLAIN_RECORDS = 3;

/**
 * Joins the handbook's share with the house's own records into a prediction for the next animal: predictNext on the logit of the
 * share, brought back to the share scale by the delta method.
 *
 * A batch's share is the mean of its animals': it says more of the mean, and its spread is less than one animal's.
 *
 * Shapes  records: newest first, may be empty; a bare share is one animal's of this supplier.
 * Errors  `not_a_figure` for a prior that is none; a record that is no number is left out.
 * Keeps   with no records, the prior's mean; with many, the records' mean and spread. Never NaN: shares are held to 0.0005..0.999.
 */
export function believeShare(
  prior: { readonly mean: number; readonly sd: number },
  records: readonly (number | ShareRecord)[],
): SupplierBelief {
  mustBeFigures({ mean: prior.mean, sd: prior.sd });
  const p0 = clampShare(prior.mean);
  const known = records
    .map((r) => (typeof r === 'number' ? { share: r, animals: 1, otherSupplier: false } : r))
    .filter((r) => Number.isFinite(r.share));
  const { mean, sd, apart } = predictNext(
    {
      mean: logit(p0),
      sd: Math.max(prior.sd, 0.0005) / (p0 * (1 - p0)),
      worth: HANDBOOK_RECORDS,
      spreadWorth: HANDBOOK_SPREAD_RECORDS,
      halfLife: HALF_LIFE,
    },
    known.map((r) => ({
      value: logit(clampShare(r.share)),
      variance: batchVariance(r.animals),
      other: r.otherSupplier,
    })),
  );
  const share = expit(mean);
  const others = known.filter((r) => r.otherSupplier).length;
  const own = known.length - others;
  const plain = apart !== null && apart.sure >= PLAIN && own >= PLAIN_RECORDS && others >= PLAIN_RECORDS;
  return {
    mean: share,
    sd: sd * share * (1 - share),
    records: known.length,
    supplier:
      others === 0 ? null : { records: own, others, more: plain ? expit(apart.own) / expit(apart.others) - 1 : null },
  };
}
