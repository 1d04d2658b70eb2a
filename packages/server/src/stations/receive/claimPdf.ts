import type { Delivery } from '@zabrik/contract';
import { claimWords } from '@zabrik/contract/claim-words';
import { wrap } from '@zabrik/core';
import type { HouseRow } from '../../db/models/house.ts';
import type { GivenFile } from '../../http/file.ts';
import { newDocument } from '../../paper/type.ts';

const A4 = [595.28, 841.89] as const;
const MARGIN = 64;
const SIZE = 11;

/** The claim as a letter on A4. The words are those of the screen. */
export async function claimPdf(house: HouseRow, delivery: Delivery): Promise<GivenFile> {
  const { document, width, write } = await newDocument(`Claim to ${delivery.supplierName}`);
  let page = document.addPage([...A4]);
  let y = A4[1] - MARGIN;
  for (const [i, paragraph] of claimWords(house, delivery).split('\n').entries()) {
    const size = i === 0 ? SIZE * 1.5 : SIZE;
    for (const line of paragraph === '' ? [''] : wrap(paragraph, A4[0] - 2 * MARGIN, size, i === 0, width)) {
      y -= size * 1.4;
      if (y < MARGIN) {
        page = document.addPage([...A4]);
        y = A4[1] - MARGIN - size * 1.4;
      }
      write(page, line, { x: MARGIN, y, size, bold: i === 0 });
    }
  }
  return {
    type: 'application/pdf',
    name: `claim-${delivery.supplierName}-${delivery.at.slice(0, 10)}.pdf`,
    inline: true,
    body: await document.save(),
  };
}
