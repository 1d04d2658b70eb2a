import type { PlanPiece, PlanStage } from '@zabrik/core';

/** Pieces in the order the steps take them off; what no step names comes last. */
export function piecesInOrder(stage: PlanStage): PlanPiece[] {
  const ids = [...new Set([...stage.steps.flatMap((step) => step.pieces), ...stage.pieces.map((piece) => piece.id)])];
  return ids.flatMap((id) => stage.pieces.find((piece) => piece.id === id) ?? []);
}

/**
 * The step the cook is at: the one after the last step whose pieces are all weighed. A piece that several steps take off (two
 * fillets, two steps) counts one unit a step.
 */
export function stepAt(stage: PlanStage, taken: ReadonlyMap<string, number>): number {
  let last = -1;
  stage.steps.forEach((step, i) => {
    const done = step.pieces.every((id) => {
      const later = stage.steps.slice(i + 1).filter((s) => s.pieces.includes(id)).length;
      const units = stage.pieces.find((p) => p.id === id)?.units.length ?? 1;
      return (taken.get(id) ?? 0) >= units - later;
    });
    if (step.pieces.length > 0 && done) last = i;
  });
  return Math.min(last + 1, stage.steps.length - 1);
}

/** The next piece with a unit still to weigh, from the one given onwards and then from the start. */
export function nextOpen(
  order: readonly PlanPiece[],
  taken: ReadonlyMap<string, number>,
  from: string | undefined,
): PlanPiece | undefined {
  const open = (piece: PlanPiece): boolean => (taken.get(piece.id) ?? 0) < piece.units.length;
  const start = Math.max(
    0,
    order.findIndex((piece) => piece.id === from),
  );
  return [...order.slice(start), ...order.slice(0, start)].find(open);
}
