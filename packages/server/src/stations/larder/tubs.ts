import { categoryById, tubPurposes } from '@zabrik/catalogue';
import type { Lot, Tub } from '@zabrik/contract';
import { potDue } from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import type { HouseRow } from '../../db/models/house.ts';
import { select } from '../../db/select.ts';
import { readTubContents } from '../../db/tubs.ts';
import { Problem } from '../../http/problem.ts';

type TubReading = Pick<Tub, 'contents' | 'recipeTitle' | 'usableMg' | 'enoughMg' | 'due'>;

/** What a tub holds by kind, and whether there is enough of it for a pot of its recipe. */
export async function readTub(
  db: Sequelize,
  house: HouseRow,
  tubId: string,
  recipeId: string,
  transaction?: Transaction,
): Promise<TubReading> {
  const recipe = tubPurposes.get(recipeId);
  if (recipe === undefined) throw new Problem('not_found', `The recipe ${recipeId} is not in the catalogue any more.`);
  const contents = await readTubContents(db, tubId, transaction);
  return {
    contents: contents.map((c) => ({
      category: c.kind,
      label: categoryById.get(c.kind)?.label ?? 'nobody knows what',
      massMg: Math.round(c.massMg),
    })),
    recipeTitle: recipe.title,
    ...potDue(
      recipe,
      contents,
      house.settings.vessels.flatMap((v) => (v.kind === 'pan' ? [] : [v.litres])),
    ),
  };
}

/** Every tub with what could go into it now: lots of its kinds, as frozen or fresh as it is, earliest date first. */
export async function listTubs(db: Sequelize, house: HouseRow, tubs: readonly Lot[]): Promise<Tub[]> {
  return Promise.all(
    tubs.map(async (tub) => {
      const recipe = tubPurposes.get(tub.tubRecipe ?? '');
      const [reading, offers] = await Promise.all([
        readTub(db, house, tub.id, tub.tubRecipe ?? ''),
        select<Tub['offers'][number]>(
          db,
          `select l.id, l.code, l.name, b.mass_mg as "massMg", l.use_by as "useBy" from lot l join lot_balance b on b.lot_id = l.id
           where l.house_id = $1 and b.mass_mg > 0 and l.kind <> 'tub' and l.held is null and l.next_stage is null and l.category = any($2::text[])
             and (l.state = 'frozen') = $3 and l.destination in ('stock', 'larder', 'filling', 'fat')
           order by l.use_by nulls last, l.id limit 40`,
          [house.id, [...(recipe?.accepts ?? [])], tub.state === 'frozen'],
        ),
      ]);
      return { ...tub, ...reading, offers };
    }),
  );
}
