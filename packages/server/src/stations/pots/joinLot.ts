/** A lot joins a pot that is on, or is taken back out of the reckoning. */
import {
  type BatchEventBody,
  type Food,
  formatMass,
  joinBatch,
  overShare,
  type PlannedBatch,
  refusalOf,
  roleIn,
} from '@zabrik/core';
import { dayIn, readHouse } from '../../db/house.ts';
import { BatchTable } from '../../db/models/batch.ts';
import { BatchInputTable } from '../../db/models/batchInput.ts';
import { readSpecies } from '../../db/plans.ts';
import { rowsOf } from '../../db/rows.ts';
import { Problem } from '../../http/problem.ts';
import { lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { release, reserve } from '../../massledger/reserve.ts';
import type { InCommand, Services } from '../../services.ts';
import { offersOf, rawInLots } from './offersOf.ts';
import type { BatchRow } from './queries.ts';

type Joins = Extract<BatchEventBody, { kind: 'join' }>;

/** What a batch is made of from now on: its inputs, what is promised to it, and what is expected of it. */
async function holdsNow(
  { db }: Services,
  command: InCommand,
  batch: BatchRow,
  inputs: readonly { readonly lotId: string; readonly massMg: number; readonly as: string }[],
  next: PlannedBatch,
  foods: readonly Food[],
): Promise<void> {
  const { recipe } = batch;
  const rows = rowsOf(db, BatchInputTable, command);
  await rows.remove({ batchId: batch.id });
  await rows.addAll(
    inputs.map(({ lotId, massMg, as }, position) => ({ batchId: batch.id, lotId, position, massMg, asPart: as })),
  );
  await release(db, command, batch.id);
  await reserve(db, command, { kind: 'batch', id: batch.id }, inputs);
  const perPlate = recipe.gramsPerPlate;
  const perPiece = recipe.piece?.grams;
  await rowsOf(db, BatchTable, command).change(
    { id: batch.id },
    {
      baseMg: next.baseMg,
      ingredients: [...next.ingredients],
      expected: { ...next.expectedMg },
      plates: perPlate === undefined ? null : Math.floor(next.baseMg / (perPlate * 1_000)),
      pieces: perPiece === undefined ? null : Math.floor(next.expectedMg.mean / (perPiece * 1_000)),
      foods: [...foods],
    },
  );
}

/**
 * A lot joins a pot that is on: it is promised to the batch, judged as it would have been when the batch was planned.
 *
 * Errors  `nothing_accepted` when the recipe refuses it, when a kind would be more than its share, or when it is raw and what is in the pot was
 *         cooked through already; `not_enough`; `on_hold`.
 */
export async function joinLot(
  services: Services,
  command: InCommand,
  batch: BatchRow,
  { lotId, massMg }: Joins,
  cooked: number | undefined,
): Promise<void> {
  const { db } = services;
  const { recipe } = batch;
  const house = await readHouse(db, command);
  const others = batch.inputs.map((i) => i.lotId).filter((id) => id !== lotId);
  const lots = await lockLots(db, command.transaction, command.houseId, [lotId, ...others]);
  const [lot] = lots;
  if (lot === undefined) throw new Problem('not_found');
  mustBeFree([lot]);
  const offered = await offersOf(services, command, lots, dayIn(house.timezone, command.at));
  const [offer] = offered;
  const refusal = offer === undefined ? 'It is not here' : refusalOf(recipe, offer);
  if (offer === undefined || refusal !== undefined) throw new Problem('nothing_accepted', `${lot.name}: ${refusal}.`);
  if (cooked !== undefined && !lot.ready)
    throw new Problem(
      'nothing_accepted',
      `${lot.name} is raw, and what is in it was cooked through in step ${cooked + 1}. Take that step back and cook it through again with it, or make it apart.`,
    );
  if (lot.freeMg < massMg)
    throw new Problem('not_enough', `${formatMass(lot.freeMg)} of ${lot.name} is free, not ${formatMass(massMg)}.`);
  const known = batch.inputs.find((i) => i.lotId === lotId);
  const as = known?.as ?? roleIn(recipe, offer) ?? 'base';
  const inputs = [
    ...batch.inputs.map((i) => (i === known ? { ...i, massMg: i.massMg + massMg } : i)),
    ...(known === undefined ? [{ lotId, massMg, as }] : []),
  ];
  const over = overShare(
    recipe,
    inputs.flatMap((i) => {
      const kind = offered.find((o) => o.lotId === i.lotId);
      return i.as !== 'base' || kind === undefined
        ? []
        : (kind.kinds ?? [{ category: kind.category, massMg: 1 }]).map((k, _, all) => ({
            category: k.category,
            massMg:
              (i.massMg * k.massMg) /
              Math.max(
                1,
                all.reduce((sum, x) => sum + x.massMg, 0),
              ),
          }));
    }),
  );
  if (over !== undefined)
    throw new Problem(
      'nothing_accepted',
      `With it ${over.category.replaceAll('-', ' ')} would be ${Math.round(over.share * 100)} % of what it is built on, and is kept to ${Math.round(over.maxShare * 100)} %. ${over.reason}.`,
    );
  const animals = await readSpecies(db, command.houseId, command.transaction);
  const foods = new Set([...batch.foods, ...rawInLots([lot], offered, animals)]);
  await holdsNow(services, command, batch, inputs, joinBatch(recipe, batch, as, massMg), [...foods]);
}

/** What joined is taken back: its lot is free again. What may be raw in the batch stays as it was said: it had lain in it. */
export async function partFrom(
  services: Services,
  command: InCommand,
  batch: BatchRow,
  { lotId, massMg }: Joins,
): Promise<void> {
  const known = batch.inputs.find((i) => i.lotId === lotId);
  if (known === undefined) return;
  const { as } = known;
  await lockLots(
    services.db,
    command.transaction,
    command.houseId,
    batch.inputs.map((i) => i.lotId),
  );
  const inputs = batch.inputs
    .map((i) => (i === known ? { ...i, massMg: i.massMg - massMg } : i))
    .filter((i) => i.massMg > 0);
  await holdsNow(services, command, batch, inputs, joinBatch(batch.recipe, batch, as, -massMg), batch.foods);
}
