/** What a supplier owes: what the invoice asked for and the scale, or the nose, did not find. */

export interface ReceivedLine {
  readonly id: string;
  /** Net on the scale of all that came, refused or not; 0 when a line was refused unweighed. */
  readonly netMg: number;
  readonly refusedMg: number;
  readonly invoiceMg: number;
  readonly paidMinor: number;
  readonly refused: boolean;
}

export interface ClaimLine {
  readonly id: string;
  /** Short weight beyond the tolerance, and what was sent back; milligrams of what was invoiced. */
  readonly shortMg: number;
  readonly refusedMg: number;
  readonly claimMinor: number;
  /** Over the invoice beyond the tolerance: said, not claimed. */
  readonly overMg: number;
}

export interface Claim {
  readonly lines: readonly ClaimLine[];
  readonly claimMinor: number;
}

/**
 * What to claim for a delivery, at the invoice's own price per kilogram.
 *
 * A difference within the tolerance is the scales' and is not claimed; beyond it all of it is, not only the excess. A line refused
 * whole is claimed whole. A line with more than invoiced owes nothing back and claims nothing for weight.
 *
 * Shapes  one claim line for each line that has something to say, in their order.
 * Units   milligrams, minor units. `toleranceShare` of the invoice, 0..1, `toleranceMg` the least.
 * Keeps   the claim is never more than the line's invoice.
 * Source  practice of the trade; the house sets the tolerance.
 *
 * @example 1,000 g invoiced at 7.80, 960 g on the scale, tolerance 1 % -> 40 g short, 31 pence
 */
export function claimOf(
  lines: readonly ReceivedLine[],
  { toleranceShare, toleranceMg }: { readonly toleranceShare: number; readonly toleranceMg: number },
): Claim {
  const claimed = lines.flatMap((line): ClaimLine[] => {
    const { id, netMg, invoiceMg, paidMinor } = line;
    const worth = (mg: number): number => Math.min(paidMinor, Math.round((paidMinor * mg) / invoiceMg));
    if (line.refused)
      return [{ id, shortMg: 0, refusedMg: netMg > 0 ? netMg : invoiceMg, claimMinor: paidMinor, overMg: 0 }];
    const differenceMg = netMg - invoiceMg;
    const beyond = Math.abs(differenceMg) > Math.max(toleranceMg, invoiceMg * toleranceShare);
    const shortMg = beyond && differenceMg < 0 ? -differenceMg : 0;
    const overMg = beyond && differenceMg > 0 ? differenceMg : 0;
    const refusedMg = Math.min(line.refusedMg, netMg);
    if (shortMg === 0 && overMg === 0 && refusedMg === 0) return [];
    return [{ id, shortMg, refusedMg, claimMinor: worth(shortMg + refusedMg), overMg }];
  });
  return { lines: claimed, claimMinor: claimed.reduce((sum, l) => sum + l.claimMinor, 0) };
}
