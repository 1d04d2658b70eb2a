/** What lots are to the limits of a profile. */
import { categoryById } from '@zabrik/catalogue';
import { type Food, foodOf, type Species } from '@zabrik/core';

interface LotFacts {
  readonly kind: string;
  readonly species: string | null;
  readonly form: string | null;
  readonly category: string | null;
  readonly ready: boolean;
  readonly raised: 'wild' | 'farmed' | null;
  readonly goods: string | null;
}

/** What a lot is to a limit. A whole crustacean or shellfish as it was bought, raw, is taken for alive. */
export function foodOfLot(lot: LotFacts, animals: ReadonlyMap<string, Species>): Food {
  if (lot.goods !== null) return lot.ready ? 'ready' : 'other';
  const species = animals.get(lot.species ?? '');
  return foodOf({
    species,
    category: lot.category,
    categoryGroup: categoryById.get(lot.category ?? '')?.group,
    ready: lot.ready,
    live: lot.kind === 'delivery' && lot.form === 'whole' && !lot.ready,
    farmed: lot.raised === null ? undefined : lot.raised === 'farmed',
  });
}

/** What a kind of piece in a tub is to a limit: its animal is not known any more. */
export const foodOfCategory = (category: string): Food =>
  foodOf({
    category: category === '' ? null : category,
    categoryGroup: categoryById.get(category)?.group,
    ready: false,
  });
