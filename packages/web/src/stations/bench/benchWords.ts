import type { Breakdown } from '@zabrik/contract';
import {
  advisePiece,
  formatMass,
  formatShare,
  type PieceExpectation,
  type PlanPiece,
  shortName,
  Z80,
} from '@zabrik/core';
import type { RibbonBracket } from '../../parts/Ribbon.tsx';
import type { BenchState } from './useBreakdown.ts';

/** Where the main cut should end on the ribbon, and what it has come to so far. */
export function bracketOf({
  stage,
  counted,
  breakdown,
  beliefs: known,
  brought,
  broughtMg,
}: Pick<BenchState, 'stage' | 'counted' | 'breakdown' | 'beliefs' | 'brought' | 'broughtMg'>):
  | RibbonBracket
  | undefined {
  const mains = stage.pieces.filter((p) => p.main);
  const beliefs = mains.flatMap((p) => known.get(p.id) ?? []);
  const mean = beliefs.reduce((sum, b) => sum + b.mean, 0);
  const sd = Math.sqrt(beliefs.reduce((sum, b) => sum + b.sd ** 2, 0));
  if (mean === 0) return undefined;
  const first = counted.findIndex((w) => w.piece.main);
  const before =
    counted.slice(0, first === -1 ? undefined : first).reduce((sum, w) => sum + w.massMg, 0) / breakdown.startMg;
  // what was joined to a main piece is no yield of it
  const joinedMg = brought.reduce((sum, b) => sum + (mains.some((p) => p.id === b.pieceId) ? b.massMg : 0), 0);
  const mainMg = counted.filter((w) => w.piece.main).reduce((sum, w) => sum + w.massMg, 0);
  const soFar = Math.max(0, mainMg - joinedMg) / breakdown.startMg;
  // the ribbon is as long as all that comes on the scale
  const scale = breakdown.startMg / (breakdown.startMg + broughtMg);
  const name = mains.map((p) => shortName(p.name)).join(' and ');
  const records = Math.max(...beliefs.map((b) => b.records));
  const supplier = breakdown.supplierName === null ? undefined : supplierWords(breakdown.supplierName, beliefs);
  const whose = records > 0 ? `yours usually` : 'usually';
  return {
    fromShare: before * scale,
    toShare: (before + mean + Z80 * sd) * scale,
    says: `${name}: ${whose} ${formatShare(mean - Z80 * sd, 0)} to ${formatShare(mean + Z80 * sd, 0)} of the start${soFar > 0 ? ` · so far ${formatShare(soFar)}` : ''}${supplier === undefined ? '' : ` · ${supplier}`}`,
  };
}

/** What is known of this supplier's animals against the others', of the main cut; nothing where there is nothing to say. */
export function supplierWords(
  name: string,
  beliefs: readonly Pick<Breakdown['beliefs'][number], 'supplier'>[],
): string | undefined {
  const known = beliefs.flatMap((b) => b.supplier ?? []);
  const plain = known.find((s) => s.more !== null);
  if (plain !== undefined && plain.more !== null)
    return `${name}: ${formatShare(Math.abs(plain.more), 0)} ${plain.more > 0 ? 'more' : 'less'} of it than from others, ${plain.records} cut`;
  return known.length > 0 && known.every((s) => s.records === 0) ? `the first from ${name}: less sure` : undefined;
}

const short = (piece: PlanPiece): string => shortName(piece.name);

/** "fillet, first side"; "leg 3"; "4 legs" weighed together; the piece alone where there is one of it. */
export function unitName(piece: PlanPiece, unit: number, count = 1, animals = 1, animal: number | null = null): string {
  const of = animal === null ? '' : `, no. ${animal}`;
  if (count > 1) return `${count} × ${short(piece)}${of}`;
  if (count === 0) return `${short(piece)}, more of it${of}`;
  if (piece.accumulates === true) return short(piece);
  if (animals === 1 && piece.units !== undefined) return `${short(piece)}, ${piece.units[unit] ?? 'one more'}`;
  return piece.count * animals > 1 ? `${short(piece)}${animal === null ? ` ${unit + 1}` : of}` : piece.name;
}

/** What to say of a mass that is not what this piece usually weighs; nothing when it is. */
export function adviceWords(
  massMg: number,
  state: Pick<BenchState, 'expected'>,
  piece: PlanPiece,
  count = 1,
): string | undefined {
  const expected = state.expected.get(piece.id);
  // picked bit by bit, one weight says nothing of the whole
  if (expected === undefined || piece.accumulates === true || count === 0) return undefined;
  const advice = advisePiece(massMg, expectationOf(expected, count));
  if (advice.kind === 'usual') return undefined;
  const whose = expected.records > 0 ? 'yours usually do' : 'the handbook expects';
  const hint = advice.kind === 'heavy' ? piece.whenHeavy : piece.whenLight;
  return `${formatMass(advice.byMg)} ${advice.kind === 'heavy' ? 'more' : 'less'} than ${whose}.${hint === undefined ? '' : ` ${hint}`}`;
}

/** What `count` units together should weigh: all that is left when they are all that is left, otherwise as many times one. */
export function expectationOf(e: PieceExpectation, count: number): PieceExpectation {
  if (count <= 1) return e;
  if (count >= e.openCount)
    return {
      ...e,
      nextMg: e.remainingMg,
      low80Mg: e.remainingLow80Mg,
      high80Mg: e.remainingHigh80Mg,
      low95Mg: e.remainingLow95Mg,
      high95Mg: e.remainingHigh95Mg,
    };
  const times = (mass: number): number => mass * count;
  return {
    ...e,
    nextMg: times(e.nextMg),
    low80Mg: times(e.low80Mg),
    high80Mg: times(e.high80Mg),
    low95Mg: times(e.low95Mg),
    high95Mg: times(e.high95Mg),
  };
}
