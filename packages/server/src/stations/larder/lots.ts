/** Lots made of lots without a knife or a fire: parted, put together, collected in a tub, counted. */
import { goodsById, tubPurposes } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import { carryAllergens, formatMass, type Keeping, mergeKeeping, minor } from '@zabrik/core';
import { placeNamed, readHouse } from '../../db/house.ts';
import { selectOne } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';
import { costOfPart, type HeldLot, keepingOf, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import type { NewLot } from '../../massledger/makeLots.ts';
import { mindNods } from '../../massledger/nods.ts';
import { transform } from '../../massledger/transform.ts';
import { type Posting, writeMovement } from '../../massledger/writeMovement.ts';
import { readTub } from './tubs.ts';

const enough = (lot: HeldLot, massMg: number): void => {
  if (lot.massMg === 0) throw new Problem('lot_gone', `Lot ${lot.code} is used up.`);
  if (massMg <= 0 || massMg > lot.freeMg)
    throw new Problem(
      'not_enough',
      `Lot ${lot.code} has ${formatMass(Math.max(0, lot.freeMg))} left that is not on a bench or in a planned pot.`,
    );
};

/** A lot that waits for the next stage of its plan is counted in animals there: parted or mixed it would be counted wrong. */
const mustNotWait = (lot: HeldLot): void => {
  if (lot.nextStage !== null)
    throw new Problem(
      'not_alike',
      `Lot ${lot.code}, ${lot.name}, waits for its next stage on the bench. Put part of it on the bench instead.`,
    );
};

/** Parts a lot. What is taken keeps its dates, its allergens and its way back. */
export async function splitLot(
  kitchen: Kitchen,
  command: InCommand,
  lot: HeldLot,
  massMg: number,
  pieces: number | null,
  trim?: { readonly name: string; readonly category: string },
): Promise<Answer<typeof api.larder.split>> {
  enough(lot, massMg);
  mustNotWait(lot);
  if (massMg === lot.massMg)
    throw new Problem('not_enough', `That is all of lot ${lot.code}: there is nothing to part.`);
  if (pieces !== null && trim === undefined && pieces >= Math.max(2, lot.pieces))
    throw new Problem(
      'not_enough',
      `Lot ${lot.code} is ${lot.pieces} ${lot.pieces === 1 ? 'piece' : 'pieces'}: fewer can be parted from it.`,
    );
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
  const { movementId, codes } = await transform(kitchen.db, command, {
    kind: 'split',
    station: 'larder',
    outOf: [{ lot, massMg, costMinor, pieces: trim === undefined ? pieces : null }],
    makes: [{ lot: part, costMinor, pieces }],
  });
  return { movementId, lotId, code: codes.get(lotId) ?? '' };
}

export async function split(
  kitchen: Kitchen,
  command: InCommand,
  { params, body }: Asked<typeof api.larder.split>,
): Promise<Answer<typeof api.larder.split>> {
  const [lot] = await lockLots(kitchen.db, command.transaction, command.who.houseId, [params.lotId]);
  if (lot === undefined) throw new Problem('not_found');
  mustBeFree([lot]);
  if (!body.trim) return splitLot(kitchen, command, lot, body.massMg, body.pieces);
  const goods = goodsById.get(lot.goods ?? '');
  if (goods?.trim?.goesTo !== 'tub')
    throw new Problem(
      'not_alike',
      `Lot ${lot.code}, ${lot.name}: its trim is not collected. Throw it away as inedible part.`,
    );
  return splitLot(kitchen, command, lot, body.massMg, body.pieces, {
    name: `${goods.name}, ${goods.group === 'herb' ? 'stems' : 'trim'}`,
    category: goods.group === 'herb' ? 'herb-stems' : 'vegetable-trim',
  });
}

const joined = (lots: readonly HeldLot[]): Keeping => {
  const [first, ...others] = lots.map(keepingOf);
  if (first === undefined) throw new Error('nothing to put together');
  return mergeKeeping([first, ...others]);
};

/** Puts lots of one kind together into a new one. Errors: `not_alike`, naming the first that differs; `needs_a_nod` when one was thawed. */
export async function merge(
  kitchen: Kitchen,
  command: InCommand,
  { body }: Asked<typeof api.larder.merge>,
): Promise<Answer<typeof api.larder.merge>> {
  const lots = await lockLots(kitchen.db, command.transaction, command.who.houseId, [...new Set(body.lotIds)]);
  const [first, ...others] = lots;
  if (first === undefined || others.length === 0) throw new Problem('not_alike', 'It takes two lots to put together.');
  mustBeFree(lots);
  for (const lot of lots) {
    enough(lot, lot.massMg);
    mustNotWait(lot);
    const differs =
      lot.kind === 'tub'
        ? 'is a tub: fill it instead'
        : lot.species !== first.species ||
            lot.category !== first.category ||
            lot.goods !== first.goods ||
            lot.form !== first.form
          ? 'is of another kind'
          : lot.destination !== first.destination
            ? 'is for something else'
            : (lot.state === 'frozen') !== (first.state === 'frozen')
              ? 'is frozen and the other is not'
              : lot.ready !== first.ready
                ? 'is ready to eat and the other is raw'
                : lot.kind === 'batch' && lot.name !== first.name
                  ? 'is another dish'
                  : undefined;
    if (differs !== undefined) throw new Problem('not_alike', `Lot ${lot.code}, ${lot.name}, ${differs}.`);
  }
  const lotId = command.newId();
  const massMg = lots.reduce((sum, l) => sum + l.massMg, 0);
  const costMinor = lots.reduce((sum, l) => sum + l.costMinor, 0);
  const keeping = joined(lots);
  const one: NewLot = {
    id: lotId,
    kind: first.kind,
    name: first.name,
    species: first.species,
    form: first.form,
    category: first.category,
    destination: first.destination,
    pieces: lots.reduce((sum, l) => sum + l.pieces, 0),
    madeMg: massMg,
    keeping,
    dateBasis: `the oldest of ${lots.map((l) => l.code).join(', ')}`.slice(0, 300),
    supplierId: lots.every((l) => l.supplierId === first.supplierId) ? first.supplierId : null,
    breakdownId: null,
    pieceId: first.pieceId,
    batchId: null,
    allergens: carryAllergens(...lots.map((l) => l.allergens)),
    goods: first.goods,
    madeAt: new Date(Math.min(...lots.map((l) => l.madeAt.getTime()))),
  };
  const { movementId, codes } = await transform(kitchen.db, command, {
    kind: 'merge',
    station: 'larder',
    outOf: lots.map((l) => ({ lot: l, massMg: l.massMg, costMinor: l.costMinor })),
    makes: [{ lot: one, costMinor }],
  });
  return { movementId, lotId, code: codes.get(lotId) ?? '', useBy: keeping.useBy };
}

interface Going {
  readonly lot: HeldLot;
  readonly massMg: number;
  readonly costMinor: number;
}

/** The lots that go into a tub and how much of each. Errors: `nothing_accepted` naming what the tub's recipe refuses; `goes_in_a_ring`. */
async function going(
  kitchen: Kitchen,
  command: InCommand,
  recipeId: string,
  tubId: string | null,
  from: readonly { readonly lotId: string; readonly massMg: number | null }[],
): Promise<Going[]> {
  const recipe = tubPurposes.get(recipeId);
  if (recipe === undefined)
    throw new Problem('invalid', 'There is no such recipe.', [{ path: 'recipeId', message: 'no such recipe' }]);
  const wanted = new Map(from.map((f) => [f.lotId, f.massMg]));
  const lots = await lockLots(kitchen.db, command.transaction, command.who.houseId, [...wanted.keys()]);
  mustBeFree(lots);
  for (const lot of lots) {
    const refusal = recipe.refuses.find((r) => r.category === lot.category)?.reason;
    if (lot.kind === 'tub' || refusal !== undefined || !recipe.accepts.includes(lot.category ?? ''))
      throw new Problem('nothing_accepted', `${lot.name}: ${refusal ?? `${recipe.title} is not made with this`}.`);
    if (tubId === null) continue;
    const ring = await selectOne<{ ring: boolean }>(
      kitchen.db,
      `with recursive up(lot_id) as (
         select $1::uuid union select k.parent_id from up u join lot_kin k on k.child_id = u.lot_id)
       select exists (select 1 from up where lot_id = $2::uuid) as ring`,
      [lot.id, tubId],
      command.transaction,
    );
    if (ring?.ring === true) throw new Problem('goes_in_a_ring', `${lot.code}, ${lot.name}, was made out of this tub.`);
  }
  return lots.map((lot) => {
    const massMg = wanted.get(lot.id) ?? lot.freeMg;
    enough(lot, massMg);
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
  kitchen: Kitchen,
  command: InCommand,
  { body }: Asked<typeof api.larder.startTub>,
): Promise<Answer<typeof api.larder.startTub>> {
  const { who, transaction } = command;
  const house = await readHouse(who.houseId, transaction);
  const place = placeNamed(house, body.placeId);
  const taken = await going(kitchen, command, body.recipeId, null, body.from);
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
  mindNods(!keeping.ready && place.holds === 'ready' ? ['raw-among-ready'] : [], body.nod);
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
  const { movementId, codes } = await transform(kitchen.db, command, {
    kind: 'fill',
    station: 'larder',
    outOf: taken,
    makes: [{ lot: tub, costMinor: taken.reduce((sum, t) => sum + t.costMinor, 0) }],
  });
  return { movementId, lotId, code: codes.get(lotId) ?? '' };
}

/** Puts lots into a tub. Frozen into frozen, fresh into fresh; a nod to top up a frozen tub with what is not frozen yet. */
export async function fill(
  kitchen: Kitchen,
  command: InCommand,
  { params, body }: Asked<typeof api.larder.fill>,
): Promise<Answer<typeof api.larder.fill>> {
  const { db } = kitchen;
  const { who, transaction } = command;
  // the tub and what goes into it at once, in one order
  const [tub] = await lockLots(db, transaction, who.houseId, [params.lotId, ...body.from.map((f) => f.lotId)]);
  if (tub === undefined) throw new Problem('not_found');
  if (tub.kind !== 'tub' || tub.tubRecipe === null)
    throw new Problem('not_alike', `Lot ${tub.code} is no collecting tub.`);
  mustBeFree([tub]);
  const taken = await going(kitchen, command, tub.tubRecipe, tub.id, body.from);
  const unlike = taken.find((t) => (t.lot.state === 'frozen') !== (tub.state === 'frozen'));
  if (unlike !== undefined)
    throw new Problem(
      'not_alike',
      tub.state === 'frozen'
        ? `The tub is frozen and ${unlike.lot.code} is not. Freeze it first, so that its days are kept.`
        : `${unlike.lot.code} is frozen and the tub is not. Thaw it first.`,
    );
  const keeping = mergeKeeping([keepingOf(tub), ...taken.map((t) => keepingOf(t.lot))]);
  mindNods(tub.state === 'fresh' && keeping.state === 'thawed' ? ['refreeze'] : [], body.nod);
  const addedMg = taken.reduce((sum, t) => sum + t.massMg, 0);
  const { movementId } = await transform(db, command, {
    kind: 'fill',
    station: 'larder',
    outOf: taken,
    into: [{ lotId: tub.id, massMg: addedMg, costMinor: taken.reduce((sum, t) => sum + t.costMinor, 0) }],
  });
  await db.query(
    `update lot set made_mg = made_mg + $3, use_by = $4, state = $5, thawed_on = $6, days_left = $7, date_basis = $8, allergens = $9 where id = $1 and house_id = $2`,
    {
      bind: [
        tub.id,
        who.houseId,
        addedMg,
        keeping.useBy,
        keeping.state,
        keeping.thawedOn,
        keeping.daysLeft,
        dateBasis(
          keeping.useBy,
          taken.map((t) => t.lot),
          tub.dateBasis,
        ),
        carryAllergens(tub.allergens, ...taken.map((t) => t.lot.allergens)),
      ],
      transaction,
    },
  );
  const house = await readHouse(who.houseId, transaction);
  const { due } = await readTub(db, house, tub.id, tub.tubRecipe, transaction);
  return { movementId, lotId: tub.id, massMg: tub.massMg + addedMg, useBy: keeping.useBy, due };
}

/** Writes a round through the larder down: one movement for all that differs, mass and cost to or from what was counted. */
export async function count(
  kitchen: Kitchen,
  command: InCommand,
  { body }: Asked<typeof api.larder.count>,
): Promise<Answer<typeof api.larder.count>> {
  const { db } = kitchen;
  const { who, at, transaction } = command;
  const counted = new Map(body.counts.map((c) => [c.lotId, c]));
  const lots = await lockLots(db, transaction, who.houseId, [...counted.keys()]);
  const postings: Posting[] = [];
  let differenceMg = 0;
  let differenceMinor = 0;
  let differing = 0;
  for (const lot of lots) {
    const line = counted.get(lot.id);
    if (line === undefined) continue;
    // what was counted is held against what was known then: what left since has left both
    const massMg = line.countedMg - (line.seenMg ?? lot.massMg);
    if (massMg === 0) continue;
    const reservedMg = lot.massMg - lot.freeMg;
    if (lot.massMg + massMg < reservedMg)
      throw new Problem(
        'not_enough',
        `Lot ${lot.code}: ${formatMass(reservedMg)} of it is on a bench or promised to a pot. Put that back first, or count again.`,
      );
    if (line.reason === null)
      throw new Problem('invalid', `Lot ${lot.code} differs by ${formatMass(massMg)}: say why.`, [
        { path: 'counts', message: `a reason for ${lot.code}` },
      ]);
    // what is held back is thrown away with its reason, and does not vanish in a count
    if (massMg < 0) mustBeFree([lot]);
    // more than was known is worth what the rest of it is
    const costMinor =
      massMg < 0 ? -costOfPart(lot, -massMg) : lot.massMg === 0 ? 0 : minor((lot.costMinor * massMg) / lot.massMg);
    differing += 1;
    differenceMg += massMg;
    differenceMinor += costMinor;
    postings.push(
      {
        lotId: lot.id,
        massMg,
        costMinor,
        pieces: line.countedPieces === null ? null : line.countedPieces - (line.seenPieces ?? lot.pieces),
      },
      { sink: 'count', reason: line.reason, massMg: -massMg, costMinor: -costMinor },
    );
  }
  const movementId = differing === 0 ? null : command.newId();
  if (movementId !== null)
    await writeMovement(db, command, {
      id: movementId,
      kind: 'count',
      station: 'larder',
      note: body.note,
      reverses: null,
      postings,
    });
  const id = command.newId();
  const takeRow = {
    id,
    placeId: body.placeId,
    lots: lots.length,
    differing,
    differenceMg,
    differenceMinor,
    note: body.note,
  };
  await db.query(
    `insert into stock_take (id, house_id, place_id, movement_id, lots, differing, difference_mg, difference_minor, note, person_id, at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)`,
    {
      bind: [
        id,
        who.houseId,
        body.placeId,
        movementId,
        lots.length,
        differing,
        differenceMg,
        differenceMinor,
        body.note,
        who.personId,
        at,
      ],
      transaction,
    },
  );
  return { ...takeRow, by: who.name, at: at.toISOString(), movementId };
}
