/** Vegetables and herbs made ready: what is ready, what of the trim is kept and where, and all else as inedible part. */

import { categoryById } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import { formatMass, trimBalance } from '@zabrik/core';
import { goodsOf } from '../../db/goodsHere.ts';
import { lastDayAfter, readHouse, usualPlace } from '../../db/house.ts';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import { costOfPart, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { keptFresh, type NewLot } from '../../massledger/makeLots.ts';
import { transform } from '../../massledger/transform.ts';
import type { InCommand, Services } from '../../services.ts';
import { mustHave, mustNotWait } from './lotsOfLots.ts';

const READY = 'vegetable-ready';
const hoursOf = (category: string): number => categoryById.get(category)?.useWithinHours ?? 48;

/**
 * Trims goods. What was worked on leaves its lot; what is ready carries all of its cost, kept trim and waste none.
 *
 * Errors  `not_alike`: not goods that are trimmed, or trimmed already. `too_much_out`: more came off than went on the board. `tray_refused`:
 *         trim that no pot takes.
 */
export async function trimGoods(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.larder.trim>,
): Promise<Answer<typeof api.larder.trim>> {
  const { db } = services;
  const { at, actor, transaction } = command;
  const [lot] = await lockLots(db, transaction, actor.houseId, [params.lotId]);
  if (lot === undefined) throw new Problem('not_found');
  mustBeFree([lot]);
  mustNotWait(lot);
  const goods = goodsOf(lot.goods ?? '');
  if (goods?.trim === undefined || lot.category !== null)
    throw new Problem('not_alike', `Lot ${lot.code}, ${lot.name}, is not trimmed here.`);
  const workedMg = body.massMg ?? lot.freeMg;
  mustHave(lot, workedMg);
  const { keptMg, readyMg } = body;
  if (keptMg > 0 && body.keptTo === null)
    throw new Problem('invalid', 'Say where the kept trim goes.', [{ path: 'keptTo', message: 'which tray' }]);
  if (keptMg > 0 && body.keptTo === 'stock' && goods.trim.goesTo !== 'tub')
    throw new Problem('tray_refused', `${goods.trim.never ?? 'Its trim goes in no pot'}.`);
  const { wasteMg, overMg, readyShare } = trimBalance({ workedMg, readyMg, keptMg });
  if (overMg > 0)
    throw new Problem(
      'too_much_out',
      `${formatMass(overMg)} more came off than went on the board. Washed? Spin it dry before it is weighed.`,
    );
  const house = await readHouse(db, command);
  const costMinor = costOfPart(lot, workedMg);
  const made = (
    id: string,
    more: Pick<NewLot, 'kind' | 'name' | 'category' | 'destination' | 'madeMg' | 'goods'>,
  ): NewLot => ({
    ...more,
    id,
    species: null,
    form: null,
    pieces: 1,
    keeping: keptFresh(
      usualPlace(house, false),
      false,
      lastDayAfter(house.timezone, at, hoursOf(more.category ?? READY), lot.useBy),
    ),
    dateBasis: `${hoursOf(more.category ?? READY)} h, usual for ${categoryById.get(more.category ?? READY)?.label ?? 'it'}`,
    supplierId: lot.supplierId,
    breakdownId: null,
    pieceId: null,
    batchId: null,
    allergens: lot.allergens,
    note: null,
  });
  const herb = goods.group === 'herb';
  const ready = made(command.newId(), {
    kind: 'goods',
    name: `${goods.name}, ${herb ? 'leaves' : 'trimmed'}`,
    category: READY,
    destination: lot.destination,
    madeMg: readyMg,
    goods: goods.id,
  });
  const kept =
    keptMg === 0
      ? undefined
      : made(command.newId(), {
          kind: 'piece',
          name: `${goods.name}, ${herb ? 'stems' : 'trim'}`,
          category: herb ? 'herb-stems' : 'vegetable-trim',
          destination: body.keptTo,
          madeMg: keptMg,
          goods: null,
        });
  const { movementId, codes } = await transform(db, command, {
    kind: 'trim',
    station: 'larder',
    note: body.note,
    outOf: [{ lot, massMg: workedMg, costMinor }],
    makes: [{ lot: ready, costMinor }, ...(kept === undefined ? [] : [{ lot: kept, costMinor: 0 }])],
    sinks: [{ sink: 'waste', reason: 'inedible-part', massMg: wasteMg, costMinor: 0 }],
  });
  return {
    movementId,
    lotId: ready.id,
    code: codes.get(ready.id) ?? '',
    keptCode: kept === undefined ? null : (codes.get(kept.id) ?? ''),
    wasteMg,
    readyShare,
  };
}

/** What the house's own trimming of these goods left ready, the latest first. */
export const readGoodsYields = (
  { db }: Services,
  houseId: string,
  goods: string,
): Promise<{ readonly share: number; readonly at: string; readonly by: string }[]> =>
  select(
    db,
    `select (-ready.mass_mg::float8 / worked.mass_mg) as share, to_char(m.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as at, p.name as by
     from movement m
     join posting worked on worked.house_id = m.house_id and worked.at = m.at and worked.movement_id = m.id and worked.mass_mg < 0
     join lot raw on raw.id = worked.lot_id and raw.goods = $2
     join posting ready on ready.house_id = m.house_id and ready.at = m.at and ready.movement_id = m.id and ready.mass_mg > 0
     join lot made on made.id = ready.lot_id and made.category = '${READY}'
     join person p on p.id = m.person_id
     where m.house_id = $1 and m.kind = 'trim' and not exists (select 1 from corrected c where c.house_id = m.house_id and c.id = m.id)
     order by m.at desc, m.id limit 20`,
    [houseId, goods],
  );
