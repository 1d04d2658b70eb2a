/** A lot parted: what is taken keeps its dates, its allergens and its way back. */

import type { Answer, Asked, api } from '@zabrik/contract';
import { goodsOf } from '../../db/goodsHere.ts';
import { Problem } from '../../http/problem.ts';
import { costOfPart, type HeldLot, keepingOf, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import type { NewLot } from '../../massledger/makeLots.ts';
import { transform } from '../../massledger/transform.ts';
import type { InCommand, Services } from '../../services.ts';
import { mustHave, mustHavePieces, mustNotWait } from './lotsOfLots.ts';

/** Parts a lot. What is taken keeps its dates, its allergens and its way back. */
export async function splitLot(
  services: Services,
  command: InCommand,
  lot: HeldLot,
  massMg: number,
  pieces: number | null,
  trim?: { readonly name: string; readonly category: string },
): Promise<Answer<typeof api.larder.split>> {
  mustHave(lot, massMg);
  mustNotWait(lot);
  if (massMg === lot.massMg)
    throw new Problem('not_enough', `That is all of lot ${lot.code}: there is nothing to part.`);
  if (pieces !== null && trim === undefined && pieces >= Math.max(2, lot.pieces))
    throw new Problem(
      'not_enough',
      `Lot ${lot.code} is ${lot.pieces} ${lot.pieces === 1 ? 'piece' : 'pieces'}: fewer can be parted from it.`,
    );
  if (trim === undefined) mustHavePieces(lot, pieces);
  const lotId = command.newId();
  const costMinor = costOfPart(lot, massMg);
  const part: NewLot = {
    id: lotId,
    kind: trim === undefined ? lot.kind : 'piece',
    name: trim?.name ?? lot.name,
    species: lot.species,
    form: lot.form,
    category: trim?.category ?? lot.category,
    destination: trim === undefined ? lot.destination : 'stock',
    pieces: pieces ?? Math.max(1, Math.round((lot.pieces * massMg) / lot.massMg)),
    madeMg: massMg,
    keeping: keepingOf(lot),
    dateBasis: lot.dateBasis,
    dateLimit: lot.dateLimit,
    dateMaxC: lot.dateMaxC,
    raised: lot.raised,
    supplierId: lot.supplierId,
    // a form of its own goes to the bench with its share of the animal, which the parent has
    breakdownId: lot.form === null ? lot.breakdownId : null,
    pieceId: lot.pieceId,
    batchId: trim === undefined ? lot.batchId : null,
    allergens: lot.allergens,
    note: lot.note,
    goods: trim === undefined ? lot.goods : null,
    tubRecipe: lot.tubRecipe,
    madeAt: lot.madeAt,
  };
  const { movementId, codes } = await transform(services.db, command, {
    kind: 'split',
    station: 'larder',
    outOf: [{ lot, massMg, costMinor, pieces: trim === undefined ? pieces : null }],
    makes: [{ lot: part, costMinor, pieces }],
  });
  return { movementId, lotId, code: codes.get(lotId) ?? '' };
}

export async function split(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.larder.split>,
): Promise<Answer<typeof api.larder.split>> {
  const [lot] = await lockLots(services.db, command.transaction, command.actor.houseId, [params.lotId]);
  if (lot === undefined) throw new Problem('not_found');
  mustBeFree([lot]);
  if (!body.trim) return splitLot(services, command, lot, body.massMg, body.pieces);
  const goods = goodsOf(lot.goods ?? '');
  if (goods?.trim?.goesTo !== 'tub')
    throw new Problem(
      'not_alike',
      `Lot ${lot.code}, ${lot.name}: its trim is not collected. Throw it away as inedible part.`,
    );
  return splitLot(services, command, lot, body.massMg, body.pieces, {
    name: `${goods.name}, ${goods.group === 'herb' ? 'stems' : 'trim'}`,
    category: goods.group === 'herb' ? 'herb-stems' : 'vegetable-trim',
  });
}
