import type { Lot } from '@zabrik/contract';
import { type OfferedLot, parseMass } from '@zabrik/core';
import { dueWords } from '../../app/dates.ts';

/** A lot as the core's scaling wants it. */
export const offerOf = (lot: Lot): OfferedLot => ({
  lotId: lot.id,
  name: lot.name,
  category: lot.category ?? '',
  massMg: lot.massMg,
  pastDate: dueWords(lot.useBy).tone === 'late',
});

/** A mass as typed, or undefined while it cannot be read. */
export const readMass = (text: string): number | undefined => {
  try {
    return parseMass(text);
  } catch {
    return undefined;
  }
};
