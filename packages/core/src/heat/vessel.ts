/** What stands on the stove or in the chiller, as a body with a bottom, a side and an open top. */

/** Inside measures in millimetres. Round: a pot or a pan; long: a tray, a gastronorm, a terrine. */
export type VesselShape =
  | { readonly kind: 'round'; readonly diameterMm: number; readonly heightMm: number }
  | { readonly kind: 'long'; readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number };

/** Floor of the vessel, m². The surface of what is in it is the same: walls are taken as upright. */
export const floorOf = (v: VesselShape): number =>
  v.kind === 'round' ? (Math.PI / 4) * (v.diameterMm / 1_000) ** 2 : (v.lengthMm * v.widthMm) / 1e6;

const rimOf = (v: VesselShape): number =>
  v.kind === 'round' ? (Math.PI * v.diameterMm) / 1_000 : (2 * (v.lengthMm + v.widthMm)) / 1_000;

/** How high so many litres stand, millimetres. @example 8 litres in a pan 28 cm wide -> 130 mm */
export const levelOf = (v: VesselShape, litres: number): number => litres / floorOf(v);

/** Litres that stand so high. */
export const litresAt = (v: VesselShape, levelMm: number): number => levelMm * floorOf(v);

/** Litres to the rim. */
export const brimOf = (v: VesselShape): number => litresAt(v, v.heightMm);

/** Faces of what is in it, m². */
export const facesOf = (v: VesselShape, litres: number): { top: number; side: number; bottom: number } => {
  const floor = floorOf(v);
  return { top: floor, bottom: floor, side: (rimOf(v) * levelOf(v, litres)) / 1_000 };
};
