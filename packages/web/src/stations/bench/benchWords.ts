import { advisePiece, formatMass, formatShare, type PlanPiece } from '@zabrik/core';
import type { RibbonBracket } from '../../parts/Ribbon.tsx';
import type { BenchState } from './useBreakdown.ts';

const Z80 = 1.2815515655446004;

/** Where the main cut should end on the ribbon, and what it has come to so far. */
export function bracketOf({
  stage,
  counted,
  breakdown,
}: Pick<BenchState, 'stage' | 'counted' | 'breakdown'>): RibbonBracket | undefined {
  const mains = stage.pieces.filter((p) => p.main);
  const beliefs = mains.flatMap((p) => breakdown.beliefs.find((b) => b.pieceId === p.id) ?? []);
  const mean = beliefs.reduce((sum, b) => sum + b.mean, 0);
  const sd = Math.sqrt(beliefs.reduce((sum, b) => sum + b.sd ** 2, 0));
  if (mean === 0) return undefined;
  const first = counted.findIndex((w) => w.piece.main);
  const before =
    counted.slice(0, first === -1 ? undefined : first).reduce((sum, w) => sum + w.massMg, 0) / breakdown.startMg;
  const soFar = counted.filter((w) => w.piece.main).reduce((sum, w) => sum + w.massMg, 0) / breakdown.startMg;
  const name = mains.map((p) => p.name.split(',')[0] ?? p.name).join(' and ');
  const records = Math.max(...beliefs.map((b) => b.records));
  const whose = records > 0 ? `yours usually` : 'usually';
  return {
    fromShare: before,
    toShare: before + mean + Z80 * sd,
    says: `${name}: ${whose} ${formatShare(mean - Z80 * sd, 0)} to ${formatShare(mean + Z80 * sd, 0)} of the start${soFar > 0 ? ` · so far ${formatShare(soFar)}` : ''}`,
  };
}

/** "fillet, first side"; the piece alone where there is one of it. */
export const unitName = (piece: PlanPiece, unit: number): string =>
  piece.units.length > 1 ? `${piece.name.split(',')[0]}, ${piece.units[unit] ?? 'one more'}` : piece.name;

/** What to say of a mass that is not what this piece usually weighs; nothing when it is. */
export function adviceWords(massMg: number, state: Pick<BenchState, 'expected'>, piece: PlanPiece): string | undefined {
  const expected = state.expected.get(piece.id);
  if (expected === undefined) return undefined;
  const advice = advisePiece(massMg, expected);
  if (advice.kind === 'usual') return undefined;
  const whose = expected.records > 0 ? 'yours usually do' : 'the handbook expects';
  const hint = advice.kind === 'heavy' ? piece.whenHeavy : piece.whenLight;
  return `${formatMass(advice.byMg)} ${advice.kind === 'heavy' ? 'more' : 'less'} than ${whose}.${hint === undefined ? '' : ` ${hint}`}`;
}
