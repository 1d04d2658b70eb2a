/**
 * How much longer a portion takes than another, by its thickness alone: heat reaches the middle of a slab in a time that grows with
 * the square of its thickness. A hint; the core temperature decides.
 *
 * Source  Fourier number Fo = a t / (L/2)² at equal temperature in the middle, Carslaw & Jaeger, Conduction of Heat in Solids (1959).
 * @example 30 mm against 20 mm -> 2.25
 */
export const relativeCookTime = (bodyMm: number, referenceMm: number): number =>
  referenceMm > 0 ? (bodyMm / referenceMm) ** 2 : 1;
