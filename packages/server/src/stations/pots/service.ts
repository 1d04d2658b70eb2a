import type { Answer, Asked, api } from '@zabrik/contract';
import {
  asksForCure,
  asMadeHere,
  type BatchEvent,
  baseForWant,
  cookedAt,
  type Food,
  floorM2,
  type OfferedLot,
  type Recipe,
  Refusal,
  readBatch,
  refusalOf,
  type ScaledRecipe,
  type Species,
  scaleRecipe,
  waysOf,
  withCure,
  withWays,
} from '@zabrik/core';
import { foodOfCategory } from '../../db/foods.ts';
import { dayIn, readHouse } from '../../db/house.ts';
import { BatchTable } from '../../db/models/batch.ts';
import { BatchEventTable } from '../../db/models/batchEvent.ts';
import { BatchInputTable } from '../../db/models/batchInput.ts';
import { readSpecies } from '../../db/plans.ts';
import { findRecipe } from '../../db/recipes.ts';
import { rowsOf } from '../../db/rows.ts';
import { keepRecipe } from '../../db/versions.ts';
import { Problem } from '../../http/problem.ts';
import { type HeldLot, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { release, reserve } from '../../massledger/reserve.ts';
import type { InCommand, Services } from '../../services.ts';
import { joinLot, partFrom } from './joinLot.ts';
import { offersOf, rawInLots } from './offersOf.ts';
import { type BatchRow, batchOf, readBatchEvents, readBatchRow } from './queries.ts';
import { readBatches } from './recipes.ts';

/** What is raw in a batch: in its lots, and in what the pantry adds by what it stands for. */
function rawIn(
  recipe: Recipe,
  scaled: ScaledRecipe,
  lots: readonly HeldLot[],
  offered: readonly OfferedLot[],
  animals: ReadonlyMap<string, Species>,
): Food[] {
  const taken = new Set(scaled.taken.map((t) => t.lotId));
  const found = rawInLots(
    lots.filter((l) => taken.has(l.id)),
    offered,
    animals,
  );
  for (const { id, massMg, fromLotsMg } of scaled.ingredients) {
    const ingredient = recipe.ingredients.find((i) => i.id === id);
    if (ingredient === undefined || massMg <= fromLotsMg) continue;
    if (ingredient.allergens.includes('eggs')) found.add('eggs');
    for (const category of ingredient.accepts ?? []) found.add(foodOfCategory(category));
  }
  return [...found];
}

/**
 * Plans a batch: scales the recipe to the lots chosen, oldest date first, and promises their mass to it. Nothing moves yet.
 *
 * Errors  `nothing_accepted`, with the reason of the first lot; `invalid` for a recipe or a pot that is not there.
 */
export async function planBatch(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.pots.plan>,
): Promise<Answer<typeof api.pots.plan>> {
  const { db } = services;
  const { actor, at, transaction } = command;
  const found = await findRecipe(db, actor.houseId, body.recipeId, transaction);
  if (found === undefined || found.own?.retired === true)
    throw new Problem('invalid', undefined, [{ path: 'recipeId', message: 'no such recipe' }]);
  const house = await readHouse(db, command);
  const vessel = body.vesselId === null ? undefined : house.settings.vessels.find((v) => v.id === body.vesselId);
  if (body.vesselId !== null && vessel === undefined)
    throw new Problem('invalid', undefined, [{ path: 'vesselId', message: 'no such pot in this house' }]);
  const ways = waysOf(found.recipe, body.ways).map((w) => w.id);
  const batches = await readBatches(db, actor.houseId, found.recipe.id, transaction);
  const withShares = withWays(found.recipe, ways, body.shares);
  if (asksForCure(found.recipe, ways) !== (body.cure !== null))
    throw new Problem('invalid', undefined, [
      {
        path: 'cure',
        message:
          body.cure === null
            ? 'say which curing salt it is by its label, and how much nitrite is aimed at'
            : 'no curing salt goes into this',
      },
    ]);
  const recipe = asMadeHere(body.cure === null ? withShares : withCure(withShares, body.cure), ways, batches);
  const wantedBaseMg = body.want === null ? undefined : baseForWant(recipe, body.want);
  if (body.want !== null && wantedBaseMg === undefined)
    throw new Problem('invalid', undefined, [{ path: 'want', message: 'this recipe is not counted like that' }]);
  const lots = await lockLots(db, transaction, actor.houseId, [...new Set(body.lotIds)]);
  mustBeFree(lots);
  const oldestFirst = [...lots].sort(
    (a, b) => (a.useBy ?? '9999').localeCompare(b.useBy ?? '9999') || a.code.localeCompare(b.code),
  );
  const offered = await offersOf(services, command, oldestFirst, dayIn(house.timezone, at));
  let scaled: ScaledRecipe;
  try {
    scaled = scaleRecipe(recipe, offered, {
      onHandMg: body.onHandMg,
      vesselLitres: vessel === undefined ? undefined : vessel.litres * 0.75,
      ...(vessel?.shape === undefined ? {} : { panFloorM2: floorM2(vessel.shape) }),
      ...(wantedBaseMg === undefined ? {} : { wantedBaseMg }),
    });
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const first = offered[0];
    const reason = first === undefined ? undefined : refusalOf(recipe, first);
    throw new Problem(
      'nothing_accepted',
      first !== undefined && reason !== undefined ? `${first.name}: ${reason}.` : undefined,
    );
  }
  const animals = await readSpecies(db, actor.houseId, transaction);
  const batchId = command.newId();
  await rowsOf(db, BatchTable, command).add({
    id: batchId,
    recipeId: recipe.id,
    recipeVersion: await keepRecipe(db, actor.houseId, recipe, transaction),
    state: 'planned',
    ways,
    ingredients: [...scaled.ingredients],
    baseMg: scaled.baseMg,
    expected: { low: scaled.output.lowMg, mean: scaled.output.meanMg, high: scaled.output.highMg },
    plates: scaled.plates ?? null,
    pieces: scaled.pieces ?? null,
    limiting: scaled.limiting.name,
    short: [...scaled.short],
    foods: rawIn(recipe, scaled, lots, offered, animals),
    vesselId: body.vesselId,
    personId: actor.personId,
    plannedAt: at,
  });
  await rowsOf(db, BatchInputTable, command).addAll(
    scaled.taken.map(({ lotId, massMg, as }, position) => ({ batchId, lotId, position, massMg, asPart: as })),
  );
  await reserve(db, command, { kind: 'batch', id: batchId }, scaled.taken);
  return { ...batchOf(await readBatchRow(db, actor.houseId, batchId, transaction)), refused: [...scaled.refused] };
}

/** Locks a batch that is not done. Errors: `not_found`; `run_not_planned`. */
export async function lockGoing(
  { db }: Services,
  command: InCommand,
  batchId: string,
  lock: 'update' | 'share',
): Promise<BatchRow> {
  await rowsOf(db, BatchTable, command).one({ id: batchId }, { lock });
  const batch = await readBatchRow(db, command.houseId, batchId, command.transaction);
  if (batch.state !== 'planned' && batch.state !== 'on') throw new Problem('run_not_planned');
  return batch;
}

/** Writes down one thing that happened at the stove. The first one puts the batch on. */
export async function recordAtStove(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.pots.event>,
): Promise<Answer<typeof api.pots.event>> {
  const { actor, commandId, transaction } = command;
  const said = body.body;
  const batch = await lockGoing(services, command, params.batchId, 'update');
  const missing = (path: string, message: string): Problem =>
    new Problem('invalid', undefined, [{ path: `body.${path}`, message }]);
  if (said.kind === 'step' && said.step >= batch.recipe.steps.length) throw missing('step', 'there is no such step');
  // what nobody knows the allergens of goes into no pot unnoticed
  if (
    said.kind === 'add' &&
    said.ingredientId !== 'water' &&
    !batch.recipe.ingredients.some((i) => i.id === said.ingredientId)
  )
    throw missing('ingredientId', `${batch.recipe.title} has no ${said.name} in it: add it to our own version first`);
  const about =
    said.kind === 'back'
      ? said.eventId
      : said.kind === 'timer-off'
        ? said.timerId
        : said.kind === 'timer'
          ? said.replaces
          : undefined;
  if (about !== undefined || said.kind === 'join') {
    const events = (await readBatchEvents(services.db, [batch.id], transaction)).get(batch.id) ?? [];
    const { standing, done } = readBatch(batch.recipe.steps, events as readonly BatchEvent[]);
    const event = standing.find((e) => e.id === about);
    if (about !== undefined && event === undefined)
      throw new Problem('already_replaced', 'That was already taken back.');
    if (said.kind === 'join') await joinLot(services, command, batch, said, cookedAt(batch.recipe.steps, done));
    else if (said.kind === 'back' && event?.body.kind === 'join') await partFrom(services, command, batch, event.body);
  }
  if (batch.state === 'planned' && said.kind !== 'back')
    await rowsOf(services.db, BatchTable, command).change(
      { id: batch.id },
      { state: 'on', startedAt: new Date(body.at) },
    );
  await rowsOf(services.db, BatchEventTable, command).add({
    id: commandId,
    batchId: batch.id,
    body: said,
    personId: actor.personId,
    at: new Date(body.at),
  });
  return { id: commandId, at: body.at, by: actor.name, body: said };
}

export async function cancelBatch(
  services: Services,
  command: InCommand,
  batchId: string,
): Promise<Answer<typeof api.pots.cancel>> {
  await lockGoing(services, command, batchId, 'update');
  await release(services.db, command, batchId);
  await rowsOf(services.db, BatchTable, command).change({ id: batchId }, { state: 'called-off' });
  return { done: true };
}
