import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { grams, inGrams } from '../quantity/mass.ts';
import { Refusal } from '../refusal.ts';
import type { Recipe } from './recipe.ts';
import { scaleRecipe } from './scaleRecipe.ts';

const ingredient = (id: string, perBase: number) => ({ id, name: id, perBase, low: 0, high: 9, allergens: [] });
const base = {
  version: 1,
  baseName: 'bones',
  trays: ['stock'],
  acceptsUses: [],
  takes: 'any',
  ready: true,
  questions: [],
  marks: [],
  vessel: 'pot',
  keeps: [],
  minutes: { low: 1, typical: 2, high: 3 },
  steps: [{ kind: 'boil', text: 'boil' }],
  cautions: [],
  shelfLifeDays: 2,
  allergens: [],
  provenance: 'common-practice',
  source: 'test',
} as const;
const fumet: Recipe = {
  ...base,
  id: 'fumet',
  kind: 'stock',
  title: 'Fumet',
  accepts: ['frame', 'head', 'fringe'],
  refuses: [{ category: 'gills', reason: 'bitter' }],
  caps: [{ category: 'head', maxShare: 0.5, reason: 'gluey' }],
  ingredients: [ingredient('water', 1)],
  output: { name: 'fumet', low: 0.75, mean: 0.9, high: 1.1, measure: 'litres' },
  litresPerKg: 2,
};
const mousseline: Recipe = {
  ...base,
  id: 'mousseline',
  kind: 'filling',
  title: 'Mousseline',
  baseName: 'trim',
  accepts: ['trim'],
  refuses: [],
  caps: [],
  ingredients: [ingredient('cream', 1), ingredient('egg-white', 0.06), ingredient('salt', 0.014)],
  output: { name: 'mousseline', low: 1.6, mean: 2.05, high: 2.1, measure: 'mass' },
};
const lot = (lotId: string, category: string, g: number) => ({
  lotId,
  name: lotId,
  category,
  massMg: grams(g),
  pastDate: false,
  ready: false,
});
const free = { onHandMg: {}, vesselLitres: undefined };

describe('heads go in whole', () => {
  const stock: Recipe = { ...fumet, accepts: ['frame', 'white-fish-head'], caps: [] };
  const heads = (g: number, pieces: number) => ({ ...lot('h', 'white-fish-head', g), pieces });
  const taken = (recipe: Recipe, lots: Parameters<typeof scaleRecipe>[1], g?: number) =>
    scaleRecipe(recipe, lots, { ...free, ...(g === undefined ? {} : { wantedBaseMg: grams(g) }) });

  it('one head of 278 g is all of it or none, and the batch is what is taken', () => {
    const one = taken(stock, [heads(278, 1)], 138);
    expect(one.taken.map((t) => inGrams(t.massMg))).toEqual([278]);
    expect(one.baseMg).toBe(grams(278));
    expect(one.ingredients[0]?.massMg).toBe(grams(278));
    // of two heads of 278 and a frame of 600 to make 700: one head, and the frame makes up the rest
    const both = taken(stock, [lot('f', 'frame', 600), heads(556, 2)], 700);
    expect(both.taken.find((t) => t.lotId === 'h')?.massMg).toBe(grams(278));
    expect(both.taken.find((t) => t.lotId === 'f')?.massMg).toBe(grams(422));
    expect(both.baseMg).toBe(grams(700));
    for (const t of both.taken) expect(t.massMg + t.leftMg).toBe(t.lotId === 'f' ? grams(600) : grams(556));
  });

  it('what a head is short is made up by frames that were not needed before', () => {
    const capped: Recipe = { ...stock, caps: [{ category: 'white-fish-head', maxShare: 0.2, reason: 'gluey' }] };
    const frames = Array.from({ length: 6 }, (_, i) => lot(`f${i}`, 'frame', 448));
    const made = taken(capped, [heads(504, 1), ...frames], 2_222);
    expect(made.baseMg).toBe(grams(2_222));
    expect(made.taken.reduce((sum, t) => sum + t.massMg, 0)).toBe(grams(2_222));
    expect(made.taken.map((t) => t.lotId)).toEqual(['h', 'f0', 'f1', 'f2', 'f3']);
  });

  it('fewer where a cap holds them back, and never past the pot', () => {
    const capped: Recipe = { ...stock, caps: [{ category: 'white-fish-head', maxShare: 0.5, reason: 'gluey' }] };
    // 600 g of frame let in 600 g of heads: two of 250, the third stays whole
    const held = taken(capped, [lot('f', 'frame', 600), heads(750, 3)]);
    expect(held.taken.find((t) => t.lotId === 'h')?.massMg).toBe(grams(500));
    expect(held.capped[0]?.heldBackMg).toBe(grams(250));
    // 2.6 of 230 g would be let in: two, never three
    const near = taken(capped, [lot('f', 'frame', 600), heads(690, 3)]);
    expect(near.taken.find((t) => t.lotId === 'h')?.massMg).toBe(grams(460));
    const pot = scaleRecipe(stock, [lot('f', 'frame', 600), heads(750, 3)], { onHandMg: {}, vesselLitres: 2 });
    expect(pot.baseMg).toBeLessThanOrEqual(grams(1_000));
    expect((pot.taken.find((t) => t.lotId === 'h')?.massMg ?? 0) % grams(250)).toBe(0);
  });
});

