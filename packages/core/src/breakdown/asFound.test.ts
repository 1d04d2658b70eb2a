import { describe, expect, it } from 'vitest';
import { asPlanned, beliefAsFound, foundAfter, foundDespite, stageAsFound } from './asFound.ts';
import type { PlanPiece, PlanStage } from './plan.ts';
import { balanceStage, expectStage } from './stageState.ts';

const share = (mean: number) => ({ mean, sd: mean / 10, provenance: 'estimate', source: 'this test' }) as const;
const piece = (id: string, count: number, mean: number, more: Partial<PlanPiece> = {}): PlanPiece => ({
  id,
  name: id,
  count,
  category: 'crustacean-meat',
  share: share(mean),
  destination: 'larder',
  alternatives: [],
  refused: [],
  main: false,
  edible: true,
  ...more,
});
const stage: PlanStage = {
  id: 's1',
  name: 'Apart',
  minutes: { low: 1, typical: 2, high: 3 },
  drip: share(0.05),
  steps: [
    { title: 'Claws', orderMatters: true, guard: { warn: 'Hot still.', before: ['claws', 'body'] }, pieces: ['claws'] },
    { title: 'Roe', orderMatters: false, pieces: ['roe'] },
    { title: 'Body', orderMatters: true, guard: { warn: 'Roe still in.', before: ['roe'] }, pieces: ['body'] },
  ],
  pieces: [
    piece('claws', 2, 0.25, { units: ['crusher', 'cutter'] }),
    piece('roe', 1, 0.1),
    piece('body', 1, 0.6, { units: ['body'] }),
  ],
};
const rules = () => ({ edible: false, refused: [{ destination: 'portion' as const, reason: 'Not eaten' }] });
const without = (pieceId: string, units: number) => foundAfter(asPlanned, { kind: 'came-without', pieceId, units });
const sum = (s: PlanStage): number => s.pieces.reduce((total, p) => total + p.share.mean, s.drip.mean);
const scales = [{ id: 'bench', accuracyClass: 'III', intervalMg: 1_000, maxMg: 15_000_000 }] as const;

describe('a stage as it was found', () => {
  it('is the plan’s where nothing differs', () => {
    expect(stageAsFound(stage, asPlanned, 1, rules)).toBe(stage);
    expect(
      stageAsFound(stage, foundAfter(without('roe', 1), { kind: 'came-without', pieceId: 'roe', units: 0 }), 1, rules),
    ).toBe(stage);
  });

  it('without a piece: its share goes to all others and the drip, and no step or warning names it', () => {
    const found = stageAsFound(stage, without('roe', 1), 1, rules);
    expect(found.pieces.map((p) => p.id)).toEqual(['claws', 'body']);
    expect(found.pieces[1]?.share.mean).toBeCloseTo(0.6 / 0.9, 12);
    expect(found.pieces[1]?.share.sd).toBeCloseTo(0.06 / 0.9, 12);
    expect(sum(found)).toBeCloseTo(1, 12);
    // marks go by the number of a step: none may move
    expect(found.steps.map((s) => [s.title, s.pieces])).toEqual([
      ['Claws', ['claws']],
      ['Roe', []],
      ['Body', ['body']],
    ]);
    expect(found.steps[2]?.guard).toBeUndefined();
    expect(found.steps[0]?.guard?.before).toEqual(['claws', 'body']);
  });

  it('with one claw of two: half of it is expected, and one weight makes it whole', () => {
    const found = stageAsFound(stage, without('claws', 1), 1, rules);
    const claw = found.pieces[0];
    expect(claw).toMatchObject({ id: 'claws', count: 1 });
    expect(claw?.units).toBeUndefined();
    expect(claw?.share.mean).toBeCloseTo(0.125 / 0.875, 12);
    expect(sum(found)).toBeCloseTo(1, 12);
    const [next] = expectStage(found, 875_000, [], new Map());
    expect(next).toMatchObject({ pieceId: 'claws', openCount: 1 });
    expect(next?.nextMg).toBeCloseTo(125_000, -1);
    // of two crabs with three claws, three are looked for
    const two = stageAsFound(stage, without('claws', 1), 2, rules);
    expect((two.pieces[0]?.count ?? 0) * 2).toBe(3);
  });

  it('with a piece that the plan does not know: nobody expects it, it counts for what it weighs, and its kind says where it may go', () => {
    const found = stageAsFound(
      stage,
      foundAfter(asPlanned, {
        kind: 'other-piece',
        piece: { id: 'other-1', name: 'barnacles', category: 'crustacean-inedible', destination: 'waste' },
      }),
      1,
      rules,
    );
    expect(found.pieces.at(-1)).toMatchObject({
      name: 'barnacles',
      edible: false,
      main: false,
      refused: rules().refused,
    });
    expect(sum(found)).toBeCloseTo(1, 5);
    const weighed = [
      { id: 'a', pieceId: 'other-1', massMg: 100_000, replaces: null },
      { id: 'b', pieceId: 'claws', massMg: 225_000, count: 2, replaces: null },
    ];
    const expected = expectStage(found, 1_000_000, weighed, new Map());
    expect(expected.at(-1)).toMatchObject({ pieceId: 'other-1', remainingMg: 0 });
    // a tenth of the start is gone to what nobody expected: the body is expected to be that much lighter
    const before = expectStage(stage, 1_000_000, weighed.slice(1), new Map()).find((e) => e.pieceId === 'body');
    expect(expected.find((e) => e.pieceId === 'body')?.nextMg).toBeLessThan((before?.nextMg ?? 0) - 50_000);
    const all = [
      ...weighed,
      { id: 'c', pieceId: 'body', massMg: 540_000, replaces: null },
      { id: 'd', pieceId: 'roe', massMg: 90_000, replaces: null },
    ];
    expect(balanceStage(found, 1_000_000, all, scales).verdict).toBe('balanced');
    // said again, it takes the place of what was said
    const again = foundAfter(
      foundAfter(asPlanned, {
        kind: 'other-piece',
        piece: { id: 'o', name: 'a', category: 'c', destination: 'waste' },
      }),
      {
        kind: 'other-piece',
        piece: { id: 'o', name: 'b', category: 'c', destination: 'stock' },
      },
    );
    expect(again.others.map((o) => o.name)).toEqual(['b']);
  });

  it('what was weighed was there, whoever said that it was not', () => {
    const said = foundAfter(without('claws', 2), { kind: 'came-without', pieceId: 'roe', units: 1 });
    const now = (taken: [string, number][]) => foundDespite(said, stage, 1, new Map(taken)).cameWithout;
    expect(now([])).toEqual({ claws: 2, roe: 1 });
    expect(now([['claws', 1]])).toEqual({ claws: 1, roe: 1 });
    expect(
      now([
        ['roe', 0],
        ['claws', 2],
      ]),
    ).toEqual({});
  });

  it('a belief follows what is known now', () => {
    const belief = { mean: 0.66, sd: 0.03, records: 12 };
    expect(beliefAsFound(stage, belief, 'body', asPlanned, asPlanned, 1)).toBe(belief);
    expect(beliefAsFound(stage, belief, 'body', asPlanned, without('roe', 1), 1)?.mean).toBeCloseTo(0.66 / 0.9, 12);
    // and back again, when it was there after all
    const then = beliefAsFound(stage, { ...belief, mean: 0.66 / 0.9 }, 'body', without('roe', 1), asPlanned, 1);
    expect(then?.mean).toBeCloseTo(0.66, 12);
    expect(beliefAsFound(stage, belief, 'roe', without('roe', 1), asPlanned, 1)).toBeUndefined();
  });
});
