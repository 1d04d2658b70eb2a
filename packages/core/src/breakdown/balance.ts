import { combinedScaleError, type ScaleSpec } from './scaleTolerance.ts';

export interface BalanceInput {
  readonly startMg: number;
  /** Every weighing that still counts, one by one: each adds its own scale error. */
  readonly weighedMg: readonly number[];
  /** Usual drip of this stage as a share of the start: mean and sd. */
  readonly drip: { readonly mean: number; readonly sd: number };
  readonly scale: ScaleSpec;
  /** Pieces not weighed yet with what each should weigh. */
  readonly missing: readonly { readonly pieceId: string; readonly expectedMg: number }[];
}

export type BalanceVerdict = 'balanced' | 'short' | 'gain';

export interface Balance {
  readonly weighedMg: number;
  /** Start minus everything weighed; negative when the pieces weigh more than the start. */
  readonly unaccountedMg: number;
  readonly scaleErrorMg: number;
  readonly usualDripMg: number;
  /** The most that may go unaccounted for without a question. */
  readonly allowedMg: number;
  readonly verdict: BalanceVerdict;
  /** Of the pieces not weighed, the one whose expected mass fits the gap best. */
  readonly likeliestPieceId: string | undefined;
}

/**
 * Judges what a stage has not accounted for.
 *
 * Balanced from minus the scale error to the scale error plus the usual drip and two of its sds. Above: something was not
 * weighed. Below: a weighing is wrong, or water came in.
 *
 * Units   milligrams.
 * Source  scale error: OIML R 76-1 (scaleTolerance.ts); the two-sd margin is this project's choice.
 */
export function judgeBalance(input: BalanceInput): Balance {
  const weighedMg = input.weighedMg.reduce((a, b) => a + b, 0);
  const unaccountedMg = input.startMg - weighedMg;
  const scaleErrorMg = combinedScaleError(input.scale, [input.startMg, ...input.weighedMg]);
  const usualDripMg = input.startMg * input.drip.mean;
  const allowedMg = scaleErrorMg + usualDripMg + 2 * input.startMg * input.drip.sd;
  const verdict = unaccountedMg > allowedMg ? 'short' : unaccountedMg < -scaleErrorMg ? 'gain' : 'balanced';
  const gap = unaccountedMg - usualDripMg;
  const likeliest = [...input.missing].sort((a, b) => Math.abs(a.expectedMg - gap) - Math.abs(b.expectedMg - gap))[0];
  return {
    weighedMg,
    unaccountedMg,
    scaleErrorMg: Math.round(scaleErrorMg),
    usualDripMg: Math.round(usualDripMg),
    allowedMg: Math.round(allowedMg),
    verdict,
    likeliestPieceId: verdict === 'short' ? likeliest?.pieceId : undefined,
  };
}
