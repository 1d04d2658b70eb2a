import type { CutsForWeight, PieceProfile } from '@zabrik/core';

const TOP = 46;
/** How high the ruler itself is. */
export const RULER = 52;
const BELOW = 62;
export const SIDE = 34;
const LARGEST = 250;

/** Where a piece and its ruler stand on the screen, in its units. */
export interface Drawing {
  readonly lengthMm: number;
  /** Of a millimetre along the piece. */
  readonly scale: number;
  readonly width: number;
  readonly height: number;
  /** The line through the middle of the piece, and the top of the ruler. */
  readonly middle: number;
  readonly rulerTop: number;
  readonly x: (mm: number) => number;
  /** Half the piece's width there. */
  readonly edge: (mm: number) => number;
  /** The points of a part of it, as a polygon has them. */
  readonly outline: (from: number, to: number) => string;
}

/** A piece drawn as large as there is room; at true size, `trueScale` units a millimetre, it is as long as it is, and only as high as there is room. */
export function drawingOf(
  profile: PieceProfile,
  width: number,
  height: number,
  trueScale: number | undefined,
): Drawing {
  const { lengthMm } = profile;
  const widest = Math.max(...profile.widthMm, 1);
  const room = Math.max(110, Math.min(LARGEST, height - TOP - RULER - BELOW - 40));
  const scale = trueScale ?? Math.min((Math.max(320, width) - 2 * SIDE) / lengthMm, room / widest);
  // at true size the length is what counts: the piece is only as high as there is room
  const across = trueScale === undefined ? scale : Math.min(scale, room / widest);
  const bodyPx = widest * across;
  const drawn = lengthMm * scale + 2 * SIDE;
  const left = trueScale === undefined ? Math.max(SIDE, (width - lengthMm * scale) / 2) : SIDE;
  const middle = TOP + bodyPx / 2;
  const rulerTop = TOP + bodyPx + 26;
  const x = (mm: number): number => left + mm * scale;
  const edge = (mm: number): number => ((profile.widthMm[Math.round(mm)] ?? 0) * across) / 2;
  const outline = (from: number, to: number): string => {
    const step = Math.max(1, Math.round((to - from) / 40));
    const places: number[] = [];
    for (let mm = from; mm < to; mm += step) places.push(mm);
    places.push(to);
    const upper = places.map((mm) => `${x(mm).toFixed(1)},${(middle - edge(mm)).toFixed(1)}`);
    const lower = [...places].reverse().map((mm) => `${x(mm).toFixed(1)},${(middle + edge(mm)).toFixed(1)}`);
    return [...upper, ...lower].join(' ');
  };
  return { lengthMm, scale, width: drawn, height: rulerTop + RULER + BELOW, middle, rulerTop, x, edge, outline };
}

/** A part of the piece that is cut next: a portion, or an end. */
export type Part = { readonly kind: 'portion' | 'end'; readonly sizeId: string | undefined } & Pick<
  CutsForWeight['portions'][number],
  'fromMm' | 'toMm' | 'massMg' | 'sdMg' | 'folded'
>;

/** Portions and ends of a plan, from the thick end on. */
export const partsOf = ({ portions, ends }: CutsForWeight): readonly Part[] =>
  [
    ...portions.map((p) => ({ ...p, kind: 'portion' as const })),
    ...ends.map((e) => ({ ...e, kind: 'end' as const, sizeId: undefined, sdMg: 0, folded: false })),
  ].sort((a, b) => a.fromMm - b.fromMm);
