export interface Picked {
  readonly at: Date;
  readonly massMg: number;
}

export interface PickingPace {
  readonly totalMg: number;
  readonly minutes: number;
  /** Over all the time, and over the last stretch. 0 until there is a first weight. */
  readonly mgPerMinute: number;
  readonly recentMgPerMinute: number;
  /** What ten more minutes at the last pace bring, no more than what is still expected to be there. */
  readonly nextMg: number;
}

const RECENT_MINUTES = 12;
const NEXT_MINUTES = 10;

/**
 * How fast a piece comes together from many small weighings, and what the next ten minutes bring.
 *
 * The pace falls as the easy meat is gone, so the forecast takes the last twelve minutes of work, not the mean, and never more than
 * what the animal should still hold.
 *
 * Shapes  picked: oldest first. workedMinutes: from an instant to another, pauses left out.
 * Units   milligrams, minutes.
 * Keeps   never NaN: no time gives a pace of 0.
 */
export function pickingPace(
  picked: readonly Picked[],
  begun: Date,
  now: Date,
  stillThereMg: number,
  workedMinutes: (from: Date, to: Date) => number,
): PickingPace {
  const totalMg = picked.reduce((sum, p) => sum + p.massMg, 0);
  const minutes = Math.max(0, workedMinutes(begun, now));
  const from = new Date(Math.max(begun.getTime(), now.getTime() - RECENT_MINUTES * 60_000));
  const recentMinutes = Math.max(0, workedMinutes(from, now));
  const recent = picked.filter((p) => p.at > from).reduce((sum, p) => sum + p.massMg, 0);
  const pace = (mass: number, time: number): number => (time > 0 ? mass / time : 0);
  const recentMgPerMinute = pace(recent, recentMinutes);
  return {
    totalMg,
    minutes,
    mgPerMinute: pace(totalMg, minutes),
    recentMgPerMinute,
    nextMg: Math.round(Math.min(Math.max(0, stillThereMg), recentMgPerMinute * NEXT_MINUTES)),
  };
}
