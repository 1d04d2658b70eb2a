import { inKilograms } from '../quantity/mass.ts';
import { type Burner, believeRate, boilRate, minutesToMark, type RateBelief, wallLoss } from './reduction.ts';
import { facesOf, type VesselShape } from './vessel.ts';

/** A level as it was read. */
export interface LevelRead {
  /** ISO time. */
  readonly at: string;
  readonly massMg: number;
}

export interface Reduction {
  readonly shape: VesselShape | undefined;
  readonly burner: Burner | undefined;
  /** Since the mark was set, in order of time. */
  readonly readings: readonly LevelRead[];
  /** The last level known, also from before the mark; undefined where none was read. */
  readonly last: LevelRead | undefined;
  readonly mark: {
    readonly targetMg: number;
    readonly salt?: { readonly grams: number; readonly mostPerLitre: number };
  };
  readonly nowMs: number;
}

export interface StandsAt {
  /** How fast it boils away; undefined where pan, burner or a reading lack. */
  readonly rate: RateBelief | undefined;
  /** What stands in the pan now, kg: the last level less what has boiled away since. Undefined before the first. */
  readonly nowKg: number | undefined;
  /** The mark, and the line below which it is too salty (0 without salt), kg. */
  readonly markKg: number;
  readonly stopKg: number;
  /** Whichever of the two comes first. */
  readonly endKg: number;
  readonly left: ReturnType<typeof minutesToMark>;
  /** By now it should be there: look. */
  readonly there: boolean;
}

/**
 * Where a pan that reduces stands now, and how long it still takes: one figure for the future, by the burner and what the readings say of it.
 *
 * Units   kg, minutes, milliseconds of the clock.
 * Keeps   salt does not boil away: where it gets too strong before the mark, that line is the end. What stands there never falls below nought, and a
 *         clock that runs behind the reading takes nothing off.
 * @example 6 kg at 17:00, 3 kg an hour, mark at 2 kg: at 17:40 there are 4 kg, 40 minutes left
 */
export function standsAt({ shape, burner, readings, last, mark, nowMs }: Reduction): StandsAt {
  const [first] = readings;
  const faces = shape === undefined ? undefined : facesOf(shape, inKilograms(last?.massMg ?? 0));
  const rate =
    burner === undefined || faces === undefined || first === undefined
      ? undefined
      : believeRate(
          boilRate(burner, wallLoss(faces.side + faces.top)) * 3_600,
          readings.map((r) => ({
            minute: (Date.parse(r.at) - Date.parse(first.at)) / 60_000,
            kg: inKilograms(r.massMg),
          })),
        );
  const sinceHours = last === undefined ? 0 : Math.max(0, nowMs - Date.parse(last.at)) / 3_600_000;
  const nowKg =
    last === undefined ? undefined : Math.max(0, inKilograms(last.massMg) - (rate?.kgPerHour ?? 0) * sinceHours);
  const markKg = inKilograms(mark.targetMg);
  const stopKg = mark.salt === undefined ? 0 : mark.salt.grams / mark.salt.mostPerLitre;
  const endKg = Math.max(markKg, stopKg);
  return {
    rate,
    nowKg,
    markKg,
    stopKg,
    endKg,
    left: rate === undefined || nowKg === undefined ? undefined : minutesToMark(nowKg, endKg, rate),
    there: nowKg !== undefined && nowKg <= endKg,
  };
}