describe('scaling a recipe to what there is', () => {
  it('knows the mousseline of 740 g of trim', () => {
    // arithmetic on the handbook's ratio 1 : 1 : 0.06 : 0.014, written for this project
    const { ingredients } = scaleRecipe(mousseline, [lot('a', 'trim', 740)], free);
    expect(ingredients.map((i) => inGrams(i.massMg))).toEqual([740, 44.4, 10.36]);
  });

  it('knows the fumet of twelve brill', () => {
    // 12 fish of 1.4 kg, frame 0.235, head 0.135, fringe 0.07: 7.392 kg of bones, 6.6528 l (handbook's data)
    const scaled = scaleRecipe(
      fumet,
      [
        lot('f', 'frame', 12 * 1_400 * 0.235),
        lot('h', 'head', 12 * 1_400 * 0.135),
        lot('s', 'fringe', 12 * 1_400 * 0.07),
      ],
      free,
    );
    expect(inGrams(scaled.baseMg)).toBeCloseTo(7_392, 3);
    expect(inGrams(scaled.output.meanMg)).toBeCloseTo(6_652.8, 3);
    expect(scaled.limiting).toEqual({ kind: 'base', name: 'bones' });
  });

  it('refuses with the reason, and says what nothing else would', () => {
    const scaled = scaleRecipe(fumet, [lot('g', 'gills', 50), lot('f', 'frame', 500), lot('x', 'beef', 10)], free);
    expect(scaled.refused).toEqual([
      { lotId: 'g', reason: 'bitter' },
      { lotId: 'x', reason: 'Fumet is not made with this' },
    ]);
    expect(() => scaleRecipe(fumet, [lot('g', 'gills', 50)], free)).toThrow(Refusal);
    expect(
      scaleRecipe(fumet, [lot('f', 'frame', 500), { ...lot('old', 'frame', 400), pastDate: true }], free),
    ).toMatchObject({
      baseMg: grams(500),
      refused: [{ lotId: 'old', reason: 'Past its use-by date' }],
    });
  });

  it('stops at one layer in the pan: 0.06 square metres at 14.3 kg each hold 858 g; a pot of no such recipe is not asked', () => {
    const quick = { ...fumet, layerKgPerM2: 14.3 };
    const on = (recipe: Recipe) => scaleRecipe(recipe, [lot('f', 'frame', 2_000)], { ...free, panFloorM2: 0.06 });
    expect(on(quick)).toMatchObject({ baseMg: grams(858), limiting: { kind: 'vessel', name: 'one layer in the pan' } });
    expect(on(fumet).baseMg).toBe(grams(2_000));
  });

  it('names cream when cream runs out, the pot when the pot is full', () => {
    expect(
      scaleRecipe(mousseline, [lot('a', 'trim', 740)], { ...free, onHandMg: { cream: grams(500) } }),
    ).toMatchObject({
      baseMg: grams(500),
      limiting: { kind: 'ingredient', name: 'cream' },
    });
    expect(scaleRecipe(fumet, [lot('f', 'frame', 9_000)], { ...free, vesselLitres: 9 })).toMatchObject({
      baseMg: grams(4_500),
      limiting: { kind: 'vessel' },
    });
  });

  it('keeps caps, stock and order for any lots', () => {
    const lots = fc.array(
      fc.record({
        category: fc.constantFrom('frame', 'head', 'fringe', 'gills'),
        g: fc.integer({ min: 0, max: 9_000 }),
      }),
      { minLength: 1, maxLength: 8 },
    );
    fc.assert(
      fc.property(lots, fc.option(fc.integer({ min: 1, max: 40 }), { nil: undefined }), (some, vesselLitres) => {
        const offered = some.map(({ category, g }, i) => lot(String(i), category, g));
        let scaled: ReturnType<typeof scaleRecipe>;
        try {
          scaled = scaleRecipe(fumet, offered, { onHandMg: {}, vesselLitres });
        } catch (error) {
          expect(error).toBeInstanceOf(Refusal);
          return;
        }
        const mass = (of: (id: string) => boolean): number =>
          scaled.taken.filter((t) => of(t.lotId)).reduce((sum, t) => sum + t.massMg, 0);
        const categoryOf = (id: string): string => offered[Number(id)]?.category ?? '';
        expect(mass(() => true)).toBe(scaled.baseMg);
        // a milligram of rounding may fall to either side of the cap
        expect(mass((id) => categoryOf(id) === 'head')).toBeLessThanOrEqual(scaled.baseMg / 2 + 2);
        for (const t of scaled.taken) expect(t.massMg + t.leftMg).toBe(offered[Number(t.lotId)]?.massMg);
        if (vesselLitres !== undefined) expect(scaled.baseMg).toBeLessThanOrEqual((vesselLitres / 2) * 1e6);
      }),
    );
  });
});

