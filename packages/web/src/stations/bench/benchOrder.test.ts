import type { PlanPiece, PlanStage } from '@zabrik/core';
import { describe, expect, it } from 'vitest';
import { animalFor, animalNow, countNow, nextOpen, piecesInOrder, stepAt, wantedOf } from './benchOrder.ts';

const piece = (id: string, units = 1): PlanPiece => ({
  id,
  name: id,
  count: units,
  category: 'white-fish-portion',
  share: { mean: 0.2, sd: 0.02, provenance: 'estimate', source: 'test' },
  destination: 'portion',
  alternatives: [],
  refused: [],
  main: false,
  edible: true,
});
const step = (title: string, ...pieces: string[]) => ({ title, how: title, orderMatters: false, pieces });
const stage: PlanStage = {
  id: 's1',
  name: 'stage',
  minutes: { low: 1, typical: 2, high: 3 },
  steps: [
    step('fins', 'fins'),
    step('open it'),
    step('head', 'gills', 'head'),
    step('first', 'fillet'),
    step('second', 'fillet'),
    step('frame', 'frame'),
  ],
  pieces: [piece('head'), piece('gills'), piece('fillet', 2), piece('fins'), piece('frame'), piece('roe')],
  drip: { mean: 0.02, sd: 0.01, provenance: 'estimate', source: 'test' },
};
const taken = (counts: Record<string, number>): Map<string, number> => new Map(Object.entries(counts));

describe('the order of the bench', () => {
  it('takes pieces in the order the steps take them off, and what no step names at the end', () => {
    expect(piecesInOrder(stage).map((p) => p.id)).toEqual(['fins', 'gills', 'head', 'fillet', 'frame', 'roe']);
  });

  it('stands at the step after the last one that is weighed', () => {
    expect(stepAt(stage, taken({}))).toBe(0);
    expect(stepAt(stage, taken({ fins: 1 }))).toBe(1);
    expect(stepAt(stage, taken({ fins: 1, gills: 1 }))).toBe(1);
    expect(stepAt(stage, taken({ fins: 1, gills: 1, head: 1 }))).toBe(3);
    expect(stepAt(stage, taken({ fins: 1, gills: 1, head: 1, fillet: 1 }))).toBe(4);
    expect(stepAt(stage, taken({ fins: 1, gills: 1, head: 1, fillet: 2, frame: 1 }))).toBe(5);
  });

  it('goes on to the next piece that is open, round to the beginning, and to none when all are weighed', () => {
    const order = piecesInOrder(stage);
    expect(nextOpen(order, taken({ fins: 1 }), 'fins')?.id).toBe('gills');
    expect(nextOpen(order, taken({ fillet: 1 }), 'fillet')?.id).toBe('fillet');
    expect(nextOpen(order, taken({ frame: 1, roe: 1 }), 'frame')?.id).toBe('fins');
    expect(nextOpen(order, taken({ fins: 1, gills: 1, head: 1, fillet: 2, frame: 1, roe: 1 }), 'roe')).toBeUndefined();
  });
});

describe('a batch', () => {
  const leg = piece('leg', 2);
  const weighed = (animal: number, p: PlanPiece, count = 1) => ({ piece: p, count, animal });

  it('a piece picked by hand comes from the animal that lacks it, never a third fillet from one fish', () => {
    const fillet = piece('fillet', 2);
    const first = [weighed(1, fillet), weighed(1, fillet)];
    expect(animalFor(fillet, 1, [weighed(1, fillet)], 2)).toBe(1);
    expect(animalFor(fillet, 1, first, 2)).toBe(2);
    expect(animalFor(leg, 1, first, 2)).toBe(1);
    // both have both: what comes is put to the one in hand, and is more of it
    expect(animalFor(fillet, 1, [...first, weighed(2, fillet, 2)], 2)).toBe(1);
  });

  it('of a piece there is one of, a second weight is more of it and no second piece', () => {
    const frame = piece('frame', 1);
    expect(countNow(frame, 'one-by-one', 1, 0)).toBe(1);
    expect(countNow(frame, 'one-by-one', 1, 1)).toBe(0);
    expect(countNow(frame, 'one-by-one', 2, 1)).toBe(1);
    expect(countNow(frame, 'pooled', 4, 4)).toBe(0);
    // one more portion than the plan knows is one more
    expect(countNow(piece('portion', 8), 'one-by-one', 1, 8)).toBe(1);
  });

  it('weighs one unit, one animal’s or all that is left, by the way it is worked', () => {
    expect(countNow(leg, 'one-by-one', 10, 3)).toBe(1);
    expect(countNow(leg, 'pooled', 10, 4)).toBe(16);
    expect(countNow(leg, 'by-animal', 10, 0)).toBe(1);
    expect(countNow(piece('slice', 300), 'one-by-one', 1, 0)).toBe(300);
    expect(countNow({ ...piece('portion', 6), main: true }, 'one-by-one', 1, 0)).toBe(1);
    expect(countNow({ ...leg, accumulates: true }, 'pooled', 10, 0)).toBe(1);
  });

  it('counts the units of all animals, and picked meat as one', () => {
    expect(wantedOf(leg, 10)).toBe(20);
    expect(wantedOf({ ...leg, accumulates: true }, 10)).toBe(1);
  });

  it('stays with an animal until all of its pieces are weighed', () => {
    const order = [leg, piece('breast')];
    expect(animalNow(order, [], 3)).toBe(1);
    expect(animalNow(order, [weighed(1, leg), weighed(1, leg)], 3)).toBe(1);
    expect(animalNow(order, [weighed(1, leg, 2), weighed(1, order[1] ?? leg)], 3)).toBe(2);
  });
});
