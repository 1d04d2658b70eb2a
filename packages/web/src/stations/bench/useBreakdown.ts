import { useQuery } from '@tanstack/react-query';
import type { BenchEvent, BenchEventBody, Breakdown, WeighBody, Weighing } from '@zabrik/contract';
import {
  asPlanned,
  type Balance,
  type Brought,
  balanceStage,
  beliefAsFound,
  broughtIn,
  broughtTo,
  effectiveWeighings,
  expectStage,
  type Found,
  foundAfter,
  foundDespite,
  type PieceExpectation,
  type PlanPiece,
  type PlanStage,
  stageAsFound,
} from '@zabrik/core';
import { useMemo } from 'react';
import { api } from '../../app/endpoints.ts';
import { useEventLog } from '../../app/eventLog.ts';
import { keep, type Waiting } from '../../app/outbox.ts';
import { breakdownQuery, catalogueQuery, useHouse } from '../../app/queries.ts';
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
  /** As it lies there; `planned`: as the plan has it. */
  readonly stage: PlanStage;
  readonly planned: PlanStage;
  readonly found: Found;
  /** What is believed of each piece's share, of what lies there. */
  readonly beliefs: ReadonlyMap<string, Breakdown['beliefs'][number]>;
  readonly all: readonly (Weighing & { readonly waiting: boolean })[];
  readonly counted: readonly Counted[];
  readonly events: readonly BenchEvent[];
  readonly expected: ReadonlyMap<string, PieceExpectation>;
  readonly balance: Balance;
  /** What was brought to pieces and is weighed with them. */
  readonly brought: readonly Brought[];
  readonly broughtMg: number;
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

/** What is not in every animal is asked for all the same where this house has found it in most of them. */
function askedFor(stage: PlanStage, beliefs: Breakdown['beliefs']): PlanStage {
  const records = new Map(beliefs.map((b) => [b.pieceId, b.records]));
  const most = Math.max(...records.values());
  const pieces = stage.pieces.map((piece) => {
    const { occasional, ...rest } = piece;
    return occasional === true && most > 0 && (records.get(piece.id) ?? 0) > most / 2 ? rest : piece;
  });
  return { ...stage, pieces };
}

const foundNext = (found: Found, { body }: BenchEvent): Found =>
  body.kind === 'came-without' || body.kind === 'other-piece' ? foundAfter(found, body) : found;

/** Units weighed of each piece. */
function unitsWeighed(weighings: readonly Weighing[]): ReadonlyMap<string, number> {
  const units = new Map<string, number>();
  for (const { pieceId, count } of effectiveWeighings(weighings))
    if (pieceId !== null) units.set(pieceId, (units.get(pieceId) ?? 0) + count);
  return units;
}

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
  // asked for only where a piece stands there that the plan does not know: the bench opens without the whole catalogue
  const { data: catalogue } = useQuery({
    ...catalogueQuery,
    enabled: happened.entries.some((e) => e.body.kind === 'other-piece'),
  });
  const categories = catalogue?.categories;
  const rules = useMemo(() => {
    const known = new Map(categories?.map((c) => [c.id, c]));
    return (category: string) => ({
      edible: known.get(category)?.edible ?? false,
      refused: known.get(category)?.refused ?? [],
    });
  }, [categories]);

  const state = useMemo((): BenchState | undefined => {
    if (breakdown === undefined) return undefined;
    const planned = breakdown.plan.stages.find((s) => s.id === breakdown.stageId);
    if (planned === undefined) return undefined;
    const { animals } = breakdown;
    const found = foundDespite(
      happened.entries.reduce(foundNext, asPlanned),
      planned,
      animals,
      unitsWeighed(weighed.entries),
    );
    const stage = askedFor(stageAsFound(planned, found, animals, rules), breakdown.beliefs);
    const all = weighed.entries.map((w, i) => ({ ...w, waiting: i >= breakdown.weighings.length }));
    const units = new Map<string, number>();
    const counted = effectiveWeighings(all).flatMap((w): Counted[] => {
      const piece = stage.pieces.find((p) => p.id === w.pieceId);
      if (piece === undefined) return [];
      const unit = units.get(piece.id) ?? 0;
      units.set(piece.id, unit + w.count);
      return [{ ...w, piece, unit }];
    });
    // the server believes by what it knew: what was said here since changes every share
    const beliefs = new Map(
      breakdown.beliefs.flatMap((b) => {
        const belief = beliefAsFound(planned, b, b.pieceId, breakdown.found, found, animals);
        return belief === undefined ? [] : [[b.pieceId, belief] as const];
      }),
    );
    const brought = broughtIn(happened.entries);
    const broughtMg = brought.reduce((sum, b) => sum + b.massMg, 0);
    const others = new Set(found.others.map((o) => o.id));
    const at = (): string => new Date().toISOString();
    const post = (body: WeighBody, says: string): Promise<boolean> =>
      keep(api.bench.weigh, { params: { breakdownId }, body }, { says });
    return {
      breakdown,
      stage,
      all,
      counted,
      events: happened.entries,
      found,
      planned,
      beliefs,
      expected: new Map(
        expectStage(stage, breakdown.startMg, all, beliefs, animals, broughtTo(brought))
          .filter((e) => !others.has(e.pieceId))
          .map((e) => [e.pieceId, e]),
      ),
      brought,
      broughtMg,
      balance: balanceStage(stage, breakdown.startMg, all, scales ?? KITCHEN_SCALES, animals, broughtMg),
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
  }, [breakdown, breakdownId, weighed, happened, scales, rules]);

  return { query, state };
}
