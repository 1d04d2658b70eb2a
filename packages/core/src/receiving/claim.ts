/** What a supplier owes: what the invoice asked for and the scale, or the nose, did not find. */
import { type MinorUnits, minor } from '../quantity/money.ts';

export interface ReceivedLine {
  readonly id: string;
  /** Net on the scale of all that came, refused or not; 0 when a line was refused unweighed. */
  readonly netMg: number;
  readonly refusedMg: number;
  /** 0: the invoice says no weight. */
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
 * What an accepted line costs: what the invoice asks, less what was charged of what went back. Short weight stays in the cost until the
 * supplier pays the claim.
 *
 * @example 1,000 g invoiced at 7.80, all came, 250 g sent back -> 5.85; 1,200 g came, 200 sent back -> 7.80
 */
export function costOfAccepted(
  line: Pick<ReceivedLine, 'netMg' | 'refusedMg' | 'invoiceMg' | 'paidMinor'>,
): MinorUnits {
  const { netMg, refusedMg, invoiceMg, paidMinor } = line;
  if (!(invoiceMg > 0)) return minor(paidMinor);
  const chargedMg = Math.min(refusedMg, Math.max(0, invoiceMg - (netMg - refusedMg)));
  return minor(paidMinor - (paidMinor * chargedMg) / invoiceMg);
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
    const worth = (mg: number): number =>
      invoiceMg > 0 ? Math.min(paidMinor, Math.round((paidMinor * mg) / invoiceMg)) : 0;
    if (line.refused)
      return [{ id, shortMg: 0, refusedMg: netMg > 0 ? netMg : invoiceMg, claimMinor: paidMinor, overMg: 0 }];
    const differenceMg = netMg - invoiceMg;
    const beyond = Math.abs(differenceMg) > Math.max(toleranceMg, invoiceMg * toleranceShare);
    const shortMg = beyond && differenceMg < 0 ? -differenceMg : 0;
    const overMg = beyond && differenceMg > 0 ? differenceMg : 0;
    const refusedMg = Math.min(line.refusedMg, netMg);
    if (shortMg === 0 && overMg === 0 && refusedMg === 0) return [];
    // what went back of more than was invoiced was never charged
    const chargedMg = Math.min(shortMg + refusedMg, Math.max(0, invoiceMg - (netMg - refusedMg)));
    return [{ id, shortMg, refusedMg, claimMinor: worth(chargedMg), overMg }];
  });
  return { lines: claimed, claimMinor: claimed.reduce((sum, l) => sum + l.claimMinor, 0) };
}
