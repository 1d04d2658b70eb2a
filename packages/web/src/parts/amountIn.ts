import { formatLitres, formatMass, inKilograms, type Recipe, unitName } from '@zabrik/core';

/** So much of what comes out, as it is measured: a litre is taken as a kilogram. */
export const amountIn = (measure: Recipe['output']['measure'], mg: number): string =>
  measure === 'litres' ? formatLitres(inKilograms(mg)) : formatMass(mg);

const words: Readonly<Record<string, string>> = { l: 'Litres', qt: 'Quarts', kg: 'Kilograms', lb: 'Pounds' };
/** What a field of litres or kilograms is called in the house: "Litres", "Quarts". */
export const unitWord = (unit: 'l' | 'kg'): string => words[unitName(unit)] ?? unitName(unit);
