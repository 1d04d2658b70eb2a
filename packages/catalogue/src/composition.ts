/** What food is made of, and where fillings hold. */
import type { Composition, FillingBand, Provenance } from '@zabrik/core';
import compositionFile from '../data/composition.json' with { type: 'json' };

export interface Food extends Composition {
  readonly id: string;
  readonly name: string;
  readonly binder?: boolean;
  readonly provenance: Provenance;
  readonly source: string;
}

// JSON modules type their strings as string; the catalogue's tests check this file
export const foods = compositionFile.foods as readonly Food[];
export const fillingBands = compositionFile.bands as Readonly<Record<string, readonly FillingBand[]>>;

const foodById = new Map(foods.map((f) => [f.id, f]));
const ofCategory: Readonly<Record<string, string>> = compositionFile.ofCategory;
const ofSpecies: Readonly<Record<string, Readonly<Record<string, string>>>> = compositionFile.ofSpecies;
const ofIngredient: Readonly<Record<string, string>> = compositionFile.ofIngredient;

/** What a kind of piece is made of, per 100 g; of its own species where that is known. Undefined where nobody knows. */
export const foodOfPiece = (category: string, species: string | null): Food | undefined =>
  foodById.get(ofSpecies[species ?? '']?.[category] ?? ofCategory[category] ?? '');

/** What an ingredient is made of, per 100 g. */
export const foodOfIngredient = (id: string): Food | undefined => foodById.get(ofIngredient[id] ?? '');
