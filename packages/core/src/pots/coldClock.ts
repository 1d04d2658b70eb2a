/** Heat that a machine leaves in what it works, as a share of its motor's rating: estimate. A blender's blade is in it all the while. */
const BLADE_SHARE = 0.3;

/**
 * Heat of the blade, watts, for the vessel something is worked in: a blender or a bowl cutter turns all the while.
 *
 * Units   `motorWatts`: the machine's rating as the house has it; 500 unless said (a common blender, estimate).
 * @example a blender of 500 W -> 150; a bowl and a hand -> 0
 */
export const bladeWatts = (vessel: string, motorWatts = 500): number =>
  vessel === 'blender' ? Math.max(0, motorWatts) * BLADE_SHARE : 0;

/**
 * Minutes a filling may stay out of the ice before it is too warm to hold; undefined if it never gets there.
 *
 * Units   kg, °C, W. `watts`: heat that the blade leaves in it, `bladeWatts` of what works it; nought where nothing turns.
 *         `film`: W/(m² K) between bowl and room, 10 unless said.
 * Keeps   nought when it is there already, and where a figure is none: nobody knows, so there is no time.
 * Source  lumped heat balance; the bowl's surface as 5.5 times the two-thirds power of its volume (a half-full bowl, estimate).
 * @example 1.5 kg at 4 °C in a room of 24 °C, no blade, limit 10 °C -> 44.5 minutes; with a blade of 150 W: 3.3
 */
export function minutesInTheCold(o: {
  readonly kg: number;
  readonly nowC: number;
  readonly roomC: number;
  readonly limitC: number;
  readonly watts: number;
  readonly film?: number;
}): number | undefined {
  if (![o.kg, o.nowC, o.roomC, o.limitC, o.watts, o.film ?? 10].every(Number.isFinite) || o.kg <= 0) return 0;
  if (o.nowC >= o.limitC) return 0;
  const area = 5.5 * (o.kg / 1_000) ** (2 / 3);
  const lost = (o.film ?? 10) * area;
  const end = o.roomC + o.watts / lost;
  if (end <= o.limitC) return undefined;
  const tau = (o.kg * 3_600) / lost;
  return (tau * Math.log((end - o.nowC) / (end - o.limitC))) / 60;
}
