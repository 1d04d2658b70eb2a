import { type Destination, type Keeping, type LotState, minor } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { FREE } from '../db/freeOfLot.ts';
import { select } from '../db/select.ts';
import { Problem } from '../http/problem.ts';

export interface HeldLot {
  readonly id: string;
  readonly code: string;
  readonly name: string;
  readonly kind: 'delivery' | 'piece' | 'batch' | 'tub' | 'goods';
  readonly species: string | null;
  readonly form: string | null;
  readonly category: string | null;
  /** How many pieces it still is. */
  readonly pieces: number;
  readonly supplierId: string | null;
  readonly destination: Destination | null;
  readonly batchId: string | null;
  readonly goods: string | null;
  readonly tubRecipe: string | null;
  readonly note: string | null;
  readonly madeAt: Date;
  readonly useBy: string | null;
  readonly placeId: string;
  readonly ready: boolean;
  readonly state: LotState;
  readonly frozenOn: string | null;
  readonly thawedOn: string | null;
  readonly openedOn: string | null;
  readonly daysLeft: number | null;
  readonly dateBasis: string | null;
  readonly dateLimit: string | null;
  readonly dateMaxC: number | null;
  readonly raised: 'wild' | 'farmed' | null;
  readonly reservedFor: string | null;
  readonly held: string | null;
  readonly labels: number;
  readonly allergens: string[];
  readonly breakdownId: string | null;
  readonly pieceId: string | null;
  readonly nextStage: string | null;
  readonly madeMg: number;
  readonly massMg: number;
  readonly costMinor: number;
  /** What nobody has put on the bench or promised to a pot, and how many pieces of it that is. */
  readonly freeMg: number;
  readonly freePieces: number;
}

/**
 * Locks lots for a command and reads what they hold. Locked in id order, so that two commands never wait for each other in a ring.
 *
 * Errors  `not_found` when one of them is not this house's.
 */
export async function lockLots(
  db: Sequelize,
  transaction: Transaction,
  houseId: string,
  lotIds: readonly string[],
): Promise<HeldLot[]> {
  await db.query(
    'select 1 from lot_balance where house_id = $1 and lot_id = any($2::uuid[]) order by lot_id for update',
    {
      bind: [houseId, [...lotIds]],
      transaction,
    },
  );
  const rows = await select<HeldLot>(
    db,
    `select l.id, l.code, l.name, l.kind, l.species, l.form, l.category, b.pieces, l.supplier_id as "supplierId", l.use_by as "useBy",
            l.allergens, l.breakdown_id as "breakdownId", l.piece_id as "pieceId", l.next_stage as "nextStage",
            l.destination, l.batch_id as "batchId", l.goods, l.tub_recipe as "tubRecipe", l.note, l.made_at as "madeAt", l.place_id as "placeId", l.ready, l.state,
            l.frozen_on as "frozenOn", l.thawed_on as "thawedOn", l.opened_on as "openedOn", l.days_left as "daysLeft", l.date_basis as "dateBasis", l.date_limit as "dateLimit", l.date_max_c::float8 as "dateMaxC", l.raised,
            l.reserved_for as "reservedFor", l.held, l.labels, l.made_mg as "madeMg", b.mass_mg as "massMg", b.cost_minor as "costMinor",
            ${FREE}
     from lot l join lot_balance b on b.lot_id = l.id
     where l.house_id = $1 and b.house_id = $1 and l.id = any($2::uuid[])`,
    [houseId, [...lotIds]],
    transaction,
  );
  const byId = new Map(rows.map((row) => [row.id, row]));
  return lotIds.map((lotId) => {
    const row = byId.get(lotId);
    if (row === undefined) throw new Problem('not_found', 'There is no such lot in this house.');
    return row;
  });
}

/** How a lot is kept now. */
export const keepingOf = (lot: HeldLot): Keeping => ({
  state: lot.state,
  placeId: lot.placeId,
  ready: lot.ready,
  useBy: lot.useBy,
  frozenOn: lot.frozenOn,
  thawedOn: lot.thawedOn,
  openedOn: lot.openedOn,
  daysLeft: lot.daysLeft,
});

/** Nothing leaves a lot that is held back, but to the bin. Errors: `on_hold`, naming the lot and why. */
export function mustBeFree(lots: readonly HeldLot[]): void {
  const held = lots.find((lot) => lot.held !== null);
  if (held !== undefined)
    throw new Problem('on_hold', `Lot ${held.code}, ${held.name}, is held back: ${held.held}. A chef can let it go.`);
}

/** What part of a lot costs: in proportion, and all that is left when all of the mass goes. */
export const costOfPart = (lot: { readonly massMg: number; readonly costMinor: number }, massMg: number): number =>
  massMg >= lot.massMg ? lot.costMinor : minor((lot.costMinor * massMg) / lot.massMg);
