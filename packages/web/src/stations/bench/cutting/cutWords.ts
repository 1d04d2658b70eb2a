/** The ruler's words. */
import {
  type CutsForWeight,
  formatCount,
  formatMass,
  type PortionSize,
  relativeCookTime,
  type WishFault,
} from '@zabrik/core';

/** Centimetres with one decimal, as a cook reads a ruler. */
export const cm = (mm: number): string => formatCount(mm / 10, 1);
export const percentWords = (share: number): string => `${Math.round(share * 1_000) / 10} %`;

const named = (sizes: readonly PortionSize[], id: string): string => sizes.find((s) => s.id === id)?.name ?? id;

/** "4 × 160 g + 2 × 90 g", in the order of the sizes. */
export function mixWords(plan: Pick<CutsForWeight, 'portions'>, sizes: readonly PortionSize[]): string {
  const counted = sizes.flatMap((size) => {
    const own = plan.portions.filter((p) => p.sizeId === size.id);
    if (own.length === 0) return [];
    const mean = own.reduce((sum, p) => sum + p.massMg, 0) / own.length;
    // cut alike with nothing left, they are not of the size asked for: say what they are
    const off = Math.abs(mean / size.targetMg - 1) > size.toleranceShare;
    return [`${own.length} × ${formatMass(off ? Math.round(mean / 1_000) * 1_000 : size.targetMg)}`];
  });
  return counted.length === 0 ? 'no portion' : counted.join(' + ');
}

export function endWords(
  plan: Pick<CutsForWeight, 'ends' | 'endMg' | 'giveAwayMg'>,
  ends: readonly [string, string],
): string {
  const left =
    plan.ends.length === 0
      ? 'nothing left'
      : plan.ends.length === 1
        ? `${formatMass(Math.round(plan.endMg / 1_000) * 1_000)} ${ends[1]} left`
        : `${formatMass(Math.round(plan.endMg / 1_000) * 1_000)} left in ${plan.ends.length} pieces`;
  return `${left}, ${formatMass(Math.round(plan.giveAwayMg / 1_000) * 1_000)} over target`;
}

/** Thickness of each portion, and how unlike they will cook. */
export function thicknessWords(plan: Pick<CutsForWeight, 'portions'>, acrossIsThickness: boolean): string | undefined {
  const thick = plan.portions.map((p) => (acrossIsThickness ? p.toMm - p.fromMm : p.bodyMm));
  if (thick.length === 0) return undefined;
  const [most, least] = [Math.max(...thick), Math.min(...thick)];
  const times = relativeCookTime(most, least);
  const list = `${thick.map((t) => Math.round(t)).join(', ')} mm thick`;
  return times < 1.25 ? list : `${list}; the thickest takes about ${formatCount(times, 1)} × as long`;
}

/** Why a wish cannot be met, and the nearest that can. */
export function faultWords(fault: WishFault, sizes: readonly PortionSize[]): string {
  switch (fault.code) {
    case 'no_sizes':
      return 'No size is asked for. Say what a portion should weigh.';
    case 'target_above_piece':
      return `${named(sizes, fault.sizeId)}: ${formatMass(fault.targetMg)} is more than the ${formatMass(fault.leftMg)} lying here. Nearest: one portion of all of it.`;
    case 'tolerance_nothing':
      return `${named(sizes, fault.sizeId)}: no cut on the millimetre comes so near. Nearest: within ${percentWords(fault.nearestShare)}.`;
    case 'min_over_max':
      return `${named(sizes, fault.sizeId)}: at least ${fault.min} mm and at most ${fault.max} mm cannot both be. Turn them round.`;
    case 'too_thin':
      return `${named(sizes, fault.sizeId)}: the piece is nowhere so thick. Nearest: ${fault.nearestMm} mm.`;
    case 'too_thick':
      return `${named(sizes, fault.sizeId)}: the piece is nowhere so thin. Nearest: ${fault.nearestMm} mm.`;
    case 'nothing_fits':
      return fault.nearestTargetMg === null
        ? `${named(sizes, fault.sizeId)}: no portion of it fits what is asked here. Widen its place or its lengths.`
        : `${named(sizes, fault.sizeId)}: no portion fits where it may come from. Nearest: ${formatMass(fault.nearestTargetMg)}.`;
  }
}
