/**
 * The vocabulary of a cut plan. Files in the catalogue and plans a house makes have this shape; the contract's
 * schema for it must agree (contract/src/plan.ts says so to the compiler).
 */
import type { MinutesRange, MinutesUpTo } from '../timing/minutesBySize.ts';

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
  /** How many come off one animal. */
  readonly count: number;
  /** One name for each of them where they have names ("first side", "second side"). */
  readonly units?: readonly string[];
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
  /** The later stage of the same plan this piece goes on to. */
  readonly next?: string;
  /** The purchase form it stands for once it is off (a saddle off a carcass): other plans can start from it. */
  readonly becomes?: string;
  /** Comes together from many small weighings, as picked meat does. */
  readonly accumulates?: boolean;
  /** Not in every animal (roe): weighed where it is, and asked for only where it usually is. */
  readonly occasional?: true;
  readonly note?: string;
}

/** What goes wrong when a step is left for later: the warning, and the pieces that must not come off before it is done. */
export interface OrderGuard {
  readonly warn: string;
  readonly before: readonly string[];
}

/** A measure to hit, in the unit that is said: 3 to 4 mm between scores. */
export interface StepMeasure {
  readonly what: string;
  readonly low: number;
  readonly high: number;
  readonly unit: string;
}

export interface PlanStep {
  readonly title: string;
  readonly how?: string;
  readonly why?: string;
  readonly caution?: string;
  /** What to look or feel for before going on. */
  readonly check?: string;
  readonly orderMatters: boolean;
  readonly guard?: OrderGuard;
  /** How long it takes by itself, hands free: a timer is offered. */
  readonly minutes?: Minutes;
  /** The same by the mass of one animal, the smallest first. */
  readonly bySize?: readonly MinutesUpTo[];
  /** What is measured before going on: how wide, how far apart, how steep. */
  readonly measure?: StepMeasure;
  /** How often the check is to be repeated, each pass counted (shell in picked meat). */
  readonly passes?: number;
  /** How it looks when it is right: a photograph this house keeps. */
  readonly photo?: string;
  /** Pieces that come off in this step. */
  readonly pieces: readonly string[];
}

export const bodies = [
  'round-fish',
  'flatfish',
  'loin',
  'block',
  'bird',
  'four-legged',
  'crab',
  'lobster',
  'small-crustacean',
  'mollusc',
  'squid',
  'trotter',
] as const;
export type Body = (typeof bodies)[number];

export type Minutes = MinutesRange;

/** How long what enters a stage rests before it goes on. */
export interface Rest {
  readonly lowMinutes: number;
  readonly typicalMinutes: number;
  readonly highMinutes: number;
  readonly note: string;
}

/** A boned-out piece that is filled again. */
export interface StageFill {
  readonly piece: string;
  /** How much filling for its own mass, as cooks do it. */
  readonly low: number;
  readonly high: number;
  /** Pieces that came out of its inside and left it hollow; wing tips and the like came off outside. */
  readonly bones?: readonly string[];
  readonly flesh?: readonly string[];
}

/** A stage that cooks: what of it is cooked, and how it is kept from then on. */
export interface StageCooks {
  /** How it is done, in the trade's word: braised, steamed, rendered, blanched. */
  readonly word: string;
  readonly pieces: readonly string[];
  /** Usually cooked through by it; else only blanched, and raw still. It is asked at the end of the stage. */
  readonly through: boolean;
  /** Days it keeps once it is cooked through, the day after as day one; by piece. */
  readonly keepDays: Readonly<Record<string, number>>;
  /** What cooks put in with it, and the allergens that brings. */
  readonly adds?: readonly { readonly id: string; readonly name: string; readonly allergens: readonly string[] }[];
}

export interface PlanStage {
  readonly id: string;
  readonly name: string;
  /** Hands-on, for one animal and a skilled cook. */
  readonly minutes: Minutes;
  /** Minutes on the stove or in the cold while hands are free. */
  readonly passiveMinutes?: number;
  readonly rest?: Rest;
  /** The drawing for this stage, where it is not the plan's. */
  readonly body?: Body;
  /** What leaves without ever being a piece: drip, dust, evaporation. */
  readonly drip: SourcedShare;
  /** What the drip is here, in words, where it is more than drip and dust. */
  readonly dripIs?: string;
  readonly fill?: StageFill;
  readonly cooks?: StageCooks;
  /** It is made of every piece that goes on to it: not begun while one of them is not there yet, unless somebody means it. */
  readonly waitsForAll?: true;
  readonly steps: readonly PlanStep[];
  readonly pieces: readonly PlanPiece[];
}

/** A species and the forms of it that a plan can start from. */
export interface PlanStart {
  readonly species: string;
  readonly forms: readonly string[];
  /** The later stage that these forms enter at, as what an earlier one would have made: a side where sides begin. The first, where unsaid. */
  readonly at?: string;
}

export interface CutPlan {
  readonly id: string;
  readonly version: number;
  readonly title: string;
  readonly body: Body;
  /** 1 a learner with someone beside, 2 a trained hand, 3 a practised one. */
  readonly skill: 1 | 2 | 3;
  /** What it can start from; the shares of the first stage are written for the first species in its first form. */
  readonly starts: readonly PlanStart[];
  readonly tools: readonly string[];
  /** Small animals whose pieces are weighed together by kind unless asked otherwise. */
  readonly pooled?: boolean;
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
  /** What is bought so is cooked through: it is kept as food that is ready to eat. */
  readonly cooked?: true;
  readonly typicalG?: number;
}

export interface Species {
  readonly id: string;
  readonly name: string;
  readonly scientific: string;
  readonly group: string;
  readonly allergen: 'fish' | 'crustaceans' | 'molluscs' | 'none';
  /** Said of a species of the house's own: whether histamine forms in it. The handbook's are known by their genus. */
  readonly histamine?: boolean;
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
