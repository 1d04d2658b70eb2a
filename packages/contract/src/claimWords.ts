/** A claim in words: the same on the screen, in what is copied, and on paper. */
import { formatMass, formatMoney } from '@zabrik/core';
import type { Delivery } from './stations/receive.ts';

export const refusalNames: Readonly<Record<string, string>> = {
  warm: 'too warm',
  smell: 'smell',
  look: 'look',
  damaged: 'damaged',
  'no-papers': 'papers or tag missing',
  'past-date': 'past its date',
  'wrong-item': 'not what was ordered',
  'too-small': 'too small',
  dead: 'dead on arrival',
  pests: 'pests',
};

const dayWords = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' });

/** One line of a claim, in words and figures. */
export interface ClaimedLine {
  readonly what: string;
  /** Null where nothing is said of what the invoice weighs. */
  readonly invoiced: string | null;
  readonly paid: string;
  /** Null where it was sent back unweighed. */
  readonly weighed: string | null;
  readonly why: string;
  readonly warm: string | null;
  readonly claim: string;
}

export interface Claim {
  readonly title: string;
  readonly from: string;
  readonly to: string;
  readonly opening: string;
  readonly lines: readonly ClaimedLine[];
  readonly closing: string;
}

type ClaimingHouse = { readonly name: string; readonly currency: string };

/** What is claimed, in the order of the delivery; undefined when there is nothing to claim. */
export function claimOf(house: ClaimingHouse, delivery: Delivery): Claim | undefined {
  const money = (minor: number): string => formatMoney(minor, house.currency);
  const lines = delivery.claim.lines.flatMap((claim): ClaimedLine[] => {
    const line = delivery.lines.find((l) => l.id === claim.id);
    if (line === undefined || claim.claimMinor <= 0) return [];
    const reason = refusalNames[line.refusedReason ?? ''] ?? line.refusedReason;
    const lot = line.details.supplierLot === undefined ? '' : `, your lot ${line.details.supplierLot}`;
    return [
      {
        what: `${line.speciesName}${line.formName === '' ? '' : `, ${line.formName}`}${lot}`,
        invoiced: line.invoiceMg === null ? null : formatMass(line.invoiceMg),
        paid: money(line.paidMinor),
        weighed: line.grossMg === null ? null : formatMass(line.netMg),
        why: [
          ...(line.verdict === 'refused' ? [`refused whole: ${reason}`] : []),
          ...(line.verdict === 'part' ? [`${formatMass(claim.refusedMg)} refused: ${reason}`] : []),
          ...(claim.shortMg > 0 ? [`${formatMass(claim.shortMg)} short`] : []),
        ].join(', '),
        warm:
          line.judged?.verdict === 'outside' && line.temperatureCentiC !== null
            ? `It came at ${(line.temperatureCentiC / 100).toFixed(1)} °C.`
            : null,
        claim: money(claim.claimMinor),
      },
    ];
  });
  if (lines.length === 0) return undefined;
  const invoice = delivery.invoice === null ? '' : ` on your invoice ${delivery.invoice}`;
  return {
    title: `Claim for the delivery of ${dayWords.format(new Date(delivery.at))}`,
    from: house.name,
    to: delivery.supplierName,
    opening: `Weighed and looked at on arrival by ${delivery.by}${invoice}:`,
    lines,
    closing: `Please credit ${money(delivery.claim.claimMinor)}. Photographs and weights are kept and can be sent.`,
  };
}

/** Plain text, a line a paragraph; empty when there is nothing to claim. */
export function claimWords(house: ClaimingHouse, delivery: Delivery): string {
  const claim = claimOf(house, delivery);
  if (claim === undefined) return '';
  return [
    claim.title,
    '',
    `From: ${claim.from}`,
    `To: ${claim.to}`,
    '',
    claim.opening,
    '',
    ...claim.lines.map(
      ({ what, invoiced, paid, weighed, why, warm, claim: asked }) =>
        `${what}: ${invoiced === null ? '' : `${invoiced} `}invoiced at ${paid}, ${weighed === null ? 'not weighed' : `${weighed} on our scale`}; ${why}. ${asked}.${warm === null ? '' : ` ${warm}`}`,
    ),
    '',
    claim.closing,
  ].join('\n');
}
