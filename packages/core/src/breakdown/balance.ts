import { combinedError, type ScaleSpec } from './scaleTolerance.ts';

export interface BalanceInput {
  readonly startMg: number;
  /** What was brought to pieces meanwhile, and is weighed with them: bacon round a roll. */
  readonly broughtMg?: number;
  /** The scale the start was weighed on. */
  readonly startScale: ScaleSpec;
  /** Every weighing that still counts, one by one: each adds the error of its own scale. */
  readonly weighed: readonly { readonly massMg: number; readonly scale: ScaleSpec }[];
  /** Usual drip of this stage as a share of the start: mean and sd. */
  readonly drip: { readonly mean: number; readonly sd: number };
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
  const weighedMg = input.weighed.reduce((sum, w) => sum + w.massMg, 0);
  const unaccountedMg = input.startMg + (input.broughtMg ?? 0) - weighedMg;
  const scaleErrorMg = combinedError([{ massMg: input.startMg, scale: input.startScale }, ...input.weighed]);
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
