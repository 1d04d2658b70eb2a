/** No sum gives a figure that is none: what cannot be worked out is refused, or answered on the strict side. */

import { limitProfiles } from '@zabrik/catalogue';
import {
  addDays,
  believeShare,
  claimOf,
  concentrated,
  coolingCurve,
  costOfAccepted,
  judgeCooking,
  judgeFreezing,
  judgeSamples,
  judgeTemperature,
  judgeTime,
  type Limit,
  lotCode,
  planMould,
  planSlices,
  potDue,
  Refusal,
  SATURATED,
  saltForBrine,
  withFigure,
} from '@zabrik/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const refused = (act: () => unknown): string => {
  try {
    return JSON.stringify(act());
  } catch (error) {
    return error instanceof Refusal ? error.code : error instanceof RangeError ? 'range' : String(error);
  }
};
const odd = [Number.NaN, Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
const block = { lengthMm: 200, widthMm: 80, heightMm: 40, sliceMm: 8, angleDeg: 0, bladeMm: 1, density: 1.05 };
const mould = {
  mould: { kind: 'ring', diameterMm: 80, heightMm: 40 } as const,
  moulds: 2,
  density: 1,
  fillShare: 1,
  liningMm: 0,
  liningDensity: 1,
  cookLossShare: 0.1,
  courses: [{ id: 'main', name: 'main', grams: 120 }],
};
const pot = { vessel: { kind: 'round', diameterMm: 260, heightMm: 230 } as const, litres: 8, fromC: 90 };
const room = { airC: 3, top: 10, side: 10, bottom: 10 };

describe('sums', () => {
  it('of slices, moulds, cooling, brines and strengths refuse what is no figure', () => {
    for (const x of odd) {
      for (const key of ['angleDeg', 'bladeMm', 'density', 'massMg'] as const)
        expect(
          refused(() => planSlices({ ...block, [key]: x })),
          key,
        ).toBe('not_a_figure');
      for (const key of ['density', 'moulds', 'fillShare', 'cookLossShare'] as const)
        expect(
          refused(() => planMould({ ...mould, [key]: x })),
          key,
        ).toBe('not_a_figure');
      expect(refused(() => coolingCurve({ ...pot, litres: x }, room, { minutes: 10 }))).toBe('not_a_figure');
      expect(refused(() => coolingCurve(pot, { ...room, airC: x }, { minutes: 10 }))).toBe('not_a_figure');
      expect(refused(() => concentrated(10, 8, x))).toBe('not_a_figure');
      expect(refused(() => believeShare({ mean: x, sd: 0.02 }, []))).toBe('not_a_figure');
      expect(refused(() => saltForBrine(5, x))).toBe('not_a_figure');
    }
    expect(refused(() => planMould({ ...mould, courses: [{ id: 'main', name: 'main', grams: 0 }] }))).toBe(
      'not_a_figure',
    );
    expect(refused(() => concentrated(10, 8, 0))).toBe('not_a_figure');
    expect(refused(() => saltForBrine(5, 0.4))).toBe('more_than_water_holds');
    expect(saltForBrine(5, SATURATED)).toBeGreaterThan(0);
  });

  it('leave out a record that is no number, and a pot of no size', () => {
    const known = believeShare({ mean: 0.3, sd: 0.02 }, [0.31, 0.29]);
    expect(believeShare({ mean: 0.3, sd: 0.02 }, [0.31, Number.NaN, 0.29])).toEqual(known);
    const due = potDue(
      {
        id: 'x',
        title: 'x',
        accepts: ['a', 'b'],
        refuses: [],
        caps: [{ category: 'a', maxShare: 1, reason: '' }],
        litresPerKg: 0,
      },
      [{ kind: 'a', massMg: 5_000 }],
      [0, Number.NaN],
    );
    expect(Object.values(due).every((v) => typeof v === 'boolean' || Number.isFinite(v))).toBe(true);
  });

  it('know no day and no lot that there is none of', () => {
    expect(refused(() => addDays('2026-02-30', 1))).toBe('range');
    expect(refused(() => addDays('2026-02-28', Number.NaN))).toBe('range');
    expect(addDays('2026-02-28', 1)).toBe('2026-03-01');
    for (const n of [-1, 1.5, Number.NaN]) expect(refused(() => lotCode(n))).toBe('range');
  });
});

describe('a claim and a cost', () => {
  const tolerance = { toleranceShare: 0.01, toleranceMg: 10_000 };
  const line = {
    id: 'a',
    netMg: 1_200_000,
    refusedMg: 200_000,
    invoiceMg: 1_000_000,
    paidMinor: 1_000,
    refused: false,
  };

  it('ask for nothing when what was kept is all that was invoiced', () => {
    expect(claimOf([line], tolerance).claimMinor).toBe(0);
    expect(costOfAccepted(line)).toBe(1_000);
    expect(claimOf([{ ...line, refusedMg: 400_000 }], tolerance).claimMinor).toBe(200);
    expect(costOfAccepted({ ...line, refusedMg: 400_000 })).toBe(800);
    expect(claimOf([{ ...line, invoiceMg: 0 }], tolerance).claimMinor).toBe(0);
  });

  it('add up: what is paid is the cost of what was kept and what was charged of what went back', () => {
    fc.assert(
      fc.property(
        fc.nat(3e6),
        fc.nat(3e6),
        fc.integer({ min: 1, max: 3e6 }),
        fc.nat(1e5),
        (net, back, invoice, paid) => {
          const l = {
            id: 'a',
            netMg: net,
            refusedMg: Math.min(back, net),
            invoiceMg: invoice,
            paidMinor: paid,
            refused: false,
          };
          const cost = costOfAccepted(l);
          expect(cost).toBeGreaterThanOrEqual(0);
          expect(cost).toBeLessThanOrEqual(paid);
          expect(claimOf([l], tolerance).claimMinor).toBeLessThanOrEqual(paid);
          if (net - l.refusedMg >= invoice) expect(claimOf([l], tolerance).claimMinor).toBe(0);
        },
      ),
    );
  });
});

describe('nothing unknown is within', () => {
  const limits = limitProfiles.flatMap((p) => p.limits);
  const ofKind = <K extends Limit['kind']>(kind: K) =>
    limits.filter((l): l is Extract<Limit, { kind: K }> => l.kind === kind);

  it('for temperatures, times, freezings, cookings and samples of every profile', () => {
    for (const x of odd) {
      for (const l of [...ofKind('max_temp'), ...ofKind('min_temp')]) {
        expect(judgeTemperature(l, { C: x }), l.id).not.toBe('within');
        expect(judgeTemperature(l, { C: 1 }, x), l.id).not.toBe('within');
      }
      for (const l of ofKind('time_limit')) expect(judgeTime(l, { hours: x }), l.id).not.toBe('within');
      for (const l of ofKind('cook_time_temp')) expect(judgeCooking(l, { C: x }, 99_999), l.id).not.toBe('within');
      for (const l of ofKind('freeze_treatment'))
        expect(judgeFreezing(l, { freezeC: -40, holdC: -40, holdHours: x, solid: true }), l.id).not.toBe('within');
      for (const l of ofKind('sampling_plan'))
        expect(judgeSamples(l, [...Array.from({ length: 20 }, () => 0), x]), l.id).not.toBe('within');
    }
    for (const l of ofKind('time_limit'))
      if (l.value.start_max_C !== undefined || l.value.never_above_C !== undefined)
        expect(judgeTime(l, { hours: 1 }), l.id).toBe('not-shown');
    for (const l of ofKind('freeze_treatment'))
      if (l.value.thickness_max_cm !== undefined)
        expect(judgeFreezing(l, { freezeC: -40, holdC: -40, holdHours: 999, solid: true }), l.id).toBe('not-shown');
  });

  it('and the shorter time of a warm reading is never longer than the house’s own', () => {
    for (const l of ofKind('exposure')) {
      const own = withFigure(l, 2);
      expect(own.kind === 'exposure' && own.value.then_max_h, l.id).toBeLessThanOrEqual(2);
    }
  });
});
