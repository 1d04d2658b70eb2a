/** Food that does not move inside: heat must come through it. */

export type Shape = 'slab' | 'cylinder' | 'sphere';

/** Bessel functions of the first kind, order nought and one, by their series; good to 1e-12 for arguments up to 3. */
const bessel = (order: 0 | 1, x: number): number => {
  let term = order === 0 ? 1 : x / 2;
  let sum = term;
  for (let m = 1; m < 40; m += 1) {
    term *= -((x / 2) ** 2) / (m * (m + order));
    sum += term;
    if (Math.abs(term) < 1e-16) break;
  }
  return sum;
};

/** How each body's first root is written: f(root) = Biot, rising from nought to infinity between nought and `top`. */
const bodies = {
  slab: { top: Math.PI / 2, f: (z: number) => z * Math.tan(z) },
  cylinder: { top: 2.404_825_557_695_773, f: (z: number) => (z * bessel(1, z)) / bessel(0, z) },
  sphere: { top: Math.PI, f: (z: number) => 1 - z / Math.tan(z) },
} as const;

/**
 * First root of the body's equation and the constant of its centre.
 *
 * Units   biot: h L / k, L half the thickness of a slab, the radius of the others.
 * Source  one-term solutions of transient conduction (Heisler), any heat-transfer text: slab z tan z = Bi, cylinder
 *         z J1(z)/J0(z) = Bi, sphere 1 - z cot z = Bi.
 * @example slab, Bi 1 -> root 0.8603, constant 1.1191
 */
export function firstTerm(shape: Shape, biot: number): { readonly root: number; readonly constant: number } {
  const { top, f } = bodies[shape];
  let low = 1e-9;
  let high = top - 1e-12;
  for (let i = 0; i < 80; i += 1) {
    const middle = (low + high) / 2;
    if (f(middle) < biot) low = middle;
    else high = middle;
  }
  const z = (low + high) / 2;
  const constant =
    shape === 'slab'
      ? (4 * Math.sin(z)) / (2 * z + Math.sin(2 * z))
      : shape === 'cylinder'
        ? ((2 / z) * bessel(1, z)) / (bessel(0, z) ** 2 + bessel(1, z) ** 2)
        : (4 * (Math.sin(z) - z * Math.cos(z))) / (2 * z - Math.sin(2 * z));
  return { root: z, constant };
}

/** How fast the excess of a slab fades once the first term rules, 1/s. h W/(m² K), k W/(m K), alpha m²/s, half thickness m. */
export const slabDecay = (h: number, k: number, alpha: number, halfM: number): number =>
  h <= 0 ? 0 : (firstTerm('slab', (h * halfM) / k).root ** 2 * alpha) / halfM ** 2;

export interface Conduction {
  readonly shape: Shape;
  /** Half the thickness of a slab, the radius of the others, metres. */
  readonly halfM: number;
  /** Between the surface and what surrounds it, W/(m² K). */
  readonly h: number;
  readonly k: number;
  readonly alpha: number;
  readonly fromC: number;
  readonly mediumC: number;
}

/**
 * Seconds until the centre is at a temperature, heating or cooling; undefined if the surroundings never bring it there.
 *
 * Keeps   the first term alone holds from a Fourier number of 0.2; before that the answer is a little long, never short.
 * @example thick purée 5 cm deep, both faces, 57 to 21 °C in 3 °C air with h 10 -> 3.65 h
 */
export function secondsToCentre(c: Conduction, toC: number): number | undefined {
  if (c.fromC === c.mediumC) return toC === c.fromC ? 0 : undefined;
  const theta = (toC - c.mediumC) / (c.fromC - c.mediumC);
  if (!(theta > 0)) return undefined;
  if (theta >= 1) return 0;
  const { root, constant } = firstTerm(c.shape, (c.h * c.halfM) / c.k);
  return Math.max(0, (Math.log(constant / theta) * c.halfM ** 2) / (root ** 2 * c.alpha));
}

/**
 * Seconds until the centre is at least so hot; undefined if what is around it never brings it there: it is no hotter than that itself.
 *
 * @example from 64.5 °C in a bath of 64.5 °C to 74 °C -> undefined; to 60 °C -> 0
 */
export function secondsUntilHot(c: Conduction, toC: number): number | undefined {
  if (c.fromC >= toC) return 0;
  return c.mediumC <= toC ? undefined : secondsToCentre(c, toC);
}

/** Temperature of the centre after some seconds; never outside what the first term can say. */
export function centreAt(c: Conduction, seconds: number): number {
  const { root, constant } = firstTerm(c.shape, (c.h * c.halfM) / c.k);
  const theta = Math.min(1, constant * Math.exp((-(root ** 2) * c.alpha * seconds) / c.halfM ** 2));
  return c.mediumC + theta * (c.fromC - c.mediumC);
}

/**
 * Seconds to freeze through, by Plank.
 *
 * Units   latent J/kg of the food (water share times 333.55 kJ/kg), freezing point °C, conductivity of the frozen part 1.6 W/(m K) unless said.
 * Keeps   only the freezing itself: what comes before and after is `secondsToCentre`.
 * Source  Plank's equation with P = 1/2, 1/4, 1/6 and R = 1/8, 1/16, 1/24, food engineering texts.
 */
export function secondsToFreeze(o: {
  readonly shape: Shape;
  readonly halfM: number;
  readonly h: number;
  readonly airC: number;
  readonly waterShare: number;
  readonly density?: number;
  readonly freezesAtC?: number;
  readonly conductivity?: number;
}): number | undefined {
  const freezesAtC = o.freezesAtC ?? -1.5;
  if (o.airC >= freezesAtC) return undefined;
  const [P, R] = { slab: [1 / 2, 1 / 8], cylinder: [1 / 4, 1 / 16], sphere: [1 / 6, 1 / 24] }[o.shape] as [
    number,
    number,
  ];
  const a = 2 * o.halfM;
  return (
    (((o.density ?? 1_050) * o.waterShare * 333_550) / (freezesAtC - o.airC)) *
    ((P * a) / o.h + (R * a * a) / (o.conductivity ?? 1.6))
  );
}
