import { linearRegression, sumNthPowerDeviations } from 'simple-statistics';
import { mustBeFigures } from '../refusal.ts';
import { LATENT_AT_BOIL, WATERY_HEAT } from './water.ts';

/** A ring or a burner: what it is rated at and how much of that reaches the pan. */
export interface Burner {
  readonly watts: number;
  /** 0..1; typical 0.40 open gas (0.28 to 0.45), 0.85 induction (0.75 to 0.90), 0.70 electric plate. */
  readonly efficiency: number;
}

/**
 * Water a full boil drives off, kg/s. `lossW` is what the pot gives to the room.
 *
 * Keeps   never below nought. Source  heat balance at the boil. @example 3.5 kW induction, 300 W lost -> 4.27 kg an hour
 */
export const boilRate = ({ watts, efficiency }: Burner, lossW: number): number =>
  Math.max(0, efficiency * watts - lossW) / LATENT_AT_BOIL;

/** Seconds to heat so many kilograms by some degrees; undefined when the burner only holds its own. */
export const heatUpSeconds = (
  kg: number,
  degrees: number,
  { watts, efficiency }: Burner,
  lossW = 0,
  heat = WATERY_HEAT,
): number | undefined => {
  const net = efficiency * watts - lossW;
  return net <= 0 ? undefined : (kg * heat * degrees) / net;
};

/** What a pot gives to the room, W: 11 W/(m² K) over its wet wall and top, 75 K above the room (typical 10 to 12). */
export const wallLoss = (wetM2: number, aboveRoomK = 75): number => 11 * wetM2 * aboveRoomK;

export interface RateBelief {
  /** kg of water an hour, and how far off it may be (one standard deviation). */
  readonly kgPerHour: number;
  readonly sd: number;
  /** Pairs of readings that stand behind it; 0: the burner's rating alone. */
  readonly readings: number;
}

/**
 * How fast it boils away, from the burner and the readings so far.
 *
 * Shapes  readings: mass left, in order of time; those that do not fall are kept (someone topped up nothing: noise).
 * Units   minutes, kg.
 * Keeps   the prior's relative spread is 30 %: nobody knows a burner's efficiency better; a reading of a level is good to 3 % of the
 *         first mass unless `readingSd` says otherwise.
 * Source  normal-normal update of the slope through least squares, statistics texts.
 */
export function believeRate(
  prior: number,
  readings: readonly { readonly minute: number; readonly kg: number }[],
  readingSd?: number,
): RateBelief {
  const priorSd = 0.3 * prior;
  const first = readings[0];
  if (first === undefined || readings.length < 2) return { kgPerHour: prior, sd: priorSd, readings: 0 };
  const noise = readingSd ?? 0.03 * first.kg;
  const hours = readings.map((r) => r.minute / 60);
  const spread = sumNthPowerDeviations(hours, 2);
  if (spread === 0) return { kgPerHour: prior, sd: priorSd, readings: 0 };
  const slope = -linearRegression(readings.map((r) => [r.minute / 60, r.kg])).m;
  const variance = noise ** 2 / spread;
  const weight = priorSd ** 2 / (priorSd ** 2 + variance);
  return {
    kgPerHour: Math.max(0, prior + weight * (slope - prior)),
    sd: Math.sqrt((priorSd ** 2 * variance) / (priorSd ** 2 + variance)),
    readings: readings.length,
  };
}

/**
 * Minutes until so much is left, with the spread that the rate's doubt brings.
 *
 * Units   kg. Result: low and high hold eight times in ten; undefined where it does not boil away at all.
 */
export function minutesToMark(
  nowKg: number,
  targetKg: number,
  { kgPerHour, sd }: RateBelief,
): { readonly low: number; readonly typical: number; readonly high: number } | undefined {
  if (kgPerHour <= 0) return undefined;
  const toGo = Math.max(0, nowKg - targetKg) * 60;
  const slow = Math.max(kgPerHour * 0.2, kgPerHour - 1.2816 * sd);
  return { low: toGo / (kgPerHour + 1.2816 * sd), typical: toGo / kgPerHour, high: toGo / slow };
}

/**
 * What does not boil away gets stronger: salt, solids, gelatin. Share or grams per litre in, the same out.
 *
 * Errors  `not_a_figure`, also for nothing left.
 */
export function concentrated(before: number, startMass: number, endMass: number): number {
  mustBeFigures({ before, startMass });
  mustBeFigures({ endMass }, 0);
  return (before * startMass) / endMass;
}

/**
 * How far it may be reduced before it is saltier than wanted: the least mass left.
 *
 * @example 8 kg at 4 g of salt a kilo, no saltier than 10 -> stop at 3.2 kg
 */
export const saltStop = (startMass: number, saltNow: number, saltMost: number): number =>
  saltMost <= 0 ? startMass : Math.min(startMass, (startMass * saltNow) / saltMost);
