import { allSpecies, recipeById } from '@zabrik/catalogue';
import type { ListedRecipe, Lot } from '@zabrik/contract';
import { grams, kilograms } from '@zabrik/core';
import { describe, expect, it } from 'vitest';
import { massIn } from '../../kit/readers.ts';
import { amountIn } from '../../parts/amountIn.ts';
import { byKind, goesByItself, isOffered, offerOf, oneTouches, preselected, readyFor } from './offers.ts';

const recipe = (id: string) => {
  const found = recipeById.get(id);
  if (found === undefined) throw new Error(id);
  return found;
};
const far = '2099-01-01';
const lot = (o: Partial<Lot>): Lot =>
  ({
    id: 'l',
    code: '1-K',
    kind: 'piece',
    name: 'Frames',
    species: 'hake',
    category: 'white-fish-frame',
    destination: 'stock',
    massMg: kilograms(1),
    freeMg: o.massMg ?? kilograms(1),
    freePieces: 1,
    useBy: far,
    ready: false,
    recipeId: null,
    potKind: o.category ?? 'white-fish-frame',
    ...o,
  }) as Lot;

describe('what goes in a pot without being asked for', () => {
  const fumet = recipe('fish-fumet');
  it('is what lies in a tray the recipe empties, and what was collected in a tub', () => {
    expect(goesByItself(fumet, lot({}))).toBe(true);
    expect(goesByItself(fumet, lot({ destination: 'staff' }))).toBe(false);
    expect(goesByItself(fumet, lot({ kind: 'tub', destination: null }))).toBe(true);
  });
  it('is nothing that someone means for a guest, nothing past its date and nothing refused', () => {
    expect(
      goesByItself(recipe('fish-mousseline'), lot({ category: 'white-fish-portion', destination: 'portion' })),
    ).toBe(false);
    expect(goesByItself(fumet, lot({ useBy: '2020-01-01' }))).toBe(false);
    expect(goesByItself(fumet, lot({ category: 'oily-fish-frame' }))).toBe(false);
  });
  it('is added up as what lies ready', () => {
    const lots = [lot({}), lot({ id: 'm', massMg: grams(250) }), lot({ id: 'n', category: 'oily-fish-frame' })];
    expect(readyFor(fumet, lots, allSpecies)).toBe(grams(1_250));
    // what is on a bench of it, or promised to another pot, does not
    expect(readyFor(fumet, [lot({ freeMg: grams(400) })], allSpecies)).toBe(grams(400));
    expect(offerOf(lot({ freeMg: grams(400), pieces: 5, freePieces: 2 }))).toMatchObject({
      massMg: grams(400),
      pieces: 2,
    });
  });
});

describe('what is chosen before anybody chooses', () => {
  const ids = (recipeId: string, lots: Lot[]): string[] => [...preselected(recipe(recipeId), lots, allSpecies)].sort();
  const piece = (id: string, species: string, category: string, o: Partial<Lot> = {}): Lot =>
    lot({ id, species, category, potKind: category, destination: 'filling', massMg: kilograms(1), ...o });

  it('is never a portion: no racks and no loins for rillettes, no roe barrel with duck legs', () => {
    const kept = { destination: 'larder' as const };
    expect(
      ids('rillettes', [
        piece('rack', 'rabbit', 'smallgame-portion', kept),
        piece('loin', 'pork', 'pork-portion', { destination: 'portion' }),
        piece('whole', 'pork', 'pork-portion', { kind: 'delivery', destination: null }),
        piece('trim', 'pork', 'pork-trim'),
        lot({
          id: 'confit',
          kind: 'batch',
          species: null,
          category: null,
          potKind: '',
          recipeId: 'confit',
          ready: true,
        }),
      ]),
    ).toEqual(['confit', 'trim']);
    expect(
      ids('confit', [
        piece('legs', 'duck', 'waterfowl-portion', kept),
        piece('barrel', 'roe-deer', 'venison-portion', kept),
      ]),
    ).toEqual([]);
  });

  it('is of one company: no tuna with white fish, no pork sinew in a venison jus', () => {
    const white = [piece('hake', 'hake', 'white-fish-trim'), piece('gurnard', 'gurnard', 'white-fish-trim')];
    expect(
      ids('fish-mousseline', [...white, piece('tuna', 'tuna', 'white-fish-trim', { massMg: grams(500) })]),
    ).toEqual(['gurnard', 'hake']);
    const jus = recipe('game-stock');
    const sinew = (id: string, species: string, g: number): Lot =>
      piece(id, species, 'meat-sinew', { destination: 'stock', massMg: grams(g) });
    expect([...preselected(jus, [sinew('roe', 'roe-deer', 900), sinew('pork', 'pork', 300)], allSpecies)]).toEqual([
      'roe',
    ]);
  });

  it('can be made one animal’s, one supplier’s or one day’s in one touch', () => {
    const fumet = recipe('fish-fumet');
    const stock = { destination: 'stock' as const, madeAt: '2026-11-28T09:00:00Z', supplierName: 'Bram Quay Fish' };
    const lots = [
      ...Array.from({ length: 3 }, (_, i) => piece(`hake${i}`, 'hake', 'white-fish-frame', stock)),
      piece('turbot', 'turbot', 'flatfish-frame', { ...stock, madeAt: '2026-11-29T09:00:00Z' }),
      piece('loin', 'hake', 'white-fish-portion', { ...stock, destination: 'portion' }),
    ];
    const touches = oneTouches(fumet, lots, (id) => id);
    expect(touches.map((t) => t.name)).toEqual([
      'hake',
      'turbot',
      expect.stringMatching(/28/),
      expect.stringMatching(/29/),
    ]);
    expect([...(touches[0]?.lotIds ?? [])]).toEqual(['hake0', 'hake1', 'hake2']);
  });
});

describe('what is shown beside it', () => {
  it('is what a cook might think of, told why not; not every bone in the larder', () => {
    const fumet = recipe('fish-fumet');
    expect(isOffered(fumet, lot({ category: 'oily-fish-frame' }))).toBe(true);
    expect(isOffered(fumet, lot({ category: 'venison-bone' }))).toBe(false);
  });
});

describe('figures of the pots', () => {
  it('are litres for what is poured and mass for what is not', () => {
    expect(amountIn('litres', kilograms(4.26))).toBe('4.3 l');
    expect(amountIn('mass', grams(1_250))).toBe('1,250 g');
  });
  it('are nothing while they cannot be read', () => {
    expect(massIn('1.2 kg')).toBe(kilograms(1.2));
    expect(massIn('a bit')).toBeUndefined();
  });
});

describe('the list of recipes', () => {
  it('stands by kind, stocks first, empty kinds left out', () => {
    const listed = ['ragu', 'fish-fumet', 'fish-mousseline', 'demi'].map(
      (id): ListedRecipe => ({
        recipe: recipe(id) as ListedRecipe['recipe'],
        own: false,
        retired: false,
        changed: null,
        batches: [],
      }),
    );
    expect(byKind(listed).map(([kind]) => kind)).toEqual(['stock', 'reduction', 'filling', 'staff-dish']);
  });
});
