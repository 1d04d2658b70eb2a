import type { Destination, Provenance } from '../breakdown/plan.ts';

export interface UseIngredient {
  readonly id: string;
  readonly name: string;
  /** Mass per unit of base mass (the pieces the use is built on): 1 kg of bones to 1 kg of water is 1. */
  readonly perBase: number;
  readonly low: number;
  readonly high: number;
  readonly allergens: readonly string[];
}

export type UseKind = 'stock' | 'filling' | 'staff-dish';

/** A batch formula that eats pieces. */
export interface Use {
  readonly id: string;
  readonly version: number;
  readonly kind: UseKind;
  readonly title: string;
  /** What the base mass is called in the kitchen: "bones", "fish", "trim". */
  readonly baseName: string;
  readonly accepts: readonly string[];
  /** Trays this use empties. */
  readonly trays: readonly Destination[];
  readonly refuses: readonly { readonly category: string; readonly reason: string }[];
  /** The most of the base a category may be, 0..1. */
  readonly caps: readonly { readonly category: string; readonly maxShare: number; readonly reason: string }[];
  readonly ingredients: readonly UseIngredient[];
  /** Finished mass per unit of base mass. */
  readonly output: { readonly name: string; readonly low: number; readonly mean: number; readonly high: number };
  /** Volume the raw batch takes in the vessel, litres per kilogram of base, water and all; undefined where none is needed. */
  readonly litresPerKg?: number;
  /** For dishes: base mass a plate takes, grams. */
  readonly gramsPerPlate?: number;
  readonly minutes: { readonly low: number; readonly typical: number; readonly high: number };
  readonly steps: readonly string[];
  readonly cautions: readonly string[];
  readonly shelfLifeDays: number;
  readonly allergens: readonly string[];
  readonly provenance: Provenance;
  readonly source: string;
}
