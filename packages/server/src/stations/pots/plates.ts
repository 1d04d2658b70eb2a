/** Plates: what is served by its components, how many lie ready, and what one costs. */

import { categoryById } from '@zabrik/catalogue';
import type { Answer, Asked, api, ListedPlate } from '@zabrik/contract';
import { carryAllergens, type Plate, type PlateComponent, plateFigures, type ServableLot } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { FREE_MG, FREE_PIECES } from '../../db/freeOfLot.ts';
import { goodsOf } from '../../db/goodsHere.ts';
import { dayIn, readHouse } from '../../db/house.ts';
import { HousePlateTable } from '../../db/models/housePlate.ts';
import { readSpecies } from '../../db/plans.ts';
import { listRecipes } from '../../db/recipes.ts';
import { rowsOf } from '../../db/rows.ts';
import { select, selectOne } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import type { Actor, InCommand, Services } from '../../services.ts';

interface PlateRow {
  readonly plate: Plate;
  readonly retired: boolean;
  readonly by: string;
  readonly at: Date;
}

const LATEST = `select distinct on (h.plate_id) h.body as plate, h.retired, p.name as by, h.at from house_plate h join person p on p.id = h.person_id
  where h.house_id = $1`;

interface LotRow extends ServableLot {
  readonly category: string | null;
  readonly species: string | null;
  readonly recipeId: string | null;
  readonly goods: string | null;
  /** What its batch was made for, not what came out beside it. */
  readonly main: boolean;
  readonly allergens: readonly string[];
}

/** What could be served today: free, not held back, within its date, not frozen, not waiting to be cut further. */
const servable = (db: Sequelize, houseId: string, today: string, transaction?: Transaction): Promise<LotRow[]> =>
  select<LotRow>(
    db,
    `select l.category, l.species, l.goods, l.allergens, r.recipe_id as "recipeId",
            l.id = r.output_lot_id or not exists (select 1 from posting o where o.house_id = $1 and o.movement_id = r.movement_id and o.lot_id = l.id) as main,
            ${FREE_MG}::float8 as "massMg", ${FREE_PIECES}::float8 as pieces,
            round(b.cost_minor * (b.mass_mg - b.reserved_mg)::numeric / b.mass_mg)::float8 as "costMinor"
     from lot_balance b join lot l on l.id = b.lot_id left join batch r on r.house_id = l.house_id and r.id = l.batch_id
     where b.house_id = $1 and l.house_id = $1 and b.mass_mg > b.reserved_mg and l.held is null and l.state <> 'frozen' and l.next_stage is null
       and l.kind in ('piece', 'batch', 'goods') and (l.use_by is null or l.use_by >= $2::date)`,
    [houseId, today],
    transaction,
  );

const fits = ({ of }: PlateComponent, lot: LotRow): boolean =>
  of.kind === 'pieces'
    ? lot.category === of.category && (of.species === null || lot.species === of.species)
    : of.kind === 'batch'
      ? lot.main && lot.recipeId === of.recipeId
      : lot.goods === of.goods;

