/** What the limits that a house selected say of one lot: its temperature, its hours out of the cold, its time in the freezer. */
import { isShownAsLimit, judgeExposure, judgeFreezing, judgeTemperature } from '../safety/judge.ts';
import { logOf, type TimedReading } from '../safety/judgeLog.ts';
import type { Exposure, FreezeTreatment, Limit, MostTemperature, Verdict } from '../safety/limit.ts';

export interface LotJudged {
  readonly about: 'storage' | 'histamine' | 'parasites';
  readonly limit: Limit;
  readonly verdict: Verdict;
  /** The figure that was judged: degrees Celsius, or hours. */
  readonly figure: number;
  readonly allowed: number;
}

const first = <K extends Limit['kind']>(
  limits: readonly Limit[],
  topic: string,
  kind: K,
): Extract<Limit, { kind: K }> | undefined =>
  limits.find((l): l is Extract<Limit, { kind: K }> => l.topic === topic && l.kind === kind && isShownAsLimit(l));

/**
 * Judges a lot's readings against the limits selected. Limits we are not sure of are left out: they are shown, never judged by.
 *
 * Storage: the last reading of a lot that is not frozen. Histamine: hours above the benchmark so far, of species that form it, straight
 * between readings; it never starts anew. Parasites: of fish, the coldest hold that all readings while frozen support, from the first
 * reading that was cold enough to the last.
 *
 * Shapes  readings: in order of time. Result: one for each question that has a limit and a reading to judge.
 */
export function judgeLot(
  limits: readonly Limit[],
  lot: {
    readonly frozen: boolean;
    readonly histamine: boolean;
    readonly fish: boolean;
    readonly frozenBefore: boolean;
  },
  readings: readonly TimedReading[],
): LotJudged[] {
  const judged: LotJudged[] = [];
  const last = readings.at(-1);
  if (last === undefined) return judged;
  const storage: MostTemperature | undefined = first(limits, 'cold-holding', 'max_temp');
  if (storage !== undefined && !lot.frozen)
    judged.push({
      about: 'storage',
      limit: storage,
      verdict: judgeTemperature(storage, { C: last.C }),
      figure: last.C,
      allowed: storage.value.max_C,
    });
  const exposures = limits.filter(
    (l): l is Exposure => l.kind === 'exposure' && l.topic === 'histamine' && isShownAsLimit(l),
  );
  const exposure = exposures.find((l) => l.id.endsWith('frozen') === lot.frozenBefore) ?? exposures[0];
  if (lot.histamine && exposure !== undefined) {
    const { verdict, hours, allowedHours } = judgeExposure(exposure, logOf(readings));
    judged.push({ about: 'histamine', limit: exposure, verdict, figure: hours, allowed: allowedHours });
  }
  const freezing: FreezeTreatment | undefined = first(limits, 'parasite-freezing', 'freeze_treatment');
  if (lot.fish && freezing !== undefined) {
    let best: { verdict: Verdict; hours: number; allowed: number } | undefined;
    for (const option of freezing.value.options) {
      const from = readings.findIndex((r) => r.C <= option.freeze_C);
      const start = readings[from];
      if (start === undefined) continue;
      const held = readings.slice(from);
      const broken = held.findIndex((r) => r.C > option.hold_C);
      const end = broken < 0 ? last : (held[broken - 1] ?? start);
      const holdHours = (Date.parse(end.at) - Date.parse(start.at)) / 3_600_000;
      const verdict = judgeFreezing(freezing, {
        freezeC: option.freeze_C,
        holdC: option.hold_C,
        holdHours,
        solid: true,
      });
      if (best === undefined || verdict === 'within') best = { verdict, hours: holdHours, allowed: option.hold_h };
      if (verdict === 'within') break;
    }
    if (best !== undefined)
      judged.push({
        about: 'parasites',
        limit: freezing,
        verdict: best.verdict === 'outside' && lot.frozen ? 'open' : best.verdict,
        figure: best.hours,
        allowed: best.allowed,
      });
  }
  return judged;
}
