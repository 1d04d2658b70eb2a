/** The end of a batch: one balanced movement out of lots, pantry, work and fuel into what came out. */

import { allGoods, categoryOfForm } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import {
  addDays,
  type BatchEvent,
  batchBalance,
  batchDate,
  carryAllergens,
  combinedError,
  type Destination,
  formatMass,
  type KeptAs,
  keptAsNames,
  LATENT_AT_BOIL,
  minor,
  priceOf,
  type Recipe,
  readBatch,
  scaleFor,
  shortName,
  startsClock,
  WATERY_HEAT,
  waysKept,
} from '@zabrik/core';
import { dayIn, readHouse, usualPlace } from '../../db/house.ts';
import { limitsOf, readLimitChoice, shelfLifeOf } from '../../db/limits.ts';
import { BatchTable } from '../../db/models/batch.ts';
import { CoolingTable } from '../../db/models/cooling.ts';
import type { HouseRow } from '../../db/models/house.ts';
import { readSpecies } from '../../db/plans.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { InCommand, Kitchen } from '../../kitchen.ts';
import { costOfPart, type HeldLot, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import { keptFresh, type NewLot } from '../../massledger/makeLots.ts';
import { type SinkLine, transform } from '../../massledger/transform.ts';
import { batchOf, readBatchEvents, readBatchRow } from './queries.ts';
import { lockGoing } from './service.ts';

interface TakenGoods {
  readonly lot: HeldLot;
  readonly ingredient: string;
  readonly massMg: number;
  readonly costMinor: number;
}

/** The ingredient of a recipe that each of the goods is: as the recipe says, else as the goods are called. */
const ingredientsByGoods = (recipe: Recipe): ReadonlyMap<string, string> =>
  new Map([
    ...allGoods.flatMap((g) => (g.ingredient === undefined ? [] : [[g.id, g.ingredient] as const])),
    ...recipe.ingredients.flatMap((i) => (i.acceptsGoods ?? []).map((goods) => [goods, i.id] as const)),
  ]);

/** The lots of vegetables and dry goods that could go in: first expired first out, nothing held back or past its date. */
async function goodsFor(
  { db }: Kitchen,
  { actor, transaction }: InCommand,
  ingredientOf: ReadonlyMap<string, string>,
  ingredients: ReadonlySet<string>,
  today: string,
): Promise<string[]> {
  const fitting = [...ingredientOf].flatMap(([goods, ingredient]) => (ingredients.has(ingredient) ? [goods] : []));
  const rows = await select<{ id: string }>(
    db,
    `select l.id from lot l join lot_balance b on b.lot_id = l.id
     where b.house_id = $1 and l.house_id = $1 and b.mass_mg > 0 and l.goods = any($2::text[]) and l.held is null
       and (l.use_by is null or l.use_by >= $3::date)
     order by l.use_by nulls last, l.id`,
    [actor.houseId, fitting, today],
    transaction,
  );
  return rows.map((r) => r.id);
}

/** What of the ingredients is taken out of these lots, in their order. */
function takeGoods(
  lots: readonly HeldLot[],
  ingredientOf: ReadonlyMap<string, string>,
  ingredients: readonly { readonly id: string; readonly massMg: number }[],
): TakenGoods[] {
  const wanted = new Map(ingredients.map((i) => [i.id, i.massMg]));
  return lots.flatMap((lot): TakenGoods[] => {
    const ingredient = ingredientOf.get(lot.goods ?? '') ?? '';
    const massMg = lot.held === null ? Math.min(lot.freeMg, wanted.get(ingredient) ?? 0) : 0;
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

interface Dated {
  readonly useBy: string;
  readonly dateBasis: string;
  readonly dateLimit: string | null;
  readonly dateMaxC: number | null;
}

/** The date of what was made, where it comes from in words, and the cold it presumes. Errors: `invalid` for a state its recipe does not know. */
async function dateOf(
  { db }: Kitchen,
  { actor, at, transaction }: InCommand,
  house: HouseRow,
  recipe: Recipe,
  said: KeptAs | null,
  earliest: string | null,
): Promise<Dated> {
  const today = dayIn(house.timezone, at);
  const choice = await readLimitChoice(db, actor.houseId, house.timezone, transaction);
  const ways = waysKept(recipe, choice.profile.id);
  const keep = said === null ? ways[0] : ways.find((k) => k.as === said);
  if (said !== null && keep === undefined)
    throw new Problem('invalid', undefined, [{ path: 'keptAs', message: `${recipe.title} is not kept like that` }]);
  const limit = recipe.ready ? shelfLifeOf(limitsOf(choice), 'made', 'ready') : undefined;
  const date = batchDate(recipe, keep, today, earliest, limit);
  const basis =
    date.by === 'limit' && limit !== undefined
      ? `${date.days} days by ${limit.citation.document} ${limit.citation.section}`
      : date.by === 'what went in'
        ? 'the oldest date of what went in: nothing here was cooked through'
        : `${date.days} ${date.days === 1 ? 'day' : 'days'} ${keep === undefined ? '' : `${keptAsNames[keep.as]}, `}usual for ${recipe.title.toLowerCase()}`;
  return {
    useBy: date.useBy,
    dateBasis: basis,
    dateLimit: date.by === 'limit' ? (limit?.id ?? null) : null,
    dateMaxC: date.maxC,
  };
}

/** What the pieces are that stay pieces, only cooked or cured; undefined where the recipe makes something else of them, or of several kinds. */
async function keptAsPieces(
  { db }: Kitchen,
  { actor, transaction }: InCommand,
  { keepsPieces }: Recipe,
  base: readonly { readonly lot: HeldLot; readonly massMg: number }[],
): Promise<Pick<NewLot, 'name' | 'form' | 'category' | 'supplierId' | 'pieces'> | undefined> {
  const [first] = base;
  if (keepsPieces === undefined || first === undefined) return undefined;
  const kindOf = ({ lot }: (typeof base)[number]): string =>
    `${lot.species}/${lot.form}/${lot.pieceId}/${lot.category}`;
  if (base.some((b) => kindOf(b) !== kindOf(first))) return undefined;
  const { species: speciesId } = first.lot;
  const species = (await readSpecies(db, actor.houseId, transaction)).get(speciesId ?? '');
  const form = species?.forms.find((f) => f.id === keepsPieces.form)?.id ?? null;
  const what = first.lot.kind === 'delivery' && species !== undefined ? species.name : shortName(first.lot.name);
  const suppliers = new Set(base.map((b) => b.lot.supplierId));
  return {
    name: `${what}, ${keepsPieces.word}`,
    form,
    category: form === null || species === undefined ? null : categoryOfForm(species.id, form),
    supplierId: suppliers.size === 1 ? first.lot.supplierId : null,
    pieces: Math.max(
      1,
      Math.round(base.reduce((sum, { lot, massMg }) => sum + (lot.pieces * massMg) / Math.max(1, lot.massMg), 0)),
    ),
  };
}

const earliestOf = (a: string, b: string | null): string => (b !== null && b < a ? b : a);

/** What is kept dry stands on the shelf. */
const keptDry = (recipe: Recipe, said: KeptAs | null): boolean =>
  said === null
    ? recipe.keeps.length > 0 && recipe.keeps.every((k) => k.as === 'dry' || k.as === 'frozen')
    : said === 'dry';

/** Pieces of the recipe's own size that came out: by what was weighed, not by what was expected. */
const piecesOf = (recipe: Recipe, outputMg: number): number | undefined =>
  recipe.piece === undefined ? undefined : Math.max(1, Math.floor(outputMg / (recipe.piece.grams * 1_000) + 1e-9));

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
 * The batch is done: what went in leaves its lots and the pantry, what came out is a new lot that carries the whole cost with the work
 * and the fuel, spent bones go to waste or to a second wash, skimmed fat is kept, and the rest is evaporation.
 *
 * Errors  `too_much_out` when what came out outweighs what went in by more than the scale explains.
 */
export async function finishBatch(
  kitchen: Kitchen,
  received: InCommand,
  { params, body }: Asked<typeof api.pots.finish>,
): Promise<Answer<typeof api.pots.finish>> {
  const { db } = kitchen;
  const batch = await lockGoing(kitchen, received, params.batchId, 'update');
  const command = { ...received, at: whenDone(received.at, body.at, batch.plannedAt) };
  const { actor, at, transaction } = command;
  const house = await readHouse(db, { houseId: actor.houseId, transaction });
  const events = ((await readBatchEvents(db, [batch.id], transaction)).get(batch.id) ?? []) as readonly BatchEvent[];
  const stove = readBatch(batch.recipe.steps, events);
  const wanted = new Map(batch.ingredients.map((i) => [i.id, { id: i.id, massMg: i.massMg - i.fromLotsMg }]));
  for (const { ingredientId, massMg } of stove.added)
    wanted.set(ingredientId, { id: ingredientId, massMg: massMg + (wanted.get(ingredientId)?.massMg ?? 0) });
  const ingredients = [...wanted.values()];
  const today = dayIn(house.timezone, at);
  // all that may be touched is locked at once, in one order: two batches never wait for each other in a ring
  const used = batch.inputs.map((input) => input.lotId);
  const ingredientOf = ingredientsByGoods(batch.recipe);
  const goods = await goodsFor(kitchen, command, ingredientOf, new Set(wanted.keys()), today);
  const lots = await lockLots(db, transaction, actor.houseId, [...used, ...goods.filter((id) => !used.includes(id))]);
  const inputs = batch.inputs.map((input, i) => {
    const lot = lots[i];
    if (lot === undefined || lot.massMg < input.massMg)
      throw new Problem('not_enough', `Lot ${input.code} holds less than this batch was planned with.`);
    return { lot, massMg: input.massMg, costMinor: costOfPart(lot, input.massMg) };
  });
  mustBeFree(inputs.map((i) => i.lot));
  // bought-in ingredients come out of the larder, oldest date first; what is not there is the pantry's
  const fromLarder = takeGoods(lots.slice(used.length), ingredientOf, ingredients);
  const pantry = ingredients.map((ingredient) => {
    const there = fromLarder.reduce((sum, g) => sum + (g.ingredient === ingredient.id ? g.massMg : 0), 0);
    const massMg = ingredient.massMg - there;
    return { ...ingredient, massMg, costMinor: priceOf(massMg, house.settings.pantryMinorPerKg[ingredient.id] ?? 0) };
  });
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
  const workMinor = minor(((body.labourMinutes ?? 0) / 60) * (house.settings.labourMinorPerHour ?? 0));
  const costMinor =
    sum(inputs, 'costMinor') + sum(fromLarder, 'costMinor') + sum(pantry, 'costMinor') + fuelMinor + workMinor;
  // what is skimmed off is worth what the house says fat is worth, and never more than the batch
  const fatMinor = Math.min(costMinor, priceOf(body.fatMg, house.settings.creditMinorPerKg['rendered-fat'] ?? 0));

  // what is kept beside is worth what the house says such a thing is worth, and all together never more than the batch
  const worths = new Map<string, number>();
  let leftMinor = costMinor - fatMinor;
  for (const { byProduct, massMg, kept } of beside) {
    const perKg = house.settings.creditMinorPerKg[byProduct.category ?? byProduct.id] ?? 0;
    const minorOf = kept ? Math.min(leftMinor, priceOf(massMg, perKg)) : 0;
    worths.set(byProduct.id, minorOf);
    leftMinor -= minorOf;
  }
  const byProductMinor = (id: string): number => worths.get(id) ?? 0;
  const besideMinor = costMinor - fatMinor - leftMinor;

  const earliest =
    [...inputs.map((i) => i.lot.useBy), ...fromLarder.map((g) => g.lot.useBy)].filter((d) => d !== null).sort()[0] ??
    null;
  const dated = await dateOf(kitchen, command, house, recipe, body.keptAs, earliest);
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
  const same = await keptAsPieces(
    kitchen,
    command,
    recipe,
    inputs.filter((_, i) => batch.inputs[i]?.as === 'base'),
  );
  // a mould is one thing until it is cut, and so many rolls as went in are rolls still
  const wholeThings =
    recipe.kind === 'assembly'
      ? Math.max(
          1,
          Math.round(
            inputs.reduce(
              (total, { lot, massMg }, i) =>
                total +
                (batch.inputs[i]?.as === 'base' && lot.kind !== 'batch'
                  ? (lot.pieces * massMg) / Math.max(1, lot.massMg)
                  : 0),
              0,
            ),
          ),
        )
      : undefined;
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
    pieces: same?.pieces ?? wholeThings ?? batch.plates ?? piecesOf(recipe, body.outputMg) ?? 1,
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
  const keptBeside: { readonly lot: NewLot; readonly costMinor: number }[] = [];
  const keep = (
    lot: Pick<NewLot, 'name' | 'category' | 'destination' | 'madeMg' | 'keeping' | 'dateBasis'>,
    minorOf: number,
  ): void => {
    keptBeside.push({
      lot: { ...common, ...lot, id: command.newId(), species: null, pieces: 1 },
      costMinor: minorOf,
    });
  };
  const washed = body.spentMg !== null && body.spentMg > 0 && body.spentTo === 'wash' ? body.spentMg : 0;
  if (washed > 0)
    keep(
      {
        name: `${recipe.title}, spent bones`,
        category: 'spent-bones',
        destination: 'stock',
        madeMg: washed,
        keeping: keptFresh(usualPlace(house, true), true, today),
        dateBasis: 'washed again at once, while they are hot',
      },
      0,
    );
  if (body.fatMg > 0)
    keep(
      {
        name: `${recipe.title}, fat`,
        category: 'rendered-fat',
        destination: 'fat',
        madeMg: body.fatMg,
        keeping: keptFresh(usualPlace(house, true), true, addDays(today, 7)),
        dateBasis: '7 days, usual for skimmed fat',
      },
      fatMinor,
    );
  for (const { byProduct, massMg, kept } of beside)
    if (kept)
      keep(
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
        },
        byProductMinor(byProduct.id),
      );
  const { movementId } = await transform(db, command, {
    kind: 'batch',
    station: 'pots',
    note: body.note,
    holderId: batch.id,
    outOf: [...inputs, ...fromLarder],
    makes: [{ lot: main, costMinor: costMinor - fatMinor - besideMinor }, ...keptBeside],
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
    { state: 'done', outputMg: body.outputMg, outputLotId: lotId, movementId, doneAt: at },
  );
  // a log that was begun in its cooling step is this lot's from now on
  await rowsOf(db, CoolingTable, command).change({ batchId: batch.id }, { lotId });
  return batchOf(await readBatchRow(db, actor.houseId, batch.id, transaction));
}