describe('what comes of it', () => {
  const lots = [lot('a', 'frame', 2_000)];

  it('by hand: two kilograms at 0.75, 0.9 and 1.1 to one; what takes nothing of an ingredient does not name it', () => {
    const made = scaleRecipe({ ...fumet, ingredients: [ingredient('water', 1), ingredient('salt', 0)] }, lots, free);
    expect(made.output).toEqual({ lowMg: grams(1_500), meanMg: grams(1_800), highMg: grams(2_200) });
    expect(made.ingredients.map((i) => i.id)).toEqual(['water']);
    expect([made.plates, made.pieces, made.limiting.kind]).toEqual([undefined, undefined, 'base']);
  });

  it('plates are whole ones of what goes in, pieces whole ones of what comes out', () => {
    // 2,000 g at 300 g a plate are six; 1,800 g at 250 g a piece are seven
    const made = scaleRecipe({ ...fumet, gramsPerPlate: 300, piece: { name: 'x', grams: 250 } }, lots, free);
    expect([made.plates, made.pieces]).toEqual([6, 7]);
  });

  it('one layer in the pan is a limit where both the pan and the layer are known, and only where it is less', () => {
    const layered = { ...fumet, layerKgPerM2: 10 };
    const inPan = (recipe: Recipe, panFloorM2?: number) =>
      scaleRecipe(recipe, lots, { ...free, ...(panFloorM2 === undefined ? {} : { panFloorM2 }) });
    expect(inPan(layered, 0.1)).toMatchObject({ baseMg: grams(1_000), limiting: { name: 'one layer in the pan' } });
    // two kilograms lie in it just so: that is no limit
    expect(inPan(layered, 0.2)).toMatchObject({ baseMg: grams(2_000), limiting: { kind: 'base' } });
    expect(inPan(layered)).toMatchObject({ baseMg: grams(2_000), limiting: { kind: 'base' } });
    expect(inPan(fumet, 0.1)).toMatchObject({ baseMg: grams(2_000), limiting: { kind: 'base' } });
    expect(() => inPan(layered, 0)).toThrow();
  });
});
