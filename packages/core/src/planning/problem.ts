/**
 * The plan of bones and trim as data: what there is, what can be made of it, what is wanted, and with what pots, hands and room.
 *
 * Units   kilograms (a litre counts as a kilogram), minutes, money in the currency's own unit; days count from 0, and a last day is inclusive.
 */

export type FoodState = 'raw' | 'cooked';

/** A lot, on hand or expected. */
export interface Supply {
  readonly id: string;
  readonly category: string;
  readonly state: FoodState;
  readonly kg: number;
  /** The first day on which it can be used. */
  readonly ready: number;
  /** The last one; at or beyond the end where it outlives the plan. */
  readonly lastDay: number;
  readonly freezable: boolean;
  /** It lies in the freezer already: no date holds for it there. */
  readonly frozen: boolean;
}

/** What stands beside the base of a use, in a share of it: fat, trotter. */
export interface PartWanted {
  readonly id: string;
  /** Per kilogram of base, at least and at most. */
  readonly lo: number;
  readonly hi: number;
  readonly categories: readonly string[];
  readonly products: readonly string[];
  /** What a kilogram costs that is bought. */
  readonly price: number;
}

export interface VesselFor {
  readonly id: string;
  /** Base a batch in it takes. */
  readonly minKg: number;
  readonly maxKg: number;
  /** Shifts of a day that a batch holds it. */
  readonly slots: number;
}

/** A recipe with its ways chosen. */
export interface PlannedUse {
  readonly id: string;
  readonly title: string;
  readonly takes: FoodState | 'any';
  readonly base: { readonly categories: readonly string[]; readonly products: readonly string[] };
  readonly refuses: readonly string[];
  readonly caps: readonly { readonly category: string; readonly maxShare: number }[];
  /** A fresh lot must still be in date so many days after. */
  readonly minLife: 0 | 1;
  readonly parts: readonly PartWanted[];
  readonly costPerKg: number;
  readonly out: number;
  /** A batch of day s may be used on the days s to s + shelf. */
  readonly shelf: number;
  readonly frozenOk: boolean;
  readonly vessels: readonly VesselFor[];
  readonly handsFixed: number;
  readonly handsPerKg: number;
  readonly part: 'am' | 'pm' | 'any';
  readonly burnerMin: number;
  readonly ovenMin: number;
  readonly chillPerKg: number;
  readonly energy: number;
  /** A dish for staff: plates of that day, no product. */
  readonly staff: boolean;
  readonly platesPerKg: number;
  /** At most once in any window of so many days. */
  readonly repeatDays: number;
  readonly maxRunsPerDay: number;
  /** Null where it cannot be bought. */
  readonly buyPrice: number | null;
  readonly maxBuyPerDay: number;
  readonly shortPrice: number;
  readonly wasteCost: number;
  readonly endValue: number;
  readonly endCap: number;
  /** Nothing of its base exists: it is left out. */
  readonly idle?: boolean;
}

export interface PlanProblem {
  readonly id: string;
  readonly days: number;
  readonly slotsPerDay: number;
  readonly lots: readonly Supply[];
  /** Made before: at most one batch a use. */
  readonly stock: readonly { readonly use: string; readonly qty: number; readonly lastDay: number }[];
  readonly uses: readonly PlannedUse[];
  readonly demand: readonly { readonly use: string; readonly day: number; readonly qty: number }[];
  readonly staff: { readonly plates: readonly number[]; readonly missingPrice: number };
  readonly vessels: readonly { readonly id: string; readonly count: number }[];
  readonly hands: { readonly am: readonly number[]; readonly pm: readonly number[] };
  readonly burner: readonly number[];
  readonly oven: readonly number[];
  readonly chiller: readonly number[];
  readonly freezer: {
    readonly kg: number;
    readonly perKg: number;
    readonly perKgDay: number;
    readonly thawDays: number;
  };
  readonly rate: number;
  readonly runPrice: number;
  readonly disposal: Readonly<Record<string, number>>;
  readonly endFresh: Readonly<Record<string, number>>;
  readonly endFrozen: Readonly<Record<string, number>>;
  /** Batches of a use on a day that somebody wants, at least or at most. */
  readonly pins?: readonly {
    readonly use: string;
    readonly day: number;
    readonly min?: number;
    readonly max?: number;
  }[];
}

/** Of a lot, or of a batch: the day it was made, -1 for what was on hand; frozen where it came from the freezer. */
export type Source =
  | { readonly lot: string; readonly kg: number; readonly frozen?: true }
  | { readonly product: string; readonly made: number; readonly qty: number }
  | { readonly product: string; readonly frozen: true; readonly qty: number };

export interface PlannedRun {
  readonly use: string;
  readonly day: number;
  readonly vessel: string;
  readonly batches: number;
  /** Base of all its batches. */
  readonly kg: number;
  readonly base: readonly Source[];
  readonly parts: Readonly<Record<string, readonly Source[]>>;
  readonly bought: Readonly<Record<string, number>>;
}

export interface Served {
  readonly product: string;
  readonly day: number;
  readonly qty: number;
  /** Of which batch; from the freezer instead. */
  readonly made?: number;
  readonly frozen?: true;
}

/** What is done, to the lot; what is neither served nor bought is short. */
export interface WeekPlan {
  readonly runs: readonly PlannedRun[];
  readonly freezeLots: readonly { readonly lot: string; readonly day: number; readonly kg: number }[];
  /** On the day they were made, or on day 0 of what was on hand. */
  readonly freezeProducts: readonly { readonly product: string; readonly made: number; readonly qty: number }[];
  readonly serve: readonly Served[];
  readonly buy: readonly { readonly product: string; readonly day: number; readonly qty: number }[];
}
