import { formatLitres, formatMass, inKilograms, type Recipe } from '@zabrik/core';

/** So much of what comes out, as it is measured: a litre is taken as a kilogram. */
export const amountIn = (measure: Recipe['output']['measure'], mg: number): string =>
  measure === 'litres' ? formatLitres(inKilograms(mg)) : formatMass(mg);
