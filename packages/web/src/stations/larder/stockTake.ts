/** A round through the larder as it is typed and weighed: what was counted, what differs, and what still wants a reason. */
import type { Ask, api, Lot } from '@zabrik/contract';
import { type Part, partOf } from './partOf.ts';

export interface Counted {
  readonly text: string;
  readonly reason: string;
  /** What the book said when it was counted: the difference is held against that. */
  readonly seen: Pick<Lot, 'massMg' | 'pieces'>;
}

export const reasons = [
  'drip',
  'used and not written down',
  'thrown away and not written down',
  'weighed wrong before',
  'put elsewhere',
] as const;

/** What was typed of a lot: a weight, or its pieces where it is pieces; undefined while it cannot be read. */
export function countedOf(text: string, lot: Pick<Lot, 'massMg' | 'pieces'>): Part | undefined {
  if (/^0( ?pc)?$/.test(text.trim())) return { massMg: 0, pieces: 0 };
  try {
    return partOf(text, lot);
  } catch {
    return undefined;
  }
}

export interface Round {
  readonly counted: number;
  readonly differing: number;
  readonly differenceMg: number;
  readonly unexplained: readonly string[];
  readonly unreadable: readonly string[];
}

/** How the round stands: a lot counts as done when its figure can be read; one that differs wants a reason. */
export function roundOf(lots: readonly Lot[], counts: ReadonlyMap<string, Counted>): Round {
  let counted = 0;
  let differing = 0;
  let differenceMg = 0;
  const unexplained: string[] = [];
  const unreadable: string[] = [];
  for (const lot of lots) {
    const typed = counts.get(lot.id);
    if (typed === undefined || typed.text.trim() === '') continue;
    const mg = countedOf(typed.text, typed.seen)?.massMg;
    if (mg === undefined) {
      unreadable.push(lot.id);
      continue;
    }
    counted += 1;
    if (mg === typed.seen.massMg) continue;
    differing += 1;
    differenceMg += mg - typed.seen.massMg;
    if (typed.reason.trim() === '') unexplained.push(lot.id);
  }
  return { counted, differing, differenceMg, unexplained, unreadable };
}

/** The command's lines: only what was counted. */
export const linesOf = (
  lots: readonly Lot[],
  counts: ReadonlyMap<string, Counted>,
): Ask<typeof api.larder.count>['body']['counts'] =>
  lots.flatMap((lot) => {
    const typed = counts.get(lot.id);
    const part = typed === undefined ? undefined : countedOf(typed.text, typed.seen);
    if (typed === undefined || part === undefined) return [];
    const mg = part.massMg;
    return [
      {
        lotId: lot.id,
        countedMg: mg,
        countedPieces: part.pieces,
        seenMg: typed.seen.massMg,
        seenPieces: typed.seen.pieces,
        reason: mg === typed.seen.massMg ? null : typed.reason.trim() || null,
      },
    ];
  });
