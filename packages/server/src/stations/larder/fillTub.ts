/** Collecting tubs: begun with their first lots, and filled. */

import { tubPurposes } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import { carryAllergens, mergeKeeping } from '@zabrik/core';
import { placeNamed, readHouse } from '../../db/house.ts';
import { LotTable } from '../../db/models/lot.ts';
import { rowsOf } from '../../db/rows.ts';
import { selectOne } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import { mindConfirmations } from '../../massledger/confirmations.ts';
import { costOfPart, type HeldLot, keepingOf, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import type { NewLot } from '../../massledger/makeLots.ts';
import { transform } from '../../massledger/transform.ts';
import type { InCommand, Services } from '../../services.ts';
import { joined, mustHave } from './lotsOfLots.ts';
import { readTub } from './tubs.ts';

interface Going {
  readonly lot: HeldLot;
  readonly massMg: number;
  readonly costMinor: number;
}

/** The lots that go into a tub and how much of each. Errors: `nothing_accepted` naming what the tub's recipe refuses; `goes_in_a_ring`. */
async function going(
  services: Services,
  command: InCommand,
  recipeId: string,
  tubId: string | null,
  from: readonly { readonly lotId: string; readonly massMg: number | null }[],
): Promise<Going[]> {
  const recipe = tubPurposes.get(recipeId);
  if (recipe === undefined)
    throw new Problem('invalid', 'There is no such recipe.', [{ path: 'recipeId', message: 'no such recipe' }]);
  const wanted = new Map(from.map((f) => [f.lotId, f.massMg]));
  const lots = await lockLots(services.db, command.transaction, command.actor.houseId, [...wanted.keys()]);
  mustBeFree(lots);
  for (const lot of lots) {
    const refusal = recipe.refuses.find((r) => r.category === lot.category)?.reason;
    if (lot.kind === 'tub' || refusal !== undefined || !recipe.accepts.includes(lot.category ?? ''))
      throw new Problem('nothing_accepted', `${lot.name}: ${refusal ?? `${recipe.title} is not made with this`}.`);
    if (tubId === null) continue;
    const ring = await selectOne<{ ring: boolean }>(
      services.db,
      `with recursive up(lot_id) as (
         select $1::uuid union select k.parent_id from up u join lot_genealogy k on k.child_id = u.lot_id)
       select exists (select 1 from up where lot_id = $2::uuid) as ring`,
      [lot.id, tubId],
      command.transaction,
    );
    if (ring?.ring === true) throw new Problem('goes_in_a_ring', `${lot.code}, ${lot.name}, was made out of this tub.`);
  }
  return lots.map((lot) => {
    const massMg = wanted.get(lot.id) ?? lot.freeMg;
    mustHave(lot, massMg);
    return { lot, massMg, costMinor: costOfPart(lot, massMg) };
  });
}

const dateBasis = (
  useBy: string | null,
  lots: readonly { readonly code: string; readonly useBy: string | null }[],
  before: string | null,
): string | null =>
  lots.find((l) => l.useBy === useBy)?.code === undefined
    ? before
    : `the oldest in it, ${lots.find((l) => l.useBy === useBy)?.code}`;

export async function startTub(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.larder.startTub>,
): Promise<Answer<typeof api.larder.startTub>> {
  const house = await readHouse(services.db, command);
  const place = placeNamed(house, body.placeId);
  const taken = await going(services, command, body.recipeId, null, body.from);
  const keeping = joined(taken.map((t) => t.lot));
  const frozen = taken.filter((t) => t.lot.state === 'frozen').length;
  if (frozen > 0 && frozen < taken.length)
    throw new Problem('not_alike', 'Some of these are frozen and some are not: one tub for each.');
  if ((place.kind === 'freezer') !== frozen > 0)
    throw new Problem(
      'cannot_keep',
      frozen > 0
        ? 'What is in it is frozen: its place is a freezer.'
        : 'Start it in the cold, then freeze the tub, so that its date is kept.',
    );
  mindConfirmations(!keeping.ready && place.holds === 'ready' ? ['raw-among-ready'] : [], body.confirmed);
  const lotId = command.newId();
  const massMg = taken.reduce((sum, t) => sum + t.massMg, 0);
  const tub: NewLot = {
    id: lotId,
    kind: 'tub',
    name: body.name,
    species: null,
    form: null,
    category: taken[0]?.lot.category ?? null,
    destination: 'stock',
    pieces: 1,
    madeMg: massMg,
    keeping: { ...keeping, placeId: place.id },
    dateBasis: dateBasis(
      keeping.useBy,
      taken.map((t) => t.lot),
      null,
    ),
    supplierId: null,
    breakdownId: null,
    pieceId: null,
    batchId: null,
    allergens: carryAllergens(...taken.map((t) => t.lot.allergens)),
    tubRecipe: body.recipeId,
  };
  const { movementId, codes } = await transform(services.db, command, {
    kind: 'fill',
    station: 'larder',
    outOf: taken,
    makes: [{ lot: tub, costMinor: taken.reduce((sum, t) => sum + t.costMinor, 0) }],
  });
  return { movementId, lotId, code: codes.get(lotId) ?? '' };
}

/** Puts lots into a tub. Frozen into frozen, fresh into fresh; a confirmation to top up a frozen tub with what is not frozen yet. */
export async function fill(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.larder.fill>,
): Promise<Answer<typeof api.larder.fill>> {
  const { db } = services;
  const { actor, transaction } = command;
  // the tub and what goes into it at once, in one order
  const [tub] = await lockLots(db, transaction, actor.houseId, [params.lotId, ...body.from.map((f) => f.lotId)]);
  if (tub === undefined) throw new Problem('not_found');
  if (tub.kind !== 'tub' || tub.tubRecipe === null)
    throw new Problem('not_alike', `Lot ${tub.code} is no collecting tub.`);
  mustBeFree([tub]);
  const taken = await going(services, command, tub.tubRecipe, tub.id, body.from);
  const unlike = taken.find((t) => (t.lot.state === 'frozen') !== (tub.state === 'frozen'));
  if (unlike !== undefined)
    throw new Problem(
      'not_alike',
      tub.state === 'frozen'
        ? `The tub is frozen and ${unlike.lot.code} is not. Freeze it first, so that its days are kept.`
        : `${unlike.lot.code} is frozen and the tub is not. Thaw it first.`,
    );
  const keeping = mergeKeeping([keepingOf(tub), ...taken.map((t) => keepingOf(t.lot))]);
  mindConfirmations(tub.state === 'fresh' && keeping.state === 'thawed' ? ['refreeze'] : [], body.confirmed);
  const addedMg = taken.reduce((sum, t) => sum + t.massMg, 0);
  const { movementId } = await transform(db, command, {
    kind: 'fill',
    station: 'larder',
    outOf: taken,
    into: [{ lotId: tub.id, massMg: addedMg, costMinor: taken.reduce((sum, t) => sum + t.costMinor, 0) }],
  });
  await rowsOf(db, LotTable, command).change(
    { id: tub.id },
    {
      madeMg: tub.madeMg + addedMg,
      useBy: keeping.useBy,
      state: keeping.state,
      thawedOn: keeping.thawedOn,
      daysLeft: keeping.daysLeft,
      dateBasis: dateBasis(
        keeping.useBy,
        taken.map((t) => t.lot),
        tub.dateBasis,
      ),
      allergens: carryAllergens(tub.allergens, ...taken.map((t) => t.lot.allergens)),
    },
  );
  const house = await readHouse(db, command);
  const { due } = await readTub(db, house, tub.id, tub.tubRecipe, transaction);
  return { movementId, lotId: tub.id, massMg: tub.massMg + addedMg, useBy: keeping.useBy, due };
}
