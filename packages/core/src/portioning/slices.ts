import { mustBeFigures, Refusal } from '../refusal.ts';

/** A squared block, and how it is to be sliced. Millimetres, degrees, grams per millilitre. */
export interface SliceWish {
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly sliceMm: number;
  /** Of the knife from straight down: a slanted slice is larger. */
  readonly angleDeg: number;
  /** What the blade takes between two slices. */
  readonly bladeMm: number;
  /** Width of a row when the block is first cut lengthwise; left out, the whole width. */
  readonly rowMm?: number | null | undefined;
  readonly density: number;
  /** The true mass of the block where it was weighed: it replaces the one from its size. */
  readonly massMg?: number | null | undefined;
}

export interface SlicePlan {
  readonly rows: number;
  readonly perRow: number;
  readonly count: number;
  readonly sliceMg: number;
  /** A slice as it lies: across the block, and along the slant. */
  readonly faceMm: readonly [number, number];
  readonly slicesMg: number;
  /** Two wedges of every row, what is too short for a slice, and the strip beside the rows. */
  readonly wedgesMg: number;
  readonly restMg: number;
  readonly stripMg: number;
  readonly lostMg: number;
  /** Slice thickness that would leave no rest, nearest to the one asked for. */
  readonly evenMm: number;
}

/**
 * How many slices a block gives, what each weighs, and what is left.
 *
 * Slices are measured square to the cut. Slanted, each takes thickness / cos(angle) of the length, and the two ends are wedges of
 * height x tan(angle).
 * Keeps   slices, wedges, rest, strip and what the blade takes add up to the block.
 * Errors  `not_a_length` for a block or slice of no size; `not_a_figure` for the rest that is none.
 */
export function planSlices(wish: SliceWish): SlicePlan {
  const { lengthMm, widthMm, heightMm, sliceMm, angleDeg, bladeMm, density } = wish;
  for (const mm of [lengthMm, widthMm, heightMm, sliceMm])
    if (!(mm > 0)) throw new Refusal('not_a_length', { lengthMm: mm });
  mustBeFigures({ angleDeg, bladeMm, density, massMg: wish.massMg ?? 0, rowMm: wish.rowMm ?? 0 });
  if (bladeMm < 0 || density <= 0) throw new Refusal('not_a_figure', { bladeMm, density });
  const angle = (Math.min(Math.abs(angleDeg), 80) * Math.PI) / 180;
  const volume = lengthMm * widthMm * heightMm;
  const mgPerMm3 = wish.massMg != null && wish.massMg > 0 ? wish.massMg / volume : density;
  const rowMm = wish.rowMm != null && wish.rowMm > 0 ? Math.min(wish.rowMm, widthMm) : widthMm;
  const rows = Math.max(1, Math.floor((widthMm + bladeMm) / (rowMm + bladeMm) + 1e-9));
  const wedge = heightMm * Math.tan(angle);
  const along = (mm: number): number => mm / Math.cos(angle);
  const usable = lengthMm - wedge;
  const pitch = along(sliceMm + bladeMm);
  const perRow = usable <= 0 ? 0 : Math.max(0, Math.floor((usable + along(bladeMm)) / pitch + 1e-9));
  const perMm = heightMm * rowMm * mgPerMm3;
  const sliceMg = along(sliceMm) * perMm;
  const taken = perRow * along(sliceMm) + Math.max(0, perRow - 1) * along(bladeMm);
  const rest = Math.max(0, usable - taken);
  const wedgeMg = usable <= 0 ? lengthMm * perMm : wedge * perMm;
  const strip = Math.max(0, widthMm - rows * rowMm - (rows - 1) * bladeMm);
  const bladeRows = Math.min(widthMm - rows * rowMm - strip, Math.max(0, (rows - 1) * bladeMm));
  const slicesMg = rows * perRow * sliceMg;
  return {
    rows,
    perRow,
    count: rows * perRow,
    sliceMg,
    faceMm: [rowMm, heightMm / Math.cos(angle)],
    slicesMg,
    wedgesMg: rows * wedgeMg,
    restMg: rows * rest * perMm,
    stripMg: strip * lengthMm * heightMm * mgPerMm3,
    lostMg: rows * Math.max(0, perRow - 1) * along(bladeMm) * perMm + bladeRows * lengthMm * heightMm * mgPerMm3,
    evenMm:
      usable <= 0
        ? sliceMm
        : ((usable + along(bladeMm)) / Math.max(1, Math.round((usable + along(bladeMm)) / pitch)) - along(bladeMm)) *
          Math.cos(angle),
  };
}

/** Parts of a block that go different ways: the first so many slices raw, the next to be seared, the rest to be cured. */
export function shareSlices(
  count: number,
  ways: readonly { readonly id: string; readonly share: number }[],
): readonly { readonly id: string; readonly from: number; readonly count: number }[] {
  const all = ways.reduce((sum, w) => sum + Math.max(0, w.share), 0);
  let [from, shareSoFar] = [0, 0];
  return ways.map(({ id, share }) => {
    shareSoFar += Math.max(0, share);
    const until = all > 0 ? Math.round((count * shareSoFar) / all) : 0;
    const part = { id, from, count: until - from };
    from = until;
    return part;
  });
}
