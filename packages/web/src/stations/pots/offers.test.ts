import { useById } from '@zabrik/catalogue';
import type { ListedUse, Lot } from '@zabrik/contract';
import { grams, kilograms } from '@zabrik/core';
import { describe, expect, it } from 'vitest';
import { amountIn, byKind, goesByItself, isOffered, readMass, readyFor } from './offers.ts';

const use = (id: string) => {
  const found = useById.get(id);
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
    useBy: far,
    ready: false,
    useId: null,
    potKind: o.category ?? 'white-fish-frame',
    ...o,
  }) as Lot;

describe('what goes in a pot without being asked for', () => {
  const fumet = use('fish-fumet');
  it('is what lies in a tray the use empties, and what was collected in a tub', () => {
    expect(goesByItself(fumet, lot({}))).toBe(true);
    expect(goesByItself(fumet, lot({ destination: 'staff' }))).toBe(false);
    expect(goesByItself(fumet, lot({ kind: 'tub', destination: null }))).toBe(true);
  });
  it('is nothing that someone means for a guest, nothing past its date and nothing refused', () => {
    expect(goesByItself(use('fish-mousseline'), lot({ category: 'white-fish-portion', destination: 'portion' }))).toBe(
      false,
    );
    expect(goesByItself(fumet, lot({ useBy: '2020-01-01' }))).toBe(false);
    expect(goesByItself(fumet, lot({ category: 'oily-fish-frame' }))).toBe(false);
  });
  it('is added up as what lies ready', () => {
    const lots = [lot({}), lot({ massMg: grams(250) }), lot({ category: 'oily-fish-frame' })];
    expect(readyFor(fumet, lots)).toBe(grams(1_250));
  });
});

describe('what is shown beside it', () => {
  it('is what a cook might think of, told why not; not every bone in the larder', () => {
    const fumet = use('fish-fumet');
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
    expect(readMass('1.2 kg')).toBe(kilograms(1.2));
    expect(readMass('a bit')).toBeUndefined();
  });
});

describe('the list of uses', () => {
  it('stands by kind, stocks first, empty kinds left out', () => {
    const listed = ['ragu', 'fish-fumet', 'fish-mousseline', 'demi'].map(
      (id): ListedUse => ({
        use: use(id) as ListedUse['use'],
        own: false,
        retired: false,
        changed: null,
        batches: [],
      }),
    );
    expect(byKind(listed).map(([kind]) => kind)).toEqual(['stock', 'reduction', 'filling', 'staff-dish']);
  });
});
