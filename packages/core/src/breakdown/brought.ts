import type { PlanStage } from './plan.ts';

/** Something that was brought to a piece on the bench: bacon round a roll, crust on a barrel, water drunk in a soak. */
export interface Brought {
  readonly id: string;
  readonly pieceId: string;
  readonly name: string;
  readonly massMg: number;
  /** The lot it is of; null for what is bought in and kept in no lot. */
  readonly lotId: string | null;
  /** Of what is in no lot: somebody has said them. A lot has its own. */
  readonly allergens: readonly string[];
}

export type BroughtSaid =
  | ({ readonly kind: 'bring-in' } & Omit<Brought, 'id'>)
  | { readonly kind: 'bring-back'; readonly eventId: string };

/** What was brought and not taken back, in the order in which it was said. */
export function broughtIn(
  said: readonly { readonly id: string; readonly body: { readonly kind: string } }[],
): readonly Brought[] {
  const bodies = said.map(({ id, body }) => ({ id, body: body as BroughtSaid }));
  const back = new Set(bodies.flatMap(({ body }) => (body.kind === 'bring-back' ? [body.eventId] : [])));
  return bodies.flatMap(({ id, body }): Brought[] => {
    if (body.kind !== 'bring-in' || back.has(id)) return [];
    const { pieceId, name, massMg, lotId, allergens } = body;
    return [{ id, pieceId, name, massMg, lotId, allergens }];
  });
}

/** How much was brought to each piece, milligrams. */
export function broughtTo(brought: readonly Brought[]): ReadonlyMap<string, number> {
  const to = new Map<string, number>();
  for (const { pieceId, massMg } of brought) to.set(pieceId, (to.get(pieceId) ?? 0) + massMg);
  return to;
}

/** What of it is in one unit of a piece. Where nobody knows how many there will be, it is all in the first. */
export function broughtToUnit(
  stage: PlanStage,
  to: ReadonlyMap<string, number>,
  animals: number,
): (pieceId: string) => number {
  return (pieceId) => {
    const piece = stage.pieces.find((p) => p.id === pieceId);
    const units = piece === undefined || piece.accumulates === true ? 1 : Math.max(1, piece.count * animals);
    return (to.get(pieceId) ?? 0) / units;
  };
}

/**
 * The mass of the animal in each of several weights of one piece, without what was brought to it.
 *
 * Shapes  result: one for each weight, in their order.
 * Keeps   they and what was brought add up to the weights; what is brought is shared in proportion, the last takes what rounding leaves.
 * Errors  none: where more was brought than weighs, the sum is below nothing, and whoever asks says so.
 *
 * @example 600 g and 400 g of a roll with 100 g of bacon -> 540 g and 360 g
 */
export function withoutBrought(massesMg: readonly number[], broughtMg: number): number[] {
  const total = massesMg.reduce((a, b) => a + b, 0);
  let left = broughtMg;
  return massesMg.map((mass, i) => {
    const own = i === massesMg.length - 1 ? left : Math.round((broughtMg * mass) / Math.max(1, total));
    left -= own;
    return mass - own;
  });
}
