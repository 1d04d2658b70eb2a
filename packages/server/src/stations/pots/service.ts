/** Batches: planned from lots, and worked at the stove. */
import { categoryInPots } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import {
  asksForCure,
  asMadeHere,
  baseForWant,
  type Food,
  isPastDate,
  type OfferedLot,
  Refusal,
  type RunEvent,
  readRun,
  refusalOf,
  type ScaledUse,
  type Species,
  scaleUse,
  type Use,
  waysOf,
  withCure,
  withWays,
} from '@zabrik/core';
import { foodOfCategory, foodOfLot } from '../../db/foods.ts';
import { dayIn, readHouse } from '../../db/house.ts';
import { insertRow } from '../../db/insertRow.ts';
import { readSpecies } from '../../db/plans.ts';
import { select } from '../../db/select.ts';
import { readTubContents } from '../../db/tubs.ts';
import { findUse } from '../../db/uses.ts';
import { keepRecipe } from '../../db/versions.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';
import { type HeldLot, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { release, reserve } from '../../massledger/reserve.ts';
import { type RunRow, readRunEvents, readRunRow, runOf } from './queries.ts';
import { readBatches } from './uses.ts';

/** A lot as the scaling of a use wants it. */
async function offersOf(
  kitchen: Kitchen,
  { transaction }: InCommand,
  lots: readonly HeldLot[],
  today: string,
): Promise<OfferedLot[]> {
  const runIds = lots.flatMap((l) => (l.runId === null || l.category !== null ? [] : [l.runId]));
  const runs = await select<{ id: string; useId: string }>(
    kitchen.db,
    'select id, use_id as "useId" from run where id = any($1::uuid[])',
    [runIds],
    transaction,
  );
  const useOf = new Map(runs.map((r) => [r.id, r.useId]));
  const contents = new Map<string, OfferedLot['kinds']>();
  for (const lot of lots)
    if (lot.kind === 'tub')
      contents.set(
        lot.id,
        (await readTubContents(kitchen.db, lot.id, transaction)).map((k) => ({ category: k.kind, massMg: k.massMg })),
      );
  return lots.map((lot) => {
    const kinds = contents.get(lot.id);
    const useId = lot.category === null && lot.runId !== null ? useOf.get(lot.runId) : undefined;
    return {
      lotId: lot.id,
      name: lot.name,
      category: categoryInPots(lot.category, lot.species),
      ...(useId === undefined ? {} : { useId }),
      massMg: Math.max(0, lot.freeMg),
      pieces: lot.massMg === 0 ? 0 : Math.round((lot.pieces * Math.max(0, lot.freeMg)) / lot.massMg),
      pastDate: isPastDate(lot.useBy, today),
      ready: lot.ready,
      ...(kinds === undefined ? {} : { kinds }),
    };
  });
}

/** What is raw in a batch: of lots by their animal, of tubs by their kinds, of what the pantry adds by what it stands for. */
function rawIn(
  use: Use,
  scaled: ScaledUse,
  lots: readonly HeldLot[],
  offered: readonly OfferedLot[],
  animals: ReadonlyMap<string, Species>,
): Food[] {
  const found = new Set<Food>();
  for (const { lotId } of scaled.taken) {
    const lot = lots.find((l) => l.id === lotId);
    const kinds = offered.find((o) => o.lotId === lotId)?.kinds;
    if (lot === undefined || lot.ready) continue;
    if (kinds === undefined) found.add(foodOfLot(lot, animals));
    else for (const kind of kinds) found.add(foodOfCategory(kind.category));
  }
  for (const { id, massMg, fromLotsMg } of scaled.ingredients) {
    const ingredient = use.ingredients.find((i) => i.id === id);
    if (ingredient === undefined || massMg <= fromLotsMg) continue;
    if (ingredient.allergens.includes('eggs')) found.add('eggs');
    for (const category of ingredient.accepts ?? []) found.add(foodOfCategory(category));
  }
  return [...found];
}

/**
 * Plans a batch: scales the use to the lots chosen, oldest date first, and promises their mass to it. Nothing moves yet.
 *
 * Errors  `nothing_accepted`, with the reason of the first lot; `invalid` for a use or a pot that is not there.
 */
export async function planRun(
  kitchen: Kitchen,
  command: InCommand,
  { body }: Asked<typeof api.pots.plan>,
): Promise<Answer<typeof api.pots.plan>> {
  const { db } = kitchen;
  const { who, at, transaction } = command;
  const found = await findUse(db, who.houseId, body.useId, transaction);
  if (found === undefined || found.own?.retired === true)
    throw new Problem('invalid', undefined, [{ path: 'useId', message: 'no such use' }]);
  const house = await readHouse(who.houseId, transaction);
  const vessel = body.vesselId === null ? undefined : house.settings.vessels.find((v) => v.id === body.vesselId);
  if (body.vesselId !== null && vessel === undefined)
    throw new Problem('invalid', undefined, [{ path: 'vesselId', message: 'no such pot in this house' }]);
  const ways = waysOf(found.use, body.ways).map((w) => w.id);
  const batches = await readBatches(db, who.houseId, found.use.id, transaction);
  const withShares = withWays(found.use, ways, body.shares);
  if (asksForCure(found.use, ways) !== (body.cure !== null))
    throw new Problem('invalid', undefined, [
      {
        path: 'cure',
        message:
          body.cure === null
            ? 'say which curing salt it is by its label, and how much nitrite is aimed at'
            : 'no curing salt goes into this',
      },
    ]);
  const use = asMadeHere(body.cure === null ? withShares : withCure(withShares, body.cure), ways, batches);
  const wantedBaseMg = body.want === null ? undefined : baseForWant(use, body.want);
  if (body.want !== null && wantedBaseMg === undefined)
    throw new Problem('invalid', undefined, [{ path: 'want', message: 'this use is not counted like that' }]);
  const lots = await lockLots(db, transaction, who.houseId, [...new Set(body.lotIds)]);
  mustBeFree(lots);
  const oldestFirst = [...lots].sort(
    (a, b) => (a.useBy ?? '9999').localeCompare(b.useBy ?? '9999') || a.code.localeCompare(b.code),
  );
  const offered = await offersOf(kitchen, command, oldestFirst, dayIn(house.timezone, at));
  let scaled: ScaledUse;
  try {
    scaled = scaleUse(use, offered, {
      onHandMg: body.onHandMg,
      vesselLitres: vessel === undefined ? undefined : vessel.litres * 0.75,
      ...(wantedBaseMg === undefined ? {} : { wantedBaseMg }),
    });
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const first = offered[0];
    const reason = first === undefined ? undefined : refusalOf(use, first);
    throw new Problem(
      'nothing_accepted',
      first !== undefined && reason !== undefined ? `${first.name}: ${reason}.` : undefined,
    );
  }
  const animals = await readSpecies(db, who.houseId, transaction);
  const runId = command.newId();
  await insertRow(
    db,
    'run',
    {
      id: runId,
      house_id: who.houseId,
      use_id: use.id,
      recipe_version: await keepRecipe(db, who.houseId, use, transaction),
      state: 'planned',
      ways: JSON.stringify(ways),
      ingredients: JSON.stringify(scaled.ingredients),
      base_mg: scaled.baseMg,
      expected: JSON.stringify({ low: scaled.output.lowMg, mean: scaled.output.meanMg, high: scaled.output.highMg }),
      plates: scaled.plates ?? null,
      pieces: scaled.pieces ?? null,
      limiting: scaled.limiting.name,
      short: JSON.stringify(scaled.short),
      foods: JSON.stringify(rawIn(use, scaled, lots, offered, animals)),
      vessel_id: body.vesselId,
      person_id: who.personId,
      planned_at: at,
    },
    transaction,
  );
  await db.query(
    `insert into run_input (run_id, house_id, lot_id, position, mass_mg, as_part)
     select $1, $2, lot_id, position, mass_mg, as_part
     from jsonb_to_recordset($3::jsonb) as i(lot_id uuid, position int, mass_mg bigint, as_part text)`,
    {
      bind: [
        runId,
        who.houseId,
        JSON.stringify(
          scaled.taken.map((t, position) => ({ lot_id: t.lotId, position, mass_mg: t.massMg, as_part: t.as })),
        ),
      ],
      transaction,
    },
  );
  await reserve(db, command, { kind: 'run', id: runId }, scaled.taken);
  return { ...runOf(await readRunRow(db, who.houseId, runId, transaction)), refused: [...scaled.refused] };
}

/** Locks a batch that is not done. Errors: `not_found`; `run_not_planned`. */
export async function lockGoing(
  { db }: Kitchen,
  { who, transaction }: InCommand,
  runId: string,
  mode: 'update' | 'share',
): Promise<RunRow> {
  await db.query(`select 1 from run where id = $1 and house_id = $2 for ${mode === 'update' ? 'update' : 'share'}`, {
    bind: [runId, who.houseId],
    transaction,
  });
  const run = await readRunRow(db, who.houseId, runId, transaction);
  if (run.state !== 'planned' && run.state !== 'on') throw new Problem('run_not_planned');
  return run;
}

/** Writes down one thing that happened at the stove. The first one puts the batch on. */
export async function recordAtStove(
  kitchen: Kitchen,
  command: InCommand,
  { params, body }: Asked<typeof api.pots.event>,
): Promise<Answer<typeof api.pots.event>> {
  const { who, commandId, transaction } = command;
  const said = body.body;
  const run = await lockGoing(kitchen, command, params.runId, 'update');
  const missing = (path: string, message: string): Problem =>
    new Problem('invalid', undefined, [{ path: `body.${path}`, message }]);
  if (said.kind === 'step' && said.step >= run.use.steps.length) throw missing('step', 'there is no such step');
  // what nobody knows the allergens of goes into no pot unnoticed
  if (
    said.kind === 'add' &&
    said.ingredientId !== 'water' &&
    !run.use.ingredients.some((i) => i.id === said.ingredientId)
  )
    throw missing('ingredientId', `${run.use.title} has no ${said.name} in it: add it to our own version first`);
  if (said.kind === 'back' || said.kind === 'timer-off') {
    const events = (await readRunEvents(kitchen.db, [run.id], transaction)).get(run.id) ?? [];
    const { standing } = readRun(run.use.steps, events as readonly RunEvent[]);
    const id = said.kind === 'back' ? said.eventId : said.timerId;
    if (!standing.some((e) => e.id === id)) throw new Problem('already_replaced', 'That was already taken back.');
  }
  if (run.state === 'planned' && said.kind !== 'back')
    await kitchen.db.query(`update run set state = 'on', started_at = $3 where id = $1 and house_id = $2`, {
      bind: [run.id, who.houseId, body.at],
      transaction,
    });
  await insertRow(
    kitchen.db,
    'run_event',
    {
      id: commandId,
      house_id: who.houseId,
      run_id: run.id,
      body: JSON.stringify(said),
      person_id: who.personId,
      at: body.at,
    },
    transaction,
  );
  return { id: commandId, at: body.at, by: who.name, body: said };
}

export async function cancelRun(
  kitchen: Kitchen,
  command: InCommand,
  runId: string,
): Promise<Answer<typeof api.pots.cancel>> {
  const { who, transaction } = command;
  await lockGoing(kitchen, command, runId, 'update');
  await release(kitchen.db, command, runId);
  await kitchen.db.query(`update run set state = 'called-off' where id = $1 and house_id = $2`, {
    bind: [runId, who.houseId],
    transaction,
  });
  return { done: true };
}
