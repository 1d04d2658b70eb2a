/** What can be bought, animal or goods, as the catalogue knows it: the same whether it comes with a delivery or lay there already. */

import { categoryOfForm, receiptDays } from '@zabrik/catalogue';
import { isBoughtCooked, type PlaceKind, type Species, usuallyRaised } from '@zabrik/core';
import { goodsOf } from '../db/goodsHere.ts';
import { readSpecies } from '../db/plans.ts';
import { Problem } from '../http/problem.ts';
import type { InCommand, Services } from '../services.ts';
import type { NewLot } from './makeLots.ts';

export interface BoughtThing {
  readonly name: string;
  /** Undefined for goods. */
  readonly species: Species | undefined;
  readonly category: string | null;
  readonly allergens: readonly string[];
  readonly lifeDays: number;
  readonly ready: boolean;
  readonly raised: 'wild' | 'farmed' | null;
  readonly kind: Extract<NewLot['kind'], 'delivery' | 'goods'>;
  readonly place: PlaceKind | null;
}

export const noSuch = (path: string, message: string): Problem => new Problem('invalid', message, [{ path, message }]);

export const allergensOf = (species: Species): readonly string[] =>
  species.allergen === 'none' ? [] : [`${species.allergen}/${species.id}`];

/** Errors  `invalid`, naming the field the catalogue does not know. */
export async function boughtThing(
  services: Services,
  command: InCommand,
  said: { readonly species: string | null; readonly form: string | null; readonly goods: string | null },
): Promise<BoughtThing> {
  if (said.goods !== null) {
    const goods = goodsOf(said.goods);
    if (goods === undefined) throw noSuch('goods', 'not in the catalogue');
    return {
      name: goods.name,
      species: undefined,
      category: null,
      allergens: goods.allergens,
      lifeDays: goods.lifeDays,
      ready: goods.ready === true,
      raised: null,
      kind: 'goods',
      place: goods.place,
    };
  }
  const species = (await readSpecies(services.db, command.actor.houseId, command.transaction)).get(said.species ?? '');
  if (species === undefined) throw noSuch('species', 'not in the catalogue');
  const form = species.forms.find((f) => f.id === said.form && f.purchase);
  if (form === undefined) throw noSuch('form', `${species.name} is not bought in this form`);
  return {
    name: `${species.name}, ${form.name}`,
    species,
    category: categoryOfForm(species.id, form.id),
    allergens: allergensOf(species),
    lifeDays: receiptDays(species.group) - 1,
    ready: isBoughtCooked(species, form.id),
    raised: usuallyRaised(species),
    kind: 'delivery',
    place: null,
  };
}
