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

/** Plain text, a line a paragraph; empty when there is nothing to claim. */
export function claimWords(house: { readonly name: string; readonly currency: string }, delivery: Delivery): string {
  const money = (minor: number): string => formatMoney(minor, house.currency);
  const claimed = delivery.claim.lines.filter((c) => c.claimMinor > 0);
  if (claimed.length === 0) return '';
  const lines = claimed.flatMap((claim) => {
    const line = delivery.lines.find((l) => l.id === claim.id);
    if (line === undefined) return [];
    const name = `${line.speciesName}${line.formName === '' ? '' : `, ${line.formName}`}`;
    const lot = line.details.supplierLot === undefined ? '' : `, your lot ${line.details.supplierLot}`;
    const weighed = line.grossMg === null ? 'not weighed' : `${formatMass(line.netMg)} on our scale`;
    const what = [
      ...(line.verdict === 'refused'
        ? [`refused whole: ${refusalNames[line.refusedReason ?? ''] ?? line.refusedReason}`]
        : []),
      ...(line.verdict === 'part'
        ? [`${formatMass(claim.refusedMg)} refused: ${refusalNames[line.refusedReason ?? ''] ?? line.refusedReason}`]
        : []),
      ...(claim.shortMg > 0 ? [`${formatMass(claim.shortMg)} short`] : []),
    ];
    const warm =
      line.judged?.verdict === 'outside' && line.temperatureCentiC !== null
        ? ` It came at ${(line.temperatureCentiC / 100).toFixed(1)} °C.`
        : '';
    return [
      `${name}${lot}: ${line.invoiceMg === null ? '' : `${formatMass(line.invoiceMg)} `}invoiced at ${money(line.paidMinor)}, ${weighed}; ${what.join(', ')}. ${money(claim.claimMinor)}.${warm}`,
    ];
  });
  const invoice = delivery.invoice === null ? '' : ` on your invoice ${delivery.invoice}`;
  return [
    `Claim for the delivery of ${dayWords.format(new Date(delivery.at))}`,
    '',
    `From: ${house.name}`,
    `To: ${delivery.supplierName}`,
    '',
    `Weighed and looked at on arrival by ${delivery.by}${invoice}:`,
    '',
    ...lines,
    '',
    `Please credit ${money(delivery.claim.claimMinor)}. Photographs and weights are kept and can be sent.`,
  ].join('\n');
}
