import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { grams } from '../quantity/mass.ts';
import { isPaused, type TimeMark, workedMinutes } from './benchTime.ts';
import { guardsBefore } from './orderGuard.ts';
import { pickingPace } from './pickingPace.ts';
import type { PlanStage } from './plan.ts';

const at = (minutes: number): Date => new Date(Date.UTC(2026, 10, 25, 9, minutes));

describe('time at the bench', () => {
  const mark = (kind: TimeMark['kind'], minutes: number): TimeMark => ({ kind, at: at(minutes) });

  it('leaves pauses out, and an open pause until now', () => {
    expect(workedMinutes(at(0), at(30), [])).toBe(30);
    expect(workedMinutes(at(0), at(30), [mark('pause', 10), mark('resume', 25)])).toBe(15);
    expect(workedMinutes(at(0), at(30), [mark('pause', 20)])).toBe(20);
  });

  it('is not moved by a second pause within a pause, a resume without one, or marks before the start', () => {
    const marks = [mark('resume', 2), mark('pause', 10), mark('pause', 12), mark('resume', 20)];
    expect(workedMinutes(at(0), at(30), marks)).toBe(20);
    expect(workedMinutes(at(15), at(30), marks)).toBe(10);
  });

  it('is never below nothing nor above the clock, whatever the marks', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('pause' as const, 'resume' as const), fc.integer({ min: -20, max: 80 }))),
        (raw) => {
          const minutes = workedMinutes(
            at(0),
            at(60),
            raw.map(([kind, m]) => mark(kind, m)),
          );
          expect(minutes).toBeGreaterThanOrEqual(0);
          expect(minutes).toBeLessThanOrEqual(60);
        },
      ),
    );
  });

  it('says whether it stands paused', () => {
    expect(isPaused([])).toBe(false);
    expect(isPaused([mark('resume', 9), mark('pause', 5)])).toBe(false);
    expect(isPaused([mark('pause', 5)])).toBe(true);
  });
});

const piece = (id: string) => ({
  id,
  name: id,
  count: 1,
  category: 'poultry-portion',
  share: { mean: 0.3, sd: 0.02, provenance: 'estimate', source: 'test' } as const,
  destination: 'portion' as const,
  alternatives: [],
  refused: [],
  main: true,
  edible: true,
});
const duck: PlanStage = {
  id: 's1',
  name: 'Joint',
  minutes: { low: 1, typical: 2, high: 3 },
  drip: { mean: 0.02, sd: 0.01, provenance: 'estimate', source: 'test' },
  steps: [
    { title: 'Giblets', orderMatters: true, pieces: ['neck'], guard: { warn: 'Giblets still in', before: ['breast'] } },
    { title: 'Wishbone', orderMatters: true, pieces: [], guard: { warn: 'Wishbone still in', before: ['breast'] } },
    { title: 'Breasts', orderMatters: false, pieces: ['breast'] },
  ],
  pieces: [piece('neck'), piece('breast')],
};

describe('the order guard', () => {
  const warns = (marks: Parameters<typeof guardsBefore>[2], weighed: string[], id = 'breast') =>
    guardsBefore(duck, id, marks, new Set(weighed)).map((g) => g.warn);

  it('warns before the harm, and only of the piece it is about', () => {
    expect(warns([], [])).toEqual(['Giblets still in', 'Wishbone still in']);
    expect(warns([], [], 'neck')).toEqual([]);
  });

  it('takes a weight as proof that a step is done, and a mark where nothing is weighed', () => {
    expect(warns([], ['neck'])).toEqual(['Wishbone still in']);
    expect(warns([{ step: 1, mark: 'done' }], ['neck'])).toEqual([]);
    expect(warns([{ step: 1, mark: 'skipped' }], ['neck'])).toEqual([]);
  });

  it('warns again when a mark is taken back, and never after the piece is off', () => {
    expect(
      warns(
        [
          { step: 1, mark: 'done' },
          { step: 1, mark: 'open' },
        ],
        ['neck'],
      ),
    ).toEqual(['Wishbone still in']);
    expect(warns([], ['breast'])).toEqual([]);
  });
});

describe('picking', () => {
  const clock = (from: Date, to: Date): number => workedMinutes(from, to, []);

  it('works out the pace over all and lately, and forecasts from lately', () => {
    const picked = [
      { at: at(5), massMg: grams(80) },
      { at: at(15), massMg: grams(60) },
      { at: at(28), massMg: grams(24) },
    ];
    const pace = pickingPace(picked, at(0), at(30), grams(500), clock);
    expect(pace.totalMg).toBe(grams(164));
    expect(pace.mgPerMinute).toBeCloseTo(grams(164) / 30, 6);
    expect(pace.recentMgPerMinute).toBeCloseTo(grams(24) / 12, 6);
    expect(pace.nextMg).toBe(grams(20));
  });

  it('never forecasts more than the animal should still hold, and has no pace without time', () => {
    const picked = [{ at: at(1), massMg: grams(90) }];
    expect(pickingPace(picked, at(0), at(2), grams(12), clock).nextMg).toBe(grams(12));
    expect(pickingPace([], at(0), at(0), grams(12), clock)).toMatchObject({ mgPerMinute: 0, nextMg: 0 });
  });
});
