/** The handbook that ships with the app: species, cut plans, uses, piece categories. Data in ../data, provenance beside each figure. */
import type { CutPlan, LimitProfile, Species, Use } from '@zabrik/core';
import categoriesFile from '../data/categories.json' with { type: 'json' };
import limitsFile from '../data/limits.json' with { type: 'json' };
import speciesFile from '../data/species.json' with { type: 'json' };
import fumet from '../data/uses/fish-fumet.json' with { type: 'json' };
import mousseline from '../data/uses/fish-mousseline.json' with { type: 'json' };
import fishPie from '../data/uses/fish-pie.json' with { type: 'json' };
import { planFiles } from './planFiles.ts';

/** A kind of piece. `useWithinHours`: at 0 to 3 °C after cutting (estimate); 0 means to the bin at once. */
export interface PieceCategory {
  readonly id: string;
  readonly label: string;
  readonly group: string;
  readonly edible: boolean;
  readonly useWithinHours: number;
}

// JSON modules type their strings as string; catalogue.test.ts checks every file against the contract's schemas
export const allSpecies = speciesFile.species as readonly Species[];
export const allPlans = planFiles as readonly CutPlan[];
export const allUses = [fumet, mousseline, fishPie] as readonly unknown[] as readonly Use[];
/** Limits as three documents publish them, recalled from memory: each says how sure we are of it. The house chooses one. */
export const limitProfiles = limitsFile.profiles as readonly unknown[] as readonly LimitProfile[];
export const allCategories: readonly PieceCategory[] = categoriesFile.categories;

const byId = <T extends { readonly id: string }>(items: readonly T[]): ReadonlyMap<string, T> =>
  new Map(items.map((item) => [item.id, item]));

export const speciesById = byId(allSpecies);
export const planById = byId(allPlans);
export const useById = byId(allUses);
export const categoryById = byId(allCategories);

/** Days a bought animal keeps from receipt, by group, when the delivery gives no date. Estimate: the house's own plan decides. */
const RECEIPT_DAYS: Readonly<Record<string, number>> = {
  'round-fish': 2,
  flatfish: 3,
  'large-pelagic': 3,
  crustacean: 1,
  mollusc: 2,
  poultry: 4,
  'feathered-game': 4,
  'furred-game': 4,
  'farmed-meat': 5,
};
export const receiptDays = (group: string): number => RECEIPT_DAYS[group] ?? 2;
