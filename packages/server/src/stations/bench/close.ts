import type { Answer, Asked, api } from '@zabrik/contract';
import {
  type Balance,
  balanceStage,
  broughtIn,
  effectiveWeighings,
  formatMass,
  foundDespite,
  type PlanPiece,
  type PlanStage,
  PRACTICE_SCALE,
  slugOf,
} from '@zabrik/core';
import {
  piecesTaken,
  readEvents,
  readInputs,
  readWeighings,
  stageAsCut,
  stageOf,
  type TakenPiece,
  unitsOf,
} from '../../db/breakdownHead.ts';
import { placeNamed, readHouse } from '../../db/house.ts';
import { limitsOf, readLimitChoice, shelfLifeOf } from '../../db/limits.ts';
import { BreakdownTable } from '../../db/models/breakdown.ts';
import { BreakdownPieceTable } from '../../db/models/breakdownPiece.ts';
import { LotEventTable } from '../../db/models/lotEvent.ts';
import { readPantry } from '../../db/pantry.ts';
import { readSpecies } from '../../db/plans.ts';
import { rowsOf } from '../../db/rows.ts';
import type { NewRowOf } from '../../db/table.ts';
import { readPlanVersion } from '../../db/versions.ts';
import { Problem } from '../../http/problem.ts';
import { costOfPart, lockLots } from '../../massledger/lockLots.ts';
import type { NewLot } from '../../massledger/makeLots.ts';
import { promisedPieces, release } from '../../massledger/reserve.ts';
import { type SinkLine, transform } from '../../massledger/transform.ts';
import type { InCommand, Services } from '../../services.ts';
import { mustBeWeighed } from './bringIn.ts';
import { lotOfPiece } from './pieceLot.ts';
import { costOfTaken } from './takenCosts.ts';

const sentenceFor = (balance: Balance, stage: PlanStage): string => {
  if (balance.verdict === 'gain')
    return `The pieces weigh ${formatMass(-balance.unaccountedMg)} more than the animal did. A weight taken twice, a tray not tared, or water? The scale explains ${formatMass(balance.scaleErrorMg)}.`;
  const piece = stage.pieces.find((p) => p.id === balance.likeliestPieceId);
  const guess = piece === undefined ? '' : ` Not weighed yet, and about that heavy: ${piece.name}.`;
  return `${formatMass(balance.unaccountedMg)} is not accounted for; drip and scale explain ${formatMass(balance.allowedMg)}.${guess}`;
};

/** What the house's prices and the books call what is brought. */
const idOf = (name: string): string => slugOf(name) || 'brought';

/** What came off: a lot of it, or waste. */
interface Made {
  readonly piece: PlanPiece;
  readonly massMg: number;
  readonly costMinor: number;
  readonly lot: NewLot | null;
}

/**
 * Closes a stage: judges the balance, makes a lot of every piece kept, books the cost by the house's school, and writes one
 * movement in which what is unaccounted for is an honest loss (drip) or, when pieces outweigh the start, tolerance.
 *
 * Errors  `nothing_weighed`; `practice_weights` where one that counts is from the practice scale; `say_if_cooked` for a stage that cooks; `out_of_balance` unless a reason is given, with the gap and the likeliest missing piece in the detail.
 */
