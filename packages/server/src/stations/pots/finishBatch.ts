/** The end of a batch: one balanced movement out of lots, pantry, work and fuel into what came out. */

import type { Answer, Asked, api } from '@zabrik/contract';
import {
  addDays,
  type BatchEvent,
  type BatchState,
  batchBalance,
  carryAllergens,
  combinedError,
  type Destination,
  formatMass,
  type KeptAs,
  LATENT_AT_BOIL,
  minor,
  priceOf,
  type Recipe,
  readBatch,
  scaleFor,
  shareBatchCost,
  startsClock,
  WATERY_HEAT,
} from '@zabrik/core';
import { hourRates } from '../../db/hourRates.ts';
import { dayIn, readHouse, usualPlace } from '../../db/house.ts';
import { BatchTable } from '../../db/models/batch.ts';
import { CoolingTable } from '../../db/models/cooling.ts';
import type { HouseRow } from '../../db/models/house.ts';
import { readPantry } from '../../db/pantry.ts';
import { rowsOf } from '../../db/rows.ts';
import { Problem } from '../../http/problem.ts';
import { costOfPart, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { keptFresh, type NewLot } from '../../massledger/makeLots.ts';
import { type SinkLine, transform } from '../../massledger/transform.ts';
import type { InCommand, Services } from '../../services.ts';
import { dateOf } from './batchDated.ts';
import { goodsFor, ingredientsByGoods, takeGoods } from './goodsTaken.ts';
import { keptAsPieces, piecesOf, thingsMade } from './piecesMade.ts';
import { type BatchRow, batchOf, readBatchEvents, readBatchRow } from './queries.ts';
import { lockGoing } from './service.ts';

/**
 * When a batch was done: as the tablet says, which may have been without network for hours. Its clock may be wrong: not before the batch
 * was planned, and not after the server heard of it.
 */
const whenDone = (heard: Date, said: string | null, planned: Date): Date =>
  said === null ? heard : new Date(Math.min(heard.getTime(), Math.max(planned.getTime(), Date.parse(said))));

/** Fuel of a batch, kilowatt-hours: heating what is in it by 80 degrees and what boiled away, by a burner of this efficiency. */
const energyOf = (inMg: number, boiledMg: number, efficiency: number): number =>
  ((inMg / 1e6) * WATERY_HEAT * 80 + (Math.max(0, boiledMg) / 1e6) * LATENT_AT_BOIL) / 3_600_000 / efficiency;

const earliestOf = (a: string, b: string | null): string => (b !== null && b < a ? b : a);

/** What is kept dry stands on the shelf. */
const keptDry = (recipe: Recipe, said: KeptAs | null): boolean =>
  said === null
    ? recipe.keeps.length > 0 && recipe.keeps.every((k) => k.as === 'dry' || k.as === 'frozen')
    : said === 'dry';

const trayOf = (recipe: Recipe): Destination =>
  recipe.kind === 'staff-dish'
    ? 'staff'
    : recipe.kind === 'rendering'
      ? 'fat'
      : recipe.kind === 'garnish'
        ? 'garnish'
        : recipe.kind === 'assembly'
          ? 'portion'
          : 'larder';

/**
 * What went into a batch: its lots, goods of the larder that it draws by itself, and of all else the pantry.
 *
 * Errors  `not_enough` when a lot holds less than was planned; `on_hold`.
 */
async function whatWentIn(
  services: Services,
  command: InCommand,
  house: HouseRow,
  batch: BatchRow,
  added: BatchState['added'],
) {
  const wanted = new Map(batch.ingredients.map((i) => [i.id, { id: i.id, massMg: i.massMg - i.fromLotsMg }]));
  for (const { ingredientId, massMg } of added)
    wanted.set(ingredientId, { id: ingredientId, massMg: massMg + (wanted.get(ingredientId)?.massMg ?? 0) });
  const ingredients = [...wanted.values()];
  // all that may be touched is locked at once, in one order: two batches never wait for each other in a ring
  const used = batch.inputs.map((input) => input.lotId);
  const ingredientOf = ingredientsByGoods(batch.recipe);
  const goods = await goodsFor(
    services,
    command,
    ingredientOf,
    new Set(wanted.keys()),
    dayIn(house.timezone, command.at),
  );
  const lots = await lockLots(services.db, command.transaction, command.houseId, [
    ...used,
    ...goods.filter((id) => !used.includes(id)),
  ]);
  const inputs = batch.inputs.map((input, i) => {
    const lot = lots[i];
    if (lot === undefined || lot.massMg < input.massMg)
      throw new Problem('not_enough', `Lot ${input.code} holds less than this batch was planned with.`);
    return { lot, massMg: input.massMg, costMinor: costOfPart(lot, input.massMg) };
  });
  mustBeFree(inputs.map((i) => i.lot));
  // bought-in ingredients come out of the larder, oldest date first; what is not there is the pantry's
  const prices = await readPantry(services.db, house, command.at, command);
  const fromLarder = takeGoods(lots.slice(used.length), ingredientOf, ingredients);
  const pantry = ingredients.map((ingredient) => {
    const there = fromLarder.reduce((sum, g) => sum + (g.ingredient === ingredient.id ? g.massMg : 0), 0);
    const massMg = ingredient.massMg - there;
    return { ...ingredient, massMg, costMinor: priceOf(massMg, prices.get(ingredient.id)?.minorPerKg ?? 0) };
  });
  const nameOf = (id: string): string => batch.recipe.ingredients.find((i) => i.id === id)?.name ?? id;
  const unpriced = pantry.filter((i) => i.massMg > 0 && !prices.has(i.id)).map((i) => nameOf(i.id));
  return { wanted, ingredients, inputs, fromLarder, pantry, unpriced };
}

/** Spent bones for a second wash, and fat skimmed off: what every pot may give beside what it is for. */
const besideOf = (
  recipe: Recipe,
  house: HouseRow,
  today: string,
  { washedMg, fatMg, fatMinor }: { readonly washedMg: number; readonly fatMg: number; readonly fatMinor: number },
): (Pick<NewLot, 'name' | 'category' | 'destination' | 'madeMg' | 'keeping' | 'dateBasis'> & {
  readonly costMinor: number;
})[] => [
  ...(washedMg === 0
    ? []
    : [
        {
          name: `${recipe.title}, spent bones`,
          category: 'spent-bones',
          destination: 'stock' as const,
          madeMg: washedMg,
          keeping: keptFresh(usualPlace(house, true), true, today),
          dateBasis: 'washed again at once, while they are hot',
          costMinor: 0,
        },
      ]),
  ...(fatMg === 0
    ? []
    : [
        {
          name: `${recipe.title}, fat`,
          category: 'rendered-fat',
          destination: 'fat' as const,
          madeMg: fatMg,
          keeping: keptFresh(usualPlace(house, true), true, addDays(today, 7)),
          dateBasis: '7 days, usual for skimmed fat',
          costMinor: fatMinor,
        },
      ]),
];

/**
 * The batch is done: what went in leaves its lots and the pantry, what came out is a new lot that carries the whole cost with the work
 * and the fuel, spent bones go to waste or to a second wash, skimmed fat is kept, and the rest is evaporation.
 *
 * Errors  `too_much_out` when what came out outweighs what went in by more than the scale explains.
 */
export async function finishBatch(
  services: Services,
  received: InCommand,
  { params, body }: Asked<typeof api.pots.finish>,
): Promise<Answer<typeof api.pots.finish>> {
  const { db } = services;
  const batch = await lockGoing(services, received, params.batchId, 'update');
  const command = { ...received, at: whenDone(received.at, body.at, batch.plannedAt) };
  const { actor, at, transaction } = command;
  const house = await readHouse(db, { houseId: actor.houseId, transaction });
  const events = ((await readBatchEvents(db, [batch.id], transaction)).get(batch.id) ?? []) as readonly BatchEvent[];
  const stove = readBatch(batch.recipe.steps, events);
  const { wanted, ingredients, inputs, fromLarder, pantry, unpriced } = await whatWentIn(
    services,
    command,
    house,
    batch,
    stove.added,
  );
  const today = dayIn(house.timezone, at);
  const sum = (items: readonly { massMg: number; costMinor: number }[], of: 'massMg' | 'costMinor'): number =>
    items.reduce((total, item) => total + item[of], 0);
  const inMg = sum(inputs, 'massMg') + sum(fromLarder, 'massMg') + sum(pantry, 'massMg');
  const byProducts = batch.recipe.byProducts ?? [];
  const beside = body.beside.map(({ id, massMg, kept }) => {
    const byProduct = byProducts.find((p) => p.id === id);
    if (byProduct === undefined)
      throw new Problem('invalid', undefined, [
        { path: 'beside', message: `${batch.recipe.title} has no ${id} beside it` },
      ]);
    return { byProduct, massMg, kept };
  });
  const besideMg =
    body.fatMg +
    sum(
      beside.map((b) => ({ massMg: b.massMg, costMinor: 0 })),
      'massMg',
    );
  const baseMg = batch.inputs.reduce((total, i) => total + (i.as === 'base' ? i.massMg : 0), 0);
  const parts = ingredients.map((i) => ({
    id: i.id,
    massMg: i.massMg + batch.inputs.reduce((total, l) => total + (l.as === i.id ? l.massMg : 0), 0),
  }));
  const balance = batchBalance(
    batch.recipe,
    { baseMg, ingredients: parts },
    { outputMg: body.outputMg, besideMg, spentMg: body.spentMg },
  );
  const lostMg = balance.evaporatedMg;
  const scaleError = combinedError(
    [...inputs.map((i) => i.massMg), body.outputMg].map((massMg) => ({
      massMg,
      scale: scaleFor(house.settings.scales, massMg),
    })),
  );
  if (lostMg < -scaleError)
    throw new Problem(
      'too_much_out',
      `${formatMass(inMg)} went in and ${formatMass(body.outputMg + besideMg + balance.strainedMg)} came out. Weigh the pot without its tare, or add what else went in.`,
    );

  const { recipe } = batch;
  const heated = ['pot', 'pan', 'oven', 'bath', 'fryer'].includes(recipe.vessel);
  const burner = house.settings.burners?.find((b) => b.id === stove.mark?.burnerId);
  const fuelMinor = heated
    ? minor(energyOf(inMg, lostMg, burner?.efficiency ?? 0.5) * (house.settings.energyMinorPerKwh ?? 0))
    : 0;
  const rateOf = await hourRates(services.db, command, house);
  const workMinor = minor(((body.labourMinutes ?? 0) / 60) * (rateOf(command.actor.personId) ?? 0));
  const costMinor =
    sum(inputs, 'costMinor') + sum(fromLarder, 'costMinor') + sum(pantry, 'costMinor') + fuelMinor + workMinor;
  // fat and by-products are worth what the house says such a thing is worth, and all together never more than the batch
  const creditOf = (kind: string): number => house.settings.creditMinorPerKg[kind] ?? 0;
  const shares = shareBatchCost(costMinor, [
    { massMg: body.fatMg, kept: true, minorPerKg: creditOf('rendered-fat') },
    ...beside.map(({ byProduct, massMg, kept }) => ({
      massMg,
      kept,
      minorPerKg: creditOf(byProduct.category ?? byProduct.id),
    })),
  ]);

  const earliest =
    [...inputs.map((i) => i.lot.useBy), ...fromLarder.map((g) => g.lot.useBy)].filter((d) => d !== null).sort()[0] ??
    null;
  const dated = await dateOf(services, command, house, recipe, body.keptAs, earliest);
  const { useBy } = dated;
  // what a batch of our own stands in for brings its own; all else brings what the recipe says of it
  const fromBatches = new Set(
    batch.ingredients.filter((i) => i.massMg > 0 && i.fromLotsMg >= i.massMg).map((i) => i.id),
  );
  // the recipe says fish, the lots say which: the name is enough
  const namedByWhatWentIn = (group: string): boolean =>
    [...inputs.map((i) => i.lot), ...fromLarder.map((g) => g.lot)].some((lot) =>
      lot.allergens.some((id) => id.startsWith(`${group}/`)),
    );
  const allergens = carryAllergens(
    recipe.allergens.filter((id) => !namedByWhatWentIn(id)),
    ...recipe.ingredients
      .filter((i) => (wanted.get(i.id)?.massMg ?? 0) > 0 && !(fromBatches.has(i.id) && i.acceptsUses !== undefined))
      .map((i) => i.allergens),
    ...inputs.map((i) => i.lot.allergens),
    ...fromLarder.map((g) => g.lot.allergens),
  );
  const species = new Set(inputs.map((i) => i.lot.species));
  const base = inputs.filter((_, i) => batch.inputs[i]?.as === 'base');
  const same = await keptAsPieces(services, command, recipe, base);
  const common = {
    kind: 'batch' as const,
    form: null,
    supplierId: null,
    breakdownId: null,
    pieceId: null,
    batchId: batch.id,
    allergens,
  };
  const lotId = command.newId();
  const main: NewLot = {
    ...common,
    ...same,
    id: lotId,
    name: same?.name ?? recipe.title,
    species: species.size === 1 ? (inputs[0]?.lot.species ?? null) : null,
    category: recipe.category ?? same?.category ?? null,
    destination: trayOf(recipe),
    pieces: same?.pieces ?? thingsMade(recipe, base) ?? batch.plates ?? piecesOf(recipe, body.outputMg) ?? 1,
    madeMg: body.outputMg,
    keeping: keptFresh(
      usualPlace(house, recipe.ready, keptDry(recipe, body.keptAs) ? 'ambient' : null),
      recipe.ready,
      useBy,
    ),
    dateBasis: dated.dateBasis,
    dateLimit: dated.dateLimit,
    dateMaxC: dated.dateMaxC,
  };
  const washed = body.spentMg !== null && body.spentMg > 0 && body.spentTo === 'wash' ? body.spentMg : 0;
  const [fatMinor = 0, ...besideMinor] = shares.beside;
  const keptBeside = [
    ...besideOf(recipe, house, today, { washedMg: washed, fatMg: body.fatMg, fatMinor }),
    ...beside.flatMap(({ byProduct, massMg, kept }, i) =>
      kept
        ? [
            {
              name: `${recipe.title}, ${byProduct.name}`,
              category: byProduct.category ?? null,
              destination: byProduct.destination,
              madeMg: massMg,
              keeping: keptFresh(
                usualPlace(house, recipe.ready),
                recipe.ready,
                earliestOf(addDays(today, byProduct.keepDays), startsClock(recipe) ? null : earliest),
              ),
              dateBasis: `${byProduct.keepDays} days, usual for ${byProduct.name}`,
              costMinor: besideMinor[i] ?? 0,
            },
          ]
        : [],
    ),
  ].map(({ costMinor: minorOf, ...lot }) => ({
    lot: { ...common, ...lot, id: command.newId(), species: null, pieces: 1 },
    costMinor: minorOf,
  }));
  const { movementId } = await transform(db, command, {
    kind: 'batch',
    station: 'pots',
    note: body.note,
    holderId: batch.id,
    outOf: [...inputs, ...fromLarder],
    makes: [{ lot: main, costMinor: shares.main }, ...keptBeside],
    sinks: [
      ...pantry.map((i) => ({ sink: 'pantry' as const, reason: i.id, massMg: -i.massMg, costMinor: -i.costMinor })),
      { sink: 'work', reason: 'energy', massMg: 0, costMinor: -fuelMinor },
      { sink: 'work', reason: 'labour', massMg: 0, costMinor: -workMinor },
      { sink: 'waste', reason: `${recipe.id}/spent`, massMg: balance.strainedMg - washed, costMinor: 0 },
      ...beside.flatMap(({ byProduct, massMg, kept }): SinkLine[] =>
        kept ? [] : [{ sink: 'waste', reason: `${recipe.id}/${byProduct.id}`, massMg, costMinor: 0 }],
      ),
      { sink: 'loss', reason: 'poured away', massMg: balance.pouredMg, costMinor: 0 },
      { sink: 'loss', reason: lostMg >= 0 ? 'evaporation' : 'tolerance', massMg: lostMg, costMinor: 0 },
    ],
  });
  await rowsOf(db, BatchTable, command).change(
    { id: batch.id },
    { state: 'done', outputMg: body.outputMg, outputLotId: lotId, movementId, doneAt: at, unpriced },
  );
  // a log that was begun in its cooling step is this lot's from now on
  await rowsOf(db, CoolingTable, command).change({ batchId: batch.id }, { lotId });
  return batchOf(await readBatchRow(db, actor.houseId, batch.id, transaction));
}
