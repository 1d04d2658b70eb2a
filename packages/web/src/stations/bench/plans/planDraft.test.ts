import { planById } from '@zabrik/catalogue';
import { describe, expect, it } from 'vitest';
import { moved, without } from '../../../parts/rows.ts';
import {
  idFrom,
  newPiece,
  newStage,
  sharesMadeWhole,
  stageChanged,
  sumOfShares,
  warned,
  withoutPiece,
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

  it('warns of what comes off later, keeps the pieces it named, and forgets the guard with its words', () => {
    const [first, ...others] = joint.steps;
    if (first === undefined) throw new Error('no step');
    const { guard: _none, ...plain } = first;
    const stage = { ...joint, steps: [plain, ...others] };
    const step = warned(stage, plain, 'Still in.');
    const later = new Set(others.flatMap((s) => s.pieces));
    expect(step.orderMatters).toBe(true);
    expect(new Set(step.guard?.before)).toEqual(new Set([...later].filter((id) => !plain.pieces.includes(id))));
    expect(warned(stage, { ...step, guard: { warn: 'a', before: ['neck'] } }, 'b').guard).toEqual({
      warn: 'b',
      before: ['neck'],
    });
    expect(warned(stage, step, ' ')).toEqual({ ...plain, orderMatters: false });
  });

  it('takes a piece out of every step and every warning', () => {
    const guarded = joint.steps.flatMap((s) => s.guard?.before ?? [])[0] ?? '';
    expect(guarded).not.toBe('');
    const { pieces, steps } = withoutPiece(joint, guarded);
    expect(pieces.map((p) => p.id)).not.toContain(guarded);
    expect(JSON.stringify(steps)).not.toContain(`"${guarded}"`);
    expect(steps.length).toBe(joint.steps.length);
  });
});
