/** Limits as a profile publishes them: figures of a document, with where they stand in it and how sure we are of them. */
import type { Provenance } from '../breakdown/plan.ts';
import type { Cover } from './limitsFor.ts';

export type Certainty = 'high' | 'medium' | 'low';
export type Force = 'law' | 'code' | 'law-upstream' | 'national' | 'guidance';

interface Common {
  readonly id: string;
  readonly topic: string;
  /** What it is about, in the document's sense. */
  readonly product: string;
  readonly unit: string | null;
  readonly citation: { readonly document: string; readonly section: string };
  readonly force: Force;
  readonly provenance: Provenance;
  /** How sure we are of the figure. Low is never shown as a limit, only as something to look up. */
  readonly certainty: Certainty;
  readonly caution: string;
  readonly note?: string;
  /** What it is applied to by itself; left out where a person holds a figure against it, or where it has none. */
  readonly covers?: readonly Cover[];
}

export interface MostTemperature extends Common {
  readonly kind: 'max_temp';
  /** `max_F` where the document publishes it: a reading in Fahrenheit is compared with that, never converted. */
  readonly value: { readonly max_C: number; readonly max_F?: number };
}
export interface LeastTemperature extends Common {
  readonly kind: 'min_temp';
  readonly value: { readonly min_C: number; readonly min_F?: number };
}
export interface CookPoints extends Common {
  readonly kind: 'cook_time_temp';
  /** Any one point satisfies: this hot for at least so many seconds. */
  readonly value: { readonly points: readonly { readonly T_C: number; readonly T_F?: number; readonly t_s: number }[] };
}
export interface FreezeTreatment extends Common {
  readonly kind: 'freeze_treatment';
  /** Any one option satisfies. */
  readonly value: {
    readonly options: readonly {
      readonly freeze_C: number;
      readonly until_solid?: boolean;
      readonly hold_C: number;
      readonly hold_h: number;
    }[];
    readonly thickness_max_cm?: number;
  };
}
export interface CoolingSteps extends Common {
  readonly kind: 'cooling';
  readonly value: {
    /** The clock starts at the first reading at or below this; null: at the first reading. */
    readonly start_C: number | null;
    readonly start_F?: number;
    /** Each counted from the start of the clock. */
    readonly steps: readonly { readonly to_C: number; readonly to_F?: number; readonly within_min: number }[];
  };
}
export interface ShelfLife extends Common {
  readonly kind: 'shelf_life';
  readonly value: {
    readonly max_days: number;
    readonly at_max_C?: number;
    readonly at_max_F?: number;
    /** 1: the day of making counts as the first; 0: it does not. Silent documents count as 1, the stricter. */
    readonly day_of_preparation_is?: 0 | 1;
    readonly day_of_opening_is?: 0 | 1;
  };
}
export interface Exposure extends Common {
  readonly kind: 'exposure';
  readonly value: {
    readonly above_C: number;
    readonly max_h: number;
    /** Once any reading is above this, the shorter time holds. */
    readonly if_any_above_C?: number;
    readonly above_F?: number;
    readonly if_any_above_F?: number;
    readonly then_max_h?: number;
  };
}
export interface TimeLimit extends Common {
  readonly kind: 'time_limit';
  readonly value: { readonly max_h: number; readonly start_max_C?: number; readonly never_above_C?: number };
}
export interface SamplingPlan extends Common {
  readonly kind: 'sampling_plan';
  /** n results, at most c of them above m, none above M. `rule` with a mean: the mean is not above m either. */
  readonly value: {
    readonly n: number;
    readonly c: number;
    readonly m: number;
    readonly M: number;
    readonly rule?: string;
  };
}
/** What has no figure to compare: rules, lists, states, keeping of records. Shown, never judged. */
export interface Spoken extends Common {
  readonly kind: 'procedure' | 'list' | 'table' | 'state' | 'threshold' | 'retention' | 'accuracy';
  readonly value: Readonly<Record<string, unknown>>;
}

export type Limit =
  | MostTemperature
  | LeastTemperature
  | CookPoints
  | FreezeTreatment
  | CoolingSteps
  | ShelfLife
  | Exposure
  | TimeLimit
  | SamplingPlan
  | Spoken;

export interface LimitProfile {
  readonly id: string;
  readonly title: string;
  /** What it is and is not binding for. */
  readonly scope: string;
  /** Whom it defers to. */
  readonly deferral: string;
  readonly limits: readonly Limit[];
}

/**
 * Within or outside the limit the house selected; open while time still runs; not shown where what was read allows both: unknown is
 * never within; not judged where there is nothing to compare.
 */
export const limitVerdicts = ['within', 'outside', 'open', 'not-shown', 'not-judged'] as const;
export type Verdict = (typeof limitVerdicts)[number];
