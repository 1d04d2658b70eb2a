/** How a weight is put right at the bench: it was another piece, it goes elsewhere, it is parted or joined, it is taken back. */
import { type Destination, formatMass, PRACTICE_SCALE } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { trayName } from '../../parts/destinations.ts';
import type { BenchState, Counted } from './useBreakdown.ts';
import { type Choice, weightWords } from './useChoice.ts';

/** What a new weight has of the one it stands for. */
const asBefore = (w: Counted) =>
  ({
    pieceId: w.piece.id,
    destination: w.destination ?? w.piece.destination,
    massMg: w.massMg,
    source: w.source ?? 'typed',
    count: w.count,
    animal: w.animal,
    scale: w.scale,
  }) as const;

export function useRighting(
  state: BenchState,
  { right, order, correct, turnTo, panIsNew }: Choice,
  say: (words: string) => void,
) {
  const { counted } = state;
  /** The weight of the same piece that another one can be joined to. */
  const mergeInto =
    right === undefined
      ? undefined
      : counted.find((w) => w.id !== right.id && w.piece.id === right.piece.id && w.destination === right.destination);

  const takeBack = (w: Counted | undefined): void => {
    if (w === undefined) {
      say('There is nothing to undo.');
      return;
    }
    void state.takeBack(w.id, `${weightWords(w)}, taken back`);
    say(`${weightWords(w)}: taken back.`);
    turnTo(w.piece.id);
    panIsNew();
  };
  return {
    mergeInto,
    takeBack,
    /** Two weights of a piece become one. */
    merge: async (): Promise<void> => {
      if (right === undefined || mergeInto === undefined || mergeInto.destination === null) return;
      correct(undefined);
      const sum = right.massMg + mergeInto.massMg;
      say(`${right.piece.name}: two weights are one of ${formatMass(sum)}.`);
      await state.takeNew(
        {
          ...asBefore(mergeInto),
          // what is of practice in part is of practice
          scale: [right.scale, mergeInto.scale].includes(PRACTICE_SCALE) ? PRACTICE_SCALE : mergeInto.scale,
          massMg: sum,
          count: right.count + mergeInto.count,
          replaces: mergeInto.id,
          also: { kind: 'undo', id: uuidv7(), replaces: right.id },
        },
        `${right.piece.name}, joined, ${formatMass(sum)}`,
      );
    },
    /** Parts a weight in two: so much goes to another tray, the rest stays where it was. Both are written or neither. False where it cannot be parted so. */
    split: (to: Destination, partMg: number): boolean => {
      if (right === undefined || right.destination === null) return false;
      if (partMg >= right.massMg) {
        say(`A part of ${formatMass(right.massMg)} is less than all of it.`);
        return false;
      }
      const stays = right.massMg - partMg;
      say(`${formatMass(partMg)} of it to ${trayName(to).toLowerCase()}.`);
      void state.takeNew(
        {
          ...asBefore(right),
          massMg: stays,
          replaces: right.id,
          also: { kind: 'take', id: uuidv7(), destination: to, massMg: partMg, count: 0 },
        },
        `${right.piece.name}, ${formatMass(partMg)} split off, ${formatMass(stays)} stay`,
      );
      return true;
    },
    /** It was another piece of the plan. */
    wasPiece: (id: string): boolean => {
      const chosen = order.find((p) => p.id === id);
      if (right === undefined || chosen === undefined || chosen.id === right.piece.id) return false;
      say(`It was ${chosen.name}, ${formatMass(right.massMg)}.`);
      correct(undefined);
      void state.takeNew(
        { ...asBefore(right), pieceId: chosen.id, destination: chosen.destination, replaces: right.id },
        `${chosen.name}, ${formatMass(right.massMg)}`,
      );
      return true;
    },
    /** Undoes the last thing done with a weight: one put right stands again as it was, one taken is taken back. */
    undo: (): void => {
      const w = right ?? counted.at(-1);
      const before = w === undefined ? undefined : state.beforeRight(w.id);
      if (w === undefined || before === undefined) {
        takeBack(w);
        return;
      }
      correct(undefined);
      panIsNew();
      say(`${before.piece.name}: ${formatMass(before.massMg)} again.`);
      void state.takeNew({ ...asBefore(before), replaces: w.id }, `${weightWords(before)} again`);
    },
  };
}
