/** Vegetables, dairy and dry goods of the larder that a batch draws by itself: the oldest date first. */

import type { Recipe } from '@zabrik/core';
import { goodsHere } from '../../db/goodsHere.ts';
import { select } from '../../db/select.ts';
import { costOfPart, type HeldLot } from '../../massledger/lockLots.ts';
import type { InCommand, Services } from '../../services.ts';

export interface TakenGoods {
  readonly lot: HeldLot;
  readonly ingredient: string;
  readonly massMg: number;
  readonly costMinor: number;
}

/** The ingredient of a recipe that each of the goods is: as the recipe says, else as the goods are called. */
export const ingredientsByGoods = (recipe: Recipe): ReadonlyMap<string, string> =>
  new Map([
    ...goodsHere().flatMap((g) => (g.ingredient === undefined ? [] : [[g.id, g.ingredient] as const])),
    ...recipe.ingredients.flatMap((i) => (i.acceptsGoods ?? []).map((goods) => [goods, i.id] as const)),
  ]);

/** The lots of vegetables and dry goods that could go in: first expired first out, nothing held back or past its date. */
export async function goodsFor(
  { db }: Services,
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
export function takeGoods(
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
