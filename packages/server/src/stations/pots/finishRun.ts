/** The end of a batch: one balanced movement out of lots, pantry, work and fuel into what came out. */
import { allGoods } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import {
  addDays,
  carryAllergens,
  combinedError,
  type Destination,
  formatMass,
  LATENT_AT_BOIL,
  lastDay,
  minor,
  priceOf,
  type RunEvent,
  readRun,
  scaleFor,
  type Use,
  WATERY_HEAT,
} from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { dayIn, lastDayAfter, readHouse, usualPlace } from '../../db/house.ts';
import { limitsOf, readLimitChoice, shelfLifeOf } from '../../db/limits.ts';
import type { HouseRow } from '../../db/models.ts';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';
import { costOfPart, type HeldLot, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { keptFresh, makeLot, type NewLot } from '../../massledger/makeLot.ts';
import { type Posting, writeMovement } from '../../massledger/writeMovement.ts';
import { readRunEvents, readRunRow, runOf } from './queries.ts';
import { lockGoing } from './service.ts';

interface TakenGoods {
  readonly lot: HeldLot;
  readonly ingredient: string;
  readonly massMg: number;
  readonly costMinor: number;
}

/** What of the ingredients stands in the larder as vegetables and dry goods: first expired first out, nothing held back or past its date. */
async function takeGoods(
  { db }: Kitchen,
  { who, transaction }: InCommand,
  ingredients: readonly { readonly id: string; readonly massMg: number }[],
  today: string,
): Promise<TakenGoods[]> {
  const fits = new Map(allGoods.flatMap((g) => (g.ingredient === undefined ? [] : [[g.id, g.ingredient] as const])));
  const rows = await select<{ id: string }>(
    db,
    `select l.id from lot l join lot_balance b on b.lot_id = l.id
     where l.house_id = $1 and b.mass_mg > 0 and l.goods = any($2::text[]) and l.held is null and (l.use_by is null or l.use_by >= $3::date)
     order by l.use_by nulls last, l.id`,
    [who.houseId, [...fits.keys()], today],
    transaction,
  );
  const lots = await lockLots(
    db,
    transaction,
    who.houseId,
    rows.map((r) => r.id),
  );
  const wanted = new Map(ingredients.map((i) => [i.id, i.massMg]));
  return lots.flatMap((lot): TakenGoods[] => {
    const ingredient = fits.get(lot.goods ?? '') ?? '';
    const massMg = Math.min(lot.freeMg, wanted.get(ingredient) ?? 0);
    if (massMg <= 0) return [];
    wanted.set(ingredient, (wanted.get(ingredient) ?? 0) - massMg);
    return [{ lot, ingredient, massMg, costMinor: costOfPart(lot, massMg) }];
  });
}

/**
 * When a batch was done: as the tablet says, which may have been without network for hours. Its clock may be wrong: not before the batch
 * was planned, and not after the server heard of it.
 */
const whenDone = (heard: Date, said: string | null, planned: Date): Date =>
  said === null ? heard : new Date(Math.min(heard.getTime(), Math.max(planned.getTime(), Date.parse(said))));

/** Fuel of a batch, kilowatt-hours: heating what is in it by 80 degrees and what boiled away, by a burner of this efficiency. */
const energyOf = (inMg: number, boiledMg: number, efficiency: number): number =>
  ((inMg / 1e6) * WATERY_HEAT * 80 + (Math.max(0, boiledMg) / 1e6) * LATENT_AT_BOIL) / 3_600_000 / efficiency;

/** The date of what was made, and where it comes from in words. */
async function dateOf(
  { db }: Kitchen,
  { who, at, transaction }: InCommand,
  house: HouseRow,
  use: Use,
  earliest: string | null,
): Promise<{ readonly useBy: string; readonly dateBasis: string }> {
  const today = dayIn(house.timezone, at);
  // what is raw lives no longer than what is in it; cooked food starts its own clock, as the house's limits count it
  const usual = lastDayAfter(house.timezone, at, 24 * use.shelfLifeDays, use.ready ? null : earliest);
  const marked = use.ready
    ? shelfLifeOf(limitsOf(await readLimitChoice(db, who.houseId, house.timezone, transaction)), 'made')
    : undefined;
  const latest = marked === undefined ? undefined : lastDay(marked, today);
  const useBy = latest !== undefined && latest < usual ? latest : usual;
  if (marked !== undefined && useBy === latest)
    return {
      useBy,
      dateBasis: `${marked.value.max_days} days by ${marked.citation.document} ${marked.citation.section}`,
    };
  return {
    useBy,
    dateBasis:
      useBy === earliest && useBy < addDays(today, use.shelfLifeDays)
        ? 'the oldest date of what went in'
        : `${use.shelfLifeDays} days, usual for ${use.title.toLowerCase()}`,
  };
}

const trayOf = (use: Use): Destination =>
  use.kind === 'staff-dish'
    ? 'staff'
    : use.kind === 'rendering'
      ? 'fat'
      : use.kind === 'garnish'
        ? 'garnish'
        : 'larder';

/**
 * The batch is done: what went in leaves its lots and the pantry, what came out is a new lot that carries the whole cost with the work
 * and the fuel, spent bones go to waste or to a second wash, skimmed fat is kept, and the rest is evaporation.
 *
 * Errors  `too_much_out` when what came out outweighs what went in by more than the scale explains.
 */
export async function finishRun(
  kitchen: Kitchen,
  received: InCommand,
  { params, body }: Asked<typeof api.pots.finish>,
): Promise<Answer<typeof api.pots.finish>> {
  const { db } = kitchen;
  const run = await lockGoing(kitchen, received, params.runId, 'update');
  const command = { ...received, at: whenDone(received.at, body.at, run.plannedAt) };
  const { who, at, transaction } = command;
  const house = await readHouse(who.houseId, transaction);
  const lots = await lockLots(
    db,
    transaction,
    who.houseId,
    run.inputs.map((input) => input.lotId),
  );
  const inputs = run.inputs.map((input, i) => {
    const lot = lots[i];
    if (lot === undefined || lot.massMg < input.massMg)
      throw new Problem('not_enough', `Lot ${input.code} holds less than this batch was planned with.`);
    return { lot, massMg: input.massMg, costMinor: costOfPart(lot, input.massMg) };
  });
  mustBeFree(inputs.map((i) => i.lot));
  const events = ((await readRunEvents(db, [run.id], transaction)).get(run.id) ?? []) as readonly RunEvent[];
  const stove = readRun(run.use.steps, events);
  const wanted = new Map(run.ingredients.map((i) => [i.id, { id: i.id, massMg: i.massMg - i.fromLotsMg }]));
  for (const { ingredientId, massMg } of stove.added)
    wanted.set(ingredientId, { id: ingredientId, massMg: massMg + (wanted.get(ingredientId)?.massMg ?? 0) });
  // bought-in ingredients come out of the larder, oldest date first; what is not there is the pantry's
  const today = dayIn(house.timezone, at);
  const ingredients = [...wanted.values()];
  const fromLarder = await takeGoods(kitchen, command, ingredients, today);
  const pantry = ingredients.map((ingredient) => {
    const there = fromLarder.reduce((sum, g) => sum + (g.ingredient === ingredient.id ? g.massMg : 0), 0);
    const massMg = ingredient.massMg - there;
    return { ...ingredient, massMg, costMinor: priceOf(massMg, house.settings.pantryMinorPerKg[ingredient.id] ?? 0) };
  });
  const sum = (items: readonly { massMg: number; costMinor: number }[], of: 'massMg' | 'costMinor'): number =>
    items.reduce((total, item) => total + item[of], 0);
  const inMg = sum(inputs, 'massMg') + sum(fromLarder, 'massMg') + sum(pantry, 'massMg');
  const outMg = body.outputMg + body.spentMg + body.fatMg;
  const lostMg = inMg - outMg;
  const scaleError = combinedError(
    [...inputs.map((i) => i.massMg), body.outputMg].map((massMg) => ({
      massMg,
      scale: scaleFor(house.settings.scales, massMg),
    })),
  );
  if (lostMg < -scaleError)
    throw new Problem(
      'too_much_out',
      `${formatMass(inMg)} went in and ${formatMass(outMg)} came out. Weigh the pot without its tare, or add what else went in.`,
    );

  const { use } = run;
  const heated = ['pot', 'pan', 'oven', 'bath', 'fryer'].includes(use.vessel);
  const burner = house.settings.burners?.find((b) => b.id === stove.mark?.burnerId);
  const fuelMinor = heated
    ? minor(energyOf(inMg, lostMg, burner?.efficiency ?? 0.5) * (house.settings.energyMinorPerKwh ?? 0))
    : 0;
  const workMinor = minor(((body.labourMinutes ?? 0) / 60) * (house.settings.labourMinorPerHour ?? 0));
  const costMinor =
    sum(inputs, 'costMinor') + sum(fromLarder, 'costMinor') + sum(pantry, 'costMinor') + fuelMinor + workMinor;
  // what is skimmed off is worth what the house says fat is worth, and never more than the batch
  const fatMinor = Math.min(costMinor, priceOf(body.fatMg, house.settings.creditMinorPerKg['rendered-fat'] ?? 0));

  const earliest =
    inputs
      .map((i) => i.lot.useBy)
      .filter((d) => d !== null)
      .sort()[0] ?? null;
  const { useBy, dateBasis } = await dateOf(kitchen, command, house, use, earliest);
  const allergens = carryAllergens(
    use.allergens,
    ...use.ingredients.filter((i) => wanted.has(i.id)).map((i) => i.allergens),
    ...inputs.map((i) => i.lot.allergens),
    ...fromLarder.map((g) => g.lot.allergens),
  );
  const species = new Set(inputs.map((i) => i.lot.species));
  const common = {
    kind: 'batch' as const,
    form: null,
    supplierId: null,
    breakdownId: null,
    pieceId: null,
    runId: run.id,
    allergens,
  };
  const lotId = uuidv7();
  await makeLot(db, command, {
    ...common,
    id: lotId,
    name: use.title,
    species: species.size === 1 ? (inputs[0]?.lot.species ?? null) : null,
    category: use.category ?? null,
    destination: trayOf(use),
    pieces: run.plates ?? run.pieces ?? 1,
    madeMg: body.outputMg,
    keeping: keptFresh(usualPlace(house, use.ready), use.ready, useBy),
    dateBasis,
  });
  const beside: Posting[] = [];
  const keep = async (
    lot: Pick<NewLot, 'name' | 'category' | 'destination' | 'madeMg' | 'keeping' | 'dateBasis'>,
    minorOf: number,
  ) => {
    const id = uuidv7();
    await makeLot(db, command, { ...common, ...lot, id, species: null, pieces: 1 });
    beside.push({ lotId: id, massMg: lot.madeMg, costMinor: minorOf });
  };
  if (body.spentMg > 0 && body.spentTo === 'wash')
    await keep(
      {
        name: `${use.title}, spent bones`,
        category: 'spent-bones',
        destination: 'stock',
        madeMg: body.spentMg,
        keeping: keptFresh(usualPlace(house, true), true, today),
        dateBasis: 'washed again at once, while they are hot',
      },
      0,
    );
  if (body.fatMg > 0)
    await keep(
      {
        name: `${use.title}, fat`,
        category: 'rendered-fat',
        destination: 'fat',
        madeMg: body.fatMg,
        keeping: keptFresh(usualPlace(house, true), true, addDays(today, 7)),
        dateBasis: '7 days, usual for skimmed fat',
      },
      fatMinor,
    );
  const movementId = uuidv7();
  await writeMovement(db, command, {
    id: movementId,
    kind: 'run',
    station: 'pots',
    note: body.note,
    reverses: null,
    postings: [
      ...inputs.map((i) => ({ lotId: i.lot.id, massMg: -i.massMg, costMinor: -i.costMinor })),
      ...fromLarder.map((g) => ({ lotId: g.lot.id, massMg: -g.massMg, costMinor: -g.costMinor })),
      ...pantry.map((i) => ({ sink: 'pantry' as const, reason: i.id, massMg: -i.massMg, costMinor: -i.costMinor })),
      { sink: 'work', reason: 'energy', massMg: 0, costMinor: -fuelMinor },
      { sink: 'work', reason: 'labour', massMg: 0, costMinor: -workMinor },
      { lotId, massMg: body.outputMg, costMinor: costMinor - fatMinor },
      ...beside,
      {
        sink: 'waste',
        reason: `${use.id}/spent`,
        massMg: body.spentTo === 'waste' ? body.spentMg : 0,
        costMinor: 0,
      },
      { sink: 'loss', reason: lostMg >= 0 ? 'evaporation' : 'tolerance', massMg: lostMg, costMinor: 0 },
    ],
  });
  await db.query(
    `update run set state = 'done', output_mg = $3, output_lot_id = $4, movement_id = $5, done_at = $6 where id = $1 and house_id = $2`,
    { bind: [run.id, who.houseId, body.outputMg, lotId, movementId, at], transaction },
  );
  return runOf(await readRunRow(db, who.houseId, run.id, transaction));
}
