/** What each piece that came off carries of the cost: its share of the animal by the house's school, and all of what was joined to it. */
import { type PlanPiece, shareCostByWeight, shareCostOrFallBack, withoutBrought, worthOf } from '@zabrik/core';
import type { TakenPiece } from '../../db/breakdownHead.ts';
import type { HouseRow } from '../../db/models/house.ts';

interface Taken {
  readonly taken: readonly TakenPiece[];
  readonly pieceOf: (id: string) => PlanPiece;
  /** What was joined to pieces, each with what it cost. */
  readonly brought: readonly { readonly pieceId: string; readonly massMg: number; readonly costMinor: number }[];
  /** What the animal cost. */
  readonly startMinor: number;
  readonly house: HouseRow;
  readonly species: string;
}

/**
 * Shapes  ownMg: of each weight the animal's own mass; what was joined to it has a cost of its own and is no yield.
 * Units   milligrams, minor units.
 * Keeps   costs add up to what the animal cost and what was joined.
 */
export function costOfTaken({ taken, pieceOf, brought, startMinor, house, species }: Taken) {
  const broughtMg = new Map<string, number>();
  for (const b of brought) broughtMg.set(b.pieceId, (broughtMg.get(b.pieceId) ?? 0) + b.massMg);
  // the animal's own mass of each: what was brought to it has a cost of its own and is no yield
  const ownMg = new Map(
    [...new Set(taken.map((t) => t.pieceId))].flatMap((pieceId) => {
      const of = taken.filter((t) => t.pieceId === pieceId);
      const masses = withoutBrought(
        of.map((t) => t.massMg),
        broughtMg.get(pieceId) ?? 0,
      );
      return of.map((t, i) => [t, masses[i] ?? 0] as const);
    }),
  );
  const broughtMinor = new Map(
    [...broughtMg.keys()].flatMap((pieceId) => {
      const of = taken.filter((t) => t.pieceId === pieceId);
      const minor = brought.reduce((sum, b) => sum + (b.pieceId === pieceId ? b.costMinor : 0), 0);
      const kept = withoutBrought(
        of.map((t) => t.massMg),
        minor,
      );
      return of.map((t, i) => [t, t.massMg - (kept[i] ?? 0)] as const);
    }),
  );
  const costed = taken.map((t) => ({
    massMg: ownMg.get(t) ?? 0,
    wasted: t.destination === 'waste',
    main: pieceOf(t.pieceId).main,
    creditMinorPerKg: worthOf(house.settings.creditMinorPerKg, pieceOf(t.pieceId).category, species) ?? 0,
  }));
  const shared = shareCostOrFallBack(house.settings.school, startMinor, costed);
  // nothing was kept: the whole cost goes where the mass went
  const amounts =
    shared?.amounts ??
    shareCostByWeight(
      startMinor,
      costed.map((c) => ({ ...c, wasted: false })),
    );

  const shareOf = new Map(taken.map((t, i) => [t, amounts[i] ?? 0]));
  return {
    ownMg,
    costMinorOf: (t: TakenPiece): number => (shareOf.get(t) ?? 0) + (broughtMinor.get(t) ?? 0),
    school: shared?.school ?? ('weight' as const),
  };
}
