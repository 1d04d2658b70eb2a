import type { Delivery } from '@zabrik/contract';
import { claimOf } from '@zabrik/contract/claim-words';
import type { HouseRow } from '../../db/models/house.ts';
import type { GivenFile } from '../../http/file.ts';
import { Problem } from '../../http/problem.ts';
import { table, words } from '../../paper/letter.ts';
import { inThread } from '../../threads/inThread.ts';

/** The claim as a letter on A4, in the words of the screen. Errors: `not_found` when there is nothing to claim. */
export async function claimPdf(house: HouseRow, delivery: Delivery): Promise<GivenFile> {
  const claim = claimOf(house, delivery);
  if (claim === undefined) throw new Problem('not_found', 'There is nothing to claim for this delivery.');
  const content = [
    { text: words(`From: ${claim.from}`) },
    { text: words(`To: ${claim.to}`), margin: [0, 0, 0, 12] as [number, number, number, number] },
    { text: words(claim.opening) },
    table(
      [
        { head: 'What' },
        { head: 'Invoiced', figures: true },
        { head: 'Amount', figures: true },
        { head: 'Arrived', figures: true },
        { head: 'Claimed', figures: true },
      ],
      claim.lines.map(({ what, invoiced, paid, weighed, why, warm, claim: asked }) => [
        `${what}\n${why}${warm === null ? '' : `. ${warm}`}`,
        invoiced ?? 'not said',
        paid,
        weighed ?? 'not weighed',
        asked,
      ]),
    ),
    { text: words(claim.closing) },
  ];
  const body = await inThread('letter', { title: claim.title, content });
  return {
    type: 'application/pdf',
    name: `claim-${delivery.supplierName}-${delivery.at.slice(0, 10)}.pdf`,
    inline: true,
    body,
  };
}
