import { mustBeFigures, Refusal } from '../refusal.ts';

/** A mould by its inside measures; millimetres. */
export type Mould =
  | {
      readonly kind: 'terrine';
      readonly lengthMm: number;
      readonly topMm: number;
      readonly bottomMm: number;
      readonly heightMm: number;
    }
  | { readonly kind: 'ring'; readonly diameterMm: number; readonly heightMm: number }
  | { readonly kind: 'dariole'; readonly topMm: number; readonly bottomMm: number; readonly heightMm: number }
  | { readonly kind: 'dome'; readonly diameterMm: number }
  | { readonly kind: 'gutter'; readonly lengthMm: number; readonly diameterMm: number };

/**
 * What a mould holds to the rim, millilitres; or what is left inside a lining of a thickness.
 *
 * Source  prism, cylinder, frustum, hemisphere and half cylinder, any geometry text. A lining covers bottom and sides, not the top.
 */
export function mouldMl(mould: Mould, liningMm = 0): number {
  const inner = (mm: number): number => Math.max(0, mm - 2 * liningMm);
  const deep = (mm: number): number => Math.max(0, mm - liningMm);
  switch (mould.kind) {
    case 'terrine':
      return (
        (inner(mould.lengthMm) * ((inner(mould.topMm) + inner(mould.bottomMm)) / 2) * deep(mould.heightMm)) / 1_000
      );
    case 'ring':
      return ((Math.PI / 4) * inner(mould.diameterMm) ** 2 * deep(mould.heightMm)) / 1_000;
    case 'dariole': {
      const [r, s] = [inner(mould.topMm) / 2, inner(mould.bottomMm) / 2];
      return ((Math.PI / 3) * deep(mould.heightMm) * (r * r + r * s + s * s)) / 1_000;
    }
    case 'dome':
      return ((2 / 3) * Math.PI * (inner(mould.diameterMm) / 2) ** 3) / 1_000;
    case 'gutter':
      return ((Math.PI / 8) * inner(mould.diameterMm) ** 2 * inner(mould.lengthMm)) / 1_000;
  }
}

export interface MouldWish {
  readonly mould: Mould;
  readonly moulds: number;
  /** Of the mix as it is filled in; grams per millilitre. */
  readonly density: number;
  /** How full: 1 to the rim; a mix that swells wants room. */
  readonly fillShare: number;
  /** A lining of another mix, millimetres thick; none. */
  readonly liningMm: number;
  readonly liningDensity: number;
  /** Lost in the oven and when it is turned out. */
  readonly cookLossShare: number;
  readonly courses: readonly { readonly id: string; readonly name: string; readonly grams: number }[];
}

export interface MouldPlan {
  readonly mouldMl: number;
  readonly liningMg: number;
  readonly heartMg: number;
  readonly filledMg: number;
  readonly servedMg: number;
  /** By course: how many covers all moulds give, and how thick a slice that is where it is sliced. */
  readonly courses: readonly {
    readonly id: string;
    readonly covers: number;
    readonly perMould: number;
    readonly sliceMm: number | null;
  }[];
}

/**
 * What a mould takes and how many it serves.
 *
 * Units   milligrams; grams a cover.
 * Keeps   lining and heart add up to what is filled in.
 * Errors  `not_a_length` when nothing fits inside; `not_a_figure` for a cover of nothing, or a density or loss that is no number.
 */
