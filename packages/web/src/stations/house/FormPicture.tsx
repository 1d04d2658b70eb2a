import type { Mould } from '@zabrik/core';

const BOX = 44;

/** A pot or a mould cut through, in its own proportions; an empty frame until its size is said. */
export function FormPicture({
  pot,
  mould,
}: {
  /** Across and deep, any one unit; NaN while it is not said. */
  readonly pot?: readonly [across: number, deep: number];
  readonly mould?: Mould | undefined;
}) {
  const round = mould?.kind === 'dome' || mould?.kind === 'gutter';
  const top = mould === undefined ? (pot?.[0] ?? Number.NaN) : 'topMm' in mould ? mould.topMm : mould.diameterMm;
  const bottom = mould !== undefined && 'bottomMm' in mould ? mould.bottomMm : top;
  const deep = mould === undefined ? (pot?.[1] ?? Number.NaN) : 'heightMm' in mould ? mould.heightMm : top / 2;
  const known = top > 0 && deep > 0;
  const k = known ? (BOX - 6) / Math.max(top, deep) : 0;
  const [x, w, b, h] = [BOX / 2 - (top * k) / 2, top * k, bottom * k, deep * k];
  const y = BOX - 3 - h;
  return (
    <svg viewBox={`0 0 ${BOX} ${BOX}`} className="mt-[22px] size-11 shrink-0" aria-hidden="true">
      {!known ? (
        <rect
          x="3"
          y="8"
          width={BOX - 6}
          height={BOX - 11}
          rx="3"
          className="fill-none stroke-line-strong"
          strokeDasharray="3 3"
        />
      ) : round ? (
        <path d={`M ${x} ${y} a ${w / 2} ${w / 2} 0 0 0 ${w} 0`} className="fill-sheet stroke-ink" strokeWidth="1.5" />
      ) : (
        <path
          d={`M ${x} ${y} L ${BOX / 2 - b / 2} ${y + h} L ${BOX / 2 + b / 2} ${y + h} L ${x + w} ${y}`}
          className="fill-sheet stroke-ink"
          strokeWidth="1.5"
        />
      )}
    </svg>
  );
}
