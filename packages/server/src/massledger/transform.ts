import type { Sequelize } from 'sequelize';
import type { InCommand } from '../services.ts';
import type { HeldLot } from './lockLots.ts';
import { makeLots, type NewLot } from './makeLots.ts';
import { release } from './reserve.ts';
import { type MovementKind, type Posting, writeMovement } from './writeMovement.ts';

type LotLine = Extract<Posting, { readonly lotId: string }>;
export type SinkLine = Exclude<Posting, LotLine>;

/** What leaves a lot. `pieces`: how many go with it, where somebody counted them. */
export interface OutOf {
  readonly lot: Pick<HeldLot, 'id'>;
  readonly massMg: number;
  readonly costMinor: number;
  readonly pieces?: number | null;
}

export interface Transformation {
  readonly kind: MovementKind;
  readonly station: string;
  readonly note?: string | null;
  /** The breakdown, cutting or batch whose promise is used up by it. */
  readonly holderId?: string;
  /** Lots locked by `lockLots` before, all at once: that keeps one order of locks. */
  readonly outOf?: readonly OutOf[];
  /** New lots; each gets the mass it is made of, and this cost. */
  readonly makes?: readonly { readonly lot: NewLot; readonly costMinor: number; readonly pieces?: number | null }[];
  /** What goes into lots that are there already. */
  readonly into?: readonly LotLine[];
  /** What comes from outside, is lost, thrown away or eaten, and what it cost. */
  readonly sinks?: readonly SinkLine[];
}

/**
 * Mass of some lots becomes others: the one way in which anything is made. Lets go what was promised, makes the lots, and writes one movement
 * that sums to zero; the holds of what went in travel to what came out. Dates and allergens come with the new lots: core works out them.
 *
 * Units   milligrams and minor units, above nothing; which way they go follows from where they stand.
 * Errors  `not_enough`, when more is taken than a lot has free.
 */
export async function transform(
  db: Sequelize,
  command: InCommand,
  { kind, station, note = null, holderId, outOf = [], makes = [], into = [], sinks = [] }: Transformation,
): Promise<{ readonly movementId: string; readonly codes: ReadonlyMap<string, string> }> {
  if (holderId !== undefined) await release(db, command, holderId);
  const codes = await makeLots(
    db,
    command,
    makes.map((m) => m.lot),
  );
  const movementId = command.newId();
  await writeMovement(db, command, {
    id: movementId,
    kind,
    station,
    note,
    reverses: null,
    postings: [
      ...outOf.map(
        ({ lot, massMg, costMinor, pieces }): LotLine => ({
          lotId: lot.id,
          massMg: -massMg,
          costMinor: -costMinor,
          pieces: pieces == null ? null : -pieces,
        }),
      ),
      ...makes.map(
        ({ lot, costMinor, pieces }): LotLine => ({
          lotId: lot.id,
          massMg: lot.madeMg,
          costMinor,
          pieces: pieces ?? null,
        }),
      ),
      ...into,
      ...sinks,
    ],
  });
  return { movementId, codes };
}
