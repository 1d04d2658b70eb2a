import { planById } from '@zabrik/catalogue';
import { describe, expect, it } from 'vitest';
import {
  idFrom,
  moved,
  newPiece,
  newStage,
  sharesMadeWhole,
  stageChanged,
  sumOfShares,
  without,
  withText,
} from './planDraft.ts';

const duck = planById.get('duck-whole');
if (duck === undefined) throw new Error('no duck');
const [joint] = duck.stages;
if (joint === undefined) throw new Error('no stage');

describe('editing a plan', () => {
  it('leaves the old plan alone', () => {
    const before = structuredClone(duck);
    const after = stageChanged(duck, 0, { name: 'Another', steps: moved(joint.steps, 0, 1) });
    expect(after.stages[0]?.steps[1]?.title).toBe(joint.steps[0]?.title);
    expect(duck).toEqual(before);
  });

  it('moves nothing beyond the ends', () => {
    expect(moved([1, 2, 3], 0, -1)).toEqual([1, 2, 3]);
    expect(moved([1, 2, 3], 2, 1)).toEqual([1, 2, 3]);
    expect(without([1, 2, 3], 1)).toEqual([1, 3]);
  });

  it('brings shares back to one when a piece was taken away', () => {
    const fewer = { ...joint, pieces: joint.pieces.slice(2) };
    expect(sumOfShares(duck, fewer)).toBeLessThan(0.95);
    expect(sumOfShares(duck, sharesMadeWhole(duck, fewer))).toBeCloseTo(1, 3);
  });

  it('names what is new without clashing, and drops what is emptied', () => {
    expect(newPiece(['piece-2']).id).not.toBe('piece-2');
    expect(newStage(['s1', 's2']).id).toBe('s3');
    expect(withText({ title: 'a', why: 'b' }, 'why', ' ')).toEqual({ title: 'a' });
    expect(idFrom('Our hake: “Steaks”, ½ kg!')).toBe('our-hake-steaks-1-2-kg');
    expect(idFrom('***')).toBe('plan');
  });
});
