/** What the limits that a house selected say of one lot: its temperature, its hours out of the cold, its time in the freezer. */
import { judgeExposure } from '../safety/exposureLog.ts';
import type { Food } from '../safety/food.ts';
import { freezingProgress } from '../safety/freezingLog.ts';
import { judgeTemperature } from '../safety/judge.ts';
import { logOf, minuteOf, type TimedReading } from '../safety/judgeLog.ts';
import type { Limit, Verdict } from '../safety/limit.ts';
import { limitsFor, storageLimit } from '../safety/limitsFor.ts';
import { atMost, mostOf } from '../safety/readings.ts';

export interface LotJudged {
  readonly about: 'storage' | 'date' | 'histamine' | 'parasites';
  readonly limit: Limit | null;
  readonly verdict: Verdict;
  /** The figure that was judged: degrees Celsius, or hours at the worst the readings allow (for parasites: at the least). */
  readonly figure: number;
  readonly allowed: number;
  /** The longest time nobody read it, hours, where that is why nothing is shown. */
  readonly unreadHours?: number;
}

/**
 * Judges a lot's readings against the limits that cover it. Limits we are not sure of are left out: they are shown, never judged by.
 *
 * Storage: the last reading of a lot that is not frozen. Date: the last reading against the cold that its shelf life presumes. Histamine:
 * hours above the benchmark, of fish that form it, at the worst the readings allow; it never starts anew. Parasites: the freezing that
 * the readings show.
 *
 * Shapes  readings in any order; now: RFC 3339. Result: one for each question that has a limit and a reading to judge; of a date that a
 *         recipe set the limit is null.
 */
export function judgeLot(
  limits: readonly Limit[],
  lot: {
    readonly food: Food;
    readonly frozen: boolean;
    readonly frozenBefore: boolean;
    /** The shelf life its date was worked out by, and the cold it presumes, °C; null where it presumes none. */
    readonly dateLimitId: string | null;
    readonly dateMaxC: number | null;
  },
  readings: readonly TimedReading[],
  now: string,
): LotJudged[] {
  const judged: LotJudged[] = [];
  const inOrder = [...readings].sort((a, b) => a.at.localeCompare(b.at));
  const last = inOrder.at(-1);
  if (last === undefined) return judged;
  const log = logOf(inOrder);
  const storage = storageLimit(limits, lot.food);
  if (storage !== undefined && !lot.frozen)
    judged.push({
      about: 'storage',
      limit: storage,
      verdict: judgeTemperature(storage, { C: last.C }),
      figure: last.C,
      allowed: storage.value.max_C,
    });
  const dated = limits.find((l) => l.id === lot.dateLimitId);
  const presumes = dated?.kind === 'shelf_life' ? (dated.value.at_max_C ?? null) : lot.dateMaxC;
  if (presumes !== null && !lot.frozen)
    judged.push({
      about: 'date',
      limit: dated ?? null,
      verdict: !Number.isFinite(last.C)
        ? 'not-shown'
        : atMost(last.C, mostOf(presumes, dated?.kind === 'shelf_life' ? dated.value.at_max_F : undefined))
          ? 'within'
          : 'outside',
      figure: last.C,
      allowed: presumes,
    });
  const [exposure] = limitsFor(limits, 'exposure', 'histamine', lot.food, lot.frozenBefore ? 'frozen' : 'fresh');
  // what is frozen stands still from its last reading on
  if (exposure !== undefined) {
    const end = lot.frozen ? last.at : now;
    const { verdict, mostHours, allowedHours, gapMinutes } = judgeExposure(exposure, log, minuteOf(inOrder, end));
    judged.push({
      about: 'histamine',
      limit: exposure,
      verdict,
      figure: mostHours,
      allowed: allowedHours,
      ...(verdict === 'not-shown' ? { unreadHours: gapMinutes / 60 } : {}),
    });
  }
  const [freezing] = limitsFor(limits, 'freeze_treatment', 'parasites', lot.food);
  if (freezing !== undefined) {
    const { verdict, best, unreadHours } = freezingProgress(freezing, log);
    if (best !== undefined)
      judged.push({
        about: 'parasites',
        limit: freezing,
        // a lot that is out of the freezer again gets no colder
        verdict: verdict === 'open' && !lot.frozen ? 'outside' : verdict,
        figure: best.heldHours,
        allowed: best.holdHours,
        ...(verdict === 'not-shown' ? { unreadHours } : {}),
      });
  }
  return judged;
}
