/**
 * The vocabulary of a cut plan. Files in the catalogue and plans a house makes have this shape; the contract's
 * schema for it must agree (contract/src/plan.ts says so to the compiler).
 */

export const destinations = ['portion', 'stock', 'filling', 'staff', 'fat', 'garnish', 'larder', 'waste'] as const;
export type Destination = (typeof destinations)[number];

export const provenances = ['published-from-memory', 'common-practice', 'estimate'] as const;
export type Provenance = (typeof provenances)[number];

/** Mean and between-animal standard deviation of a share (0..1), and where the figure comes from. */
export interface SourcedShare {
  readonly mean: number;
  readonly sd: number;
  readonly provenance: Provenance;
  readonly source: string;
}

export interface PlanPiece {
  readonly id: string;
  readonly name: string;
  /** One name for each unit when the plan weighs them apart ("first side", "second side"); its length is the count. */
  readonly units: readonly string[];
  readonly category: string;
  /** Share of the mass entering the stage, for the plan's reference species and form. */
  readonly share: SourcedShare;
  readonly destination: Destination;
  readonly alternatives: readonly Destination[];
  readonly refused: readonly { readonly destination: Destination; readonly reason: string }[];
  /** The cut the animal is bought for: it carries the cost under by-product credit. */
  readonly main: boolean;
  readonly edible: boolean;
  /** The species form whose published yield this piece adds up to. */
  readonly yieldForm?: string;
  /** Purchase forms that arrive without this piece (a gutted fish has no guts). */
  readonly absentIn?: readonly string[];
  readonly whenHeavy?: string;
  readonly whenLight?: string;
}

export interface PlanStep {
  readonly title: string;
  readonly how: string;
  readonly why?: string;
  readonly caution?: string;
  readonly orderMatters: boolean;
  /** Pieces that come off in this step. */
  readonly pieces: readonly string[];
}

export interface PlanStage {
  readonly id: string;
  readonly name: string;
  readonly steps: readonly PlanStep[];
  readonly pieces: readonly PlanPiece[];
  /** What leaves without ever being a piece: drip, dust, evaporation. */
  readonly drip: SourcedShare;
}

export const bodies = ['round-fish', 'flatfish', 'bird'] as const;
export type Body = (typeof bodies)[number];

export interface CutPlan {
  readonly id: string;
  readonly version: number;
  readonly title: string;
  readonly body: Body;
  readonly species: readonly string[];
  /** Purchase forms the plan can start from; the first is the one the shares are written for. */
  readonly startForms: readonly string[];
  readonly tools: readonly string[];
  readonly minutes: { readonly low: number; readonly typical: number; readonly high: number };
  readonly stages: readonly PlanStage[];
}

export interface SpeciesYield {
  readonly from: string;
  readonly to: string;
  readonly share: { readonly mean: number; readonly low: number; readonly high: number };
  readonly source: string;
  readonly provenance: Provenance;
  /** Published product-weight to live-weight factor, where the share is its inverse. */
  readonly liveWeightFactor?: number;
}

export interface SpeciesForm {
  readonly id: string;
  readonly name: string;
  readonly purchase: boolean;
  readonly whole: boolean;
  readonly typicalG?: number;
}

export interface Species {
  readonly id: string;
  readonly name: string;
  readonly scientific: string;
  readonly group: string;
  readonly allergen: 'fish' | 'crustaceans' | 'molluscs' | 'none';
  readonly forms: readonly SpeciesForm[];
  readonly yields: readonly SpeciesYield[];
  /** What to look at on receipt, the critical ones first. */
  readonly inspection: readonly {
    readonly check: string;
    readonly accept: string;
    readonly reject: string;
    readonly critical: boolean;
  }[];
}
