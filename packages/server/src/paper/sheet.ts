/** What sheets of several stations are made of, and how one is given: the whole list, with the house, the moment and page of pages. */
import type { Lot } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import type { Content } from 'pdfmake/interfaces';
import { dayIn, readHouse } from '../db/house.ts';
import type { GivenFile } from '../http/file.ts';
import type { Actor, Services } from '../services.ts';
import { inThread } from '../threads/inThread.ts';
import { shortDayOnPaper, timeOnPaper } from './dateWords.ts';
import { words } from './letter.ts';

/** More than any kitchen has: a sheet is whole. */
export const MOST_ON_A_SHEET = 20_000;

export const heading = (text: string): Content => ({
  text: words(text),
  bold: true,
  fontSize: 13,
  margin: [0, 8, 0, 0],
});
export const line = (text: string): Content => ({ text: words(text), margin: [0, 0, 0, 4] });
export const nothing = (text: string): Content => ({ text: words(text), italics: false, margin: [0, 6, 0, 6] });

/** How far a use-by is, in words that stand out on paper. */
export const dueOnPaper = (useBy: string | null, today: string): string =>
  useBy === null
    ? 'no date'
    : `${shortDayOnPaper(useBy)}${useBy < today ? '\nPAST' : useBy === today ? '\nLAST DAY' : ''}`;

const stateOf = (lot: Lot): string =>
  [
    lot.state === 'fresh' ? '' : lot.state,
    lot.held === null ? '' : `ON HOLD: ${lot.held}`,
    lot.reservedFor === null ? '' : `for ${lot.reservedFor}`,
    lot.freeMg < lot.massMg ? `${formatMass(lot.massMg - lot.freeMg)} on a bench or promised to a pot` : '',
    lot.allergens.length === 0 ? '' : `allergens: ${lot.allergens.join(', ')}`,
  ]
    .filter((t) => t !== '')
    .join('; ');

/** A lot by its name, whose it is, and what stands in its way. */
export const what = (lot: Lot): string =>
  [lot.name, [lot.supplierName ?? '', stateOf(lot)].filter((t) => t !== '').join('; ')]
    .filter((t) => t !== '')
    .join('\n');

/** A sheet as a file: set on the thread, in a window of its own. */
export async function sheetOf(
  { db, clock }: Services,
  actor: Actor,
  name: string,
  title: string,
  content: readonly Content[],
): Promise<GivenFile> {
  const house = await readHouse(db, actor);
  const head = [house.name, `printed ${timeOnPaper(clock(), house.timezone)}`] as const;
  return {
    type: 'application/pdf',
    name: `${name}-${dayIn(house.timezone, clock())}.pdf`,
    inline: true,
    body: await inThread('letter', { title, content, head }),
  };
}
