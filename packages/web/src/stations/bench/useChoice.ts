/** Which piece is in hand at the bench: the next of the plan, one picked by hand, or one whose weight is being put right. */
import { type Destination, formatMass, type PlanPiece } from '@zabrik/core';
import { useMemo, useState } from 'react';
import { useScaleAtRest } from '../../app/live.ts';
import { animalFor, animalNow, countNow, nextOpen, piecesInOrder, takenOf } from './benchOrder.ts';
import { unitName } from './benchWords.ts';
import type { BenchState, Counted } from './useBreakdown.ts';

export function useChoice({ breakdown, stage, counted }: BenchState, say: (words: string) => void) {
  const { animals, way } = breakdown;
  const reading = useScaleAtRest();
  const [picked, setPicked] = useState<string | undefined>(undefined);
  const [tray, setTray] = useState<Destination | undefined>(undefined);
  const [correcting, setCorrecting] = useState<string | undefined>(undefined);
  const [wantedCount, setWantedCount] = useState<number | undefined>(undefined);
  const [nextAnimal, setNextAnimal] = useState(1);
  const [takenAt, setTakenAt] = useState<number | undefined>(undefined);

  const order = useMemo(() => piecesInOrder(stage), [stage]);
  const taken = useMemo(() => takenOf(counted), [counted]);
  const right: Counted | undefined = counted.find((w) => w.id === correcting);
  const turn = way === 'by-animal' ? (right?.animal ?? Math.max(nextAnimal, animalNow(order, counted, animals))) : null;
  const pickedByHand = order.find((p) => p.id === picked);
  // a third fillet is not the first fish's: a piece picked by hand comes from the next animal that lacks it
  const animal =
    turn === null || right !== undefined || pickedByHand === undefined
      ? turn
      : animalFor(pickedByHand, turn, counted, animals);
  const takenHere = animal === null ? taken : takenOf(counted.filter((w) => w.animal === animal));
  const animalsHere = animal === null ? animals : 1;
  const piece = right?.piece ?? pickedByHand ?? nextOpen(order, takenHere, undefined, animalsHere) ?? order.at(-1);
  if (piece === undefined) throw new Error(`plan ${breakdown.planId} has no pieces`);

  const unit = right?.unit ?? taken.get(piece.id) ?? 0;
  const usualCount = countNow(piece, way, animalsHere, takenHere.get(piece.id) ?? 0);
  const count = right?.count ?? wantedCount ?? usualCount;
  const complete = right === undefined && nextOpen(order, taken, undefined, animals) === undefined;

  /** In hand from now on; what was chosen for the one before is forgotten. */
  const turnTo = (id: string | undefined): void => {
    setCorrecting(undefined);
    setTray(undefined);
    setWantedCount(undefined);
    setPicked(id);
  };
  return {
    order,
    taken,
    right,
    piece,
    unit,
    count,
    usualCount,
    animal,
    name: unitName(piece, unit, count, animals, animal),
    /** Every piece is weighed and none was picked: one picked by hand may go on growing, more meat, one more leg than the plan knows. */
    complete: complete && picked === undefined,
    suggested: right?.destination ?? tray ?? piece.destination,
    tray,
    reading,
    /** What lies on the pan was taken already. */
    wasTaken: takenAt === reading.settled && reading.state === 'steady',
    takenAt,
    refusalOf: (id: Destination): string | undefined => piece.refused.find((r) => r.destination === id)?.reason,
    setTray,
    turnTo,
    correct: setCorrecting,
    setCount: (n: number): void => setWantedCount(Math.max(usualCount === 0 ? 0 : 1, n)),
    tookFromPan: (): void => setTakenAt(reading.settled),
    panIsNew: (): void => setTakenAt(undefined),
    /** A weight was counted: on to what the plan has next. */
    tookOne: (): void => {
      turnTo(picked);
      if (right !== undefined) return;
      // what grows bit by bit goes on until the cook picks another
      const after = new Map(takenHere).set(piece.id, (takenHere.get(piece.id) ?? 0) + count);
      setPicked(piece.accumulates === true ? piece.id : nextOpen(order, after, piece.id, animalsHere)?.id);
    },
    /** The piece so many places on in the plan's order. */
    step: (by: number): void => {
      const i = order.findIndex((p: PlanPiece) => p.id === piece.id);
      turnTo(order[(i + by + order.length) % order.length]?.id);
    },
    /** On to the next animal, whatever this one did not have. */
    toNextAnimal: (): void => {
      if (animal === null || animal >= animals) return;
      setNextAnimal(animal + 1);
      setPicked(undefined);
      say(`No. ${animal + 1} of ${animals}.`);
    },
  };
}

export type Choice = ReturnType<typeof useChoice>;

/** A weight in words: the piece and its mass. */
export const weightWords = (w: Pick<Counted, 'piece' | 'massMg'>): string => `${w.piece.name}, ${formatMass(w.massMg)}`;
