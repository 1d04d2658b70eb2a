/** Figures for the stove and the chiller: what cools how fast, trays, burners, what bones give up. */
import type { BoilSize, BoneStrength, CoolingMedium, LethalityTarget, Provenance, VesselShape } from '@zabrik/core';
import heatFile from '../data/heat.json' with { type: 'json' };

interface Sourced {
  readonly provenance: Provenance;
  readonly source: string;
}
export interface Medium extends CoolingMedium, Sourced {
  readonly id: string;
  readonly name: string;
  /** It stands in ice that has to be there. */
  readonly ice?: boolean;
}

// JSON modules type their strings as string; the catalogue's tests check these files
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
