/** What a trace says, worked out from its movements: rows of both trees, and where the grams are now. */
import type { TracedLotHead } from '@zabrik/contract';
import { type Destination, type TracedLot, type TracedMovement, traceDown, traceUp, type WayOut } from '@zabrik/core';

export interface TraceRow {
  readonly lot: TracedLotHead;
  readonly traced: TracedLot;
  /** How far in it stands under the lot it hangs on. */
  readonly indent: number;
  /** Lots on the way beside the one it hangs on. */
  readonly also: readonly string[];
}

export interface WhereNow {
  readonly says: string;
  readonly destination: Destination;
  readonly massMg: number;
}

/** Hangs every lot under the first of those it comes through, children in the order they were made. */
export function treeRows(
  rootId: string,
  traced: readonly TracedLot[],
  lots: ReadonlyMap<string, TracedLotHead>,
): readonly TraceRow[] {
  const under = new Map<string, TracedLot[]>();
  const depthOf = new Map(traced.map((t) => [t.lotId, t.depth]));
  for (const t of traced) {
    // the nearest of those it comes through, so that it stands as deep as the way to it is long
    const parent = t.via.find((v) => depthOf.get(v) === t.depth - 1) ?? t.via[0];
    if (parent === undefined) continue;
    const siblings = under.get(parent) ?? [];
    siblings.push(t);
    under.set(parent, siblings);
  }
  const rows: TraceRow[] = [];
  const walk = (id: string, indent: number): void => {
    for (const t of under.get(id) ?? []) {
      const lot = lots.get(t.lotId);
      if (lot === undefined) continue;
      rows.push({
        lot,
        traced: t,
        indent,
        also: t.via.filter((v) => v !== id).flatMap((v) => lots.get(v)?.code ?? []),
      });
      walk(t.lotId, indent + 1);
    }
  };
  walk(rootId, 0);
  return rows;
}

const outNames: Readonly<Record<string, readonly [string, Destination]>> = {
  served: ['served', 'portion'],
  staff: ['eaten by the staff', 'staff'],
  waste: ['thrown away', 'waste'],
  loss: ['drip and steam', 'fat'],
  supplier: ['sent back', 'waste'],
  count: ['missing at a stock-take', 'fat'],
};
/** "thrown away, gills": the reason of a cut names its plan and piece, of which only the piece says something here. */
export function outName({ sink, reason }: Pick<WayOut, 'sink' | 'reason'>): string {
  const name = outNames[sink]?.[0] ?? sink;
  const why = reason?.split('/').at(-1)?.replaceAll('-', ' ') ?? '';
  if (why === '') return name;
  return sink === 'loss' ? why : `${name}, ${why}`;
}

/** The lot's own grams: how many are still in the house, and how the others left it. */
export function whereNow(lots: readonly TracedLot[], waysOut: readonly WayOut[]): readonly WhereNow[] {
  const onHand = lots.reduce((sum, l) => sum + (l.madeMg > 0 ? (l.onHandMg * l.partMg) / l.madeMg : 0), 0);
  const out = new Map<string, number>();
  for (const w of waysOut) out.set(w.sink, (out.get(w.sink) ?? 0) + w.partMg);
  const parts: WhereNow[] = [
    { says: 'still in the house', destination: 'larder', massMg: Math.round(onHand) },
    ...[...out].map(([sink, massMg]): WhereNow => {
      const [says, destination] = outNames[sink] ?? [sink, 'waste'];
      return { says, destination, massMg: Math.round(massMg) };
    }),
  ];
  return parts.filter((p) => p.massMg > 0);
}

export interface TraceView {
  readonly root: TracedLotHead;
  readonly up: readonly TraceRow[];
  readonly down: readonly TraceRow[];
  readonly waysOut: readonly WayOut[];
  readonly now: readonly WhereNow[];
}

export function viewOf(
  lotId: string,
  heads: readonly TracedLotHead[],
  movements: readonly TracedMovement[],
): TraceView | undefined {
  const lots = new Map(heads.map((l) => [l.id, l]));
  const root = lots.get(lotId);
  if (root === undefined) return undefined;
  const down = traceDown(lotId, movements);
  return {
    root,
    up: treeRows(lotId, traceUp(lotId, movements).slice(1), lots),
    down: treeRows(lotId, down.lots.slice(1), lots),
    waysOut: down.waysOut,
    now: whereNow(down.lots, down.waysOut),
  };
}
