/** What the pots must hold: six vessels side by side while a finger is on the figure, and 200 lots scaled at every touch. */
import { allRecipes, recipeById } from '@zabrik/catalogue';
import { media } from '@zabrik/catalogue/heat';
import { type CoolingBatch, coolingCurve, fitCooling, type OfferedLot, scaleRecipe } from '@zabrik/core';
import { type InTurn, inTurn } from './reference.ts';

export interface PotTimes {
  readonly six: InTurn;
  readonly fit: InTurn;
  readonly scale: InTurn;
  readonly all: InTurn;
  readonly recipes: number;
}

const pot: CoolingBatch = {
  vessel: { kind: 'round', diameterMm: 400, heightMm: 400 },
  litres: 30,
  fromC: 85,
  setsAtC: 15,
};

export async function potTimes(): Promise<PotTimes> {
  const fumet = recipeById.get('fish-fumet');
  if (fumet === undefined) throw new Error('no fumet');
  const kinds = [...fumet.accepts, ...fumet.refuses.map((r) => r.category)];
  const lots = Array.from(
    { length: 200 },
    (_, i): OfferedLot => ({
      lotId: String(i),
      name: 'lot',
      category: kinds[i % kinds.length] ?? '',
      massMg: 200_000 + 1_000 * i,
      pastDate: i % 17 === 0,
      ready: i % 5 === 0,
    }),
  );
  const cold = media.find((m) => m.id === 'cold-room-open');
  if (cold === undefined) throw new Error('no cold room');
  const log = [0, 15, 30, 60, 90].map((minute) => ({ minute, C: 85 - 0.25 * minute }));
  return {
    recipes: allRecipes.length,
    // a day's curve of each, as the screen draws them, one gelling
    six: await inTurn(() => media.slice(0, 6).map((m) => coolingCurve(pot, m, { minutes: 1_440 }))),
    fit: await inTurn(() => fitCooling(pot, cold, log)),
    scale: await inTurn(() => scaleRecipe(fumet, lots, { onHandMg: { vegetables: 500_000 }, vesselLitres: 30 })),
    // every use against every lot, as the list of what lies ready asks
    all: await inTurn(() => {
      for (const recipe of allRecipes) {
        try {
          scaleRecipe(recipe, lots, { onHandMg: { vegetables: 500_000 }, vesselLitres: 30 });
        } catch {
          // nothing of these goes in: that is an answer as well
        }
      }
    }),
  };
}
