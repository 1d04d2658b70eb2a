import { type Balance, judgeBalance } from '../breakdown/balance.ts';
import type { Destination } from '../breakdown/plan.ts';
import { type ScaleSpec, scaleFor } from '../breakdown/scaleTolerance.ts';
import type { MouldWish } from './moulds.ts';
import type { PieceMeasures } from './pieceProfile.ts';
import type { CutWish, PortionSize } from './planCuts.ts';
import type { RollWish } from './rolls.ts';
import type { SliceWish } from './slices.ts';

/** What a lot is cut or made into: portions by weight, rolls that rest, slices of a block, moulds. */
export const cuttingKinds = ['portions', 'roll', 'slices', 'mould'] as const;
export type CuttingKind = (typeof cuttingKinds)[number];

/** What is wanted of the pieces, with the form they are taken for and the tray their ends go to. */
export interface PortionsSetup extends Omit<CutWish, 'locked' | 'fromMm'> {
  readonly kind: 'portions';
  readonly templateId: string;
  readonly endTo: Destination;
}
export interface RollSetup extends Omit<RollWish, 'massMg' | 'lengthMm' | 'density'> {
  readonly kind: 'roll';
  readonly templateId: string;
  readonly perRoll: number;
}
export interface SlicesSetup extends SliceWish {
  readonly kind: 'slices';
  /** Parts of the block that go different ways. */
  readonly ways: readonly {
    readonly id: string;
    readonly name: string;
    readonly share: number;
    readonly destination: Destination;
  }[];
  readonly endTo: Destination;
}
export interface MouldSetup extends MouldWish {
  readonly kind: 'mould';
  /** The course it is made for. */
  readonly courseId: string;
}
export type CuttingSetup = PortionsSetup | RollSetup | SlicesSetup | MouldSetup;

/** One weight off the board. `line`: a size, 'end', or what the kind makes ('roll', 'slices', 'mould'). */
export interface CutWeighed {
  readonly kind: 'weigh';
  readonly piece: number;
  readonly line: string;
  readonly name: string;
  readonly destination: Destination;
  readonly massMg: number;
  readonly count: number;
  /** What the ruler foretold, and between which marks; null where it was cut by eye. */
  readonly predictedMg: number | null;
  readonly fromMm: number | null;
  readonly toMm: number | null;
  /** The weight this one stands for from now on. */
  readonly replaces: string | null;
}
export type CuttingEventBody =
  | { readonly kind: 'piece'; readonly no: number; readonly measures: PieceMeasures }
  | { readonly kind: 'setup'; readonly setup: CuttingSetup }
  | CutWeighed
  | { readonly kind: 'back'; readonly eventId: string };

export interface CuttingEvent {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly body: CuttingEventBody;
}

export interface CutWeight extends CutWeighed {
  readonly id: string;
  readonly at: string;
  readonly by: string;
}

export interface CuttingState {
  readonly pieces: ReadonlyMap<number, PieceMeasures>;
  readonly setup: CuttingSetup | undefined;
  /** What counts, in the order it was weighed. */
  readonly weights: readonly CutWeight[];
  readonly weighedMg: number;
}

/**
 * Where a cutting stands: the last measures of each piece, the last wish, and the weights that nobody took back or weighed again.
 *
 * Shapes  events: in the order they were made; nothing is ever changed or removed.
 */
export function readCutting(events: readonly CuttingEvent[]): CuttingState {
  const pieces = new Map<number, PieceMeasures>();
  let setup: CuttingSetup | undefined;
  const gone = new Set<string>();
  for (const { body } of events) {
    if (body.kind === 'piece') pieces.set(body.no, body.measures);
    else if (body.kind === 'setup') setup = body.setup;
    else if (body.kind === 'back') gone.add(body.eventId);
    else if (body.replaces !== null) gone.add(body.replaces);
  }
  const weights = events.flatMap(({ id, at, by, body }) =>
    body.kind === 'weigh' && !gone.has(id) ? [{ ...body, id, at, by }] : [],
  );
  return { pieces, setup, weights, weighedMg: weights.reduce((sum, w) => sum + w.massMg, 0) };
}

export interface CuttingLine {
  readonly line: string;
  readonly name: string;
  readonly destination: Destination;
  readonly count: number;
  readonly massMg: number;
}

/** What lies on the trays: the weights of one line and tray together, in the order the first of each came. */
export function cuttingLines(weights: readonly CutWeight[]): readonly CuttingLine[] {
  const lines = new Map<string, CuttingLine>();
  for (const { line, name, destination, count, massMg } of weights) {
    const key = `${line}/${destination}`;
    const before = lines.get(key);
    lines.set(key, {
      line,
      name,
      destination,
      count: (before?.count ?? 0) + count,
      massMg: (before?.massMg ?? 0) + massMg,
    });
  }
  return [...lines.values()];
}

/**
 * What was given away: grams over the target of their size, all portions together. A lighter one does not make up for a heavier one.
 *
 * Units   milligrams.
 */
export const givenAway = (weights: readonly CutWeight[], sizes: readonly PortionSize[]): number =>
  weights.reduce((sum, w) => {
    const size = sizes.find((s) => s.id === w.line);
    return sum + (size === undefined ? 0 : Math.max(0, w.massMg - size.targetMg * w.count));
  }, 0);

/** Whether a portion is lighter or heavier than its size allows; undefined where it is of no size. */
export function offSize(
  weight: Pick<CutWeight, 'line' | 'massMg' | 'count'>,
  sizes: readonly PortionSize[],
): 'light' | 'heavy' | undefined {
  const size = sizes.find((s) => s.id === weight.line);
  if (size === undefined) return undefined;
  const each = weight.massMg / weight.count;
  // half a scale step is not the cook's fault
  if (each < size.targetMg * (1 - size.toleranceShare) - 500) return 'light';
  return each > size.targetMg * (1 + size.toleranceShare) + 500 ? 'heavy' : undefined;
}

/** Usual drip while a piece is cut to weight, as a share: common practice, no source. */
const DRIP = { mean: 0.004, sd: 0.004 };

/**
 * Judges what cutting has not accounted for: start less what was weighed and what goes back uncut.
 *
 * Units   milligrams. `clingMg`: expected to stay on the knife with each portion.
 * Source  the same rule as a stage of a cut plan (balance.ts).
 */
export function judgeCutting(
  startMg: number,
  leftMg: number,
  weights: readonly Pick<CutWeight, 'massMg' | 'count'>[],
  scales: readonly [ScaleSpec, ...ScaleSpec[]],
  clingMg: number,
): Balance {
  const usedMg = Math.max(1, startMg - leftMg);
  const cling = (weights.reduce((sum, w) => sum + w.count, 0) * clingMg) / usedMg;
  return judgeBalance({
    startMg: usedMg,
    startScale: scaleFor(scales, startMg),
    weighed: weights.map(({ massMg }) => ({ massMg, scale: scaleFor(scales, massMg) })),
    drip: { mean: DRIP.mean + cling, sd: DRIP.sd },
    missing: [],
  });
}
