/** What every way of making lots out of lots asks of them first. */
import { formatMass, type Keeping, mergeKeeping } from '@zabrik/core';
import { Problem } from '../../http/problem.ts';
import { type HeldLot, keepingOf } from '../../massledger/lockLots.ts';

/** There is so much of it that is free. Errors: `lot_gone`; `not_enough` with what there is. */
export const mustHave = (lot: HeldLot, massMg: number): void => {
  if (lot.massMg === 0) throw new Problem('lot_gone', `Lot ${lot.code} is used up.`);
  if (massMg <= 0 || massMg > lot.freeMg)
    throw new Problem(
      'not_enough',
      `Lot ${lot.code} has ${formatMass(lot.freeMg)} left that is not on a bench or in a planned pot.`,
    );
};

/** So many pieces of it are free, where they were counted. Errors: `not_enough` with how many there are. */
export const mustHavePieces = (lot: HeldLot, pieces: number | null): void => {
  if (pieces === null || pieces <= lot.freePieces) return;
  const free = `${lot.freePieces} ${lot.freePieces === 1 ? 'piece' : 'pieces'}`;
  throw new Problem(
    'not_enough',
    lot.freePieces === lot.pieces
      ? `Lot ${lot.code} is ${free}.`
      : `Lot ${lot.code} has ${free} left that ${lot.freePieces === 1 ? 'is' : 'are'} not on a bench or in a planned pot.`,
  );
};

/** A lot that waits for the next stage of its plan is counted in animals there: parted or mixed it would be counted wrong. Errors: `not_alike`. */
export const mustNotWait = (lot: HeldLot): void => {
  if (lot.nextStage !== null)
    throw new Problem(
      'not_alike',
      `Lot ${lot.code}, ${lot.name}, waits for its next stage on the bench. Put part of it on the bench instead.`,
    );
};

/** How lots put together keep: the strictest of each. */
export const joined = (lots: readonly HeldLot[]): Keeping => {
  const [first, ...others] = lots.map(keepingOf);
  if (first === undefined) throw new Error('nothing to put together');
  return mergeKeeping([first, ...others]);
};
