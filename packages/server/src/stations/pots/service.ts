import { allGoods, useById } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import {
  addDays,
  carryAllergens,
  combinedError,
  formatMass,
  lastDay,
  priceOf,
  Refusal,
  refusalOf,
  type ScaledUse,
  scaleFor,
  scaleUse,
} from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { dayIn, lastDayAfter, readHouse, usualPlace } from '../../db/house.ts';
import { limitsOf, readLimitChoice, shelfLifeOf } from '../../db/limits.ts';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';
import { costOfPart, type HeldLot, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { keptFresh, makeLot } from '../../massledger/makeLot.ts';
import { writeMovement } from '../../massledger/writeMovement.ts';
import { readRunRow, runOf } from './queries.ts';

/** Plans a batch: scales the use to the lots chosen, oldest date first, and promises their mass to it. Nothing moves yet. */
export async function planRun(
  kitchen: Kitchen,
  command: InCommand,
  { body }: Asked<typeof api.pots.plan>,
): Promise<Answer<typeof api.pots.plan>> {
  const { db } = kitchen;
  const { who, at, transaction } = command;
  const use = useById.get(body.useId);
  if (use === undefined) throw new Problem('invalid', undefined, [{ path: 'useId', message: 'no such use' }]);
  const house = await readHouse(who.houseId, transaction);
  const vessel = body.vesselId === null ? undefined : house.settings.vessels.find((v) => v.id === body.vesselId);
  if (body.vesselId !== null && vessel === undefined)
    throw new Problem('invalid', undefined, [{ path: 'vesselId', message: 'no such pot in this house' }]);
  const lots = await lockLots(db, transaction, who.houseId, [...new Set(body.lotIds)]);
  mustBeFree(lots);
  const oldestFirst = [...lots].sort(
    (a, b) => (a.useBy ?? '9999').localeCompare(b.useBy ?? '9999') || a.code.localeCompare(b.code),
  );
  const today = dayIn(house.timezone, at);
  const offered = oldestFirst.map((lot) => ({
    lotId: lot.id,
    name: lot.name,
    category: lot.category ?? '',
    massMg: Math.max(0, lot.freeMg),
    pastDate: lot.useBy !== null && lot.useBy < today,
  }));
  let scaled: ScaledUse;
  try {
    scaled = scaleUse(use, offered, {
      onHandMg: body.onHandMg,
      vesselLitres: vessel === undefined ? undefined : vessel.litres * 0.75,
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
  const runId = uuidv7();
  await db.query(
    `insert into run (id, house_id, use_id, use, state, ingredients, base_mg, expected, plates, limiting, person_id, planned_at)
     values ($1, $2, $3, $4, 'planned', $5, $6, $7, $8, $9, $10, $11)`,
    {
      bind: [
        runId,
        who.houseId,
        use.id,
        JSON.stringify(use),
        JSON.stringify(scaled.ingredients),
        scaled.baseMg,
        JSON.stringify({ low: scaled.output.lowMg, mean: scaled.output.meanMg, high: scaled.output.highMg }),
        scaled.plates ?? null,
        scaled.limiting.name,
        who.personId,
        at,
      ],
      transaction,
    },
  );
  await db.query(
    `insert into run_input (run_id, house_id, lot_id, position, mass_mg)
     select $1, $2, lot_id, position, mass_mg from jsonb_to_recordset($3::jsonb) as i(lot_id uuid, position int, mass_mg bigint)`,
    {
      bind: [
        runId,
        who.houseId,
        JSON.stringify(scaled.taken.map((t, position) => ({ lot_id: t.lotId, position, mass_mg: t.massMg }))),
      ],
      transaction,
    },
  );
  return { ...runOf(await readRunRow(db, who.houseId, runId, transaction)), refused: [...scaled.refused] };
}

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
 * The batch is done: what went in leaves its lots and the pantry, what came out is a new lot that carries the whole cost, spent
 * solids go to waste, and the rest is evaporation.
 *
 * Errors  `too_much_out` when output and solids outweigh what went in by more than the scale explains.
 */
export async function finishRun(
  kitchen: Kitchen,
  command: InCommand,
  { params, body }: Asked<typeof api.pots.finish>,
): Promise<Answer<typeof api.pots.finish>> {
  const { db } = kitchen;
  const { who, at, transaction } = command;
  await db.query('select 1 from run where id = $1 and house_id = $2 for update', {
    bind: [params.runId, who.houseId],
    transaction,
  });
  const run = await readRunRow(db, who.houseId, params.runId, transaction);
  if (run.state !== 'planned') throw new Problem('run_not_planned');
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
  // bought-in ingredients come out of the larder, oldest date first; what is not there is the pantry's
  const today = dayIn(house.timezone, at);
  const fromLarder = await takeGoods(kitchen, command, run.ingredients, today);
  const pantry = run.ingredients.map((ingredient) => {
    const there = fromLarder.reduce((sum, g) => sum + (g.ingredient === ingredient.id ? g.massMg : 0), 0);
    const massMg = ingredient.massMg - there;
    return { ...ingredient, massMg, costMinor: priceOf(massMg, house.settings.pantryMinorPerKg[ingredient.id] ?? 0) };
  });
  const sum = (items: readonly { massMg: number; costMinor: number }[], of: 'massMg' | 'costMinor'): number =>
    items.reduce((total, item) => total + item[of], 0);
  const inMg = sum(inputs, 'massMg') + sum(fromLarder, 'massMg') + sum(pantry, 'massMg');
  const costMinor = sum(inputs, 'costMinor') + sum(fromLarder, 'costMinor') + sum(pantry, 'costMinor');
  const lostMg = inMg - body.outputMg - body.spentMg;
  const scaleError = combinedError(
    [...inputs.map((i) => i.massMg), body.outputMg].map((massMg) => ({
      massMg,
      scale: scaleFor(house.settings.scales, massMg),
    })),
  );
  if (lostMg < -scaleError)
    throw new Problem(
      'too_much_out',
      `${formatMass(inMg)} went in and ${formatMass(body.outputMg + body.spentMg)} came out. Weigh the pot without its tare, or add what else went in.`,
    );

  const { use } = run;
  const lotId = uuidv7();
  const earliest =
    inputs
      .map((i) => i.lot.useBy)
      .filter((d) => d !== null)
      .sort()[0] ?? null;
  // a raw filling lives no longer than what is in it; cooked food starts its own clock, as the house's limits count it
  const ready = use.kind !== 'filling';
  const usual = lastDayAfter(house.timezone, at, 24 * use.shelfLifeDays, ready ? null : earliest);
  const marked = ready
    ? shelfLifeOf(limitsOf(await readLimitChoice(db, who.houseId, house.timezone, transaction)), 'made')
    : undefined;
  const latest = marked === undefined ? undefined : lastDay(marked, today);
  const useBy = latest !== undefined && latest < usual ? latest : usual;
  const dateBasis =
    marked !== undefined && useBy === latest
      ? `${marked.value.max_days} days by ${marked.citation.document} ${marked.citation.section}`
      : useBy === earliest && useBy < addDays(today, use.shelfLifeDays)
        ? 'the oldest date of what went in'
        : `${use.shelfLifeDays} days, usual for ${use.title.toLowerCase()}`;
  await makeLot(db, command, {
    id: lotId,
    kind: 'batch',
    name: use.title,
    species: null,
    form: null,
    category: null,
    destination: use.kind === 'staff-dish' ? 'staff' : 'larder',
    pieces: run.plates ?? 1,
    madeMg: body.outputMg,
    keeping: keptFresh(usualPlace(house, ready), ready, useBy),
    dateBasis,
    supplierId: null,
    breakdownId: null,
    pieceId: null,
    runId: run.id,
    allergens: carryAllergens(
      use.allergens,
      ...use.ingredients.map((i) => i.allergens),
      ...inputs.map((i) => i.lot.allergens),
      ...fromLarder.map((g) => g.lot.allergens),
    ),
  });
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
      { lotId, massMg: body.outputMg, costMinor },
      { sink: 'waste', reason: `${use.id}/spent`, massMg: body.spentMg, costMinor: 0 },
      { sink: 'loss', reason: lostMg >= 0 ? 'evaporation' : 'tolerance', massMg: lostMg, costMinor: 0 },
    ],
  });
  await db.query(
    `update run set state = 'done', output_mg = $3, output_lot_id = $4, movement_id = $5, done_at = $6 where id = $1 and house_id = $2`,
    { bind: [run.id, who.houseId, body.outputMg, lotId, movementId, at], transaction },
  );
  return runOf(await readRunRow(db, who.houseId, run.id, transaction));
}

export async function cancelRun(
  kitchen: Kitchen,
  command: InCommand,
  runId: string,
): Promise<Answer<typeof api.pots.cancel>> {
  const { who, transaction } = command;
  const run = await readRunRow(kitchen.db, who.houseId, runId, transaction);
  if (run.state !== 'planned') throw new Problem('run_not_planned');
  await kitchen.db.query(`update run set state = 'called-off' where id = $1 and house_id = $2 and state = 'planned'`, {
    bind: [runId, who.houseId],
    transaction,
  });
  return { done: true };
}
