import type { PieceProfile } from './pieceProfile.ts';
import { type CutWish, planCuts } from './planCuts.ts';

/** Why a wish cannot be met, and the nearest that can. Masses in milligrams, lengths in millimetres. */
export type WishFault =
  | { readonly code: 'no_sizes' }
  | { readonly code: 'target_above_piece'; readonly sizeId: string; readonly targetMg: number; readonly leftMg: number }
  | { readonly code: 'tolerance_nothing'; readonly sizeId: string; readonly nearestShare: number }
  | { readonly code: 'min_over_max'; readonly sizeId: string; readonly min: number; readonly max: number }
  | { readonly code: 'too_thin' | 'too_thick'; readonly sizeId: string; readonly nearestMm: number }
  | { readonly code: 'nothing_fits'; readonly sizeId: string; readonly nearestTargetMg: number | null };

/**
 * What stands in the way of each size, said before a plan is made; empty when every size can give at least one portion.
 *
 * Keeps   the nearest possible is found by trying: with it alone in the wish, a portion fits.
 */
export function wishFaults(profile: PieceProfile, wish: CutWish): readonly WishFault[] {
  if (wish.sizes.length === 0) return [{ code: 'no_sizes' }];
  const from = Math.round(wish.fromMm ?? 0);
  const leftMg = Math.round(profile.massMg - (profile.upToMg[from] ?? 0));
  return wish.sizes.flatMap((size): WishFault[] => {
    const { id: sizeId, targetMg } = size;
    const bounds = [size.span, size.body].find((b) => b != null && b.min > b.max);
    if (bounds != null) return [{ code: 'min_over_max', sizeId, min: bounds.min, max: bounds.max }];
    if (targetMg * (1 - size.toleranceShare) + wish.clingMg > leftMg)
      return [{ code: 'target_above_piece', sizeId, targetMg, leftMg }];
    const fits = (change: Partial<typeof size>): boolean =>
      planCuts(profile, { ...wish, sizes: [{ ...size, most: null, ...change }] }).portions.length > 0;
    if (fits({})) return [];
    for (const toleranceShare of [0.01, 0.02, 0.03, 0.05, 0.08, 0.12])
      if (toleranceShare > size.toleranceShare && fits({ toleranceShare }))
        return [{ code: 'tolerance_nothing', sizeId, nearestShare: toleranceShare }];
    if (size.body != null && fits({ body: null })) {
      const flesh = profile.thicknessMm.slice(from);
      const [most, least] = [Math.max(...flesh), Math.min(...flesh)];
      const tooThin = size.body.min > most || size.body.max > most;
      return [{ code: tooThin ? 'too_thin' : 'too_thick', sizeId, nearestMm: Math.round(tooThin ? most : least) }];
    }
    for (const part of [0.9, 0.8, 1.1, 0.7, 1.2, 0.6, 1.4, 0.5, 1.6, 0.4, 2])
      if (fits({ targetMg: targetMg * part }))
        return [{ code: 'nothing_fits', sizeId, nearestTargetMg: Math.round((targetMg * part) / 1_000) * 1_000 }];
    return [{ code: 'nothing_fits', sizeId, nearestTargetMg: null }];
  });
}
