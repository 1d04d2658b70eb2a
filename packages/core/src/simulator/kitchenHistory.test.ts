import { describe, expect, it } from 'vitest';
import type { CutPlan, PlanPiece, Species } from '../breakdown/plan.ts';
import { kitchenHistory, type SimulatorSettings, splitIntoUnits } from './index.ts';
import { seededRandom } from './random.ts';

const piece = (id: string, mean: number, main: boolean, units = 1): PlanPiece => ({
  id,
  name: id,
  count: units,
  category: 'white-fish-portion',
  share: { mean, sd: mean * 0.06, provenance: 'estimate', source: 'test' },
  destination: 'portion',
  alternatives: [],
  refused: [],
  main,
  edible: true,
});
const plan: CutPlan = {
  id: 'plan',
  version: 1,
  title: 'plan',
  body: 'round-fish',
  skill: 2,
  starts: [{ species: 'hake', forms: ['whole'] }],
  tools: [],
  stages: [
    {
      id: 's1',
      name: 's1',
      minutes: { low: 4, typical: 6, high: 10 },
      steps: [],
      pieces: [piece('fillet', 0.5, true, 2), piece('frame', 0.3, false), piece('head', 0.185, false)],
      drip: { mean: 0.015, sd: 0.006, provenance: 'estimate', source: 'test' },
    },
  ],
};
const hake: Species = {
  id: 'hake',
  name: 'Hake',
  scientific: 'M. m.',
  group: 'round-fish',
  allergen: 'fish',
  forms: [{ id: 'whole', name: 'whole', purchase: true, whole: true, typicalG: 2_200 }],
  yields: [],
  inspection: [],
};
const settings: SimulatorSettings = {
  seed: 'a kitchen',
  today: new Date('2026-11-24T12:00:00Z'),
  days: 180,
  count: 400,
  items: [{ species: hake, form: 'whole', plan, minorPerKg: 1_000 }],
  suppliers: [
    { id: 'steady', species: ['hake'], driftPerMonth: 0 },
    { id: 'drifting', species: ['hake'], driftPerMonth: -0.02 },
  ],
  cutters: [
    { id: 'good', leftOnFrame: 0 },
    { id: 'learner', leftOnFrame: 0.06 },
  ],
  intervalMg: 1_000,
};
const history = kitchenHistory(settings);
const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
const yieldOf = (b: (typeof history)[number]): number =>
  b.weighings.filter((w) => w.pieceId === 'fillet').reduce((sum, w) => sum + w.massMg, 0) / b.startMg;

describe('a simulated kitchen’s history', () => {
  it('is the same for the same seed, and another for another', () => {
    expect(kitchenHistory(settings)).toEqual(history);
    expect(kitchenHistory({ ...settings, seed: 'another' })).not.toEqual(history);
  });

  it('ends before today, in order, with work after its delivery', () => {
    expect(history).toHaveLength(400);
    history.forEach((b, i) => {
      expect(b.closedAt.getTime()).toBeGreaterThan(b.startedAt.getTime());
      expect(b.startedAt.getTime()).toBeGreaterThan(b.receivedAt.getTime());
      expect(b.closedAt.getTime()).toBeLessThan(settings.today.getTime());
      expect(b.receivedAt.getTime()).toBeGreaterThanOrEqual(history[Math.max(0, i - 1)]?.receivedAt.getTime() ?? 0);
    });
  });

  it('weighs in whole intervals that never outweigh the fish by more than rounding', () => {
    for (const b of history) {
      const sum = b.weighings.reduce((total, w) => total + w.massMg, 0);
      for (const w of b.weighings) expect(w.massMg % 1_000).toBe(0);
      expect(sum).toBeLessThanOrEqual(b.startMg + b.weighings.length * 500);
      expect(sum).toBeGreaterThan(b.startMg * 0.9);
    }
  });

  it('shows the learner below the good hand, and the drifting supplier falling while the other holds', () => {
    const of = (wanted: (b: (typeof history)[number], i: number) => boolean): number =>
      mean(history.filter(wanted).map(yieldOf));
    expect(of((b) => b.cutterId === 'good') - of((b) => b.cutterId === 'learner')).toBeGreaterThan(0.015);
    const fall = (supplier: string): number =>
      of((b, i) => b.supplierId === supplier && i < 200) - of((b, i) => b.supplierId === supplier && i >= 200);
    expect(fall('drifting')).toBeGreaterThan(0.008);
    expect(Math.abs(fall('steady'))).toBeLessThan(0.01);
  });

  it('splits a piece into units that add up to it', () => {
    for (let mass = 1; mass < 400_000; mass += 33_333)
      expect(splitIntoUnits(mass, 4, seededRandom(`${mass}`)).reduce((a, b) => a + b, 0)).toBe(mass);
  });
});