/** Every plate of the house with its figures of now; those not served any more last. */
export async function listPlates(
  { db, clock }: Services,
  actor: Pick<Actor, 'houseId'>,
  transaction?: Transaction,
): Promise<Answer<typeof api.pots.plates>> {
  const rows = await select<PlateRow>(
    db,
    `${LATEST} order by h.plate_id, h.version desc`,
    [actor.houseId],
    transaction,
  );
  if (rows.length === 0) return { plates: [] };
  const house = await readHouse(db, { houseId: actor.houseId, ...(transaction === undefined ? {} : { transaction }) });
  const lots = await servable(db, actor.houseId, dayIn(house.timezone, clock()), transaction);
  const animals = await readSpecies(db, actor.houseId, transaction);
  const recipes = new Map((await listRecipes(db, actor.houseId)).map(({ recipe }) => [recipe.id, recipe]));
  const ofGoods = (id: string): readonly string[] => goodsOf(id)?.allergens ?? [];
  /** What it has in it where nothing lies there to say so. `sure`: whether that is all, or depends on what will be taken. */
  const usual = ({ of }: PlateComponent): { readonly has: readonly string[]; readonly sure: boolean } => {
    if (of.kind === 'goods') return { has: ofGoods(of.goods), sure: true };
    if (of.kind === 'batch') {
      const recipe = recipes.get(of.recipeId);
      return {
        has: carryAllergens(
          recipe?.allergens ?? [],
          ...(recipe?.ingredients ?? []).map((i) => i.allergens),
          ...(recipe?.acceptsGoods ?? []).map(ofGoods),
        ),
        // pieces and batches that it is built on bring their own
        sure: recipe !== undefined && recipe.accepts.length + recipe.acceptsUses.length === 0,
      };
    }
    const allergen = animals.get(of.species ?? '')?.allergen;
    return { has: allergen === undefined || allergen === 'none' ? [] : [allergen], sure: allergen !== undefined };
  };
  const listed = ({ plate, retired, by, at }: PlateRow): ListedPlate => {
    const stock = plate.components.map((c) => lots.filter((lot) => fits(c, lot)));
    const figures = plateFigures(plate, stock);
    const allergens = plate.components.map((c, i) => {
      const mine = stock[i] ?? [];
      return mine.length === 0 ? usual(c) : { has: carryAllergens(...mine.map((lot) => lot.allergens)), sure: true };
    });
    return {
      plate: { ...plate, components: [...plate.components] },
      retired,
      changed: { by, at: at.toISOString() },
      figures: {
        ...figures,
        limiting: [...figures.limiting],
        unknownCost: [...figures.unknownCost],
        components: [...figures.components],
      },
      allergens: carryAllergens(...allergens.map((a) => a.has)),
      unknownAllergens: plate.components.flatMap((c, i) => (allergens[i]?.sure === true ? [] : [c.name])),
    };
  };
  return { plates: rows.map(listed).sort((a, b) => Number(a.retired) - Number(b.retired)) };
}

/**
 * Saves a plate as its next version.
 *
 * Errors  `invalid` for a component that is nothing here, each named; `changed_since` when someone saved another version meanwhile.
 */
export async function savePlate(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.pots.savePlate>,
): Promise<ListedPlate> {
  const { db } = services;
  const { actor, at, transaction } = command;
  const { plate, from, retired } = body;
  const animals = await readSpecies(db, actor.houseId, transaction);
  const recipes = new Set((await listRecipes(db, actor.houseId)).map(({ recipe }) => recipe.id));
  const wrong = plate.components.flatMap(({ name, of }, i) => {
    const says =
      of.kind === 'pieces'
        ? !categoryById.has(of.category)
          ? 'there is no such kind of piece'
          : of.species !== null && !animals.has(of.species)
            ? 'there is no such animal in this house'
            : undefined
        : of.kind === 'batch'
          ? recipes.has(of.recipeId)
            ? undefined
            : 'there is no such recipe'
          : goodsOf(of.goods) !== undefined
            ? undefined
            : 'there are no such goods';
    return says === undefined ? [] : [{ path: `plate.components.${i}`, message: `${name}: ${says}` }];
  });
  if (wrong[0] !== undefined && !retired) throw new Problem('invalid', `${wrong[0].message}.`, wrong);
  await db.query('select pg_advisory_xact_lock(hashtextextended($1, 9))', {
    bind: [`${actor.houseId}/${plate.id}`],
    transaction,
  });
  const now = await selectOne<{ readonly version: number }>(
    db,
    'select version from house_plate where house_id = $1 and plate_id = $2 order by version desc limit 1',
    [actor.houseId, plate.id],
    transaction,
  );
  if ((now?.version ?? 0) !== from) throw new Problem('changed_since');
  await rowsOf(db, HousePlateTable, command).add({
    plateId: plate.id,
    version: from + 1,
    body: { ...plate, version: from + 1 },
    retired,
    personId: actor.personId,
    at,
  });
  const { plates } = await listPlates(services, actor, transaction);
  const saved = plates.find((p) => p.plate.id === plate.id);
  if (saved === undefined) throw new Problem('broken');
  return saved;
}