export function planMould(wish: MouldWish): MouldPlan {
  const { density, liningDensity, cookLossShare, fillShare } = wish;
  mustBeFigures({ density, liningDensity, fillShare, moulds: wish.moulds, liningMm: wish.liningMm, cookLossShare });
  mustBeFigures(Object.fromEntries(wish.courses.map((c) => [c.id, c.grams])), 0);
  if (cookLossShare < 0 || cookLossShare >= 1) throw new Refusal('not_a_figure', { cookLossShare });
  const wholeMl = mouldMl(wish.mould) * fillShare;
  if (!(wholeMl > 0)) throw new Refusal('not_a_length', { lengthMm: 0 });
  const heartMl = wish.liningMm > 0 ? Math.min(wholeMl, mouldMl(wish.mould, wish.liningMm) * wish.fillShare) : wholeMl;
  const moulds = Math.max(1, Math.round(wish.moulds));
  const liningMg = (wholeMl - heartMl) * wish.liningDensity * 1_000 * moulds;
  const heartMg = heartMl * wish.density * 1_000 * moulds;
  const filledMg = liningMg + heartMg;
  const servedMg = filledMg * (1 - wish.cookLossShare);
  const { mould } = wish;
  const length = mould.kind === 'terrine' || mould.kind === 'gutter' ? mould.lengthMm : null;
  return {
    mouldMl: mouldMl(mould),
    liningMg,
    heartMg,
    filledMg,
    servedMg,
    courses: wish.courses.map(({ id, grams }) => {
      // a slice is not shared between two moulds
      const perMould = Math.floor(servedMg / moulds / (grams * 1_000) + 1e-9);
      return {
        id,
        perMould,
        covers: perMould * moulds,
        sliceMm: length === null || perMould === 0 ? null : length / perMould,
      };
    }),
  };
}

/** Mass a mould or moulds must be made for so many covers of a course. */
export function mouldsFor(wish: Omit<MouldWish, 'moulds'>, courseId: string, covers: number): number | null {
  const one = planMould({ ...wish, moulds: 1 }).courses.find((c) => c.id === courseId);
  return one === undefined || one.perMould === 0 ? null : Math.ceil(covers / one.perMould);
}

export interface CaseWish {
  readonly piece: { readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number };
  readonly sheet: { readonly lengthMm: number; readonly widthMm: number };
  /** Pressed together all round. */
  readonly sealMm: number;
}

export interface CasePlan {
  /** Bottom: the piece and the seal. Lid: over the sides as well. */
  readonly bottomMm: readonly [number, number];
  readonly lidMm: readonly [number, number];
  /** Sheets for bottom and lid, the piece whole. */
  readonly sheets: number;
  /** Into how many the piece is cut across so that a lid fits a sheet; null when it never does. */
  readonly pieces: number | null;
  /** The longest piece of this width and height that one sheet covers. */
  readonly longestMm: number;
}

/**
 * A pastry case for a piece, or the piece for a pastry sheet: where the sheet is too small the piece is cut across.
 *
 * Units   millimetres. The sheet may lie either way.
 */
export function planCase({ piece, sheet, sealMm }: CaseWish): CasePlan {
  const bottomMm = [piece.lengthMm + 2 * sealMm, piece.widthMm + 2 * sealMm] as const;
  const lidAcross = piece.widthMm + 2 * piece.heightMm + 2 * sealMm;
  const around = 2 * piece.heightMm + 2 * sealMm;
  const lidMm = [piece.lengthMm + around, lidAcross] as const;
  const lengths = [
    [sheet.lengthMm, sheet.widthMm],
    [sheet.widthMm, sheet.lengthMm],
  ].map(([long = 0, wide = 0]) => (wide >= lidAcross ? long - around : 0));
  const longestMm = Math.max(0, ...lengths);
  const pieces = longestMm <= 0 ? null : Math.ceil(piece.lengthMm / longestMm - 1e-9);
  const fitsOne = (w: number, l: number): boolean =>
    (sheet.lengthMm >= l && sheet.widthMm >= w) || (sheet.lengthMm >= w && sheet.widthMm >= l);
  // both from one sheet when they lie side by side on it
  const together = pieces === 1 && fitsOne(bottomMm[1] + lidMm[1], Math.max(bottomMm[0], lidMm[0]));
  return { bottomMm, lidMm, sheets: pieces === null ? 0 : together ? 1 : 2 * pieces, pieces, longestMm };
}
