/** Figures for the stove and the chiller: what cools how fast, trays, burners, what bones give up, what food is made of. */
import type {
  BoilSize,
  BoneStrength,
  Composition,
  CoolingMedium,
  FillingBand,
  LethalityTarget,
  Provenance,
  VesselShape,
} from '@zabrik/core';
import compositionFile from '../data/composition.json' with { type: 'json' };
import heatFile from '../data/heat.json' with { type: 'json' };

interface Sourced {
  readonly provenance: Provenance;
  readonly source: string;
}
export interface Food extends Composition, Sourced {
  readonly id: string;
  readonly name: string;
  readonly binder?: boolean;
}
export interface Medium extends CoolingMedium, Sourced {
  readonly id: string;
  readonly name: string;
  /** It stands in ice that has to be there. */
  readonly ice?: boolean;
}

// JSON modules type their strings as string; the catalogue's tests check these files
export const foods = compositionFile.foods as readonly Food[];
export const fillingBands = compositionFile.bands as Readonly<Record<string, readonly FillingBand[]>>;
export const media = heatFile.media as readonly Medium[];
export const trays = heatFile.trays as readonly {
  readonly id: string;
  readonly name: string;
  readonly shape: VesselShape;
}[];
export const burnerKinds = heatFile.burners;
export const boilSizes: Readonly<Record<string, readonly BoilSize[]>> = heatFile.boil;
export const boneStrengths: Readonly<Record<string, BoneStrength>> = heatFile.bones;
export const lethalityTargets = heatFile.lethality as readonly (LethalityTarget &
  Sourced & { readonly id: string; readonly name: string })[];
/** Meat and fish as heat goes through them: W/(m K), m²/s, and W/(m² K) of a bath, of steam, of an oven's air. Typical. */
export const conduction = heatFile.conduction;

const foodById = new Map(foods.map((f) => [f.id, f]));
const ofCategory: Readonly<Record<string, string>> = compositionFile.ofCategory;
const ofSpecies: Readonly<Record<string, Readonly<Record<string, string>>>> = compositionFile.ofSpecies;
const ofIngredient: Readonly<Record<string, string>> = compositionFile.ofIngredient;

/** What a kind of piece is made of, per 100 g; of its own species where that is known. Undefined where nobody knows. */
export const foodOfPiece = (category: string, species: string | null): Food | undefined =>
  foodById.get(ofSpecies[species ?? '']?.[category] ?? ofCategory[category] ?? '');

/** What an ingredient is made of, per 100 g. */
export const foodOfIngredient = (id: string): Food | undefined => foodById.get(ofIngredient[id] ?? '');
