/** A check of a scale in words, never better than its weights show. */
import type { ScaleCheckListed } from '@zabrik/contract';
import { formatMass, type JudgedPoint, judgeScale } from '@zabrik/core';
import { dayName } from '../../app/dates.ts';

const signed = (errorMg: number): string => `${errorMg > 0 ? '+' : ''}${formatMass(errorMg)}`;

export const pointWords = ({ errorMg, allowedMg, verdict }: JudgedPoint): string =>
  `${errorMg === 0 ? 'no error shown' : signed(errorMg)}, ${formatMass(allowedMg)} allowed: ${
    verdict === 'within' ? 'within' : verdict === 'outside' ? 'outside' : 'not sure, the step is too coarse to tell'
  }`;

/** The day it was checked, by whom, and what that showed. */
export function lastCheckWords(check: ScaleCheckListed | undefined): string {
  if (check === undefined) return 'Never checked with weights.';
  const { verdict, upToMg } = judgeScale({ ...check, maxMg: Number.POSITIVE_INFINITY }, check.points);
  const said =
    verdict === 'within'
      ? `within what is allowed, up to ${formatMass(upToMg)}`
      : verdict === 'outside'
        ? 'outside what is allowed: have it adjusted'
        : 'not sure: too few weights, or an error that its step hides';
  return `Checked ${dayName(check.at)} by ${check.by}: ${said}.`;
}
