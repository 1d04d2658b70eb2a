/** The floor of a pot or pan, square metres: what lies in one layer needs it. Units: millimetres. */
export const floorM2 = (
  shape:
    | { readonly kind: 'round'; readonly diameterMm: number }
    | { readonly kind: 'long'; readonly lengthMm: number; readonly widthMm: number },
): number => (shape.kind === 'round' ? (Math.PI * shape.diameterMm ** 2) / 4 : shape.lengthMm * shape.widthMm) / 1e6;
