/** Something of a mass, a heat capacity and a temperature: a pan, oil, water, meat. kg, J/(kg K), °C. */
export interface WarmBody {
  readonly kg: number;
  readonly heat: number;
  readonly C: number;
}

/**
 * Temperature when bodies have come together and nothing is lost to the room.
 *
 * Errors  undefined where there is no mass at all. Source  heat balance.
 * @example a 1.2 kg steel pan (490) at 220 °C and 0.5 kg of cold meat (3,500) at 5 °C -> 59 °C
 */
export function mixedTemperature(bodies: readonly WarmBody[]): number | undefined {
  const capacity = bodies.reduce((s, b) => s + b.kg * b.heat, 0);
  return capacity > 0 ? bodies.reduce((s, b) => s + b.kg * b.heat * b.C, 0) / capacity : undefined;
}
