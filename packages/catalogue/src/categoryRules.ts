/** What a kind of piece may be used for and where it usually goes, read off the pieces of that kind in the plans that ship. */
import type { CutPlan, Destination, PlanPiece } from '@zabrik/core';

export interface CategoryRules {
  readonly refused: PlanPiece['refused'];
  /** The tray that most such pieces go to. */
  readonly usual: Destination;
}

const NONE: CategoryRules = { refused: [], usual: 'larder' };

/** Of several, the one that comes most often; the earlier of two that come alike. */
function commonest<T>(items: readonly T[], as: (item: T) => string): T | undefined {
  const count = new Map<string, number>();
  for (const item of items) count.set(as(item), (count.get(as(item)) ?? 0) + 1);
  const most = Math.max(0, ...count.values());
  return items.find((item) => count.get(as(item)) === most);
}

/**
 * Shapes  result: by category. A kind that no plan has is refused nowhere.
 * Keeps   nothing is refused on the tray where it usually goes.
 */
export function rulesByCategory(plans: readonly CutPlan[]): ReadonlyMap<string, CategoryRules> {
  const pieces = new Map<string, PlanPiece[]>();
  for (const piece of plans.flatMap((plan) => plan.stages.flatMap((stage) => stage.pieces)))
    pieces.set(piece.category, [...(pieces.get(piece.category) ?? []), piece]);
  return new Map(
    [...pieces].map(([category, all]) => {
      const like = commonest(all, (p) =>
        p.refused
          .map((r) => r.destination)
          .sort()
          .join(),
      );
      const same = all.filter(
        (p) => p.refused.length === like?.refused.length && !like.refused.some((r) => r.destination === p.destination),
      );
      return [
        category,
        like === undefined
          ? NONE
          : { refused: like.refused, usual: commonest(same, (p) => p.destination)?.destination ?? like.destination },
      ];
    }),
  );
}
