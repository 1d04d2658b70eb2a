/**
 * Minutes a filling may stay out of the ice before it is too warm to hold; undefined if it never gets there.
 *
 * Units   kg, °C, W. `watts`: heat of the blade while it runs, times the share of the time that it does (estimate: 15 % of the motor's rating).
 *         `film`: W/(m² K) between bowl and room, 10 unless said.
 * Keeps   nought when it is there already.
 * Source  lumped heat balance; the bowl's surface as 5.5 times the two-thirds power of its volume (a half-full bowl, estimate).
 * @example 1.5 kg at 4 °C in a room of 24 °C, no blade, limit 10 °C -> about 23 minutes
 */
export function minutesInTheCold(o: {
  readonly kg: number;
  readonly nowC: number;
  readonly roomC: number;
  readonly limitC: number;
  readonly watts?: number;
  readonly film?: number;
}): number | undefined {
  if (o.nowC >= o.limitC) return 0;
  const area = 5.5 * (o.kg / 1_000) ** (2 / 3);
  const lost = (o.film ?? 10) * area;
  const end = o.roomC + (o.watts ?? 0) / lost;
  if (end <= o.limitC) return undefined;
  const tau = (o.kg * 3_600) / lost;
  return (tau * Math.log((end - o.nowC) / (end - o.limitC))) / 60;
}
