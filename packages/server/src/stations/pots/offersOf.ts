/** Lots as the core's sums want them: what kind each is, how much of it is free, what of it is raw. */
import { categoryInPots } from '@zabrik/catalogue';
import { type Food, isPastDate, type OfferedLot, type Species } from '@zabrik/core';
import { foodOfCategory, foodOfLot } from '../../db/foods.ts';
import { BatchTable } from '../../db/models/batch.ts';
import { rowsOf } from '../../db/rows.ts';
import { readTubContents } from '../../db/tubs.ts';
import type { HeldLot } from '../../massledger/lockLots.ts';
import type { InCommand, Services } from '../../services.ts';

/** A lot as the scaling of a recipe wants it. */
export async function offersOf(
  services: Services,
  command: InCommand,
  lots: readonly HeldLot[],
  today: string,
): Promise<OfferedLot[]> {
  const batchIds = lots.flatMap((l) => (l.batchId === null || l.category !== null ? [] : [l.batchId]));
  const batches = await rowsOf(services.db, BatchTable, command).all({ id: batchIds });
  const recipeNamed = new Map(batches.map((r) => [r.id, r.recipeId]));
  const contents = new Map<string, OfferedLot['kinds']>();
  for (const lot of lots)
    if (lot.kind === 'tub')
      contents.set(
        lot.id,
        (await readTubContents(services.db, lot.id, command.transaction)).map((k) => ({
          category: k.kind,
          massMg: k.massMg,
        })),
      );
  return lots.map((lot) => {
    const kinds = contents.get(lot.id);
    const recipeId = lot.category === null && lot.batchId !== null ? recipeNamed.get(lot.batchId) : undefined;
    return {
      lotId: lot.id,
      name: lot.name,
      category: categoryInPots(lot.category, lot.species),
      ...(lot.goods === null ? {} : { goods: lot.goods }),
      ...(recipeId === undefined ? {} : { recipeId }),
      massMg: lot.freeMg,
      pieces: lot.freePieces,
      pastDate: isPastDate(lot.useBy, today),
      ready: lot.ready,
      ...(kinds === undefined ? {} : { kinds }),
    };
  });
}

/** What is raw in lots: by their animal, of tubs by their kinds, of bought-in goods the egg. */
export function rawInLots(
  lots: readonly HeldLot[],
  offered: readonly OfferedLot[],
  animals: ReadonlyMap<string, Species>,
): Set<Food> {
  const found = new Set<Food>();
  for (const lot of lots) {
    const kinds = offered.find((o) => o.lotId === lot.id)?.kinds;
    if (lot.ready) continue;
    if (lot.goods !== null) {
      if (lot.allergens.includes('eggs')) found.add('eggs');
    } else if (kinds === undefined) found.add(foodOfLot(lot, animals));
    else for (const kind of kinds) found.add(foodOfCategory(kind.category));
  }
  return found;
}
