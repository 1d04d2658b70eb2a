import { describe, expect, it } from 'vitest';
import { grams } from '../quantity/mass.ts';
import type { PlanStage } from './plan.ts';
import { balanceStage, expectStage } from './stageState.ts';

const piece = (id: string, mean: number, units = 1) => ({
  id,
  name: id,
  count: units,
  category: 'white-fish-portion',
  share: { mean, sd: 0.02, provenance: 'estimate', source: 'test' } as const,
  destination: 'portion' as const,
  alternatives: [],
  refused: [],
  main: false,
  edible: true,
});
const stage: PlanStage = {
  id: 's1',
  name: 's1',
  minutes: { low: 1, typical: 2, high: 3 },
  steps: [],
  pieces: [piece('head', 0.2), piece('fillet', 0.5, 2), piece('frame', 0.28)],
  drip: { mean: 0.02, sd: 0.008, provenance: 'estimate', source: 'test' },
};
const scale = [{ id: 'bench', accuracyClass: 'III', intervalMg: grams(1), maxMg: grams(15_000) }] as const;
const w = (id: string, pieceId: string | null, g: number | null, replaces: string | null = null) => ({
  id,
  pieceId,
  massMg: g === null ? null : grams(g),
  replaces,
});

describe('a stage from its weighings', () => {
  it('counts a correction in place of what it replaces, and an undo as nothing', () => {
    const weighings = [w('a', 'head', 500), w('b', 'head', 400, 'a'), w('c', 'fillet', 480), w('d', null, null, 'c')];
    const balance = balanceStage(stage, grams(2_000), weighings, scale);
    expect(balance.weighedMg).toBe(grams(400));
    expect(
      expectStage(stage, grams(2_000), weighings, new Map()).find((e) => e.pieceId === 'fillet')?.remainingMg,
    ).toBe(grams(1_000));
  });

  it('takes the house’s belief where there is one, the plan’s share where there is none', () => {
    const own = new Map([['fillet', { mean: 0.46, sd: 0.02, records: 30 }]]);
    const [head, fillet] = expectStage(stage, grams(2_000), [], own);
    expect(fillet?.records).toBe(30);
    expect(fillet?.remainingMg).toBeLessThan(grams(1_000));
    expect(head?.records).toBe(0);
  });

  it('what was joined to a piece is weighed with it, and is no yield of the animal', () => {
    const joined = new Map([['fillet', grams(60)]]);
    const of = (weighings: ReturnType<typeof w>[], to = joined) =>
      new Map(expectStage(stage, grams(2_000), weighings, new Map(), 1, to).map((e) => [e.pieceId, e]));
    const plain = of([], new Map());
    const before = of([]);
    // half of it is in each fillet; the head knows nothing of it
    expect(before.get('fillet')?.nextMg).toBe((plain.get('fillet')?.nextMg ?? 0) + grams(30));
    expect(before.get('fillet')?.remainingMg).toBe((plain.get('fillet')?.remainingMg ?? 0) + grams(60));
    expect(before.get('fillet')?.high95Mg).toBe((plain.get('fillet')?.high95Mg ?? 0) + grams(30));
    expect(before.get('head')).toEqual(plain.get('head'));
    // a fillet of 530 g is one of 500 g to all that follows
    const after = of([w('a', 'fillet', 530)]);
    const bare = of([w('a', 'fillet', 500)], new Map());
    expect(after.get('frame')).toEqual(bare.get('frame'));
    expect(after.get('fillet')?.nextMg).toBe((bare.get('fillet')?.nextMg ?? 0) + grams(30));
    const weighed = [w('a', 'head', 400), w('b', 'fillet', 530), w('c', 'fillet', 530), w('d', 'frame', 560)];
    expect(balanceStage(stage, grams(2_000), weighed, scale)).toMatchObject({ verdict: 'gain' });
    expect(balanceStage(stage, grams(2_000), weighed, scale, 1, grams(60))).toMatchObject({
      verdict: 'balanced',
      unaccountedMg: grams(40),
    });
  });

  it('names the second fillet when only the second fillet is missing', () => {
    const balance = balanceStage(
      stage,
      grams(2_000),
      [w('a', 'head', 400), w('b', 'fillet', 500), w('c', 'frame', 560)],
      scale,
    );
    expect(balance).toMatchObject({ verdict: 'short', likeliestPieceId: 'fillet' });
  });
});
