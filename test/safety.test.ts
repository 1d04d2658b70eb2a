/** Limits: worked cases against our judgement, each with its source in the file; values recalled from memory or calculated. */
import { readFileSync } from 'node:fs';
import { limitProfiles } from '@zabrik/catalogue';
import { limitProfileSchema } from '@zabrik/contract';
import {
  addDays,
  hoursAbove,
  judgeCooking,
  judgeCooling,
  judgeExposure,
  judgeFreezing,
  judgeSamples,
  judgeTemperature,
  judgeTime,
  type Limit,
  lastDay,
  type Reading,
  type Verdict,
} from '@zabrik/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

interface Case {
  readonly id: string;
  readonly op: string;
  readonly input: Readonly<Record<string, unknown>>;
  readonly expected: string | number;
  readonly source: string;
}
const { cases } = JSON.parse(readFileSync(new URL('cases/safety.json', import.meta.url), 'utf8')) as { cases: Case[] };
const limitOf = (profile: unknown, id: unknown): Limit => {
  const limit = limitProfiles.find((p) => p.id === profile)?.limits.find((l) => l.id === id);
  if (limit === undefined) throw new Error(`${profile} ${id}`);
  return limit;
};

interface Given {
  readonly s?: number;
  readonly h?: number;
  readonly freeze_C?: number;
  readonly hold_C?: number;
  readonly hold_h?: number;
  readonly solid?: boolean;
  readonly thickness_cm?: number;
  readonly start_C?: number;
  readonly peak_C?: number;
  readonly results?: readonly number[];
  readonly log?: readonly { readonly t: number; readonly T: number }[];
}

function judge(limit: Limit, given: Given & Reading): Verdict {
  const log = (minutes: number) => (given.log ?? []).map((r) => ({ minute: r.t * minutes, C: r.T }));
  switch (limit.kind) {
    case 'max_temp':
    case 'min_temp':
      return judgeTemperature(limit, given);
    case 'cook_time_temp':
      return judgeCooking(limit, given, given.s ?? 0);
    case 'freeze_treatment':
      return judgeFreezing(limit, {
        freezeC: given.freeze_C ?? Number.NaN,
        holdC: given.hold_C ?? Number.NaN,
        holdHours: given.hold_h ?? 0,
        solid: given.solid ?? true,
        ...(given.thickness_cm === undefined ? {} : { thicknessCm: given.thickness_cm }),
      });
    case 'cooling':
      return judgeCooling(limit, log(1), given.log?.at(-1)?.t ?? 0);
    case 'exposure':
      return judgeExposure(limit, log(60), (given.log?.at(-1)?.t ?? 0) * 60).verdict;
    case 'time_limit':
      return judgeTime(limit, {
        hours: given.h ?? 0,
        ...(given.start_C === undefined ? {} : { startC: given.start_C }),
        ...(given.peak_C === undefined ? {} : { peakC: given.peak_C }),
      });
    case 'sampling_plan':
      return judgeSamples(limit, given.results ?? []);
    default:
      return 'not-judged';
  }
}

describe('limit profiles', () => {
  it('are of their schema, with ids that are theirs alone', () => {
    for (const profile of limitProfiles)
      expect(limitProfileSchema.safeParse(profile).error?.message ?? profile.id).toBe(profile.id);
    const ids = limitProfiles.flatMap((p) => p.limits.map((l) => l.id));
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids.length).toBeGreaterThan(160);
  });

  it('never say "safe" for anything', () => {
    for (const limit of limitProfiles.flatMap((p) => p.limits))
      expect(limit.caution.toLowerCase()).not.toMatch(/\bis safe\b/);
  });
});

describe('worked cases', () => {
  it.each(cases.filter((c) => c.op === 'judge'))('$id $input.limit: $expected', ({ input, expected }) => {
    expect(judge(limitOf(input['profile'], input['limit']), input['reading'] as Given & Reading)).toBe(expected);
  });

  it.each(cases.filter((c) => c.op === 'lastDay'))(
    '$id $input.limit from $input.start: $expected',
    ({ input, expected }) => {
      const limit = limitOf(input['profile'], input['limit']);
      expect(limit.kind === 'shelf_life' && lastDay(limit, String(input['start']))).toBe(expected);
    },
  );

  it.each(cases.filter((c) => c.op === 'addDays'))('$id: $expected', ({ input, expected }) => {
    expect(addDays(String(input['start']), Number(input['days']))).toBe(expected);
  });
});

describe('judging', () => {
  const cold = limitOf('us-food-code-2022', 'us.recv.tcs');
  const cooling = limitOf('us-food-code-2022', 'us.cool.cooked');

  it('takes the probe’s error off before it says within', () => {
    if (cold.kind !== 'max_temp') throw new Error(cold.kind);
    expect(judgeTemperature(cold, { C: 4.6 })).toBe('within');
    expect(judgeTemperature(cold, { C: 4.6 }, 0.5)).toBe('outside');
    expect(judgeTemperature(cold, { F: 40.5 }, 0.5)).toBe('outside');
  });

  it('leaves cooling open while time runs, and closes it only with readings', () => {
    if (cooling.kind !== 'cooling') throw new Error(cooling.kind);
    expect(judgeCooling(cooling, [], 0)).toBe('open');
    expect(judgeCooling(cooling, [{ minute: 0, C: 80 }], 30)).toBe('open');
    expect(
      judgeCooling(
        cooling,
        [
          { minute: 0, C: 57 },
          { minute: 100, C: 20 },
        ],
        110,
      ),
    ).toBe('open');
    expect(
      judgeCooling(
        cooling,
        [
          { minute: 0, C: 57 },
          { minute: 100, C: 20 },
          { minute: 361, C: 8 },
        ],
        361,
      ),
    ).toBe('outside');
  });

  it('counts hours above a temperature whatever readings lie between', () => {
    const log = fc
      .array(fc.tuple(fc.integer({ min: 1, max: 120 }), fc.integer({ min: -5, max: 40 })), {
        minLength: 2,
        maxLength: 12,
      })
      .map((steps) => {
        let minute = 0;
        return steps.map(([by, C]) => {
          minute += by;
          return { minute, C };
        });
      });
    fc.assert(
      fc.property(log, fc.integer({ min: 0, max: 30 }), (readings, above) => {
        const halved = readings.flatMap((b, i) => {
          const a = readings[i - 1];
          return a === undefined ? [b] : [{ minute: (a.minute + b.minute) / 2, C: (a.C + b.C) / 2 }, b];
        });
        const whole = ((readings.at(-1)?.minute ?? 0) - (readings[0]?.minute ?? 0)) / 60;
        expect(hoursAbove(readings, above)).toBeCloseTo(hoursAbove(halved, above), 9);
        expect(hoursAbove(readings, above)).toBeLessThanOrEqual(whole + 1e-9);
      }),
    );
  });
});
