/**
 * Cost per kilogram of the main cut over the purchase price per kilogram: multiply tomorrow's price by it to know tomorrow's cost.
 *
 * Units   any money, any mass, the same on both sides. undefined where a mass or the price is zero.
 * Source  butcher's yield test as taught in culinary cost-control courses; common practice.
 * @example 2.4 kg at 38.00, net cost 89.1048 on 1.776 kg -> 1.32031
 */
export function costFactor(paid: number, startMass: number, mainCost: number, mainMass: number): number | undefined {
  if (!(paid > 0 && startMass > 0 && mainMass > 0)) return undefined;
  return mainCost / mainMass / (paid / startMass);
}

/** Minor units per kilogram, or undefined for no mass. */
export const costPerKg = (cost: number, massMg: number): number | undefined =>
  massMg > 0 ? (cost * 1_000_000) / massMg : undefined;
