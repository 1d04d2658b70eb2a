import type { Way } from '@zabrik/contract';
import type { PlanPiece, PlanStage } from '@zabrik/core';

/** Pieces in the order the steps take them off; what no step names comes last. */
export function piecesInOrder(stage: PlanStage): PlanPiece[] {
  const ids = [...new Set([...stage.steps.flatMap((step) => step.pieces), ...stage.pieces.map((piece) => piece.id)])];
  return ids.flatMap((id) => stage.pieces.find((piece) => piece.id === id) ?? []);
}

/** How many of a piece there are in all. Picked bit by bit, one weight already makes it a piece. */
export const wantedOf = (piece: PlanPiece, animals: number): number =>
  piece.accumulates === true ? 1 : piece.count * animals;

/** Units of each piece weighed so far. */
export function takenOf(
  counted: readonly { readonly piece: PlanPiece; readonly count: number }[],
): ReadonlyMap<string, number> {
  const taken = new Map<string, number>();
  for (const w of counted) taken.set(w.piece.id, (taken.get(w.piece.id) ?? 0) + w.count);
  return taken;
}

/**
 * The step the cook is at: the one after the last step whose pieces are all weighed. A piece that several steps take off (two
 * fillets, two steps) counts one unit a step.
 */
export function stepAt(stage: PlanStage, taken: ReadonlyMap<string, number>, animals = 1): number {
  let last = -1;
  stage.steps.forEach((step, i) => {
    const done = step.pieces.every((id) => {
      const later = stage.steps.slice(i + 1).filter((s) => s.pieces.includes(id)).length;
      const piece = stage.pieces.find((p) => p.id === id);
      const units = piece === undefined ? 1 : wantedOf(piece, animals);
      return (taken.get(id) ?? 0) >= units - later * animals;
    });
    if (step.pieces.length > 0 && done) last = i;
  });
  return Math.min(last + 1, stage.steps.length - 1);
}

/** The next piece with a unit still to weigh, from the one given onwards and then from the start. What is not in every animal is not asked for. */
export function nextOpen(
  order: readonly PlanPiece[],
  taken: ReadonlyMap<string, number>,
  from: string | undefined,
  animals = 1,
): PlanPiece | undefined {
  const open = (piece: PlanPiece): boolean =>
    piece.occasional !== true && (taken.get(piece.id) ?? 0) < wantedOf(piece, animals);
  const start = Math.max(
    0,
    order.findIndex((piece) => piece.id === from),
  );
  return [...order.slice(start), ...order.slice(0, start)].find(open);
}

/** How many units the next weight of a piece stands for, by the way the batch is weighed; 0 for more of what counts already. */
export function countNow(piece: PlanPiece, way: Way, animals: number, takenUnits: number): number {
  if (piece.accumulates === true) return 1;
  // there is one of it and it counts already: what comes now is more of it, in a second go
  if (piece.count === 1 && takenUnits >= animals) return 0;
  const left = Math.max(1, piece.count * animals - takenUnits);
  if (way === 'pooled') return left;
  // two legs or eight portions go on the pan one by one; giblets, tendons and a heap of slices go on together
  const apart = piece.count <= 2 || (piece.main && piece.count <= MOST_APART);
  return apart ? 1 : Math.min(left, piece.count);
}
const MOST_APART = 8;

/** The animal that a piece comes from next, animal by animal: the one given unless it has all of that piece, then the next that lacks it. */
export function animalFor(
  piece: PlanPiece,
  now: number,
  counted: readonly { readonly piece: PlanPiece; readonly count: number; readonly animal: number | null }[],
  animals: number,
): number {
  const has = (animal: number): number =>
    takenOf(counted.filter((w) => w.animal === animal && w.piece.id === piece.id)).get(piece.id) ?? 0;
  const open = Array.from({ length: animals }, (_, i) => i + 1).filter((a) => has(a) < wantedOf(piece, 1));
  return open.includes(now) ? now : (open.find((a) => a > now) ?? open[0] ?? now);
}

/** The animal whose turn it is when a batch is weighed animal by animal: the first that still lacks a piece. */
export function animalNow(
  order: readonly PlanPiece[],
  counted: readonly { readonly piece: PlanPiece; readonly count: number; readonly animal: number | null }[],
  animals: number,
): number {
  for (let animal = 1; animal <= animals; animal += 1) {
    const taken = takenOf(counted.filter((w) => w.animal === animal));
    if (nextOpen(order, taken, undefined, 1) !== undefined) return animal;
  }
  return animals;
}
