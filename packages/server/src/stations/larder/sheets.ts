/** The larder on paper: what is on hand, and a sheet to count by. */
import type { Lot } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import type { Content } from 'pdfmake/interfaces';
import { placesOf } from '../../db/house.ts';
import type { HouseRow } from '../../db/models/house.ts';
import { type Column, table } from '../../paper/letter.ts';
import { dueOnPaper, heading, line, nothing, what } from '../../paper/sheet.ts';

const pieces = (lot: Lot): string => (lot.pieces > 1 ? String(lot.pieces) : '');

const lotColumns: readonly Column[] = [
  { head: 'Code', width: 52 },
  { head: 'What' },
  { head: 'Use by', width: 64 },
  { head: 'Pieces', figures: true },
  { head: 'Weight', figures: true },
];

/** Lots in the order they come in, each group under its own heading; a sum under each. `groupOf`: undefined where all are one. */
export function larderSheet(
  lots: readonly Lot[],
  today: string,
  groupOf: ((lot: Lot) => string) | undefined,
  asked: string,
): Content[] {
  if (lots.length === 0) return [line(asked), nothing('Nothing is on hand.')];
  const groups = new Map<string, Lot[]>();
  for (const lot of lots) {
    const group = groupOf?.(lot) ?? '';
    groups.set(group, [...(groups.get(group) ?? []), lot]);
  }
  const sum = (some: readonly Lot[]): string =>
    `${some.length} ${some.length === 1 ? 'lot' : 'lots'}, ${formatMass(some.reduce((mg, l) => mg + l.massMg, 0))}`;
  return [
    line([asked, sum(lots)].filter((t) => t !== '').join(' · ')),
    ...[...groups].flatMap(([group, some]): Content[] => [
      ...(group === '' ? [] : [heading(`${group}: ${sum(some)}`)]),
      table(
        lotColumns,
        some.map((l) => [l.code, what(l), dueOnPaper(l.useBy, today), pieces(l), formatMass(l.massMg)]),
      ),
    ]),
  ];
}

/** The name a lot's place has in the house. */
export const placeIn =
  (house: HouseRow) =>
  (lot: Pick<Lot, 'placeId'>): string =>
    placesOf(house).find((p) => p.id === lot.placeId)?.name ?? lot.placeId;

/** What should lie in each place, with room for what is counted and why it differs. */
export function stockTakeSheet(lots: readonly Lot[], today: string, placeOf: (lot: Lot) => string): Content[] {
  if (lots.length === 0) return [nothing('Nothing lies there.')];
  const places = new Map<string, Lot[]>();
  for (const lot of lots) places.set(placeOf(lot), [...(places.get(placeOf(lot)) ?? []), lot]);
  return [
    line('Counted by ________________________   from ________   to ________'),
    ...[...places].flatMap(([place, some]): Content[] => [
      heading(`${place}: ${some.length} ${some.length === 1 ? 'lot' : 'lots'}`),
      table(
        [
          { head: 'Code', width: 52 },
          { head: 'What' },
          { head: 'Use by', width: 64 },
          { head: 'Should be', figures: true },
          { head: 'Counted', width: 70 },
          { head: 'Why it differs', width: 80 },
        ],
        some.map((l) => [
          l.code,
          l.pieces > 1 ? `${l.name}\n${l.pieces} pieces` : l.name,
          dueOnPaper(l.useBy, today),
          formatMass(l.massMg),
          '\n__________',
          '\n____________',
        ]),
      ),
      line('On no list: ______________________________________________________________________'),
    ]),
  ];
}