export async function closeStage(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.bench.close>,
): Promise<Answer<typeof api.bench.close>> {
  const { db } = services;
  const { actor, at, transaction } = command;
  const breakdowns = rowsOf(db, BreakdownTable, command);
  const breakdown = await breakdowns.one({ id: params.breakdownId }, { lock: 'update' });
  if (breakdown === undefined) throw new Problem('not_found');
  if (breakdown.state !== 'open') throw new Problem('stage_closed');
  const house = await readHouse(db, command);
  const plan = await readPlanVersion(db, actor.houseId, breakdown.planVersion, transaction);
  const weighings = await readWeighings(db, breakdown.id, transaction);
  const taken = piecesTaken(weighings);
  const found = foundDespite(breakdown.found, stageOf(plan, breakdown.stageId), breakdown.animals, unitsOf(taken));
  const stage = stageAsCut({ ...breakdown, plan, found });
  if (taken.length === 0) throw new Problem('nothing_weighed');
  if (effectiveWeighings(weighings).some((w) => w.scale === PRACTICE_SCALE)) throw new Problem('practice_weights');
  const events = await readEvents(db, breakdown.id, transaction);
  const brought = broughtIn(events);
  const weighedOf = (pieceId: string): number =>
    taken.reduce((sum, t) => sum + (t.pieceId === pieceId ? t.massMg : 0), 0);
  mustBeWeighed(brought, weighedOf);
  const balance = balanceStage(
    stage,
    breakdown.startMg,
    weighings,
    house.settings.scales,
    breakdown.animals,
    brought.reduce((sum, b) => sum + b.massMg, 0),
  );
  if (balance.verdict !== 'balanced' && body.unbalancedReason === null)
    throw new Problem('out_of_balance', sentenceFor(balance, stage));
  const { cooks } = stage;
  if (cooks !== undefined && body.cooked === null) throw new Problem('say_if_cooked');
  const cooked = cooks === undefined ? null : body.cooked;
  const unknown = cooked?.added.find((id) => !(cooks?.adds ?? []).some((a) => a.id === id));
  if (unknown !== undefined)
    throw new Problem('invalid', undefined, [{ path: 'cooked.added', message: `the plan knows no ${unknown}` }]);
  const added = (cooks?.adds ?? []).filter((a) => cooked?.added.includes(a.id) === true);
  const cookedPlace = cooked?.placeId == null ? null : placeNamed(house, cooked.placeId).id;

  const inputs = await readInputs(db, breakdown.id, transaction);
  const held = await lockLots(
    db,
    transaction,
    actor.houseId,
    inputs.map((i) => i.lotId),
  );
  const promised = await promisedPieces(db, command, breakdown.id);
  const came = held.map((lot, i) => {
    const massMg = inputs[i]?.massMg ?? 0;
    return {
      lot,
      massMg,
      costMinor: costOfPart(lot, massMg),
      pieces: promised.get(lot.id) ?? null,
      brought: inputs[i]?.brought === true,
    };
  });
  const sources = came.filter((c) => !c.brought);
  // what was brought: out of its lot at what it cost, or bought in at the house's price
  const prices = await readPantry(db, house, at, command);
  const broughtAt = brought.map((b) => {
    const own = came.find(({ lot }) => lot.id === b.lotId);
    const perKg = prices.get(idOf(b.name))?.minorPerKg ?? 0;
    return { ...b, lot: own?.lot, costMinor: own?.costMinor ?? Math.round((b.massMg * perKg) / 1e6) };
  });
  const startMinor = sources.reduce((sum, source) => sum + source.costMinor, 0);
  const trayNote = new Map(events.flatMap(({ body: e }) => (e.kind === 'tray-note' ? [[e.destination, e.text]] : [])));
  const pieceOf = (id: string): PlanPiece => {
    const piece = stage.pieces.find((p) => p.id === id);
    if (piece === undefined) throw new Error(`plan ${breakdown.planId} has no piece ${id}`);
    return piece;
  };
  const { ownMg, costMinorOf, school } = costOfTaken({
    taken,
    pieceOf,
    brought: broughtAt,
    startMinor,
    house,
    species: breakdown.species,
  });

  // many small weighings of one piece are still the pieces the plan knows; any other weighing says how many it was
  const countOf = (t: TakenPiece): number => {
    const { accumulates, count } = pieceOf(t.pieceId);
    // a half on a tray of its own is a piece of that tray
    return accumulates === true ? count * breakdown.animals : Math.max(1, t.units);
  };
  const species = (await readSpecies(db, actor.houseId, transaction)).get(breakdown.species);
  const madeLimit = shelfLifeOf(
    limitsOf(await readLimitChoice(db, actor.houseId, house.timezone, transaction)),
    'made',
    'ready',
  );
  const made: Made[] = [];
  const readings: NewRowOf<typeof LotEventTable>[] = [];
  const cooking = cooks === undefined || cooked === null ? null : { ...cooked, cooks, added };
  for (const t of taken) {
    const piece = pieceOf(t.pieceId);
    const lotId = t.destination === 'waste' ? null : command.newId();
    const costMinor = costMinorOf(t);
    const joinedHere = broughtAt.filter((b) => b.pieceId === t.pieceId);
    if (lotId === null) made.push({ piece, massMg: t.massMg, costMinor, lot: null });
    else {
      const lot = lotOfPiece({
        id: lotId,
        taken: t,
        piece,
        pieces: countOf(t),
        breakdown,
        species,
        house,
        at,
        sources: sources.map((s) => s.lot),
        joined: joinedHere,
        cooking,
        cookedPlace,
        madeLimit,
        note: trayNote.get(t.destination) ?? null,
      });
      made.push({ piece, massMg: t.massMg, costMinor, lot });
      if (cooking?.coreCentiC != null && cooking.cooks.pieces.includes(piece.id))
        readings.push({
          id: command.newId(),
          lotId,
          kind: 'reading',
          before: {},
          after: { centiC: cooking.coreCentiC },
          note: `core, ${cooking.cooks.word}`,
          personId: actor.personId,
          at,
        });
    }
  }
  const { movementId, codes } = await transform(db, command, {
    kind: 'close-stage',
    station: 'bench',
    note: body.unbalancedReason,
    holderId: breakdown.id,
    outOf: [...sources, ...broughtAt.flatMap((b) => (b.lot === undefined ? [] : [{ ...b, lot: b.lot }]))],
    makes: made.flatMap(({ lot, costMinor }) => (lot === null ? [] : [{ lot, costMinor }])),
    sinks: [
      ...made.flatMap(({ piece, massMg, costMinor, lot }): SinkLine[] =>
        lot === null ? [{ sink: 'waste', reason: `${plan.id}/${piece.id}`, massMg, costMinor }] : [],
      ),
      ...broughtAt.flatMap((b): SinkLine[] =>
        b.lot === undefined
          ? [{ sink: 'pantry', reason: idOf(b.name), massMg: -b.massMg, costMinor: -b.costMinor }]
          : [],
      ),
      {
        sink: 'loss',
        reason: balance.unaccountedMg >= 0 ? 'drip' : 'tolerance',
        massMg: balance.unaccountedMg,
        costMinor: 0,
      },
    ],
  });
  await rowsOf(db, LotEventTable, command).addAll(readings);
  await rowsOf(db, BreakdownPieceTable, command).addAll(
    taken.map((t, i) => ({
      breakdownId: breakdown.id,
      pieceId: t.pieceId,
      destination: t.destination,
      massMg: ownMg.get(t) ?? t.massMg,
      broughtMg: t.massMg - (ownMg.get(t) ?? t.massMg),
      units: countOf(t),
      lotId: made[i]?.lot?.id ?? null,
    })),
  );
  await breakdowns.change(
    { id: breakdown.id },
    {
      state: 'closed',
      found,
      closedAt: at,
      movementId,
      startMinor,
      bookedSchool: school,
      note: body.unbalancedReason,
    },
  );
  const lots = made.flatMap(({ lot }, i): Answer<typeof api.bench.close>['lots'] => {
    const destination = taken[i]?.destination;
    return lot === null || destination === undefined
      ? []
      : [{ lotId: lot.id, code: codes.get(lot.id) ?? '', name: lot.name, massMg: lot.madeMg, destination }];
  });
  return { movementId, unaccountedMg: balance.unaccountedMg, lots };
}

/** Puts an animal back from the bench: only while nothing counts as weighed. */
export async function cancelBreakdown(
  services: Services,
  command: InCommand,
  breakdownId: string,
): Promise<Answer<typeof api.bench.cancel>> {
  const breakdowns = rowsOf(services.db, BreakdownTable, command);
  const breakdown = await breakdowns.one({ id: breakdownId }, { lock: 'update' });
  if (breakdown === undefined) throw new Problem('not_found');
  if (breakdown.state !== 'open') throw new Problem('stage_closed');
  const weighed = effectiveWeighings(await readWeighings(services.db, breakdown.id, command.transaction));
  // practice leaves nothing behind
  if (weighed.some((w) => w.scale !== PRACTICE_SCALE)) throw new Problem('has_weighings');
  await release(services.db, command, breakdown.id);
  await breakdowns.change({ id: breakdown.id }, { state: 'cancelled' });
  return { done: true };
}
