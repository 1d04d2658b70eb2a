import { mustBeFigures } from '../refusal.ts';
import { slabDecay } from './slab.ts';
import { facesOf, levelOf, type VesselShape } from './vessel.ts';
import { evaporationRate, ICE_MELT, latentHeat, WATERY_HEAT } from './water.ts';

/** What cools it: the place it stands in. Heat transfer in W/(m² K), typical figures good to a factor of two either way. */
export interface CoolingMedium {
  readonly airC: number;
  readonly top: number;
  readonly side: number;
  readonly bottom: number;
  /** Open to the air: the surface steams, with this convection of the top's figure and this humidity. */
  readonly open?: { readonly convection: number; readonly humidity: number };
}

export interface CoolingBatch {
  readonly vessel: VesselShape;
  readonly litres: number;
  /** kg per litre, J/(kg K). Watery food unless said. */
  readonly density?: number;
  readonly heat?: number;
  readonly fromC: number;
  /** Below this it stands still (a stock that gels, a purée): from then on heat must come through it. W/(m K) in `conductivity`. */
  readonly setsAtC?: number;
  readonly conductivity?: number;
}

export interface CoolingCurve {
  /** One point a minute, °C. Index 0 is the start. */
  readonly C: readonly number[];
  /** Water that left as steam, kg, to the end of the curve. */
  readonly steamedKg: number;
  /** Heat given off, joules. */
  readonly joules: number;
}

/**
 * Temperature of a batch as it cools: one temperature for the whole while it moves by itself, conduction through the slab once it
 * has set, steam from an open surface.
 *
 * Shapes  a point a minute until it is within `stopC` or the minutes are over.
 * Units   °C, litres, W/(m² K). `scale` multiplies every way it loses heat (what a probe has taught; 1 at first).
 * Keeps   never below the air it stands in; never rises.
 * Errors  `not_a_figure` for a batch of no litres, or a temperature that is no number.
 * Source  lumped capacitance with Newton's law, Lewis relation for steam, one-term slab solution: heat-transfer texts. Runge-Kutta
 *         of the fourth order, step of 15 s.
 * @example 40 litres lidded in a pot 40 cm wide at 3 °C still air -> 21 °C after 7.5 h from 57 °C
 */
export function coolingCurve(
  batch: CoolingBatch,
  medium: CoolingMedium,
  o: { readonly minutes: number; readonly stopC?: number; readonly scale?: number },
): CoolingCurve {
  mustBeFigures(
    { litres: batch.litres, density: batch.density ?? 1, heat: batch.heat ?? WATERY_HEAT, minutes: o.minutes },
    0,
  );
  mustBeFigures({ fromC: batch.fromC, airC: medium.airC, scale: o.scale ?? 1 });
  const kg = batch.litres * (batch.density ?? 1);
  const heatJ = kg * (batch.heat ?? WATERY_HEAT);
  const faces = facesOf(batch.vessel, batch.litres);
  const scale = o.scale ?? 1;
  const lost = scale * (medium.top * faces.top + medium.side * faces.side + medium.bottom * faces.bottom);
  const open = medium.open;
  const k = batch.conductivity ?? 0.5;
  const deepM = levelOf(batch.vessel, batch.litres) / 1_000;
  const alpha = k / ((batch.density ?? 1) * 1_000 * (batch.heat ?? WATERY_HEAT));
  const setRate = slabDecay((scale * (medium.top + medium.bottom)) / 2, k, alpha, deepM / 2);
  const rate = (C: number): number => {
    if (C <= medium.airC) return 0;
    const steam =
      open === undefined
        ? 0
        : evaporationRate({
            surfaceC: C,
            airC: medium.airC,
            humidity: open.humidity,
            convection: open.convection * scale,
            areaM2: faces.top,
          }) * latentHeat(C);
    const moving = -(lost * (C - medium.airC) + steam) / heatJ;
    const set = batch.setsAtC !== undefined && C < batch.setsAtC ? -setRate * (C - medium.airC) : -Infinity;
    return Math.max(moving, set);
  };
  const step = 15;
  const points = [batch.fromC];
  let C = batch.fromC;
  let steamedKg = 0;
  for (let minute = 1; minute <= o.minutes; minute += 1) {
    for (let s = 0; s < 60 / step; s += 1) {
      if (open !== undefined)
        steamedKg +=
          step *
          evaporationRate({
            surfaceC: C,
            airC: medium.airC,
            humidity: open.humidity,
            convection: open.convection * scale,
            areaM2: faces.top,
          });
      const a = rate(C);
      const b = rate(C + (step / 2) * a);
      const c = rate(C + (step / 2) * b);
      const d = rate(C + step * c);
      C = Math.max(Math.min(C, medium.airC), C + (step / 6) * (a + 2 * b + 2 * c + d));
    }
    points.push(C);
    if (o.stopC !== undefined && C <= o.stopC) break;
  }
  return { C: points, steamedKg, joules: heatJ * (batch.fromC - C) };
}

/**
 * Minutes until a curve comes down to a temperature, straight between its minutes; undefined if it never does.
 *
 * `startC`: the clock starts when it passes this (57 °C in some codes); without it, at the first point.
 */
export function minutesTo(curve: readonly number[], toC: number, startC?: number): number | undefined {
  const crossing = (C: number): number | undefined => {
    if ((curve[0] ?? Number.POSITIVE_INFINITY) <= C) return 0;
    for (let i = 1; i < curve.length; i += 1) {
      const before = curve[i - 1] ?? C;
      const after = curve[i] ?? before;
      if (after <= C) return i - 1 + (before - C) / (before - after);
    }
    return undefined;
  };
  const end = crossing(toC);
  const start = startC === undefined ? 0 : crossing(startC);
  return end === undefined || start === undefined ? undefined : end - start;
}

/** Ice that a bath uses in cooling this batch, kg, a quarter more for the room and the vessel (common practice, no source). */
export const bathIce = (joules: number): number => (1.25 * joules) / ICE_MELT;

/** Seconds in which the excess over the air falls to 1/e, for a batch that moves by itself and is covered. */
export function timeConstant(batch: CoolingBatch, medium: CoolingMedium): number {
  const faces = facesOf(batch.vessel, batch.litres);
  return (
    (batch.litres * (batch.density ?? 1) * (batch.heat ?? WATERY_HEAT)) /
    (medium.top * faces.top + medium.side * faces.side + medium.bottom * faces.bottom)
  );
}
