import { useQuery } from '@tanstack/react-query';
import type { BenchEvent, BenchEventBody, Breakdown, WeighBody, Weighing } from '@zabrik/contract';
import {
  type Balance,
  balanceStage,
  effectiveWeighings,
  expectStage,
  type PieceExpectation,
  type PlanPiece,
  type PlanStage,
} from '@zabrik/core';
import { useMemo } from 'react';
import { api } from '../../app/endpoints.ts';
import { useEventLog } from '../../app/eventLog.ts';
import { keep, type Waiting } from '../../app/outbox.ts';
import { breakdownQuery, useHouse } from '../../app/queries.ts';
import { weighingsOf } from '../../app/weighingsOf.ts';

export interface Counted extends Weighing {
  readonly massMg: number;
  readonly piece: PlanPiece;
  /** Which unit of the piece it is, from 0; the first of them when several were weighed together. */
  readonly unit: number;
  /** Kept on this device, not with the server yet. */
  readonly waiting: boolean;
}

type TakeBody = Extract<WeighBody, { kind: 'take' }>;
type Take = Omit<TakeBody, 'kind' | 'at' | 'also'> & Partial<Pick<TakeBody, 'also'>>;
/** An event without its time: it is taken when it is kept. */
type NewEvent = BenchEventBody extends infer E ? (E extends { at: string } ? Omit<E, 'at'> : never) : never;

export interface BenchState {
  readonly breakdown: Breakdown;
  readonly stage: PlanStage;
  readonly all: readonly (Weighing & { readonly waiting: boolean })[];
  readonly counted: readonly Counted[];
  readonly events: readonly BenchEvent[];
  readonly expected: ReadonlyMap<string, PieceExpectation>;
  readonly balance: Balance;
  readonly refused: readonly Waiting[];
  readonly waiting: number;
  /** It was closed here, and the server does not know it yet. */
  readonly closing: boolean;
  /** Each shows at once, and answers whether this device could keep it. */
  readonly takeNew: (take: Take, says: string) => Promise<boolean>;
  /** What a weight stood at before it was put right; undefined for one never put right, or already set back to that. */
  readonly beforeRight: (id: string) => Counted | undefined;
  readonly takeBack: (replaces: string, says: string) => Promise<boolean>;
  readonly happen: (event: NewEvent, says: string) => Promise<boolean>;
}

const KITCHEN_SCALES = [{ id: 'bench', accuracyClass: 'III', intervalMg: 1_000, maxMg: 15_000_000 }] as const;

type Known = Weighing & { readonly waiting: boolean };

const weighings = ({ key, body }: Waiting, by: string): readonly Weighing[] => weighingsOf(key, body as WeighBody, by);
const event = ({ key, body }: Waiting, by: string): readonly BenchEvent[] => [
  { id: key, by, body: body as BenchEventBody },
];

/** The weighing that one put right, as it stood; none where it only set back what had been put right. */
export function priorOf(all: readonly Known[], id: string, stage: PlanStage): Counted | undefined {
  const of = (key: string | null | undefined): Known | undefined => all.find((w) => w.id === key);
  const now = of(id);
  const before = of(now?.replaces);
  const piece = stage.pieces.find((p) => p.id === before?.pieceId);
  if (before === undefined || before.massMg === null || piece === undefined) return undefined;
  const older = of(before.replaces);
  const setBack =
    older !== undefined &&
    older.massMg === now?.massMg &&
    older.pieceId === now?.pieceId &&
    older.destination === now?.destination;
  return setBack ? undefined : { ...before, massMg: before.massMg, piece, unit: 0 };
}

/** One breakdown as it stands on this device: what the server has, and on top what still waits here to be sent. */
export function useBreakdown(breakdownId: string) {
  const query = useQuery(breakdownQuery(breakdownId));
  const { data: house } = useHouse();
  const breakdown = query.data;
  const weighed = useEventLog(breakdownId, api.bench.weigh.id, breakdown?.weighings, weighings);
  const happened = useEventLog(breakdownId, api.bench.event.id, breakdown?.events, event);
  const scales = house?.scales;

  const state = useMemo((): BenchState | undefined => {
    if (breakdown === undefined) return undefined;
    const stage = breakdown.plan.stages.find((s) => s.id === breakdown.stageId);
    if (stage === undefined) return undefined;
    const all = weighed.entries.map((w, i) => ({ ...w, waiting: i >= breakdown.weighings.length }));
    const units = new Map<string, number>();
    const counted = effectiveWeighings(all).flatMap((w): Counted[] => {
      const piece = stage.pieces.find((p) => p.id === w.pieceId);
      if (piece === undefined) return [];
      const unit = units.get(piece.id) ?? 0;
      units.set(piece.id, unit + w.count);
      return [{ ...w, piece, unit }];
    });
    const beliefs = new Map(breakdown.beliefs.map((b) => [b.pieceId, b]));
    const at = (): string => new Date().toISOString();
    const post = (body: WeighBody, says: string): Promise<boolean> =>
      keep(api.bench.weigh, { params: { breakdownId }, body }, { says });
    return {
      breakdown,
      stage,
      all,
      counted,
      events: happened.entries,
      expected: new Map(
        expectStage(stage, breakdown.startMg, all, beliefs, breakdown.animals).map((e) => [e.pieceId, e]),
      ),
      balance: balanceStage(stage, breakdown.startMg, all, scales ?? KITCHEN_SCALES, breakdown.animals),
      refused: weighed.refused,
      // a weight that the server has counts there, and an event here: of each log what the other one does not know
      waiting: weighed.unsent.length + happened.unsent.length,
      closing: weighed.waits(api.bench.close.id),
      takeNew: (take, says) => post({ kind: 'take', also: null, ...take, at: at() }, says),
      beforeRight: (id) => priorOf(all, id, stage),
      takeBack: (replaces, says) => post({ kind: 'undo', replaces, at: at() }, says),
      happen: (event, says) =>
        keep(api.bench.event, { params: { breakdownId }, body: { ...event, at: at() } as BenchEventBody }, { says }),
    };
  }, [breakdown, breakdownId, weighed, happened, scales]);

  return { query, state };
}
